import { z } from 'zod';
import { type ClassEvent, classNow } from '@/core/classday/live/class-events';
import { type ClassPlan, sharedDishes } from '@/core/classday/live/class-plan';
import type { ClassCase, ClassTask } from '@/core/classday/run-sheet/class-case';
import {
  type DaySwap,
  type StationEaters,
  type StationFood,
  standInsOf,
  stationFood,
  withSwaps,
} from '@/core/classday/station-food';
import { isAvoidanceCode } from '@/core/safety/avoidances';
import { saidSince } from '@/store/classday';
import type { SessionBundle } from '@/store/session-bundles';
import { ServiceError } from '../errors';
import { type Context, nowOf, service } from '../gate/gate';
import { loadBundle } from '../plan/sessions';
import { loadProgramme, type Meanings } from '../sheet/load-programme';
import { rollPerson } from '../sheet/person';
import { sessionSheet } from '../sheet/session-sheet';
import { again, appendToClass, minutesIn } from './class-log';
import { loadClass, type OneClass, oneClass, planClass } from './class-plan';
import { enterClass } from './entry';

/** Seconds to lay a plan anew whose minutes have changed. */
const AGAIN_SECONDS = 0.3;

export const swapOf = ({ item, value }: Pick<ClassEvent, 'item' | 'value'>): DaySwap => ({
  food: item,
  station: value.station ?? null,
  instead: value.instead,
  amount: value.amount,
  unit: value.unit,
  avoid: value.avoid,
});

/**
 * Who eats of what each station cooks. Whoever came since the plan was made stands at no station: they may eat at any.
 *
 * @param stations ids of who stands where
 */
export function eatersOf(one: OneClass, stations: ClassPlan['stations'], meanings: Meanings): StationEaters[] {
  if (one.isOnScreen) return [];
  const placed = new Set(stations.flatMap(({ people }) => people));
  const needsOf = (rows: OneClass['people']) => rows.flatMap((row) => rollPerson(row, meanings).needs);
  const since = one.people.filter(({ id }) => !placed.has(id));
  return stations.flatMap(({ number, people }) => {
    const own = one.people.filter(({ id }) => people.includes(id));
    const servings = own.reduce((sum, row) => sum + row.servings, 0);
    const eats = [...own, ...since];
    return eats.length > 0 ? [{ station: number, servings: Math.max(1, servings), needs: needsOf(eats) }] : [];
  });
}

/** What each station of a class gets, with what is not as written today. */
export async function foodOf(
  context: Context,
  bundle: SessionBundle,
  one: OneClass,
  plan: Pick<ClassPlan, 'stations' | 'tasks'>,
  swaps: readonly DaySwap[],
) {
  const { programme, meanings } = await loadProgramme(context);
  const { input } = sessionSheet(bundle, programme, meanings);
  const shared = sharedDishes(plan.tasks, plan.stations.length);
  return stationFood(input, eatersOf(one, plan.stations, meanings), swaps, shared);
}

const usesOf = (tasks: readonly ClassTask[]) => new Map(tasks.map(({ id, uses }) => [id, uses]));

/** A plan before it begins, with what its stations have instead: for who is there, and what is not there today. */
export async function planWithSwaps(
  food: Awaited<ReturnType<typeof foodOf>>,
  made: ClassCase,
  plan: ClassPlan,
): Promise<ClassPlan> {
  if ('problem' in food) return plan;
  return laidAgain(withSwaps(plan, food.stations, usesOf(made.tasks)), plan, new Map(), 0);
}

/** Laid anew where minutes have changed; as it was where it cannot be. */
async function laidAgain(
  next: ClassPlan,
  before: ClassPlan,
  done: ReadonlyMap<string, number>,
  minute: number,
): Promise<ClassPlan> {
  const isLonger = next.tasks.some((task, at) => {
    const was = before.tasks[at];
    return was && task.on + task.off !== was.on + was.off;
  });
  if (!isLonger) return next;
  return (await again(next, done, minute, [], AGAIN_SECONDS)) ?? next;
}

