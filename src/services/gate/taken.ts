import type { Db } from '@/store/store';
import type { SessionJobRow } from '@/store/tables/countdown';
import type { ClosureCalendarRow, ClosureRow, PlaceRow, TravelRow } from '@/store/tables/plan';
import type { DishRow, ProductRow } from '@/store/tables/recipes';
import { logChange } from './change-log';
import type { Context } from './gate';

/** What can be put back after it was taken away, in the order in which one needs another. Nothing in it is said of a family. */
export const PUT_BACK = ['place', 'travel', 'closureCalendar', 'closure', 'product', 'dish', 'sessionJob'] as const;

/** Rows as they stood before they were taken away. */
export interface Taken {
  readonly place?: readonly PlaceRow[];
  readonly travel?: readonly TravelRow[];
  readonly closureCalendar?: readonly ClosureCalendarRow[];
  readonly closure?: readonly ClosureRow[];
  readonly product?: readonly ProductRow[];
  readonly dish?: readonly DishRow[];
  readonly sessionJob?: readonly SessionJobRow[];
}

/**
 * Notes that something was taken away, with its rows: they are put back from the note.
 *
 * @param called what whoever puts it back reads
 * @returns id of the entry in the log
 */
export const logTaken = (
  context: Context,
  db: Db,
  entity: string,
  entityId: string,
  called: string,
  taken: Taken,
): Promise<string> => logChange(context, db, 'took away', entity, entityId, { called, taken });
