import { z } from 'zod';
import type { FoodNeed } from '@/core/buying/needs';
import { visitKey } from '@/core/buying/plan-case';
import type { Shortage, Trial, WayOut } from '@/core/buying/trials';
import { lineNow } from '@/core/buying/trip';
import type { SheetContent } from '@/core/kits/record/sheet-content';
import { slotsOf } from '@/core/recipes/recipe/slots';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { grownOnlyNow } from '@/core/reference/season';
import { find, findOne } from '@/store/query';
import { inPool } from '@/workers/pool';
import { notFound } from '../errors';
import { type Context, service } from '../gate/gate';
import { sessionSheet } from '../sheet/session-sheet';
import { answersOf, loadTrip, shortOf } from './trips';
import { buyingWorld } from './world';

type World = Awaited<ReturnType<typeof buyingWorld>>;

/** Choices that are tried at once; each is a plan of its own. */
const MOST_TRIALS = 24;
const SECONDS = 60;

/** Something that may fill a line of a dish in place of what does. */
interface Idea {
  readonly sessionId: string;
  readonly title: string;
  readonly day: string;
  readonly dishId: string;
  readonly dish: string;
  readonly written: string;
  readonly now: string;
  readonly food: string;
  /** The session's sheet with it. */
  readonly draft: SheetContent | undefined;
  /** Kits that could not be made then, beside those that cannot be made now. */
  readonly refused: number;
  readonly needs: readonly FoodNeed[];
}

/** Every other food for every open line of the sessions that are not locked yet, each with the sheet that it would make. */
function ideasOf({ found, programme, meanings }: World): Idea[] {
  return found.flatMap(({ bundle, sheet, session, needsBy }) => {
    if (sheet.locked || !sheet.draft) return [];
    const before = sheet.draft.refusedKits;
    return bundle.dishes.flatMap((dish) =>
      slotsOf(wholeRecipe(dish.body).lines).flatMap(({ written, foods }) => {
        const others = dish.fillings.filter((each) => each.written !== written);
        const now = dish.fillings.find((each) => each.written === written)?.chosen ?? written;
        return foods
          .filter((food) => food !== now)
          .map((food): Idea => {
            const fillings = food === written ? others : [...others, { written, chosen: food }];
            const dishes = bundle.dishes.map((each) => (each.id === dish.id ? { ...each, fillings } : each));
            const { draft } = sessionSheet({ ...bundle, dishes }, programme, meanings);
            return {
              sessionId: session.id,
              title: session.title,
              day: session.day,
              dishId: dish.id,
              dish: dish.title,
              written,
              now,
              food,
              draft,
              refused: Math.max(0, (draft?.refusedKits ?? before + 1) - before),
              needs: draft ? needsBy(draft) : [],
            };
          });
      }),
    );
  });
}

/** All that is needed, with what one session needs by another sheet. */
const needsWith = (world: World, { sessionId, needs }: Pick<Idea, 'sessionId' | 'needs'>): FoodNeed[] => [
  ...world.needs.filter((need) => need.sessionId !== sessionId),
  ...needs,
];

async function planned(context: Context) {
  const { db } = context.store;
  const plan = await findOne(db, db.models.buyingPlan, { programmeId: context.actor.programmeId });
  if (!plan) throw notFound('plan');
  return plan;
}

export const tryChoices = service({
  title: 'Try what else may fill the open lines of the dishes to be bought for',
  roles: ['coordinator'],
  costly: true,
  input: z.object({}),
  run: async (context) => {
    const plan = await planned(context);
    const world = await buyingWorld(context, plan.toDay, plan.wishes);
    const ideas = ideasOf(world);
    const tried = ideas.filter(({ refused }) => refused === 0).slice(0, MOST_TRIALS);
    const { trials } = await inPool(
      'tryBuying',
      {
        world: world.world,
        reference: world.programme.reference,
        trials: [world.needs, ...tried.map((idea) => needsWith(world, idea))],
        shortages: [],
      },
      SECONDS,
    );
    const base = trials[0];
    const trialOf = new Map(tried.map((idea, at) => [idea, trials[at + 1]]));
    const onShelf = new Set(world.world.stock.map(({ ingredient }) => ingredient));
    return ideas.map((idea) => {
      const trial: Trial | undefined = trialOf.get(idea);
      const { draft: _, needs: __, ...told } = idea;
      return {
        ...told,
        inSeason: grownOnlyNow(idea.food, Number(idea.day.slice(5, 7))),
        onShelf: onShelf.has(idea.food),
        ...(trial && base
          ? {
              isEnough: trial.lacking.every((each) => base.lacking.includes(each)),
              dearer: trial.cost - base.cost,
              moreLost: trial.waste - base.waste,
            }
          : {}),
      };
    });
  },
});

