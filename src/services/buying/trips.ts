import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { labelCodes, price } from '@/contracts/reference';
import { STORED } from '@/core/buying/cold';
import { judgeSwap, lineNow, type TripAnswer } from '@/core/buying/trip';
import { sayTenths } from '@/core/packing/made/batch';
import { writeMoney } from '@/core/quantity/money';
import { findIngredient } from '@/core/reference/reference';
import { writeCsv } from '@/formats/csv';
import { holdTrip, raiseTrip } from '@/store/buying';
import { find, findOne, insert, update } from '@/store/query';
import { type Db, isDuplicate } from '@/store/store';
import type { TripEventRow, TripLineRow, TripRow } from '@/store/tables/buying';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { priceRow } from './shops';
import { linesOfVisit } from './visit-lines';

export const makeTrip = service({
  title: 'Make a trip of a planned visit',
  roles: ['coordinator'],
  input: z.object({ shopId: z.uuid(), day: civilDate }),
  run: async (context, { shopId, day }) => {
    const { programmeId, id: actorId } = context.actor;
    try {
      return await context.store.transaction(async (db) => {
        const plan = await findOne(db, db.models.buyingPlan, { programmeId });
        if (!plan) throw notFound('plan');
        const lines = await linesOfVisit(context, db, plan, { shopId, day });
        const id = context.ids();
        const blank = { state: 'to do' as const, paid: null, payer: '', seq: 0 };
        await insert(db, db.models.trip, [{ id, programmeId, shopId, day, ...blank, at: nowOf(context), actorId }]);
        await insert(
          db,
          db.models.tripLine,
          lines.map((body, position) => ({
            id: context.ids(),
            programmeId,
            tripId: id,
            productId: body.productId,
            position,
            body,
          })),
        );
        await logChange(context, db, 'made', 'trip', id, { shopId, day, lines: lines.length });
        return id;
      });
    } catch (error) {
      if (isDuplicate(error))
        throw new ServiceError('invalid', 'Somebody goes there on that day already: open that trip instead.');
      throw error;
    }
  },
});

/** A trip with its lines as they stand. */
export async function loadTrip(context: Context, db: Db, tripId: string) {
  const { programmeId } = context.actor;
  const trip = await findOne(db, db.models.trip, { id: tripId, programmeId });
  if (!trip) throw notFound('trip');
  const shop = await findOne(db, db.models.shop, { id: trip.shopId, programmeId });
  const lines = await find(db, db.models.tripLine, { tripId, programmeId }, [['position', 'ASC']]);
  const events = await find(db, db.models.tripEvent, { tripId, programmeId }, [['seq', 'ASC']]);
  return { trip, shop, lines, events };
}

/** What was said of a line, in order. */
export const answersOf = (events: readonly TripEventRow[], lineId: string): TripAnswer[] =>
  events.flatMap((event) => (event.lineId === lineId ? [event.answer] : []));

/** Lines as they stand after all that was said of them. */
export const standing = (lines: readonly TripLineRow[], events: readonly TripEventRow[]) =>
  lines.map(({ id, body }) => ({ id, body, now: lineNow(body, answersOf(events, id)) }));

/** Grams that a line brought less than its sessions need, after all that was accepted of it; 0 where it is enough. */
export function shortOf({ id, body }: TripLineRow, events: readonly TripEventRow[]): number {
  const { accepted, packGrams } = lineNow(body, answersOf(events, id));
  return Math.max(0, Math.ceil(body.packs * body.packGrams - body.left - accepted * packGrams));
}

/** Cold food is taken in at most so warm, in degrees Celsius: 41 °F of the FDA Food Code; the legal limit of the FSA. */
export const COLD_LIMITS = { us: 50, uk: 80 } as const;

