import { type ClassDish, type ClassRoom, changesToTry, classCase } from '@/core/classday/run-sheet/class-case';
import type { RunSheetAnswer } from '@/core/classday/run-sheet/sheet-case';
import { idleSpells, missingTools, stationTools, uncountedTools } from '@/core/classday/set-out';
import { ROLES, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadBundle } from '../plan/sessions';
import { loadClass, oneClass, planClass, solved } from './class-plan';
import { enterClass } from './entry';
import { keepOutlook } from './outlook';
import { foodOf, planWithSwaps } from './substitute';

/** Seconds for each change that is tried. */
const TRY_SECONDS = 1;

const minutesOf = (answer: RunSheetAnswer): number => ('minutes' in answer ? answer.minutes : Number.POSITIVE_INFINITY);

export const viewRunSheet = service({
  title: 'See the run sheet of a class: who does what when, and whether it fits',
  roles: ROLES,
  costly: true,
  input: oneClass,
  run: async (context, { sessionId, sitting }) => {
    const bundle = await loadBundle(context, sessionId);
    const one = await loadClass(context, bundle, sitting);
    const { plan: planned, answer, made } = await planClass(bundle, one);
    const left = one.room.cooking;
    const fits = minutesOf(answer) <= left;
    await keepOutlook(context, { sessionId, sitting }, one, { plan: planned, answer, hasTasks: made.tasks.length > 0 });
    const { title, courseTitle, minutes } = bundle.session;
    const { people, at } = one;
    // Names are shown to those in the room, in its time; until then a child is its age.
    const maySee = await enterClass(context, sessionId).then(
      () => true,
      () => false,
    );
    if (maySee) await logLook(context, 'run sheet', sessionId, people.length);
    // What stations must do without tells of their children.
    const food = planned && maySee ? await foodOf(context, bundle, one, planned, []) : undefined;
    const plan = planned && food ? await planWithSwaps(food, made, planned) : planned;
    return {
      session: { id: sessionId, title, courseTitle, minutes, ...at },
      groups: bundle.session.sittings.some(({ status }) => status === 'planned')
        ? [
            { sitting: '', name: bundle.session.groupName ?? '' },
            ...bundle.session.sittings
              .filter(({ status }) => status === 'planned')
              .map(({ groupId, groupName }) => ({ sitting: groupId, name: groupName })),
          ]
        : [],
      isOnScreen: one.isOnScreen,
      around: one.around,
      cooking: left,
      fits,
      answer,
      plan: plan ?? null,
      food: food && 'stations' in food ? food.stations : [],
      impossible: 'impossible' in answer ? made.tasks.filter(({ id }) => answer.impossible.includes(id)) : [],
      stations: made.stations.map(({ number, pairs }) => ({
        number,
        pairs: pairs.map(({ id, children }) => ({
          id,
          children: one.isOnScreen
            ? ['Each family']
            : children.map((child) => (maySee ? (people[child]?.name ?? '') : '')).filter(Boolean),
        })),
      })),
      dishes: one.dishes.map(({ id, title: name, times }, at) => ({
        id,
        title: name,
        recipeId: bundle.dishes[at]?.recipeId ?? '',
        times: Math.round(times * 10) / 10,
      })),
      /** Done before the class, by the words of their steps. */
      ahead: one.dishes.flatMap(({ title: dish, steps }) =>
        steps.filter((step) => step.ahead).map(({ text }) => ({ dish, text })),
      ),
      setOut: plan
        ? {
            tools: stationTools(plan),
            missing: missingTools(plan, one.room.equipment),
            uncounted: uncountedTools(plan, one.room.equipment),
            idle: idleSpells(plan),
          }
        : null,
      /** Each was tried: minutes that the class takes with it. */
      changes: fits || made.tasks.length === 0 ? [] : await tried(one.dishes, one.room, minutesOf(answer), left),
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
