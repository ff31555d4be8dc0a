import { describe, expect, it } from 'vitest';
import type { WrittenLine } from './recipe';
import { type RecipeState, recipeDifferences } from './versions';

const line = (amount: string, unit: string, ingredient: string, more: Partial<WrittenLine> = {}): WrittenLine => ({
  amount,
  unit,
  ingredient,
  ...more,
});
const CAKE: RecipeState = {
  title: 'Oat cake',
  servings: 4,
  lines: [line('2', 'cup', 'rolled oats'), line('100', 'g', 'butter'), line('1', 'tsp', 'salt')],
  steps: ['Melt the butter.', 'Stir in the oats.', 'Bake for 20 minutes.'],
};

describe('what changed from one version of a recipe to the next', () => {
  it('is nothing where nothing that is cooked or read changed', () => {
    expect(recipeDifferences(CAKE, structuredClone(CAKE))).toEqual([]);
  });

  it('is told in words and numbers: more, less, added, taken away, one food for another', () => {
    const after = {
      ...CAKE,
      title: 'Seed cake',
      servings: 6,
      lines: [line('2', 'cup', 'rolled oats'), line('120', 'g', 'butter'), line('1', 'Tbsp', 'honey')],
    };
    expect(recipeDifferences(CAKE, after)).toEqual([
      'now called “Seed cake”',
      '6 servings, was 4',
      '120 g butter, was 100 g butter (20 % more)',
      'added: 1 Tbsp honey',
      'taken away: 1 tsp salt',
    ]);
  });

  it('tells how a line scales, is measured and is replaced', () => {
    const lines = [
      line('2', 'cup', 'rolled oats', { scaling: 'damped', spare: '1/10' }),
      line('100', 'g', 'butter', { alternatives: [line('3', 'Tbsp', 'olive oil'), { omit: true }] }),
      line('1', 'tsp', 'salt'),
    ];
    const told = [
      'rolled oats: grows by less than the servings, was grows with the servings',
      'rolled oats: spare 1/10, was spare none',
      'butter: may now be replaced: 3 Tbsp olive oil; left out',
    ];
    expect(recipeDifferences(CAKE, { ...CAKE, lines })).toEqual(told);
    expect(recipeDifferences({ ...CAKE, lines }, CAKE)[2]).toBe(
      'butter: no longer replaced: 3 Tbsp olive oil; left out',
    );
  });

  it('tells steps reworded, added, taken away and put in another order', () => {
    const of = (...steps: string[]) => recipeDifferences(CAKE, { ...CAKE, steps });
    expect(of('Melt the butter.', 'Stir in the oats.', 'Bake for 25 minutes.')).toEqual([
      'step 3: “Bake for 25 minutes.”, was “Bake for 20 minutes.”',
    ]);
    expect(of('Melt the butter.', 'Bake for 20 minutes.')).toEqual(['step 2 taken away: “Stir in the oats.”']);
    expect(of('Stir in the oats.', 'Melt the butter.', 'Bake for 20 minutes.')).toEqual(['steps are in another order']);
  });
});
