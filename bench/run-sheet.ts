import { type ClassPlan, endOfTask, type LiveTask } from '@/core/classday/live/class-plan';
import { planAgain } from '@/core/classday/live/plan-again';
import { planRunSheet } from '@/core/classday/run-sheet/run-sheet';
import type { RunSheetCase, RunTask } from '@/core/classday/run-sheet/sheet-case';
import { randomFrom } from '../scripts/random.mjs';

/** Three dishes of a class: tasks that build on one another, two burners, an oven, few knives and boards. */
export function classOf(tasks: number, pairs: number, seed: number): RunSheetCase {
  const chance = randomFrom(seed);
  const upTo = (most: number) => Math.floor(chance() * (most + 1));
  const all = Array.from({ length: tasks }, (_, at): RunTask => {
    const dish = at % 3;
    const own = Array.from({ length: at }, (_unused, n) => n).filter((n) => n % 3 === dish);
    const heat = chance() < 0.25 ? (chance() < 0.7 ? 'hob' : 'oven') : undefined;
    return {
      id: `task ${at}`,
      dish: `dish ${dish}`,
      on: 2 + upTo(8),
      off: heat ? 5 + upTo(20) : chance() < 0.1 ? upTo(10) : 0,
      ...(heat ? { heat } : {}),
      ...(heat === 'oven' ? { celsius: 180 } : {}),
      ...(heat ? {} : { tools: chance() < 0.6 ? ['knife', 'board'] : ['bowl'] }),
      age: chance() < 0.6 ? 6 : chance() < 0.6 ? 9 : 12,
      after: own
        .filter(() => chance() < 0.35)
        .slice(-2)
        .map((n) => `task ${n}`),
      ...(chance() < 0.2 ? { wait: 5 + upTo(20) } : {}),
    };
  });
  const ages = [14, 12, 10, 9, 9, 8, 7, 6];
  return {
    hands: Array.from({ length: pairs }, (_, at) => ({ id: `pair ${at + 1}`, age: ages[at % ages.length] ?? 8 })),
    heat: { hob: 2, oven: 2 },
    tools: { knife: 3, board: 3, bowl: 3 },
    tasks: all,
  };
}

export function runSheetFigures(): void {
  const clock = () => performance.now() / 1000;
  for (const seed of [1, 2, 3, 4, 5]) {
    const given = { ...classOf(35, 8, seed), seconds: 5 };
    const begun = clock();
    const answer = planRunSheet(given, clock);
    const took = (clock() - begun).toFixed(2);
    console.log(
      'impossible' in answer
        ? `A class of 35 tasks and 8 pairs of hands (${seed})\n  ${took} s; cannot be: ${answer.impossible.length} tasks\n`
        : `A class of 35 tasks and 8 pairs of hands (${seed})\n  ${took} s; ${answer.minutes} minutes, dishes end within ${answer.spread}; proven ${JSON.stringify(answer.proven)}${answer.bound ? `, at least ${JSON.stringify(answer.bound)}` : ''}\n  goal: proven in at most 5 s\n`,
    );
    firstPlan(given, seed, clock);
  }
}

/** How soon there is a plan at all, and how soon the rest of a class is planned again while it runs. */
function firstPlan(given: RunSheetCase, seed: number, clock: () => number): void {
  const begun = clock();
  const first = planRunSheet({ ...given, seconds: 0.25 }, clock);
  const took = Math.round((clock() - begun) * 1000);
  if ('impossible' in first) return;
  const tasks = first.tasks.map(({ task, start, hands = '' }): LiveTask => {
    const own = given.tasks?.find(({ id }) => id === task);
    const {
      on = 0,
      off = 0,
      heat = '',
      celsius = null,
      tools = [],
      after = [],
      age = 0,
      wait = null,
      dish = '',
    } = own ?? {};
    const plain = { text: task, notes: '', station: null, part: null, wash: '', inside: null };
    return { ...plain, id: task, dish, on, off, heat, celsius, tools, after, age, wait, start, hands };
  });
  const plan: ClassPlan = {
    minutes: first.minutes,
    cooking: first.minutes,
    tasks,
    hands: (given.hands ?? []).map((pair) => ({ ...pair, at: 'with the adults' })),
    heat: given.heat ?? {},
    tools: given.tools ?? {},
    stations: [],
    standIns: [],
  };
  const half = Math.floor(first.minutes / 2);
  const done = new Map(tasks.filter((task) => endOfTask(task) < half - 5).map((task) => [task.id, endOfTask(task)]));
  const again = clock();
  const next = planAgain(plan, done, half, new Set(), 0.5, clock);
  const tookAgain = Math.round((clock() - again) * 1000);
  console.log(
    `A first plan of it, and the rest planned again at half time, five minutes behind (${seed})\n  ${took} ms for ${first.minutes} minutes; ${tookAgain} ms, ready at ${next?.minutes ?? 'no'} minutes\n  goal: within 300 ms, and 1 s\n`,
  );
}
