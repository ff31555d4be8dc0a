// npm run token [name] [role] [days]: makes an API token for the running database, and shows it once.
import { runBeside } from './running.mjs';

runBeside('token', () => process.argv.slice(2));
