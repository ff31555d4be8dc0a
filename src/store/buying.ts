import { hold } from './hold';
import { columnsOf, execute, select } from './sql';
import type { Db } from './store';
import type { ShelfPriceRow, StockMoveRow, TripRow } from './tables/buying';

/** The newest price of each product in each shop, usual ones and each offer; those that are no longer had are left out. */
export const pricesNow = (db: Db, programmeId: string): Promise<ShelfPriceRow[]> =>
  select<ShelfPriceRow>(
    db,
    `SELECT ${columnsOf(db.models.shelfPrice, 'p')} FROM (
       SELECT *, ROW_NUMBER() OVER (PARTITION BY shop_id, product_id, from_day, to_day ORDER BY at DESC, id DESC) AS place
         FROM shelf_price WHERE programme_id = :programmeId
     ) p WHERE p.place = 1 AND p.price IS NOT NULL ORDER BY p.product_id, p.shop_id`,
    { programmeId },
  );

/** What of a movement the balance of its lot is worked out from, and its place in the order. */
export type Moved = Pick<StockMoveRow, 'lotId' | 'seq' | 'kind' | 'packs' | 'grams' | 'day' | 'storage' | 'placeId'>;

/**
 * What happened to the lots of a programme, lot by lot in order; of some lots only, where they are named. What a count has
 * overtaken, because nothing was open at it, is left out: only where the lot went since is still told.
 */
export const movesOf = (db: Db, programmeId: string, lotIds?: readonly string[]): Promise<Moved[]> =>
  lotIds?.length === 0
    ? Promise.resolve([])
    : select<Moved>(
        db,
        `SELECT m.lot_id AS lotId, m.seq, m.kind, m.packs, m.grams, m.day, m.storage, m.place_id AS placeId FROM stock_move m
           LEFT JOIN (SELECT lot_id, MAX(seq) AS seq FROM stock_move
                       WHERE programme_id = :programmeId AND kind = 'counted' AND grams = 0 GROUP BY lot_id) c ON c.lot_id = m.lot_id
          WHERE m.programme_id = :programmeId ${lotIds ? 'AND m.lot_id IN (:lotIds)' : ''}
            AND (c.seq IS NULL OR m.seq >= c.seq OR m.kind IN ('moved', 'frozen', 'thawed'))
          ORDER BY m.lot_id, m.seq`,
        { programmeId, ...(lotIds ? { lotIds } : {}) },
      );

/** A mark of all that happened to the lots of a programme: another one as soon as anything else did. */
export const markOfMoves = async (db: Db, programmeId: string): Promise<string> => {
  const [row] = await select<{ count: number; sum: string | null }>(
    db,
    'SELECT COUNT(*) AS count, SUM(CRC32(id)) AS sum FROM stock_move WHERE programme_id = :programmeId',
    { programmeId },
  );
  return `${programmeId}|${row?.count}|${row?.sum}`;
};

/** Holds lots for the rest of the transaction, in order of id. @returns ids that are there */
export async function holdLots(
  db: Db,
  values: { programmeId: string; ids: readonly string[] },
): Promise<{ id: string }[]> {
  await hold(db, 'stock_lot', values.ids, 'programme_id = :programmeId', values);
  return select(db, 'SELECT id FROM stock_lot WHERE programme_id = :programmeId AND id IN (:ids) ORDER BY id', values);
}

/** Holds a trip for the rest of the transaction. */
export async function holdTrip(db: Db, values: { programmeId: string; tripId: string }): Promise<TripRow | undefined> {
  await hold(db, 'trip', [values.tripId], 'programme_id = :programmeId', values);
  const [trip] = await select<TripRow>(
    db,
    `SELECT ${columnsOf(db.models.trip, 't')} FROM trip t WHERE t.programme_id = :programmeId AND t.id = :tripId`,
    values,
  );
  return trip;
}

/** Gives a trip its next place in the order. */
export const raiseTrip = (db: Db, values: { tripId: string; seq: number }): Promise<void> =>
  execute(db, 'UPDATE trip SET seq = :seq WHERE id = :tripId', values);
