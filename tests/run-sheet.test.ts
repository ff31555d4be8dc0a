import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { planRunSheet } from '@/core/classday/run-sheet/run-sheet';
import type { RunSheetAnswer, RunSheetCase, RunTask } from '@/core/classday/run-sheet/sheet-case';

const clock = () => performance.now() / 1000;
const caseOf = (name: string) => JSON.parse(readFileSync(`tests/cases/${name}.json`, 'utf8'));

type Plan = Exclude<RunSheetAnswer, { impossible: unknown }>;
const isPlan = (answer: RunSheetAnswer): answer is Plan => 'minutes' in answer;

/** What of the rules a plan breaks, each rule told over by itself. */
function broken(given: RunSheetCase, plan: Pick<Plan, 'tasks'>): string[] {
  const found: string[] = [];
  const { tasks = [], hands = [], heat = {}, tools = {} } = given;
  const start = new Map(plan.tasks.map((each) => [each.task, each.start]));
  const s = (id: string) => start.get(id) ?? Number.NaN;
  const end = (task: RunTask) => s(task.id) + task.on + task.off;
  const all = Math.max(0, ...tasks.map(end));
  for (const task of tasks) {
    if (!(s(task.id) >= 0)) found.push(`${task.id} has no start`);
    for (const before of task.after ?? []) {
      const first = tasks.find(({ id }) => id === before);
      if (first && s(task.id) < end(first)) found.push(`${task.id} before ${before}`);
    }
    if (task.wait !== undefined) {
      const after = tasks.filter((other) => other.after?.includes(task.id));
      if (after.length === 0 && all > end(task) + task.wait) found.push(`${task.id} waits for the end`);
      for (const other of after)
        if (s(other.id) > end(task) + task.wait) found.push(`${task.id} waits for ${other.id}`);
    }
    const pair = plan.tasks.find((each) => each.task === task.id)?.hands;
    if (task.on > 0) {
      const who = hands.find(({ id }) => id === pair);
      if (!who || who.age < (task.age ?? 0)) found.push(`${task.id}: ${pair} may not`);
    }
  }
  for (let minute = 0; minute < all; minute++) {
    const on = tasks.filter((task) => s(task.id) <= minute && minute < s(task.id) + task.on);
    const lit = tasks.filter((task) => task.heat && s(task.id) <= minute && minute < end(task));
    const pairs = on.map((task) => plan.tasks.find((each) => each.task === task.id)?.hands);
    if (new Set(pairs).size < pairs.length) found.push(`a pair at two things at ${minute}`);
    for (const tool of new Set(on.flatMap(({ tools: own = [] }) => own)))
      if (on.filter((task) => task.tools?.includes(tool)).length > (tools[tool] ?? 0))
        found.push(`${tool} at ${minute}`);
    for (const source of new Set(lit.map((task) => task.heat ?? '')))
      if (lit.filter((task) => task.heat === source).length > (heat[source] ?? 0)) found.push(`${source} at ${minute}`);
    const degrees = new Set(lit.filter((task) => task.heat === 'oven').flatMap(({ celsius }) => celsius ?? []));
    if (degrees.size > 1) found.push(`two temperatures at ${minute}`);
  }
  return found;
}

const figures = ({ tasks = [] }: RunSheetCase, plan: Pick<Plan, 'tasks'>) => {
  const start = new Map(plan.tasks.map((each) => [each.task, each.start]));
  const end = ({ id, on, off }: RunTask) => (start.get(id) ?? 0) + on + off;
  const dishes = [...new Set(tasks.flatMap(({ dish }) => dish ?? []))].map((dish) =>
    Math.max(...tasks.filter((task) => task.dish === dish).map(end)),
  );
  return {
    minutes: Math.max(0, ...tasks.map(end)),
    spread: dishes.length === 0 ? 0 : Math.max(...dishes) - Math.min(...dishes),
  };
};

/** Every start of every task and every pair for it, tried: the best, or nothing. */
function byTryingAll(given: RunSheetCase, horizon: number): { minutes: number; spread: number } | undefined {
  const { tasks = [], hands = [] } = given;
  let best: { minutes: number; spread: number } | undefined;
  const placed: { task: string; start: number; hands?: string }[] = [];
  const go = (at: number) => {
    const task = tasks[at];
    if (!task) {
      const plan = { tasks: placed };
      const now = figures(given, plan);
      if (best && (now.minutes > best.minutes || (now.minutes === best.minutes && now.spread >= best.spread))) return;
      if (broken(given, plan).length === 0) best = now;
      return;
    }
    for (let start = 0; start + task.on + task.off <= Math.min(horizon, best?.minutes ?? horizon); start++) {
      for (const pair of task.on > 0 ? hands.filter(({ age }) => age >= (task.age ?? 0)) : [undefined]) {
        placed.push({ task: task.id, start, ...(pair ? { hands: pair.id } : {}) });
        go(at + 1);
        placed.pop();
      }
    }
  };
  go(0);
  return best;
}

