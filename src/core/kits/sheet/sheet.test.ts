import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { add, compare, equals, multiply, rational, toText, ZERO } from '../../quantity/rational';
import { readRecipe, type WrittenAlternative, type WrittenItem, type WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import { AVOIDANCES, foodCode, holdingsOf } from '../../safety/avoidances';
import { scale } from '../portion';
import type { SheetInput } from '../record/sheet-content';
import { computeSheet, recomputeSheet, sheetContent } from '../record/snapshot';
import type { Participant } from './participant';
import { type KitSheet, kitSheet, variantLetter } from './sheet';

const CODES = AVOIDANCES.map(({ code }) => code);

/** Any food of the table, in any measure it has a weight for. */
const item: fc.Arbitrary<WrittenItem> = fc
  .constantFrom(...TYPICAL.measures)
  .chain((fact) =>
    fc.record({
      ingredient: fc.constant(fact.ingredient),
      preparation: fc.constant(fact.preparation),
      unit: fc.constant(fact.measure),
      amount: fc.tuple(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 8 })).map(([n, d]) => `${n}/${d}`),
      scaling: fc.constantFrom('linear', 'whole', 'damped', 'per kit'),
      precision: fc.constantFrom('tight', 'normal', 'loose'),
      spare: fc.constantFrom('0', '1/20', '1/5'),
      ...(fact.measure === 'cup' ? { sealed_grams: fc.constantFrom(undefined, '400', '37.5') } : {}),
      label: fc.option(fc.subarray(CODES.slice(0, 15), { maxLength: 3 }), { nil: undefined }),
    }),
  )
  .map((written) => written as WrittenItem);

const alternative: fc.Arbitrary<WrittenAlternative> = fc.oneof(
  { weight: 4, arbitrary: item },
  { weight: 1, arbitrary: fc.constant({ omit: true } as const) },
);
const line: fc.Arbitrary<WrittenLine> = fc
  .tuple(item, fc.array(alternative, { maxLength: 3 }))
  .map(([written, alternatives]) => ({ ...written, alternatives }));
const recipe = fc.record({
  servings: fc.integer({ min: 1, max: 12 }),
  lines: fc.array(line, { minLength: 1, maxLength: 6 }),
});
const codes = fc.subarray([...CODES, foodCode('carrot'), foodCode('milk')], { maxLength: 4 });
const participant = fc.record({ servings: fc.integer({ min: 1, max: 9 }), avoids: codes });
const roll = fc.array(participant, { minLength: 1, maxLength: 12 }).map((people) =>
  people.map(
    ({ servings, avoids }, index): Participant => ({
      id: `p${index}`,
      name: `Person ${index}`,
      servings,
      needs: avoids.map((code) => ({ asWritten: code, codes: [code] })),
    }),
  ),
);

function readAll(recipes: readonly { servings: number; lines: WrittenLine[] }[]) {
  return recipes.map((written) => {
    const reading = readRecipe(written, TYPICAL);
    if ('problems' in reading) throw new Error(JSON.stringify(reading.problems));
    return reading.recipe;
  });
}

const wholeTomatoes: WrittenLine = {
  ingredient: 'cherry tomato',
  preparation: 'whole',
  unit: 'cup',
  amount: '1',
  scaling: 'linear',
  precision: 'normal',
  spare: '0',
};
const smallChild: Participant = {
  id: 'p0',
  name: 'Person 0',
  servings: 1,
  needs: [{ asWritten: 'CHOKING', codes: ['CHOKING'] }],
};

const codesOf = (person: Participant) => person.needs.flatMap((need) => need.codes ?? []);

describe('every kit sheet', () => {
  it('never packs what a person avoids, nor what may hold it; judged afresh from the reference table', () => {
    fc.assert(
      fc.property(fc.array(recipe, { minLength: 1, maxLength: 2 }), roll, (recipes, people) => {
        const { variants } = kitSheet(readAll(recipes), people, 'us');
        for (const variant of variants) {
          for (const component of variant.components ?? []) {
            const written = recipes[component.dish]?.lines[component.line] as WrittenLine;
            // Behind the alternatives comes the food itself, cut small for small children.
            const used = (
              component.option === 0 ? written : (written.alternatives?.[component.option - 1] ?? written)
            ) as WrittenItem;
            const food = TYPICAL.ingredients.find(({ name }) => name === used.ingredient);
            const holdings = food && holdingsOf(food, used.label, component.item.preparation);
            for (const code of variant.participants.flatMap(codesOf)) {
              expect(holdings?.contains.has(code) || holdings?.mayContain.has(code)).toBe(false);
            }
          }
        }
      }),
      {
        numRuns: 300,
        // "Whole" tomatoes, cut for a small child, were still called whole.
        examples: [[[{ servings: 1, lines: [wholeTomatoes] }], [smallChild]]],
      },
    );
  });

  it('gives everybody exactly one kit of their own size, and totals that add up what is packed', () => {
    fc.assert(
      fc.property(recipe, roll, (written, people) => {
        const sheet = kitSheet(readAll([written]), people, 'us');
        const placed = sheet.variants.flatMap((variant) =>
          variant.participants.map((person) => [person.id, variant.servings]),
        );
        expect(Object.fromEntries(placed)).toEqual(
          Object.fromEntries(people.map((person) => [person.id, person.servings])),
        );
        expect(placed).toHaveLength(people.length);
        for (const total of sheet.totals) expect(toText(total.edible)).toBe(toText(packedOf(sheet, total.ingredient)));
      }),
    );
  });

  it('buys at least what it packs', () => {
    fc.assert(
      fc.property(recipe, roll, (written, people) => {
        for (const total of kitSheet(readAll([written]), people, 'us').totals) {
          const pooled = total.items.filter((entry) => !entry.item.sealedGrams).map((entry) => entry.grams);
          if (total.purchase) expect(compare(total.purchase, pooled.reduce(add, ZERO))).toBeGreaterThanOrEqual(0);
          const units = total.items.reduce((sum, entry) => sum + entry.units, 0);
          if (units > 0) expect(total.packs).toBeGreaterThanOrEqual(units);
        }
      }),
    );
  });

  it('is the same, byte for byte, from the same input, and again from its own plain form', () => {
    fc.assert(
      fc.property(recipe, roll, (written, people) => {
        const input: SheetInput = {
          system: 'us',
          dishes: [{ id: 'd', title: 'Dish', recipe: written }],
          labels: {},
          reference: TYPICAL,
        };
        const make = () => {
          const computed = computeSheet(input, people);
          if ('problems' in computed) throw new Error(JSON.stringify(computed.problems));
          return sheetContent(input, computed);
        };
        const content = make();
        expect(JSON.stringify(make())).toBe(JSON.stringify(content));
        const plain = JSON.parse(JSON.stringify(content)) as typeof content;
        const again = recomputeSheet(plain);
        expect(again && JSON.stringify(sheetContent(plain.input, again))).toBe(JSON.stringify(content));
      }),
      { numRuns: 60 },
    );
  });
});

