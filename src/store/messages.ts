import { change } from './sql';
import type { Db } from './store';

/** A message was sent. */
export const markSent = (db: Db, values: { now: Date; messageId: string }) =>
  change(db, 'UPDATE message SET sent_at = :now WHERE id = :messageId AND sent_at IS NULL', values);
