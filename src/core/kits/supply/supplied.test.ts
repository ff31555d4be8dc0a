import { describe, expect, it } from 'vitest';
import { choose } from '../../recipes/recipe/choice';
import type { WrittenLine } from '../../recipes/recipe/recipe';
import { ownReference } from '../../reference/own-reference';
import { TYPICAL } from '../../reference/reference';
import { componentWorking, supplyWorking, type Working } from '../figures/working';
import { type LockedSheet, sheetDifferences } from '../record/locked-sheet';
import type { SheetInput } from '../record/sheet-content';
import { computeSheet, recomputeSheet, sheetContent } from '../record/snapshot';
import type { Participant } from '../sheet/participant';
import { itemName } from '../sheet/say-component';
import { afterKit, type CourseSupply, handedOutWith, NOTHING_HELD, supplyFromCourse } from './series';
import type { LineWay, Supply } from './supplied';

const line = (ingredient: string, amount: string, unit: string, more: Partial<WrittenLine> = {}): WrittenLine => ({
  ingredient,
  amount,
  unit,
  ...more,
});

const SOUP = [
  line('onion', '1', 'cup', { preparation: 'chopped', yield_preparation: 'peeled and trimmed' }),
  line('olive oil', '2', 'tbsp'),
  line('salt', '1', 'tsp', { precision: 'tight' }),
  line('long-grain white rice', '200', 'g', { pack_grams: '1000' }),
];

/** The table with a food that the programme added from one pack. */
const withOwn = (name: string) => {
  const [ingredient] = TYPICAL.ingredients;
  if (!ingredient) throw new Error('no foods');
  return ownReference(
    TYPICAL,
    [{ ingredient: { ...ingredient, name, contains: [], mayContain: [] }, measures: [], yields: [] }],
    [],
  );
};

/** The sheet of a soup for 4, for people who are supplied in these ways. */
function sheetOf(
  people: readonly { supply?: Supply; servings?: number; avoids?: string }[],
  ways: readonly LineWay[] = [],
) {
  const input: SheetInput = {
    system: 'us',
    dishes: [{ id: 'soup', title: 'Soup', recipe: { servings: 4, lines: SOUP }, ways }],
    labels: {},
    reference: TYPICAL,
  };
  const roll = people.map(
    ({ supply, servings = 4, avoids }, at): Participant => ({
      id: String(at),
      name: `Person ${at}`,
      servings,
      needs: avoids ? [{ asWritten: avoids, codes: [avoids] }] : [],
      ...(supply ? { supply } : {}),
    }),
  );
  const outcome = computeSheet(input, roll);
  if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
  const content = sheetContent(input, outcome);
  const kitOf = (person: number) => {
    const variant = content.variants.find(({ participants }) => participants.some(({ id }) => id === String(person)));
    return (variant?.components ?? []).map(
      ({ name, say, from, isShared, isCatchUp }) =>
        `${say} ${name}${from ? `, ${from}` : ''}${isShared ? ', at the station' : ''}${isCatchUp ? ', catch-up' : ''}`,
    );
  };
  const total = (food: string) => content.totals.find(({ ingredient }) => ingredient === food);
  return { content, outcome, kitOf, total };
}

