// npm start: from a fresh clone, or a used one, to a running Logistra. Ctrl-C stops all of it.
//   --empty            no demo: a database of one's own, and a one-time link for the first coordinator
//   --host ADDRESS     serve tablets on the local network, over TLS (--cert FILE --key FILE for one's own certificate)
//   --dev              reload while developing
// DATABASE_URL=mysql://… uses an outside MariaDB: tables are made there, never a demo.
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { certificateFor } from './certificate.mjs';
import { startDatabase } from './database.mjs';
import { KEYS, metricsToken, readSecrets } from './keys.mjs';
import { startWeb, startWorker } from './supervise.mjs';
import {
  DATA,
  ensureBuild,
  ensureDataFolder,
  ensurePackages,
  freePort,
  isAlive,
  run,
  StepFailed,
  say,
} from './system.mjs';

const stateFile = path.join(DATA, 'running.json');
let database;
let web;
let worker;
let ending = false;

async function end(code) {
  if (ending) return;
  ending = true;
  if (code === 0) say('Stopping …');
  await Promise.all([web?.stop(), worker?.stop()]);
  await database?.stop();
  rmSync(stateFile, { force: true });
  if (code === 0) say('Stopped. Everything is kept for the next start.');
  process.exit(code);
}

function readOptions() {
  try {
    const { values } = parseArgs({
      options: {
        empty: { type: 'boolean', default: false },
        dev: { type: 'boolean', default: false },
        host: { type: 'string' },
        cert: { type: 'string' },
        key: { type: 'string' },
      },
    });
    return values;
  } catch (error) {
    throw new StepFailed(error.message, 'npm start -- [--empty] [--host ADDRESS [--cert FILE --key FILE]]');
  }
}

/** A process that outlived a start that was killed would keep the port and know an old database. */
async function endLeftOver(pid, script) {
  const cmdline = `/proc/${pid}/cmdline`;
  if (!pid || !existsSync(cmdline) || !readFileSync(cmdline, 'utf8').includes(script)) return;
  say(`Ending a process left over from a start that was cut short (${script}) …`);
  process.kill(pid, 'SIGTERM');
  for (let i = 0; i < 100 && isAlive(pid); i++) await new Promise((r) => setTimeout(r, 100));
}

async function leaveIfRunning() {
  if (!existsSync(stateFile)) return;
  const { pid, webPid, workerPid, address } = JSON.parse(readFileSync(stateFile, 'utf8'));
  const cmdline = `/proc/${pid}/cmdline`;
  if (existsSync(cmdline) && readFileSync(cmdline, 'utf8').includes('start.mjs')) {
    say(`Logistra is already running at ${address} (process ${pid}).`);
    process.exit(0);
  }
  await endLeftOver(webPid, 'serve.mjs');
  await endLeftOver(workerPid, 'jobs/run.ts');
}

/** The outside database named by DATABASE_URL, or a private one: the demo's, or with --empty one's own. */
async function openDatabase(empty) {
  if (process.env.DATABASE_URL) {
    say('Using the database named by DATABASE_URL …');
    return { url: process.env.DATABASE_URL, isDemo: false };
  }
  say('Starting the database …');
  database = await startDatabase({ folder: DATA, keys: KEYS, databases: ['logistra', 'logistra_demo'] });
  return { url: empty ? database.urls.logistra : database.urls.logistra_demo, isDemo: !empty };
}

process.on('SIGINT', () => void end(0));
process.on('SIGTERM', () => void end(0));
process.on('SIGHUP', () => void end(0));

try {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new StepFailed(`Node.js ${process.versions.node} is too old`, 'install Node.js 20.19 or newer.');
  }
  const { empty, dev, host, cert, key } = readOptions();
  ensureDataFolder();
  await leaveIfRunning();
  ensurePackages();
  const tls = host ? certificateFor(host, { cert, key }) : null;
  const { url, isDemo } = await openDatabase(empty);
  const env = {
    DATABASE_URL: url,
    SESSION_SECRET: readSecrets(KEYS, DATA).session,
    METRICS_TOKEN: metricsToken(KEYS),
    ...(tls ? { LOGISTRA_TLS: '1' } : {}),
  };
  const script = (file, ...args) =>
    run(process.execPath, ['--import', 'tsx', `scripts/${file}.ts`, ...args], { env: { ...process.env, ...env } });
  say('Bringing the tables up to date …');
  for (const line of script('prepare', ...(isDemo ? ['--demo'] : []))
    .split('\n')
    .filter(Boolean))
    say(line);
  if (!dev) ensureBuild();
  const port = await freePort(Number(process.env.PORT ?? 3000), host);
  const state = { pid: process.pid, database: url.split('/').at(-1), databasePort: database?.port };
  const keep = (change) => writeFileSync(stateFile, JSON.stringify(Object.assign(state, change)), { mode: 0o600 });
  say('Starting the web server and the background process …');
  [web, worker] = await Promise.all([
    startWeb({ host, port, env, tls, dev, onPid: (webPid) => keep({ webPid }) }),
    startWorker({ env, dev, onPid: (workerPid) => keep({ workerPid }) }),
  ]);
  keep({ address: web.address });
  console.log(`\n  Logistra is ready:  ${web.address}\n${script('welcome', web.address)}`);
  if (tls) console.log(`  Certificate, SHA-256 fingerprint (compare it on each tablet):\n    ${tls.fingerprint}\n`);
  if (tls && isDemo)
    console.log('  These demo passwords are known to everybody: use --empty before real families are in it.\n');
  console.log('  Ctrl-C stops it.\n');
} catch (error) {
  console.error(`\n${error instanceof StepFailed ? error.message : error.stack}\n`);
  await end(1);
}
