// npm run programme -- list | new NAME E-MAIL ZONE | export ID FILE | import FILE: the programmes of the running Logistra; one begun,
// with a link for its first coordinator; one taken out whole, or brought in from another installation.
import { runBeside } from './running.mjs';

runBeside('programme', (address) => [address, ...process.argv.slice(2)]);
