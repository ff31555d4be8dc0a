import { describe, expect, it } from 'vitest';
import {
  type BatchFood,
  type BatchKind,
  batchStanding,
  keepsDays,
  limitsFor,
  type Reading,
  reachedAt,
  sayTenths,
} from './batch';

const standing = (
  profile: 'us' | 'uk',
  kind: BatchKind,
  food: BatchFood,
  seen: readonly (readonly [minutes: number, celsius: number])[],
  now: number,
  stands?: { least: number; most: number | null },
) =>
  batchStanding(
    kind,
    limitsFor(profile, kind, food),
    seen.map(([minutes, celsius]): Reading => ({ minutes, tenths: Math.round(celsius * 10) })),
    now,
    (tenths) => sayTenths(tenths, profile),
    stands,
  );

/** Labelled by hand from the food codes, before the judge was written: [profile, what, readings, now, how it stands]. */
const CASES: readonly (readonly [
  'us' | 'uk',
  BatchKind,
  BatchFood,
  readonly (readonly [number, number])[],
  number,
  string,
])[] = [
  ['us', 'cool', 'cooked', [], 10, 'going'],
  ['us', 'cool', 'cooked', [], 31, 'look'],
  ['us', 'cool', 'cooked', [[30, 45]], 40, 'going'],
  // 21.1 °C is 70 °F: met.
  ['us', 'cool', 'cooked', [[110, 21.1]], 115, 'going'],
  [
    'us',
    'cool',
    'cooked',
    [
      [110, 21.1],
      [300, 5],
    ],
    301,
    'reached',
  ],
  ['us', 'cool', 'cooked', [[110, 21.2]], 121, 'put right'],
  ['us', 'cool', 'cooked', [[100, 20]], 361, 'throw away'],
  // Nobody looked in time: what was seen later does not count.
  ['us', 'cool', 'cooked', [[125, 15]], 126, 'put right'],
  // Hot from the pot: the two hours run from 57 °C.
  [
    'us',
    'cool',
    'cooked',
    [
      [0, 92],
      [20, 70],
      [80, 30],
      [139, 14],
    ],
    141,
    'going',
  ],
  [
    'us',
    'cool',
    'cooked',
    [
      [0, 92],
      [20, 50],
      [140, 21],
    ],
    141,
    'put right',
  ],
  ['us', 'cool', 'room', [[200, 5]], 201, 'reached'],
  ['us', 'cool', 'room', [[200, 8]], 241, 'throw away'],
  ['uk', 'cool', 'cooked', [[85, 8]], 86, 'reached'],
  ['uk', 'cool', 'cooked', [[85, 9]], 91, 'throw away'],
  ['uk', 'cool', 'rice', [[55, 9]], 61, 'throw away'],
  ['uk', 'cool', 'rice', [[55, 8]], 61, 'reached'],
  ['us', 'reheat', 'cooked', [[60, 73.9]], 61, 'reached'],
  ['us', 'reheat', 'cooked', [[60, 73]], 121, 'throw away'],
  ['uk', 'reheat', 'cooked', [[30, 70]], 31, 'reached'],
  ['us', 'hot', 'cooked', [[0, 60]], 60, 'going'],
  ['us', 'hot', 'cooked', [[0, 60]], 121, 'look'],
  [
    'us',
    'hot',
    'cooked',
    [
      [0, 60],
      [90, 50],
    ],
    95,
    'put right',
  ],
  [
    'us',
    'hot',
    'cooked',
    [
      [0, 60],
      [90, 50],
    ],
    125,
    'throw away',
  ],
  [
    'us',
    'hot',
    'cooked',
    [
      [0, 60],
      [90, 50],
      [110, 75],
    ],
    200,
    'going',
  ],
  [
    'us',
    'cold',
    'cooked',
    [
      [0, 4],
      [100, 7],
    ],
    110,
    'put right',
  ],
  [
    'us',
    'cold',
    'cooked',
    [
      [0, 4],
      [100, 7],
    ],
    121,
    'throw away',
  ],
  [
    'uk',
    'cold',
    'cooked',
    [
      [0, 4],
      [100, 9],
    ],
    121,
    'put right',
  ],
  [
    'uk',
    'cold',
    'cooked',
    [
      [0, 4],
      [100, 9],
    ],
    241,
    'throw away',
  ],
];

describe('a batch by the limits of its profile', () => {
  it('stands as the food codes say, on each labelled case', () => {
    for (const [profile, kind, food, seen, now, state] of CASES)
      expect(standing(profile, kind, food, seen, now).state, JSON.stringify([profile, kind, food, seen, now])).toBe(
        state,
      );
  });

  it('that cools too slowly is known before its time is up: by Newton’s law, in a fridge', () => {
    const slow = (minutes: number) => 4 + 56 * Math.exp(-minutes / 200);
    const quick = (minutes: number) => 4 + 56 * Math.exp(-minutes / 60);
    const seen = (curve: (minutes: number) => number) =>
      [5, 30, 60].map((minutes) => [minutes, curve(minutes)] as const);
    expect(standing('us', 'cool', 'cooked', seen(slow), 61)).toMatchObject({
      state: 'too slow',
      say: expect.stringContaining('shallow pans'),
    });
    expect(standing('us', 'cool', 'cooked', seen(quick), 61).state).toBe('going');
    const at = reachedAt(
      seen(slow).map(([minutes, celsius]) => ({ minutes, tenths: celsius * 10 })),
      211,
    );
    expect(at).toBeCloseTo(-200 * Math.log((21.1 - 4) / 56), 0);
  });

  it('never passes what a plain reading of the code throws away, whatever was seen', () => {
    let state = 5;
    const random = () => {
      state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
      return state / 2 ** 31;
    };
    for (let round = 0; round < 2000; round++) {
      let celsius = 55 - random() * 10;
      const seen: [number, number][] = [];
      for (let minute = 5; minute < 400; minute += 10 + Math.floor(random() * 60)) {
        celsius = Math.max(3, celsius - random() * 15);
        seen.push([minute, Math.round(celsius * 10) / 10]);
      }
      // FDA 3-501.14, read plainly: seen at 70 °F within two hours, and at 41 °F within six.
      const isFine =
        seen.some(([minute, t]) => minute <= 120 && t * 1.8 + 32 <= 70.01) &&
        seen.some(([minute, t]) => minute <= 360 && t * 1.8 + 32 <= 41.01);
      expect(standing('us', 'cool', 'cooked', seen, 420).state === 'reached', JSON.stringify(seen)).toBe(isFine);
    }
  });

  it('that stands is ready from one hour on, and out of its marinade by another', () => {
    const fish = { least: 15, most: 30 };
    expect(standing('us', 'stand', 'room', [], 10, fish)).toMatchObject({
      state: 'going',
      say: 'Ready in 5 minutes. Out of it after 30 minutes at the latest.',
    });
    expect(standing('us', 'stand', 'room', [], 20, fish).state).toBe('reached');
    expect(standing('us', 'stand', 'room', [], 31, fish).state).toBe('put right');
    expect(standing('us', 'stand', 'room', [[5, 12]], 130, { least: 240, most: null }).state).toBe('throw away');
  });

  it('keeps two days, cooked rice one; its degrees are said as the programme’s thermometers show them', () => {
    expect([keepsDays('cooked'), keepsDays('rice')]).toEqual([2, 1]);
    expect([sayTenths(50, 'uk'), sayTenths(739, 'us')]).toEqual(['5 °C', '165 °F (73.9 °C)']);
  });
});
