// Beside each node of the database: answers a load balancer whether that node is level with the others and takes writes.
// Settings come from the environment: DATABASE_PORT, DATABASE_PASSWORD, HEALTH_PORT; DATABASE_USER and HEALTH_HOST where they are other
// than "logistra" and this machine alone.
import { createServer } from 'node:http';
import { isLevel } from './level.mjs';

const { DATABASE_PORT, DATABASE_USER: user, DATABASE_PASSWORD: password, HEALTH_PORT, HEALTH_HOST } = process.env;
const port = Number(DATABASE_PORT);

createServer(async (_request, response) => {
  const level = await isLevel({ port, user, password }).catch(() => false);
  response.writeHead(level ? 200 : 503, { 'content-type': 'text/plain' });
  response.end(level ? 'level\n' : 'not level\n');
}).listen(Number(HEALTH_PORT), HEALTH_HOST ?? '127.0.0.1', () => process.send?.('ready'));

process.on('message', (message) => {
  if (message === 'are you there?') process.send?.('here');
});
for (const end of ['SIGTERM', 'SIGINT', 'disconnect']) process.on(end, () => process.exit(0));
