import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { labelCodes, price } from '@/contracts/reference';
import { DATE_KINDS, STORAGES, type Storage } from '@/core/buying/stock';
import { judgeSwap, lineNow, type TripAnswer, type TripLineBody } from '@/core/buying/trip';
import { sayMoney } from '@/core/quantity/say';
import { findIngredient } from '@/core/reference/reference';
import { eitherHolds } from '@/core/safety/avoidances';
import { writeCsv } from '@/formats/csv';
import { holdTrip, raiseTrip } from '@/store/buying';
import { find, findOne, insert, remove, update } from '@/store/query';
import { type Db, isDuplicate } from '@/store/store';
import type { TripEventRow, TripLineRow, TripRow } from '@/store/tables/buying';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { syncCallBacks } from '../sheet/call-backs';
import { loadProgramme } from '../sheet/load-programme';
import { linesOfVisit } from './plan';
import { priceRow, todayOf } from './shops';
import { putAway } from './stock';

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
async function loadTrip(context: Context, db: Db, tripId: string) {
  const { programmeId } = context.actor;
  const trip = await findOne(db, db.models.trip, { id: tripId, programmeId });
  if (!trip) throw notFound('trip');
  const shop = await findOne(db, db.models.shop, { id: trip.shopId, programmeId });
  const lines = await find(db, db.models.tripLine, { tripId, programmeId }, [['position', 'ASC']]);
  const events = await find(db, db.models.tripEvent, { tripId, programmeId }, [['seq', 'ASC']]);
  return { trip, shop, lines, events };
}

const answersOf = (events: readonly TripEventRow[], lineId: string): TripAnswer[] =>
  events.flatMap((event) => (event.lineId === lineId ? [event.answer] : []));

const standing = (lines: readonly TripLineRow[], events: readonly TripEventRow[]) =>
  lines.map(({ id, body }) => ({ id, body, now: lineNow(body, answersOf(events, id)) }));

/** Where a food is kept, as the reference table says. */
const STORED: Readonly<Record<string, Storage>> = { ambient: 'shelf', cold: 'fridge', frozen: 'freezer' };

