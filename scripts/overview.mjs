// npm run overview -- list | city NAME | add CITY PROGRAMME | out PROGRAMME | person CITY E-MAIL NAME | operator E-MAIL NAME | end E-MAIL: cities with
// their programmes, and who looks over them or after the installation.
import { runBeside } from './running.mjs';

runBeside('overview', (address) => [address, ...process.argv.slice(2)]);
