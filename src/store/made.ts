// What was made ahead, beyond single rows.
import { columnsOf, select } from './sql';
import type { Db } from './store';
import type { MadeBatchRow } from './tables/packing';

/** What a programme watched between two moments (the second not included), oldest first, each with its session. */
export const batchesBetween = (db: Db, values: { programmeId: string; from: Date; to: Date }) =>
  select<MadeBatchRow & { title: string }>(
    db,
    `SELECT ${columnsOf(db.models.madeBatch, 'x')}, CONCAT(c.title, ': ', s.title) AS title
       FROM made_batch x JOIN session s ON s.id = x.session_id JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND x.begun_at >= :from AND x.begun_at < :to ORDER BY x.begun_at, x.id`,
    values,
  );
