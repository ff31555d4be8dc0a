// npm run faults -- --cluster: load and faults on a whole cluster of its own: a city's week while a node, a web server, a background
// process and the balancer are killed, a node is frozen, and everything is started again in turn. Beside it the same load on one
// machine, and plain rows into the same three nodes.
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import mysql from 'mysql2/promise';
import { startRunning } from '../bench/running.mjs';
import { startCluster } from './cluster.mjs';
import { spentBy, stolen, stolenSince } from './host.mjs';
import { askerOf, beginLoad, lookFor, partOf } from './load.mjs';
import { ensureBuild, run } from './system.mjs';

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const ms = (figure) => `${figure.toFixed(0)} ms`;

/** What is tried: 200 programmes, 20,000 people, 400 sessions of one week, 40 benches. */
export const CITY = { programmes: 200, people: 20_000, sessions: 400, benches: 40 };
/** Servers that have just begun are slower than those of any other minute. */
const WARM_SECONDS = 40;
const QUIET_SECONDS = 40;
/** Benches go on within this, whatever fell. */
const MOST_WAIT = 15_000;
/** Pages, before and after the faults. */
const MOST_PAGE = 400;
const FROZEN_SECONDS = 20;

function fillCity(env, size) {
  const args = ['--import', 'tsx', 'scripts/city.ts', ...Object.values(size).map(String)];
  const out = run(process.execPath, args, { env: { ...process.env, ...env } });
  return JSON.parse(out.split('\n').find((line) => line.startsWith('[{')));
}

const KINDS = ['pages', 'ticks', 'hand-outs', 'answers', 'rolls of 100', 'solver'];

/**
 * A quiet part of the load, and how much of the machine there was for it: what a host gives to others is known, but cores that are slow
 * since others use their other half are seen only in what the same work takes.
 */
async function quietPart(load, part, webs) {
  load.mark(part);
  const [host, spent] = [stolen(), spentBy(webs)];
  await pause(QUIET_SECONDS * 1000);
  const answers = KINDS.reduce((sum, kind) => sum + load.figuresOf(kind).length, 0);
  const each = (spentBy(webs) - spent) / Math.max(1, answers);
  load.mark('');
  return `the host gave ${stolenSince(host)} % of the processor time to others; a web server used ${each.toFixed(1)} ms of it for an answer`;
}

function sayFigures(load, part) {
  for (const kind of KINDS) {
    const figures = load.figuresOf(kind, part);
    if (figures.length > 0)
      console.log(
        `    ${kind}: median ${ms(partOf(figures, 0.5))}, p95 ${ms(partOf(figures, 0.95))}, ${figures.length} of them`,
      );
  }
  const failed = load.figuresOf('pages not answered', part).length + load.figuresOf('solver not answered', part).length;
  if (failed > 0) console.log(`    not answered: ${failed}`);
}

/** Rows that nobody asks anything about, put into one node one by one by 40 at once: what the cluster itself costs. */
async function rawInserts(node, database) {
  const pool = mysql.createPool({ uri: node.url(database), connectionLimit: 40 });
  await pool.query('CREATE TABLE raw_row (id CHAR(36) PRIMARY KEY, words VARCHAR(200) NOT NULL)');
  const spent = [];
  const end = performance.now() + 5000;
  await Promise.all(
    Array.from({ length: 40 }, async () => {
      while (performance.now() < end) {
        const begun = performance.now();
        await pool.query('INSERT INTO raw_row VALUES (UUID(), REPEAT("x", 150))');
        spent.push(performance.now() - begun);
      }
    }),
  );
  await pool.query('DROP TABLE raw_row');
  await pool.end();
  return `${Math.round(spent.length / 5)} a second, median ${ms(partOf(spent, 0.5))}, p95 ${ms(partOf(spent, 0.95))}`;
}

async function oneMachine(size) {
  const running = await startRunning();
  try {
    console.log('\nOne machine: one database, one web server, one background process');
    const city = fillCity({ DATABASE_URL: running.url, SESSION_SECRET: running.secret }, size);
    const load = beginLoad(askerOf(running.address), city);
    await pause(WARM_SECONDS * 1000);
    console.log(`  (${await quietPart(load, 'quiet', [running.pids.web])})`);
    await load.stop();
    sayFigures(load, 'quiet');
  } finally {
    await running.stop();
  }
}

/** Does something to a cluster under load. @returns how long until every bench was answered again */
async function strike(load, what, work, after = async () => {}) {
  load.mark(what);
  const settled = load.untilAllAnswer();
  await work();
  const took = await settled;
  await after();
  await load.untilAllAnswer();
  // Whatever fell is there again before the next falls.
  await pause(6000);
  return took;
}

