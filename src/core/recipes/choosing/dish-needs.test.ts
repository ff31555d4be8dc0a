import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../../reference/reference';
import { type Recipe, readRecipe } from '../recipe/recipe';
import { dishNeeds } from './dish-needs';

const reading = readRecipe(
  {
    servings: 4,
    lines: [
      {
        ingredient: 'butter',
        amount: '50',
        unit: 'g',
        alternatives: [{ ingredient: 'olive oil', amount: '40', unit: 'g' }],
      },
      { ingredient: 'honey', amount: '20', unit: 'g', alternatives: [{ omit: true }] },
      { ingredient: 'egg', amount: '100', unit: 'g' },
    ],
  },
  TYPICAL,
);
const recipe = ('recipe' in reading ? reading.recipe : undefined) as Recipe;
const avoiding = (...codes: string[]) => ({ needs: codes.map((code) => ({ asWritten: code, codes: [code] })) });

describe('what a dish means for a roll', () => {
  it('is told once for each kind of need that it touches: what stands in, what is left out, what blocks', () => {
    const needs = dishNeeds(recipe, [
      avoiding('MILK'),
      avoiding('MILK'),
      avoiding('HONEY'),
      avoiding('EGG'),
      avoiding(),
    ]);
    expect(needs.map(({ people, avoids, replaced, blocked }) => [people, avoids, replaced, blocked])).toEqual([
      [2, ['MILK'], ['olive oil instead of butter'], []],
      [1, ['HONEY'], ['without honey'], []],
      [1, ['EGG'], [], ['egg']],
    ]);
  });

  it('leaves out avoidances that the dish does not touch, and gathers those that then are alike', () => {
    expect(dishNeeds(recipe, [avoiding('FISH')])).toEqual([]);
    const [only, ...others] = dishNeeds(recipe, [avoiding('MILK', 'FISH'), avoiding('MILK')]);
    expect([only?.people, only?.avoids, others]).toEqual([2, ['MILK'], []]);
  });

  it('names needs that nobody has given a meaning to', () => {
    const [need] = dishNeeds(recipe, [{ needs: [{ asWritten: 'no nightshades', codes: undefined }] }]);
    expect(need).toMatchObject({ people: 1, unknown: ['no nightshades'], blocked: [] });
  });
});
