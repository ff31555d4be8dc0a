import { z } from 'zod';
import { insideSteps } from '@/core/classday/doneness';
import { type ClassPlan, planFrom } from '@/core/classday/live/class-plan';
import { type ClassDish, type ClassRoom, classCase } from '@/core/classday/run-sheet/class-case';
import type { RunSheetAnswer, RunSheetCase } from '@/core/classday/run-sheet/sheet-case';
import { HOLDS } from '@/core/crew/crew-standing';
import { type ClassMinutes, cookingMinutes } from '@/core/plan/class-minutes';
import type { EquipmentCounts, Outdoor } from '@/core/plan/place';
import { sittingOf } from '@/core/plan/sitting';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { findOne } from '@/store/query';
import type { EnrolmentAtHome, SessionBundle } from '@/store/session-bundles';
import { inPool } from '@/workers/pool';
import { notFound } from '../errors';
import type { Context } from '../gate/gate';
import { memoryOf } from '../memory';
import { comingOf } from '../sheet/coming';
import { loadProgramme, type Programme } from '../sheet/load-programme';
import { stepsWithCutting } from '../sheet/steps-of';

/** Seconds for the run sheet itself. */
const SECONDS = 5;
/** Kinds of duties whose people are in the room. */
const IN_ROOM: readonly string[] = ['lead', 'assistant', 'knives', 'heat', 'fire', 'raw meat'];
/** Two burners are what a kitchen at home can be counted on for. */
const AT_HOME: EquipmentCounts = { burners: 2, stations: 1 };

/** Which class: a session, and which of its groups ('' for the first). */
export const oneClass = z.object({ sessionId: z.uuid(), sitting: z.union([z.literal(''), z.uuid()]).default('') });

/** What was worked out before for the very same case. */
const KNOWN = memoryOf<RunSheetAnswer>(200);

/** A case solved in the pool; at once where it was solved before. */
export async function solved(given: RunSheetCase, seconds: number): Promise<RunSheetAnswer> {
  const mark = JSON.stringify([given, seconds]);
  const known = KNOWN.known(mark);
  if (known) return known;
  const answer = await inPool('planRunSheet', { ...given, seconds }, seconds + 15);
  return KNOWN.of(mark, () => answer);
}

/** One class: its dishes as it cooks them, who is at work, and where. */
export interface OneClass {
  readonly programme: Programme;
  readonly dishes: readonly ClassDish[];
  readonly room: ClassRoom;
  /** Minutes in which nobody cooks. */
  readonly around: ClassMinutes;
  /** Who comes, in the order of the room's ages where they are in the room. */
  readonly people: readonly EnrolmentAtHome[];
  /** They are at home, and cook along. */
  readonly isOnScreen: boolean;
  readonly at: {
    readonly date: string;
    readonly startsAt: string;
    readonly place: string;
    readonly group: string;
    readonly outdoor: Outdoor | null;
  };
}

/** When and where a group of a session meets. @throws ServiceError where it has no such group */
export function meetingOf({ session }: Pick<SessionBundle, 'session'>, sitting: string): OneClass['at'] {
  const { date, startsAt, place, outdoor, groupName, sittings } = session;
  if (sitting === '') return { date, startsAt, place, outdoor, group: groupName ?? '' };
  const own = sittings.find(({ groupId, status }) => groupId === sitting && status === 'planned');
  if (!own) throw notFound('group');
  return { date: own.date, startsAt: own.startsAt, place: own.place, outdoor: own.outdoor, group: own.groupName };
}

/** Whether a line's food comes to the class uncut. */
const comesWhole = (ways: SessionBundle['dishes'][number]['ways'], { ingredient }: { readonly ingredient: string }) =>
  ways.some((each) => each.ingredient === ingredient && (each.way === 'whole' || each.way === 'station'));

/** The dishes of a session as a class of it cooks them, and who is at work. */
export async function loadClass(context: Context, bundle: SessionBundle, sitting: string): Promise<OneClass> {
  const { db } = context.store;
  const { programme } = await loadProgramme(context);
  const { session } = bundle;
  const at = meetingOf(bundle, sitting);
  const mine = comingOf(bundle).filter(({ groupId }) => sittingOf(groupId, session.sittings) === sitting);
  const inMode = (...modes: string[]) => mine.filter(({ mode }) => modes.includes(mode ?? session.mode));
  const there = inMode('in person', 'demonstration');
  const isOnScreen = there.length === 0 && inMode('live online').length > 0;
  const people = isOnScreen ? inMode('live online') : there;
  const placeId =
    sitting === '' ? session.placeId : session.sittings.find(({ groupId }) => groupId === sitting)?.placeId;
  const place =
    placeId && !isOnScreen
      ? await findOne(db, db.models.place, { id: placeId, programmeId: context.actor.programmeId })
      : undefined;
  const adults = new Set(
    bundle.promises
      .filter(({ duty, state }) => IN_ROOM.includes(duty.split('@')[0] ?? '') && HOLDS.includes(state))
      .map(({ crewId }) => crewId),
  ).size;
  const around = bundle.classMinutes;
  const ages = people.map(({ age }) => age);
  const known = ages.filter((age): age is number => age !== null);
  const youngest = known.length > 0 ? Math.min(...known) : null;
  // Each family cooks its own kit: one of them stands for all, with a grown-up beside the child.
  const servings = people.reduce((sum, row) => sum + row.servings, 0) / (isOnScreen ? Math.max(1, people.length) : 1);
  return {
    programme,
    people,
    isOnScreen,
    at,
    dishes: bundle.dishes.map((dish) => {
      const whole = dish.serves ?? wholeRecipe(dish.body).servings;
      const times = servings / Math.max(1, whole);
      return {
        id: dish.id,
        title: dish.title,
        // What comes whole is cut in the class; what comes cut was cut on the prep day.
        steps: stepsWithCutting(dish, programme.reference, (line) => comesWhole(dish.ways, line), 'first'),
        times: isOnScreen ? times : Math.max(1, times),
      };
    }),
    room: {
      ages: isOnScreen ? [youngest] : ages,
      // Whoever leads is there, whether or not anybody has planned it yet.
      adults: Math.max(1, isOnScreen ? 1 : adults),
      equipment: isOnScreen ? AT_HOME : (place?.equipment ?? {}),
      isFire: Boolean(at.outdoor),
      cooking: cookingMinutes(session.minutes, around),
    },
    around,
  };
}

/** How hot the food of each dish must be inside, by the place of the step. */
const insidesOf = (bundle: SessionBundle, { dishes, programme }: OneClass) =>
  new Map(
    bundle.dishes.map((dish, at) => {
      const foods = wholeRecipe(dish.body).lines.map(({ ingredient }) => ingredient);
      return [dish.id, insideSteps(dishes[at]?.steps ?? [], foods, programme.safetyProfile)] as const;
    }),
  );

/** The plan of a class before it begins; what cannot be done instead, where there is none. */
export async function planClass(
  bundle: SessionBundle,
  one: OneClass,
): Promise<{ plan: ClassPlan | undefined; answer: RunSheetAnswer; made: ReturnType<typeof classCase> }> {
  const made = classCase(one.dishes, one.room);
  const answer = await solved(made.given, SECONDS);
  const stations = made.stations.map(({ number, pairs }) => ({
    number,
    people: one.isOnScreen ? [] : pairs.flatMap(({ children }) => children.flatMap((at) => one.people[at]?.id ?? [])),
  }));
  const plan =
    'minutes' in answer ? planFrom(made, answer, insidesOf(bundle, one), one.room.cooking, stations) : undefined;
  return { plan, answer, made };
}