export const viewTrip = service({
  title: 'See a trip to a shop',
  roles: ['coordinator', 'crew'],
  input: z.object({ tripId: z.uuid() }),
  run: async (context, { tripId }) => {
    const { db } = context.store;
    const { programme } = await loadProgramme(context);
    const { trip, shop, lines, events } = await loadTrip(context, db, tripId);
    const order = (aisle: string) => {
      const at = shop?.aisles.indexOf(aisle) ?? -1;
      return at < 0 ? 99 : at;
    };
    const now = standing(lines, events).sort(
      (a, b) => order(a.body.aisle) - order(b.body.aisle) || a.body.ingredient.localeCompare(b.body.ingredient),
    );
    return {
      id: trip.id,
      day: trip.day,
      state: trip.state,
      paid: trip.paid,
      payer: trip.payer,
      hasReceipt: (await db.models.tripReceipt.count({ where: { tripId } })) > 0,
      seq: trip.seq,
      shop: shop?.name ?? '',
      today: todayIn(context, programme.timeZone),
      lines: now.map(({ id, body }) => ({ id, body })),
      /** How each is kept, and for how many days as bought, as the table says. */
      keeping: Object.fromEntries(
        now.map(({ id, body }) => {
          const food = findIngredient(programme.reference, body.ingredient);
          return [id, { storage: STORED[food?.storage ?? ''] ?? 'shelf', days: food?.daysWhole ?? 7 }] as const;
        }),
      ),
      events: events.map(({ id, lineId, answer, seq }) => ({ id, lineId, answer, seq })),
      /** Colder than this on receipt, in degrees Celsius. */
      coldLimit: sayTenths(COLD_LIMITS[programme.safetyProfile], programme.safetyProfile),
      scale: programme.safetyProfile === 'us' ? ('°F' as const) : ('°C' as const),
    };
  },
});

export const tripSince = service({
  title: 'See what happened on a trip since',
  roles: ['coordinator', 'crew'],
  input: z.object({ tripId: z.uuid(), after: z.coerce.number().int().min(0) }),
  run: async (context, { tripId, after }) => {
    const { db } = context.store;
    const { trip, events } = await loadTrip(context, db, tripId);
    return {
      state: trip.state,
      events: events
        .filter(({ seq }) => seq > after)
        .map(({ id, lineId, answer, seq }) => ({ id, lineId, answer, seq })),
    };
  },
});

const packs = z.coerce.number('Write a number of packs.').int('Whole packs.').min(1, 'At least 1.').max(10_000);
const hand = z.object({
  name: z.string().trim().min(1, 'Name it as its pack does.').max(120),
  packGrams: z.coerce.number('Write the grams of a pack.').int().min(1, 'A pack of 0 g is none.').max(1_000_000),
  price: z.coerce.number().int().min(1, 'A price of 0 is no price.').max(100_000_000),
  label: labelCodes.nullable(),
});

/** What is said of a line, with an id made by whoever sends it. */
export const tripAnswer = z.object({
  id: z.uuid(),
  lineId: z.uuid(),
  answer: z.discriminatedUnion('kind', [
    z.object({
      kind: z.literal('taken'),
      packs,
      price: z.number().int().min(1, 'A price of 0 is no price.').max(100_000_000),
    }),
    z.object({ kind: z.literal('not there') }),
    z.object({ kind: z.literal('instead'), packs, hand }),
    z.object({ kind: z.literal('put back') }),
  ]),
});

/** Appends what was said, in the order in which it was heard; what was sent before is left out. */
export async function append(
  context: Context,
  db: Db,
  trip: TripRow,
  sent: readonly { id: string; lineId: string; answer: TripAnswer }[],
) {
  const { programmeId, id: actorId } = context.actor;
  const lines = await find(db, db.models.tripLine, { tripId: trip.id, programmeId });
  if (sent.some(({ lineId }) => !lines.some(({ id }) => id === lineId))) throw notFound('line');
  const known = new Set((await find(db, db.models.tripEvent, { id: sent.map(({ id }) => id) })).map(({ id }) => id));
  const fresh = sent.filter(({ id }) => !known.has(id));
  let { seq } = trip;
  const rows = fresh.map(
    (each): TripEventRow => ({
      ...each,
      programmeId,
      tripId: trip.id,
      seq: ++seq,
      at: nowOf(context),
      actorId,
    }),
  );
  if (rows.length === 0) return [];
  await insert(db, db.models.tripEvent, rows);
  await raiseTrip(db, { tripId: trip.id, seq });
  return rows;
}

