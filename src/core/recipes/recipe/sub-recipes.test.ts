import { describe, expect, it } from 'vitest';
import { slotsOf, withFillings } from './slots';
import { type CookedRecipe, circleOf, type SubRecipe, wholeRecipe } from './sub-recipes';

const dough: SubRecipe = {
  recipeId: 'dough',
  version: 3,
  title: 'Dough',
  servings: 6,
  of: 4,
  lines: [
    {
      ingredient: 'plain wheat flour',
      amount: '200',
      unit: 'g',
      alternatives: [{ ingredient: 'maize meal', amount: '180', unit: 'g' }],
    },
    { ingredient: 'olive oil', amount: '1', unit: 'Tbsp', scaling: 'per batch', batch_servings: 4 },
    { ingredient: 'salt', amount: '1', unit: 'tsp', scaling: 'per kit' },
  ],
  steps: ['Knead it.'],
  within: [{ recipeId: 'starter', title: 'Starter' }],
};

describe('a recipe that is made of another', () => {
  const whole = wholeRecipe<CookedRecipe & { subRecipes: SubRecipe[] }>({
    servings: 8,
    lines: [{ ingredient: 'tomato', amount: '400', unit: 'g' }],
    steps: ['Top the dough.'],
    subRecipes: [dough],
  });

  it('has its lines behind its own, for as much as it needs of it, alternatives with them', () => {
    expect(whole.lines.map(({ ingredient, amount }) => `${amount} ${ingredient}`)).toEqual([
      '400 tomato',
      '300 plain wheat flour',
      '1 olive oil',
      '1 salt',
    ]);
    expect(whole.lines[1]?.alternatives).toEqual([{ ingredient: 'maize meal', amount: '270', unit: 'g' }]);
  });

  it('counts a batch in its own servings: six of the dough feed eight, so four feed five', () => {
    expect(whole.lines[2]?.batch_servings).toBe(5);
  });

  it('begins with its steps, told whose they are', () => {
    expect(whole.steps).toEqual(['Dough: Knead it.', 'Top the dough.']);
  });

  it('is refused where it would be made of itself, near or far', () => {
    expect(circleOf({ id: 'dough', title: 'Dough' }, dough)).toBe('Dough cannot be made of itself.');
    expect(circleOf({ id: 'starter', title: 'Starter' }, dough)).toMatch('Dough is itself made of Starter: a circle.');
    expect(circleOf({ id: 'pizza', title: 'Harbour pizza' }, dough)).toBeUndefined();
    expect(circleOf(undefined, dough)).toBeUndefined();
  });
});

describe('a flexible slot', () => {
  const lines = [
    {
      ingredient: 'carrot',
      amount: '500',
      unit: 'g',
      slot: true as const,
      alternatives: [
        { ingredient: 'courgette', amount: '500', unit: 'g' },
        { ingredient: 'celery', amount: '450', unit: 'g' },
      ],
    },
    { ingredient: 'salt', amount: '1', unit: 'tsp' },
  ];

  it('is filled with another of its foods by that one’s own amount; the first stays to stand in', () => {
    const [filled, salt] = withFillings(lines, [{ written: 'carrot', chosen: 'celery' }]);
    expect(filled).toMatchObject({ ingredient: 'celery', amount: '450', slot: true });
    expect(filled?.alternatives?.map((each) => 'ingredient' in each && each.ingredient)).toEqual([
      'carrot',
      'courgette',
    ]);
    expect(salt).toBe(lines[1]);
    expect(slotsOf(lines)).toEqual([{ written: 'carrot', isSlot: true, foods: ['carrot', 'courgette', 'celery'] }]);
  });

  it('is like a swap for its price: chosen by a person, while one for an allergy is left to the kits', () => {
    const butter = { ingredient: 'butter', amount: '50', unit: 'g' };
    const oil = { ingredient: 'olive oil', amount: '40', unit: 'g' };
    const [cheap] = withFillings(
      [{ ...butter, alternatives: [{ ...oil, reason: 'price' }] }],
      [{ written: 'butter', chosen: 'olive oil' }],
    );
    expect(cheap).toMatchObject({ ingredient: 'olive oil', alternatives: [butter] });
    expect(slotsOf([{ ...butter, alternatives: [{ ...oil, reason: 'allergy or diet' }] }])).toEqual([]);
  });

  it('stays as it was written where the filling is none of its foods', () => {
    expect(withFillings(lines, [{ written: 'carrot', chosen: 'peanut' }])).toEqual(lines);
  });
});
