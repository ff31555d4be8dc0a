import { describe, expect, it } from 'vitest';
import { prepList } from '../../packing/prep/prep-list';
import type { WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import type { SheetInput } from '../record/sheet-content';
import { computeSheet, sheetContent } from '../record/snapshot';
import type { LineWay } from '../supply/supplied';
import { consumablesOf } from './consumables';
import { containerFor, kitBulks } from './containers';

const LINES: readonly WrittenLine[] = [
  { ingredient: 'carrot', preparation: 'grated', amount: '1', unit: 'cup' },
  { ingredient: 'plain yogurt', amount: '1/2', unit: 'cup' },
  { ingredient: 'canned chickpeas', preparation: 'drained', amount: '400', unit: 'g', sealed_grams: '400' },
  { ingredient: 'olive oil', amount: '2', unit: 'tbsp' },
];

function contentOf(ways: readonly LineWay[] = [], avoids?: string) {
  const input: SheetInput = {
    system: 'us',
    dishes: [{ id: 'salad', title: 'Salad', recipe: { servings: 4, lines: LINES }, ways }],
    labels: {},
    reference: TYPICAL,
  };
  const people = ['Ada', 'Bo', 'Cy'].map((name, at) => ({
    id: name,
    name,
    servings: at === 2 ? 2 : 4,
    needs: avoids ? [{ asWritten: avoids, codes: [avoids] }] : [],
    supply: { atStation: true },
  }));
  const outcome = computeSheet(input, people);
  if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
  return sheetContent(input, outcome);
}

const SIZES = [
  { name: 'pot 60 ml', ml: 60 },
  { name: 'bag 250 ml', ml: 250 },
];

describe('containers', () => {
  it('are the smallest that hold the amount, or as many of the largest as it takes', () => {
    expect(containerFor(55, SIZES)).toEqual({ name: 'pot 60 ml', count: 1 });
    expect(containerFor(61, SIZES)).toEqual({ name: 'bag 250 ml', count: 1 });
    expect(containerFor(700, SIZES)).toEqual({ name: 'bag 250 ml', count: 3 });
    expect(containerFor(10, [])).toBeUndefined();
  });

  it('hold what is measured, never what is sealed; what is cold is told apart', () => {
    const [four] = kitBulks(contentOf(), SIZES);
    // A cup and half a cup: 237 and 118 ml; 2 tablespoons: 30 ml; a can of 400 g: 460 ml around it.
    expect([...(four?.containers ?? [])]).toEqual([
      ['bag 250 ml', 2],
      ['pot 60 ml', 1],
    ]);
    // Whoever stands at the bench is told which; the can stays what it is in.
    expect(Object.values(four?.into ?? {})).toEqual(['bag 250 ml', 'bag 250 ml', 'pot 60 ml']);
    expect(Math.round(four?.ml ?? 0)).toBe(237 + 118 + 30 + 460 - 1);
    // Grated carrot and yogurt travel cold.
    expect(Math.round(four?.coldMl ?? 0)).toBe(355);
    expect(four?.coldKeys.size).toBe(2);
  });
});

describe('consumables', () => {
  const RULES = [
    { id: 'bag', name: 'paper bag', per: 'kit' as const, count: 1, pack: 2 },
    { id: 'ice', name: 'ice pack', per: 'cold kit' as const, count: 2 },
    { id: 'fork', name: 'fork', per: 'serving' as const, count: 1 },
  ];

  it('are counted from kits, servings and the words of the steps', () => {
    const counts = consumablesOf(
      contentOf(),
      RULES,
      SIZES,
      kitBulks(contentOf(), SIZES),
      [['baking paper', 'paper towel', 'skewers'], ['paper towel']],
      { mode: 'take-home', goesHome: true },
    );
    expect(counts.map(({ name, count, packs }) => [name, count, packs])).toEqual([
      ['paper bag', 3, 2],
      ['ice pack', 6, undefined],
      ['fork', 10, undefined],
      ['pot 60 ml', 4, undefined],
      ['bag 250 ml', 5, undefined],
      ['baking paper', 3, undefined],
      ['paper towel', 6, undefined],
      ['skewers', 10, undefined],
    ]);
  });

  it('hold a labelled bag for each child whose dish goes home from class', () => {
    const counts = consumablesOf(contentOf(), [], [], [], [], { mode: 'in person', goesHome: true });
    expect(counts).toEqual([
      { name: 'labelled bag for what was made', count: 3, packs: undefined, because: 'one per person: 3' },
    ]);
  });
});

describe('the prep list of a day', () => {
  it('gathers a food by its cut over sessions, and says where it goes', () => {
    const parts = prepList([
      { session: 'Morning', content: contentOf() },
      { session: 'Evening', content: contentOf() },
    ]);
    expect(parts.map(({ title, foods }) => [title, foods.map(({ ingredient }) => ingredient)])).toEqual([
      ['Vegetables and fruit', ['carrot']],
      ['Dry goods, bread, dairy and cans', ['olive oil', 'plain yogurt']],
    ]);
    expect(parts[0]?.foods[0]?.cuts).toEqual([
      {
        cut: 'grated',
        product: '',
        // Twice (2 × 110 g + 55 g).
        sayTotal: '550 g',
        goesTo: ['Morning', 'Evening'].map((session) => ({
          session,
          dish: 'Salad',
          first: [],
          kits: [
            { say: '1 cup', count: 2, letters: ['A'] },
            { say: '½ cup', count: 1, letters: ['B'] },
          ],
        })),
      },
    ]);
  });

  it('sets out at the station what is shared there', () => {
    const [, dry] = prepList([{ session: 'Class', content: contentOf([{ ingredient: 'olive oil', way: 'station' }]) }]);
    expect(dry?.foods.find(({ ingredient }) => ingredient === 'olive oil')?.cuts[0]).toMatchObject({
      sayTotal: '68 g',
      goesTo: [{ kits: [{ say: '2 Tbsp at the station' }, { say: '1 Tbsp at the station' }] }],
    });
  });

  it('says which kits come first: those made without something, where others are not', () => {
    const input: SheetInput = {
      system: 'us',
      dishes: [
        {
          id: 'salad',
          title: 'Salad',
          recipe: {
            servings: 4,
            lines: [
              { ingredient: 'carrot', preparation: 'grated', amount: '1', unit: 'cup' },
              {
                ingredient: 'feta cheese',
                preparation: 'crumbled',
                amount: '1/2',
                unit: 'cup',
                alternatives: [{ ingredient: 'pumpkin seeds', amount: '1/4', unit: 'cup' }],
              },
              { ingredient: 'chicken thigh', amount: '300', unit: 'g' },
            ],
          },
        },
      ],
      labels: {},
      reference: TYPICAL,
    };
    const people = ['Ada', 'Bo', 'Cy'].map((name, at) => ({
      id: name,
      name,
      servings: 4,
      needs: at === 2 ? [{ asWritten: 'milk', codes: ['MILK'] }] : [],
    }));
    const outcome = computeSheet(input, people);
    if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
    const parts = prepList([{ session: 'Class', content: sheetContent(input, outcome) }]);
    // What is eaten as it is comes first, raw meat last.
    expect(parts.map(({ title }) => title)).toEqual([
      'Vegetables and fruit',
      'Dry goods, bread, dairy and cans',
      'Meat and fish',
    ]);
    expect(parts[0]?.foods[0]?.cuts[0]?.goesTo).toEqual([
      { session: 'Class', dish: 'Salad', first: ['B'], kits: [{ say: '1 cup', count: 3, letters: ['A', 'B'] }] },
    ]);
    const [cheese, seeds] = parts[1]?.foods ?? [];
    expect([cheese?.ingredient, seeds?.ingredient]).toEqual(['feta cheese', 'pumpkin seeds']);
    // Nobody else gets the seeds: there is nothing to come before.
    expect(seeds?.cuts[0]?.goesTo[0]).toMatchObject({ first: [], kits: [{ letters: ['B'] }] });
    expect(cheese?.cuts[0]?.goesTo[0]?.kits).toEqual([{ say: '½ cup', count: 2, letters: ['A'] }]);
  });
});
