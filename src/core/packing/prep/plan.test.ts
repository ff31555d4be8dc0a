import { describe, expect, it } from 'vitest';
import type { Motion, PrepPhase } from './motion';
import { CLEAN, type Hand, planPrep, SET_UP } from './plan';

const motion = (food: string, minutes: number, phase: PrepPhase = 'rest'): Motion => ({
  key: `${food}|chopped|${phase}`,
  food,
  cut: 'chopped',
  phase,
  part: 0,
  grams: 1000,
  kits: 10,
  minutes,
});
const hand = (id: string, raw = true): Hand => ({ id, name: id, raw });
const hands = (count: number) => Array.from({ length: count }, (_, at) => hand(`h${at}`));

/** Every way to share whole minutes of motions between two pairs of hands, tried. */
function shortestForTwo(sizes: readonly number[]): number {
  let best = Number.POSITIVE_INFINITY;
  const go = (at: number, one: number, other: number) => {
    if (Math.max(one, other) >= best) return;
    if (at === sizes.length) {
      best = Math.max(one, other);
      return;
    }
    const size = sizes[at] ?? 0;
    for (let first = 0; first <= size; first++)
      go(at + 1, one + (first > 0 ? first + SET_UP : 0), other + (size - first > 0 ? size - first + SET_UP : 0));
  };
  go(0, 0, 0);
  return best;
}

describe('a prep day', () => {
  it('is never shorter than the shortest of all ways to share it, and as short where it says so', () => {
    let [shortest, all] = [0, 0];
    for (let seed = 1; seed <= 60; seed++) {
      const sizes = Array.from({ length: 2 + (seed % 4) }, (_, at) => 1 + ((seed * 7 + at * 5) % 9));
      const plan = planPrep(
        sizes.map((minutes, at) => motion(`food ${at}`, minutes)),
        hands(2),
        9,
      );
      const best = shortestForTwo(sizes);
      expect(plan?.minutes, sizes.join()).toBeGreaterThanOrEqual(best);
      if (plan?.proven) expect(plan.minutes).toBe(best);
      expect(plan?.bound).toBeLessThanOrEqual(best);
      all++;
      if (plan?.minutes === best) shortest++;
    }
    expect(shortest / all).toBeGreaterThan(0.95);
  });

  it('does all of each motion, nobody two at once, each time with setting up', () => {
    const motions = [motion('onion', 37), motion('carrot', 12), motion('herbs', 9), motion('leek', 25)];
    const plan = planPrep(motions, hands(3), 9);
    for (const { key, minutes } of motions)
      expect(plan?.stretches.filter((each) => each.motion === key).reduce((sum, each) => sum + each.minutes, 0)).toBe(
        minutes,
      );
    for (const { id } of hands(3)) {
      const own = (plan?.stretches ?? []).filter((each) => each.hand === id).sort((a, b) => a.from - b.from);
      for (const [at, each] of own.entries()) {
        expect(each.to - each.from).toBe(each.minutes + SET_UP);
        if (at > 0) expect(each.from).toBeGreaterThanOrEqual(own[at - 1]?.to ?? 0);
      }
    }
  });

  it('makes kits without something first, and raw meat last, each on clean boards', () => {
    const plan = planPrep(
      [motion('chicken', 10, 'raw'), motion('onion', 10), motion('rice', 4, 'without')],
      [hand('a'), hand('b', false)],
      9,
    );
    expect(plan?.phases.map(({ phase }) => phase)).toEqual(['without', 'rest', 'raw']);
    const [first, second, third] = plan?.phases ?? [];
    expect(second?.from).toBe((first?.to ?? 0) + CLEAN);
    expect(third?.from).toBe((second?.to ?? 0) + CLEAN);
    // Only one of the two may handle it: nobody else helps.
    expect(plan?.stretches.filter(({ motion: key }) => key.startsWith('chicken')).map((each) => each.hand)).toEqual([
      'a',
    ]);
    expect(third?.why).toContain('Only 1 may handle what is raw.');
  });

  it('is not planned where nobody may handle the raw meat', () => {
    expect(planPrep([motion('chicken', 10, 'raw')], [hand('b', false)], 9)).toBeUndefined();
  });

  it('of 12 dishes and 6 pairs of hands is within a few minutes of what it cannot be shorter than', () => {
    const motions = Array.from({ length: 60 }, (_, at) => motion(`food ${at}`, 2 + ((at * 13) % 30)));
    const plan = planPrep(motions, hands(6), 9);
    expect((plan?.minutes ?? 0) - (plan?.bound ?? 0)).toBeLessThanOrEqual(1);
  });
});
