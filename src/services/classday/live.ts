import { z } from 'zod';
import { sentClass } from '@/contracts/classday';
import { classNow } from '@/core/classday/live/class-events';
import type { ClassPlan } from '@/core/classday/live/class-plan';
import { standingOf } from '@/core/classday/live/standing';
import { linesOf } from '@/core/classday/routines';
import { classMark, saidSince, strangersIn } from '@/store/classday';
import type { Db } from '@/store/store';
import { ServiceError } from '../errors';
import { type Context, nowOf, ROLES, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadBundle } from '../plan/sessions';
import { again, appendToClass, minutesIn, skewOf } from './class-log';
import { loadClass, oneClass, planClass } from './class-plan';
import { enterClass } from './entry';
import { changedSince, foodOf, planWithSwaps, sayRefused, swapOf } from './substitute';

/** Seconds to plan the rest again, and to try what could be left out: nobody waits in a class. */
const AGAIN_SECONDS = 0.5;
const TRY_SECONDS = 0.2;
/** So many ways are tried at once. */
const MOST_TRIED = 3;
/** Days after its end that a class still hears what a tablet without a network kept. */
const LATE_DAYS = 3;

export const viewClass = service({
  title: 'See a class while it runs: who does what now, and how it stands',
  roles: ROLES,
  input: oneClass,
  run: async (context, { sessionId, sitting }) => {
    await enterClass(context, sessionId);
    const bundle = await loadBundle(context, sessionId);
    const one = await loadClass(context, bundle, sitting);
    const { db } = context.store;
    const events = await saidSince(db, { sessionId, sitting }, 0);
    const now = classNow(events);
    // A class that runs goes by the plan it began with: nothing is worked out again.
    const { plan, made } = now.plan ? { plan: now.plan, made: undefined } : await planClass(bundle, one);
    const food = plan && (await foodOf(context, bundle, one, plan, now.swaps.map(swapOf)));
    const { programme, people, at, isOnScreen } = one;
    await logLook(context, 'class', sessionId, people.length);
    const { title, courseTitle, minutes } = bundle.session;
    const words = programme.classWords;
    return {
      session: {
        id: sessionId,
        sitting,
        title,
        courseTitle,
        minutes,
        date: at.date,
        startsAt: at.startsAt,
        place: at.place,
        group: at.group,
      },
      around: one.around,
      isOnScreen,
      plan: plan && made && food ? await planWithSwaps(food, made, plan) : (plan ?? null),
      /** What cannot be cooked safely for who is there. */
      unsafe: food && 'stations' in food ? food.stations.flatMap(sayRefused) : [],
      /** Who came since, or what is known since, asks for something else than the tasks say. */
      changed: food && now.plan ? changedSince(food, now.plan) : [],
      mark: await classMark(db, sessionId),
      routines: {
        opening: linesOf(words, 'opening'),
        fire: at.outdoor ? linesOf(words, 'fire') : [],
        closing: linesOf(words, 'closing'),
      },
      /** By name alone: what they must avoid is shown to those in the room, elsewhere. */
      people: people.map(({ id, name }) => ({ id, name })).sort((a, b) => a.name.localeCompare(b.name)),
      profile: programme.safetyProfile,
      foods: [...new Set(one.dishes.flatMap(({ steps }) => steps.flatMap(({ uses }) => uses)))].sort(),
      events,
      now: context.clock().toString(),
    };
  },
});

export const classSince = service({
  title: 'See what was said in a class since',
  roles: ROLES,
  input: z.object({ ...oneClass.shape, after: z.coerce.number().int().min(0) }),
  run: async (context, { sessionId, sitting, after }) => {
    await enterClass(context, sessionId);
    const events = await saidSince(context.store.db, { sessionId, sitting }, after);
    return { events, mark: await classMark(context.store.db, sessionId), now: context.clock().toString() };
  },
});

export const sayInClass = service({
  title: 'Say what happens in a class: begun, done, a temperature, what ran short, a question',
  roles: ROLES,
  input: sentClass,
  run: (context, { sessionId, sitting, now, events }) =>
    context.store.transaction(async (db) => {
      await enterClass(context, sessionId, db, LATE_DAYS);
      const named = [...new Set(events.flatMap(({ enrolmentId }) => enrolmentId ?? []))];
      if ((await strangersIn(db, { sessionId, ids: named })).length > 0)
        throw new ServiceError(
          'invalid',
          'This names somebody who is not on the roll of this class. Nothing was saved.',
        );
      const seq = await appendToClass(context, db, { sessionId, sitting }, events, skewOf(context, now));
      return { seq };
    }),
});

/** The class as it runs. @throws ServiceError before it has begun */
async function running(context: Context, which: { sessionId: string; sitting: string }, db: Db) {
  const events = await saidSince(db, which, 0);
  const now = classNow(events);
  if (!now.begun || !now.plan)
    throw new ServiceError('stale', 'The cooking has not begun: there is nothing to plan again.');
  return { plan: now.plan, readTo: events.at(-1)?.seq ?? 0, ...minutesIn(now, nowOf(context)) };
}

export const planClassAgain = service({
  title: 'Plan the rest of a class again, from where it stands',
  roles: ROLES,
  input: z.object({
    ...oneClass.shape,
    /** Made by whoever presses it: pressed twice, it is planned once. */
    id: z.uuid(),
    /** Titles of dishes that are left out from now on. */
    without: z.array(z.string().max(190)).max(20).default([]),
  }),
  run: async (context, { id, without, ...which }) => {
    await enterClass(context, which.sessionId);
    const { plan, done, minute, readTo } = await running(context, which, context.store.db);
    const leftOut = plan.tasks.flatMap((task) => (without.includes(task.dish) && !done.has(task.id) ? [task.id] : []));
    const next = await again(plan, done, minute, leftOut, AGAIN_SECONDS);
    if (!next)
      throw new ServiceError(
        'invalid',
        'The rest cannot be done by who and what is there. Leave a dish out, or go on as planned.',
      );
    const at = context.clock().toString();
    const item = without.join(', ').slice(0, 190);
    const planned = { id, what: 'planned again' as const, item, enrolmentId: null, value: { plan: next }, at };
    await context.store.transaction((db) => appendToClass(context, db, which, [planned], 0, readTo));
    const late = next.minutes - next.cooking;
    return { minutes: next.minutes, late, ways: late > 0 ? await waysOut(next, done, minute) : [] };
  },
});

/** What the class ends at without a dish: those that are not done, each tried. */
async function waysOut(plan: ClassPlan, done: ReadonlyMap<string, number>, minute: number) {
  const { tasks } = standingOf(plan, done, minute);
  const open = [...new Set(tasks.filter(({ state }) => state !== 'done').map(({ task }) => task.dish))];
  const tried = await Promise.all(
    open.slice(0, MOST_TRIED).map(async (dish) => {
      const ids = plan.tasks.flatMap((task) => (task.dish === dish && !done.has(task.id) ? [task.id] : []));
      const next = await again(plan, done, minute, ids, TRY_SECONDS);
      return { dish, minutes: next?.minutes ?? Number.POSITIVE_INFINITY };
    }),
  );
  return tried
    .filter(({ minutes }) => minutes < plan.minutes)
    .map(({ dish, minutes }) => ({ dish, minutes, fits: minutes <= plan.cooking }));
}
