import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../reference/reference';
import { readLine } from './line-reader';

const read = (text: string) => {
  const { amount, unit, ingredient, preparation = '' } = readLine(text, TYPICAL).item;
  return [amount, unit, ingredient, preparation].join(' | ');
};

describe('a plain ingredient line', () => {
  it.each([
    ['1 1/2 cups carrots, grated', '1 1/2 | cup | carrot | grated'],
    ['½ tsp salt', '½ | tsp | salt | '],
    ['1½ cups rolled oats', '1½ | cup | rolled oats | '],
    ['2 cloves garlic', '2 | clove | garlic | '],
    ['2 garlic cloves', '2 | clove | garlic | '],
    ['1 cup grated carrot', '1 | cup | carrot | grated'],
    ['1.25 cups plain wheat flour', '1.25 | cup | plain wheat flour | '],
    ['30 g feta cheese', '30 | g | feta cheese | '],
    ['2 Tbsp of olive oil', '2 | Tbsp | olive oil | '],
    ['  3   Tbsp   butter ', '3 | Tbsp | butter | '],
    ['1\u20442 cup granulated sugar', '1\u20442 | cup | granulated sugar | '],
  ])('%s', (text, expected) => {
    expect(read(text)).toBe(expected);
  });

  it('counts pieces in the kind the food is weighed in', () => {
    expect(read('3 eggs')).toMatch(/^3 \| each \| egg \|/);
  });

  it('says what it had to take for granted', () => {
    expect(readLine('1/2 cup feta cheese', TYPICAL).assumed.join()).toContain('feta cheese is taken as crumbled');
    expect(readLine('2 Tbsp olive oil, chilled', TYPICAL).assumed.join()).toContain('does not change the weight');
    expect(readLine('1 cup carrot, grated', TYPICAL).assumed).toEqual([]);
  });

  it.each([
    ['salt to taste', 'does not begin with one amount'],
    ['1-2 cups carrots', 'does not begin with one amount'],
    ['1 to 2 cups carrots', 'does not begin with one amount'],
    ['1 cup + 2 Tbsp butter', 'No food'],
    ['1 cup coconut milk', 'No food'],
    ['2 cups almond butter', 'No food'],
    ['1 cup', 'No food'],
    ['', 'does not begin with one amount'],
    ['–', 'does not begin with one amount'],
  ])('refuses rather than guess: %s', (text, message) => {
    expect(() => readLine(text, TYPICAL)).toThrow(message);
  });
});
