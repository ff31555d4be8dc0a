import { z } from 'zod';
import { countedShelf, GIFT_CHECKS, gift, newLot, newMove, TIN_CHECKS } from '@/contracts/shops';
import type { OnShelf } from '@/core/buying/plan-case';
import { type Balance, balanceOf, FROZEN_DAYS, type Keeping, THAWED_DAYS, whyNot } from '@/core/buying/stock';
import { findIngredient, type Reference } from '@/core/reference/reference';
import { holdLots, type Moved, markOfMoves, movesOf } from '@/store/buying';
import { find, findOne, insert } from '@/store/query';
import type { Db } from '@/store/store';
import type { StockLotRow, StockMoveRow } from '@/store/tables/buying';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service, todayIn } from '../gate/gate';
import { memoryOf } from '../memory';
import { labelOf } from '../sheet/label-read';
import { loadProgramme } from '../sheet/load-programme';

/** How long a food keeps once opened, frozen and thawed: as the table or the programme says. */
export const keepingIn = (reference: Reference, ingredient: string): Keeping => ({
  opened: findIngredient(reference, ingredient)?.daysOpened ?? 1,
  frozen: FROZEN_DAYS,
  thawed: THAWED_DAYS,
});

const moveFrom = ({ kind, packs, grams, day, storage, placeId }: Moved) => ({
  kind,
  packs,
  grams,
  day,
  ...(storage === null ? {} : { storage, placeId }),
});

function byLot(moves: readonly Moved[]): Map<string, Moved[]> {
  const lots = new Map<string, Moved[]>();
  for (const move of moves) {
    const own = lots.get(move.lotId);
    if (own) own.push(move);
    else lots.set(move.lotId, [move]);
  }
  return lots;
}

/** What happened to the lots of programmes, by its mark: between two looks mostly nothing did. */
const MOVED = memoryOf<ReadonlyMap<string, readonly Moved[]>>(50_000, (lots) =>
  [...lots.values()].reduce((sum, { length }) => sum + length, 1),
);

/** A lot with what is left of it. */
export interface LotNow extends StockLotRow {
  readonly now: Balance;
}

/** A lot as buying and taking out see it. */
export const onShelf = ({ id, ingredient, name, allergens, packGrams, now }: LotNow): OnShelf => ({
  lotId: id,
  ingredient,
  product: name,
  label: allergens,
  packs: now.packs,
  packGrams,
  loose: now.loose,
  last: now.last,
  lastOpen: now.lastOpen,
});

/** Lots of which something is left, soonest to go off first. */
export async function lotsNow(context: Context, db: Db, reference: Reference): Promise<LotNow[]> {
  const { programmeId } = context.actor;
  const lots = await find(db, db.models.stockLot, { programmeId }, [['lastDay', 'ASC']]);
  const mark = await markOfMoves(db, programmeId);
  const read = MOVED.known(mark) ?? byLot(await movesOf(db, programmeId));
  const moves = MOVED.of(mark, () => read);
  return lots
    .map((lot) => ({
      ...lot,
      now: balanceOf(lot, (moves.get(lot.id) ?? []).map(moveFrom), keepingIn(reference, lot.ingredient)),
    }))
    .filter(({ now }) => now.grams > 0)
    .sort((a, b) => a.now.lastOpen.localeCompare(b.now.lastOpen) || a.ingredient.localeCompare(b.ingredient));
}

export const viewStock = service({
  title: 'See what stands on the shelves',
  roles: ['coordinator', 'crew'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const { programme } = await loadProgramme(context);
    const lots = await lotsNow(context, db, programme.reference);
    const places = await find(db, db.models.place, { programmeId }, [['name', 'ASC']]);
    const refused = await find(db, db.models.refusedGift, { programmeId }, [['at', 'DESC']]);
    return {
      today: todayIn(context, programme.timeZone),
      isCoordinator: context.actor.role === 'coordinator',
      foods: programme.reference.ingredients.map(({ name }) => name),
      lots: lots.map(({ programmeId: _, actorId: __, ...lot }) => ({
        ...lot,
        place: places.find(({ id }) => id === lot.now.placeId)?.name ?? '',
      })),
      places: places.map(({ id, name }) => ({ id, name })),
      refused: refused.slice(0, 20).map(({ id, name, reasons, at }) => ({ id, name, reasons, at: at.toISOString() })),
    };
  },
});

