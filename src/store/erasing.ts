import { Op, type WhereOptions } from 'sequelize';
import { endLeave, giveLeave } from './leave';
import { type OwnedTable, ownedTables, type Table, type TableKey } from './models';
import { find } from './query';
import { change, select } from './sql';
import { type Db, isDuplicate } from './store';
import type { KitSheetRow } from './tables/kits';
import type { Belonging } from './tables/table';

/** Runs `work` in a transaction with the database's leave to blank out what is otherwise only added to. */
export async function whileErasing<T>({ transaction }: Db, work: () => Promise<T>): Promise<T> {
  if (!transaction) throw new TypeError('Without a transaction nobody knows which connection erases.');
  await giveLeave(transaction);
  try {
    return await work();
  } finally {
    // The connection goes back to the pool: it must not keep the leave.
    await endLeave(transaction);
  }
}

type AnyTable = Table<Record<string, unknown>>;
type Row = Readonly<Record<string, unknown>>;

/** Which rows of a table are a programme's. */
export const OF_PROGRAMME: Readonly<Record<Belonging, string>> = {
  id: 'id = :programmeId',
  programmeId: 'programme_id = :programmeId',
  memberId: 'member_id IN (SELECT id FROM member WHERE programme_id = :programmeId)',
  accountId: 'account_id IN (SELECT account_id FROM member WHERE programme_id = :programmeId)',
  account: 'id IN (SELECT account_id FROM member WHERE programme_id = :programmeId)',
  city: 'id IN (SELECT city_id FROM programme WHERE id = :programmeId)',
  courseId: 'course_id IN (SELECT id FROM course WHERE programme_id = :programmeId)',
  recipeId: 'recipe_id IN (SELECT id FROM recipe WHERE programme_id = :programmeId)',
  fromId: 'from_id IN (SELECT id FROM place WHERE programme_id = :programmeId)',
  calendarId: 'calendar_id IN (SELECT id FROM closure_calendar WHERE programme_id = :programmeId)',
  sessionId:
    'session_id IN (SELECT s.id FROM session s JOIN course c ON c.id = s.course_id WHERE c.programme_id = :programmeId)',
};

/** Which rows of a table are no programme's: also of those who look over several, and belong to none. */
const OF_NOBODY: Readonly<Partial<Record<TableKey, string>>> = {
  securityEvent: 'programme_id IS NULL',
  accessLink: 'programme_id IS NULL',
  signIn: 'account_id IN (SELECT account_id FROM overseer)',
  knownDevice: 'account_id IN (SELECT account_id FROM overseer)',
};

const columnOf = (table: AnyTable, attribute: string): string => table.getAttributes()[attribute]?.field ?? attribute;

/** The rows of a table that are these people's, or this household's. */
export async function rowsOf(
  db: Db,
  { table, ownership }: OwnedTable,
  householdId: string,
  personIds: readonly string[],
): Promise<Row[]> {
  if (ownership.of === undefined) return [];
  const isPerson = ownership.of === 'person';
  const by = ownership.by ?? (isPerson ? 'enrolmentId' : 'householdId');
  const ids = isPerson ? personIds : [householdId];
  return find(db, table, { [by]: { [Op.in]: [...ids] } } as WhereOptions<Record<string, unknown>>);
}

/**
 * Takes words out of every text of a programme in which they may stand.
 *
 * @param words in logs, and in what people wrote freely
 * @param erased gives a text without these words; the same text where none stands in it
 * @returns how many rows were changed, by table
 */
export async function eraseWords(
  db: Db,
  programmeId: string,
  words: { readonly log: readonly string[]; readonly notes: readonly string[] },
  erased: (text: string, words: readonly string[]) => string,
): Promise<Readonly<Record<string, number>>> {
  const changed: Record<string, number> = {};
  for (const each of ownedTables(db.models)) {
    const { key } = each;
    // The locked sheets are known by a fingerprint of what is in them: they are rewritten by whoever makes it.
    if (key === 'kitSheet') continue;
    for (const [columns, wanted] of [
      [each.log, words.log],
      [each.notes, words.notes],
    ] as const) {
      if (columns.length === 0 || wanted.length === 0) continue;
      changed[key] = (changed[key] ?? 0) + (await eraseIn(db, programmeId, each, columns, wanted, erased));
    }
  }
  return changed;
}

