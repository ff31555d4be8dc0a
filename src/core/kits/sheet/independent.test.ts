import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { independently } from '../../../../tests/independent';
import type { WrittenAlternative, WrittenItem, WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import { computeCase, type KitCase } from '../figures/kit-case';

const SPOONS = ['tsp', 'Tbsp', 'cup'];
const MEASURES = TYPICAL.measures.filter(({ measure }) => measure !== 'slice');

/** An item of a recipe: any food, any way to write, scale, measure and seal it. */
const item = (at: number): fc.Arbitrary<WrittenItem> => {
  const { ingredient, preparation } = MEASURES[at % MEASURES.length] as (typeof MEASURES)[number];
  const own = MEASURES.filter((row) => row.ingredient === ingredient && row.preparation === preparation).map(
    ({ measure }) => measure,
  );
  const units = [...new Set([...own, ...(own.some((unit) => SPOONS.includes(unit)) ? SPOONS : []), 'g', 'oz', 'lb'])];
  const yields = TYPICAL.yields.filter((row) => row.ingredient === ingredient).map((row) => row.preparation);
  return fc
    .record({
      unit: fc.constantFrom(...units),
      whole: fc.integer({ min: 0, max: 4 }),
      part: fc.constantFrom('1/2', '1/3', '2/3', '3/4', '1/8', '5/7'),
      scaling: fc.constantFrom('linear', 'whole', 'damped', 'per batch', 'per kit'),
      damping: fc.constantFrom(undefined, '1/2', '2/3'),
      batch: fc.integer({ min: 1, max: 9 }),
      precision: fc.constantFrom('tight', 'normal', 'loose', undefined),
      sealed: fc.option(fc.integer({ min: 30, max: 900 }), { freq: 6 }),
      label: fc.option(fc.constant([] as string[]), { freq: 8 }),
      trimmed: fc.constantFrom(undefined, ...yields),
      spare: fc.constantFrom(undefined, '1/10', '0.05', '1/3'),
      pack: fc.option(fc.integer({ min: 100, max: 2000 })),
    })
    .map(({ unit, whole, part, scaling, damping, batch, precision, sealed, label, trimmed, spare, pack }) => {
      // Spoons and weights are never counted whole.
      const counted = !SPOONS.includes(unit) && !['g', 'oz', 'lb'].includes(unit);
      const way = scaling === 'whole' && !counted ? 'linear' : scaling;
      return {
        ingredient,
        preparation,
        amount: whole > 0 ? `${whole} ${part}` : part,
        unit,
        scaling: way,
        ...(way === 'damped' && damping ? { damping } : {}),
        ...(way === 'per batch' ? { batch_servings: batch } : {}),
        ...(precision ? { precision } : {}),
        ...(sealed ? { sealed_grams: String(sealed) } : {}),
        ...(label ? { label } : {}),
        ...(trimmed && !sealed ? { yield_preparation: trimmed } : {}),
        ...(spare ? { spare } : {}),
        ...(pack && !sealed ? { pack_grams: String(pack) } : {}),
      } as WrittenItem;
    });
};

const foods = fc.uniqueArray(fc.integer({ min: 0, max: MEASURES.length - 1 }), {
  minLength: 3,
  maxLength: 12,
  selector: (at) => MEASURES[at]?.ingredient,
});

/** A recipe in which no food stands twice, so that its totals can be told apart. */
const lines: fc.Arbitrary<WrittenLine[]> = foods.chain((places) =>
  fc
    .tuple(fc.tuple(...places.map(item)), fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 12, maxLength: 12 }))
    .map(([items, others]) => {
      const made: WrittenLine[] = [];
      for (let index = 0; index < items.length; ) {
        const line = items[index++] as WrittenItem;
        const count = others[made.length] ?? 0;
        const alternatives: WrittenAlternative[] = items.slice(index, index + count);
        index += count;
        if (count === 2) alternatives.push({ omit: true });
        made.push(alternatives.length > 0 ? { ...line, alternatives } : line);
      }
      return made;
    }),
);

const CODES = ['MILK', 'EGG', 'WHEAT', 'GLUTEN', 'SOY', 'NUT', 'SESAME', 'FISH', 'MEAT', 'HONEY'];
const kitCase: fc.Arbitrary<KitCase> = fc.record({
  recipe: fc.record({ servings: fc.integer({ min: 1, max: 12 }), lines }),
  kits: fc.array(
    fc.record({
      count: fc.integer({ min: 1, max: 80 }),
      servings: fc.integer({ min: 1, max: 15 }),
      avoids: fc.oneof(fc.constant([]), fc.subarray(CODES, { minLength: 2 })),
    }),
    { minLength: 1, maxLength: 4 },
  ),
});

describe('the arithmetic, held against a second calculation of the same rules', () => {
  it('comes to the same kits, refusals and totals on any recipe and any roll', () => {
    let components = 0;
    let refused = 0;
    fc.assert(
      fc.property(kitCase, (input) => {
        const outcome = computeCase(input, TYPICAL);
        if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
        const { variants, totals } = outcome.result;
        const other = independently(input);
        const sorted = variants.map((variant) => ({
          ...variant,
          ...(variant.refused
            ? { refused: variant.refused.map((entry) => ({ ...entry, blocked_by: [...entry.blocked_by].sort() })) }
            : {}),
        }));
        expect(JSON.parse(JSON.stringify(sorted))).toEqual(other.variants);
        expect(JSON.parse(JSON.stringify(totals))).toEqual(other.totals);
        components += variants.reduce((sum, variant) => sum + (variant.components?.length ?? 0), 0);
        refused += variants.filter((variant) => variant.refused).length;
      }),
      { numRuns: 300 },
    );
    // A test that meets nothing proves nothing.
    expect(components).toBeGreaterThan(500);
    expect(refused).toBeGreaterThan(3);
  }, 60_000);
});
