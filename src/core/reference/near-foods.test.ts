import { describe, expect, it } from 'vitest';
import { judgeNames } from '../../../tests/lines/judge';
import names from '../../../tests/lines/names.json';
import { nearFoods } from './near-foods';
import { foodNames, TYPICAL } from './reference';

const index = foodNames(TYPICAL);

describe('foods nearly written', () => {
  // Looked at once, the last 76 of them were read 25 times, asked 49 times with the right one first 45 times, and wrong once;
  // of the last 265 names of other foods four were read as one of the table.
  it('are read or offered first, and no other food is taken for one of the table', () => {
    const { asked, first, wrong } = judgeNames(names, TYPICAL);
    expect(wrong).toEqual([]);
    expect(first / asked).toBeGreaterThanOrEqual(0.9);
  });

  it.each([
    ['choped tomatos', /tomato/],
    ['sesame', /^sesame/],
    ['uqinoa', /^quinoa$/],
    ['blue berrys', /^blueberries$/],
    ['minced beaf', /^minced beef$/],
    ['plain flower', /^plain wheat flour$/],
  ])('%s comes first', (text, name) => {
    expect(nearFoods(text, index)[0]).toMatch(name);
    expect(nearFoods(text, index).length).toBeLessThanOrEqual(5);
  });

  it('of nothing like a food are none', () => {
    expect(nearFoods('xyzzy', index)).toEqual([]);
  });
});
