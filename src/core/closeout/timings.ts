import type { ClassPlan, LiveTask } from '../classday/live/class-plan';

/** How long something took, as a part of what was planned: 1.5 for half as long again. */
export interface Took {
  /** The dish, and the place of the step in it from 0. */
  readonly dishId: string;
  readonly step: number;
  /** Its words: a step that is written otherwise since is another. */
  readonly text: string;
  readonly factor: number;
}

/** Shorter steps are tapped too loosely to say anything, in minutes. */
const LEAST_MINUTES = 3;
/** What lies further off was not tapped when it was done. */
const [LEAST, MOST] = [0.2, 5];

const stepOf = (id: string) => {
  const [, dishId = '', place = '0'] = /^(.*) (\d+)(?:\.\d+)?$/.exec(id) ?? [];
  return { dishId, step: Number(place) - 1 };
};

/**
 * What the steps of a class took: from when a task could begin (what it waits for was done, its hands were free) to when it was called
 * done. Parts of one step are taken together.
 *
 * @param done minute of the class at which each task was called done
 * @example
 * // Chopping was planned for 5 minutes, and done after 10: stepTimes(plan, new Map([['d1 1', 10]])) gives [{ dishId: 'd1', step: 0, text: 'Chop.', factor: 2 }]
 */
export function stepTimes({ tasks }: Pick<ClassPlan, 'tasks'>, done: ReadonlyMap<string, number>): Took[] {
  const logs = new Map<string, { sum: number; count: number; dishId: string; step: number; text: string }>();
  for (const task of tasks) {
    const end = done.get(task.id);
    const planned = task.on + task.off;
    if (end === undefined || planned < LEAST_MINUTES) continue;
    const from = couldBegin(task, tasks, done, end);
    if (from === undefined) continue;
    const took = end - from;
    const factor = took / planned;
    if (factor < LEAST || factor > MOST) continue;
    const { dishId, step } = stepOf(task.id);
    const key = `${dishId} ${step}`;
    const { sum = 0, count = 0 } = logs.get(key) ?? {};
    logs.set(key, { sum: sum + Math.log(factor), count: count + 1, dishId, step, text: task.text });
  }
  return [...logs.values()].map(({ sum, count, ...step }) => ({ ...step, factor: Math.exp(sum / count) }));
}

/** When a task could begin, by what was called done before it; undefined where several were called done in one go. */
function couldBegin(
  task: LiveTask,
  tasks: readonly LiveTask[],
  done: ReadonlyMap<string, number>,
  end: number,
): number | undefined {
  const before = task.after.map((id) => done.get(id) ?? 0);
  const sameHands = tasks
    .filter(({ id, hands }) => hands !== '' && hands === task.hands && id !== task.id)
    .map(({ id }) => done.get(id) ?? 0);
  const all = [...before, ...sameHands];
  return all.includes(end) ? undefined : Math.max(0, ...all.filter((minute) => minute < end));
}

/** A pause is no work, in minutes. */
const PAUSE = 20;

/**
 * Minutes at which somebody was at it, from when each tick was made: long pauses are left out.
 *
 * @param minutes in any order
 * @example
 * minutesAtWork([0, 5, 12, 200, 206]) //=> 18
 */
export function minutesAtWork(minutes: readonly number[]): number {
  const sorted = [...minutes].sort((a, b) => a - b);
  return sorted.reduce((sum, minute, at) => {
    const gap = minute - (sorted[at - 1] ?? minute);
    return sum + (gap > PAUSE ? 0 : gap);
  }, 0);
}
