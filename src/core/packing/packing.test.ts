import { describe, expect, it } from 'vitest';
import { shoppingList } from '../buying/shopping-list';
import { kitsToHold } from '../kits/record/judgement';
import { type LockedSheet, sheetDifferences } from '../kits/record/locked-sheet';
import type { SheetContent, SheetInput } from '../kits/record/sheet-content';
import { computeSheet, sheetContent } from '../kits/record/snapshot';
import type { Participant } from '../kits/sheet/participant';
import type { WrittenLine } from '../recipes/recipe/recipe';
import { TYPICAL } from '../reference/reference';
import { kitLabels, madeLabels } from './label';
import { benchSheet, type PackEvent, packedNow, packProgress, sayComponentKey } from './progress';

const LINES: WrittenLine[] = [
  {
    ingredient: 'plain yogurt',
    amount: '1',
    unit: 'cup',
    pack_grams: '500',
    alternatives: [{ ingredient: 'firm tofu', preparation: 'cubed', amount: '2/3', unit: 'cup' }],
  },
  {
    ingredient: 'egg',
    preparation: 'large, without shell',
    amount: '2',
    unit: 'each',
    scaling: 'whole',
    spare: '1/10',
    alternatives: [{ omit: true }],
  },
  {
    ingredient: 'canned chopped tomatoes',
    preparation: 'with juice',
    amount: '1 2/3',
    unit: 'cup',
    sealed_grams: '400',
  },
  { ingredient: 'rolled oats', amount: '1/3', unit: 'cup' },
];
const person = (name: string, servings: number, ...codes: string[]): Participant => ({
  id: `id ${name}`,
  name,
  servings,
  needs: codes.map((code) => ({ asWritten: code, codes: [code] })),
});
const ROLL = [person('Ada', 4), person('Bram', 4), person('Łucja', 2, 'MILK', 'EGG')];

function contentOf(people: readonly Participant[], lines = LINES, before?: SheetContent): SheetContent {
  const input: SheetInput = {
    system: 'us',
    dishes: [{ id: 'dish', title: 'Harbour cups', recipe: { servings: 4, lines } }],
    labels: {},
    reference: TYPICAL,
  };
  const computed = computeSheet(
    input,
    people,
    new Map(before?.variants.map((variant) => [variant.key, variant.letter])),
  );
  if ('problems' in computed) throw new Error(JSON.stringify(computed.problems));
  return sheetContent(input, computed);
}

function lock(content: SheetContent): LockedSheet {
  const kits = content.variants.flatMap((variant) =>
    variant.participants.map(({ id, name, group }) => ({
      enrolmentId: id,
      name,
      variant: variant.letter,
      ...(group ? { group } : {}),
    })),
  );
  return {
    format: 1,
    session: {
      id: 's',
      courseTitle: 'Small Hands',
      title: 'Cups',
      number: 3,
      date: '2026-11-26',
      startsAt: '16:00',
      place: 'Boatshed',
      mode: 'take-home',
      safetyProfile: 'us',
    },
    content,
    kits: kits.map((kit, index) => ({ ...kit, id: `kit ${index + 1}`, number: index + 1 })),
    leftOut: [],
  };
}

describe('differences since the lock', () => {
  const locked = lock(contentOf(ROLL));
  const told = (people: readonly Participant[], lines = LINES) =>
    sheetDifferences(locked, contentOf(people, lines, locked.content)).map(
      ({ kind, names, what }) => `${kind} ${names.join('+')}: ${what.join('; ')}`,
    );

  it('are none while nothing moved', () => {
    expect(told(ROLL)).toEqual([]);
  });

  it('tell who is new, who is gone, and whose kit is now made without something', () => {
    expect(told([person('Ada', 4, 'EGG'), person('Łucja', 2, 'MILK', 'EGG'), person('Cleo', 1)])).toEqual([
      'added Cleo: 1 serving',
      'removed Bram: no longer gets a kit',
      'changed Ada: now made without egg; egg, large, without shell 2 taken out',
    ]);
  });

  it('tell kits that change alike together, in amounts a packer knows', () => {
    const more = LINES.map((line) => (line.ingredient === 'rolled oats' ? { ...line, amount: '1/2' } : line));
    expect(told(ROLL, more)).toEqual([
      'changed Ada+Bram: rolled oats ½ cup, was ⅓ cup',
      'changed Łucja: rolled oats ¼ cup, was 2 Tbsp + 2 tsp',
    ]);
    expect(told([person('Ada', 5), person('Bram', 4), person('Łucja', 2, 'MILK', 'EGG')])).toEqual([
      'changed Ada: 5 servings, was 4',
    ]);
  });
});

