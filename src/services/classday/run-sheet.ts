import { z } from 'zod';
import {
  type ClassDish,
  type ClassRoom,
  changesToTry,
  classCase,
  cookingMinutes,
} from '@/core/classday/run-sheet/class-case';
import type { RunSheetAnswer, RunSheetCase } from '@/core/classday/run-sheet/sheet-case';
import { HOLDS } from '@/core/crew/crew-standing';
import { AROUND_COOKING } from '@/core/recipes/choosing/fit';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { findOne } from '@/store/query';
import type { SessionBundle } from '@/store/session-bundles';
import { inPool } from '@/workers/pool';
import { type Context, ROLES, service } from '../gate/gate';
import { memoryOf } from '../memory';
import { loadBundle } from '../plan/sessions';
import { comingOf } from '../sheet/coming';
import { loadProgramme } from '../sheet/load-programme';
import { stepsOf } from '../sheet/steps-of';

/** Seconds for the run sheet itself, and for each change that is tried. */
const SECONDS = 5;
const TRY_SECONDS = 1;
/** Kinds of duties whose people are in the room. */
const IN_ROOM: readonly string[] = ['lead', 'assistant', 'knives', 'heat', 'fire', 'raw meat'];

/** What was worked out before for the very same case. */
const KNOWN = memoryOf<RunSheetAnswer>(200);

async function solved(given: RunSheetCase, seconds: number): Promise<RunSheetAnswer> {
  const mark = JSON.stringify([given, seconds]);
  const known = KNOWN.known(mark);
  if (known) return known;
  const answer = await inPool('planRunSheet', { ...given, seconds }, seconds + 15);
  return KNOWN.of(mark, () => answer);
}

/** The dishes of a session as its class cooks them, and who is at work. */
async function classOf(context: Context, bundle: SessionBundle): Promise<{ dishes: ClassDish[]; room: ClassRoom }> {
  const { db } = context.store;
  const { programme } = await loadProgramme(context);
  const { session } = bundle;
  const there = comingOf(bundle).filter(({ mode }) => ['in person', 'demonstration'].includes(mode ?? session.mode));
  const servings = there.reduce((sum, row) => sum + row.servings, 0);
  const place = session.placeId
    ? await findOne(db, db.models.place, { id: session.placeId, programmeId: context.actor.programmeId })
    : undefined;
  const adults = new Set(
    bundle.promises
      .filter(({ duty, state }) => IN_ROOM.includes(duty.split('@')[0] ?? '') && HOLDS.includes(state))
      .map(({ crewId }) => crewId),
  ).size;
  return {
    dishes: bundle.dishes.map((dish) => ({
      id: dish.id,
      title: dish.title,
      steps: stepsOf(dish, programme.reference),
      times: Math.max(1, servings / Math.max(1, dish.serves ?? wholeRecipe(dish.body).servings)),
    })),
    room: {
      ages: there.map(({ age }) => age),
      // Whoever leads is there, whether or not anybody has planned it yet.
      adults: Math.max(1, adults),
      equipment: place?.equipment ?? {},
      isFire: Boolean(place?.outdoor),
      minutes: session.minutes,
    },
  };
}

const minutesOf = (answer: RunSheetAnswer): number => ('minutes' in answer ? answer.minutes : Number.POSITIVE_INFINITY);

export const viewRunSheet = service({
  title: 'See the run sheet of a class: who does what when, and whether it fits',
  roles: ROLES,
  costly: true,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const bundle = await loadBundle(context, sessionId);
    const { dishes, room } = await classOf(context, bundle);
    const { given, tasks } = classCase(dishes, room);
    const answer = await solved(given, SECONDS);
    const left = cookingMinutes(room.minutes);
    const fits = minutesOf(answer) <= left;
    const { title, courseTitle, date, startsAt, place, minutes } = bundle.session;
    return {
      session: { id: sessionId, title, courseTitle, date, startsAt, place, minutes },
      around: AROUND_COOKING,
      cooking: left,
      fits,
      hands: given.hands ?? [],
      dishes: dishes.map(({ id, title: name, times }) => ({ id, title: name, times: Math.round(times * 10) / 10 })),
      tasks: tasks.map(({ id, title: dish, text, on, off, heat, tools = [], part }) => ({
        id,
        dish,
        text,
        on,
        off,
        heat: heat ?? '',
        tools,
        part: part ?? null,
      })),
      /** Done before the class, by the words of their steps. */
      ahead: dishes.flatMap(({ title: dish, steps }) =>
        steps.filter((step) => step.ahead).map(({ text }) => ({ dish, text })),
      ),
      answer,
      /** Each was tried: minutes that the class takes with it. */
      changes: fits || tasks.length === 0 ? [] : await tried(dishes, room, minutesOf(answer), left),
    };
  },
});

async function tried(dishes: readonly ClassDish[], room: ClassRoom, now: number, left: number) {
  const found = [];
  for (const { say, dishes: other, room: there } of changesToTry(dishes, room)) {
    const minutes = minutesOf(await solved(classCase(other, there).given, TRY_SECONDS));
    if (minutes < now) found.push({ say, minutes, fits: minutes <= left });
  }
  return found;
}
