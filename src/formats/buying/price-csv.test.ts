import { describe, expect, it } from 'vitest';
import { FileRefused } from '../text';
import { readPriceCsv, writePriceCsv } from './price-csv';

const read = (text: string) => readPriceCsv(new TextEncoder().encode(text));

describe('a file of prices', () => {
  it('is read whatever the order of its columns and the mark between them, and comes back as it went out', () => {
    const { lines, problems } = read(
      'Shop;Food;Product;Price;Grams;Sold by;From;To;From packs\nQuay;onion;Loose onions;£0,99;1000;weight;;;\nQuay;rice;"Rice; long";2.49;1000;;2026-12-01;2026-12-07;2\n',
    );
    expect(problems).toEqual([]);
    expect(lines).toMatchObject([
      { line: 2, food: 'onion', soldBy: 'weight', price: 99, from: null, least: 1 },
      { line: 3, product: 'Rice; long', soldBy: 'pack', price: 249, from: '2026-12-01', to: '2026-12-07', least: 2 },
    ]);
    expect(read(writePriceCsv(lines)).lines).toEqual(lines);
  });

  it('names each line that cannot be used, with what to mend', () => {
    const { lines, problems } = read(
      'food,product,grams,shop,price,from,to\n,X,1,Q,1,,\nrice,X,0,Q,1,,\nrice,X,5,Q,0,,\nrice,X,5,Q,a lot,,\nrice,X,5,Q,1,2026-12-05,2026-12-01\nrice,X,5,Q,1,2026-12-05,\nrice,=X,5,Q,1,,\n\n',
    );
    expect(problems.map(({ line }) => line)).toEqual([2, 3, 4, 5, 6, 7]);
    expect(problems.map(({ message }) => message)).toEqual([
      'Write a food.',
      '“0” is no weight of a pack: write grams, more than 0.',
      'A price of 0 is no price: leave the line out, or write what it costs.',
      '“a lot” is no price: write it as 2.49.',
      'The offer ends before it begins.',
      'An offer has a first and a last day.',
    ]);
    expect(lines).toHaveLength(1);
  });

  it('is refused where its first row names no such columns', () => {
    expect(() => read('name,cost\nrice,1\n')).toThrow(FileRefused);
  });
});