export const viewShortfall = service({
  title: 'See what of a trip came short, and what would mend it',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ tripId: z.uuid() }),
  run: async (context, { tripId }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const { trip, shop, lines, events } = await loadTrip(context, db, tripId);
    const plan = await planned(context);
    const missing = lines.flatMap((line) => {
      const grams = trip.state === 'received' ? shortOf(line, events) : 0;
      if (grams === 0) return [];
      const { ingredient, uses } = line.body;
      const { reasons } = lineNow(line.body, answersOf(events, line.id));
      return [{ ingredient, grams, reasons: [...new Set(reasons)], of: uses.map(({ sessionId }) => sessionId) }];
    });
    if (missing.length === 0) return { day: trip.day, shop: shop?.name ?? '', short: [] };
    const world = await buyingWorld(context, plan.toDay, plan.wishes);
    const { programme, meanings } = world;
    // Somebody goes there anyhow: no way is counted.
    const gone = new Set([
      ...(await find(db, db.models.trip, { programmeId })).filter(({ state }) => state === 'to do').map(visitKey),
      ...plan.planned.trips.map(visitKey),
    ]);
    const visits = world.world.visits.map((visit) => (gone.has(visitKey(visit)) ? { ...visit, cost: 0 } : visit));
    const ideas = ideasOf(world).filter(({ refused }) => refused === 0);
    const shortages = missing.map(({ ingredient, of }): Shortage => {
      const isOf = (need: FoodNeed) => need.ingredient === ingredient;
      const hasReserve = world.found.some(({ bundle }) => (bundle.session.extras.reserve ?? 0) > 0);
      const lean = world.found.flatMap(({ bundle, sheet, needsBy }) => {
        const { session } = bundle;
        const isLean = (session.extras.reserve ?? 0) === 0;
        const without = { ...bundle, session: { ...session, extras: { ...session.extras, reserve: 0 } } };
        const content = isLean
          ? (sheet.locked?.content ?? sheet.draft)
          : sessionSheet(without, programme, meanings).draft;
        return content ? needsBy(content).filter(isOf) : [];
      });
      return {
        ingredient,
        needs: world.needs.filter(isOf),
        anyhow: world.needs.filter((need) => isOf(need) && !of.includes(need.sessionId)),
        ...(hasReserve ? { lean } : {}),
        others: ideas
          .filter(({ now }) => now === ingredient)
          .map(({ food, sessionId, dishId, needs }) => ({
            food,
            sessionId,
            dishId,
            needs: needsWith(world, { sessionId, needs }).filter((need) => isOf(need) || need.ingredient === food),
            anyhow: world.needs.filter(
              (need) => (isOf(need) && !of.includes(need.sessionId)) || need.ingredient === food,
            ),
          })),
      };
    });
    const { ways } = await inPool(
      'tryBuying',
      { world: { ...world.world, visits }, reference: programme.reference, trials: [], shortages },
      SECONDS,
    );
    const titles = new Map(world.sessions.map(({ id, title }) => [id, title]));
    const shops = new Map((await find(db, db.models.shop, { programmeId })).map(({ id, name }) => [id, name]));
    return {
      day: trip.day,
      shop: shop?.name ?? '',
      short: missing.map(({ of: _, ...each }, at) => ({
        ...each,
        isNeeded: (shortages[at]?.needs.length ?? 0) > 0,
        ways: (ways[at] ?? []).map((way: WayOut) => ({
          kind: way.kind,
          cost: way.trial.cost,
          buys: way.trial.trips.flatMap(({ shopId, day, lines: bought }) =>
            bought.map(({ packs, product }) => ({ packs, product, shop: shops.get(shopId) ?? '', day })),
          ),
          ...(way.kind === 'another food'
            ? { food: way.food, sessionId: way.sessionId, dishId: way.dishId, title: titles.get(way.sessionId) ?? '' }
            : {}),
        })),
      })),
    };
  },
});
