import { describe, expect, it } from 'vitest';
import type { WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import { canonicalJson, type LockedSheet, sheetDifferences } from './locked-sheet';
import type { SheetContent, SheetInput } from './sheet-content';
import { computeSheet, recomputeSheet, sheetContent } from './snapshot';

const BUTTER: WrittenLine = {
  ingredient: 'butter',
  amount: '3',
  unit: 'Tbsp',
  alternatives: [{ ingredient: 'olive oil', amount: '2', unit: 'Tbsp' }],
};
const FLOUR: WrittenLine = { ingredient: 'plain wheat flour', amount: '2', unit: 'cup' };
const SALT: WrittenLine = { ingredient: 'salt', amount: '1/2', unit: 'tsp' };

interface Person {
  readonly name: string;
  readonly id?: string;
  readonly servings?: number;
  readonly codes?: readonly string[];
}

function content(people: readonly Person[], lines: readonly WrittenLine[] = [BUTTER, FLOUR]): SheetContent {
  const input: SheetInput = {
    system: 'us',
    dishes: [{ id: 'd', title: 'Dough', recipe: { servings: 4, lines } }],
    labels: {},
    reference: TYPICAL,
  };
  const participants = people.map(({ name, id = name, servings = 4, codes = [] }) => ({
    id,
    name,
    servings,
    needs: codes.map((code) => ({ asWritten: code, codes: [code] })),
  }));
  const outcome = computeSheet(input, participants as never, new Map());
  if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
  return sheetContent(input, outcome);
}

function locked(people: readonly Person[], lines?: readonly WrittenLine[]): LockedSheet {
  const made = content(people, lines);
  const kits = made.variants.flatMap(({ letter, participants }) =>
    participants.map(({ id, name }, index) => ({
      id: `k${id}`,
      number: index + 1,
      enrolmentId: id,
      name,
      variant: letter,
    })),
  );
  const session = {
    id: 's',
    courseTitle: 'C',
    title: 'T',
    number: 1,
    date: '2026-11-26',
    startsAt: '16:00',
    place: 'P',
  };
  return {
    format: 1,
    session: { ...session, mode: 'take-home', safetyProfile: 'us' },
    content: made,
    kits,
    leftOut: [],
  };
}

const told = (before: LockedSheet, now: SheetContent) =>
  sheetDifferences(before, now).map(({ kind, names, what }) => `${kind} ${names.join('+')}: ${what.join('; ')}`);

describe('what changed since a lock, in words', () => {
  const roll = [{ name: 'Ada' }, { name: 'Bram' }];

  it('is nothing when only the order of the roll changed', () => {
    expect(told(locked(roll), content([...roll].reverse()))).toEqual([]);
  });

  it.each<[string, Person[], string[]]>([
    ['a person more', [...roll, { name: 'Cleo', servings: 2 }], ['added Cleo: 2 servings']],
    ['a person less', [{ name: 'Ada' }], ['removed Bram: no longer gets a kit']],
    ['another size', [{ name: 'Ada', servings: 2 }, { name: 'Bram' }], ['changed Ada: 2 servings, was 4']],
    ['another name', [{ name: 'Ada Finch', id: 'Ada' }, { name: 'Bram' }], ['changed Ada Finch: now called Ada Finch']],
    [
      'a new need with a safe alternative',
      [{ name: 'Ada', codes: ['MILK'] }, { name: 'Bram' }],
      ['changed Ada: now made without milk; olive oil 2 Tbsp instead of butter 3 Tbsp'],
    ],
    [
      'a new need that nothing meets',
      [{ name: 'Ada', codes: ['WHEAT'] }, { name: 'Bram' }],
      ['changed Ada: cannot be made yet'],
    ],
    [
      'the same change for two people, told once',
      roll.map((person) => ({ ...person, servings: 8 })),
      ['changed Ada+Bram: 8 servings, was 4'],
    ],
  ])('%s', (_what, now, expected) => {
    expect(told(locked(roll), content(now))).toEqual(expected);
  });

  it('tells a recipe that moved by what goes into the kits', () => {
    const before = locked(roll);
    expect(told(before, content(roll, [{ ...BUTTER, amount: '4' }, FLOUR]))).toEqual([
      'changed Ada+Bram: butter ¼ cup, was 3 Tbsp',
    ]);
    expect(told(before, content(roll, [BUTTER, FLOUR, SALT]))).toEqual(['changed Ada+Bram: salt ½ tsp added']);
    expect(told(before, content(roll, [FLOUR]))).toEqual([
      expect.stringMatching(/^changed Ada\+Bram: .*butter 3 Tbsp( taken out)?/),
    ]);
  });
});

describe('a locked sheet', () => {
  it('computes again to the same from what it keeps, whatever the tables become', () => {
    const { content: kept } = locked([
      { name: 'Ada', codes: ['MILK'] },
      { name: 'Bram', servings: 3 },
    ]);
    const again = recomputeSheet(JSON.parse(JSON.stringify(kept)));
    expect(again).toBeDefined();
    if (again) expect(canonicalJson(sheetContent(kept.input, again))).toBe(canonicalJson(kept));
    expect(kept.input.reference.ingredients.length).toBeLessThan(10);
  });

  it('has one text, however its keys are ordered', () => {
    expect(canonicalJson({ b: [1, { d: null, c: 'x' }], a: undefined })).toBe('{"b":[1,{"c":"x","d":null}]}');
    expect(canonicalJson({ a: 1, b: 2 })).toBe(canonicalJson({ b: 2, a: 1 }));
    expect(canonicalJson([1, 2])).not.toBe(canonicalJson([2, 1]));
  });
});
