import { expect, it } from 'vitest';
import { writeCsv } from './csv';

it('text that a spreadsheet would run as a formula stays text', () => {
  const text = writeCsv([['=cmd()', '+1', '-1', '@x', ' =1+1', '\t=1', 'Ada-Lou', 12, -3]]);
  expect(text).toBe("\uFEFF'=cmd(),'+1,'-1,'@x,' =1+1,'\t=1,Ada-Lou,12,-3\r\n");
});

it('a phone number stays one, and is no formula', () => {
  expect(writeCsv([['+44 20 7946 0123', '+1-555-010-0199', '+1+1']])).toBe(
    "\uFEFF+44 20 7946 0123,+1-555-010-0199,'+1+1\r\n",
  );
});

it('quotes, separators and line breaks inside a cell survive', () => {
  expect(writeCsv([['a "b", c', 'd\ne', 'Łucja ⅓']])).toBe('\uFEFF"a ""b"", c","d\ne",Łucja ⅓\r\n');
});
