import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { choose } from '../../recipes/recipe/choice';
import { readRecipe, type WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import { proposeVersions, versionFigures } from '../figures/compare-versions';
import { fewestVersions } from './fewest-variants';
import type { Participant } from './participant';
import { kitSheet } from './sheet';

const recipeOf = (lines: readonly WrittenLine[]) => {
  const reading = readRecipe({ servings: 4, lines }, TYPICAL);
  if ('problems' in reading) throw new Error(JSON.stringify(reading.problems));
  return reading.recipe;
};
const person = (id: string, codes: readonly string[] = []): Participant => ({
  id,
  name: id,
  servings: 2,
  needs: codes.map((code) => ({ asWritten: code, codes: [code] })),
});

/** Butter or oil; feta or tofu: who avoids milk gets soya, who avoids soya must have milk. */
const DISH = recipeOf([
  {
    ingredient: 'butter',
    amount: '40',
    unit: 'g',
    alternatives: [{ ingredient: 'olive oil', amount: '30', unit: 'g' }],
  },
  {
    ingredient: 'feta cheese',
    amount: '100',
    unit: 'g',
    alternatives: [{ ingredient: 'firm tofu', preparation: 'cubed', amount: '100', unit: 'g' }],
  },
]);

describe('the fewest versions', () => {
  it('are one where everybody can eat the same, and two where a swap for one is what another avoids', () => {
    expect(fewestVersions([DISH], [[], ['MILK']])).toMatchObject({
      versionOf: [0, 0],
      avoids: [['MILK']],
      isFewest: true,
    });
    const { versionOf, avoids, isFewest } = fewestVersions([DISH], [[], ['MILK'], ['SOY']]);
    expect(avoids).toHaveLength(2);
    expect(versionOf[1]).not.toBe(versionOf[2]);
    expect(isFewest).toBe(true);
  });

  it('keep a need that cannot be met apart, so that the others can be packed', () => {
    const { avoids, versionOf } = fewestVersions([DISH], [[], ['MILK', 'SOY'], ['MILK']]);
    expect(versionOf[0]).toBe(versionOf[2]);
    expect(avoids[versionOf[1] ?? -1]).toEqual(['MILK', 'SOY']);
  });

  it('are as few as by trying every way of sharing', () => {
    const codes = ['MILK', 'SOY', 'EGG', 'WHEAT', 'NUT', 'FISH'];
    const foods = [
      'butter',
      'firm tofu',
      'feta cheese',
      'olive oil',
      'plain wheat flour',
      'almonds',
      'potato',
      'walnuts',
      'soy sauce',
    ];
    const item = fc
      .constantFrom(...foods)
      .map((ingredient) => ({ ingredient, amount: '50', unit: 'g', label: undefined }));
    const line = fc
      .tuple(item, fc.array(item, { maxLength: 2 }))
      .map(([written, alternatives]) => ({ ...written, alternatives }) as WrittenLine);
    fc.assert(
      fc.property(
        fc.array(line, { minLength: 1, maxLength: 4 }),
        fc.array(fc.subarray(codes, { maxLength: 3 }), { minLength: 1, maxLength: 5 }),
        (lines, sets) => {
          const dishes = [recipeOf(lines)];
          const canShare = (group: readonly (readonly string[])[]) =>
            choose(dishes, [...new Set(group.flat())]).options.every((options) => !options.includes('refused'));
          const able = sets.filter((set) => canShare([set]));
          const fewest = (left: readonly (readonly string[])[], groups: (readonly string[])[][]): number => {
            const [first, ...rest] = left;
            if (!first) return groups.length;
            const ways = groups.map((_, at) => groups.map((each, other) => (other === at ? [...each, first] : each)));
            return Math.min(
              ...[...ways, [...groups, [first]]].map((next) =>
                next.every(canShare) ? fewest(rest, next) : Number.POSITIVE_INFINITY,
              ),
            );
          };
          const found = fewestVersions(dishes, sets);
          expect(found.isFewest).toBe(true);
          expect(found.avoids.length).toBe(fewest(able, []) + (sets.length - able.length));
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('a sheet whose people share versions', () => {
  const people = [person('Ada'), person('Bo', ['MILK']), person('Cleo', ['SOY']), person('Dario')];
  const sheet = (policy: 'separate' | 'fewest' | 'one', roll = people) => kitSheet([DISH], roll, 'metric', { policy });

  it('never gives anybody another’s swap that they must avoid, though it mattered nothing for their own kit', () => {
    // Cleo avoids soya, which the written dish does not hold; Bo's milk-free version holds it.
    const { variants } = sheet('fewest');
    const of = (name: string) => variants.find(({ participants }) => participants.some(({ id }) => id === name));
    expect(of('Bo')?.components?.map(({ item }) => item.ingredient.name)).toContain('firm tofu');
    expect(of('Cleo')?.components?.map(({ item }) => item.ingredient.name)).not.toContain('firm tofu');
    expect(variants).toHaveLength(2);
  });

  it('is one for all where that can be made; else each keeps their own', () => {
    const easy = people.filter(({ id }) => id !== 'Cleo');
    expect(sheet('one', easy).variants).toHaveLength(1);
    expect(sheet('one', easy).variants[0]?.avoids).toEqual(['MILK']);
    expect(sheet('one').variants).toHaveLength(sheet('separate').variants.length);
    // Who cannot be served at all keeps nobody else from sharing.
    const hopeless = [...easy, person('Edie', ['MILK', 'SOY'])];
    expect(sheet('one', hopeless).variants.map(({ participants }) => participants.length)).toEqual([3, 1]);
  });

  it('is proposed with reasons: never what refuses kits that another way makes', () => {
    const ways = (['separate', 'fewest', 'one'] as const).map((policy) => versionFigures(policy, sheet(policy), []));
    const { best, why } = proposeVersions(ways);
    expect(best.variants).toBe(2);
    expect(why).toMatch(/minutes at the bench; /);
    const refusing = { ...(ways[2] as (typeof ways)[number]), refused: 1, minutes: 0 };
    expect(proposeVersions([ways[0] as (typeof ways)[number], refusing]).best.policy).toBe('separate');
  });
});