describe('how a component reaches who cooks', () => {
  it('leaves what is shared at the station out of kits cooked there, buys it, and packs it for those at home', () => {
    const ways: LineWay[] = [{ ingredient: 'olive oil', way: 'station' }];
    const { kitOf, total, content } = sheetOf([{ supply: { atStation: true } }, {}], ways);
    expect(kitOf(0)).toContain('2 Tbsp olive oil, at the station');
    expect(kitOf(1)).toContain('2 Tbsp olive oil');
    expect(content.variants).toHaveLength(2);
    expect(total('olive oil')?.sayEdible).toBe('54 g');
  });

  it('sends the onion whole to who learns to cut, and chopped to the smallest', () => {
    const ways: LineWay[] = [{ ingredient: 'onion', way: 'whole' }];
    const { kitOf, total } = sheetOf([{ supply: { cuts: true } }, {}], ways);
    // A cup of chopped onion weighs 160 g, a trimmed onion 110 g: two.
    expect(kitOf(0)).toContain('2 onion, whole, cut at class');
    expect(kitOf(1)).toContain('1 cup onion, chopped');
    // (220 g + 160 g) of which 0.88 can be eaten.
    expect(total('onion')?.sayPurchase).toBe('432 g');
  });

  it('packs nothing that the family agreed to take from its shelf, and does not buy it', () => {
    const { kitOf, total } = sheetOf([{ supply: { staples: ['olive oil', 'honey'] } }]);
    expect(kitOf(0)).toContain('2 Tbsp olive oil, at home already');
    expect(total('olive oil')).toBeUndefined();
  });

  it.each([
    ['where the family’s pack could hold what the kit is made without', 'rolled oats', TYPICAL],
    ['where the food is known by the label of the programme’s pack alone', 'samphire paste', withOwn('samphire paste')],
  ])('packs the programme’s own %s', (_where, food, reference) => {
    const oats = [line(food, '100', 'g', { label: [] })];
    const input: SheetInput = {
      system: 'us',
      dishes: [{ id: 'bake', title: 'Bake', recipe: { servings: 4, lines: oats } }],
      labels: {},
      reference,
    };
    const needs = [{ asWritten: 'gluten', codes: ['GLUTEN'] }];
    const person = (id: string, more: Partial<Participant>) => ({ id, name: id, servings: 4, needs: [], ...more });
    const supply = { staples: [food] };
    const outcome = computeSheet(input, [person('Ada', { supply, needs }), person('Bo', { supply })]);
    if ('problems' in outcome) throw new Error('unexpected');
    const from = outcome.sheet.variants.map(({ participants, components }) => [
      participants[0]?.name,
      components?.[0]?.from,
    ]);
    expect(from).toEqual(
      expect.arrayContaining([
        ['Ada', undefined],
        ['Bo', 'at home already'],
      ]),
    );
  });

  it('tops up the box that a family receives anyway, and never doubles it', () => {
    const { kitOf, total } = sheetOf([
      { supply: { box: [{ ingredient: 'long-grain white rice', grams: '150' }] } },
      { supply: { box: [{ ingredient: 'long-grain white rice', grams: '500' }] } },
    ]);
    expect(kitOf(0).filter((each) => each.includes('rice'))).toEqual([
      '5¼ oz (150 g) long-grain white rice, in the box they receive',
      '1¾ oz (50 g) long-grain white rice',
    ]);
    expect(kitOf(1).filter((each) => each.includes('rice'))).toEqual([
      '7 oz (200 g) long-grain white rice, in the box they receive',
    ]);
    expect(total('long-grain white rice')?.sayEdible).toBe('50 g');
  });

  it('computes the same sheet again from its plain form', () => {
    const supply: Supply = {
      staples: ['salt'],
      jars: [{ id: 'oil', at: 0, ingredient: 'olive oil', grams: '250' }],
      issues: [{ id: 'spoons', at: 1, name: 'measuring spoons', count: 1 }],
    };
    const { content } = sheetOf([{ supply }, {}, { supply, avoids: 'MILK' }]);
    const again = recomputeSheet(JSON.parse(JSON.stringify(content)));
    expect(again && sheetContent(content.input, again)).toEqual(content);
  });
});

