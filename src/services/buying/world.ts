import type { BuyingSession, FoodNeed } from '@/core/buying/needs';
import { needsOf } from '@/core/buying/needs';
import type { BuyingWishes, BuyingWorld, OnShelf, Visit } from '@/core/buying/plan-case';
import { visitKey } from '@/core/buying/plan-case';
import { lessTaken } from '@/core/buying/take-out';
import { lineNow } from '@/core/buying/trip';
import type { SheetContent } from '@/core/kits/record/sheet-content';
import { addDays, dayOf, weekdayOf } from '@/core/plan/civil';
import { civilIn } from '@/core/plan/clock';
import { lastDayOf } from '@/core/plan/sitting';
import { currencyOf } from '@/core/quantity/money';
import { pricesNow } from '@/store/buying';
import { find } from '@/store/query';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import type { Db } from '@/store/store';
import type { ShopRow } from '@/store/tables/buying';
import { ServiceError } from '../errors';
import { type Context, todayIn } from '../gate/gate';
import { usedUpBy } from '../kits/figures';
import { loadProgramme } from '../sheet/load-programme';
import { avoidsIn, type SessionSheet, sessionSheet } from '../sheet/session-sheet';
import { markedDone, sessionThread } from '../sheet/session-thread';
import { takenFor } from '../sheet/taken';
import { shelfPriceFrom } from './shops';
import { lotsNow, onShelf } from './stock';

/** How far a plan looks where nobody says, and at most. */
export const USUAL_DAYS = 28;
const MOST_DAYS = 120;
/** Visits that the solver weighs against each other. */
const MOST_VISITS = 24;

/** The day on which a session's food is first taken up: when its packing or prep must begin, else its own. */
function dayTaken(bundle: SessionBundle, startBys: readonly string[], timeZone: string, today: string): string {
  const first = [bundle.session.date, ...startBys.map((instant) => civilIn(instant, timeZone).date)].sort()[0] ?? today;
  return first < today ? today : first;
}

type NeedsBy = (content: SheetContent) => FoodNeed[];

/** What the sessions of a span still need to be bought: those whose shopping is not done. */
export async function needsUntil(context: Context, db: Db, to: string) {
  const { programme, meanings, hours } = await loadProgramme(context, db);
  const today = todayIn(context, programme.timeZone);
  const bundles = await loadSessionBundles(db, context.actor.programmeId, { from: today, to });
  const taken = await takenFor(
    context,
    db,
    bundles.map(({ session }) => session.id),
  );
  const sessions: BuyingSession[] = [];
  const needs: FoodNeed[] = [];
  const found: { bundle: SessionBundle; sheet: SessionSheet; session: BuyingSession; needsBy: NeedsBy }[] = [];
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
    /** What the session needs by a sheet of it, less what was taken out. */
    const needsBy = (given: SheetContent) =>
      lessTaken(
        needsOf(session, given, avoidsIn(sheet)),
        taken.filter(({ sessionId }) => sessionId === id),
      );
    needs.push(...needsBy(content));
    found.push({ bundle, sheet, session, needsBy });
    for (const { name, count } of usedUpBy(bundle, sheet, programme)) {
      const same = usedUp.get(name);
      const by = same && same.by < session.day ? same.by : session.day;
      usedUp.set(name, { name, count: count + (same?.count ?? 0), by });
    }
  }
  return { programme, meanings, today, sessions, needs, found, usedUp: [...usedUp.values()] };
}

/** Days on which the shops are visited by the programme's rhythm. */
export function visitsBetween(shops: readonly ShopRow[], from: string, to: string): Visit[] {
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

/**
 * All that a plan for a span is made of: what sessions need, what stands there and comes, who has it, when, at what price.
 *
 * @throws ServiceError where the span is too long, or the visits in it too many
 */
export async function buyingWorld(context: Context, toDay: string, wishes: BuyingWishes) {
  const { db } = context.store;
  const { programmeId } = context.actor;
  const found = await needsUntil(context, db, toDay);
  const { programme, today, sessions, needs } = found;
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
    currency: currencyOf(programme),
  };
  return { ...found, world };
}
