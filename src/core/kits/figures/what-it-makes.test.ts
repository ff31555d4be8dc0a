import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rational } from '../../quantity/rational';
import type { Product } from '../../recipes/recipe/cost';
import type { WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import type { SheetInput } from '../record/sheet-content';
import { computeSheet } from '../record/snapshot';
import { type SheetCost, saltLeft, sayDrivers, sheetCost } from './kit-cost';
import { whatItMakes } from './what-it-makes';

const grams = (ingredient: string, amount: number, more: Partial<WrittenLine> = {}): WrittenLine => ({
  ingredient,
  amount: String(amount),
  unit: 'g',
  ...more,
});

/** A sheet of one dish for 1, for kits of these servings; those who avoid milk get olive oil for butter. */
function sheetOf(lines: readonly WrittenLine[], kits: readonly { servings: number; avoids?: string }[]) {
  const input: SheetInput = {
    system: 'metric',
    dishes: [{ id: 'dish', title: 'Dish', recipe: { servings: 1, lines } }],
    labels: {},
    reference: TYPICAL,
  };
  const people = kits.map(({ servings, avoids }, at) => ({
    id: String(at),
    name: `Person ${at}`,
    servings,
    needs: avoids ? [{ asWritten: avoids, codes: [avoids] }] : [],
  }));
  const outcome = computeSheet(input, people);
  if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
  return outcome.sheet;
}

const product = (ingredient: string, pack: number, price?: number, more: Partial<Product> = {}): Product => ({
  ingredient,
  name: `${ingredient}, ${pack} g`,
  packGrams: rational(pack),
  price,
  saltMg: undefined,
  energyKj: undefined,
  ...more,
});

const LINES = [
  grams('carrot', 70, { yield_preparation: 'peeled and trimmed' }),
  grams('butter', 20, { alternatives: [grams('olive oil', 20)] }),
];

describe('what a stock makes', () => {
  const kits = [{ servings: 1 }, { servings: 1 }, { servings: 1, avoids: 'MILK' }];

  it('counts what is trimmed away, says what runs out first, and what rescues the rest', () => {
    const stock = new Map([
      ['carrot', rational(250)],
      ['butter', rational(25)],
    ]);
    const outcome = whatItMakes(sheetOf(LINES, kits), stock, [
      product('butter', 250, 310),
      product('carrot', 1000, 120),
    ]);
    // 70 g of trimmed carrot are 100 g as bought; butter does for one of two.
    expect(outcome).toMatchObject({ kits: 2, of: 3, isMost: true, rescue: 430 });
    expect(outcome.variants).toEqual([
      { letter: 'B', kits: 1, of: 1 },
      { letter: 'A', kits: 1, of: 2 },
    ]);
    expect(
      outcome.shortages.map(({ ingredient, kits: alone, packs, cost, kitsWithIt }) => [
        ingredient,
        alone,
        packs,
        cost,
        kitsWithIt,
      ]),
    ).toEqual([
      ['butter', 2, 1, 310, 2],
      ['carrot', 2, 1, 120, 2],
    ]);
  });

  it('is limited by nothing that nobody counted, and names no price that it does not know', () => {
    expect(whatItMakes(sheetOf(LINES, kits), new Map(), [])).toMatchObject({ kits: 3, shortages: [], rescue: 0 });
    const none = whatItMakes(sheetOf(LINES, kits), new Map([['carrot', rational(0)]]), []);
    expect(none).toMatchObject({ kits: 0, rescue: undefined });
    expect(none.shortages[0]).toMatchObject({ ingredient: 'carrot', kits: 0, packs: undefined, kitsWithIt: 3 });
  });

  it('finds as many kits as trying every split does', () => {
    const amount = fc.integer({ min: 0, max: 900 });
    fc.assert(
      fc.property(
        fc.array(fc.record({ servings: fc.integer({ min: 1, max: 3 }), avoids: fc.constantFrom(undefined, 'MILK') }), {
          minLength: 1,
          maxLength: 7,
        }),
        amount,
        amount,
        amount,
        (people, carrot, butter, oil) => {
          const roll = people.map(({ servings, avoids }) => ({ servings, ...(avoids ? { avoids } : {}) }));
          const stock = new Map([
            ['carrot', rational(carrot)],
            ['butter', rational(butter)],
            ['olive oil', rational(oil)],
          ]);
          const found = whatItMakes(sheetOf(LINES, roll), stock, []);
          let most = 0;
          for (let chosen = 0; chosen < 2 ** roll.length; chosen++) {
            const some = roll.filter((_, at) => (chosen >> at) & 1);
            const sum = (of: typeof roll, each: number) => of.reduce((all, { servings }) => all + servings * each, 0);
            const isEnough =
              sum(some, 100) <= carrot &&
              sum(
                some.filter(({ avoids }) => !avoids),
                20,
              ) <= butter &&
              sum(
                some.filter(({ avoids }) => avoids),
                20,
              ) <= oil;
            if (isEnough) most = Math.max(most, some.length);
          }
          expect(found.kits).toBe(most);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('what kits cost and hold', () => {
  const costOf = (products: readonly Product[]): SheetCost =>
    sheetCost(sheetOf(LINES, [{ servings: 1 }, { servings: 2 }]), products);

  it('counts trimmings with what is used, whole packs with what is bought, and says what drives it', () => {
    const cost = costOf([product('carrot', 1000, 200), product('butter', 250, 400)]);
    // 300 g of carrot of 1000 for 2.00, 60 g of butter of 250 for 4.00.
    expect(cost).toMatchObject({ used: 60 + 96, bought: 600, perKit: 300, perServing: 200, unpriced: [] });
    expect(cost.kits.map(({ letter, cost: each }) => [letter, each])).toEqual([
      ['A', 104],
      ['B', 52],
    ]);
    expect(sayDrivers(cost)).toBe('butter 62 %, carrot 38 %');
  });

  it('takes the cheapest product of a food by weight, and tells what has no price', () => {
    const cost = costOf([product('carrot', 1000, 200), product('carrot', 500, 60)]);
    expect(cost).toMatchObject({ used: 36, unpriced: ['butter'] });
  });

  it('buys no part of what a family has, counts a jar when it goes out, and eats what is drawn from it', () => {
    const lines = [grams('olive oil', 23), grams('salt', 2)];
    const input: SheetInput = {
      system: 'metric',
      dishes: [{ id: 'dish', title: 'Dish', recipe: { servings: 1, lines } }],
      labels: {},
      reference: TYPICAL,
    };
    const jar = { id: 'oil', at: 0, ingredient: 'olive oil', grams: '230' };
    const people = [
      { id: 'first', name: 'First', servings: 1, needs: [], supply: { jars: [jar], staples: ['salt'] } },
      { id: 'next', name: 'Next', servings: 1, needs: [], supply: { jars: [{ ...jar, left: '100' }] } },
    ];
    const outcome = computeSheet(input, people);
    if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
    const oil = product('olive oil', 230, 460, { saltMg: 0, energyKj: 3700 });
    const salt = product('salt', 1000, 100, { saltMg: 100_000, energyKj: 0 });
    const cost = sheetCost(outcome.sheet, [oil, salt]);
    // One jar for two families; 2 g of salt of a kilogram.
    expect(cost.foods.map(({ ingredient, used, bought }) => [ingredient, used, bought])).toEqual([
      ['olive oil', 460, 460],
      ['salt', 0, 100],
    ]);
    const of = (name: string) => {
      const letter = outcome.sheet.variants.find(({ participants }) => participants[0]?.name === name)?.letter;
      return cost.kits.find((kit) => kit.letter === letter);
    };
    expect(of('First')).toMatchObject({ cost: 460, energyKj: 851, saltMg: 2000 });
    expect(of('Next')).toMatchObject({ cost: 0, energyKj: 851, saltMg: 2000 });
  });

  it('leaves less salt in what is drained, and less again in what is rinsed', () => {
    const beans = (preparation: string) => [grams('canned chickpeas', 200, { preparation })];
    const salt = (preparation: string) =>
      sheetCost(sheetOf(beans(preparation), [{ servings: 2 }]), [
        product('canned chickpeas', 400, 90, { saltMg: 500, energyKj: 480 }),
      ]).kits[0];
    expect(salt('')).toMatchObject({ saltMg: 1000, energyKj: 960 });
    expect(salt('drained')).toMatchObject({ saltMg: 640, energyKj: 960 });
    expect(saltLeft('drained and rinsed')).toEqual(rational(59, 100));
  });
});
