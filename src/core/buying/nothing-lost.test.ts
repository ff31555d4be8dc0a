import { describe, expect, it } from 'vitest';
import { lossesBy, nothingLost, worth } from './nothing-lost';

const LOT = {
  lotId: 'jar',
  name: 'Yogurt',
  ingredient: 'plain yogurt',
  grams: 600,
  loose: 600,
  lastOpen: '2026-12-04',
  last: '2026-12-20',
  lastKind: 'use by' as const,
  storage: 'fridge' as const,
  freezes: false,
};
const NEED = {
  id: 'n',
  sessionId: 's',
  ingredient: 'plain yogurt',
  aisle: 'dairy',
  day: '2026-12-03',
  until: '2026-12-03',
  grams: 200,
  without: [],
  letters: ['A'],
  eaters: [],
};
const use = { needId: 'n', sessionId: 's', day: '2026-12-03', grams: 200, letters: ['A'], without: [], eaters: [] };
const recipes = [{ id: 'r', title: 'Cups', foods: ['plain yogurt'] }];

describe('what must be used up', () => {
  it('is claimed by the plan, by a session that needs it in time, or else by a recipe', () => {
    const shelf = [{ lotId: 'jar', ingredient: 'plain yogurt', grams: 200, units: 0, uses: [use] }];
    expect(nothingLost([LOT], shelf, [NEED], recipes, '2026-12-01')).toMatchObject([
      { unclaimed: 400, days: 3, ways: [{ kind: 'planned', grams: 200 }] },
    ]);
    expect(nothingLost([LOT], [], [NEED], recipes, '2026-12-01')[0]?.ways).toMatchObject([
      { kind: 'wanted', day: '2026-12-03' },
    ]);
    expect(nothingLost([LOT], [], [{ ...NEED, day: '2026-12-05' }], recipes, '2026-12-01')[0]?.ways).toMatchObject([
      { kind: 'recipe', title: 'Cups' },
    ]);
  });

  it('is written off past its use-by, and shown first where nothing uses it', () => {
    const full = { ...LOT, lotId: 'used', lastOpen: '2026-12-02' };
    const shelf = [{ lotId: 'used', ingredient: 'plain yogurt', grams: 600, units: 0, uses: [{ ...use, grams: 600 }] }];
    const made = nothingLost([full, { ...LOT, lastOpen: '2026-11-30' }], shelf, [], recipes, '2026-12-01');
    expect(made.map(({ lotId, ways }) => [lotId, ways[0]?.kind])).toEqual([
      ['jar', 'write off'],
      ['used', 'planned'],
    ]);
  });

  it('adds up by month and reason, in grams and in money as far as prices are known', () => {
    expect(worth(250, { price: 180, packGrams: 500 })).toBe(90);
    expect(worth(250, { price: 200, packGrams: null })).toBe(50);
    const loss = { month: '2026-12', reason: 'spoilt', grams: 100, money: 40 };
    expect(lossesBy([loss, { ...loss, money: null }, { ...loss, month: '2026-11' }])).toEqual([
      { ...loss, grams: 200, money: 40 },
      { ...loss, month: '2026-11' },
    ]);
  });
});
