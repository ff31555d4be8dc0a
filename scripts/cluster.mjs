// npm run cluster: Logistra as it would stand on six machines, on one: three nodes of the database, two web servers, two background
// processes, and a balancer before them, all on loopback, with data of their own. Ctrl-C stops all of it.
//   --empty       no demo: a programme of one's own, and a one-time link for its first coordinator
//   --port PORT   where browsers reach it
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { startFront, startWay } from './balancer.mjs';
import { certificateFor } from './certificate.mjs';
import { KEYS, metricsToken, readSecrets } from './keys.mjs';
import { startWeb, startWorker, supervise } from './supervise.mjs';
import { DATA, ensureBuild, ensureDataFolder, ensurePackages, freePort, run, StepFailed, say } from './system.mjs';

const HOST = '127.0.0.1';

/**
 * Starts the whole of it.
 *
 * @param folder where data are kept
 * @param keys where secrets are kept
 * @returns how it is reached, its parts by name, and `stop()`
 */
export async function startCluster({ folder, keys, empty = false, port: wanted = 8443, quiet = false }) {
  // Needs packages that a fresh machine lacks: loaded once they are there.
  const { startGalera } = await import('./galera.mjs');
  const tell = quiet ? () => {} : say;
  mkdirSync(folder, { recursive: true, mode: 0o755 });
  const name = empty ? 'logistra' : 'logistra_demo';
  tell('Starting three nodes of the database …');
  const galera = await startGalera({
    folder: path.join(folder, 'nodes'),
    keys,
    databases: ['logistra', 'logistra_demo'],
    quiet,
  });
  const secrets = readSecrets(keys);
  const parts = { healths: [], ways: [], webs: [], workers: [] };
  const stop = async () => {
    await parts.balancer?.stop();
    await Promise.all([...parts.webs, ...parts.workers].map((part) => part.stop()));
    await Promise.all([...parts.ways, ...parts.healths].map((part) => part.stop()));
    await galera.stop();
  };
  try {
    parts.healths = await Promise.all(
      galera.nodes.map((node) =>
        supervise(`What watches node ${node.name}`, ['scripts/node-health.mjs'], {
          DATABASE_PORT: String(node.port),
          DATABASE_PASSWORD: secrets.database,
          HEALTH_PORT: String(node.health),
        }),
      ),
    );
    const port = await freePort(wanted);
    const address = `https://${HOST}:${port}`;
    const tls = certificateFor(HOST, {}, folder);
    const webs = [];
    // Of each machine with a web server: its port, that of its way to the database, and where ways hear from one another.
    for (const own of ['web-1', 'web-2'])
      webs.push({ name: own, port: await freePort(), database: await freePort(), peer: await freePort() });
    const nodes = galera.nodes.map(({ name: own, port: at, health }) => ({ name: own, port: at, health }));
    const peers = webs.map(({ name: own, peer }) => ({ name: own, port: peer }));
    parts.ways = webs.map(({ name: own, database }) => startWay({ folder, name: own, port: database, peers, nodes }));
    parts.balancer = startFront({ folder, tls, host: HOST, port, webs });
    const urlOf = ({ database }) => `mysql://logistra:${secrets.database}@${HOST}:${database}/${name}`;
    const env = {
      DATABASE_URL: urlOf(webs[0]),
      SESSION_SECRET: secrets.session,
      METRICS_TOKEN: metricsToken(keys),
      LOGISTRA_TLS: '1',
      TRUSTED_PROXY: HOST,
      PUBLIC_ADDRESS: address,
    };
    const script = (file, ...args) =>
      run(process.execPath, ['--import', 'tsx', `scripts/${file}.ts`, ...args], { env: { ...process.env, ...env } });
    tell('Bringing the tables up to date …');
    for (const { database } of webs) await untilOpen(database);
    script('prepare', ...(empty ? [] : ['--demo']));
    tell('Starting two web servers and two background processes …');
    parts.webs = await Promise.all(
      webs.map((web) => startWeb({ port: web.port, env: { ...env, DATABASE_URL: urlOf(web), SERVER_NAME: web.name } })),
    );
    parts.workers = await Promise.all(
      webs.map((web, at) =>
        startWorker({ env: { ...env, DATABASE_URL: urlOf(web), SERVER_NAME: `background-${at + 1}` } }),
      ),
    );
    await untilReady(webs);
    return {
      address,
      env,
      tls,
      galera,
      webs: webs.map((web, at) => ({ ...web, pid: () => parts.webs[at].pid, restart: () => parts.webs[at].restart() })),
      workers: parts.workers,
      balancer: parts.balancer,
      ways: parts.ways,
      welcome: () => script('welcome', address),
      stop,
    };
  } catch (error) {
    await stop();
    throw error;
  }
}

