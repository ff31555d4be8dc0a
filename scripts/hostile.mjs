// Hostile input: 1,000 requests, generated from a seed and kept in tests/hostile.json, so that each can be tried again. Files
// that are slow rather than broken are kept as what they are made of.
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { strToU8, zipSync } from 'fflate';
import mysql from 'mysql2/promise';
import { cookiesOf } from './odd-actions.mjs';
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

/** Addresses of pages that read their query, and words for it. */
const QUERIED = [
  '/calendar?from=TEXT',
  '/calendar?from=9999-12-31',
  '/calendar?from=0000-01-01&from=2026-01-01',
  '/reference?q=TEXT',
  '/reference?q=TEXT&q=TEXT&food=TEXT',
  '/families?q=TEXT&q=TEXT',
  '/recipes/import?session=TEXT',
  '/courses/COURSE/roll?sort=TEXT&order=TEXT&edit=TEXT&q=TEXT',
  '/courses/COURSE/roll?sort=__proto__&sort=constructor',
  '/courses/COURSE/season?from=TEXT&weekday=TEXT&minutes=TEXT',
  '/courses/COURSE/week?from=TEXT&every=TEXT&weekdays=TEXT&weekdays=9&people=TEXT',
  '/courses/COURSE/dishes?stock=TEXT&menu=TEXT',
  '/prep/TEXT',
  '/?all=TEXT&all=TEXT',
  '/api/v1/courses?limit=TEXT&after=TEXT',
  '/api/v1/courses?limit=1&limit=2',
  '/calendar.ics?course=TEXT&course=TEXT',
  '/feeds/TEXT',
];

const repeated = (n, of) => Array.from({ length: n }, (_, at) => of(at)).join('');
const event = (uid, lines) =>
  `BEGIN:VEVENT\r\nUID:${uid}\r\nDTSTART;TZID=America/New_York:20150901T150000\r\nDTEND;TZID=America/New_York:20150901T160000\r\nSUMMARY:x\r\n${lines}END:VEVENT\r\n`;
const calendar = (parts) => `BEGIN:VCALENDAR\r\nVERSION:2.0\r\n${parts}END:VCALENDAR\r\n`;

/** A workbook of one sheet. @param sheet what its sheet says, as XML */
const workbook = (sheet) =>
  Buffer.from(
    zipSync({
      'xl/workbook.xml': strToU8(
        '<workbook xmlns:r="r"><sheets><sheet name="Roll" sheetId="1" r:id="rId1"/></sheets></workbook>',
      ),
      'xl/_rels/workbook.xml.rels': strToU8(
        '<Relationships><Relationship Id="rId1" Target="worksheets/sheet1.xml"/></Relationships>',
      ),
      'xl/worksheets/sheet1.xml': strToU8(`<worksheet>${sheet}</worksheet>`),
    }),
  );
const cell = (at, text) => `<c r="${at}" t="inlineStr"><is><t>${text}</t></is></c>`;
const heads = `<row r="1">${cell('A1', 'name')}${cell('B1', 'servings')}</row>`;

const CALENDAR = '/api/closures/preview';
const ROLL = '/api/roll/preview?course=COURSE';
const RECIPE = '/api/recipes/preview';

