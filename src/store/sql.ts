// Statements in SQL: only the store says them, so that the tables can change without anybody else knowing.
import { QueryTypes } from 'sequelize';
import { again } from './again';
import type { Table } from './models';
import type { Db } from './store';

/**
 * Moments as the database keeps them, to the millisecond: left to itself, the query builder cuts a moment to its whole
 * second, and what is compared with it is off by up to one.
 */
const exactly = (replacements: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(replacements).map(([name, value]) => [
      name,
      value instanceof Date ? value.toISOString().slice(0, 23).replace('T', ' ') : value,
    ]),
  );

/** A query in SQL, for joins and locks; values only through replacements. */
export async function select<Row extends object>(
  db: Db,
  sql: string,
  replacements: Record<string, unknown>,
): Promise<Row[]> {
  return db.sequelize.query<Row>(sql, {
    type: QueryTypes.SELECT,
    replacements: exactly(replacements),
    transaction: db.transaction,
  });
}

/** All columns of a table for a query that calls it `as`: "p.time_zone AS timeZone, …". */
export const columnsOf = <Row extends object>(table: Table<Row>, as: string): string =>
  Object.entries<{ readonly field?: string }>(table.getAttributes())
    .map(([name, { field = name }]) => `${as}.${field} AS ${name}`)
    .join(', ');

/** A statement in SQL that returns no rows. */
export async function execute(db: Db, sql: string, replacements: Record<string, unknown>): Promise<void> {
  await db.sequelize.query(sql, { replacements: exactly(replacements), transaction: db.transaction });
}

/** A statement in SQL that changes rows. @returns how many it found, whether or not they were so already */
export async function change(db: Db, sql: string, replacements: Record<string, unknown>): Promise<number> {
  const run = () =>
    db.sequelize.query(sql, {
      type: QueryTypes.UPDATE,
      replacements: exactly(replacements),
      transaction: db.transaction,
    });
  // By itself it is a unit of its own; within a transaction the whole of that is done again.
  const [, changed] = await (db.transaction ? run() : again(run));
  return changed;
}