/** Puts a lot on its shelf. @returns false where it is there already */
export async function putAway(
  context: Context,
  db: Db,
  { packs, grams, ...lot }: Omit<StockLotRow, 'programmeId' | 'at' | 'actorId'> & { packs: number; grams: number },
  day: string,
): Promise<boolean> {
  const { programmeId, id: actorId } = context.actor;
  if (await findOne(db, db.models.stockLot, { id: lot.id })) return false;
  const made = { programmeId, at: nowOf(context), actorId };
  await insert(db, db.models.stockLot, [{ ...lot, ...made }]);
  await insert(db, db.models.stockMove, [
    {
      id: context.ids(),
      lotId: lot.id,
      seq: 1,
      kind: 'received',
      packs,
      grams,
      day,
      storage: null,
      placeId: null,
      reason: '',
      sessionId: null,
      ...made,
    },
  ]);
  return true;
}

async function refusePlace(context: Context, db: Db, placeId: string | null): Promise<void> {
  const { programmeId } = context.actor;
  if (placeId && !(await findOne(db, db.models.place, { id: placeId, programmeId }))) throw notFound('place');
}

/** A lot as it was written, read against the reference table. @throws ServiceError naming the field */
async function readLot(context: Context, db: Db, sent: z.output<typeof newLot>) {
  const { programme } = await loadProgramme(context, db);
  const today = todayIn(context, programme.timeZone);
  const food = findIngredient(programme.reference, sent.ingredient);
  if (!food)
    throw new ServiceError('invalid', 'Nothing was saved yet.', [
      {
        where: 'ingredient',
        message: `“${sent.ingredient}” is not in the reference table. Choose a food from the list, or add it there.`,
      },
    ]);
  if (sent.lastKind === 'use by' && sent.lastDay < today)
    throw new ServiceError('invalid', 'Nothing was saved yet.', [
      { where: 'lastDay', message: `A use-by of ${sent.lastDay} is over: it must not come in. Throw it away.` },
    ]);
  await refusePlace(context, db, sent.placeId);
  const { programmeId } = context.actor;
  const product = sent.productId
    ? await findOne(db, db.models.product, { id: sent.productId, programmeId })
    : undefined;
  if (sent.productId && !product) throw notFound('product');
  const { labelRead, allergens, ...lot } = sent;
  return {
    today,
    lot: {
      ...lot,
      ingredient: food.name,
      name: lot.name || product?.name || food.name,
      allergens: labelRead ? labelOf(food, allergens) : (product?.allergens ?? null),
      tripId: null,
    },
  };
}

export const addLot = service({
  title: 'Put something on a shelf',
  roles: ['coordinator', 'crew'],
  input: newLot,
  run: (context, sent) =>
    context.store.transaction(async (db) => {
      const { lot, today } = await readLot(context, db, sent);
      if (await putAway(context, db, lot, today))
        await logChange(context, db, 'put away', 'stock', lot.id, { ingredient: lot.ingredient, origin: lot.origin });
    }),
});

/** What a gift fails, in words. */
const FAILS: Readonly<Record<string, string>> = {
  sealed: 'it was opened',
  labelled: 'it has no label',
  'in date': 'it is past its date',
  undamaged: 'it is damaged',
  'not home-made': 'it is home-made',
  'no dent on a seam': 'the tin is dented on a seam',
  'not bulging': 'the tin bulges',
  'no rust': 'the tin is rusty',
  'no leak': 'the tin leaks',
};

