import { createHash } from 'node:crypto';
import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import type { BuyingSession, FoodNeed } from '@/core/buying/needs';
import { needsOf } from '@/core/buying/needs';
import type { Planned } from '@/core/buying/plan';
import type { BuyingWishes, BuyingWorld, OnShelf, Visit } from '@/core/buying/plan-case';
import { visitKey } from '@/core/buying/plan-case';
import { lessTaken } from '@/core/buying/take-out';
import { lineNow } from '@/core/buying/trip';
import { addDays, dayOf, sayDay, weekdayOf } from '@/core/plan/civil';
import { lastDayOf } from '@/core/plan/sitting';
import { sayMoney } from '@/core/quantity/say';
import { findIngredient } from '@/core/reference/reference';
import { pricesNow } from '@/store/buying';
import { find, findOne, insert, updateVersion } from '@/store/query';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import type { Db } from '@/store/store';
import type { BuyingPlanRow, ShopRow } from '@/store/tables/buying';
import { inPool } from '@/workers/pool';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { usedUpBy } from '../kits/figures';
import { loadProgramme } from '../sheet/load-programme';
import { sessionSheet } from '../sheet/session-sheet';
import { markedDone, sessionThread } from '../sheet/session-thread';
import { shelfPriceFrom, todayOf } from './shops';
import { lotsNow, onShelf } from './stock';
import { takenFor } from './take-out';

/** How far a plan looks where nobody says, and at most. */
const USUAL_DAYS = 28;
const MOST_DAYS = 120;
/** Visits that the solver weighs against each other. */
const MOST_VISITS = 24;
const SECONDS = 10;

/** The day on which a session's food is first taken up: when its packing or prep must begin, else its own. */
function dayTaken(bundle: SessionBundle, startBys: readonly string[], timeZone: string, today: string): string {
  const first = [bundle.session.date, ...startBys.map((instant) => civilDay(instant, timeZone))].sort()[0] ?? today;
  return first < today ? today : first;
}

const civilDay = (instant: string, timeZone: string): string =>
  new Intl.DateTimeFormat('en-CA', { timeZone, dateStyle: 'short' }).format(new Date(instant));

/** What the sessions of a span still need to be bought: those whose shopping is not done. */
async function needsUntil(context: Context, db: Db, to: string) {
  const { programme, meanings, hours } = await loadProgramme(context, db);
  const today = todayOf(context, programme.timeZone);
  const bundles = await loadSessionBundles(db, context.actor.programmeId, { from: today, to });
  const taken = await takenFor(
    context,
    db,
    bundles.map(({ session }) => session.id),
  );
  const sessions: BuyingSession[] = [];
  const needs: FoodNeed[] = [];
  const usedUp = new Map<string, { name: string; count: number; by: string }>();
  for (const bundle of bundles) {
    if (markedDone(bundle.marks).has('buying')) continue;
    const sheet = sessionSheet(bundle, programme, meanings);
    const content = sheet.locked?.content ?? sheet.draft;
    if (!content || content.totals.length === 0) continue;
    const thread = sessionThread(bundle, sheet, programme, hours, context.clock());
    const packing = thread.jobs.flatMap(({ stage, state, startBy }) =>
      stage === 'packing' && state !== 'done' && state !== 'not needed' ? [startBy] : [],
    );
    const { id, courseTitle, title } = bundle.session;
    const session: BuyingSession = {
      id,
      title: `${courseTitle}: ${title}`,
      day: dayTaken(bundle, packing, programme.timeZone, today),
      until: lastDayOf(bundle.session),
      isLocked: sheet.locked !== undefined,
    };
    sessions.push(session);
    needs.push(
      ...lessTaken(
        needsOf(session, content),
        taken.filter(({ sessionId }) => sessionId === id),
      ),
    );
    for (const { name, count } of usedUpBy(bundle, sheet, programme)) {
      const same = usedUp.get(name);
      const by = same && same.by < session.day ? same.by : session.day;
      usedUp.set(name, { name, count: count + (same?.count ?? 0), by });
    }
  }
  return { programme, today, sessions, needs, usedUp: [...usedUp.values()] };
}