describe('a run sheet', () => {
  it.each(['run-sheet-hand', 'run-sheet-class'])('comes out as worked by hand: %s', (name) => {
    const given = caseOf(name);
    const answer = planRunSheet(given, clock);
    expect(answer).toMatchObject(given.expect);
    expect(isPlan(answer) && broken(given, answer)).toEqual([]);
    expect(isPlan(answer) && figures(given, answer)).toEqual({
      minutes: given.expect.minutes,
      spread: given.expect.spread,
    });
  });

  it('is the best of all there are, on small classes made by chance, or says that there is none', () => {
    let state = 21;
    const chance = () => {
      state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
      return state / 2 ** 31;
    };
    const upTo = (most: number) => Math.floor(chance() * (most + 1));
    let impossible = 0;
    for (let round = 0; round < 70; round++) {
      const count = 3 + upTo(1);
      const tasks = Array.from({ length: count }, (_, at): RunTask => {
        const heat = chance() < 0.4 ? (chance() < 0.5 ? 'hob' : 'oven') : undefined;
        return {
          id: `t${at}`,
          on: upTo(2),
          off: upTo(1),
          ...(chance() < 0.8 ? { dish: chance() < 0.5 ? 'soup' : 'salad' } : {}),
          ...(heat ? { heat } : {}),
          ...(heat === 'oven' ? { celsius: chance() < 0.5 ? 180 : 200 } : {}),
          ...(chance() < 0.4 ? { tools: ['knife'] } : {}),
          ...(chance() < 0.5 ? { age: chance() < 0.5 ? 8 : 12 } : {}),
          ...(at > 0 && chance() < 0.5 ? { after: [`t${upTo(at - 1)}`] } : {}),
          ...(chance() < 0.3 ? { wait: upTo(1) } : {}),
        };
      });
      const hands =
        chance() < 0.4
          ? [{ id: 'p', age: 14 }]
          : [
              { id: 'p', age: 14 },
              { id: 'q', age: 9 },
            ];
      const given: RunSheetCase = { hands, heat: { hob: 1, oven: 1 + upTo(1) }, tools: { knife: 1 }, tasks };
      const answer = planRunSheet(given, clock);
      const best = byTryingAll(
        given,
        tasks.reduce((sum, { on, off }) => sum + on + off, 1),
      );
      if (!best) {
        impossible++;
        expect(isPlan(answer), JSON.stringify(given)).toBe(false);
        continue;
      }
      expect(isPlan(answer) && broken(given, answer), JSON.stringify(given)).toEqual([]);
      expect(answer, JSON.stringify(given)).toMatchObject({ ...best, proven: { minutes: true, spread: true } });
    }
    expect(impossible).toBeGreaterThan(0);
  });

  it('names what cannot be done even alone together, and nothing that has no part in it', () => {
    const tasks: RunTask[] = [
      { id: 'chop', on: 5, off: 0, wait: 0 },
      { id: 'fry', on: 3, off: 0, after: ['chop'] },
      { id: 'stir', on: 3, off: 0, after: ['chop'] },
      { id: 'wash', on: 9, off: 0 },
    ];
    // One pair of hands cannot begin both at once.
    expect(planRunSheet({ hands: [{ id: 'p', age: 14 }], tasks }, clock)).toEqual({
      impossible: ['chop', 'fry', 'stir'],
    });
    const two = [
      { id: 'p', age: 14 },
      { id: 'q', age: 14 },
    ];
    expect(planRunSheet({ hands: two, tasks }, clock)).toMatchObject({ minutes: 12 });
    const flambe: RunTask = { id: 'flambé', on: 2, off: 0, age: 18 };
    expect(planRunSheet({ hands: two, tasks: [...tasks, flambe] }, clock)).toEqual({ impossible: ['flambé'] });
    expect(planRunSheet({ hands: two, tasks: [{ id: 'grate', on: 2, off: 0, tools: ['grater'] }] }, clock)).toEqual({
      impossible: ['grate'],
    });
    expect(planRunSheet({}, clock)).toMatchObject({ minutes: 0, spread: 0, tasks: [] });
  });
});
