import { describe, expect, it } from 'vitest';
import { parseAmount } from '../quantity/amount';
import { compare, divide, multiply, rational, toDecimal, toText } from '../quantity/rational';
import { findUnit, readUnit } from '../quantity/units';
import { AVOIDANCES, isAvoidanceCode } from '../safety/avoidances';
import { partPortion } from './parts';
import { excerpt, findIngredient, readIngredient, TYPICAL, typicalIn, weightOf, yieldOf } from './reference';

const unit = (word: string) => readUnit(word);
const grams = (food: string, preparation: string, word: string) =>
  toText(weightOf(TYPICAL, food, preparation, unit(word)).grams);

describe('the figures that ship', () => {
  it('each name their source, and none is impossible', () => {
    for (const row of [...TYPICAL.measures, ...TYPICAL.yields, ...TYPICAL.ingredients])
      expect(row.source, JSON.stringify(row)).toMatch(/\w{3}/);
    for (const { grams: weight } of TYPICAL.measures) {
      expect(compare(parseAmount(weight), rational(0))).toBeGreaterThan(0);
      expect(compare(parseAmount(weight), rational(4000))).toBeLessThan(0);
    }
    for (const { ediblePortion } of TYPICAL.yields) {
      expect(compare(parseAmount(ediblePortion), rational(0))).toBeGreaterThan(0);
      expect(compare(parseAmount(ediblePortion), rational(1))).toBeLessThanOrEqual(0);
    }
  });

  it('know the cans of a country, and an orange with its peel', () => {
    expect(toText(yieldOf(typicalIn('us'), 'canned sweetcorn', 'drained').portion)).toBe('67/100');
    expect(toText(yieldOf(typicalIn('uk'), 'canned sweetcorn', 'drained').portion)).toBe('21/25');
    // The juice of four oranges of 86 g is bought with four oranges of 185 g.
    const share = partPortion(TYPICAL, 'orange', 'juice');
    expect(share && Number(toDecimal(divide(rational(4 * 86), share), 0))).toBeCloseTo(4 * 184.5, -1);
  });

  it('speak of foods, measures and avoidances that there are', () => {
    for (const { ingredient, measure } of TYPICAL.measures) {
      expect(findIngredient(TYPICAL, ingredient), ingredient).toBeDefined();
      expect(findUnit(measure), measure).toBeDefined();
    }
    for (const { ingredient } of TYPICAL.yields) expect(findIngredient(TYPICAL, ingredient), ingredient).toBeDefined();
    for (const { contains, mayContain, diet, dietCheck } of TYPICAL.ingredients)
      for (const code of [...contains, ...mayContain, ...diet, ...dietCheck]) expect(isAvoidanceCode(code)).toBe(true);
    for (const { implies } of AVOIDANCES) for (const code of implies) expect(isAvoidanceCode(code)).toBe(true);
  });

  it('name no food twice, and no food both holds and only may hold the same', () => {
    const names = TYPICAL.ingredients.map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    for (const { contains, mayContain } of TYPICAL.ingredients)
      expect(mayContain.filter((code) => contains.includes(code))).toEqual([]);
  });
});

describe('a weight', () => {
  it('is that of the very measure, else converted by volume from another spoon or cup', () => {
    expect(grams('plain wheat flour', '', 'cup')).toBe('125');
    expect(grams('plain wheat flour', '', 'Tbsp')).toBe('125/16');
    expect(grams('brown lentils', 'raw', 'cup')).toBe('192');
    expect(grams('salt', '', 'g')).toBe('1');
    expect(toText(multiply(weightOf(TYPICAL, 'salt', '', unit('lb')).grams, rational(100000)))).toBe('45359237');
  });

  it('depends on the preparation, and is never guessed', () => {
    expect(grams('carrot', 'grated', 'cup')).not.toBe(grams('carrot', 'chopped', 'cup'));
    expect(() => grams('carrot', 'in roses', 'cup')).toThrow(
      /No weight is known for one cup of carrot, in roses. Known are: /,
    );
    expect(() => grams('egg', '', 'slice')).toThrow('No weight is known for one slice of egg');
  });
});

describe('a yield', () => {
  it('is the edible part of what is bought, by preparation', () => {
    expect(toText(yieldOf(TYPICAL, 'onion', 'peeled and trimmed').portion)).toBe('22/25');
    expect(() => yieldOf(TYPICAL, 'onion', 'gilded')).toThrow('Known are: peeled and trimmed');
    expect(() => yieldOf(TYPICAL, 'salt', 'peeled')).toThrow('Leave the yield preparation out.');
  });
});

describe('a food that is not in the table', () => {
  it('is refused, however it is spelled', () => {
    expect(() => readIngredient(TYPICAL, 'unicorn')).toThrow('"unicorn" is not in the reference table');
    expect(findIngredient(TYPICAL, '  Carrot ')?.name).toBe('carrot');
    expect(findIngredient(TYPICAL, 'constructor')).toBeUndefined();
  });
});

describe('the part of the table that a locked sheet keeps', () => {
  it('holds all that is known of its foods, and nothing of others', () => {
    const part = excerpt(TYPICAL, new Set(['carrot', 'salt']));
    expect(part.ingredients.map(({ name }) => name).sort()).toEqual(['carrot', 'salt']);
    expect(new Set(part.measures.map(({ ingredient }) => ingredient))).toEqual(new Set(['carrot', 'salt']));
    expect(weightOf(part, 'carrot', 'grated', unit('cup'))).toEqual(weightOf(TYPICAL, 'carrot', 'grated', unit('cup')));
    expect(() => readIngredient(part, 'egg')).toThrow();
  });
});

describe('a unit', () => {
  it.each([
    ['cups', 'cup'],
    ['Tablespoon', 'Tbsp'],
    ['teaspoons', 'tsp'],
    ['lbs', 'lb'],
    ['ounces', 'oz'],
    ['gram', 'g'],
    ['cloves', 'clove'],
    ['pieces', 'each'],
    ['tsp.', 'tsp'],
  ])('is known as %s', (word, key) => {
    expect(findUnit(word)?.key).toBe(key);
  });

  it('is not guessed from one letter that means two things', () => {
    for (const word of ['t', 'T', 'c', '', 'bucket', '__proto__']) expect(findUnit(word)).toBeUndefined();
    expect(() => readUnit('bucket')).toThrow('"bucket" is not a unit we know. Use one of: ');
  });
});