/** Days on which the shops are visited by the programme's rhythm. */
function visitsBetween(shops: readonly ShopRow[], from: string, to: string): Visit[] {
  const days = Array.from({ length: Math.max(0, dayOf(to) - dayOf(from)) + 1 }, (_, at) => addDays(from, at));
  return days.flatMap((day) =>
    shops.flatMap(({ id, weekdays, tripCost }) =>
      weekdays.includes(weekdayOf(dayOf(day))) ? [{ shopId: id, day, cost: tripCost }] : [],
    ),
  );
}

/** What was asked for on trips that are not received yet: it comes, and is not bought again. */
async function coming(context: Context, db: Db): Promise<(Omit<OnShelf, 'last' | 'lastOpen'> & Visit)[]> {
  const { programmeId } = context.actor;
  const trips = (await find(db, db.models.trip, { programmeId })).filter(({ state }) => state !== 'received');
  if (trips.length === 0) return [];
  const ids = trips.map(({ id }) => id);
  const lines = await find(db, db.models.tripLine, { programmeId, tripId: ids });
  const events = await find(db, db.models.tripEvent, { programmeId, tripId: ids }, [['seq', 'ASC']]);
  const products = await find(db, db.models.product, { programmeId });
  return lines.flatMap(({ id, tripId, productId, body }) => {
    const trip = trips.find((each) => each.id === tripId);
    const now = lineNow(
      body,
      events.flatMap(({ lineId, answer }) => (lineId === id ? [answer] : [])),
    );
    const packs = now.state === 'open' ? body.packs : now.packs;
    if (!trip || packs === 0) return [];
    const label = now.hand ? now.hand.label : (products.find((each) => each.id === productId)?.allergens ?? null);
    return [
      {
        lotId: id,
        ingredient: body.ingredient,
        product: now.name,
        label,
        packs,
        packGrams: now.packGrams,
        loose: 0,
        shopId: trip.shopId,
        day: trip.day,
        cost: 0,
      },
    ];
  });
}

/** A mark of everything a plan hangs on, so that it can be told when something moved since. */
const markOf = (needs: readonly FoodNeed[]): string =>
  createHash('sha256')
    .update(JSON.stringify(needs.map(({ id, grams, units, day, without }) => [id, grams, units, day, without])))
    .digest('hex');

export const viewBuyingPlan = service({
  title: 'See what to buy, when and where',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const plan = await findOne(db, db.models.buyingPlan, { programmeId });
    const { programme, today, sessions, needs, usedUp } = await needsUntil(
      context,
      db,
      plan?.toDay ?? addDays(todayOf(context, 'UTC'), USUAL_DAYS),
    );
    const shops = await find(db, db.models.shop, { programmeId }, [['name', 'ASC']]);
    const trips = await find(db, db.models.trip, { programmeId }, [['day', 'ASC']]);
    const prices = plan ? await pricesNow(db, programmeId) : [];
    const products = plan ? await find(db, db.models.product, { programmeId }) : [];
    const lots = plan ? await lotsNow(context, db, programme.reference) : [];
    return {
      today,
      plan,
      usedUp,
      /** Something that the plan hangs on is no longer as it was. */
      isOld: plan !== undefined && markOf(plan.needs) !== markOf(needs),
      sessions: plan?.sessions ?? sessions,
      needs: plan?.needs ?? needs,
      shops: shops.map(({ id, name }) => ({ id, name })),
      trips: trips
        .filter(({ day, state }) => day >= addDays(today, -7) || state !== 'received')
        .map(({ id, shopId, day, state }) => ({ id, shopId, day, state })),
      choices: products.flatMap(({ id, ingredient, name }) =>
        prices.some(({ productId }) => productId === id) ? [{ id, ingredient, name }] : [],
      ),
      lots: lots.map(({ id, name, now }) => ({ id, name, last: now.last })),
      past: lots.filter(({ lastKind, now }) => lastKind === 'use by' && now.last < today).map(({ name }) => name),
    };
  },
});

