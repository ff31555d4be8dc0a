import { describe, expect, it } from 'vitest';
import { factorLesson, neededFactor, spareLesson } from './lessons';

function chanceFrom(seed: number) {
  let state = seed;
  const next = () => {
    state = (state * 1664525 + 1013904223) % 4294967296;
    return (state + 0.5) / 4294967296;
  };
  return { next, normal: () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next()) };
}

describe('a lesson of an amount', () => {
  it('is not drawn from nothing, from what is as planned, or from what goes both ways', () => {
    expect(factorLesson([])).toBeUndefined();
    expect(factorLesson([1.03, 0.99, 1.01])).toBeUndefined();
    expect(factorLesson([1.4, 0.7, 1.3, 0.75])).toBeUndefined();
  });

  it('says what it proposes, and how sure it is', () => {
    expect(factorLesson([neededFactor(500, 0, 200)])).toMatchObject({
      proposed: 1.12,
      sure: 'a first hint',
      sessions: 1,
    });
    expect(factorLesson([1.3, 1.25, 1.4, 1.28])).toMatchObject({ sure: 'nearly sure', sessions: 4 });
    expect(factorLesson([0.8, 0.75, 0.85])?.proposed).toBeLessThan(0.9);
  });

  it('taken, wastes less and runs short less than a plan that never learns', () => {
    const { normal } = chanceFrom(5);
    const sum = { never: { short: 0, left: 0 }, taken: { short: 0, left: 0 } };
    const [recipes, sessions] = [300, 10];
    for (let recipe = 0; recipe < recipes; recipe++) {
      // Recipes are off by a fifth, and sessions by a seventh around that.
      const truth = normal() * 0.2;
      const seen: number[] = [];
      for (let session = 0; session < sessions; session++) {
        const needed = Math.exp(truth + normal() * 0.14);
        const plans = { never: 1, taken: factorLesson(seen)?.proposed ?? 1 };
        for (const how of ['never', 'taken'] as const) {
          sum[how].short += Math.max(0, needed - plans[how]);
          sum[how].left += Math.max(0, plans[how] - needed);
        }
        seen.push(needed);
      }
    }
    const part = (value: number) => `${((value / recipes / sessions) * 100).toFixed(1)} %`;
    console.info(
      `amounts over ${sessions} sessions: never learned: short ${part(sum.never.short)}, left ${part(sum.never.left)}; lessons taken: short ${part(sum.taken.short)}, left ${part(sum.taken.left)}`,
    );
    expect(sum.taken.short).toBeLessThan(sum.never.short * 0.8);
    expect(sum.taken.left).toBeLessThan(sum.never.left * 0.8);
  });
});

describe('a lesson of spare pieces', () => {
  it('asks for more where many were bad, for fewer where none were, and says nothing where it is as planned', () => {
    const belief = { mean: 0.1, pieces: 20 };
    expect(spareLesson(20, 24, belief, [])).toBeUndefined();
    const many = spareLesson(20, 24, belief, [{ count: 8, of: 24 }]);
    expect(many).toMatchObject({ sure: 'a first hint', planned: 24 });
    expect(many?.proposed).toBeGreaterThan(26);
    const none = spareLesson(
      20,
      24,
      belief,
      Array.from({ length: 8 }, () => ({ count: 0, of: 24 })),
    );
    expect(none).toMatchObject({ sure: 'nearly sure' });
    expect(none?.proposed).toBeLessThan(24);
  });

  it('taken, has enough good pieces more often than a twentieth spare, and throws fewer away than a quarter', () => {
    const { next: uniform } = chanceFrom(11);
    const [foods, sessions, good] = [200, 10, 24];
    const plans = { twentieth: [0, 0], quarter: [0, 0], taken: [0, 0] } as Record<
      string,
      [short: number, over: number]
    >;
    for (let food = 0; food < foods; food++) {
      // What is bad differs from food to food: from none to a fifth.
      const truth = uniform() * 0.2;
      const seen: { count: number; of: number }[] = [];
      for (let session = 0; session < sessions; session++) {
        const learned = spareLesson(good, Math.ceil(good * 1.05), { mean: 0.05, pieces: 40 }, seen)?.proposed;
        const had = { twentieth: Math.ceil(good * 1.05), quarter: Math.ceil(good * 1.25), taken: 0 };
        had.taken = learned ?? had.twentieth;
        for (const [how, pieces] of Object.entries(had)) {
          const bad = Array.from({ length: pieces }, () => uniform() < truth).filter(Boolean).length;
          const own = plans[how] as [number, number];
          own[0] += pieces - bad < good ? 1 : 0;
          own[1] += Math.max(0, pieces - bad - good);
          if (how === 'taken') seen.push({ count: bad, of: pieces });
        }
      }
    }
    const all = foods * sessions;
    const said = Object.entries(plans).map(
      ([how, [short, over]]) =>
        `${how}: short in ${((100 * short) / all).toFixed(0)} %, ${(over / all).toFixed(1)} over`,
    );
    console.info(`spares of ${good} pieces over ${sessions} sessions: ${said.join('; ')}`);
    expect(plans.taken?.[0]).toBeLessThan((plans.twentieth?.[0] ?? 0) * 0.6);
    expect(plans.taken?.[1]).toBeLessThan((plans.quarter?.[1] ?? 0) * 0.9);
  });
});
