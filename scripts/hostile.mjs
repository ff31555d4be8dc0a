// Hostile input: 300 requests, generated from a seed and kept in tests/hostile.json, so that each can be tried again.
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { randomFrom } from './random.mjs';
import { ROOT } from './system.mjs';

export const FILE = path.join(ROOT, 'tests', 'hostile.json');

const TEXTS = [
  '',
  ' ',
  '\u0000',
  "' OR '1'='1",
  '"; DROP TABLE member; --',
  '<script>alert(1)</script>',
  '=cmd()|x',
  '../../../etc/passwd',
  '{{7*7}}#{7*7}<%= 7*7 %>',
  'x'.repeat(6000),
  '\u202Eright to left',
  '👩‍🍳'.repeat(200),
  '\ud800',
  'NaN',
  '-1',
  '1e999',
  '__proto__',
  'constructor',
  '9'.repeat(400),
  '1/0',
];
const VALUES = [
  null,
  true,
  -1,
  0,
  1e308,
  1.5,
  [],
  {},
  [[]],
  { $gt: '' },
  { toString: 'x' },
  [null],
  '2026-02-30',
  '25:61',
];
const IDS = ['x', '%00', '..%2f..', '01936f00-0000-7000-8000-000000000000', "'--", '0', '*', 'null', '%E0%A4%A', '{}'];
const WRITES = [
  ['POST', '/api/v1/courses', ['title', 'audience']],
  ['POST', '/api/v1/courses/ID/sessions', ['title', 'date', 'startsAt', 'minutes', 'place', 'mode']],
  ['PUT', '/api/v1/sessions/ID', ['version', 'title', 'date', 'startsAt', 'minutes', 'place', 'mode']],
  ['POST', '/api/v1/sessions/ID/dishes', ['recipeId']],
  ['POST', '/api/v1/sessions/ID/kit-sheet/lock', ['basis']],
  ['POST', '/api/v1/sessions/ID/ticks', ['ticks']],
  ['POST', '/api/v1/sessions/ID/labels/print', ['paper']],
  ['POST', '/api/v1/compute/kits', ['recipe', 'kits', 'working']],
  ['POST', '/api/bench/ID/ticks', ['ticks']],
];
const READS = ['/api/v1/recipes/ID', '/api/v1/courses/ID', '/api/v1/courses/ID/roll', '/api/v1/sessions/ID/kit-sheet'];
const READS_MORE = ['/api/v1/sessions/ID/labels?paper=TEXT', '/api/v1/sessions/ID/ticks?since=TEXT', '/api/v1/jobs/ID'];
const PAGES = [
  '/sessions/ID',
  '/sessions/ID/kits',
  '/courses/ID/roll',
  '/bench/ID',
  '/room/ID',
  '/invite/ID',
  '/reset/ID',
];

/** 300 requests, the same for the same seed. Bodies are base64, since many are no text. */
export function hostileRequests(seed) {
  const random = randomFrom(seed);
  const one = (list) => list[Math.floor(random() * list.length)];
  const requests = [];
  const add = (what, method, address, body, headers = {}) =>
    requests.push({
      what,
      method,
      address,
      headers,
      ...(body === undefined ? {} : { body: Buffer.from(body).toString('base64') }),
    });
  const json = { 'content-type': 'application/json' };
  const into = (address) =>
    address.replace('ID', one(IDS)).replace('TEXT', encodeURIComponent(one(TEXTS).slice(0, 2000).toWellFormed()));
  for (let n = 0; n < 110; n++) {
    const [method, address, fields] = one(WRITES);
    const value = () => (random() < 0.5 ? one(TEXTS) : one(VALUES));
    const body = random() < 0.15 ? value() : Object.fromEntries(fields.map((field) => [field, value()]));
    // Odd words are a title all the same; a course whose audience is no text is none.
    if (body && typeof body === 'object' && 'audience' in body) body.audience = one([-1, [], {}, true]);
    add('JSON of the wrong shape', method, into(address), JSON.stringify(body), json);
  }
  for (let n = 0; n < 40; n++) {
    const [method, address] = one(WRITES);
    const broken = ['{', '[1,', '"', '{"a":}', 'nul', '\ufeff', '{"a":1}{', `${'['.repeat(6000)}`, '{"a":"\\ud8"}'];
    add('JSON that is none', method, into(address), one(broken), json);
  }
  for (let n = 0; n < 50; n++) {
    const bytes = Buffer.from(
      Array.from({ length: 20 + Math.floor(random() * 3000) }, () => Math.floor(random() * 256)),
    );
    const files = [
      bytes,
      'name,servings\n"Ada,1\n',
      'PK\u0003\u0004',
      `name,servings\n${'a,1,'.repeat(3000)}\n`,
      one(TEXTS).toWellFormed(),
      `name,servings\n${one(TEXTS).toWellFormed().replace(/[\n"]/g, '')},0\n`,
    ];
    const recipe = random() < 0.4;
    add('a file that is none', 'POST', recipe ? '/api/v1/recipes' : '/api/v1/courses/COURSE/roll', one(files), {
      'content-type': recipe ? 'application/ld+json' : 'text/csv',
    });
  }
  for (let n = 0; n < 50; n++) add('an id that is none', 'GET', into(one([...READS, ...READS_MORE])));
  for (let n = 0; n < 25; n++) add('a page that is none', 'GET', into(one(PAGES)));
  for (let n = 0; n < 25; n++) {
    const tokens = [
      '',
      'x',
      'a'.repeat(8000),
      '../',
      "' OR 1=1 --",
      'null',
      'e30.e30.',
      encodeURIComponent(one(TEXTS).slice(0, 300).toWellFormed()),
    ];
    add('a token that is none', one(['GET', 'POST']), '/api/v1/courses', '{"title":"Planted"}', {
      ...json,
      authorization: one(['Bearer ', 'Basic ', 'bearer  ', '']) + one(tokens),
    });
  }
  return requests.map((request, index) => ({ number: index + 1, ...request }));
}

