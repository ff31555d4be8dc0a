import { describe, expect, it } from 'vitest';
import { findIngredient, TYPICAL } from '../reference/reference';
import { fullestDays } from './cold';
import type { PlannedLine } from './plan';

const foodOf = (name: string) => findIngredient(TYPICAL, name);
const line = (ingredient: string, packs: number, packGrams: number, until: string) =>
  ({
    ingredient,
    product: `${ingredient} of the shop`,
    packs,
    packGrams,
    uses: [{ day: until }],
  }) as unknown as PlannedLine;

describe('the fullest day of fridge and freezer', () => {
  it('counts what stands there beside what is bought, as long as it is needed, and says what there is', () => {
    const trips = [
      {
        shopId: 's',
        day: '2026-12-01',
        cost: 0,
        lines: [line('plain yogurt', 10, 1000, '2026-12-05'), line('dried red lentils', 9, 500, '2026-12-05')],
      },
      {
        shopId: 's',
        day: '2026-12-03',
        cost: 0,
        lines: [line('milk', 6, 1000, '2026-12-04'), line('frozen peas', 2, 750, '2026-12-04')],
      },
      { shopId: 's', day: '2026-12-08', cost: 0, lines: [line('milk', 12, 1000, '2026-12-09')] },
    ];
    const there = [{ storage: 'fridge' as const, grams: 4000, last: '2026-12-02', name: 'Carrots there' }];
    expect(fullestDays({ trips }, there, foodOf, '2026-12-01', { fridge: 30 })).toEqual([
      // 10 kg of yogurt and 6 of milk; the carrots are gone by then.
      {
        storage: 'fridge',
        day: '2026-12-03',
        litres: 32,
        room: 30,
        most: ['plain yogurt of the shop', 'milk of the shop'],
      },
      { storage: 'freezer', day: '2026-12-03', litres: 3, most: ['frozen peas of the shop'] },
    ]);
    expect(fullestDays({ trips: [] }, [], foodOf, '2026-12-01', {})).toEqual([]);
  });
});