/** Files that are slow rather than broken: where each is sent, and what `n` of something makes. */
export const SLOW = {
  'a rule that never comes': [
    CALENDAR,
    (n) => calendar(repeated(n, (at) => event(at, 'RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30\r\n'))),
    8000,
  ],
  'weekly series without an end': [
    CALENDAR,
    (n) => calendar(repeated(n, (at) => event(at, 'RRULE:FREQ=WEEKLY\r\n'))),
    8000,
  ],
  'long counts': [CALENDAR, (n) => calendar(repeated(n, (at) => event(at, 'RRULE:FREQ=DAILY;COUNT=10000\r\n'))), 8000],
  'days left out': [
    CALENDAR,
    (n) =>
      calendar(event(1, `RRULE:FREQ=DAILY\r\n${repeated(n, (at) => `EXDATE:20${10 + (at % 20)}0101T150000Z\r\n`)}`)),
    60_000,
  ],
  'further days': [
    CALENDAR,
    (n) => calendar(event(1, `RDATE:${repeated(n, () => '20270101T150000,')}20270102T150000\r\n`)),
    100_000,
  ],
  'one event changed again and again': [
    CALENDAR,
    (n) => calendar(repeated(n, () => event('u', 'RECURRENCE-ID:20260901T150000\r\n'))),
    8000,
  ],
  'a line that goes on and on': [
    CALENDAR,
    (n) => calendar(event(1, `DESCRIPTION:${'abc\r\n '.repeat(n)}\r\n`)),
    300_000,
  ],
  'events that only begin': [CALENDAR, (n) => calendar('BEGIN:VEVENT\r\n'.repeat(n)), 120_000],
  commas: [ROLL, (n) => ','.repeat(n), 2_000_000],
  'a wide table': [ROLL, (n) => `${repeated(n, (at) => `col${at},`)}\n${'1,'.repeat(n)}`, 150_000],
  'a heading of brackets': [ROLL, (n) => `name,${'('.repeat(n)},servings\nA,1,1`, 1_900_000],
  'quotation marks': [ROLL, (n) => `name,servings\n${'"a""'.repeat(n)}`, 480_000],
  'line ends': [ROLL, (n) => `name,servings\n${'\n'.repeat(n)}`, 1_900_000],
  'rows with long needs': [
    ROLL,
    (n) => `name,servings,avoids\n${repeated(n, (at) => `A${at},1,${'egg; '.repeat(70)}\n`)}`,
    2000,
  ],
  'a cell far to the right': [
    ROLL,
    (n) =>
      workbook(
        `<sheetData>${heads}<row r="2">${cell('A2', 'Ada')}${cell('XFD2', 'x')}</row>${repeated(n, (at) => `<row r="${at + 3}">${cell(`XFD${at + 3}`, '')}</row>`)}</sheetData>`,
      ),
    20_000,
  ],
  'a cell far down': [
    ROLL,
    () =>
      workbook(
        `<sheetData>${heads}<row r="1048576">${cell('A1048576', 'Ada')}${cell('B1048576', '1')}</row></sheetData>`,
      ),
    1,
  ],
  'drop-down lists over whole columns': [
    ROLL,
    (n) =>
      workbook(
        `<sheetData>${heads}<row r="2">${cell('A2', 'Ada')}${cell('B2', '1')}</row></sheetData><dataValidations>${repeated(n, () => '<dataValidation type="list" sqref="A1:C1048576"><formula1>"a,b"</formula1></dataValidation>')}</dataValidations>`,
      ),
    20_000,
  ],
  'cells merged over everything': [
    ROLL,
    (n) =>
      workbook(
        `<sheetData>${heads}<row r="2">${cell('A2', 'Ada')}</row></sheetData><mergeCells>${repeated(n, () => '<mergeCell ref="A1:XFD1048576"/>')}</mergeCells>`,
      ),
    50_000,
  ],
  'entities within entities': [
    ROLL,
    () =>
      workbook(
        `<!DOCTYPE w [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><sheetData><row r="1">${cell('A1', '&b;')}</row></sheetData>`,
      ),
    1,
  ],
  'rows of recipes': [RECIPE, (n) => `recipe,line,step\n${repeated(n, (at) => `R${at},1 cup flour,mix\n`)}`, 60_000],
  'lines of one recipe': [RECIPE, (n) => `Stew\nServes 4\n${repeated(n, (at) => `${at} cups flour\n`)}`, 120_000],
  'scripts that open': [RECIPE, (n) => `<html><body>${'<script type="application/ld+json">'.repeat(n)}`, 55_000],
  'script tags without an end': [RECIPE, (n) => `<html><body>${'<script application/ld+json '.repeat(n)}`, 70_000],
  'scripts of nothing': [
    RECIPE,
    (n) => `<html><body>${'<script type="application/ld+json">{}</script>'.repeat(n)}`,
    40_000,
  ],
  'angle brackets': [RECIPE, (n) => `<html><body>${'<'.repeat(n)}`, 1_900_000],
  comments: [RECIPE, (n) => `<html><body>${'<!--'.repeat(n)}`, 480_000],
  'a line of fractions': [RECIPE, (n) => `Stew\nServes 4\n${'1/'.repeat(n)} cup flour\n`, 900_000],
  'a line of spaces': [RECIPE, (n) => `Stew\nServes 4\n1 cup${' '.repeat(n)}flour\n`, 1_900_000],
  'a line of one word': [RECIPE, (n) => `Stew\nServes 4\n1 cup ${'flour '.repeat(n)}\n`, 300_000],
  'nested data': [RECIPE, (n) => `${'{"@graph":'.repeat(n)}{}${'}'.repeat(n)}`, 170_000],
  'many recipes': [
    RECIPE,
    (n) =>
      `{"@graph":[${repeated(n, (at) => `{"@type":"Recipe","name":"R${at}","recipeIngredient":["1 cup flour"]},`)}{}]}`,
    24_000,
  ],
};

