import { ownedTables, type Table } from './models';
import { find, insert } from './query';
import type { Db } from './store';

/** The tables whose rows are of a session, with what joining, splitting and repeating it does to them. */
export const sessionTables = (db: Db) =>
  ownedTables(db.models).flatMap(({ table, ownership }) => {
    if (ownership.belongs !== 'sessionId') return [];
    const { joined, copied = [] } = ownership;
    return [{ table: table as unknown as Table<{ readonly id: string; readonly sessionId: string }>, joined, copied }];
  });

/**
 * Gives new sessions the rows of others, as their tables say.
 *
 * @param why what made the new sessions
 * @param newOf the new session of each, by the old one's id
 * @param ids makes an id
 */
export async function copyRows(
  db: Db,
  why: 'split' | 'repeat',
  newOf: ReadonlyMap<string, string>,
  ids: () => string,
): Promise<void> {
  for (const { table, copied } of sessionTables(db)) {
    if (!copied.includes(why)) continue;
    const rows = await find(db, table, { sessionId: [...newOf.keys()] });
    await insert(
      db,
      table,
      rows.map((row) => ({ ...row, id: ids(), sessionId: newOf.get(row.sessionId) as string })),
    );
  }
}