export const answerTrip = service({
  title: 'Say at the shelf what was taken, was not there, or was taken instead',
  roles: ['coordinator', 'crew'],
  input: z.object({ tripId: z.uuid(), answers: z.array(tripAnswer).min(1).max(200) }),
  run: (context, { tripId, answers }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const trip = await holdTrip(db, { programmeId, tripId });
      if (!trip) throw notFound('trip');
      if (trip.state === 'received')
        throw new ServiceError('stale', 'This trip was received meanwhile: what was bought is on the shelf.');
      const lines = await find(db, db.models.tripLine, { tripId, programmeId });
      const rows = await append(context, db, trip, answers);
      // Judged again here: the phone may have been told less than is known now.
      return {
        seq: rows.at(-1)?.seq ?? trip.seq,
        unsafe: rows.flatMap(({ lineId, answer }) => {
          const line = lines.find(({ id }) => id === lineId);
          if (!line || answer.kind !== 'instead') return [];
          const { isSafe, kits } = judgeSwap(line.body, answer.hand);
          return isSafe ? [] : [{ lineId, kits: kits.filter(({ unsafe }) => unsafe.length > 0) }];
        }),
      };
    }),
});

/** Prices that were seen at the shelf. */
const seenPrices = (context: Context, trip: TripRow, now: ReturnType<typeof standing>) =>
  now.flatMap(({ body, now: { state, price: seen, hand: instead } }) =>
    state === 'taken' && !instead && seen !== body.price
      ? [
          priceRow(
            context,
            {
              shopId: trip.shopId,
              productId: body.productId,
              soldBy: body.soldBy,
              price: seen,
              fromDay: null,
              toDay: null,
              least: 1,
            },
            'receipt',
          ),
        ]
      : [],
  );

export const payTrip = service({
  title: 'Say what a trip cost and who paid',
  roles: ['coordinator', 'crew'],
  input: z.object({
    tripId: z.uuid(),
    paid: price.refine((cents) => cents !== null, 'Write the total of the receipt, such as 84.20.'),
    payer: z.string().trim().min(1, 'Who paid?').max(120),
  }),
  run: (context, { tripId, paid, payer }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const held = await holdTrip(db, { programmeId, tripId });
      if (!held) throw notFound('trip');
      const { lines, events } = await loadTrip(context, db, tripId);
      if (held.state === 'to do') {
        const seen = seenPrices(context, held, standing(lines, events));
        if (seen.length > 0) await insert(db, db.models.shelfPrice, seen);
      }
      await update(
        db,
        db.models.trip,
        { id: tripId },
        { paid, payer, ...(held.state === 'to do' ? { state: 'paid' } : {}) },
      );
      await logChange(context, db, 'paid', 'trip', tripId, { paid });
    }),
});

export const listTrips = service({
  title: 'See the trips to come and those of the last days',
  roles: ['coordinator', 'crew'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const shops = await find(db, db.models.shop, { programmeId });
    const trips = await find(db, db.models.trip, { programmeId }, [['day', 'DESC']]);
    return trips.slice(0, 60).map(({ id, shopId, day, state, paid, payer }) => ({
      id,
      shop: shops.find((shop) => shop.id === shopId)?.name ?? '',
      day,
      state,
      paid,
      payer,
    }));
  },
});

export const exportTrips = service({
  title: 'Take the trips out as CSV, for the book-keeper',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const shops = await find(db, db.models.shop, { programmeId });
    const trips = await find(db, db.models.trip, { programmeId }, [['day', 'ASC']]);
    const paid = trips.filter((trip) => trip.paid !== null);
    return writeCsv([
      ['day', 'shop', 'total', 'paid by'],
      ...paid.map(({ day, shopId, paid: total, payer }) => [
        day,
        shops.find(({ id }) => id === shopId)?.name ?? '',
        writeMoney(total ?? 0),
        payer,
      ]),
    ]);
  },
});
