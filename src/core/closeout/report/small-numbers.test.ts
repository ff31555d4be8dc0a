import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hideSmall, sayShown } from './small-numbers';

/** All values that a part may have for somebody who sees the others and the total: tried one after the other. */
function possible(shown: readonly (number | string)[], total: number): Set<number>[] {
  const all = shown.map(() => new Set<number>());
  const rest = (at: number, left: number, so: number[]): void => {
    if (left < 0) return;
    if (at === shown.length) {
      if (left === 0) for (const [n, value] of so.entries()) all[n]?.add(value);
      return;
    }
    const each = shown[at];
    const isAll = shown.every((other) => other === 'withheld');
    const [from, to] = typeof each === 'number' ? [each, each] : each === 'small' ? [1, 4] : [isAll ? 0 : 5, left];
    for (let value = from; value <= Math.min(to, left); value++) rest(at + 1, left - value, [...so, value]);
  };
  rest(0, total, []);
  return all;
}

describe('small numbers', () => {
  it('are hidden, and with them what would tell them', () => {
    expect(hideSmall([2, 9, 30])).toEqual(['small', 'withheld', 30]);
    expect(hideSmall([3, 2, 12])).toEqual(['small', 'small', 12]);
    expect(hideSmall([1, 5])).toEqual(['withheld', 'withheld']);
    expect(hideSmall([0, 9, 30])).toEqual([0, 9, 30]);
    expect(hideSmall([3, 0, 0])).toEqual(['withheld', 'withheld', 'withheld']);
    expect(['small', 'withheld', 7].map((each) => sayShown(each as 'small'))).toEqual([
      'fewer than 5',
      'not shown',
      '7',
    ]);
  });

  it('cannot be worked out by whoever knows the rule, the other parts and the total', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 14 }), { minLength: 2, maxLength: 5 }), (parts) => {
        const shown = hideSmall(parts);
        const total = parts.reduce((sum, part) => sum + part, 0);
        const may = possible(shown, total);
        for (const [at, part] of parts.entries()) {
          const own = shown[at];
          if (typeof own === 'number') expect(own).toBe(part);
          // Where nothing else is hidden, a small part is never shown; a hidden one is never sure.
          if (part > 0 && part < 5) expect(typeof own).toBe('string');
          if (own !== undefined && typeof own !== 'number' && total > 0)
            expect(may[at]?.size, JSON.stringify([parts, shown])).toBeGreaterThan(1);
        }
      }),
      { numRuns: 3000 },
    );
  });
});
