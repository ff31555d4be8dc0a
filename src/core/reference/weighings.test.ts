import { expect, it } from 'vitest';
import { sayWeighedTogether, weighedTogether } from './weighings';

const cup = (grams: string, preparation = 'grated') => ({ measure: 'cup', preparation, grams });
const TABLE = [{ ingredient: 'carrot', preparation: 'grated', measure: 'cup', grams: '110', source: 'typical' }];
const said = (...weighings: ReturnType<typeof cup>[]) =>
  weighedTogether(weighings, TABLE).map((row) => `${row.preparation}: ${sayWeighedTogether(row)}`);

it('says what several weighings of one measure come to, beside the table, each way of cutting apart', () => {
  expect(said(cup('118'), cup('70.5', 'fine'), cup('131'), cup('122'))).toEqual([
    'grated: 3 times, 118 to 131 g, 123.7 g on average; 12 % above the table’s 110 g',
    'fine: once, 70.5 g; the table says nothing of it',
  ]);
  expect(said(cup('110'), cup('110'))).toEqual(['grated: 2 times, 110 g, 110 g on average; as the table says']);
  expect(said(cup('88'))).toEqual(['grated: once, 88 g; 20 % below the table’s 110 g']);
  expect(said()).toEqual([]);
});
