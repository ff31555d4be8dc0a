import { describe, expect, it } from 'vitest';
import type { BenchKit } from '../progress';
import { secondsOf } from './line-tasks';
import { paceOf } from './pace';
import { runningOut } from './running-out';

const waiting = (count: number, grams: number, more: object = {}) =>
  Array.from({ length: count }, (_, at) => ({ number: at + 1, grams, isReserve: false, tolerance: 0.05, ...more }));

describe('a food that runs out', () => {
  it('is seen before it does, with how many kits it still fills', () => {
    expect(runningOut({ food: 'oats', grams: 120, waiting: waiting(4, 30), lots: [], instead: [] })).toBeUndefined();
    expect(runningOut({ food: 'oats', grams: 95, waiting: waiting(4, 30), lots: [], instead: [] })).toMatchObject({
      say: 'oats for 3 more kits, 4 to go',
      missing: 25,
      ways: ['buy 25 g more, or pack 1 kit less'],
    });
  });

  it('has ways out that are true: another lot, a little less in each, fewer in reserve, what may stand in', () => {
    const lots = [
      { name: 'Oats, opened', grams: 10 },
      { name: 'Oats 1 kg', grams: 900 },
    ];
    expect(runningOut({ food: 'oats', grams: 95, waiting: waiting(4, 30), lots, instead: ['rice'] })?.ways).toEqual([
      'take 25 g more of “Oats 1 kg” off the shelf',
      'rice instead, in the 1 kit left over',
    ]);
    // Four percent less each is within five; six is not.
    expect(runningOut({ food: 'oats', grams: 115.5, waiting: waiting(4, 30), lots: [], instead: [] })?.ways[0]).toBe(
      'fill each a little less, 3.8 % off: as near as it is measured',
    );
    expect(runningOut({ food: 'oats', grams: 112, waiting: waiting(4, 30), lots: [], instead: [] })?.ways[0]).toMatch(
      /^buy/,
    );
    const last = [...waiting(3, 30), ...waiting(1, 30, { isReserve: true })];
    expect(runningOut({ food: 'oats', grams: 95, waiting: last, lots: [], instead: [] })?.ways).toEqual([
      'leave out 1 kit in reserve',
    ]);
  });
});

describe('the pace of a bench', () => {
  const kits = ['k1', 'k2', 'k3', 'k4'].map(
    (id, at): BenchKit => ({ id, number: at + 1, variant: 'A', group: '', components: ['a', 'b', 'c'] }),
  );
  const rows = ['a', 'b', 'c'].map((key, row) => ({ row, keys: new Set([key]) }));

  it('comes from the ticks themselves, with what holds it up', () => {
    const packed = new Map([
      ['k1', new Set(['a', 'b'])],
      ['k2', new Set(['a'])],
      ['k3', new Set(['a'])],
      ['k4', new Set(['a'])],
    ]);
    expect(paceOf(kits, packed, rows, 6, 10)).toEqual({
      ticksAnHour: 36,
      kitsAnHour: 12,
      minutesLeft: 12,
      heldUpBy: { row: 1, kits: 3 },
    });
  });

  it('is not made up where too little was ticked', () => {
    expect(paceOf(kits, new Map(), rows, 2, 10)).toMatchObject({ ticksAnHour: undefined, minutesLeft: undefined });
  });
});

describe('seconds of a component', () => {
  it('grow with pieces and scoops until it is weighed, and with closing a pot', () => {
    const seconds = (unit: string, packed: string, isClosed = false) => secondsOf({ unit, packed }, isClosed);
    expect(seconds('each', '1')).toBeLessThan(seconds('each', '4'));
    expect(seconds('tsp', '1')).toBeLessThan(seconds('tsp', '3'));
    expect(seconds('tsp', '40')).toBe(seconds('g', '40'));
    expect(seconds('g', '40', true)).toBeGreaterThan(seconds('g', '40'));
    expect(secondsOf({ unit: 'g', packed: '400', sealedUnits: 1 }, false)).toBeLessThan(seconds('g', '400'));
  });
});
