import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  add,
  compare,
  divide,
  fromText,
  multiply,
  type Rational,
  rational,
  subtract,
  ZERO,
} from '../../quantity/rational';
import { choose } from '../../recipes/recipe/choice';
import type { WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import type { SheetInput } from '../record/sheet-content';
import { computeSheet, recomputeSheet, sheetContent } from '../record/snapshot';
import type { Participant } from '../sheet/participant';
import { afterKit, type CourseSupply, handedOutWith, NOTHING_HELD, supplyFromCourse } from './series';
import { type Supply, WAYS } from './supplied';

/** Foods by weight and by the piece, so that amounts are not rounded to spoons on the way. */
const FOODS = ['plain wheat flour', 'butter', 'onion', 'carrot', 'olive oil', 'salt'] as const;
const food = fc.constantFrom(...FOODS);

const line = food.chain((ingredient) =>
  fc.integer({ min: 1, max: 400 }).map((grams): WrittenLine => ({ ingredient, amount: String(grams), unit: 'g' })),
);
const recipe = fc
  .uniqueArray(line, { minLength: 1, maxLength: 5, selector: ({ ingredient }) => ingredient })
  .map((lines) => ({ servings: 4, lines }));

const supply: fc.Arbitrary<Supply> = fc.record(
  {
    atStation: fc.boolean(),
    cuts: fc.boolean(),
    staples: fc.uniqueArray(food, { maxLength: 3 }),
    box: fc.uniqueArray(fc.record({ ingredient: food, grams: fc.integer({ min: 1, max: 900 }).map(String) }), {
      maxLength: 3,
      selector: ({ ingredient }) => ingredient,
    }),
    jars: fc.uniqueArray(
      fc.record({ id: food, ingredient: food, at: fc.nat(3), grams: fc.constantFrom('50', '230') }),
      { maxLength: 2, selector: ({ ingredient }) => ingredient },
    ),
  },
  { requiredKeys: [] },
);

const input = (
  written: SheetInput['dishes'][number]['recipe'],
  ways: readonly { ingredient: string; way: (typeof WAYS)[number] }[],
): SheetInput => ({
  system: 'metric',
  dishes: [{ id: 'dish', title: 'Dish', recipe: written, ways }],
  labels: {},
  reference: TYPICAL,
});

const ways = fc.uniqueArray(fc.record({ ingredient: food, way: fc.constantFrom(...WAYS) }), {
  maxLength: 4,
  selector: ({ ingredient }) => ingredient,
});

const people = fc
  .array(fc.record({ servings: fc.integer({ min: 1, max: 8 }), supply: fc.option(supply, { nil: undefined }) }), {
    minLength: 1,
    maxLength: 6,
  })
  .map((all) =>
    all.map(
      ({ servings, supply: own }, at): Participant => ({
        id: String(at),
        name: `Person ${at}`,
        servings,
        needs: [],
        ...(own ? { supply: own } : {}),
      }),
    ),
  );

function contentOf(sheetInput: SheetInput, roll: readonly Participant[]) {
  const outcome = computeSheet(sheetInput, roll);
  if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
  return { outcome, content: sheetContent(sheetInput, outcome) };
}

const sum = (amounts: readonly Rational[]) => amounts.reduce(add, ZERO);

describe('however a kit is filled', () => {
  it('it comes to what the recipe says: packed, at the station, from home, out of the box and out of the jar together', () => {
    fc.assert(
      fc.property(recipe, ways, people, (written, chosen, roll) => {
        const { content } = contentOf(input(written, chosen), roll);
        for (const { participants, components, servings } of content.variants) {
          expect(participants.length).toBeGreaterThan(0);
          for (const { ingredient, amount } of written.lines) {
            const wanted = divide(multiply(rational(Number(amount)), rational(servings)), rational(4));
            const own = (components ?? []).filter(
              (each) => each.ingredient === ingredient && content.rows[each.row]?.dish === 0,
            );
            const there = sum(own.map(({ grams }) => fromText(grams)));
            // Whole pieces may be a little more, or fall a tenth short; everything else is exact.
            if (own.some(({ name }) => name.includes('whole')))
              expect(compare(multiply(there, rational(11, 10)), wanted)).toBeGreaterThanOrEqual(0);
            else expect(there).toEqual(wanted);
          }
        }
      }),
      { numRuns: 200 },
    );
  });

  it('what is bought is what is packed or stands at the station, and never what a family has', () => {
    fc.assert(
      fc.property(recipe, ways, people, (written, chosen, roll) => {
        const { content } = contentOf(input(written, chosen), roll);
        const packed = new Map<string, Rational>();
        for (const { participants, components } of content.variants)
          for (const { ingredient, grams, from } of components ?? []) {
            if (from) continue;
            const all = multiply(fromText(grams), rational(participants.length));
            packed.set(ingredient, add(packed.get(ingredient) ?? ZERO, all));
          }
        expect(
          new Map(content.totals.map(({ ingredient, edibleGrams }) => [ingredient, fromText(edibleGrams)])),
        ).toEqual(packed);
      }),
      { numRuns: 200 },
    );
  });

  it('the sheet is the same again from its plain form', () => {
    fc.assert(
      fc.property(recipe, ways, people, (written, chosen, roll) => {
        const { content } = contentOf(input(written, chosen), roll);
        const again = recomputeSheet(JSON.parse(JSON.stringify(content)));
        expect(again && sheetContent(content.input, again)).toEqual(content);
      }),
      { numRuns: 100 },
    );
  });
});

describe('jars over the sessions of a course', () => {
  it('never run dry, and no more is handed out than one jar beyond what is drawn', () => {
    const oil: CourseSupply = { id: 'oil', kind: 'jar', name: 'olive oil', grams: '230', from: 1 };
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 500 }), { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 1, max: 6 }),
        (grams, servings) => {
          let held = NOTHING_HELD;
          for (const [at, amount] of grams.entries()) {
            const written = { servings: 4, lines: [{ ingredient: 'olive oil', amount: String(amount), unit: 'g' }] };
            const own = supplyFromCourse([oil], at + 1, held, new Set());
            const roll = [{ id: 'ada', name: 'Ada', servings, needs: [], supply: own }];
            const { outcome, content } = contentOf(input(written, []), roll);
            const given = handedOutWith(
              content.variants[0]?.supply,
              outcome.dishes,
              choose(outcome.dishes, []),
              servings,
            );
            held = afterKit(held, given);
            const { units, drawn } = held.get('oil') ?? { units: 0, drawn: ZERO };
            const left = subtract(rational(230 * units), drawn);
            expect(compare(left, ZERO)).toBeGreaterThanOrEqual(0);
            expect(compare(left, rational(230))).toBeLessThan(0);
          }
        },
      ),
      { numRuns: 150 },
    );
  });
});
