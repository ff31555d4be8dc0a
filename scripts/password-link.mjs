// npm run password-link -- E-MAIL [--without-code]: a link under which a member of the running Logistra sets a new password;
// with --without-code, signing in no longer asks them for a code.
import { runBeside } from './running.mjs';

runBeside('password-link', (address) => [address, ...process.argv.slice(2)]);