/** Sends them all, and looks at what came: no crash, nothing saved, and each answer with its place and remedy. */
export async function tryHostile(running, check) {
  const requests = JSON.parse(readFileSync(FILE, 'utf8'));
  console.log(`\n${requests.length} hostile inputs`);
  const course = await running.api('POST', '/courses', { title: 'Untouched' });
  const before = await counts(running);
  const bad = { crashed: [], taken: [], wordless: [] };
  const statuses = {};
  for (const { number, method, address, headers, body } of requests) {
    const response = await fetch(running.address + address.replace('COURSE', course.id), {
      method,
      headers: { ...running.headers, ...headers },
      ...(method === 'GET' ? {} : { body: Buffer.from(body ?? '', 'base64') }),
      redirect: 'manual',
    }).catch((error) => ({ status: 0, text: async () => error.message, headers: new Headers() }));
    const text = await response.text();
    statuses[response.status] = (statuses[response.status] ?? 0) + 1;
    if (response.status === 0 || response.status >= 500)
      bad.crashed.push(`${number}: ${response.status} ${text.slice(0, 120)}`);
    if (!address.startsWith('/api/')) continue;
    const isRead = method === 'GET' || address.includes('/compute/');
    if (response.status < 300 && !isRead) bad.taken.push(`${number}: ${text.slice(0, 120)}`);
    if (response.status >= 400) {
      const said = (() => {
        try {
          return JSON.parse(text);
        } catch {
          return {};
        }
      })();
      const placed = response.status !== 422 || (said.problems ?? []).length > 0 || said.title?.length > 20;
      if (!(said.title?.length > 10) || !placed)
        bad.wordless.push(`${number}: ${response.status} ${text.slice(0, 120)}`);
    }
  }
  const after = await counts(running);
  console.log(
    `  answers: ${Object.entries(statuses)
      .map(([status, count]) => `${count} × ${status}`)
      .join(', ')}`,
  );
  check('no crash', bad.crashed.length === 0, bad.crashed.slice(0, 5).join(' | '));
  check('nothing taken in', bad.taken.length === 0, bad.taken.slice(0, 5).join(' | '));
  check(
    'nothing half-saved',
    JSON.stringify(before) === JSON.stringify(after),
    `${Object.values(after).reduce((a, b) => a + b, 0)} rows before and after`,
  );
  check('each told what is wrong and what to do', bad.wordless.length === 0, bad.wordless.slice(0, 5).join(' | '));
}

/** Rows of every table that holds what people entered. */
async function counts(running) {
  const tables = [
    'course',
    'session',
    'dish',
    'enrolment',
    'household',
    'kit',
    'kit_sheet',
    'pack_event',
    'recipe',
    'job',
    'member',
  ];
  const sql = tables.map((table) => `SELECT '${table}', COUNT(*) FROM running.${table}`).join(' UNION ALL ');
  const lines = running.asRoot(sql).trim().split('\n').slice(1);
  return Object.fromEntries(lines.map((line) => line.split('\t')).map(([table, count]) => [table, Number(count)]));
}

if (process.argv[1]?.endsWith('hostile.mjs')) {
  const seed = Number(process.argv[2] ?? 20261125);
  writeFileSync(FILE, `${JSON.stringify(hostileRequests(seed), null, 1)}\n`);
  console.log(`${FILE}: written from seed ${seed}`);
}
