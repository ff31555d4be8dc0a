// npm start: from a fresh clone, or a used one, to a running Logistra. Ctrl-C stops all of it.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { startDatabase } from './database.mjs';
import {
  DATA,
  ensureBuild,
  ensureDataFolder,
  ensurePackages,
  freePort,
  isAlive,
  ROOT,
  run,
  StepFailed,
  say,
  startWeb,
} from './system.mjs';

const dev = process.argv.includes('--dev');
const stateFile = path.join(DATA, 'running.json');
let database;
let web;
let ending = false;

async function end(code) {
  if (ending) return;
  ending = true;
  if (code === 0) say('Stopping …');
  await web?.stop();
  await database?.stop();
  rmSync(stateFile, { force: true });
  if (code === 0) say('Stopped. Everything is kept in .data for the next start.');
  process.exit(code);
}

/** A web server that outlived a start that was killed would keep the port and know an old database. */
async function endOrphanServer(pid) {
  const cmdline = `/proc/${pid}/cmdline`;
  if (!pid || !existsSync(cmdline) || !readFileSync(cmdline, 'utf8').includes('next')) return;
  say('Ending a web server left over from a start that was cut short …');
  process.kill(pid, 'SIGTERM');
  for (let i = 0; i < 100 && isAlive(pid); i++) await new Promise((r) => setTimeout(r, 100));
}

process.on('SIGINT', () => void end(0));
process.on('SIGTERM', () => void end(0));
process.on('SIGHUP', () => void end(0));

try {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new StepFailed(`Node.js ${process.versions.node} is too old`, 'install Node.js 20.19 or newer.');
  }
  ensureDataFolder();
  if (existsSync(stateFile)) {
    const running = JSON.parse(readFileSync(stateFile, 'utf8'));
    const answers = await fetch(`${running.address}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (answers && isAlive(running.pid)) {
      say(`Logistra is already running at ${running.address} (process ${running.pid}).`);
      process.exit(0);
    }
    await endOrphanServer(running.webPid);
  }
  ensurePackages();
  say('Starting the database …');
  database = await startDatabase({ folder: DATA, databases: ['logistra'] });
  const env = { DATABASE_URL: database.urls.logistra, SESSION_SECRET: database.sessionSecret };
  say('Bringing the tables up to date …');
  const prepared = run(process.execPath, ['--import', 'tsx', 'scripts/prepare.ts'], {
    env: { ...process.env, ...env },
  });
  for (const line of prepared.split('\n').filter(Boolean)) say(line);
  if (!dev) ensureBuild();
  const wanted = Number(process.env.PORT ?? 3000);
  const port = await freePort(wanted);
  say('Starting the web server …');
  web = await startWeb({ port, env, dev });
  web.child.once('exit', () => {
    if (ending) return;
    console.error('· The web server ended unexpectedly. Run npm start again; nothing saved is lost.');
    void end(1);
  });
  writeFileSync(
    stateFile,
    JSON.stringify({ pid: process.pid, webPid: web.child.pid, databasePort: database.port, address: web.address }),
  );
  const signIns = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/sign-ins.ts'], {
    cwd: ROOT,
    env: { ...process.env, ...env },
    encoding: 'utf8',
  }).stdout;
  console.log(`\n  Logistra is ready:  ${web.address}\n${signIns}\n  Ctrl-C stops it.\n`);
} catch (error) {
  console.error(`\n${error instanceof StepFailed ? error.message : error.stack}\n`);
  await end(1);
}
