import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Heat } from './step-plan';
import { circleIn, scheduleSteps } from './step-schedule';

const step = (handsOn: number, handsOff: number, after: number[] = [], heat: Heat = 'none') => ({
  handsOn,
  handsOff,
  after,
  heat,
  ahead: false,
});

describe('the shortest time', () => {
  it('uses what goes on alone for other work', () => {
    // Rice boils while the vegetables are cut; the sauce needs them.
    const steps = [step(2, 15), step(10, 0), step(5, 0, [1]), step(3, 0, [0, 2])];
    expect(scheduleSteps(steps, { cooks: 1 }).minutes).toBe(20);
    expect(scheduleSteps(steps, { cooks: 2 }).minutes).toBe(20);
  });

  it('is the longest chain with enough hands, and all hands’ work with one pair', () => {
    const steps = [step(6, 0), step(6, 0), step(6, 0), step(2, 0, [0, 1, 2])];
    expect([1, 2, 3].map((cooks) => scheduleSteps(steps, { cooks }).minutes)).toEqual([20, 14, 8]);
  });

  it('waits for a burner where there is only one', () => {
    const steps = [step(1, 10, [], 'hob'), step(1, 10, [], 'hob')];
    expect(scheduleSteps(steps, { cooks: 2 }).minutes).toBe(11);
    expect(scheduleSteps(steps, { cooks: 2, heats: { hob: 1 } }).minutes).toBe(22);
  });

  it('leaves out what was done before the class, and says how late each step may begin', () => {
    const steps = [{ ...step(2, 720), ahead: true }, step(4, 0), step(10, 0, [0]), step(1, 0, [1, 2])];
    const { minutes, steps: times } = scheduleSteps(steps, { cooks: 2 });
    expect(minutes).toBe(11);
    expect(times[1]).toMatchObject({ start: 0, latest: 6 });
  });

  it('is refused where steps wait for each other', () => {
    expect(circleIn([step(1, 0, [1]), step(1, 0, [2]), step(1, 0, [1])])).toEqual([1, 2]);
    expect(circleIn([step(1, 0), step(1, 0, [0])])).toBeUndefined();
    expect(() => scheduleSteps([step(1, 0, [0])], { cooks: 1 })).toThrow('Steps 1 wait for each other');
  });

  const anySteps = fc
    .array(
      fc.record({
        handsOn: fc.integer({ min: 0, max: 9 }),
        handsOff: fc.integer({ min: 0, max: 9 }),
        after: fc.array(fc.nat(4), { maxLength: 2 }),
        heat: fc.constantFrom<Heat>('none', 'hob'),
      }),
      { minLength: 1, maxLength: 5 },
    )
    .map((steps) =>
      steps.map((each, at) => ({
        ...each,
        ahead: false,
        after: [...new Set(each.after.filter((before) => before < at))],
      })),
    );

  it('keeps every order, hand and burner, and none is shorter when all moments are tried', () => {
    fc.assert(
      fc.property(anySteps, fc.integer({ min: 1, max: 2 }), (steps, cooks) => {
        const heats = { hob: 1 };
        const { minutes, steps: times, isShortest } = scheduleSteps(steps, { cooks, heats });
        expect(isShortest).toBe(true);
        expect(
          fits(
            steps,
            times.map(({ start }) => start),
            cooks,
          ),
        ).toBe(true);
        expect(minutes).toBe(shortest(steps, cooks));
      }),
      { numRuns: 150 },
    );
  });
});

type Step = ReturnType<typeof step>;

/** Whether steps may start at these moments, looked at minute by minute. */
function fits(steps: readonly Step[], starts: readonly number[], cooks: number): boolean {
  const end = (at: number) => (starts[at] as number) + (steps[at] as Step).handsOn + (steps[at] as Step).handsOff;
  if (steps.some(({ after }, at) => after.some((before) => end(before) > (starts[at] as number)))) return false;
  const last = Math.max(...steps.map((_, at) => end(at)));
  for (let minute = 0; minute < last; minute++) {
    const during = (until: (at: number) => number) =>
      steps.filter((_, at) => (starts[at] as number) <= minute && minute < until(at));
    if (during((at) => (starts[at] as number) + (steps[at] as Step).handsOn).length > cooks) return false;
    if (during(end).filter(({ heat }) => heat === 'hob').length > 1) return false;
  }
  return true;
}

/** The least time over every order in which steps can be put one by one at the first moment that fits. */
function shortest(steps: readonly Step[], cooks: number): number {
  let best = Number.POSITIVE_INFINITY;
  const put = (starts: readonly (number | undefined)[]): void => {
    const known = steps.flatMap((_, at) => (starts[at] === undefined ? [] : [at]));
    if (known.length === steps.length) {
      best = Math.min(
        best,
        ...[Math.max(...steps.map((each, at) => (starts[at] ?? 0) + each.handsOn + each.handsOff))],
      );
      return;
    }
    for (const [at, each] of steps.entries()) {
      if (starts[at] !== undefined || !each.after.every((before) => starts[before] !== undefined)) continue;
      for (let minute = 0; ; minute++) {
        const now = starts.map((start, other) => (other === at ? minute : start));
        const some = [...known, at];
        const places = new Map(some.map((place, index) => [place, index]));
        const part = some.map((place) => ({
          ...(steps[place] as Step),
          after: (steps[place] as Step).after.map((before) => places.get(before) as number),
        }));
        if (
          !fits(
            part,
            some.map((place) => now[place] as number),
            cooks,
          )
        )
          continue;
        put(now);
        break;
      }
    }
  };
  put(steps.map(() => undefined));
  return best;
}