/** Cold food is taken in at most so warm, in degrees Celsius: 41 °F of the FDA Food Code; the legal limit of the FSA. */
const COLD_LIMITS = { us: 5, uk: 8 } as const;

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
      seq: trip.seq,
      shop: shop?.name ?? '',
      today: todayOf(context, programme.timeZone),
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
      coldLimit: COLD_LIMITS[programme.safetyProfile],
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
async function append(
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

const received = z.object({
  id: z.uuid(),
  lineId: z.uuid(),
  packs: z.coerce.number().int().min(0).max(10_000),
  refused: z.coerce.number().int().min(0).max(10_000),
  reasons: z.array(z.string().max(80)).max(8).default([]),
  lastDay: civilDate.or(z.literal('')),
  lastKind: z.enum(DATE_KINDS),
  storage: z.enum(STORAGES),
  celsius: z.coerce.number().min(-40).max(60).nullable().default(null),
});

/** What a line brought, with its label; without one, all that brands of the food may hold. */
interface Brought {
  readonly body: TripLineBody;
  readonly name: string;
  readonly label: readonly string[] | null;
}

/**
 * The sessions whose kits are made of what came take its label: from then on they name this very product. Where several products
 * of a food came for one session, anything that one of them holds may be in any kit.
 */
async function travelOn(context: Context, db: Db, brought: readonly Brought[]): Promise<void> {
  const foods = new Map<string, { sessionId: string; ingredient: string; of: Brought[] }>();
  for (const each of brought)
    for (const { sessionId, eaters } of each.body.uses) {
      if (!eaters.some(({ without }) => without.length > 0)) continue;
      const { ingredient } = each.body;
      const key = `${sessionId} ${ingredient}`;
      const food = foods.get(key) ?? { sessionId, ingredient, of: [] };
      foods.set(key, food);
      if (!food.of.includes(each)) food.of.push(each);
    }
  for (const { sessionId, ingredient, of } of foods.values()) {
    if (of.every(({ label }) => label === null)) continue;
    const product = [...new Set(of.map(({ name }) => name))].join(' or ').slice(0, 120);
    const allergens = of
      .map(({ body, label }) => label ?? [...body.contains, ...body.mayContain])
      .reduce((one, other) => eitherHolds(one, other));
    const before = await findOne(db, db.models.productLabel, { sessionId, ingredient });
    if (before?.product === product && JSON.stringify(before.allergens) === JSON.stringify(allergens)) continue;
    await remove(db, db.models.productLabel, { sessionId, ingredient });
    await insert(db, db.models.productLabel, [{ id: context.ids(), sessionId, ingredient, product, allergens }]);
    await logChange(context, db, 'recorded a label', 'session', sessionId, { ingredient, product, allergens });
  }
}

export const receiveTrip = service({
  title: 'Check in what a trip brought: accept it, or refuse it with the reason',
  roles: ['coordinator', 'crew'],
  input: z.object({
    tripId: z.uuid(),
    placeId: z.uuid().nullable().default(null),
    lines: z.array(received).min(1).max(300),
  }),
  run: (context, { tripId, placeId, lines: sent }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const held = await holdTrip(db, { programmeId, tripId });
      if (!held) throw notFound('trip');
      if (held.state === 'received') return { short: [] };
      const { programme } = await loadProgramme(context, db);
      const today = todayOf(context, programme.timeZone);
      const { lines, events } = await loadTrip(context, db, tripId);
      const now = standing(lines, events);
      const problems = sent.flatMap(
        ({ lineId, packs: whole, refused, lastDay, lastKind, reasons, celsius, storage }, at) => {
          const own = now.find(({ id }) => id === lineId);
          const where = (field: string, message: string) => [{ where: `lines[${at}].${field}`, message }];
          if (!own) return where('lineId', 'This line is not of this trip.');
          if (whole + refused !== own.now.packs)
            return where(
              'packs',
              `${own.now.name}: ${own.now.packs} were bought; accepted and refused make ${whole + refused}.`,
            );
          if (whole > 0 && lastDay === '') return where('lastDay', `${own.now.name}: write the day on its pack.`);
          if (whole > 0 && lastKind === 'use by' && lastDay < today)
            return where('lastDay', `${own.now.name}: its use-by is over. Refuse it.`);
          const limit = COLD_LIMITS[programme.safetyProfile];
          if (whole > 0 && celsius !== null && storage !== 'shelf' && celsius > limit)
            return where('celsius', `${own.now.name}: ${celsius} °C is too warm, at most ${limit} °C. Refuse it.`);
          if (refused > 0 && reasons.length === 0) return where('reasons', `${own.now.name}: say why it is refused.`);
          return [];
        },
      );
      const bought = now.filter(({ now: { packs: whole } }) => whole > 0);
      const unheard = bought.filter(({ id }) => !sent.some(({ lineId }) => lineId === id));
      if (unheard[0])
        problems.push({ where: 'lines', message: `${unheard[0].now.name} was bought and is not checked yet.` });
      if (problems.length > 0)
        throw new ServiceError('invalid', problems[0]?.message ?? 'Nothing was saved yet.', problems);
      const answers = sent.flatMap(
        ({ id, lineId, packs: whole, refused, reasons, lastDay, lastKind, storage, celsius }) => [
          ...(whole > 0
            ? [
                {
                  id,
                  lineId,
                  answer: {
                    kind: 'accepted' as const,
                    packs: whole,
                    lastDay,
                    lastKind,
                    storage,
                    ...(celsius === null ? {} : { celsius }),
                  },
                },
              ]
            : []),
          ...(refused > 0
            ? [{ id: context.ids(), lineId, answer: { kind: 'refused' as const, packs: refused, reasons } }]
            : []),
        ],
      );
      await append(context, db, held, answers);
      const brought: Brought[] = [];
      for (const { lineId, packs: whole, lastDay, lastKind, storage } of sent) {
        const own = now.find(({ id }) => id === lineId);
        if (!own || whole === 0) continue;
        const { body } = own;
        const { name, packGrams, hand: instead, price: each } = own.now;
        const food = findIngredient(programme.reference, body.ingredient);
        const product = instead ? undefined : await findOne(db, db.models.product, { id: body.productId, programmeId });
        const label = instead ? instead.label : (product?.allergens ?? null);
        const isLoose = body.soldBy === 'weight' && !instead;
        await putAway(
          context,
          db,
          {
            id: lineId,
            ingredient: food?.name ?? body.ingredient,
            productId: product?.id ?? null,
            name,
            packGrams: isLoose ? null : Math.round(packGrams),
            packs: isLoose ? 0 : whole,
            grams: isLoose ? whole * packGrams : 0,
            placeId,
            storage,
            lastDay,
            lastKind,
            origin: 'bought',
            allergens: label,
            price: each,
            tripId,
          },
          today,
        );
        brought.push({ body, name, label });
      }
      await travelOn(context, db, brought);
      await update(db, db.models.trip, { id: tripId }, { state: 'received' });
      await logChange(context, db, 'received', 'trip', tripId, { lines: sent.length });
      await syncCallBacks(context, db, 'all');
      return {
        short: now.flatMap(({ id, body, now: own }) => {
          const accepted = sent.find(({ lineId }) => lineId === id)?.packs ?? 0;
          const wanted = body.packs * body.packGrams;
          const there = accepted * own.packGrams;
          return there < wanted - body.left
            ? [{ ingredient: body.ingredient, grams: Math.ceil(wanted - body.left - there) }]
            : [];
        }),
      };
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
        sayMoney(total ?? 0),
        payer,
      ]),
    ]);
  },
});