function packedOf(sheet: KitSheet, ingredient: string) {
  return sheet.variants
    .flatMap((variant) =>
      (variant.components ?? [])
        .filter(({ item, from }) => item.ingredient.name === ingredient && from === undefined)
        .map((component) => multiply(component.portion.grams, rational(variant.participants.length))),
    )
    .reduce(add, ZERO);
}

describe('linear scaling', () => {
  it('there and back is the identity', () => {
    fc.assert(
      fc.property(item, fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 60 }), (written, from, to) => {
        const [recipeRead] = readAll([{ servings: from, lines: [{ ...written, scaling: 'linear' }] }]);
        const there = recipeRead?.lines[0]?.written;
        if (!there) throw new Error('one line was written');
        const back = { ...there, amount: scale(there, from, to) };
        expect(equals(scale(back, to, from), there.amount)).toBe(true);
      }),
    );
  });
});

describe('variants', () => {
  const dishes = readAll([
    {
      servings: 4,
      lines: [
        {
          ingredient: 'plain yogurt',
          amount: '1',
          unit: 'cup',
          alternatives: [{ ingredient: 'firm tofu', preparation: 'cubed', amount: '1', unit: 'cup' }],
        },
        { ingredient: 'carrot', preparation: 'grated', amount: '1', unit: 'cup' },
      ],
    },
  ]);
  const person = (id: string, servings: number, ...needs: (string | null)[]): Participant => ({
    id,
    name: id,
    servings,
    needs: needs.map((code) =>
      code === null ? { asWritten: 'latex fruit', codes: undefined } : { asWritten: code, codes: [code] },
    ),
  });

  it('gather people whose kits are alike: an avoidance nothing here holds makes no difference', () => {
    const { variants } = kitSheet(
      dishes,
      [person('Ada', 1), person('Bram', 1, 'PEANUT'), person('Cleo', 1, 'MILK'), person('Dario', 2)],
      'us',
    );
    expect(
      variants.map(({ letter, servings, avoids, participants }) => [
        letter,
        servings,
        avoids,
        participants.map(({ id }) => id),
      ]),
    ).toEqual([
      ['A', 1, [], ['Ada', 'Bram']],
      ['B', 2, [], ['Dario']],
      ['C', 1, ['MILK'], ['Cleo']],
    ]);
  });

  it('refuse a kit while a family’s word has no meaning, and one with no safe choice', () => {
    const { variants, refusedKits } = kitSheet(
      dishes,
      [person('Ada', 1, null), person('Bram', 1, 'MILK', 'SOY')],
      'us',
    );
    expect(refusedKits).toBe(2);
    expect(variants.find((variant) => variant.unknownNeeds.length > 0)?.components).toBeUndefined();
    expect(variants.find((variant) => variant.refusals.length > 0)?.refusals).toEqual([
      { dish: 0, line: 0, ingredient: 'plain yogurt', blockedBy: ['MILK'] },
    ]);
  });

  it('keep their letters when others come and go', () => {
    const first = kitSheet(dishes, [person('Ada', 1), person('Cleo', 1, 'MILK')], 'us');
    const letters = new Map(first.variants.map((variant) => [variant.key, variant.letter]));
    const second = kitSheet(dishes, [person('Dario', 3), person('Edie', 3), person('Cleo', 1, 'MILK')], 'us', {
      letters,
    });
    expect(second.variants.map(({ letter, participants }) => [letter, participants[0]?.id])).toEqual([
      ['C', 'Dario'],
      ['B', 'Cleo'],
    ]);
    expect([0, 25, 26, 27, 701, 702].map(variantLetter)).toEqual(['A', 'Z', 'AA', 'AB', 'ZZ', 'AAA']);
  });
});