/** Waits until the balancer has found a node that is well. */
async function untilOpen(port) {
  const { default: mysql } = await import('mysql2/promise');
  for (let n = 0; n < 100; n++) {
    const open = await mysql
      .createConnection({ host: HOST, port, user: 'nobody', connectTimeout: 1000 })
      .then(() => true)
      // Refused by the database itself: it is there.
      .catch((error) => error.code === 'ER_ACCESS_DENIED_ERROR');
    if (open) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new StepFailed('no node of the database is well', 'see the logs of the nodes.');
}

async function untilReady(webs) {
  for (const { port } of webs) {
    for (let n = 0; ; n++) {
      const ready = await fetch(`http://${HOST}:${port}/readyz`).catch(() => null);
      if (ready?.ok) break;
      if (n > 150)
        throw new StepFailed('a web server is not ready', 'run it again with LOGISTRA_LOG=1 and read what it says.');
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
  }
}

/** A second start would end the nodes of the first. */
function leaveIfRunning(stateFile) {
  if (!existsSync(stateFile)) return;
  const { pid, address } = JSON.parse(readFileSync(stateFile, 'utf8'));
  const cmdline = `/proc/${pid}/cmdline`;
  if (!existsSync(cmdline) || !readFileSync(cmdline, 'utf8').includes('cluster.mjs')) return;
  say(`The cluster is already running at ${address} (process ${pid}).`);
  process.exit(0);
}

/** Run as a command, and not loaded by another. */
if (process.argv[1] === import.meta.filename) {
  let cluster;
  let ending = false;
  const folder = path.join(DATA, 'cluster');
  const stateFile = path.join(folder, 'running.json');
  const end = async (code) => {
    if (ending) return;
    ending = true;
    if (code === 0) say('Stopping …');
    await cluster?.stop();
    rmSync(stateFile, { force: true });
    if (code === 0) say('Stopped. Everything is kept for the next start.');
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));
  try {
    const { values } = parseArgs({ options: { empty: { type: 'boolean', default: false }, port: { type: 'string' } } });
    ensureDataFolder();
    leaveIfRunning(stateFile);
    ensurePackages();
    ensureBuild();
    cluster = await startCluster({
      folder,
      keys: path.join(KEYS, 'cluster'),
      empty: values.empty,
      port: Number(values.port ?? 8443),
    });
    const { address, webs, galera, tls } = cluster;
    writeFileSync(stateFile, JSON.stringify({ pid: process.pid, address }), { mode: 0o600 });
    console.log(`\n  Logistra is ready:  ${address}\n${cluster.welcome()}`);
    console.log(`  Certificate, SHA-256 fingerprint:\n    ${tls.fingerprint}\n`);
    for (const { name, port } of webs) console.log(`  ${name}:  http://${HOST}:${port}  (/healthz, /readyz, /metrics)`);
    for (const { name, port } of galera.nodes) console.log(`  node ${name}:  ${HOST}:${port}`);
    console.log(
      `\n  The token for /metrics stands in ${path.relative(process.cwd(), path.join(KEYS, 'cluster', 'metrics.token'))}.`,
    );
    console.log('  Ctrl-C stops it.\n');
  } catch (error) {
    console.error(`\n${error instanceof StepFailed ? error.message : error.stack}\n`);
    await end(1);
  }
}
