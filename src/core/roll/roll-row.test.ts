import { describe, expect, it } from 'vitest';
import { type RollCells, readRollRow } from './roll-row';

const cells = (change: Partial<RollCells> = {}): RollCells => ({
  name: 'Ada Finch',
  age: '7',
  servings: '2',
  avoids: '',
  mode: '',
  ...change,
});
const refusal = (change: Partial<RollCells>) => {
  const reading = readRollRow(cells(change));
  return 'problems' in reading ? reading.problems.map(({ column, message }) => `${column}: ${message}`).join(' ') : '';
};

describe('a row of the roll', () => {
  it('is read with its avoidances one by one, and names are tidied but never changed', () => {
    expect(readRollRow(cells({ name: '  Łucja   Wren ', avoids: 'egg; nuts', mode: 'Take home', age: '' }))).toEqual({
      entry: {
        name: 'Łucja Wren',
        age: null,
        servings: 2,
        needs: ['egg', 'nuts'],
        mode: 'take-home',
        group: '',
        household: '',
        contact: '',
        address: '',
        plan: '',
      },
    });
  });

  it.each([
    ['7 yrs', 7],
    ['8½', 8],
    ['Aged 9', 9],
    ['six', 6],
    ['10yo', 10],
    ['7 years 6 months', 7],
    ['18 months', 1],
  ])('has an age however a parent writes it: %s', (age, years) => {
    expect(readRollRow(cells({ age }))).toMatchObject({ entry: { age: years } });
    expect(readRollRow(cells({ servings: '4 (2 adults, 2 kids)' }))).toMatchObject({ entry: { servings: 4 } });
  });

  it('tells of the family on one line each, and refuses what is too long rather than cut a plan short', () => {
    expect(readRollRow(cells({ household: ' Wren ', plan: 'Pen in the blue bag.\nThen call.' }))).toMatchObject({
      entry: { household: 'Wren', plan: 'Pen in the blue bag. Then call.' },
    });
    expect(readRollRow(cells({ plan: 'x'.repeat(2001) }))).toMatchObject({
      problems: [{ column: 'plan', message: 'Longer than 2000 characters: shorten it.' }],
    });
  });

  it.each([
    [{ servings: '0' }, 'servings: 0 servings is too few. Write a whole number from 1 to 40.'],
    [{ servings: '1000' }, 'servings: 1000 servings is too many.'],
    [{ servings: '-2' }, 'servings: -2 servings is too few.'],
    [{ servings: '2.5' }, 'servings: 2.5 is not a whole number'],
    [{ servings: '2,5' }, 'servings: 2,5 is not a whole number'],
    [{ servings: 'some' }, 'servings: "some" is not a number of servings'],
    [{ servings: '' }, 'servings: Say how many'],
    [{ servings: '9'.repeat(400) }, 'servings: "9999'],
    [{ age: '130' }, 'age: 130 years is too many'],
    [{ age: '2026-09-08' }, 'age: 2026-09-08 is a date: a spreadsheet makes one of what looks like one. Write'],
    [{ name: ' ' }, 'name: The name is missing.'],
    [{ name: 'A'.repeat(101) }, 'name: Longer than 100 characters'],
    [{ name: 'Ada\u0000Finch' }, 'name: The name holds characters that cannot be printed'],
    [{ mode: 'by pigeon' }, 'mode: "by pigeon" is not a mode. Write one of: in person, take-home'],
    [{ mode: 'constructor' }, 'mode: "constructor" is not a mode.'],
    [{ avoids: 'x'.repeat(401) }, 'avoids: Longer than 400'],
  ])('%j is refused with the place and the remedy', (change, message) => {
    expect(refusal(change)).toContain(message);
  });

  it('keeps script and formulas as the plain text they are', () => {
    const reading = readRollRow(cells({ name: '<script>alert(1)</script>', avoids: '=cmd()' }));
    expect(reading).toMatchObject({ entry: { name: '<script>alert(1)</script>', needs: ['=cmd()'] } });
  });
});
