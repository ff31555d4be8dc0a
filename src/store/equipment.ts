import { select } from './query';
import type { Db } from './store';

/** The last twenty print-outs of a programme, newest first. */
export const printOutsOf = (db: Db, values: { programmeId: string }) =>
  select<{ id: string; title: string; pages: number; at: Date }>(
    db,
    'SELECT id, title, pages, at FROM print_out WHERE programme_id = :programmeId ORDER BY at DESC LIMIT 20',
    values,
  );
