// npm run faults [-- kills|read-only|full-disk|hostile] [--kills N] [--seed N]: faults tried for real, on a throw-away
// Logistra: processes killed at random moments while screens tick and rolls come in, a database that takes nothing in, a
// full disk, hostile input. With --cluster: load and faults on a whole cluster (faults-cluster.mjs). Prints what was promised, what was kept, and ends with an error when they differ.
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { lockedSession, startRunning, ticksOf } from '../bench/running.mjs';
import { tryCluster } from './faults-cluster.mjs';
import { tryHostile } from './hostile.mjs';
import { tryOddActions } from './odd-actions.mjs';
import { randomFrom } from './random.mjs';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    kills: { type: 'string', default: '100' },
    seed: { type: 'string', default: String(Date.now() % 1e6) },
    cluster: { type: 'boolean', default: false },
  },
});
const [only] = positionals;
const wants = (part) => !values.cluster && (only === undefined || only === part);
const seed = Number(values.seed);
const random = randomFrom(seed);
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const failures = [];

function check(what, holds, found = '') {
  console.log(`  ${holds ? 'kept' : 'BROKEN'}: ${what}${found === '' ? '' : ` (${found})`}`);
  if (!holds) failures.push(what);
}

/** A screen at the bench: ticks now and then, keeps each tick until it is acknowledged, sends it again until then. */
function screen(running, sessionId, ticks, every) {
  const state = { waiting: [], acknowledged: new Set(), refusals: new Set(), going: true };
  const tick = () => state.waiting.push({ ...ticks[Math.floor(random() * ticks.length)], id: randomUUID() });
  const timer = setInterval(tick, every);
  state.ended = (async () => {
    while (state.going || state.waiting.length > 0) {
      const batch = state.waiting.slice(0, 200);
      if (batch.length > 0) {
        const response = await fetch(`${running.address}/api/bench/${sessionId}/ticks`, {
          method: 'POST',
          headers: { ...running.headers, 'content-type': 'application/json' },
          body: JSON.stringify({ ticks: batch }),
          signal: AbortSignal.timeout(8000),
        }).catch(() => null);
        if (response?.ok) {
          await response.arrayBuffer().catch(() => {});
          for (const { id } of batch) state.acknowledged.add(id);
          state.waiting.splice(0, batch.length);
        } else if (response) {
          const text = await response.text().catch(() => '');
          state.refusals.add(`${response.status} ${text.slice(0, 240)}`);
        }
      }
      await pause(60);
    }
  })();
  state.stop = () => {
    state.going = false;
    clearInterval(timer);
    return state.ended;
  };
  return state;
}

/** Brings rolls in, one after another, each into a course of its own, sent again with the same key until answered. */
function importer(running, people) {
  const state = { courses: [], going: true, answered: 0 };
  const rows = Array.from({ length: people }, (_, n) => `Person ${n},2,${n % 5 ? '' : 'milk'}`).join('\n');
  const until = async (work) => {
    for (;;) {
      try {
        return await work();
      } catch {
        await pause(200);
      }
    }
  };
  state.ended = (async () => {
    while (state.going) {
      const [key, other] = [randomUUID(), randomUUID()];
      const once = { 'idempotency-key': key };
      const { id } = await until(() =>
        running.api('POST', '/courses', { title: `Roll ${key}` }, 'application/json', once),
      );
      state.courses.push(id);
      const { saved } = await until(() =>
        running.api('POST', `/courses/${id}/roll`, `name,servings,avoids\n${rows}\n`, 'text/csv', {
          'idempotency-key': other,
        }),
      );
      if (saved === people) state.answered++;
    }
  })();
  state.stop = () => {
    state.going = false;
    return state.ended;
  };
  return state;
}

/** Waits until everything answers again. @returns how long it took, in milliseconds */
async function whole(running, before) {
  const start = performance.now();
  for (;;) {
    const health = await fetch(`${running.address}/api/health`, { signal: AbortSignal.timeout(2000) }).catch(
      () => null,
    );
    if (health?.ok && (before === undefined || running.pids.worker !== before)) return performance.now() - start;
    if (performance.now() - start > 60_000) throw new Error('The service did not come back within a minute.');
    await pause(50);
  }
}

