import { describe, expect, it } from 'vitest';
import { afterColdFailure, type ColdVerdict, type Stored } from './cold-failure';

const MILK: Stored = { name: 'milk', perishable: 'always', isOpened: false };
const CARROT: Stored = { name: 'carrot', perishable: 'when cut', isOpened: true };
const LEAVES: Stored = { ...CARROT, name: 'mixed salad leaves' };
const TIN: Stored = { name: 'canned tuna', perishable: 'when opened', isOpened: false };
const RICE: Stored = { name: 'brown rice', perishable: 'when cooked', isOpened: true };
const PEAS: Stored = { name: 'frozen peas', perishable: 'when thawed', isOpened: false };

/** As the tables of USDA FSIS and FSA say it: degrees Celsius, hours, the food (nothing: made here), what becomes of it. */
const CASES: readonly (readonly [
  'us' | 'uk',
  'fridge' | 'freezer',
  number,
  number,
  Stored | undefined,
  ColdVerdict,
])[] = [
  // US: 41 °F (5 °C), two hours above it
  ['us', 'fridge', 4, 10, MILK, 'keep'],
  ['us', 'fridge', 5, 3, undefined, 'keep'],
  ['us', 'fridge', 5.1, 2, MILK, 'use today'],
  ['us', 'fridge', 5.1, 2.1, MILK, 'throw away'],
  ['us', 'fridge', 12, 6, undefined, 'throw away'],
  // What is whole, sealed or dry bears it; leaves cut by the grower, an opened tin, what was frozen do not.
  ['us', 'fridge', 12, 6, CARROT, 'look'],
  ['us', 'fridge', 12, 6, LEAVES, 'throw away'],
  ['us', 'fridge', 20, 30, TIN, 'look'],
  ['us', 'fridge', 20, 30, { ...TIN, isOpened: true }, 'throw away'],
  ['us', 'fridge', 20, 30, RICE, 'look'],
  ['us', 'fridge', 20, 30, PEAS, 'throw away'],
  // UK: 8 °C, once up to four hours
  ['uk', 'fridge', 8, 12, MILK, 'keep'],
  ['uk', 'fridge', 10, 4, MILK, 'use today'],
  ['uk', 'fridge', 10, 4.5, MILK, 'throw away'],
  ['uk', 'fridge', 6, 12, undefined, 'keep'],
  // a freezer: ice still in it, thawed and cold, warm
  ['us', 'freezer', -12, 40, MILK, 'keep'],
  ['us', 'freezer', 3, 40, PEAS, 'use today'],
  ['us', 'freezer', 9, 40, PEAS, 'throw away'],
  ['us', 'freezer', 9, 40, CARROT, 'throw away'],
  ['uk', 'freezer', 9, 3, PEAS, 'use today'],
];

describe('a fridge or a freezer failed', () => {
  it.each(CASES)('%s, %s at %d °C, %d hours, %o: %s', (profile, storage, degrees, hours, food, verdict) => {
    expect(afterColdFailure(profile, { storage, hours, tenths: Math.round(degrees * 10) }, food).verdict).toBe(verdict);
  });

  it('never gets laxer the warmer it is, or the longer it took', () => {
    const order: readonly ColdVerdict[] = ['keep', 'look', 'use today', 'throw away'];
    for (const profile of ['us', 'uk'] as const)
      for (const storage of ['fridge', 'freezer'] as const)
        for (const food of [MILK, LEAVES, undefined])
          for (let tenths = -200; tenths < 300; tenths += 7)
            for (const hours of [0, 1, 2, 3, 4, 5, 30]) {
              const grade = (warmer: number, longer: number) =>
                order.indexOf(
                  afterColdFailure(profile, { storage, hours: hours + longer, tenths: tenths + warmer }, food).verdict,
                );
              expect(grade(7, 0)).toBeGreaterThanOrEqual(grade(0, 0));
              expect(grade(0, 1)).toBeGreaterThanOrEqual(grade(0, 0));
            }
  });
});
