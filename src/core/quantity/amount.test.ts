import { describe, expect, it } from 'vitest';
import { parseAmount, parsePositiveAmount } from './amount';
import { toText } from './rational';
import { findUnit, readUnit } from './units';

describe('an amount is read as a cook writes it', () => {
  it.each([
    ['2', '2'],
    ['3/4', '3/4'],
    ['1 1/2', '3/2'],
    [' 1  1/3 ', '4/3'],
    ['1½', '3/2'],
    ['1 ½', '3/2'],
    ['⅔', '2/3'],
    ['1 1\u20442', '3/2'],
    ['1.25', '5/4'],
    ['0.1', '1/10'],
    ['0', '0'],
    ['007', '7'],
  ])('"%s" is %s', (written, exact) => {
    expect(toText(parseAmount(written))).toBe(exact);
  });

  it.each(['', '–', '-1', '1/0', 'two', '1,5', '1e3', '1 2', '½½', '1/2/3', '∞', '9'.repeat(50), '1-2', '٣'])(
    '"%s" is refused, never guessed',
    (written) => {
      expect(() => parseAmount(written)).toThrow(/is not an amount|divides by 0/);
    },
  );

  it('nothing is not a positive amount', () => {
    expect(() => parsePositiveAmount('0')).toThrow('must be more than 0');
    expect(() => parsePositiveAmount('0/5')).toThrow('must be more than 0');
  });
});

describe('a unit is known by its words', () => {
  it.each([
    ['cups', 'cup'],
    ['Tbsp', 'Tbsp'],
    ['tablespoons', 'Tbsp'],
    ['TSP', 'tsp'],
    ['fl oz', 'fl oz'],
    ['metric cup', 'metric cup'],
    ['imperial pint', 'imperial pint'],
    ['lbs', 'lb'],
    ['grams', 'g'],
    ['litres', 'l'],
    ['liter', 'l'],
    ['cloves', 'clove'],
    ['pinches', 'pinch'],
  ])('%s is %s', (word, key) => {
    expect(readUnit(word).key).toBe(key);
  });

  it('keeps units of the same symbol apart: a US pint is not an imperial one', () => {
    expect(toText(readUnit('pt').size)).not.toBe(toText(readUnit('imperial pint').size));
  });

  it('does not guess between a teaspoon and a tablespoon', () => {
    expect(findUnit('t')).toBeUndefined();
    expect(findUnit('T')).toBeUndefined();
    expect(() => readUnit('bucket')).toThrow('"bucket" is not a unit we know. Use one of: tsp, Tbsp');
  });
});
