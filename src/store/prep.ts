// What a prep day asks of the database beyond single rows.
import { Op } from 'sequelize';
import { hold } from './hold';
import { find } from './query';
import { select } from './sql';
import type { Db } from './store';
import type { PrepEventRow } from './tables/packing';

/** Holds a programme’s prep day for the rest of the transaction. @returns the number of its last event */
export async function holdPrepDay(db: Db, values: { programmeId: string; day: string }): Promise<number> {
  await hold(db, 'programme', [values.programmeId]);
  const [found] = await select<{ seq: number | null }>(
    db,
    'SELECT MAX(seq) AS seq FROM prep_event WHERE programme_id = :programmeId AND day = :day',
    values,
  );
  return found?.seq ?? 0;
}

/** What was said of a prep day after a number, in order. */
export const preparedSince = (
  db: Db,
  { programmeId, day }: { programmeId: string; day: string },
  after: number,
): Promise<PrepEventRow[]> =>
  find(db, db.models.prepEvent, { programmeId, day, seq: { [Op.gt]: after } }, [['seq', 'ASC']]);
