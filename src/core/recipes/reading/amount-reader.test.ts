import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { add, equals, rational, toText } from '../../quantity/rational';
import { plainNumber, readAmount, readMeasure, turnedRound } from './amount-reader';

/** An amount as it was read: "3/2 cup | rest". */
const read = (line: string) => {
  const { amount, unit, rest, vague } = readAmount(line);
  if (!amount) return `${vague || 'none'} | ${rest}`;
  const said = equals(amount.least, amount.most)
    ? toText(amount.least)
    : `${toText(amount.least)} to ${toText(amount.most)}`;
  return `${said} ${unit?.key ?? ''}`.trim().concat(` | ${rest}`);
};

describe('what a line begins with', () => {
  it.each([
    ['2 cups flour', '2 cup | flour'],
    ['1½ tsp salt', '3/2 tsp | salt'],
    ['1 ½ tsp salt', '3/2 tsp | salt'],
    ['1-1/2 cups milk', '3/2 cup | milk'],
    ['1 and 1/2 cups milk', '3/2 cup | milk'],
    ['1 1/2 cups of milk', '3/2 cup | milk'],
    ['0,25 l water', '1/4 l | water'],
    ['2.5kg potatoes', '5/2 kg | potatoes'],
    ['1,000 g flour', '1000 g | flour'],
    ['about 200 g rice', '200 g | rice'],
    ['~200 g rice', '200 g | rice'],
    ['two onions', '2 | onions'],
    ['half an onion', '1/2 | onion'],
    ['half a dozen eggs', '6 | eggs'],
    ['2 dozen eggs', '24 | eggs'],
    ['a couple of carrots', '2 | carrots'],
    ['a pinch of salt', '1 pinch | salt'],
    ['pinch of salt', '1 pinch | salt'],
    ['3 cloves of garlic', '3 clove | garlic'],
    ['1/4 of a cabbage', '1/4 | cabbage'],
    ['2 inch piece of ginger', '2 inch | ginger'],
    ['1-inch knob ginger', '1 inch | ginger'],
    ['some rice', 'to taste | rice'],
    ['a few mint leaves', 'few | mint leaves'],
    ['a drizzle of oil', 'to taste | oil'],
    ['salt', 'none | salt'],
  ])('%s', (line, wanted) => {
    expect(read(line)).toBe(wanted);
  });

  it.each([
    ['2-3 carrots', '2 to 3 | carrots'],
    ['2 – 3 carrots', '2 to 3 | carrots'],
    ['2 to 3 cups oats', '2 to 3 cup | oats'],
    ['between 2 and 3 cups oats', '2 to 3 cup | oats'],
    ['1/2-3/4 cup sugar', '1/2 to 3/4 cup | sugar'],
    ['1½–2 cups rice', '3/2 to 2 cup | rice'],
  ])('keeps both ends of a range: %s', (line, wanted) => {
    expect(read(line)).toBe(wanted);
  });

  it.each([
    ['1 cup + 2 Tbsp flour', '9/8 cup | flour'],
    ['1 cup plus 2 tablespoons flour', '9/8 cup | flour'],
    ['1 lb 4 oz potatoes', '5/4 lb | potatoes'],
    ['1 kg 250 g potatoes', '5/4 kg | potatoes'],
    // Not of one kind: nothing is added.
    ['1 cup 200 g flour', '1 cup | 200 g flour'],
  ])('adds up what is written as a sum: %s', (line, wanted) => {
    expect(read(line)).toBe(wanted);
  });

  it('tells what one pack holds from how many there are', () => {
    for (const line of ['2 x 400 g tins tomatoes', '2 × 400g cans tomatoes', '2 400 g tins tomatoes']) {
      const { amount, unit, pack } = readAmount(line);
      expect([toText(amount?.least ?? rational(0)), unit?.key, pack?.unit.key], line).toEqual(['2', 'can', 'g']);
      expect(toText(pack?.amount.least ?? rational(0)), line).toBe('400');
    }
  });

  it('knows letters for spoons and cups, and says that it took them for that', () => {
    expect(readAmount('2 T oil')).toMatchObject({ unit: { key: 'Tbsp' }, assumed: ['“T” is taken as a tablespoon'] });
    expect(readAmount('2 t oil')).toMatchObject({ unit: { key: 'tsp' }, assumed: ['“t” is taken as a teaspoon'] });
    expect(readAmount('2 c. oats')).toMatchObject({ unit: { key: 'cup' }, assumed: ['“c” is taken as a cup'] });
  });

  it('reads any mixed number exactly, however it is written', () => {
    const part = fc.constantFrom([1, 2], [1, 3], [2, 3], [1, 4], [3, 4], [1, 8], [5, 8]) as fc.Arbitrary<
      [number, number]
    >;
    fc.assert(
      fc.property(fc.nat(40), part, fc.constantFrom(' ', '-', ' and '), (whole, [n, d], between) => {
        const text = whole === 0 ? `${n}/${d}` : `${whole}${between}${n}/${d}`;
        const { amount } = readAmount(`${text} cups rolled oats`);
        expect(toText(amount?.least ?? rational(0)), text).toBe(toText(add(rational(whole), rational(n, d))));
      }),
    );
  });

  it('never throws but for an amount that is none', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(...'0123456789 ½/.,-–x()cupTbsp gofa'), maxLength: 60 }),
        (line) => {
          try {
            readAmount(line);
          } catch (error) {
            expect((error as Error).message).toMatch(/divides by 0|is not an amount/);
          }
        },
      ),
      { numRuns: 500 },
    );
  });
});

describe('a number at the end of a line', () => {
  it.each([
    ['Flour: 250 g', '250 g Flour'],
    ['eggs, 2', '2 eggs'],
    ['butter 50g', '50 g butter'],
    ['Sugar – 1/2 cup', '1/2 cup Sugar'],
  ])('is turned round: %s', (line, wanted) => {
    expect(turnedRound(line)).toBe(wanted);
  });

  it('is left where it is something else', () => {
    expect(turnedRound('Bake at gas mark 6 minutes')).toBeUndefined();
    expect(turnedRound('2 cups flour')).toBeUndefined();
  });
});

describe('a measure in brackets', () => {
  it.each(['400 g', '15-ounce', 'about 110 g', '14.5 oz', '250 grams', '¼ cup', 'approx. 200g', '100 g each'])(
    '%s',
    (text) => {
      expect(readMeasure(text)).toBeDefined();
    },
  );

  it.each(['optional', 'see note', 'about 1 small head', '2 pieces of it', ''])('is not: %s', (text) => {
    expect(readMeasure(text)).toBeUndefined();
  });

  it('has decimal commas and thousands in one form', () => {
    expect([plainNumber('1,5'), plainNumber('1,500'), plainNumber('1-1/2')]).toEqual(['1.5', '1500', '1 1/2']);
  });
});
