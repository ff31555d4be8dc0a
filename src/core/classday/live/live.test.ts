import { describe, expect, it } from 'vitest';
import { planSteps } from '../../recipes/steps/step-reader';
import { TYPICAL } from '../../reference/reference';
import { classCase } from '../run-sheet/class-case';
import { planRunSheet } from '../run-sheet/run-sheet';
import { type ClassEvent, type ClassWord, classNow } from './class-events';
import { type ClassPlan, planFrom } from './class-plan';
import { planAgain } from './plan-again';
import { standingOf } from './standing';

const clock = () => performance.now() / 1000;
const dish = (title: string, ingredients: string[], ...steps: string[]) => ({
  id: title,
  title,
  times: 2,
  steps: planSteps({ steps, ingredients }, TYPICAL),
});
const STEW = dish(
  'stew',
  ['onion', 'carrot', 'canned white beans'],
  'Chop the onion and the carrot.',
  'Boil onion and carrot for 6 minutes.',
  'Add the beans and simmer 12 minutes.',
);
const SALAD = dish('salad', ['cucumber', 'lemon'], 'Slice the cucumber.', 'Squeeze the lemon over it and toss.');

function planOf(burners = 2): ClassPlan {
  const { given, tasks } = classCase([STEW, SALAD], {
    ages: [9, 9, 10, 10, 11, 11, 12, 12],
    adults: 1,
    equipment: { stations: 2, burners, knives: 2 },
    isFire: false,
    cooking: 50,
  });
  const answer = planRunSheet({ ...given, seconds: 1 }, clock);
  if (!('minutes' in answer)) throw new Error('It cannot be.');
  return planFrom({ given, tasks }, answer, new Map(), 50);
}

/** What is broken in a plan, looked at minute by minute; knows nothing of how it was made. */
function brokenIn(plan: ClassPlan, done: ReadonlyMap<string, number>, from: number): string[] {
  const broken: string[] = [];
  const open = plan.tasks.filter(({ id }) => !done.has(id));
  for (const task of open)
    for (const before of task.after) {
      const other = open.find(({ id }) => id === before);
      if (other && task.start < other.start + other.on + other.off && task.start >= from)
        broken.push(`${task.id} begins before ${before} has ended`);
    }
  for (let minute = from; minute < plan.minutes; minute++) {
    const handsOn = open.filter(({ start, on }) => start <= minute && minute < start + on);
    const names = handsOn.map(({ hands }) => hands);
    if (new Set(names).size < names.length) broken.push(`hands on two tasks in minute ${minute}`);
    for (const { age, hands, id } of handsOn)
      if ((plan.hands.find((pair) => pair.id === hands)?.age ?? -1) < age)
        broken.push(`${hands} is too young for ${id}`);
    for (const [tool, count] of Object.entries(plan.tools))
      if (handsOn.filter(({ tools }) => tools.includes(tool)).length > count) broken.push(`too few: ${tool}`);
    for (const [heat, count] of Object.entries(plan.heat))
      if (open.filter((t) => t.heat === heat && t.start <= minute && minute < t.start + t.on + t.off).length > count)
        broken.push(`too few: ${heat}`);
  }
  return broken;
}

