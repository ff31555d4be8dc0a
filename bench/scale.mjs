// npm run scale: what a programme costs, measured on a running Logistra with a city's programmes in it, and from that a simulation of
// larger cities in their busiest hour: how many web servers, how large a node, and what fills up first.
import { readdirSync, readFileSync } from 'node:fs';
import mysql from 'mysql2/promise';
import { spentBy } from '../scripts/host.mjs';
import { askerOf } from '../scripts/load.mjs';
import { randomFrom } from '../scripts/random.mjs';
import { ROOT, run } from '../scripts/system.mjs';
import { startRunning } from './running.mjs';

const MEASURED = { programmes: 100, people: 10_000, sessions: 200, benches: 20 };
const SECONDS = 8;
const TOGETHER = 4;

/**
 * In the busiest hour, a second and a programme: a fifth has a bench that ticks once a second, a quarter somebody who opens a page every
 * five; a tenth hands out with two phones that ask every 1.5 seconds, a tenth has a class with two screens that ask every 0.6; each
 * takes in a roll and has a roster worked out twice.
 */
const RATES = { page: 0.05, tick: 0.2, poll: 0.45, roll: 0.0005, roster: 0.0005 };
/** Web servers and nodes of this many cores; a core is not planned to be busy for more than a part of the time. */
const WEB_CORES = 2;
const NODE_CORES = [2, 4, 8, 16, 32, 64];
const MOST_BUSY = 0.6;
const GOALS = { page: 400, tick: 400 };
/** A commit waits for the other nodes: see "A city's week on a cluster" (plain rows, median). */
const COMMIT_MS = 8;
const SAVES = new Set(['tick', 'roll']);
/** Sessions of a programme in a year: two a week while schools are open. */
const SESSIONS_A_YEAR = 80;

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** A process and its children. */
const familyOf = (pid) => [
  pid,
  ...readdirSync('/proc').filter((each) => {
    if (!/^\d+$/.test(each)) return false;
    try {
      const stat = readFileSync(`/proc/${each}/stat`, 'utf8');
      return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]) === pid;
    } catch {
      return false;
    }
  }),
];

/** Does one kind of thing for some seconds, a few at once. @returns how many, and processor time of each part for one, in milliseconds */
async function costOf(work, parts) {
  const warm = performance.now() + 2000;
  let n = 0;
  const go = (end) =>
    Promise.all(
      Array.from({ length: TOGETHER }, async () => {
        while (performance.now() < end) {
          const answer = await work(n);
          n += 1;
          if (answer.status >= 300) throw new Error(`${answer.status} ${answer.text.slice(0, 200)}`);
        }
      }),
    );
  await go(warm);
  const before = Object.fromEntries(Object.entries(parts).map(([name, pids]) => [name, spentBy(pids())]));
  const first = n;
  await go(performance.now() + SECONDS * 1000);
  const each = (name) => (spentBy(parts[name]()) - before[name]) / (n - first);
  return { n: n - first, web: each('web'), pool: each('pool'), database: each('database') };
}

async function measure() {
  const running = await startRunning();
  const db = await mysql.createConnection(running.url);
  try {
    const before = await bytesOf(db);
    const args = ['--import', 'tsx', 'scripts/city.ts', ...Object.values(MEASURED).map(String)];
    const env = { ...process.env, DATABASE_URL: running.url, SESSION_SECRET: running.secret };
    const city = JSON.parse(
      run(process.execPath, args, { cwd: ROOT, env })
        .split('\n')
        .find((line) => line.startsWith('[{')),
    );
    const filled = await bytesOf(db);
    const ask = askerOf(running.address);
    const database = Number(readFileSync(running.databasePidFile, 'utf8'));
    const parts = {
      web: () => [running.pids.web],
      pool: () => familyOf(running.pids.web).slice(1),
      database: () => [database],
    };
    const json = (token) => ({ authorization: `Bearer ${token}`, 'content-type': 'application/json' });
    const benches = city.filter(({ ticks }) => ticks.length > 0);
    const pages = ['/', '/calendar', '/courses', '/recipes', '/crew', '/shelves', '/programme'];
    const costs = {
      page: await costOf((n) => {
        const { cookie } = city[n % city.length];
        return ask('GET', pages[n % pages.length], { headers: { cookie, accept: 'text/html' } });
      }, parts),
      tick: await costOf((n) => {
        const { token, ticks, sessionIds } = benches[n % benches.length];
        const at = Math.floor(n / benches.length);
        const [kitId, component] = ticks[at % ticks.length];
        const action = Math.floor(at / ticks.length) % 2 === 0 ? 'packed' : 'undone';
        const body = JSON.stringify({ ticks: [{ id: crypto.randomUUID(), kitId, component, action }] });
        return ask('POST', `/api/bench/${sessionIds[0]}/ticks`, { headers: json(token), body });
      }, parts),
      poll: await costOf((n) => {
        const { token, sessionIds } = benches[n % benches.length];
        return ask('GET', `/api/table/${sessionIds[0]}/events?after=0`, { headers: json(token) });
      }, parts),
      roll: await costOf(async (n) => {
        const { token } = city[n % city.length];
        const rows = Array.from({ length: 100 }, (_, row) => `Newcomer ${row},2,`).join('\n');
        const headers = (type) => ({
          authorization: `Bearer ${token}`,
          'content-type': type,
          'idempotency-key': crypto.randomUUID(),
        });
        const made = await ask('POST', '/api/v1/courses', {
          headers: headers('application/json'),
          body: JSON.stringify({ title: `Roll ${n}` }),
        });
        const { id } = JSON.parse(made.text);
        return ask('POST', `/api/v1/courses/${id}/roll`, {
          headers: headers('text/csv'),
          body: `name,servings,avoids\n${rows}\n`,
        });
      }, parts),
      roster: await costOf((n) => {
        const body = readFileSync(`${ROOT}/tests/cases/roster-term.json`, 'utf8');
        return ask('POST', '/api/v1/compute/roster', { headers: json(city[n % city.length].token), body, seconds: 60 });
      }, parts),
    };
    const ticks = await bytesOfTick(db, ask, benches, json);
    return {
      costs,
      regular: await regularCost(db, running.pids.worker, database),
      bytes: { session: (filled - before) / MEASURED.sessions, tick: ticks },
    };
  } finally {
    await db.end();
    await running.stop();
  }
}