export const swapInClass = service({
  title: 'Cook with something else today: who is at the station is looked at again first',
  roles: ['coordinator', 'instructor', 'crew'],
  input: z.object({
    ...oneClass.shape,
    id: z.uuid(),
    /** What is not there; '' where somebody new in the room must avoid something. */
    food: z.string().trim().max(190).default(''),
    station: z.preprocess(
      (sent) => (sent === '' || sent === 'all' ? null : sent),
      z.coerce.number().int().min(1).max(99).nullable(),
    ),
    /** What the recipe has for it, nothing, or another food. */
    way: z.enum(['recipe', 'leave out', 'other', 'who came since']).default('recipe'),
    instead: z.string().trim().max(190).default(''),
    amount: z.string().trim().max(30).default(''),
    unit: z.string().trim().max(30).default(''),
    avoid: z.string().trim().max(190).default(''),
  }),
  run: async (context, { sessionId, sitting, id, food, station, way, instead, amount, unit, avoid }) => {
    await enterClass(context, sessionId);
    if (!food && !avoid && way !== 'who came since')
      throw new ServiceError('invalid', 'Nothing was saved yet.', [
        { where: 'food', message: 'Say what is not there, or what must be avoided.' },
      ]);
    if (avoid && !isAvoidanceCode(avoid))
      throw new ServiceError('invalid', 'Nothing was saved yet.', [
        { where: 'avoid', message: 'Choose it from the list.' },
      ]);
    if (way === 'other' && !instead)
      throw new ServiceError('invalid', 'Nothing was saved yet.', [
        { where: 'instead', message: 'Say what you have instead.' },
      ]);
    const which = { sessionId, sitting };
    const bundle = await loadBundle(context, sessionId);
    const one = await loadClass(context, bundle, sitting);
    const said = await saidSince(context.store.db, which, 0);
    const now = classNow(said);
    const value = {
      ...(station === null ? {} : { station }),
      ...(way === 'recipe' || way === 'who came since' ? {} : { instead: way === 'leave out' ? '' : instead }),
      ...(amount ? { amount, unit } : {}),
      ...(avoid ? { avoid } : {}),
    };
    const swap = swapOf({ item: food, value });
    const swaps = [...now.swaps.map(swapOf), swap];
    const plan = now.plan ?? (await planClass(bundle, one)).plan;
    if (!plan) throw new ServiceError('invalid', 'This class has no run sheet: write the steps of its dishes first.');
    const found = await foodOf(context, bundle, one, plan, swaps);
    if ('problem' in found)
      throw new ServiceError('invalid', 'Nothing was saved yet.', [
        {
          where: 'amount',
          message: `${found.problem} Say how much of ${instead || food} stands in for it, as "120" and "g".`,
        },
      ]);
    const before = now.swaps.map(swapOf);
    const stoodIn = await foodOf(context, bundle, one, plan, before);
    const stations = 'stations' in stoodIn ? stoodIn.stations : [];
    // What was not safe before is said all the same, and is no reason against this.
    const unsafe = new Set(stations.flatMap(sayRefused));
    const all = found.stations.flatMap(sayRefused);
    const bad = all.filter((line) => !unsafe.has(line));
    if (bad.length > 0)
      throw new ServiceError('invalid', `This is not safe, and nothing was changed. ${bad.join(' ')}`, [
        { where: 'instead', message: bad.join(' ') },
      ]);
    const running = now.plan && minutesIn(now, nowOf(context));
    const next =
      now.plan && running
        ? await laidAgain(
            withSwaps(now.plan, found.stations, usesByText(one, now.plan)),
            now.plan,
            running.done,
            running.minute,
          )
        : undefined;
    const at = context.clock().toString();
    const swapped = { id, what: 'swapped' as const, item: food, enrolmentId: null, value, at };
    const planned = { ...swapped, id: context.ids(), what: 'planned again' as const, value: { plan: next } };
    const events = next ? [swapped, planned] : [swapped];
    const readTo = said.at(-1)?.seq ?? 0;
    await context.store.transaction((db) => appendToClass(context, db, which, events, 0, readTo));
    const still = all.map((line) => `Not safe, as before: ${line}`);
    return { changed: [...sayChanged(found.stations, swap), ...still], minutes: next?.minutes ?? plan.minutes };
  },
});

/**
 * What a class that runs must do otherwise than its tasks say, since the roll, a need or a label changed after it began.
 *
 * @returns in words; nothing where it is as it was
 */
export function changedSince(food: Awaited<ReturnType<typeof foodOf>>, plan: ClassPlan): string[] {
  if ('problem' in food) return [];
  const known = new Set(plan.standIns);
  const fresh = standInsOf(food.stations).filter((line) => !known.has(line));
  return fresh.map((line) => `Station ${line}.`);
}

/** Which foods the tasks of a plan that runs use: those of its step. */
const usesByText = ({ dishes }: OneClass, plan: ClassPlan | undefined): ReadonlyMap<string, readonly string[]> =>
  new Map(
    (plan?.tasks ?? []).map(({ id }) => {
      const [, dishId, step] = /^(.*) (\d+)(?:\.\d+)?$/.exec(id) ?? [];
      const dish = dishes.find((each) => each.id === dishId);
      return [id, dish?.steps[Number(step) - 1]?.uses ?? []];
    }),
  );

/** What cannot be cooked safely at a station, in words. */
export const sayRefused = ({ station, refusals, unknown }: StationFood): string[] => [
  ...refusals.map(
    ({ dish, food, holds }) =>
      `Station ${station}, ${dish}: nothing safe stands in for ${food}${holds.length > 0 ? ` (somebody there must avoid ${holds.join(', ')})` : ''}.`,
  ),
  ...unknown.map((need) => `Station ${station}: nobody has said yet what “${need}” means.`),
];

/** What stands where now, in words. */
function sayChanged(stations: readonly StationFood[], { food, station, avoid }: DaySwap): string[] {
  return (
    stations
      // Where something is not safe, that is said, and nothing else.
      .filter((each) => each.refusals.length + each.unknown.length === 0)
      .filter((each) => station === null || each.station === station)
      .map(({ station: number, foods, madeWithout }) => {
        const own = foods.filter(({ written, food: now }) => now !== written && (written === food || avoid));
        const say = own
          .map(({ say: much, name, written, dish }) => `${much} ${name} instead of ${written} (${dish})`)
          .join(', ');
        const rest = `Station ${number}: ${say || (food ? `without ${food}` : 'nothing changes')}`;
        return `${rest}${madeWithout.length > 0 ? `; made without ${madeWithout.join(', ')}` : ''}.`;
      })
  );
}