describe('a class that runs', () => {
  const plan = planOf();

  it('is on time while its tasks are called done when they are planned to end, and never begins what waits', () => {
    for (let minute = 0; minute <= plan.minutes; minute++) {
      const done = new Map(
        plan.tasks
          .filter(({ start, on, off }) => start + on + off <= minute)
          .map((t) => [t.id, t.start + t.on + t.off]),
      );
      const { behind, tasks } = standingOf(plan, done, minute);
      expect(behind).toBe(0);
      for (const { task, state } of tasks)
        if (state === 'now') expect(task.after.every((id) => done.has(id))).toBe(true);
    }
  });

  it('is behind by what its longest chain is late, and says which station', () => {
    const first = plan.tasks.find(({ text, station }) => text.startsWith('Chop') && station === 1);
    const done = new Map(
      plan.tasks
        .filter(({ id }) => id !== first?.id)
        .flatMap((t) => (t.start + t.on + t.off <= 12 ? [[t.id, t.start + t.on + t.off] as const] : [])),
    );
    const { behind, stations } = standingOf(plan, done, 12);
    expect(behind).toBeGreaterThan(0);
    expect(stations.get(1)).toBeGreaterThan(0);
  });

  it('is planned again with nothing done touched, nothing under way moved, and no rule of the room broken', () => {
    let seed = 7;
    const chance = () => {
      seed = (seed * 1103515245 + 12345) % 2147483648;
      return seed / 2147483648;
    };
    for (let round = 0; round < 25; round++) {
      let now = planOf(1 + Math.floor(chance() * 3));
      const done = new Map<string, number>();
      let minute = 0;
      for (let turn = 0; turn < 3; turn++) {
        const to = minute + 3 + Math.floor(chance() * 9);
        for (; minute < to; minute++)
          // Some are quick, some are late.
          for (const { task, state, ends } of standingOf(now, done, minute).tasks)
            if (state === 'now' && (ends <= minute ? chance() < 0.5 : chance() < 0.05)) done.set(task.id, minute);
        const underWay = standingOf(now, done, minute).tasks.filter(({ state }) => state === 'now');
        const next = planAgain(now, done, minute, new Set(), 0.3, clock);
        if (!next) throw new Error('The rest cannot be done.');
        expect(brokenIn(next, done, minute)).toEqual([]);
        expect(next.tasks).toHaveLength(now.tasks.length);
        for (const { task } of underWay) {
          const same = next.tasks.find(({ id }) => id === task.id);
          expect([same?.hands, (same?.start ?? 99) <= minute]).toEqual([task.hands, true]);
        }
        now = next;
      }
    }
  });

  it('can leave a dish out, and is no longer for it', () => {
    const without = new Set(plan.tasks.filter(({ dish: title }) => title === 'salad').map(({ id }) => id));
    const less = planAgain(plan, new Map(), 2, without, 0.5, clock);
    expect(less?.tasks.some(({ dish: title }) => title === 'salad')).toBe(false);
    expect(less?.minutes).toBeLessThanOrEqual(planAgain(plan, new Map(), 2, new Set(), 0.5, clock)?.minutes ?? 0);
  });
});

describe('what is said in a class', () => {
  const event = (seq: number, what: ClassWord, item = '', more: Partial<ClassEvent> = {}): ClassEvent => ({
    id: `e${seq}`,
    seq,
    what,
    item,
    enrolmentId: null,
    value: {},
    at: `2026-11-26T15:0${seq}:00Z`,
    by: 'Mara',
    ...more,
  });

  it('counts once where two tablets begin it at once, and forgets a beginning that was a slip', () => {
    const [one, other] = [planOf(), planOf(1)];
    const begun = [
      event(1, 'begun', '', { value: { plan: one } }),
      event(2, 'begun', '', { value: { plan: other }, by: 'Wilf' }),
    ];
    expect(classNow(begun)).toMatchObject({ begun: { by: 'Mara' }, plan: { heat: one.heat } });
    expect(classNow([...begun, event(3, 'not begun')]).begun).toBeUndefined();
    expect(
      classNow([...begun, event(3, 'not begun'), event(4, 'begun', '', { value: { plan: other } })]).begun?.at,
    ).toContain(':04:');
  });

  it('keeps the first who called a task done, and takes it back', () => {
    const events = [event(1, 'done', 'stew 1'), event(2, 'done', 'stew 1', { by: 'Wilf' })];
    expect(classNow(events).done.get('stew 1')?.by).toBe('Mara');
    expect(classNow([...events, event(3, 'not done', 'stew 1')]).done.size).toBe(0);
  });

  it('counts who has what everybody was asked for', () => {
    const events = [
      event(1, 'asked', '', { value: { text: 'Water on' } }),
      event(2, 'has', 'e1', { enrolmentId: 'ada' }),
      event(3, 'has', 'e1', { enrolmentId: 'bram' }),
      event(4, 'has not', 'e1', { enrolmentId: 'ada' }),
    ];
    expect([...(classNow(events).asked[0]?.having ?? [])]).toEqual(['bram']);
  });
});