describe('the bench', () => {
  const sheet = benchSheet(lock(contentOf(ROLL)), 1);
  const [first] = sheet.kits;
  const event = (
    seq: number,
    component: string,
    action: PackEvent['action'] = 'packed',
    kitId = first?.id ?? '',
  ): PackEvent => ({ id: `e${seq}`, kitId, component, action, seq });

  it('says which of the programme’s containers a component goes into', () => {
    const { variants } = benchSheet(lock(contentOf(ROLL)), 1, [{ name: 'tub', ml: 5000 }]);
    const [one] = variants;
    const measured = one?.components.find(({ unit, sealedUnits }) => unit !== 'each' && sealedUnits === undefined);
    expect(one?.into[measured?.key ?? '']).toBe('tub');
    expect(sheet.variants[0]?.into).toEqual({});
  });

  it('packs kits made without something first, and never names a person', () => {
    expect(sheet.kits.map(({ number, variant }) => [number, variant])).toEqual([
      [3, 'B'],
      [1, 'A'],
      [2, 'A'],
    ]);
    expect(JSON.stringify(sheet)).not.toMatch(/Ada|Bram|Łucja/);
    expect(sheet.variants.find(({ letter }) => letter === 'B')?.madeWithout).toEqual(['egg', 'milk']);
  });

  it('counts a tick once, takes it back, and is done when every component is in', () => {
    const components = first?.components ?? [];
    const events = components.map((component, index) => event(index + 1, component));
    expect(packProgress(sheet.kits, packedNow([...events, ...events])).ticks).toBe(components.length);
    expect(packProgress(sheet.kits, packedNow(events)).kitsDone).toBe(1);
    const back = [...events, event(99, components[0] ?? '', 'undone')];
    expect(packProgress(sheet.kits, packedNow(back)).kitsDone).toBe(0);
  });

  it('follows the order of the events, however they arrive', () => {
    const component = first?.components[0] ?? '';
    expect(
      packedNow([event(2, component, 'undone'), event(1, component)])
        .get(first?.id ?? '')
        ?.has(component),
    ).toBe(false);
  });

  it('calls back what a new revision no longer wants, and keeps what did not change', () => {
    const events = (first?.components ?? []).map((component, index) => event(index + 1, component));
    const before = lock(contentOf(ROLL));
    const after = lock(
      contentOf(
        [person('Ada', 4), person('Bram', 4), person('Łucja', 2, 'MILK', 'EGG', 'SOY')],
        LINES.map((line) => ({ ...line, alternatives: [...(line.alternatives ?? []), { omit: true }] })),
        before.content,
      ),
    );
    const kits = benchSheet(after, 2).kits.map((kit) => ({ ...kit, id: `kit ${kit.number}` }));
    const progress = packProgress(kits, packedNow(events));
    expect(progress.toTakeOut.map(({ component }) => sayComponentKey(component))).toEqual([
      'firm tofu, cubed (1/3 cup)',
    ]);
    expect(progress.ticks).toBe(2);
    expect(progress.kitsDone).toBe(0);
  });
});

describe('labels', () => {
  const labels = kitLabels(lock(contentOf(ROLL)), '2026-11-25');

  it('of what was made in class name its dishes, its allergens, and how soon it is eaten', () => {
    const made = madeLabels(lock(contentOf(ROLL)));
    expect(made).toHaveLength(labels.length);
    for (const [at, label] of made.entries()) {
      const { allergens, madeWithout, name } = labels[at] ?? {};
      expect(label).toMatchObject({ allergens, madeWithout, name });
      expect(label.keep).toMatch(/^Made in class on Thu 26 Nov 2026\. Keep cold, .* Eat by Fri 27 Nov 2026/);
      expect(label.inside.length).toBeGreaterThan(0);
    }
  });

  it('of what was made with rice give it a day', () => {
    const content = contentOf(ROLL);
    const [first] = content.variants;
    const [component] = first?.components ?? [];
    const rice = { ...component, ingredient: 'brown rice' } as never;
    const variants = content.variants.map((each) => ({ ...each, components: [...(each.components ?? []), rice] }));
    const [made] = madeLabels(lock({ ...content, variants }));
    expect(made?.keep).toContain('Eat by Fri 27 Nov 2026');
  });

  it('say what is inside, allergens in words, and how long it keeps', () => {
    expect(labels[0]).toMatchObject({
      name: 'Ada',
      variant: 'A',
      session: 'Small Hands 3: Cups, Thu 26 Nov 2026',
      inside: [
        '1 cup plain yogurt',
        '2 eggs, large, without shell',
        '1 whole pack of 400 g canned chopped tomatoes, with juice',
        '⅓ cup rolled oats',
      ],
      allergens: 'Contains milk, egg, gluten. May contain tree nuts, wheat: check the packs used.',
      madeWithout: '',
      // The day of packing is the first of three, as the US profile counts.
      keep: 'Keep cold, at or below 5 °C (41 °F). Use by Fri 27 Nov 2026.',
    });
    expect(labels[2]).toMatchObject({
      madeWithout: 'Made without egg, milk.',
      allergens: 'Contains gluten, soya. May contain tree nuts, wheat: check the packs used.',
    });
    expect(JSON.stringify(labels)).not.toMatch(/free from/i);
  });

  it('of a dry kit ask for no fridge, and name the first date that ends', () => {
    const dry = lock(contentOf([person('Ada', 4)], [{ ingredient: 'rolled oats', amount: '1', unit: 'cup' }]));
    expect(kitLabels(dry, '2026-11-25')[0]?.keep).toBe('Keep cool and dry. Use by Thu 25 Mar 2027.');
  });
});