/**
 * Tries it all.
 *
 * @param check told what was promised, and whether it was kept
 */
export async function tryCluster(check, size = CITY) {
  ensureBuild();
  await oneMachine(size);
  const folder = mkdtempSync(path.join(tmpdir(), 'logistra-cluster-'));
  // MariaDB's own user has to pass.
  chmodSync(folder, 0o711);
  const cluster = await startCluster({ folder, keys: path.join(folder, 'keys'), empty: true, port: 0, quiet: true });
  try {
    console.log('\nA cluster: three nodes, two web servers, two background processes, a balancer, on one machine');
    console.log(`    plain rows into one of its nodes: ${await rawInserts(cluster.galera.nodes[0], 'logistra')}`);
    const begun = performance.now();
    const city = fillCity(cluster.env, size);
    console.log(
      `    ${size.programmes} programmes, ${size.people} people, ${size.sessions} sessions made in ${Math.round((performance.now() - begun) / 1000)} s`,
    );
    const ask = askerOf(cluster.address, readFileSync(cluster.tls.cert));
    const load = beginLoad(ask, city);
    load.mark('begun');
    await pause(WARM_SECONDS * 1000);
    const webs = () => cluster.webs.map((web) => web.pid());
    console.log(`  before the faults (${await quietPart(load, 'before', webs())})`);
    sayFigures(load, 'before');

    const { nodes } = cluster.galera;
    const kill = (pid, signal = 'SIGKILL') => process.kill(pid, signal);
    const faults = [
      ['the node that is written to is killed', () => kill(nodes[0].pid), () => nodes[0].untilLevel()],
      ['a web server is killed', () => kill(cluster.webs[0].pid())],
      ['a background process is killed', () => kill(cluster.workers[0].pid)],
      ['the balancer is killed', () => kill(cluster.balancer.pid)],
      ['a web server’s way to the database is killed', () => kill(cluster.ways[0].pid)],
      [
        `the node that is written to is frozen for ${FROZEN_SECONDS} s`,
        async () => {
          const { pid } = nodes[1];
          kill(pid, 'SIGSTOP');
          setTimeout(() => kill(pid, 'SIGCONT'), FROZEN_SECONDS * 1000);
        },
        async () => {
          await pause(FROZEN_SECONDS * 1000);
          await nodes[1].untilLevel();
        },
      ],
    ];
    for (const [what, work, after] of faults) {
      const took = await strike(load, what, work, after);
      check(`${what}: all benches go on within 15 s`, took <= MOST_WAIT, ms(took));
    }
    let longest = 0;
    for (const part of [...nodes, ...cluster.webs, ...cluster.workers])
      longest = Math.max(longest, await strike(load, 'everything is started again in turn', () => part.restart()));
    check('everything is started again in turn: all benches go on within 15 s', longest <= MOST_WAIT, ms(longest));

    load.mark('');
    await pause(WARM_SECONDS * 1000);
    console.log(`  after the faults (${await quietPart(load, 'after', webs())})`);
    sayFigures(load, 'after');
    await load.stop();
    const unanswered = ['begun', 'before', 'after'].flatMap((part) => load.figuresOf('pages not answered', part));
    check('every page is answered while nothing falls', unanswered.length === 0, unanswered.slice(0, 5).join(', '));
    for (const part of ['before', 'after']) {
      const p95 = partOf(load.figuresOf('pages', part), 0.95);
      check(`pages ${part}: p95 at most ${MOST_PAGE} ms`, p95 <= MOST_PAGE, ms(p95));
    }
    const found = await lookFor(ask, city, load.state);
    check('no acknowledged tick lost', found.lostTicks === 0, `${found.ticks} acknowledged, ${found.lostTicks} lost`);
    check(
      'no tick doubled, one order without gaps',
      found.doubledTicks === 0 && found.gaps === 0,
      `${found.doubledTicks} doubled, ${found.gaps} gaps`,
    );
    check(
      'no hand-out lost or doubled',
      found.lostHanded === 0 && found.doubledHanded === 0,
      `${found.handed} acknowledged`,
    );
    check('no answer of a family lost', found.lostAnswers === 0, `${load.state.thanked} acknowledged`);
    check('no roll lost, halved or doubled', found.lostRolls === 0, `${found.rolls} of 100 people each`);
    check(
      'nothing was refused without cause',
      load.state.refusals.size === 0,
      [...load.state.refusals].slice(0, 3).join('; '),
    );
  } finally {
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
