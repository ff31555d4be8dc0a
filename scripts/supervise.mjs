// Keeps a child process of Logistra alive: started again when it dies, stopped in order when we stop.
import { spawn } from 'node:child_process';
import os from 'node:os';
import { ROOT, StepFailed, stopChild } from './system.mjs';

/**
 * Starts a Node process that says "ready" over IPC, and starts it again whenever it ends by itself, or hangs: one that does
 * not say that it is there for `hangs` milliseconds is ended from outside, since it cannot end itself.
 *
 * @param name what it is, said when it ends unexpectedly
 * @param args arguments to Node
 * @param env its environment, beside ours
 * @param onPid called with the process number each time it starts
 * @returns when it is ready, with `stop()` and the present process number
 */
export async function supervise(name, args, env, { show = false, onPid = () => {}, hangs = LONGEST_HANG } = {}) {
  let child;
  let stopping = false;
  let log = '';
  let pause = 200;
  /** One that never got ready is not started again: its cause has to be mended first. */
  let wasReady = false;

  const launch = () =>
    new Promise((resolve, reject) => {
      child = spawn(process.execPath, args, {
        cwd: ROOT,
        env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
        stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
        // A process group of its own: Ctrl-C reaches this script first, which then stops everything in order.
        detached: true,
      });
      onPid(child.pid);
      const started = Date.now();
      const keep = (stream, isLoud) => (chunk) => {
        log = (log + chunk).slice(-4000);
        if (isLoud) stream.write(chunk);
      };
      child.stdout.on('data', keep(process.stdout, show || process.env.LOGISTRA_LOG));
      child.stderr.on('data', keep(process.stderr, true));
      let watch;
      child.once('message', () => {
        wasReady = true;
        watch = watchOver(name, child, hangs);
        resolve();
      });
      child.once('exit', (code, signal) => {
        clearInterval(watch);
        if (stopping) return;
        if (!wasReady) return reject(new Error(`it ended with ${signal ?? code}`));
        console.error(`· ${name} ended unexpectedly (${signal ?? code}); starting it again …`);
        // A process that dies again and again is not started as fast as the machine can.
        pause = Date.now() - started > 10_000 ? 200 : Math.min(pause * 1.5, 2000);
        setTimeout(() => !stopping && launch().catch(() => {}), pause);
      });
    });

  const timeout = new Promise((_, reject) =>
    setTimeout(() => reject(new Error('no answer in a minute')), 60_000).unref(),
  );
  try {
    await Promise.race([launch(), timeout]);
  } catch (error) {
    stopping = true;
    await stopChild(child);
    throw new StepFailed(`${name} did not start (${error.message}):\n${log}`, 'mend the cause named above.');
  }
  return {
    get pid() {
      return child.pid;
    },
    /** Ended in order, and started again: as when a new version is put in its place. */
    async restart() {
      stopping = true;
      await stopChild(child);
      stopping = false;
      wasReady = false;
      await launch();
    },
    async stop() {
      stopping = true;
      await stopChild(child);
    },
  };
}

/** The server answers everybody else within this, whatever one asks of it: past it, it hears nobody. */
const LONGEST_HANG = 20_000;

/** Asks a process again and again whether it is there, and ends it when it has not said so for too long. */
function watchOver(name, child, hangs) {
  let heard = performance.now();
  child.on('message', (message) => {
    if (message === 'here') heard = performance.now();
  });
  let asked = 0;
  return setInterval(() => {
    // Where this machine slept, the asking slept too: silence counts only while it was asked.
    const now = performance.now();
    if (now - asked > hangs / 2) heard = now;
    asked = now;
    if (now - heard > hangs) {
      console.error(`· ${name} has not answered for ${Math.round((now - heard) / 1000)} s; ending it …`);
      child.kill('SIGKILL');
    } else if (child.connected) child.send('are you there?', () => {});
  }, hangs / 5);
}

/**
 * How the web server's memory is cleared up: seldom, since everybody waits meanwhile. What a request leaves behind dies young in a
 * space (64 MB) that holds seconds of it; and the whole is not gone through again and again to give a little back.
 */
const MEMORY = ['--min-semi-space-size=64', '--max-semi-space-size=64', '--no-memory-reducer'];

/** Starts the web server and waits until it listens. */
export async function startWeb({ host = '127.0.0.1', port, env, tls = null, dev = false, onPid }) {
  const name = host === '0.0.0.0' || host === '::' ? os.hostname() : host.includes(':') ? `[${host}]` : host;
  const address = `${tls ? 'https' : 'http'}://${name}:${port}`;
  const settings = {
    PUBLIC_ADDRESS: address,
    HOST: host,
    PORT: String(port),
    NODE_ENV: dev ? 'development' : 'production',
    ...(dev ? { LOGISTRA_DEV: '1' } : {}),
    ...(tls ? { TLS_CERT: tls.cert, TLS_KEY: tls.key } : {}),
    ...env,
  };
  const web = await supervise('The web server', [...MEMORY, 'scripts/serve.mjs'], settings, { show: dev, onPid });
  return {
    address,
    get pid() {
      return web.pid;
    },
    restart: web.restart,
    stop: web.stop,
  };
}

/** Starts the background process, which takes jobs from their table. */
export const startWorker = ({ env, dev = false, onPid }) =>
  supervise('The background process', ['--import', 'tsx', 'src/jobs/run.ts'], env, { show: dev, onPid });
