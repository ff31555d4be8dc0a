import { describe, expect, it } from 'vitest';
import filledFlatbreads from '../../../../tests/cases/filled-flatbreads.json';
import lentilPot from '../../../../tests/cases/lentil-pot.json';
import oatBake from '../../../../tests/cases/oat-bake.json';
import type { WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import { type CaseResult, computeCase, type KitCase } from './kit-case';

const result = (input: KitCase, working = false): CaseResult => {
  const outcome = computeCase(input, TYPICAL, working);
  if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
  return outcome.result;
};
const problems = (input: KitCase) => {
  const outcome = computeCase(input, TYPICAL);
  return 'problems' in outcome ? outcome.problems : [];
};
/** One line for four servings, made into kits. */
const one = (line: WrittenLine, kits: KitCase['kits'] = [{ count: 1, servings: 4 }]): KitCase => ({
  recipe: { servings: 4, lines: [line] },
  kits,
});
const only = (input: KitCase) => result(input).variants[0]?.components?.[0];

describe('worked cases come out exactly', () => {
  for (const { expect: expected, ...input } of [lentilPot, oatBake, filledFlatbreads]) {
    it(input.name, () => {
      expect(result(input as KitCase)).toEqual(expected);
    });
  }

  it('and the same case gives the same bytes, with and without the working', () => {
    const input = lentilPot as unknown as KitCase;
    expect(JSON.stringify(result(input, true))).toBe(JSON.stringify(result(input, true)));
    const stripped = JSON.stringify(result(input, true), (key, value) => (key === 'working' ? undefined : value));
    expect(stripped).toBe(JSON.stringify(result(input)));
  });
});

describe('scaling a line', () => {
  const salt = { ingredient: 'salt', amount: '1', unit: 'tsp', scaling: 'damped' } as const;
  const exactFor = (line: WrittenLine, servings: number) => only(one(line, [{ count: 1, servings }]))?.exact;

  it('grows salt by less than the count, and shrinks it in a straight line', () => {
    expect(exactFor(salt, 8)).toBe('7/4');
    expect(exactFor({ ...salt, damping: '1/2' }, 8)).toBe('3/2');
    expect(exactFor({ ...salt, damping: '0' }, 8)).toBe('1');
    expect(exactFor(salt, 2)).toBe('1/2');
    expect(exactFor(salt, 4)).toBe('1');
  });

  it('keeps the whole clove when a recipe is halved', () => {
    const garlic = { ingredient: 'garlic', amount: '1', unit: 'clove', scaling: 'whole' } as const;
    expect(exactFor(garlic, 2)).toBe('1');
    expect(exactFor(garlic, 5)).toBe('2');
    expect(exactFor({ ...garlic, scaling: 'linear' }, 2)).toBe('1/2');
  });

  it('begins a new batch of pan oil for one serving more', () => {
    const oil = {
      ingredient: 'olive oil',
      amount: '2',
      unit: 'Tbsp',
      scaling: 'per batch',
      batch_servings: 4,
    } as const;
    expect(exactFor(oil, 4)).toBe('2');
    expect(exactFor(oil, 5)).toBe('4');
    expect(exactFor({ ...oil, scaling: 'per kit' }, 9)).toBe('2');
  });
});

describe('sealed units', () => {
  const can = {
    ingredient: 'canned chickpeas',
    preparation: 'drained',
    unit: 'g',
    sealed_grams: '240',
    label: [],
  } as const;
  const units = (amount: string) => only(one({ ...can, amount }))?.sealed_units;

  it('accept a near size of can: a unit may fall short by a tenth of itself', () => {
    expect(units('264')).toBe(1);
    expect(units('264.001')).toBe(2);
    expect(units('1')).toBe(1);
    expect(units('528')).toBe(2);
  });

  it('are bought whole, with spare units', () => {
    const { totals } = result(one({ ...can, amount: '240', spare: '1/20' }, [{ count: 19, servings: 4 }]));
    expect(totals['canned chickpeas']).toEqual({ edible_grams: 4560, packs: 20 });
  });
});

describe('weights', () => {
  it('come from the row with that very measure before any other', () => {
    expect(only(one({ ingredient: 'butter', amount: '1', unit: 'Tbsp' }))?.grams).toBe(14.2);
    expect(only(one({ ingredient: 'butter', amount: '3', unit: 'tsp' }))?.grams).toBe(14.188);
  });

  it('are converted by volume from the first spoon or cup where the measure has no row', () => {
    expect(only(one({ ingredient: 'milk', amount: '1', unit: 'pt' }))?.grams).toBe(488);
    expect(only(one({ ingredient: 'soy sauce', amount: '1', unit: 'tsp' }))?.grams).toBe(5.333);
  });

  it('in ounces and pounds are exact and stay unmeasured', () => {
    const beef = only(one({ ingredient: 'minced beef', amount: '1', unit: 'lb' }));
    expect(beef).toEqual({ ingredient: 'minced beef', exact: '1', unit: 'lb', packed: '1', grams: 453.592 });
  });

  it('cover trimming and spare when they are bought', () => {
    const carrot = {
      ingredient: 'carrot',
      preparation: 'grated',
      yield_preparation: 'peeled and trimmed',
      amount: '70',
      unit: 'g',
      spare: '1/10',
      pack_grams: '50',
    } as const;
    expect(result(one(carrot)).totals.carrot).toEqual({ edible_grams: 70, purchase_grams: 110, packs: 3 });
  });

  it('of one food on two lines are bought together', () => {
    const input: KitCase = {
      recipe: {
        servings: 4,
        lines: [
          { ingredient: 'butter', amount: '100', unit: 'g', pack_grams: '250' },
          { ingredient: 'butter', amount: '100', unit: 'g', spare: '1/10' },
        ],
      },
      kits: [{ count: 1, servings: 4 }],
    };
    expect(result(input).totals.butter).toEqual({ edible_grams: 200, purchase_grams: 210, packs: 1 });
  });
});

describe('avoidances', () => {
  const kit = (avoids: string[]) => [{ count: 3, servings: 4, avoids }];

  it('refuse a kit without a safe choice, name the written line, and count it in no total', () => {
    const input: KitCase = {
      recipe: {
        servings: 4,
        lines: [
          { ingredient: 'egg', preparation: 'large, without shell', amount: '2', unit: 'each' },
          { ingredient: 'milk', amount: '1', unit: 'cup' },
        ],
      },
      kits: kit(['EGG']),
    };
    expect(result(input)).toEqual({
      variants: [
        { servings: 4, count: 3, avoids: ['EGG'], refused: [{ line: 0, ingredient: 'egg', blocked_by: ['EGG'] }] },
      ],
      totals: {},
    });
  });

  it('block what a brand may add until a label is recorded', () => {
    const cumin: WrittenLine = { ingredient: 'ground cumin', amount: '1', unit: 'tsp' };
    expect(result(one(cumin, kit(['PEANUT']))).variants[0]?.refused).toEqual([
      { line: 0, ingredient: 'ground cumin', blocked_by: ['PEANUT'] },
    ]);
    expect(only(one({ ...cumin, label: [] }, kit(['PEANUT'])))?.packed).toBe('1');
    expect(result(one({ ...cumin, label: ['PEANUT'] }, kit(['PEANUT']))).variants[0]?.refused).toHaveLength(1);
  });

  it('follow what an allergen implies: wheat is a cereal with gluten, also when only a brand adds it', () => {
    const flour: WrittenLine = { ingredient: 'plain wheat flour', amount: '1', unit: 'cup', label: ['WHEAT'] };
    expect(result(one(flour, kit(['GLUTEN']))).variants[0]?.refused?.[0]?.blocked_by).toEqual(['GLUTEN']);
    const powder: WrittenLine = { ingredient: 'baking powder', amount: '1', unit: 'tsp' };
    expect(result(one(powder, kit(['GLUTEN']))).variants[0]?.refused?.[0]?.blocked_by).toEqual(['GLUTEN']);
  });

  it('pass over alternatives that are blocked too, and leave out only where that is offered', () => {
    const yogurt: WrittenLine = {
      ingredient: 'plain yogurt',
      amount: '1',
      unit: 'cup',
      alternatives: [{ ingredient: 'firm tofu', preparation: 'cubed', amount: '1', unit: 'cup' }, { omit: true }],
    };
    expect(only(one(yogurt, kit(['MILK'])))?.ingredient).toBe('firm tofu');
    expect(result(one(yogurt, kit(['MILK', 'SOY']))).variants[0]?.components).toEqual([]);
  });

  it('of diet hold whatever a label says of allergens', () => {
    const parmesan: WrittenLine = {
      ingredient: 'parmesan cheese',
      preparation: 'grated',
      amount: '1',
      unit: 'cup',
      label: ['MILK'],
    };
    expect(result(one(parmesan, kit(['MEAT']))).variants[0]?.refused?.[0]?.blocked_by).toEqual(['MEAT']);
  });
});

describe('a case that cannot be calculated', () => {
  it('names every place and what to do there', () => {
    const input: KitCase = {
      recipe: {
        servings: 4,
        lines: [
          { ingredient: 'carrots', amount: '1', unit: 'cup' },
          { ingredient: 'milk', amount: '-1', unit: 'cup' },
          { ingredient: 'milk', amount: '1', unit: 'jug' },
          { ingredient: 'onion', preparation: 'minced', amount: '1', unit: 'cup' },
          { ingredient: 'salt', amount: '0', unit: 'tsp' },
          { ingredient: 'milk', amount: '1', unit: 'cup', scaling: 'per batch' },
          { ingredient: 'milk', amount: '1', unit: 'cup', spare: '2', yield_preparation: 'peeled' },
          {
            ingredient: 'milk',
            amount: '1',
            unit: 'cup',
            alternatives: [{ ingredient: 'oat milk', amount: '1', unit: 'cup' }],
          },
        ],
      },
      kits: [{ count: 1, servings: 4, avoids: ['KIWI'] }],
    };
    const found = problems(input);
    expect(found.map(({ path }) => path)).toEqual([
      'recipe.lines[0].ingredient',
      'recipe.lines[1].amount',
      'recipe.lines[2].unit',
      'recipe.lines[3].unit',
      'recipe.lines[4].amount',
      'recipe.lines[5].batch_servings',
      'recipe.lines[6].spare',
      'recipe.lines[6].yield_preparation',
      'recipe.lines[7].alternatives[0].ingredient',
      'kits[0].avoids[0]',
    ]);
    expect(found[0]?.message).toContain('Did you mean "carrot"');
    expect(found[3]?.message).toContain('Known are: cup chopped; cup sliced');
  });

  it('refuses amounts that nobody measures by hand', () => {
    expect(problems(one({ ingredient: 'milk', amount: '10001', unit: 'cup' }))[0]?.message).toContain(
      'check the amount',
    );
    const huge = one({ ingredient: 'milk', amount: '9000', unit: 'cup' }, [{ count: 1, servings: 400 }]);
    expect(() => computeCase(huge, TYPICAL)).toThrow('cannot be measured by hand');
  });
});

describe('the working of a number', () => {
  it('goes from the recipe over scaling and measure to the weight', () => {
    const working = result({ ...(oatBake as unknown as KitCase) }, true).variants[0]?.components?.[1]?.working;
    expect(working?.value).toBe('¼ cup + 2 tsp = 64.167 g');
    expect(working?.because).toContain('1 cup packed weighs 220 g');
    expect(working?.from[0]?.because).toBe(
      '3 scoops, 1.6 % below; normal precision allows 5 %. Exact would be 14.222 tsp',
    );
    expect(working?.from[0]?.from[0]).toMatchObject({ value: '8\u204427 cup', because: '× 4 ÷ 9 servings' });
    expect(working?.from[0]?.from[0]?.from[0]?.value).toBe('⅔ cup brown sugar, packed, for 9 servings');
  });

  it('of a total adds up the variants, then trims, spares and packs', () => {
    const total = result(lentilPot as unknown as KitCase, true).totals.carrot?.working;
    expect(total?.value).toBe('1718.75 g = 2 packs');
    expect(total?.from[0]?.because).toBe(
      '1145.833 g ÷ 0.70 edible when peeled and trimmed (USDA Food Buying Guide (typical)) × 21/20 with spare',
    );
    expect(total?.from[1]?.from.map((share) => share.because)).toEqual([
      '7 × 82.5 g carrot, grated',
      '5 × 43.542 g carrot, grated',
      '3 × 116.875 g carrot, grated',
    ]);
  });
});
