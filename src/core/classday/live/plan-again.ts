import { planRunSheet } from '../run-sheet/run-sheet';
import type { RunSheetCase, RunTask } from '../run-sheet/sheet-case';
import { nameOfStation } from '../run-sheet/stations';
import type { ClassPlan, LiveTask } from './class-plan';
import { standingOf, type TaskNow } from './standing';

/** What is left of a class from a minute on, as a case whose minute 0 is now. */
export interface Rest {
  readonly given: RunSheetCase;
  /** Tasks that are under way: they go on where they are. */
  readonly underWay: ReadonlySet<string>;
}

/**
 * What is left to do: nothing of what is done, of what is under way what is left of it, from now on.
 *
 * @param done minute at which each task was called done
 * @param minute of the class now
 * @param without ids of tasks that are left out
 */
export function restOf(
  plan: ClassPlan,
  done: ReadonlyMap<string, number>,
  minute: number,
  without: ReadonlySet<string> = new Set(),
): Rest {
  const { tasks } = standingOf(plan, done, minute);
  const open = tasks.filter(({ task }) => !done.has(task.id) && !without.has(task.id));
  const ids = new Set(open.map(({ task }) => task.id));
  const underWay = new Set(open.filter(({ state }) => state === 'now').map(({ task }) => task.id));
  return {
    underWay,
    given: {
      hands: plan.hands,
      heat: plan.heat,
      tools: plan.tools,
      tasks: open.map((each): RunTask => {
        const { task } = each;
        const isNow = underWay.has(task.id);
        const left = isNow ? whatIsLeft(each, minute) : { on: task.on, off: task.off };
        const latest = isNow ? 0 : mustStartBy(task, plan, done, minute);
        return {
          id: task.id,
          dish: task.dish,
          ...left,
          age: task.age,
          at: nameOfStation(task.station),
          ...(isNow && task.hands ? { by: task.hands } : {}),
          after: isNow ? [] : task.after.filter((id) => ids.has(id)),
          ...(task.heat ? { heat: task.heat } : {}),
          ...(task.celsius === null ? {} : { celsius: task.celsius }),
          ...(task.tools.length > 0 ? { tools: task.tools } : {}),
          ...(task.wait === null ? {} : { wait: task.wait }),
          ...(latest === undefined ? {} : { latest }),
        };
      }),
    },
  };
}

/** Minutes of hands and of going on alone that are left of a task under way: a minute at least, as it is not called done. */
function whatIsLeft({ task, starts, ends }: TaskNow, minute: number): { on: number; off: number } {
  const all = Math.max(1, ends - minute);
  const on = Math.min(all, Math.max(0, starts + task.on - minute));
  // What needs hands to the end has hands on it until it is called done.
  return task.off === 0 ? { on: all, off: 0 } : { on, off: all - on };
}

/** What follows something that may not wait: soon, or at once where it is too late already. */
function mustStartBy(
  task: LiveTask,
  plan: ClassPlan,
  done: ReadonlyMap<string, number>,
  minute: number,
): number | undefined {
  const limits = task.after.flatMap((id) => {
    const [before, said] = [plan.tasks.find((each) => each.id === id), done.get(id)];
    return before?.wait == null || said === undefined ? [] : [Math.max(0, said + before.wait - minute)];
  });
  return limits.length > 0 && task.after.every((id) => done.has(id)) ? Math.min(...limits) : undefined;
}

/**
 * The plan from now on, in the fewest minutes that are found in a moment: what is done stays as it was, what is under way goes on, and
 * the rest is laid anew.
 *
 * @param seconds to look for it
 * @param clock seconds since some moment
 * @returns undefined where the rest cannot be done by who and what is there
 */
export function planAgain(
  plan: ClassPlan,
  done: ReadonlyMap<string, number>,
  minute: number,
  without: ReadonlySet<string>,
  seconds: number,
  clock: () => number,
): ClassPlan | undefined {
  const { given, underWay } = restOf(plan, done, minute, without);
  // What may not wait, and has to all the same, is better late than never.
  const patient = given.tasks?.map(({ latest, wait, ...task }) =>
    underWay.has(task.id) ? { ...task, latest: 0 } : task,
  );
  for (const each of [given, { ...given, tasks: patient ?? [] }]) {
    const answer = planRunSheet({ ...each, seconds }, clock);
    if (!('minutes' in answer)) continue;
    const placed = new Map(answer.tasks.map((task) => [task.task, task]));
    const { tasks } = standingOf(plan, done, minute);
    return {
      ...plan,
      minutes: minute + answer.minutes,
      tasks: tasks.flatMap(({ task, starts }) => {
        if (without.has(task.id) && !done.has(task.id)) return [];
        const found = placed.get(task.id);
        if (!found) return [task];
        // A task under way keeps the minute at which it began, and lasts until then as it is seen now.
        if (underWay.has(task.id)) {
          const left = given.tasks?.find(({ id }) => id === task.id) ?? task;
          const began = Math.min(starts, minute);
          return [{ ...task, start: began, on: minute - began + left.on, off: left.off, hands: task.hands }];
        }
        return [{ ...task, start: minute + found.start, hands: found.hands ?? '' }];
      }),
    };
  }
  return undefined;
}
