import { describe, expect, it } from 'vitest';
import { rational } from '../../quantity/rational';
import type { WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import { computeSheet, sheetContent } from '../record/snapshot';
import { sayUse } from '../sheet/say-component';
import { sharedOut } from '../supply/supplied';
import { wholeUnits } from './whole-units';

// For eight: a sachet of yeast, and a lemon for every four.
const LINES: WrittenLine[] = [
  { ingredient: 'dried yeast', amount: '7', unit: 'g', sealed_grams: '7' },
  { ingredient: 'lemon', amount: '2', unit: 'each', scaling: 'whole' },
  { ingredient: 'plain wheat flour', amount: '800', unit: 'g' },
];

function sheetOf(lines: readonly WrittenLine[], servings: readonly number[]) {
  const dishes = [{ id: 'd', title: 'Rolls', recipe: { servings: 8, lines } }];
  const input = { system: 'metric' as const, dishes, labels: {}, reference: TYPICAL };
  const people = servings.map((each, at) => ({ id: `p${at}`, name: `P${at}`, servings: each, needs: [] }));
  const outcome = computeSheet(input, people);
  if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
  return sheetContent(input, outcome);
}

describe('whole units in small kits', () => {
  it('say how much of them is used: four times the yeast goes into no dough unseen', () => {
    const content = sheetOf(LINES, [2, 2, 8]);
    const said = content.variants.map(({ servings, components }) => [
      servings,
      ...(components ?? []).map(({ ingredient, use }) => `${ingredient}: ${use ?? 'all'}`),
    ]);
    expect(said).toEqual(
      expect.arrayContaining([
        [2, 'dried yeast: use a quarter of it', 'lemon: use half of it', 'plain wheat flour: all'],
        [8, 'dried yeast: all', 'lemon: all', 'plain wheat flour: all'],
      ]),
    );
    expect(wholeUnits(content)).toMatchObject([
      { ingredient: 'dried yeast', kits: 2, use: 'use a quarter of it' },
      { ingredient: 'lemon', kits: 2 },
    ]);
  });

  it('are opened and shared out instead: each kit holds what its servings ask for', () => {
    const shared = sharedOut(LINES, [
      { ingredient: 'dried yeast', way: 'shared out' },
      { ingredient: 'lemon', way: 'shared out' },
    ]);
    const content = sheetOf(shared, [2]);
    expect(wholeUnits(content)).toEqual([]);
    expect(content.variants[0]?.components).toMatchObject([{ grams: '7/4' }, { packed: '1/2' }, { grams: '200' }]);
  });

  it.each([
    [1, 4, 1, 'use a quarter of it'],
    [1, 7, 1, 'use an eighth of it'],
    [5, 4, 2, 'use 1¼ of the 2'],
  ])('are said as a cook takes them: %i/%i of %i', (n, d, units, said) => {
    expect(sayUse(rational(n, d), units)).toBe(said);
  });
});