/** Works a plan out anew, in a process of its own. */
async function workedOut(
  context: Context,
  toDay: string,
  wishes: BuyingWishes,
): Promise<Omit<BuyingPlanRow, 'id' | 'version'>> {
  const { db } = context.store;
  const { programmeId, id: actorId } = context.actor;
  const { programme, today, sessions, needs } = await needsUntil(context, db, toDay);
  if (toDay < today || dayOf(toDay) - dayOf(today) > MOST_DAYS)
    throw new ServiceError('invalid', 'Nothing was planned yet.', [
      { where: 'toDay', message: `Choose a day between today and ${addDays(today, MOST_DAYS)}.` },
    ]);
  const shops = await find(db, db.models.shop, { programmeId }, [['name', 'ASC']]);
  const ordered = await coming(context, db);
  // Whoever was there on that day does not go a second time.
  const decided = new Set((await find(db, db.models.trip, { programmeId })).map(visitKey));
  const last = [today, ...sessions.map(({ day }) => day)].sort().at(-1) ?? today;
  const visits = visitsBetween(shops, today, last).filter((visit) => !decided.has(visitKey(visit)));
  if (visits.length > MOST_VISITS)
    throw new ServiceError(
      'invalid',
      `That is ${visits.length} visits to weigh against each other. Plan a shorter span, or fewer days for each shop: at most ${MOST_VISITS}.`,
    );
  const products = await find(db, db.models.product, { programmeId });
  const lots = await lotsNow(context, db, programme.reference);
  const world: Omit<BuyingWorld, 'foodOf'> = {
    today,
    needs,
    visits: [
      ...visits,
      ...ordered.filter((each, at) => ordered.findIndex((other) => visitKey(other) === visitKey(each)) === at),
    ],
    prices: (await pricesNow(db, programmeId)).map(shelfPriceFrom),
    products: products.map(({ id, ingredient, name, packGrams, allergens }) => ({
      id,
      ingredient,
      name,
      packGrams: Number(packGrams),
      label: allergens,
    })),
    stock: lots.map(onShelf),
    coming: ordered,
    wishes,
  };
  const planned = await inPool(
    'planCourseBuying',
    { world, sessions, reference: programme.reference, seconds: SECONDS },
    4 * SECONDS,
  );
  return { programmeId, toDay, wishes, sessions, needs, planned, at: nowOf(context), actorId };
}

async function save(
  context: Context,
  made: Omit<BuyingPlanRow, 'id' | 'version'>,
  seen: number | null,
): Promise<Planned | undefined> {
  return context.store.transaction(async (db) => {
    const { programmeId } = context.actor;
    const before = await findOne(db, db.models.buyingPlan, { programmeId });
    const id = before?.id ?? context.ids();
    if (!before) await insert(db, db.models.buyingPlan, [{ id, ...made, version: 1 }]);
    else if (!(await updateVersion(db, db.models.buyingPlan, id, seen ?? before.version, made))) throw stale('plan');
    await logChange(context, db, 'planned the buying', 'buying plan', id, {
      toDay: made.toDay,
      cost: made.planned.cost,
    });
    return before?.planned;
  });
}

/** What a plan comes to against the one before, in numbers. */
const against = (now: Planned, before: Planned | undefined) => ({
  cost: now.cost,
  waste: now.waste,
  ...(before ? { dearer: now.cost - before.cost, moreLost: now.waste - before.waste } : {}),
});

export const makeBuyingPlan = service({
  title: 'Plan the buying for all sessions of a span',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ toDay: civilDate }),
  run: async (context, { toDay }) => {
    const { db } = context.store;
    const before = await findOne(db, db.models.buyingPlan, { programmeId: context.actor.programmeId });
    const made = await workedOut(context, toDay, before?.wishes ?? {});
    return against(made.planned, await save(context, made, null));
  },
});

const wish = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('pin'), ingredient: z.string().min(1).max(80), productId: z.uuid().or(z.literal('')) }),
  z.object({ kind: z.literal('visit'), shopId: z.uuid(), day: civilDate, on: z.stringbool().or(z.boolean()) }),
  z.object({ kind: z.literal('shop'), shopId: z.uuid(), on: z.stringbool().or(z.boolean()) }),
  z.object({ kind: z.literal('budget'), budget: z.number().int().min(0).max(100_000_000).nullable() }),
]);