async function eraseIn(
  db: Db,
  programmeId: string,
  { table, ownership }: OwnedTable,
  columns: readonly string[],
  words: readonly string[],
  erased: (text: string, words: readonly string[]) => string,
): Promise<number> {
  const keys = Object.entries(table.getAttributes()).flatMap(([each, { primaryKey }]) => (primaryKey ? [each] : []));
  const name = table.getTableName() as string;
  const fields = (attributes: readonly string[]) => attributes.map((each) => columnOf(table, each));
  // As text: what is kept as JSON would come as what it says.
  const texts = fields(columns).map((column) => ({ column, text: `CAST(${column} AS CHAR)` }));
  const likes = texts.flatMap(({ column }) => words.map((_, at) => `${column} LIKE :word${at}`));
  const rows = await select<Record<string, string>>(
    db,
    `SELECT ${[...fields(keys), ...texts.map(({ column, text }) => `${text} AS ${column}`)].join(', ')} FROM ${name}
      WHERE ${OF_PROGRAMME[ownership.belongs]} AND (${likes.join(' OR ')}) FOR UPDATE`,
    { programmeId, ...Object.fromEntries(words.map((word, at) => [`word${at}`, likeOf(word)])) },
  );
  let changed = 0;
  for (const row of rows) {
    const sets = fields(columns).flatMap((column, at) => {
      const before = row[column] ?? '';
      const after = erased(before, words);
      return after === before ? [] : [{ column, after, at }];
    });
    if (sets.length === 0) continue;
    const write = (ending: string) =>
      change(
        db,
        `UPDATE ${name} SET ${sets.map(({ column, at }) => `${column} = :set${at}`).join(', ')}
          WHERE ${fields(keys)
            .map((column) => `${column} = :key_${column}`)
            .join(' AND ')}`,
        {
          ...Object.fromEntries(sets.map(({ at, after }) => [`set${at}`, `${after}${ending}`])),
          ...Object.fromEntries(fields(keys).map((column) => [`key_${column}`, row[column]])),
        },
      );
    try {
      changed += await write('');
    } catch (error) {
      // What is there once, such as a place's name, may come to the same for two of them.
      if (!isDuplicate(error)) throw error;
      changed += await write(` ${String(row.id ?? changed).slice(-4)}`);
    }
  }
  return changed;
}

/** Anything with the first word of a text in it: how the rest is spaced or escaped is looked at row by row. */
const likeOf = (text: string) => `%${(/[\p{L}\p{N}@.]{2,}/u.exec(text)?.[0] ?? text).replace(/[\\%_]/g, '\\$&')}%`;

/** Every locked sheet that may name one of these people: those of their courses' sessions. */
export async function sheetsNaming(db: Db, enrolmentIds: readonly string[]): Promise<KitSheetRow[]> {
  const sessions = await select<{ id: string }>(
    db,
    'SELECT DISTINCT s.id FROM session s JOIN enrolment e ON e.course_id = s.course_id WHERE e.id IN (:enrolmentIds)',
    { enrolmentIds },
  );
  return find(db, db.models.kitSheet, { sessionId: { [Op.in]: sessions.map(({ id }) => id) } }, [
    ['sessionId', 'ASC'],
    ['revision', 'ASC'],
  ]);
}

/** What the change log tells of people: entries about them, and those that name their ids. */
export async function changesAbout(
  db: Db,
  programmeId: string,
  ids: readonly string[],
): Promise<{ id: string; at: Date; action: string; detail: unknown }[]> {
  return select(
    db,
    `SELECT id, at, action, detail FROM change_log WHERE programme_id = :programmeId
        AND (entity_id IN (:ids) OR ${ids.map((_, at) => `detail LIKE :id${at}`).join(' OR ')}) ORDER BY at`,
    { programmeId, ids, ...Object.fromEntries(ids.map((id, at) => [`id${at}`, `%${id}%`])) },
  );
}

/** Blanks entries of the change log: who did what and when stays, what it was about goes. @returns how many */
export const blankChanges = async (db: Db, ids: readonly string[]): Promise<number> =>
  ids.length === 0 ? 0 : change(db, `UPDATE change_log SET detail = '{"erased":true}' WHERE id IN (:ids)`, { ids });

