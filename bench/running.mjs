// A Logistra of its own for measuring and for trying faults: throw-away, durable, with the demo in it.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { startDatabase } from '../scripts/database.mjs';
import { startWeb, startWorker } from '../scripts/supervise.mjs';
import { ensureBuild, freePort, run } from '../scripts/system.mjs';

/**
 * Starts database, web server and background process.
 *
 * @param folder where the database lies; one of its own under the system's folder for such things if left out
 * @returns address, an API token of a coordinator, process numbers, and `stop()`
 */
export async function startRunning({ folder = mkdtempSync(path.join(tmpdir(), 'logistra-running-')) } = {}) {
  ensureBuild();
  const database = await startDatabase({
    folder,
    keys: path.join(folder, 'keys'),
    databases: ['running'],
    quiet: true,
  });
  const env = { DATABASE_URL: database.urls.running, SESSION_SECRET: database.sessionSecret };
  const script = (...args) => run(process.execPath, ['--import', 'tsx', ...args], { env: { ...process.env, ...env } });
  script('scripts/prepare.ts', '--demo');
  const token = script('scripts/token.ts', 'measuring', 'coordinator', '7').split('\n')[0];
  const pids = {};
  const web = await startWeb({ port: await freePort(), env, onPid: (web) => Object.assign(pids, { web }) });
  const worker = await startWorker({ env, onPid: (worker) => Object.assign(pids, { worker }) });
  const headers = { authorization: `Bearer ${token}` };
  return {
    address: web.address,
    headers,
    url: env.DATABASE_URL,
    secret: env.SESSION_SECRET,
    pids,
    databasePidFile: database.pidFile,
    asRoot: database.asRoot,
    /** Sends one API request; an answer that is no success is an error. */
    async api(method, address, body, type = 'application/json', more = {}) {
      const response = await fetch(`${web.address}/api/v1${address}`, {
        method,
        headers: { ...headers, ...(body === undefined ? {} : { 'content-type': type }), ...more },
        body: body === undefined ? undefined : type === 'application/json' ? JSON.stringify(body) : body,
      });
      const text = await response.text();
      if (!response.ok)
        throw Object.assign(new Error(`${method} ${address}: ${response.status} ${text.slice(0, 300)}`), {
          status: response.status,
          text,
        });
      return JSON.parse(text);
    },
    async stop() {
      await Promise.all([web.stop(), worker.stop()]);
      await database.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** A course with one session of one demo dish, and so many people. @returns ids, and the locked sheet */
export async function lockedSession({ api }, people, name = 'Measured') {
  const course = await api('POST', '/courses', { title: name });
  const session = await api('POST', `/courses/${course.id}/sessions`, {
    title: name,
    date: new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10),
    startsAt: '16:00',
    minutes: 90,
    place: 'Net loft',
    mode: 'take-home',
  });
  const { items } = await api('GET', '/recipes');
  const dish = items.find(({ title }) => title === 'Lighthouse pasta with beans');
  await api('POST', `/sessions/${session.id}/dishes`, { recipeId: dish.id });
  const needs = ['', '', '', 'milk', 'egg', 'vegetarian'];
  const rows = Array.from({ length: people }, (_, n) => `Person ${n},${1 + (n % 4)},${needs[n % needs.length]}`);
  await api('POST', `/courses/${course.id}/roll`, `name,servings,avoids\n${rows.join('\n')}\n`, 'text/csv');
  const { basis } = await api('GET', `/sessions/${session.id}/kit-sheet`);
  await api('POST', `/sessions/${session.id}/kit-sheet/lock`, { basis });
  const sheet = await api('GET', `/sessions/${session.id}/kit-sheet`);
  return { courseId: course.id, sessionId: session.id, sheet };
}

/** Every component of every kit of a sheet, as ticks without ids. */
export const ticksOf = (sheet) =>
  sheet.kits.flatMap((kit) =>
    sheet.variants
      .find(({ letter }) => letter === kit.variant)
      .components.map(({ key }) => ({ kitId: kit.id, component: key, action: 'packed' })),
  );