/** Wishes with one more, or one less. */
function wishesWith(wishes: BuyingWishes, change: z.output<typeof wish>): BuyingWishes {
  const toggled = (list: readonly string[] = [], one: string, on: boolean) => [
    ...list.filter((each) => each !== one),
    ...(on ? [] : [one]),
  ];
  switch (change.kind) {
    case 'pin': {
      const { [change.ingredient]: _, ...others } = wishes.pins ?? {};
      return { ...wishes, pins: change.productId ? { ...others, [change.ingredient]: change.productId } : others };
    }
    case 'visit':
      return { ...wishes, noVisits: toggled(wishes.noVisits, visitKey(change), change.on) };
    case 'shop':
      return { ...wishes, noShops: toggled(wishes.noShops, change.shopId, change.on) };
    case 'budget': {
      const { budget: _, ...others } = wishes;
      return change.budget === null ? others : { ...others, budget: change.budget };
    }
  }
}

export const changeBuyingPlan = service({
  title: 'Pin a product, leave out a visit or a shop, or set a budget, and plan again',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ version: z.coerce.number().int(), change: wish }),
  run: async (context, { version, change }) => {
    const { db } = context.store;
    const before = await findOne(db, db.models.buyingPlan, { programmeId: context.actor.programmeId });
    if (!before) throw notFound('plan');
    if (before.version !== version) throw stale('plan');
    const made = await workedOut(context, before.toDay, wishesWith(before.wishes, change));
    return against(made.planned, await save(context, made, version));
  },
});

/** Lines of a planned trip, with what a phone must know of them. */
export async function linesOfVisit(
  context: Context,
  db: Db,
  plan: BuyingPlanRow,
  visit: Pick<Visit, 'shopId' | 'day'>,
) {
  const { programme } = await loadProgramme(context, db);
  const planned = plan.planned.trips.find((trip) => visitKey(trip) === visitKey(visit));
  if (!planned) throw notFound('trip');
  const { programmeId } = context.actor;
  const products = await find(db, db.models.product, { programmeId });
  const shops = new Map((await find(db, db.models.shop, { programmeId })).map((shop) => [shop.id, shop]));
  const prices = await pricesNow(db, programmeId);
  const lots = await lotsNow(context, db, programme.reference);
  const taken = new Set(plan.planned.shelf.map(({ lotId }) => lotId));
  const today = todayOf(context, programme.timeZone);
  const holds = ({ fromDay, toDay, least }: (typeof prices)[number], day: string) =>
    (fromDay ?? '') <= day && day <= (toDay ?? '9999') && least === 1;
  const had = (ingredient: string) =>
    prices.flatMap((row) => {
      const product = products.find(({ id }) => id === row.productId);
      return product?.ingredient === ingredient && row.price !== null ? [{ ...row, product, price: row.price }] : [];
    });
  const titles = new Map(plan.sessions.map(({ id, title }) => [id, title]));
  const only = new Map(plan.planned.needs.flatMap(({ id, product }) => (product ? [[id, product] as const] : [])));
  return planned.lines.map((line) => {
    const food = findIngredient(programme.reference, line.ingredient);
    const pinned = line.uses.flatMap(({ needId }) => only.get(needId) ?? [])[0];
    return {
      ...line,
      contains: food?.contains ?? [],
      mayContain: food?.mayContain ?? [],
      ...(pinned ? { only: pinned } : {}),
      others: had(line.ingredient).flatMap((row) =>
        row.shopId === visit.shopId &&
        row.productId !== line.productId &&
        row.soldBy !== 'weight' &&
        holds(row, visit.day)
          ? [
              {
                name: row.product.name,
                packGrams: Number(row.product.packGrams),
                price: row.price,
                label: row.product.allergens,
              },
            ]
          : [],
      ),
      elsewhere: [
        ...lots
          .filter(
            ({ id, ingredient, now }) => ingredient === line.ingredient && !taken.has(id) && now.lastOpen >= today,
          )
          .map(({ name, now }) => `On a shelf: ${name}, ${now.grams} g, good until ${sayDay(now.lastOpen)}`),
        ...visitsBetween([...shops.values()], visit.day, line.uses[0]?.day ?? visit.day).flatMap((other) =>
          visitKey(other) === visitKey(visit)
            ? []
            : had(line.ingredient)
                .filter((row) => row.shopId === other.shopId && holds(row, other.day))
                .map(
                  (row) =>
                    `${shops.get(other.shopId)?.name}, ${sayDay(other.day)}: ${row.product.name} at ${sayMoney(row.price)}`,
                ),
        ),
      ].slice(0, 6),
      sessions: Object.fromEntries(line.uses.map(({ sessionId }) => [sessionId, titles.get(sessionId) ?? ''])),
    };
  });
}
