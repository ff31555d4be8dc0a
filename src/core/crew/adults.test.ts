import { describe, expect, it } from 'vitest';
import { adultsFor, RISKS, type Risk } from './adults';

const of = (count: number, age: number | null) => Array.from({ length: count }, () => age);

describe('adults in a class', () => {
  it.each([
    ['uk', of(13, 7), [], 3],
    ['uk', of(13, 10), [], 2],
    ['us', of(17, 7), [], 3],
    ['us', of(17, 7), ['heat'], 3],
    ['us', of(9, 10), ['fire'], 3],
    ['us', of(1, 10), [], 2],
    ['us', of(7, null), [], 2],
    ['us', of(13, null), [], 3],
    ['us', of(5, 30), [], 0],
  ] as const)('by the table of %s, for ages %j and %j, are %i', (profile, ages, risks, adults) => {
    expect(adultsFor(ages, risks, profile).adults).toBe(adults);
  });

  it('are shares of each age added up, not an adult for each age begun; the working names every number', () => {
    const { adults, because } = adultsFor([...of(3, 5), ...of(4, 7), ...of(5, 10), null], [], 'us');
    // 4 of 6, 4 of 8 and 5 of 10: 0.67 + 0.5 + 0.5.
    expect(adults).toBe(2);
    expect(because).toEqual([
      '4 of 4 to 5 years: one adult for 6.',
      '4 of 6 to 8 years: one adult for 8.',
      '5 of 9 to 14 years: one adult for 10.',
      '1 of unknown age count as 5.',
    ]);
  });

  it('are never fewer for a risk, for a stricter programme, or for one child more', () => {
    for (const profile of ['us', 'uk'] as const)
      for (let seed = 1; seed < 200; seed++) {
        const ages = Array.from({ length: 1 + (seed % 23) }, (_, at) => ((seed * 7 + at * 5) % 17) as number);
        const plain = adultsFor(ages, [], profile).adults;
        for (const risk of RISKS as readonly Risk[])
          expect(adultsFor(ages, [risk], profile).adults).toBeGreaterThanOrEqual(plain);
        expect(adultsFor(ages, [], profile, { children: 3 }).adults).toBeGreaterThanOrEqual(plain);
        expect(adultsFor(ages, [], profile, { children: 50, adults: 1 }).adults).toBe(plain);
        expect(adultsFor([...ages, 6], [], profile).adults).toBeGreaterThanOrEqual(plain);
      }
  });
});
