import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type RollCells, readRollRow } from '@/core/roll/roll-row';
import { readRollCsv, writeRollCsv } from './roll-csv';

const back = (people: readonly Required<RollCells>[]) =>
  readRollCsv(new TextEncoder().encode(writeRollCsv(people))).rows.map(({ cells }) => cells);

const person = (change: Partial<Required<RollCells>> = {}): Required<RollCells> => ({
  name: 'Ada Finch',
  age: '7',
  servings: '2',
  avoids: 'milk; nuts',
  mode: 'take-home',
  group: '',
  household: 'Finch',
  contact: 'finch@example.test',
  address: '3 Rope Walk',
  plan: 'Pen in the red bag, then call.',
  ...change,
});

describe('a roll that goes out', () => {
  it('comes back as it was, whatever people are called and write', () => {
    const words = fc
      .string({ unit: fc.constantFrom(...'abcŁéß"\',;|½ \n&<>()/0 1'), minLength: 1, maxLength: 40 })
      .map((text) => text.trim().replace(/^[=+\-@]+/, ''))
      .filter((text) => text !== '');
    const anybody = fc
      .record({ name: words, household: words, address: words, plan: words })
      .map((change) => person(change));
    fc.assert(
      fc.property(fc.array(anybody, { minLength: 1, maxLength: 12 }), (people) => {
        expect(back(people)).toEqual(people);
      }),
      { numRuns: 60 },
    );
  });

  it('runs nothing in a spreadsheet, and still reads as the same person', () => {
    const text = writeRollCsv([
      person({ name: '=cmd()|x', plan: '@import', contact: '+44 1 555', address: '-1 Quay' }),
    ]);
    for (const part of ["'=cmd()|x", "'@import", ',+44 1 555', "'-1 Quay"]) expect(text).toContain(part);
    expect(text.split('\r\n')[0]).toBe('\uFEFFname,age,servings,avoids,mode,group,household,contact,address,plan');
  });

  it('may do without what a family did not tell', () => {
    const bare = person({ age: '', avoids: '', mode: '', household: '', contact: '', address: '', plan: '' });
    const [cells] = back([bare]);
    expect(readRollRow(cells as RollCells)).toMatchObject({
      entry: { name: 'Ada Finch', age: null, needs: [], plan: '' },
    });
  });
});
