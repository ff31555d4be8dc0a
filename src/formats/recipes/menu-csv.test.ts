import { describe, expect, it } from 'vitest';
import { TYPICAL } from '@/core/reference/reference';
import { foodsIn, readMenuCsv } from './menu-csv';

describe('words for foods at hand', () => {
  it('are understood with amounts and in the plural; what is no food is passed over', () => {
    expect(foodsIn('2 kg carrots, apples; a box of surprises\nbutter', TYPICAL)).toEqual(['carrot', 'apple', 'butter']);
    expect(foodsIn('', TYPICAL)).toEqual([]);
  });
});

describe('a school’s menu', () => {
  it('is read day by day, with any separator, whatever else stands in it', () => {
    const menu = readMenuCsv(
      'Date;Lunch\n2027-01-12;carrot soup;apple crumble\n2027-01-12;butter\nweek 2;\n2027-01-13;rice\n',
      TYPICAL,
    );
    expect([...menu.keys()]).toEqual(['2027-01-12', '2027-01-13']);
    expect(menu.get('2027-01-12')).toEqual(['carrot', 'apple', 'butter']);
  });

  it('without a date that can be read is empty', () => {
    expect(readMenuCsv('12/01/2027, soup\n\n"', TYPICAL).size).toBe(0);
  });
});
