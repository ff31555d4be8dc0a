import { describe, expect, it } from 'vitest';
import { afterColdFailure, type ColdVerdict } from './cold-failure';

/** As the tables of USDA FSIS and FSA say it: degrees Celsius, hours, aisle, what becomes of it. */
const CASES: readonly (readonly [
  'us' | 'uk',
  'fridge' | 'freezer',
  number,
  number,
  string | undefined,
  ColdVerdict,
])[] = [
  // US: 41 °F (5 °C), two hours above it
  ['us', 'fridge', 4, 10, 'meat', 'keep'],
  ['us', 'fridge', 5, 3, undefined, 'keep'],
  ['us', 'fridge', 5.1, 2, 'dairy', 'use today'],
  ['us', 'fridge', 5.1, 2.1, 'dairy', 'throw away'],
  ['us', 'fridge', 12, 6, undefined, 'throw away'],
  ['us', 'fridge', 12, 6, 'produce', 'look'],
  ['us', 'fridge', 20, 30, 'canned', 'look'],
  // UK: 8 °C, once up to four hours
  ['uk', 'fridge', 8, 12, 'meat', 'keep'],
  ['uk', 'fridge', 10, 4, 'meat', 'use today'],
  ['uk', 'fridge', 10, 4.5, 'meat', 'throw away'],
  ['uk', 'fridge', 6, 12, undefined, 'keep'],
  // a freezer: ice still in it, thawed and cold, warm
  ['us', 'freezer', -12, 40, 'meat', 'keep'],
  ['us', 'freezer', 3, 40, 'meat', 'use today'],
  ['us', 'freezer', 9, 40, 'meat', 'throw away'],
  ['us', 'freezer', 9, 40, 'produce', 'throw away'],
  ['uk', 'freezer', 9, 3, 'frozen', 'use today'],
];

describe('a fridge or a freezer failed', () => {
  it.each(CASES)('%s, %s at %d °C, %d hours, %s: %s', (profile, storage, degrees, hours, aisle, verdict) => {
    expect(afterColdFailure(profile, { storage, hours, tenths: Math.round(degrees * 10) }, aisle).verdict).toBe(
      verdict,
    );
  });

  it('never gets laxer the warmer it is, or the longer it took', () => {
    const order: readonly ColdVerdict[] = ['keep', 'look', 'use today', 'throw away'];
    for (const profile of ['us', 'uk'] as const)
      for (const storage of ['fridge', 'freezer'] as const)
        for (const aisle of ['meat', 'dairy', undefined])
          for (let tenths = -200; tenths < 300; tenths += 7)
            for (const hours of [0, 1, 2, 3, 4, 5, 30]) {
              const grade = (warmer: number, longer: number) =>
                order.indexOf(
                  afterColdFailure(profile, { storage, hours: hours + longer, tenths: tenths + warmer }, aisle).verdict,
                );
              expect(grade(7, 0)).toBeGreaterThanOrEqual(grade(0, 0));
              expect(grade(0, 1)).toBeGreaterThanOrEqual(grade(0, 0));
            }
  });
});
