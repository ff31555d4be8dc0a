// npm run password-link -- E-MAIL: a link under which a member of the running Logistra sets a new password.
import { runBeside } from './running.mjs';

runBeside('password-link', (address) => [address, ...process.argv.slice(2)]);
