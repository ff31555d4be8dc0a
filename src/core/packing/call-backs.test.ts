import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withoutPeople } from '../kits/erased-sheet';
import { canonicalJson, type LockedSheet } from '../kits/locked-sheet';
import type { SheetContent, SheetInput } from '../kits/sheet-content';
import { computeSheet, sheetContent } from '../kits/snapshot';
import type { WrittenLine } from '../recipes/recipe';
import { TYPICAL } from '../reference/reference';
import { kitsToHold } from './call-backs';
import { calledBackNow, type PackAction } from './progress';

const LINES: WrittenLine[] = [
  {
    ingredient: 'plain yogurt',
    amount: '1',
    unit: 'cup',
    alternatives: [{ ingredient: 'firm tofu', preparation: 'cubed', amount: '2/3', unit: 'cup' }],
  },
  { ingredient: 'egg', preparation: 'large, without shell', amount: '1', unit: 'each', scaling: 'whole' },
];
const INPUT: SheetInput = {
  system: 'us',
  dishes: [{ id: 'd', title: 'Dip', recipe: { servings: 4, lines: LINES } }],
  labels: {},
  reference: TYPICAL,
};

interface Person {
  readonly name: string;
  readonly servings?: number;
  readonly codes?: readonly string[] | undefined;
  readonly isUnknown?: boolean;
}

function calculated(people: readonly Person[], input = INPUT): SheetContent {
  const participants = people.map(({ name, servings = 1, codes = [], isUnknown }) => ({
    id: name,
    name,
    servings,
    wishes: isUnknown
      ? [{ asWritten: 'latex fruit', codes: undefined }]
      : codes.map((code) => ({ asWritten: code, codes: [code] })),
  }));
  const outcome = computeSheet(input, participants as never, new Map());
  if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
  return sheetContent(input, outcome);
}

function locked(people: readonly Person[]): LockedSheet {
  const content = calculated(people);
  const kits = content.variants.flatMap((variant) =>
    variant.participants.map(({ id, name }) => ({
      id: `kit of ${id}`,
      number: 1,
      enrolmentId: id,
      name,
      variant: variant.letter,
    })),
  );
  const session = { id: 's', courseTitle: '', title: '', number: 1, date: '2026-11-26', startsAt: '16:00', place: '' };
  return { format: 1, session: { ...session, mode: 'take-home', safetyProfile: 'us' }, content, kits, leftOut: [] };
}

const held = (before: readonly Person[], now: readonly Person[], input = INPUT) =>
  [...kitsToHold(locked(before), calculated(now, input))].sort();

describe('which kits are held', () => {
  const ada = { name: 'Ada' };
  const bram = { name: 'Bram', codes: ['MILK'] };

  it('none while everything is as it was locked', () => {
    expect(held([ada, bram], [ada, bram])).toEqual([]);
    expect(held([ada, bram], [bram, ada])).toEqual([]);
  });

  it('the kit of a person who must avoid something more, or something less', () => {
    expect(held([ada, bram], [{ ...ada, codes: ['MILK'] }, bram])).toEqual(['kit of Ada']);
    expect(held([ada, bram], [ada, { name: 'Bram' }])).toEqual(['kit of Bram']);
  });

  it('not for what makes no difference to these dishes', () => {
    expect(held([ada, bram], [{ ...ada, codes: ['FISH'] }, bram])).toEqual([]);
  });

  it('where no kit can be made any more: a word without meaning, nothing safe, nobody to get it', () => {
    expect(held([ada], [{ ...ada, isUnknown: true }])).toEqual(['kit of Ada']);
    expect(held([ada], [{ ...ada, codes: ['EGG'] }])).toEqual(['kit of Ada']);
    expect(held([ada, bram], [bram])).toEqual(['kit of Ada']);
  });

  it('not for another size, another amount or a person who is new', () => {
    expect(held([ada], [{ ...ada, servings: 3 }])).toEqual([]);
    expect(held([ada], [ada, bram])).toEqual([]);
    const more: WrittenLine[] = [{ ...(LINES[0] as WrittenLine), amount: '2' }, LINES[1] as WrittenLine];
    const bigger = { ...INPUT, dishes: [{ id: 'd', title: 'Dip', recipe: { servings: 4, lines: more } }] };
    expect(held([ada, bram], [ada, bram], bigger)).toEqual([]);
  });

  it('every kit whose effective needs differ, and no other, for any two rolls', () => {
    const codes = fc.subarray(['MILK', 'FISH', 'SOY']);
    const roll = fc.array(codes, { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(roll, roll, (before, now) => {
        const people = (all: string[][]) => all.map((own, index) => ({ name: `P${index}`, codes: own }));
        // Milk changes the kit; soya too where tofu stands in for yogurt, and then nothing is safe; fish never.
        const effect = (own: string[] | undefined) => {
          if (!own) return 'gone';
          if (!own.includes('MILK')) return 'plain';
          return own.includes('SOY') ? 'refused' : 'tofu';
        };
        const lockable = before.filter((own) => effect(own) !== 'refused');
        fc.pre(lockable.length > 0);
        const expected = lockable.flatMap((own, index) =>
          effect(own) === effect(now[index]) && effect(now[index]) !== 'refused' ? [] : [`kit of P${index}`],
        );
        expect(held(people(lockable), people(now))).toEqual(expected.sort());
      }),
      { numRuns: 60 },
    );
  });
});

describe('what is called back now', () => {
  const event = (seq: number, kitId: string, action: PackAction) => ({
    id: `e${seq}`,
    seq,
    kitId,
    component: '',
    action,
  });

  it('is told by the last word on each kit, in the order of the bench, however the events arrive', () => {
    const events = [
      event(1, 'a', 'called back'),
      event(2, 'b', 'called back'),
      event(3, 'a', 'let go on'),
      event(4, 'c', 'packed'),
      event(5, 'c', 'called back'),
      event(6, 'c', 'undone'),
    ];
    expect([...calledBackNow(events)].sort()).toEqual(['b', 'c']);
    expect([...calledBackNow([...events].reverse())].sort()).toEqual(['b', 'c']);
    expect(calledBackNow([]).size).toBe(0);
  });
});

describe('a locked sheet without some people', () => {
  it('has lost their names and reasons, and nothing else', () => {
    const people = [{ name: 'Ada' }, { name: 'Bram', codes: ['MILK'] }, { name: 'Cleo' }];
    const sheet = { ...locked(people), leftOut: [{ enrolmentId: 'Dario', name: 'Dario', reason: 'away with Bram' }] };
    const after = withoutPeople(sheet, new Set(['Bram', 'Dario']));
    const blank = (text: string) => text.replace(/"name":"(Bram|Dario|Erased)"|"reason":"[^"]*"/g, '');
    expect(blank(canonicalJson(after))).toBe(blank(canonicalJson(sheet)));
    expect(canonicalJson(after)).not.toContain('"name":"Bram"');
    expect(canonicalJson(after)).not.toContain('away with');
    expect(after.kits.map(({ name }) => name).sort()).toEqual(['Ada', 'Cleo', 'Erased']);
    expect(canonicalJson(sheet)).toContain('"name":"Bram"');
  });
});
