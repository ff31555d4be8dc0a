import { createHash } from 'node:crypto';
import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { fullestDays } from '@/core/buying/cold';
import type { FoodNeed } from '@/core/buying/needs';
import type { Planned } from '@/core/buying/plan';
import type { BuyingWishes } from '@/core/buying/plan-case';
import { visitKey } from '@/core/buying/plan-case';
import { addDays } from '@/core/plan/civil';
import { findIngredient } from '@/core/reference/reference';
import { pricesNow } from '@/store/buying';
import { find, findOne, insert, updateVersion } from '@/store/query';
import type { Db } from '@/store/store';
import type { BuyingPlanRow } from '@/store/tables/buying';
import { inPool } from '@/workers/pool';
import { notFound, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service, todayIn } from '../gate/gate';

import { lotsNow } from './stock';
import { shortOf } from './trips';
import { buyingWorld, needsUntil, USUAL_DAYS } from './world';

/** A plan that takes longer says how far it may be from the best. */
export const PLAN_SECONDS = 10;

/** A mark of everything a plan hangs on, so that it can be told when something moved since. */
const markOf = (needs: readonly FoodNeed[]): string =>
  createHash('sha256')
    .update(JSON.stringify(needs.map(({ id, grams, units, day, without }) => [id, grams, units, day, without])))
    .digest('hex');

/** Litres of fridge and freezer in all places together; left out where nobody counted them. */
async function coldRoom(db: Db, programmeId: string): Promise<{ fridge?: number; freezer?: number }> {
  const places = await find(db, db.models.place, { programmeId });
  const litres = (kind: 'fridgeLitres' | 'freezerLitres') => {
    const counted = places.flatMap(({ equipment }) => equipment[kind] ?? []);
    return counted.length > 0 ? counted.reduce((sum, each) => sum + each, 0) : undefined;
  };
  const [fridge, freezer] = [litres('fridgeLitres'), litres('freezerLitres')];
  return { ...(fridge === undefined ? {} : { fridge }), ...(freezer === undefined ? {} : { freezer }) };
}

/** Trips of the last days that brought less of something than was planned. */
async function cameShort(context: Context, db: Db, today: string): Promise<{ id: string; foods: string[] }[]> {
  const { programmeId } = context.actor;
  const trips = (await find(db, db.models.trip, { programmeId, state: 'received' })).filter(
    ({ day }) => day >= addDays(today, -SHORT_DAYS),
  );
  const ids = trips.map(({ id }) => id);
  if (ids.length === 0) return [];
  const lines = await find(db, db.models.tripLine, { programmeId, tripId: ids });
  const events = await find(db, db.models.tripEvent, { programmeId, tripId: ids }, [['seq', 'ASC']]);
  return ids.flatMap((id) => {
    const foods = lines.flatMap((line) =>
      line.tripId === id && shortOf(line, events) > 0 ? [line.body.ingredient] : [],
    );
    return foods.length > 0 ? [{ id, foods: [...new Set(foods)] }] : [];
  });
}

/** For so many days a trip that came short is named. */
const SHORT_DAYS = 7;

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
      plan?.toDay ?? addDays(todayIn(context, 'UTC'), USUAL_DAYS),
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
      lots: lots.map(({ id, name, ingredient, now }) => ({
        id,
        name,
        last: now.last,
        /** Frozen here: it must thaw before it is taken up. */
        thaws: now.storage === 'freezer' && findIngredient(programme.reference, ingredient)?.storage !== 'frozen',
      })),
      cold: plan
        ? fullestDays(
            plan.planned,
            lots.map(({ name, now }) => ({ ...now, name })),
            (name) => findIngredient(programme.reference, name),
            today,
            await coldRoom(db, programmeId),
          )
        : [],
      cameShort: await cameShort(context, db, today),
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
  const { programmeId, id: actorId } = context.actor;
  const { world, sessions, needs, programme } = await buyingWorld(context, toDay, wishes);
  const planned = await inPool(
    'planCourseBuying',
    { world, sessions, reference: programme.reference, seconds: PLAN_SECONDS },
    4 * PLAN_SECONDS,
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