export const takeGift = service({
  title: 'Take a gift of food, or refuse it with the reason',
  roles: ['coordinator', 'crew'],
  input: newLot.and(gift),
  run: (context, { isTin, checks, ...sent }) =>
    context.store.transaction(async (db) => {
      const asked = [...GIFT_CHECKS, ...(isTin ? TIN_CHECKS : [])];
      const reasons = asked.filter((check) => !checks.includes(check)).map((check) => FAILS[check] ?? check);
      const { programmeId, id: actorId } = context.actor;
      if (reasons.length > 0) {
        const made = { at: nowOf(context), actorId };
        if (!(await findOne(db, db.models.refusedGift, { id: sent.id })))
          await insert(db, db.models.refusedGift, [
            { id: sent.id, programmeId, name: sent.name || sent.ingredient, reasons, ...made },
          ]);
        return { isTaken: false, reasons };
      }
      const { lot, today } = await readLot(context, db, { ...sent, origin: 'given' });
      if (lot.allergens === null)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          {
            where: 'labelRead',
            message: 'Read its label for allergens: a gift comes with no other word of what is in it.',
          },
        ]);
      if (await putAway(context, db, lot, today))
        await logChange(context, db, 'put away', 'stock', lot.id, { ingredient: lot.ingredient, origin: 'given' });
      return { isTaken: true, reasons };
    }),
});

type Sent = Pick<StockMoveRow, 'id' | 'lotId' | 'kind' | 'packs' | 'grams' | 'storage' | 'placeId' | 'reason'> & {
  readonly sessionId?: string | null;
};

/** Appends what happened to lots, each in the order of its lot; what was sent before is left out. */
export async function appendMoves(context: Context, db: Db, sent: readonly Sent[]): Promise<void> {
  const { programmeId, id: actorId } = context.actor;
  const { programme } = await loadProgramme(context, db);
  const day = todayIn(context, programme.timeZone);
  const ids = [...new Set(sent.map(({ lotId }) => lotId))];
  // Two people at one lot wait for each other here.
  if ((await holdLots(db, { programmeId, ids })).length < ids.length) throw notFound('lot');
  const known = new Set((await find(db, db.models.stockMove, { id: sent.map(({ id }) => id) })).map(({ id }) => id));
  const lots = new Map((await find(db, db.models.stockLot, { programmeId, id: ids })).map((lot) => [lot.id, lot]));
  const before = byLot(await movesOf(db, programmeId, ids));
  const rows: StockMoveRow[] = [];
  for (const { sessionId = null, ...move } of sent) {
    const lot = lots.get(move.lotId);
    if (!lot || known.has(move.id)) continue;
    known.add(move.id);
    const own = before.get(lot.id) ?? [];
    const now = balanceOf(lot, own.map(moveFrom), keepingIn(programme.reference, lot.ingredient));
    const row: StockMoveRow = {
      ...move,
      programmeId,
      sessionId,
      seq: (own.at(-1)?.seq ?? 0) + 1,
      day,
      at: nowOf(context),
      actorId,
    };
    const why = whyNot(lot, now, moveFrom(row), lot.lastKind);
    if (why) throw new ServiceError('invalid', `${lot.name}: ${why}`, [{ where: 'packs', message: why }]);
    before.set(lot.id, [...own, row]);
    rows.push(row);
  }
  if (rows.length > 0) await insert(db, db.models.stockMove, rows);
}

export const moveLot = service({
  title: 'Note what was taken, opened, moved, frozen, thawed or thrown away',
  roles: ['coordinator', 'crew'],
  input: newMove,
  run: (context, move) =>
    context.store.transaction(async (db) => {
      if (move.kind === 'received')
        throw new ServiceError('invalid', 'What comes in is a lot of its own: put it on a shelf.');
      if (move.kind === 'thrown away' && move.reason === '')
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: 'reason', message: 'Say why it is thrown away: next time less of it is lost.' },
        ]);
      if (move.kind === 'moved' && move.storage === null)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [{ where: 'storage', message: 'Where to?' }]);
      await refusePlace(context, db, move.placeId);
      await appendMoves(context, db, [move]);
    }),
});

export const countShelf = service({
  title: 'Note what was counted on a shelf',
  roles: ['coordinator', 'crew'],
  input: countedShelf,
  run: (context, { moves }) =>
    context.store.transaction((db) =>
      appendMoves(
        context,
        db,
        moves.map((move) => ({ ...move, kind: 'counted', storage: null, placeId: null, reason: '' })),
      ),
    ),
});