describe('the working of a kit that is filled so', () => {
  const flat = (working: Working): string[] => [
    [working.what, working.value, working.because].filter(Boolean).join(' | '),
    ...working.from.flatMap(flat),
  ];
  /** The working of the component whose name holds these words, of the first person’s kit. */
  function workingOf(words: string, supply: Supply, ways: readonly LineWay[] = []) {
    const { outcome } = sheetOf([{ supply }], ways);
    const components = outcome.sheet.variants[0]?.components ?? [];
    const component = components.find((each) => itemName(each.item).includes(words));
    if (!component) throw new Error(`No ${words} in the kit`);
    return flat(
      component.isOfCourse ? supplyWorking(component, components, 'us') : componentWorking(component, 4, 4, 'us'),
    );
  }

  it('leads from whole pieces back to the cup that the recipe says', () => {
    const working = workingOf('onion', { cuts: true }, [{ ingredient: 'onion', way: 'whole' }]);
    expect(working[0]).toBe(
      'onion, whole, cut at class, in one kit | 2 = 220 g | whole pieces of 110 g that give what is cut at class; a piece may fall a tenth short',
    );
    expect(working.at(-1)).toBe('The recipe says | 1 cup onion, chopped, for 4 servings');
  });

  it('says what comes from where, and what is drawn from a jar that goes out', () => {
    const jars = [{ id: 'oil', at: 0, ingredient: 'olive oil', grams: '250', isCatchUp: true }];
    expect(workingOf('salt', { staples: ['salt'] }).join()).toContain('is at home already, not bought by itself');
    expect(workingOf('olive oil', { jars }).join()).toContain('comes from the jar, not bought by itself');
    expect(workingOf('jar for the course', { jars })).toEqual([
      'olive oil, jar for the course | 1 sealed unit of 250 g | what is left of jars had before does not suffice; others had it with an earlier kit: a late joiner catches up',
      'Drawn by this kit: olive oil | 27 g',
    ]);
    const issues = [{ id: 'spoons', at: 0, name: 'measuring spoons', count: 1 }];
    expect(workingOf('spoons', { issues })).toEqual(['measuring spoons | 1 | issued once; it has not been had before']);
  });

  it('tells a difference by where the food comes from, not only by how much', () => {
    const { content: before } = sheetOf([{}]);
    const { content: now } = sheetOf([{ supply: { staples: ['salt'] } }]);
    const kits = [{ id: 'kit', number: 1, enrolmentId: '0', name: 'Person 0', variant: 'A' }];
    const locked = { format: 1, session: {}, content: before, kits, leftOut: [] } as unknown as LockedSheet;
    expect(sheetDifferences(locked, now)).toEqual([
      { kind: 'changed', names: ['Person 0'], what: ['salt 1 tsp at home already, was 1 tsp'] },
    ]);
  });
});

describe('supplies of a course', () => {
  const SUPPLIES: CourseSupply[] = [
    { id: 'oil', kind: 'jar', name: 'olive oil', grams: '50', from: 1 },
    { id: 'spoons', kind: 'issue once', name: 'measuring spoons', from: 1 },
    { id: 'cutter', kind: 'issue once', name: 'round cutter', from: 2, until: 2 },
  ];
  /** The kits of one family over sessions of the same soup, each with what it still has. */
  function kitsOver(numbers: readonly number[], startedWith: readonly string[] = []) {
    let held = NOTHING_HELD;
    const handedOut = new Set(startedWith);
    return numbers.map((number) => {
      const supply = supplyFromCourse(SUPPLIES, number, held, handedOut);
      const { kitOf, outcome, content } = sheetOf([{ supply }]);
      const kit = kitOf(0);
      const given = handedOutWith(content.variants[0]?.supply, outcome.dishes, choose(outcome.dishes, []), 4);
      held = afterKit(held, given);
      for (const { supplyId, units } of given) if (units > 0) handedOut.add(supplyId);
      return kit.filter((each) => /oil|spoons|cutter/.test(each));
    });
  }

  it('issues equipment once, and a jar that is drawn down until it no longer suffices', () => {
    // 27 g a session out of jars of 50 g.
    expect(kitsOver([1, 2, 3])).toEqual([
      ['2 Tbsp olive oil, from the jar', '1 sealed unit of 50 g olive oil, jar for the course', '1 measuring spoons'],
      ['2 Tbsp olive oil, from the jar', '1 sealed unit of 50 g olive oil, jar for the course', '1 round cutter'],
      ['2 Tbsp olive oil, from the jar'],
    ]);
  });

  it('catches a late joiner up with exactly what sessions still to come need', () => {
    const [kit] = kitsOver([3], ['oil', 'spoons', 'cutter']);
    expect(kit).toEqual([
      '2 Tbsp olive oil, from the jar',
      '1 sealed unit of 50 g olive oil, jar for the course, catch-up',
      '1 measuring spoons, catch-up',
    ]);
  });

  it('counts a jar among what is bought, never what is drawn from it nor equipment', () => {
    const { content, total } = sheetOf([{ supply: supplyFromCourse(SUPPLIES, 1, NOTHING_HELD, new Set()) }]);
    expect(total('olive oil')).toMatchObject({ packs: 1, sealedGrams: '50' });
    expect(content.totals.map(({ ingredient }) => ingredient)).not.toContain('measuring spoons');
  });

  it('gives no jar of a food to who must avoid it', () => {
    const supply = supplyFromCourse(SUPPLIES, 1, NOTHING_HELD, new Set());
    const { content } = sheetOf([{ supply, avoids: 'food:olive oil' }]);
    expect(content.variants[0]?.components).toBeNull();
    expect(content.refusedKits).toBe(1);
  });
});
