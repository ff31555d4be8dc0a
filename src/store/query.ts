import type { Order, WhereOptions } from 'sequelize';
import type { Table } from './models';
import type { Db } from './store';

/** Rows of one table as plain objects; at most `limit` of them, if given. */
export async function find<Row extends object>(
  db: Db,
  table: Table<Row>,
  where: WhereOptions<Row>,
  order: Order = [],
  limit?: number,
): Promise<Row[]> {
  return (await table.findAll({ where, order, limit, raw: true, transaction: db.transaction })) as unknown as Row[];
}

/** The first row that fits, or undefined. */
export async function findOne<Row extends object>(
  db: Db,
  table: Table<Row>,
  where: WhereOptions<Row>,
): Promise<Row | undefined> {
  return (
    ((await table.findOne({ where, raw: true, transaction: db.transaction })) as unknown as Row | null) ?? undefined
  );
}

/** Inserts rows; none when the list is empty. */
export async function insert<Row extends object>(db: Db, table: Table<Row>, rows: readonly Row[]): Promise<void> {
  if (rows.length > 0) await table.bulkCreate(rows as never, { transaction: db.transaction });
}

/** Inserts the rows whose keys are not there yet. */
export async function insertMissing<Row extends object>(
  db: Db,
  table: Table<Row>,
  rows: readonly Row[],
): Promise<void> {
  if (rows.length > 0) await table.bulkCreate(rows as never, { transaction: db.transaction, ignoreDuplicates: true });
}

/** Changes rows. @returns how many it found, whether or not they were so already */
export async function update<Row extends object>(
  db: Db,
  table: Table<Row>,
  where: WhereOptions<Row>,
  values: Partial<Row>,
): Promise<number> {
  const [found] = await table.update(values as never, { where, transaction: db.transaction });
  return found;
}

/**
 * Changes a row only if nobody changed it since it was read.
 *
 * @param version the version the editor saw
 * @returns false when the row has moved on, or is gone
 */
export async function updateVersion<Row extends { id: string; version: number }>(
  db: Db,
  table: Table<Row>,
  id: string,
  version: number,
  values: Partial<Row>,
): Promise<boolean> {
  const [changed] = await table.update({ ...values, version: version + 1 } as never, {
    where: { id, version } as WhereOptions<Row>,
    transaction: db.transaction,
  });
  return changed === 1;
}

/** Removes rows. */
export async function remove<Row extends object>(db: Db, table: Table<Row>, where: WhereOptions<Row>): Promise<number> {
  return table.destroy({ where, transaction: db.transaction });
}