describe('the shopping list', () => {
  it('goes by aisle, in packs, sealed units and pieces, and never asks for less than is packed', () => {
    const aisles = shoppingList(contentOf(ROLL).totals);
    const lines = aisles.flatMap(({ title, items }) =>
      items.map(({ ingredient, buy, need, left }) => [title, ingredient, buy, need, left].join(' | ')),
    );
    expect(lines).toEqual([
      'Dry goods | rolled oats | at least 68 g |  | ',
      'Cans and jars | canned chopped tomatoes | 3 × 400 g, sealed | 1200 g packed | ',
      'Dairy, eggs and tofu | egg | 5 pieces | about 220 g | ',
      'Dairy, eggs and tofu | firm tofu | at least 84 g |  | ',
      'Dairy, eggs and tofu | plain yogurt | 1 pack of 500 g | 490 g needed | 10 g left over',
    ]);
  });
});

describe('a sheet for two groups', () => {
  const of = (group: string, ...people: Participant[]) => people.map((each) => ({ ...each, group }));
  const people = [
    ...of('Thursday', person('Ada', 4), person('Łucja', 2, 'MILK', 'EGG')),
    ...of('Saturday', person('Bram', 4), person('Cleo', 4)),
  ];
  const meets = (name: string, date: string) => ({ name, date, startsAt: '10:00', place: 'Boatshed' });
  const plain = lock(contentOf(people));
  const locked: LockedSheet = {
    ...plain,
    session: { ...plain.session, groups: [meets('Thursday', '2026-11-26'), meets('Saturday', '2026-11-28')] },
  };

  it('is calculated and bought for together, whoever is in which', () => {
    const alone = contentOf(people.map(({ group: _, ...each }) => each));
    expect(contentOf(people).totals).toEqual(alone.totals);
    expect(contentOf(people).variants.map(({ letter, servings }) => [letter, servings])).toEqual(
      alone.variants.map(({ letter, servings }) => [letter, servings]),
    );
  });

  it('has the labels of one group after the other, each with its group and its day', () => {
    const labels = kitLabels(locked, '2026-11-25');
    expect(labels.map(({ name, group }) => `${group}: ${name}`)).toEqual([
      'Thursday: Ada',
      'Thursday: Łucja',
      'Saturday: Bram',
      'Saturday: Cleo',
    ]);
    expect(labels.map(({ session }) => session.slice(-15))).toEqual([
      'Thu 26 Nov 2026',
      'Thu 26 Nov 2026',
      'Sat 28 Nov 2026',
      'Sat 28 Nov 2026',
    ]);
  });

  it('names its groups at the bench in the order in which they meet, and each kit’s', () => {
    const { groups, kits } = benchSheet(locked, 1);
    expect(groups).toEqual(['Thursday', 'Saturday']);
    expect(kits.filter(({ group }) => group === 'Saturday')).toHaveLength(2);
    expect(benchSheet(plain, 1).groups).toEqual([]);
  });

  it('tells who changed groups after the lock, and holds nothing back for it', () => {
    const moved = people.map((each) => (each.name === 'Cleo' ? { ...each, group: 'Thursday' } : each));
    expect(sheetDifferences(locked, contentOf(moved, LINES, locked.content))).toMatchObject([
      { kind: 'changed', names: ['Cleo'], what: ['now in Thursday'] },
    ]);
    expect(kitsToHold(locked, moved, { reference: TYPICAL, labels: new Map() }).size).toBe(0);
  });
});