async function bytesOf(db) {
  const [tables] = await db.query('SHOW TABLES');
  for (const table of tables) await db.query(`ANALYZE TABLE \`${Object.values(table)[0]}\``);
  const [[row]] = await db.query(
    'SELECT SUM(data_length + index_length) AS bytes FROM information_schema.tables WHERE table_schema = DATABASE()',
  );
  return Number(row.bytes);
}

/** Bytes that a tick takes up, of as many as make their table large. */
async function bytesOfTick(db, ask, benches, json) {
  const before = await bytesOf(db);
  const BATCHES = 400;
  for (let n = 0; n < BATCHES; n++) {
    const { token, ticks, sessionIds } = benches[n % benches.length];
    const sent = Array.from({ length: 100 }, (_, at) => {
      const [kitId, component] = ticks[at % ticks.length];
      return {
        id: crypto.randomUUID(),
        kitId,
        component,
        action: Math.floor(at / ticks.length) % 2 ? 'undone' : 'packed',
      };
    });
    const body = JSON.stringify({ ticks: sent });
    const { status, text } = await ask('POST', `/api/bench/${sessionIds[0]}/ticks`, { headers: json(token), body });
    if (status >= 300) throw new Error(`${status} ${text.slice(0, 200)}`);
  }
  return ((await bytesOf(db)) - before) / (100 * BATCHES);
}

/** What goes on by itself in an hour, of all programmes at once. @returns milliseconds of processor time for one programme */
async function regularCost(db, worker, database) {
  const waiting = async () =>
    Number((await db.query("SELECT COUNT(*) AS n FROM job WHERE state IN ('waiting', 'running')"))[0][0].n);
  while ((await waiting()) > 0) await pause(200);
  const before = [spentBy([worker]), spentBy([database])];
  const kinds = "SELECT 'ask the crew' AS kind UNION SELECT 'look at classes' UNION SELECT 'ask families'";
  const [{ affectedRows: jobs }] = await db.query(
    `INSERT INTO job (id, programme_id, kind, input, state, attempts, progress, cancel_asked, created_at, not_before, request)
     SELECT UUID(), p.id, k.kind, '{}', 'waiting', 0, 0, 0, NOW(3), NOW(3), '' FROM programme p JOIN (${kinds}) k`,
  );
  while ((await waiting()) > 0) await pause(100);
  const each = (at, pid) => (3 * (spentBy([pid]) - before[at])) / jobs;
  return { worker: each(0, worker), database: each(1, database), jobs };
}

/**
 * Plays a minute of the busiest hour: each thing that is asked takes half of its web time on a core of some web server, then a core of
 * the node, then the rest of its web time; a saved one waits for the other nodes besides. Who finds all cores taken waits in line.
 *
 * @returns 95 of 100 are answered within, in milliseconds, by kind; and how busy the cores were
 */
