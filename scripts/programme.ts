// Lists programmes, takes one out whole (JSON lines, compressed), or brings one in.
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { gunzipSync, gzipSync } from 'node:zlib';
import { addressOf } from '@/services/access/addresses';
import { makeLink } from '@/services/access/links';
import { runningStore, surroundings } from '@/services/runtime';
import { freshProgramme } from '@/store/fresh';
import { NEWEST } from '@/store/migrations/newest';
import { bringInTable, type MovedTable, takeOutProgramme } from '@/store/moving';
import { find, findOne, insert } from '@/store/query';

const store = runningStore();
const { db } = store;
const hash = (text: string) => createHash('sha256').update(text).digest('hex');

/** Ends with what is wrong and what to do. */
function refuse(why: string): never {
  console.error(why);
  process.exit(1);
}

async function list(): Promise<void> {
  for (const { id, name } of await find(db, db.models.programme, {}, [['name', 'ASC']])) {
    const people = await db.models.household.count({ where: { programmeId: id } });
    console.log(`${id}  ${name}, ${people} households`);
  }
}

/** How long the first coordinator's link works, in hours. */
const HOURS = 7 * 24;

async function begin(name: string, email: string, timeZone: string): Promise<void> {
  if (!Intl.supportedValuesOf('timeZone').includes(timeZone))
    refuse(`There is no zone “${timeZone}”: write it as Europe/London.`);
  if (!/^\S+@\S+\.\S+$/.test(email)) refuse(`“${email}” is no e-mail address.`);
  const programmeId = surroundings().ids();
  const { secret } = await store.transaction(async (tx) => {
    await insert(tx, tx.models.programme, [freshProgramme({ id: programmeId, name, timeZone })]);
    const link = { programmeId, purpose: 'invite' as const, role: 'coordinator', memberId: null, createdBy: null };
    return makeLink(surroundings(), tx, { ...link, email: addressOf(email) }, HOURS);
  });
  console.log(
    `${name} is there (${programmeId}). Its first coordinator joins here, once, within a week:\n${address}/invite/${secret}`,
  );
}

async function takeOut(id: string, file: string): Promise<void> {
  const programme = await findOne(db, db.models.programme, { id });
  if (!programme) refuse('There is no such programme: "npm run programme -- list" names them.');
  const lines = [JSON.stringify({ logistra: 1, migration: NEWEST, programme: programme.name, id })];
  // One moment for all of it.
  await store.sequelize.transaction(async (transaction) => {
    for await (const table of takeOutProgramme({ ...db, transaction }, id))
      if (table.rows.length > 0) lines.push(JSON.stringify(table));
  });
  const text = `${lines.join('\n')}\n`;
  writeFileSync(file, gzipSync(`${text}${JSON.stringify({ sha256: hash(text) })}\n`), { mode: 0o600 });
  console.log(
    `${programme.name} stands in ${file}. It holds families' data, readable by whoever has the file: carry it safely, and delete it once it is brought in. Passwords and links are not in it.`,
  );
}

const NOT_WHOLE = 'The file is not whole, or was changed: take the programme out once more.';

function textOf(file: string): string {
  try {
    return gunzipSync(readFileSync(file)).toString();
  } catch {
    refuse(NOT_WHOLE);
  }
}

async function bringIn(file: string): Promise<void> {
  const lines = textOf(file).trimEnd().split('\n');
  const { sha256 } = JSON.parse(lines.pop() ?? '{}') as { sha256?: string };
  if (sha256 !== hash(`${lines.join('\n')}\n`)) refuse(NOT_WHOLE);
  const { migration, programme, id } = JSON.parse(lines.shift() ?? '{}') as Record<string, string>;
  if (migration !== NEWEST)
    refuse(
      `It was taken out of another version (${migration}; this one is at ${NEWEST}): bring both to the same version first.`,
    );
  if (await findOne(db, db.models.programme, { id: id ?? '' })) refuse(`${programme} is here already.`);
  const tables = lines.map((line) => JSON.parse(line) as MovedTable);
  await store.transaction(async (tx) => {
    for (const table of tables) await bringInTable(tx, table);
  });
  const rows = tables.reduce((sum, table) => sum + table.rows.length, 0);
  console.log(
    `${programme} is here, with ${rows} rows. Whoever signs in here already goes on with the same password; the others set one: npm run password-link -- E-MAIL`,
  );
}

const [address = '', what, one = '', other = '', zone = ''] = process.argv.slice(2);
if (what === 'list') await list();
else if (what === 'new' && zone) await begin(one, other, zone);
else if (what === 'export' && other) await takeOut(one, other);
else if (what === 'import' && one) await bringIn(one);
else refuse('npm run programme -- list | new NAME E-MAIL ZONE | export ID FILE | import FILE');
await store.close();
