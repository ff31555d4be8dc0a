import { describe, expect, it } from 'vitest';
import { toDecimal } from '../../quantity/rational';
import type { WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import { splitAvoidances, understandNeed } from '../../safety/avoidances';
import type { SheetInput } from '../record/sheet-content';
import { computeSheet, sheetContent } from '../record/snapshot';

/** The sheet of one dish for kits of so many servings, each with what its person avoids. */
function sheetOf(lines: readonly WrittenLine[], kits: readonly { servings: number; avoids?: string }[], servings = 4) {
  const input: SheetInput = {
    system: 'metric',
    dishes: [{ id: 'dish', title: 'Dish', recipe: { servings, lines } }],
    labels: {},
    reference: TYPICAL,
  };
  const people = kits.map(({ servings: feeds, avoids }, at) => ({
    id: String(at),
    name: `Person ${at}`,
    servings: feeds,
    needs: splitAvoidances(avoids ?? '').map((need) => understandNeed(need, new Map())),
  }));
  const outcome = computeSheet(input, people);
  if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
  const content = sheetContent(input, outcome);
  const total = (food: string) => content.totals.find(({ ingredient }) => ingredient === food);
  const said = (variant = 0) =>
    (content.variants[variant]?.components ?? []).map(
      ({ name, say, from }) => `${say} ${name}${from ? `, ${from}` : ''}`,
    );
  return { content, outcome, total, said };
}

const chickpeas: WrittenLine = {
  ingredient: 'canned chickpeas',
  preparation: 'drained',
  amount: '400',
  unit: 'g',
  sealed_grams: '400',
};
const liquid: WrittenLine = {
  ingredient: 'canned chickpeas',
  preparation: 'liquid',
  amount: '100',
  unit: 'ml',
  reserved: true,
};

describe('the liquid of a can that feeds another line', () => {
  it('comes out of the can in the kit: nothing is packed or bought for it', () => {
    const { said, total, content } = sheetOf([chickpeas, liquid], [{ servings: 4 }]);
    expect(said()[1]).toMatch(/canned chickpeas, liquid, out of the canned chickpeas$/);
    expect(content.variants[0]?.components?.[1]?.isInside).toBe(true);
    expect(total('canned chickpeas')?.packs).toBe(1);
  });

  it('is topped up by what the recipe names where the cans do not suffice', () => {
    // One can of 400 g holds 160 g of liquid, of the 240 ml wanted.
    const more = {
      ...liquid,
      amount: '240',
      alternatives: [{ ingredient: 'vegetable stock', amount: '240', unit: 'ml' }],
    };
    const { content, total } = sheetOf([chickpeas, more], [{ servings: 4 }]);
    expect(content.rows.map(({ name }) => name)).toEqual([
      'canned chickpeas, drained',
      'canned chickpeas, liquid',
      'vegetable stock',
    ]);
    const grams = (row: number) => Number(content.variants[0]?.components?.[row]?.sayGrams.replace(/[^\d.]/g, ''));
    expect(grams(1)).toBeGreaterThan(150);
    expect(grams(1)).toBeLessThan(170);
    expect(total('vegetable stock')?.sayPurchase).toMatch(/^[789]\d g$/);
  });

  it('is left to be bought where nothing tops it up', () => {
    const { total } = sheetOf([{ ...liquid, amount: '100' }], [{ servings: 4 }]);
    // Two fifths of a can are liquid: the 105 ml that are measured need 262 g of can.
    expect(total('canned chickpeas')?.sayPurchase).toBe('262 g');
  });

  it('is wholly replaced where the can itself is', () => {
    const swapped = [
      { ...chickpeas, alternatives: [{ ingredient: 'firm tofu', preparation: 'cubed', amount: '250', unit: 'g' }] },
      { ...liquid, alternatives: [{ ingredient: 'vegetable stock', amount: '100', unit: 'ml', label: [] }] },
    ];
    const { said } = sheetOf(swapped, [{ servings: 4, avoids: 'canned chickpeas' }]);
    expect(said().join()).not.toContain('liquid');
  });
});

describe('one purchase that gives two ingredients', () => {
  const juice = { ingredient: 'lemon', preparation: 'juice of one', amount: '1', unit: 'each' };
  const zest = { ingredient: 'lemon', preparation: 'zest of one', amount: '2', unit: 'each' };

  it('is bought once, for the part that needs most of it', () => {
    const { total, said } = sheetOf([juice, zest], [{ servings: 4 }, { servings: 4 }]);
    expect(total('lemon')?.pieces).toBe(4);
    expect(said()).toEqual(['1 lemon, juice of one, of the same lemon', '2 lemon, zest of one']);
  });

  it('is as much of a whole lemon as its juice weighs, where the line says that it is bought for it', () => {
    const spoons = { ingredient: 'lemon', preparation: 'juice', amount: '96', unit: 'g' };
    expect(sheetOf([spoons], [{ servings: 4 }]).total('lemon')?.purchaseGrams).toBe('96');
    // 48 g of juice in a lemon of 108 g: two lemons.
    const bought = sheetOf([{ ...spoons, yield_preparation: 'juice' }], [{ servings: 4 }]).total('lemon');
    expect(bought?.purchaseGrams).toBe('216');
  });

  it('needs an egg for each white where whites and yolks do not match', () => {
    const { total } = sheetOf(
      [
        { ingredient: 'egg', preparation: 'white', amount: '3', unit: 'each' },
        { ingredient: 'egg', preparation: 'yolk', amount: '1', unit: 'each' },
      ],
      [{ servings: 4 }],
    );
    expect(total('egg')?.pieces).toBe(3);
  });

  it('counts what is used whole beside it', () => {
    const whole = { ingredient: 'lemon', amount: '1', unit: 'each' };
    expect(sheetOf([juice, zest, whole], [{ servings: 4 }]).total('lemon')?.pieces).toBe(3);
  });
});

describe('an amount that may be chosen within a range', () => {
  const carrots: WrittenLine = {
    ingredient: 'carrot',
    amount: '300',
    unit: 'g',
    range: { least: '300', most: '500' },
    within: true,
    pack_grams: '1000',
  };

  it('is the most that needs no further pack', () => {
    const { total, outcome } = sheetOf([carrots], [{ servings: 4 }, { servings: 4 }]);
    expect(total('carrot')).toMatchObject({ packs: 1, sayEdible: '1000 g' });
    expect(outcome.sheet.variants[0]?.components?.[0]?.item.amount).toEqual({ n: 500, d: 1 });
  });

  it('stays at its least where any more would open another pack', () => {
    const three = Array.from({ length: 3 }, () => ({ servings: 4 }));
    const { total, outcome } = sheetOf([carrots], three);
    expect(total('carrot')?.packs).toBe(1);
    // 325 g is the most eighth of the range of which three fit into a kilogram.
    expect(toDecimal(outcome.sheet.variants[0]?.components?.[0]?.item.amount ?? { n: 0, d: 1 }, 0)).toBe('325');
  });

  it('stays as the recipe says where the food comes in no packs', () => {
    const { pack_grams: _, ...loose } = { ...carrots, amount: '400' };
    expect(sheetOf([loose], [{ servings: 4 }]).total('carrot')?.sayEdible).toBe('400 g');
  });
});

describe('an alternative that brings a second swap with it', () => {
  const flour: WrittenLine = {
    ingredient: 'plain wheat flour',
    amount: '250',
    unit: 'g',
    alternatives: [
      {
        ingredient: 'maize meal',
        amount: '250',
        unit: 'g',
        label: [],
        also: [{ ingredient: 'egg', preparation: 'large, without shell', amount: '1', unit: 'each' }],
        step: 'Let the dough rest for ten minutes.',
        minutes: 10,
      },
      { ingredient: 'long-grain white rice', amount: '200', unit: 'g' },
    ],
  };

  it('packs and buys both, in a row of its own', () => {
    const { content, total, said } = sheetOf([flour], [{ servings: 4, avoids: 'wheat' }, { servings: 4 }]);
    expect(content.rows.map(({ name }) => name)).toEqual(['plain wheat flour', 'egg, large, without shell']);
    expect(content.variants[1]?.steps).toEqual(['maize meal: Let the dough rest for ten minutes. · 10 min longer']);
    expect(said(1)).toEqual(['250 g maize meal', '1 egg, large, without shell']);
    expect(total('egg')?.pieces).toBe(1);
  });

  it('is passed over where what it brings along must be avoided', () => {
    expect(sheetOf([flour], [{ servings: 4, avoids: 'wheat; egg' }]).said()).toEqual(['200 g long-grain white rice']);
  });
});
