import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../../reference/reference';
import { planSteps } from './step-reader';

/** A recipe with its foods, and for each step those that must be done before it, counted from 1: labelled before the reader was changed. */
type Labelled = readonly [foods: string, steps: readonly (readonly [text: string, after: string])[]];

const WORK: readonly Labelled[] = [
  [
    'onion, carrot, cooked ham, canned white beans, olive oil',
    [
      ['Chop the onion and the carrot.', ''],
      ['Warm the oil in a pot and stir the onion and carrot in it, 6 minutes.', '1'],
      ['Cut the ham into small pieces.', ''],
      ['Add beans and ham and simmer 15 minutes.', '2 3'],
    ],
  ],
  [
    'potato, leek, milk, butter',
    [
      ['Peel the potatoes and cut them into cubes.', ''],
      ['Slice the leek into rounds.', ''],
      ['Melt the butter and soften the leek for 5 minutes.', '2'],
      ['Add the potatoes and milk and simmer 20 minutes.', '1 3'],
      ['Blend it until smooth.', '4'],
    ],
  ],
  [
    'plain wheat flour, butter, apple, brown sugar',
    [
      ['Heat the oven to 180 °C.', ''],
      ['Rub the butter into the flour.', ''],
      ['Cut the apples into pieces.', ''],
      ['Spread the crumble over the apples and bake for 30 minutes.', '1 2 3'],
    ],
  ],
  [
    'egg, spinach, feta cheese, milk',
    [
      ['Whisk the eggs and milk.', ''],
      ['Wash the spinach.', ''],
      ['Crumble the feta into pieces.', ''],
      ['Stir spinach and feta into the eggs.', '1 2 3'],
      ['Bake in cups for 15 minutes.', '4'],
    ],
  ],
  [
    'long-grain white rice, cucumber, carrot, lemon, honey',
    [
      ['Simmer the rice for 12 minutes.', ''],
      ['While the rice simmers, grate the carrot.', ''],
      ['Cut the cucumber into half rounds.', ''],
      ['Whisk lemon juice and honey for the dressing.', ''],
      ['Toss everything with the dressing.', '1 2 3 4'],
    ],
  ],
];

/** Kept apart while the reader was changed: 17 of 19 before. */
const ONCE: readonly Labelled[] = [
  [
    'sweet potato, canned chickpeas, onion, spinach',
    [
      ['Cube the sweet potato into small pieces.', ''],
      ['Chop the onion.', ''],
      ['Fry the onion until soft, 6 minutes.', '2'],
      ['Add sweet potato and chickpeas and simmer 20 minutes.', '1 3'],
      ['Stir in the spinach.', '4'],
    ],
  ],
  [
    'strong bread flour, dried yeast, tomato passata, cheddar cheese',
    [
      ['Mix flour and yeast into a dough and knead it.', ''],
      ['Leave the dough to rise for 60 minutes.', '1'],
      ['Grate the cheese into a bowl.', ''],
      ['Heat the oven to 220 °C.', ''],
      ['Roll the dough, spread the passata on it and add the cheese.', '2 3'],
      ['Bake for 12 minutes.', '4 5'],
    ],
  ],
  [
    'macaroni, mushroom, garlic, parmesan cheese',
    [
      ['Slice the mushrooms into strips.', ''],
      ['Boil the pasta for 10 minutes.', ''],
      ['Meanwhile, fry mushrooms and garlic for 5 minutes.', '1'],
      ['Fold the pasta into the mushrooms and top with parmesan.', '2 3'],
    ],
  ],
  [
    'strawberries, plain yogurt, rolled oats, honey',
    [
      ['Toast the oats in a pan.', ''],
      ['Cut the strawberries into quarters.', ''],
      ['Stir the honey into the yogurt.', ''],
      ['Layer yogurt, strawberries and oats in glasses.', '1 2 3'],
    ],
  ],
];

/** Steps that were read right, of how many; what was read otherwise. */
function read(set: readonly Labelled[]) {
  const wrong: string[] = [];
  let all = 0;
  for (const [foods, steps] of set) {
    const planned = planSteps({ steps: steps.map(([text]) => text), ingredients: foods.split(', ') }, TYPICAL);
    for (const [at, [text, after]] of steps.entries()) {
      all++;
      const said = (planned[at]?.after ?? []).map((n) => n + 1).join(' ');
      if (said !== after) wrong.push(`${text} after “${said}”, not “${after}”`);
    }
  }
  return { all, wrong };
}

describe('the order of steps comes from what they use', () => {
  it.each([
    ['work', WORK, 1],
    ['once', ONCE, 0.85],
  ] as const)('in recipes labelled before: %s', (name, set, least) => {
    const { all, wrong } = read(set);
    console.log(`${name}: ${all - wrong.length} of ${all} right\n${wrong.join('\n')}`);
    expect((all - wrong.length) / all).toBeGreaterThanOrEqual(least);
  });
});