async function kills(running, times) {
  console.log(`\nKilled at random moments, ${times} times each: web server, background process, database`);
  const { sessionId, sheet } = await lockedSession(running, 60, 'Killed');
  const ticks = ticksOf(sheet);
  const screens = Array.from({ length: 5 }, () => screen(running, sessionId, ticks, 150));
  const rolls = importer(running, 300);
  const jobs = new Set();
  const back = { web: [], worker: [], database: [] };
  for (const target of ['web', 'worker', 'database']) {
    for (let n = 0; n < times; n++) {
      if (n % 4 === 0) {
        const job = await running.api('POST', `/sessions/${sessionId}/labels/print`, { paper: 'a4' }).catch(() => null);
        if (job) jobs.add(job.jobId);
      }
      await pause(random() * 500);
      const pid = target === 'database' ? Number(readFileSync(running.databasePidFile, 'utf8')) : running.pids[target];
      try {
        process.kill(pid, 'SIGKILL');
      } catch {
        continue;
      }
      back[target].push(await whole(running, target === 'worker' ? pid : undefined));
    }
    const sorted = [...back[target]].sort((a, b) => a - b);
    const seconds = (part) => ((sorted[Math.floor((sorted.length - 1) * part)] ?? 0) / 1000).toFixed(1);
    console.log(
      `  ${target}: ${sorted.length} times killed, back by itself after ${seconds(0.5)} s (at most ${seconds(1)} s)`,
    );
  }
  await rolls.stop();
  await Promise.all(screens.map((one) => one.stop()));

  const { events } = await running.api('GET', `/sessions/${sessionId}/ticks`);
  const saved = new Map();
  for (const { id } of events) saved.set(id, (saved.get(id) ?? 0) + 1);
  const acknowledged = screens.flatMap((one) => [...one.acknowledged]);
  const lost = acknowledged.filter((id) => !saved.has(id)).length;
  const doubled = [...saved.values()].filter((count) => count > 1).length;
  check('no acknowledged tick lost', lost === 0, `${acknowledged.length} acknowledged, ${lost} lost`);
  check('none doubled', doubled === 0 && saved.size === acknowledged.length, `${saved.size} saved, ${doubled} doubled`);
  check(
    'one order without gaps',
    events.every(({ seq }, index) => seq === index + 1),
  );
  const counts = new Map();
  for (const courseId of rolls.courses) {
    const { items } = await running.api('GET', `/courses/${courseId}/roll?limit=200`);
    const more =
      items.length === 200
        ? await running.api('GET', `/courses/${courseId}/roll?limit=200&after=${items.at(-1).id}`)
        : { items: [] };
    const count = items.length + more.items.length;
    counts.set(count, (counts.get(count) ?? 0) + 1);
  }
  const half = [...counts.keys()].filter((count) => count !== 0 && count !== 300);
  check('no half import', half.length === 0, `${rolls.answered} of ${rolls.courses.length} rolls of 300 acknowledged`);
  check('every acknowledged import is there', (counts.get(300) ?? 0) >= rolls.answered);
  const courses = [];
  for (let next = '/courses?limit=200'; next; ) {
    const page = await running.api('GET', next);
    courses.push(...page.items.filter(({ title }) => title.startsWith('Roll ')));
    next = page.next?.replace('/api/v1', '');
  }
  check('no course doubled', courses.length === rolls.courses.length, `${courses.length} made`);
  const open = async () => {
    const states = await Promise.all([...jobs].map((id) => running.api('GET', `/jobs/${id}`)));
    return states.filter(({ state }) => state !== 'done' && state !== 'failed');
  };
  // A job whose worker was killed or lost the database rests a moment before it is tried again.
  for (let n = 0; n < 600 && (await open()).length > 0; n++) await pause(500);
  const states = await Promise.all([...jobs].map((id) => running.api('GET', `/jobs/${id}`)));
  const done = states.filter(({ state }) => state === 'done').length;
  check(
    'every print job taken up again and ended',
    states.every(({ state }) => state === 'done' || state === 'failed'),
    `${done} of ${jobs.size} printed${sayReasons(states)}`,
  );
}

/** Why jobs failed, each reason once with how often. */
function sayReasons(states) {
  const counts = new Map();
  for (const { state, result } of states)
    if (state === 'failed') counts.set(result?.why, (counts.get(result?.why) ?? 0) + 1);
  return [...counts].map(([why, count]) => `; ${count} given up: ${why}`).join('');
}

