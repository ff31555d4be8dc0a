// A whole programme, taken out of one database and brought into another.
import { accountFor } from './accounts';
import { OF_PROGRAMME } from './erasing';
import { type OwnedTable, ownedTables, type TableKey } from './models';
import { columnsOf, select } from './sql';
import type { Db } from './store';

type Row = Record<string, unknown>;

/** Rows of one table, with moments and bytes in a form that JSON holds. */
export interface MovedTable {
  readonly table: string;
  readonly rows: readonly Row[];
}

/** What opens doors in one installation opens none in another, and what is under way there is nothing here. */
const STAYS: ReadonlySet<TableKey> = new Set<TableKey>([
  'account',
  'city',
  'overseer',
  'apiToken',
  'recoveryCode',
  'knownDevice',
  'securityEvent',
  'signIn',
  'accessLink',
  'job',
  'idempotentReply',
  'deviceReading',
  'calendarFeed',
]);

const isMoved = ({ key }: OwnedTable) => !STAYS.has(key);

/** What refers to what: a column of a table, and the table that it names. */
const references = (db: Db) =>
  select<{ from: string; field: string; to: string }>(
    db,
    `SELECT table_name AS \`from\`, column_name AS field, referenced_table_name AS \`to\` FROM information_schema.key_column_usage
      WHERE table_schema = DATABASE() AND referenced_table_name IS NOT NULL`,
    {},
  );

/** Tables in an order in which what a row refers to comes before it. */
async function inOrder(db: Db): Promise<OwnedTable[]> {
  const all = ownedTables(db.models);
  const known = await references(db);
  const placed = new Set<string>();
  const order: OwnedTable[] = [];
  while (order.length < all.length) {
    const next = all.filter(({ table }) => {
      const name = String(table.getTableName());
      return !placed.has(name) && known.every(({ from, to }) => from !== name || to === name || placed.has(to));
    });
    if (next.length === 0) throw new Error('Tables refer to each other in a circle.');
    for (const each of next) placed.add(String(each.table.getTableName()));
    order.push(...next);
  }
  return order.filter(isMoved);
}

/** A value as JSON holds it: moments and bytes say what they are. */
function packed(value: unknown): unknown {
  if (value instanceof Date) return { $moment: value.toISOString() };
  if (Buffer.isBuffer(value)) return { $bytes: value.toString('base64') };
  return value;
}

function unpacked(value: unknown): unknown {
  if (value === null || typeof value !== 'object') return value;
  const { $moment, $bytes } = value as { $moment?: unknown; $bytes?: unknown };
  if (typeof $moment === 'string') return new Date($moment);
  if (typeof $bytes === 'string') return Buffer.from($bytes, 'base64');
  return value;
}

/**
 * Everything of a programme, table by table, in an order in which it can be brought in.
 *
 * Passwords, second steps and all else that opens doors stay where they are.
 */
export async function* takeOutProgramme(db: Db, programmeId: string): AsyncGenerator<MovedTable> {
  for (const { key, table, ownership } of await inOrder(db)) {
    const rows = await select<Row>(
      db,
      `SELECT ${columnsOf(table, 'x')} FROM ${String(table.getTableName())} x WHERE ${OF_PROGRAMME[ownership.belongs]}`,
      { programmeId },
    );
    const sorted = rows.sort((a, b) => (String(a.id) < String(b.id) ? -1 : 1));
    yield {
      table: key,
      rows: sorted.map((row) => Object.fromEntries(Object.entries(row).map(([name, value]) => [name, packed(value)]))),
    };
  }
}

/** Brings in the rows of one table, in the caller's transaction. What refers to what stayed behind refers to nothing. */
export async function bringInTable(db: Db, { table: key, rows }: MovedTable): Promise<void> {
  const own = ownedTables(db.models).find((each) => each.key === key && isMoved(each));
  if (!own) throw new Error(`There is no table "${key}" to bring in.`);
  const behind = new Set(
    ownedTables(db.models).flatMap((each) => (isMoved(each) ? [] : [String(each.table.getTableName())])),
  );
  const lost = (await references(db))
    .filter(({ from, to }) => from === own.table.getTableName() && behind.has(to))
    .map(({ field }) => Object.entries(own.columns).find(([, column]) => column.field === field)?.[0]);
  const made = rows.map((row) =>
    Object.fromEntries(
      Object.keys(own.columns).map((name) => [name, lost.includes(name) ? null : unpacked(row[name] ?? null)]),
    ),
  );
  // Its people sign in with the account that their address has here, or with one that has no password yet.
  if (key === 'member')
    for (const row of made) row.accountId = await accountFor(db, { email: String(row.email), id: String(row.id) });
  for (let from = 0; from < made.length; from += 500)
    await own.table.bulkCreate(made.slice(from, from + 500), { transaction: db.transaction });
}