/** Removes the rows of a programme that were kept as long as their tables say. @returns how many */
export async function removeOlder(db: Db, programmeId: string, now: Date): Promise<number> {
  let removed = 0;
  for (const { key, table, ownership } of ownedTables(db.models)) {
    const { retention, belongs } = ownership;
    if (!retention) continue;
    const before = new Date(now.getTime() - retention.days * 86_400_000);
    const older = (whose: string) =>
      change(
        db,
        `DELETE FROM ${table.getTableName()} WHERE ${whose} AND ${columnOf(table, retention.from)} < :before`,
        {
          programmeId,
          before,
        },
      );
    removed += await older(OF_PROGRAMME[belongs]);
    // What belongs to no programme, such as a wrong address at the door, is everybody's to clear, and nobody's to count.
    if (OF_NOBODY[key]) await older(OF_NOBODY[key]);
  }
  return removed;
}

/** Takes what families said of themselves out of rows of a table: what its definition calls so is blank. */
function blank(db: Db, key: 'household' | 'enrolment', more: string, values: Record<string, unknown>): Promise<number> {
  const each = ownedTables(db.models).find((table) => table.key === key) as OwnedTable;
  const said = Object.values(each.columns).filter((column) => 'blank' in column);
  const blanks = said.map(({ blank: left }, at) => [
    `blank${at}`,
    typeof left === 'object' && left !== null ? JSON.stringify(left) : left,
  ]);
  const sets = said.map(({ field }, at) => `${field} = :blank${at}`);
  return change(
    db,
    `UPDATE ${each.table.getTableName()} SET ${[...sets, more].join(', ')}, version = version + 1 WHERE id IN (:ids)`,
    { ...values, ...Object.fromEntries(blanks) },
  );
}

/** A household keeps its id, and nothing else. */
export const blankHousehold = (db: Db, { householdId, ...values }: { name: string; now: Date; householdId: string }) =>
  blank(db, 'household', 'name = :name, erased_at = :now', { ...values, ids: [householdId] });

/** Messages to a household keep when they were sent, and nothing else. */
export const blankMessages = (db: Db, values: { name: string; householdId: string }) =>
  change(db, `UPDATE message SET sent_to = '', subject = :name, body = '' WHERE household_id = :householdId`, values);

/** Everybody else’s names in a programme. */
export const namesOfOthers = (db: Db, values: { programmeId: string; id: string }) =>
  select<{ name: string }>(
    db,
    `SELECT DISTINCT e.name FROM enrolment e JOIN household h ON h.id = e.household_id
      WHERE h.programme_id = :programmeId AND h.id <> :id AND e.status <> 'erased'
      UNION SELECT name FROM household WHERE programme_id = :programmeId AND id <> :id AND erased_at IS NULL
      UNION SELECT name FROM member WHERE programme_id = :programmeId`,
    values,
  );

/** People keep their ids, and nothing else. */
export const blankPeople = (db: Db, values: { name: string; ids: readonly string[] }) =>
  blank(db, 'enrolment', "name = :name, status = 'erased'", values);

/** What rows beside the roll keep of what people said, of every table whose definition calls it so: it goes, the row stays. */
export async function blankSaid(db: Db, ids: readonly string[]): Promise<void> {
  for (const { key, table, ownership, columns } of ownedTables(db.models)) {
    const said = Object.entries(columns).filter(([, column]) => 'blank' in column);
    if (ownership.of !== 'person' || said.length === 0 || key === 'enrolment') continue;
    const by = ownership.by ?? 'enrolmentId';
    const blanks = Object.fromEntries(said.map(([name, column]) => [name, column.blank]));
    await table.update(blanks, { where: { [by]: { [Op.in]: [...ids] } }, transaction: db.transaction });
  }
}

/** Ends the links to the pages of a family. */
export const endFamilyLinks = (db: Db, values: { householdId: string; now: Date }) =>
  change(db, 'UPDATE access_link SET used_at = :now WHERE household_id = :householdId AND used_at IS NULL', values);

/** Why they got no kit goes. */
export const blankExclusions = (db: Db, values: { name: string; ids: readonly string[] }) =>
  change(db, 'UPDATE kit_exclusion SET reason = :name WHERE enrolment_id IN (:ids)', values);

/** A locked sheet as it is without them. */
export const rewriteSheet = (db: Db, values: { text: string; mark: string; id: string }) =>
  change(db, 'UPDATE kit_sheet SET snapshot = :text, fingerprint = :mark WHERE id = :id', values);

/** Printed pages of the sessions of their courses. */
export const dropPrintOuts = (db: Db, values: { ids: readonly string[] }) =>
  change(
    db,
    `DELETE FROM print_out WHERE session_id IN
       (SELECT s.id FROM session s JOIN enrolment e ON e.course_id = s.course_id WHERE e.id IN (:ids))`,
    values,
  );