/** A database that takes nothing in, in some way: what is told meanwhile, and what is there afterwards. */
async function closed(running, what, close, open) {
  console.log(`\n${what}`);
  const { sessionId, courseId, sheet } = await lockedSession(running, 40, what);
  const one = screen(running, sessionId, ticksOf(sheet), 100);
  await pause(1500);
  const before = one.acknowledged.size;
  await close();
  one.refusals.clear();
  // A database whose disk is full may try again for seconds before it says so, or gives up and starts anew.
  for (let n = 0; n < 10 || (n < 60 && one.refusals.size === 0); n++) await pause(400);
  const edit = await running.api('POST', '/courses', { title: 'While closed' }).then(
    () => null,
    (error) => error,
  );
  const roll = await running.api('POST', `/courses/${courseId}/roll`, 'name,servings\nLate Comer,2\n', 'text/csv').then(
    () => null,
    (error) => error,
  );
  const page = await fetch(`${running.address}/sign-in`);
  // Where there is still a little room, a small write may go through: what matters is what is told when one does not.
  const refusals = [...one.refusals, ...[edit, roll].filter(Boolean).map(({ status, text }) => `${status} ${text}`)];
  const clear = /^503 .*(disk is full, or it is read-only|not answering)/;
  check(
    'what is refused says why in clear words',
    refusals.length > 0 && refusals.every((said) => clear.test(said)),
    refusals.find((said) => !clear.test(said)) ?? refusals[0] ?? 'nothing was refused',
  );
  check(
    'screens are told, and keep their ticks',
    one.refusals.size > 0 && one.waiting.length > 0,
    `${one.waiting.length} kept`,
  );
  check('pages are still served', page.ok);
  await open();
  await whole(running);
  await one.stop();
  const { events } = await running.api('GET', `/sessions/${sessionId}/ticks`);
  const saved = new Set(events.map(({ id }) => id));
  const lost = [...one.acknowledged].filter((id) => !saved.has(id)).length;
  check(
    'nothing lost, nothing doubled',
    lost === 0 && events.length === saved.size && saved.size === one.acknowledged.size,
    `${before} before, ${saved.size} in all`,
  );
  await running.api('POST', '/courses', { title: 'Open again' });
  check('and it goes on by itself', true);
}

async function readOnly() {
  const running = await startRunning();
  try {
    await closed(
      running,
      'A database that is read-only',
      () => running.asRoot('SET GLOBAL read_only = 1'),
      () => running.asRoot('SET GLOBAL read_only = 0'),
    );
  } finally {
    await running.stop();
  }
}

/** A small file system of its own, filled to the last block. */
async function fullDisk() {
  const folder = mkdtempSync(path.join(tmpdir(), 'logistra-disk-'));
  const mount = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=320m', 'tmpfs', folder], { encoding: 'utf8' });
  if (mount.status !== 0) {
    console.log(`\nA full disk: not tried, this machine lets nobody mount a small one (${mount.stderr.trim()})`);
    rmSync(folder, { recursive: true });
    return;
  }
  const running = await startRunning({ folder: path.join(folder, 'running') });
  const ballast = path.join(folder, 'ballast');
  try {
    await closed(
      running,
      'A full disk',
      () => {
        const { bavail, bsize } = statfsSync(folder);
        try {
          writeFileSync(ballast, Buffer.alloc(bavail * bsize));
        } catch {
          // Full: as wanted.
        }
        // Fill what tables still have free, until the database itself says that it is full.
        return fill(running);
      },
      () => rmSync(ballast, { force: true }),
    );
  } finally {
    await running.stop();
    spawnSync('umount', [folder]);
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Brings in large rolls until one is refused. */
async function fill(running) {
  const rows = Array.from(
    { length: 2000 },
    (_, n) => `Person ${n} ${'x'.repeat(60)},2,"${'plain words; '.repeat(20)}"`,
  );
  for (let n = 0; n < 60; n++) {
    try {
      const { id } = await running.api('POST', '/courses', { title: `Filling ${n}` });
      await running.api('POST', `/courses/${id}/roll`, `name,servings,avoids\n${rows.join('\n')}\n`, 'text/csv');
    } catch {
      return;
    }
  }
}

console.log(`Faults, seed ${seed}`);
const started = performance.now();
if (wants('hostile') || wants('kills')) {
  const running = await startRunning();
  try {
    if (wants('hostile')) {
      await tryHostile(running, check);
      await tryOddActions(running, check);
    }
    if (wants('kills')) await kills(running, Number(values.kills));
  } finally {
    await running.stop();
  }
}
if (wants('read-only')) await readOnly();
if (wants('full-disk')) await fullDisk();
if (values.cluster) await tryCluster(check);
console.log(
  `\n${failures.length === 0 ? 'Everything promised was kept' : `BROKEN: ${failures.join('; ')}`}, after ${Math.round((performance.now() - started) / 60_000)} minutes.`,
);
process.exit(failures.length === 0 ? 0 : 1);
