import { change } from './sql';
import type { Db } from './store';

/** What can be held, with the column that names it. */
const KEYS = {
  programme: 'id',
  course: 'id',
  session: 'id',
  bench: 'session_id',
  crew_member: 'id',
  promise: 'id',
  stock_lot: 'id',
  trip: 'id',
} as const;

/**
 * Holds rows for the rest of the transaction: whoever else holds or changes one of them waits.
 *
 * A lock reaches no further than its own node of a cluster. What is written travels, and of two transactions on two nodes that
 * write the same row the later one is refused and done again (again.ts): so whoever holds a row writes to it.
 *
 * @param also a condition on the rows, beside their ids
 * @returns how many of them there are
 */
export const hold = (
  db: Db,
  table: keyof typeof KEYS,
  ids: readonly string[],
  also = '',
  values: Record<string, unknown> = {},
): Promise<number> =>
  ids.length === 0
    ? Promise.resolve(0)
    : change(
        db,
        `UPDATE ${table} SET held = held + 1 WHERE ${KEYS[table]} IN (:held) ${also && `AND ${also}`} ORDER BY ${KEYS[table]}`,
        { ...values, held: ids },
      );