function play({ costs, programmes, webs, nodeCores, seconds = 60, seed = 7 }) {
  const random = randomFrom(seed);
  const kinds = Object.keys(RATES);
  const arrivals = kinds.flatMap((kind) => {
    const times = [];
    // The roster is worked out by niced processes beside the server: it takes what is left.
    if (kind === 'roster') return [];
    for (let at = 0; ; ) {
      at += (-Math.log(1 - random()) / (RATES[kind] * programmes)) * 1000;
      if (at > seconds * 1000) return times;
      times.push({ kind, at });
    }
  });
  const pools = [Array(webs * WEB_CORES).fill(0), Array(nodeCores).fill(0)];
  const busy = [0, 0];
  const spent = Object.fromEntries(kinds.map((kind) => [kind, []]));
  // Steps in order of the moment at which they may begin.
  const steps = arrivals.map(({ kind, at }) => ({ kind, begun: at, at, step: 0 }));
  const heap = heapOf(steps);
  // Some take longer than others: as long as a random one of the same mean.
  const varied = (mean) => -Math.log(1 - random()) * mean;
  while (heap.size > 0) {
    const one = heap.pop();
    const { web, pool, database } = costs[one.kind];
    const isNode = one.step === 1;
    const cores = pools[isNode ? 1 : 0];
    const work = varied(isNode ? database : (web + (one.kind === 'roll' ? pool : 0)) / 2);
    let free = 0;
    for (let core = 1; core < cores.length; core++) if (cores[core] < cores[free]) free = core;
    const from = Math.max(one.at, cores[free]);
    cores[free] = from + work;
    busy[isNode ? 1 : 0] += work;
    const end = from + work + (isNode && SAVES.has(one.kind) ? COMMIT_MS : 0);
    if (one.step === 2) spent[one.kind].push(end - one.begun);
    else heap.push({ ...one, at: end, step: one.step + 1 });
  }
  const p95 = (values) => values.sort((a, b) => a - b)[Math.floor(values.length * 0.95)] ?? 0;
  return {
    p95: Object.fromEntries(kinds.map((kind) => [kind, p95(spent[kind])])),
    web: busy[0] / (seconds * 1000 * webs * WEB_CORES),
    node: busy[1] / (seconds * 1000 * nodeCores),
  };
}

/** What comes first is taken first. */
function heapOf(items) {
  const heap = [];
  const swap = (a, b) => ([heap[a], heap[b]] = [heap[b], heap[a]]);
  const push = (item) => {
    heap.push(item);
    for (let at = heap.length - 1; at > 0; ) {
      const up = (at - 1) >> 1;
      if (heap[up].at <= heap[at].at) break;
      swap(at, up);
      at = up;
    }
  };
  const pop = () => {
    const top = heap[0];
    const last = heap.pop();
    if (heap.length > 0) {
      heap[0] = last;
      for (let at = 0; ; ) {
        const [left, right] = [2 * at + 1, 2 * at + 2];
        let least = at;
        if (left < heap.length && heap[left].at < heap[least].at) least = left;
        if (right < heap.length && heap[right].at < heap[least].at) least = right;
        if (least === at) break;
        swap(at, least);
        at = least;
      }
    }
    return top;
  };
  for (const item of items) push(item);
  return {
    get size() {
      return heap.length;
    },
    push,
    pop,
  };
}

/** The fewest web servers and the smallest node with which the goals are kept, and nothing is planned too full. */
function least(costs, programmes) {
  const keeps = ({ p95, web, node }) =>
    p95.page <= GOALS.page && p95.tick <= GOALS.tick && web <= MOST_BUSY && node <= MOST_BUSY;
  for (const nodeCores of NODE_CORES) {
    if (play({ costs, programmes, webs: 400, nodeCores }).node > MOST_BUSY) continue;
    for (let webs = 2; webs <= 400; webs = Math.ceil(webs * 1.1)) {
      const played = play({ costs, programmes, webs, nodeCores });
      if (keeps(played)) return { webs, nodeCores, ...played };
    }
  }
  return undefined;
}

const { costs, regular, bytes } = await measure();
const ms = (figure) => `${figure.toFixed(1)} ms`;
console.log('Processor time of one, measured (web server, process of the pool, database):');
for (const [kind, { n, web, pool, database }] of Object.entries(costs))
  console.log(`  ${kind}: ${ms(web)}, ${ms(pool)}, ${ms(database)} (${n} of them)`);
console.log(
  `What goes on by itself in a programme, an hour: ${ms(regular.worker)} of a background process, ${ms(regular.database)} of the database (${regular.jobs} jobs)`,
);
const yearly = SESSIONS_A_YEAR * (bytes.session + 1000 * bytes.tick);
console.log(
  `Data: ${(bytes.session / 1e6).toFixed(2)} MB a session with its people and its locked sheet, ${bytes.tick.toFixed(0)} bytes a tick; about ${(yearly / 1e6).toFixed(0)} MB a programme and year\n`,
);
for (const programmes of [200, 1_000, 2_500, 10_000]) {
  const found = least(costs, programmes);
  const solvers = (RATES.roster * programmes * costs.roster.pool) / 1000;
  const rest = `${(solvers / MOST_BUSY).toFixed(1)} cores for solvers, ${((programmes * regular.worker) / 3_600_000).toFixed(2)} of a core for what goes on by itself, ${((programmes * yearly) / 1e9).toFixed(0)} GB a year`;
  console.log(
    found
      ? `${programmes} programmes: ${found.webs} web servers of ${WEB_CORES} cores (${Math.round(found.web * 100)} % busy), nodes of ${found.nodeCores} cores (${Math.round(found.node * 100)} % busy); pages within ${found.p95.page.toFixed(0)} ms, ticks within ${found.p95.tick.toFixed(0)} ms (95 of 100); ${rest}; ${found.webs * 12 + 24} connections`
      : `${programmes} programmes: no node is large enough; ${rest}`,
  );
}
