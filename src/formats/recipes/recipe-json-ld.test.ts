import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { TYPICAL } from '@/core/reference/reference';
import { readRecipeFile, writeRecipeFile } from './recipe-json-ld';

const read = (value: unknown) =>
  readRecipeFile(new TextEncoder().encode(typeof value === 'string' ? value : JSON.stringify(value)), TYPICAL);
const recipe = (change: Record<string, unknown> = {}) => ({
  '@context': 'https://schema.org',
  '@type': 'Recipe',
  name: 'Barley bowl',
  recipeYield: 'Serves 4',
  recipeIngredient: [
    '1 1/2 cups pearl barley, raw',
    '2 carrots',
    '2 garlic cloves',
    '120 g feta cheese, crumbled',
    '½ tsp salt',
  ],
  recipeInstructions: [{ '@type': 'HowToStep', text: 'Simmer the barley.' }, 'Fold in the rest.'],
  ...change,
});
const understood = (value: unknown) => {
  const reading = read(value);
  if ('problems' in reading) throw new Error(JSON.stringify(reading.problems));
  return reading.file;
};
const refused = (value: unknown) => {
  const reading = read(value);
  return 'problems' in reading ? reading.problems.map(({ path, message }) => `${path}: ${message}`) : [];
};

describe('a recipe file', () => {
  it('of plain schema.org lines is read where the lines are clear, and says what it assumed', () => {
    const { title, body, assumed } = understood(recipe());
    expect(title).toBe('Barley bowl');
    expect(body.servings).toBe(4);
    expect(body.lines).toEqual([
      { ingredient: 'pearl barley', preparation: 'raw', amount: '1 1/2', unit: 'cup' },
      {
        ingredient: 'carrot',
        preparation: 'medium',
        amount: '2',
        unit: 'each',
        yield_preparation: 'peeled and trimmed',
        written: '2 carrots',
      },
      { ingredient: 'garlic', amount: '2', unit: 'clove', scaling: 'whole', yield_preparation: 'peeled' },
      { ingredient: 'feta cheese', preparation: 'crumbled', amount: '120', unit: 'g' },
      { ingredient: 'salt', amount: '1/2', unit: 'tsp', scaling: 'damped', precision: 'tight' },
    ]);
    expect(body.steps).toEqual(['Simmer the barley.', 'Fold in the rest.']);
    expect(assumed).toEqual([
      'Line 2: weighed as carrot, medium.',
      'Line 2: bought to be peeled and trimmed: 0.70 of it is left.',
      'Line 3: kept in whole pieces.',
      'Line 3: bought to be peeled: 0.87 of it is left.',
      'Line 5: grows by less than the servings.',
      'Line 5: measured tightly.',
    ]);
  });

  it('is found alone, in a list and in a graph', () => {
    for (const wrapped of [
      recipe(),
      [{ '@type': 'WebPage' }, recipe()],
      { '@graph': [{ '@type': 'Person' }, recipe({ '@type': ['Thing', 'Recipe'] })] },
    ]) {
      expect(understood(wrapped).title).toBe('Barley bowl');
    }
  });

  it('loses no step and no name in lists within lists', () => {
    const recipeInstructions = ['Mix and rest.', ['Roll out thin.', [{ '@type': 'HowToStep', description: 'Bake.' }]]];
    const { title, body } = understood(recipe({ name: ['', 'Rye crackers', 'Knäckebrot'], recipeInstructions }));
    expect(title).toBe('Rye crackers');
    expect(body.steps).toEqual(['Mix and rest.', 'Roll out thin.', 'Bake.']);
  });

  it('takes what the written line does not say from the extension', () => {
    const { body } = understood(
      recipe({
        recipeIngredient: ['1 tsp salt', 'a good glug of oil'],
        'logistra:lines': [
          { scaling: 'damped', damping: '1/2', precision: 'tight' },
          {
            ingredient: 'olive oil',
            amount: 2,
            unit: 'Tbsp',
            scaling: 'per batch',
            batch_servings: 4,
            alternatives: [{ omit: true }],
          },
        ],
      }),
    );
    expect(body.lines).toEqual([
      { ingredient: 'salt', amount: '1', unit: 'tsp', scaling: 'damped', damping: '1/2', precision: 'tight' },
      {
        ingredient: 'olive oil',
        amount: '2',
        unit: 'Tbsp',
        scaling: 'per batch',
        batch_servings: 4,
        alternatives: [{ omit: true }],
      },
    ]);
  });

  it.each([
    [{ recipeYield: undefined }, 'recipeYield: Say how many servings'],
    [{ recipeYield: '0 servings' }, 'recipeYield: Say how many servings'],
    [{ recipeYield: '4-6' }, 'recipeYield: Say how many servings'],
    [{ name: '' }, 'name: The recipe has no name.'],
    [{ recipeIngredient: [] }, 'recipeIngredient: The recipe lists no ingredients.'],
    [
      { recipeIngredient: ['some rice'] },
      'recipeIngredient[0]: How much long-grain white rice? The line does not say.',
    ],
    [{ recipeIngredient: ['3-2 cups milk'] }, 'recipeIngredient[0]: The range runs backwards: 3 to 2.'],
    [
      { recipeIngredient: ['1 can tuna'] },
      'recipeIngredient[0]: How much is one can of canned tuna? Add it in brackets, such as “(200 g)”',
    ],
    [{ recipeIngredient: ['1 cup unobtainium'] }, 'recipeIngredient[0]: Which food is “unobtainium”?'],
    [{ recipeIngredient: ['1/0 cup milk'] }, 'recipeIngredient[0]: "1/0" divides by 0'],
    [{ recipeIngredient: ['0 cups milk'] }, 'recipeIngredient[0].amount: "0" must be more than 0'],
    [{ recipeIngredient: ['1 cup oat yogurt'] }, 'recipeIngredient[0]: Which food is “oat yogurt”?'],
    [{ recipeIngredient: ['2 Tbsp pistachio butter'] }, 'recipeIngredient[0]: Which food is “pistachio butter”?'],
    [{ 'logistra:lines': [{}] }, 'logistra:lines: logistra:lines has 1 entries and recipeIngredient 5'],
    [{ recipeIngredient: ['1 cup milk'], 'logistra:lines': [{ scaling: 'sideways' }] }, 'logistra:lines[0].scaling'],
    [
      { recipeIngredient: ['1 cup milk'], 'logistra:lines': [{ alternatives: [{ ingredient: 'water' }] }] },
      'logistra:lines[0].alternatives.0.amount: Give the alternative its own amount',
    ],
    [
      { recipeIngredient: ['1 cup milk'], 'logistra:lines': [{ colour: 'blue' }] },
      'logistra:lines[0]: Unrecognized key: "colour"',
    ],
  ])('%j is refused with its place', (change, message) => {
    expect(refused(recipe(change)).join('\n')).toContain(message);
  });

  it.each([
    ['broken JSON', '{ "@type": ', 'This is not JSON'],
    ['null', 'null', 'No schema.org Recipe'],
    ['something else than a recipe', JSON.stringify({ '@type': 'HowTo' }), 'No schema.org Recipe'],
    ['two recipes at once', JSON.stringify([recipe(), recipe()]), 'holds 2 recipes'],
    ['20,000 open brackets', '['.repeat(20_000), 'This is not JSON'],
  ])('%s is refused as a whole', (_what, text, message) => {
    expect(() => read(text)).toThrow(message);
  });

  it('goes out and comes back unchanged, for every recipe of the demo', () => {
    const files = readdirSync('demo/recipes');
    expect(files.length).toBeGreaterThan(5);
    for (const name of files) {
      const { title, body } = understood(readFileSync(`demo/recipes/${name}`, 'utf8'));
      expect(understood(writeRecipeFile(title, body))).toEqual({ title, body, assumed: [] });
    }
  });
});