/** 1,000 requests, the same for the same seed. Bodies are base64, since many are no text. */
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
  for (let n = 0; n < 360; n++) {
    const [method, address, fields] = one(WRITES);
    const value = () => (random() < 0.5 ? one(TEXTS) : one(VALUES));
    const body = random() < 0.15 ? value() : Object.fromEntries(fields.map((field) => [field, value()]));
    // Odd words are a title all the same; a course whose audience is no text is none.
    if (body && typeof body === 'object' && 'audience' in body) body.audience = one([-1, [], {}, true]);
    add('JSON of the wrong shape', method, into(address), JSON.stringify(body), json);
  }
  for (let n = 0; n < 90; n++) {
    const [method, address] = one(WRITES);
    const broken = ['{', '[1,', '"', '{"a":}', 'nul', '\ufeff', '{"a":1}{', `${'['.repeat(6000)}`, '{"a":"\\ud8"}'];
    add('JSON that is none', method, into(address), one(broken), json);
  }
  for (let n = 0; n < 150; n++) {
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
  for (let n = 0; n < 100; n++) add('an id that is none', 'GET', into(one([...READS, ...READS_MORE])));
  for (let n = 0; n < 40; n++) add('a page that is none', 'GET', into(one(PAGES)));
  for (let n = 0; n < 90; n++) {
    let address = one(QUERIED);
    while (address.includes('TEXT')) address = into(address);
    add('an address that asks for odd things', 'GET', address);
  }
  for (let n = 0; n < 58; n++) {
    const [method, address, fields] = one(WRITES);
    const type = one(['text/plain', 'application/xml', 'multipart/form-data', '', 'application/json5', 'image/png']);
    const body = JSON.stringify(Object.fromEntries(fields.map((field) => [field, 'x'])));
    add('a body said to be something else', method, into(address), body, { 'content-type': type });
  }
  for (let n = 0; n < 50; n++) {
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
  // Each slow file whole, and a half of it: what takes four times as long for twice as much is seen.
  for (const [what, [address, , most]] of Object.entries(SLOW))
    for (const size of [Math.max(1, Math.floor(most / 2)), most])
      requests.push({ what, method: 'POST', address, headers: { 'content-type': 'application/octet-stream' }, size });
  return requests.map((request, index) => ({ number: index + 1, ...request }));
}

/** Sends them all, and looks at what came: no crash, nothing saved, and each answer with its place and remedy. */
export async function tryHostile(running, check) {
  const requests = JSON.parse(readFileSync(FILE, 'utf8'));
  console.log(`\n${requests.length} hostile inputs`);
  const course = await running.api('POST', '/courses', { title: 'Untouched' });
  const before = await counts(running);
  const bad = { crashed: [], taken: [], wordless: [], slow: [] };
  const others = watchOthers(running);
  const { coordinator: cookie } = await cookiesOf(running);
  const connection = await mysql.createConnection(running.url);
  const seconds = new Map();
  const statuses = {};
  for (const { number, what, method, address, headers, body, size } of requests) {
    const bytes = size === undefined ? Buffer.from(body ?? '', 'base64') : Buffer.from(SLOW[what][1](size));
    // Each is tried by itself: how often somebody may ask for what is costly is another matter.
    await connection.query("DELETE FROM attempt WHERE `key` LIKE 'costly%'");
    const isPage = !address.startsWith('/api/');
    const started = performance.now();
    const response = await fetch(running.address + address.replace('COURSE', course.id), {
      method,
      headers: { ...(isPage ? { cookie } : running.headers), ...headers },
      ...(method === 'GET' ? {} : { body: bytes }),
      redirect: 'manual',
    }).catch((error) => ({ status: 0, text: async () => error.message, headers: new Headers() }));
    const text = await response.text();
    const took = (performance.now() - started) / 1000;
    if (size !== undefined) seconds.set(`${what}, ${bytes.length} bytes`, took);
    if (took > LONGEST_ANSWER) bad.slow.push(`${number} (${what}): ${took.toFixed(1)} s`);
    statuses[response.status] = (statuses[response.status] ?? 0) + 1;
    if (response.status === 0 || response.status >= 500)
      bad.crashed.push(`${number}: ${response.status} ${text.slice(0, 120)}`);
    if (isPage) continue;
    const isRead = method === 'GET' || address.includes('/compute/') || address.includes('/preview');
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
  await connection.end();
  const after = await counts(running);
  console.log(
    `  answers: ${Object.entries(statuses)
      .map(([status, count]) => `${count} × ${status}`)
      .join(', ')}`,
  );
  const { longest, p95 } = await others.stop();
  const slowest = [...seconds].sort((a, b) => b[1] - a[1]).slice(0, 5);
  console.log(`  the slowest files: ${slowest.map(([what, took]) => `${what}: ${took.toFixed(2)} s`).join('; ')}`);
  check(
    'each answered in time',
    bad.slow.length === 0,
    bad.slow.slice(0, 5).join(' | ') || `${LONGEST_ANSWER} s at most`,
  );
  check('others were answered all the while', longest < 2000, `p95 ${p95} ms, longest ${longest} ms`);
  check('no crash', bad.crashed.length === 0, bad.crashed.slice(0, 5).join(' | '));
  check('nothing taken in', bad.taken.length === 0, bad.taken.slice(0, 5).join(' | '));
  check(
    'nothing half-saved',
    JSON.stringify(before) === JSON.stringify(after),
    `${Object.values(after).reduce((a, b) => a + b, 0)} rows before and after`,
  );
  check('each told what is wrong and what to do', bad.wordless.length === 0, bad.wordless.slice(0, 5).join(' | '));
}

/** An answer that takes longer has met no limit. */
const LONGEST_ANSWER = 20;

/** Somebody else at the same server, asking for a page of the bench's kind again and again. */
function watchOthers(running) {
  const waits = [];
  let going = true;
  const ended = (async () => {
    while (going) {
      const started = performance.now();
      await fetch(`${running.address}/api/v1/courses?limit=1`, { headers: running.headers })
        .then((response) => response.arrayBuffer())
        .catch(() => {});
      waits.push(Math.round(performance.now() - started));
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  })();
  return {
    async stop() {
      going = false;
      await ended;
      waits.sort((a, b) => a - b);
      return { longest: waits.at(-1) ?? 0, p95: waits[Math.floor(waits.length * 0.95)] ?? 0 };
    },
  };
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
  // A line for each: what changed is seen.
  const lines = hostileRequests(seed).map((request) => JSON.stringify(request));
  writeFileSync(FILE, `[\n${lines.join(',\n')}\n]\n`);
  console.log(`${FILE}: written from seed ${seed}`);
}
