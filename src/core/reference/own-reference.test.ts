import { describe, expect, it } from 'vitest';
import { toText } from '../quantity/rational';
import { readUnit } from '../quantity/units';
import { type OwnFood, ownReference, weighingDoubt } from './own-reference';
import { findIngredient, foodNames, measuresOf, TYPICAL, weightOf } from './reference';

const SAMPHIRE: OwnFood = {
  ingredient: {
    name: 'samphire',
    aisle: 'produce',
    contains: [],
    mayContain: [],
    diet: [],
    dietCheck: [],
    plateGroup: 'vegetable',
    vegetableFamily: 'dark green',
    storage: 'cold',
    daysWhole: 3,
    daysOpened: 1,
    perishable: 'when cut',
    source: 'added by Marit Solway, 2026-11-25',
  },
  measures: [{ ingredient: 'samphire', preparation: '', measure: 'cup', grams: '60', source: 'added' }],
  yields: [],
};
const weighed = (ingredient: string, grams: string, preparation = '', measure = 'cup') => ({
  ingredient,
  preparation,
  measure,
  grams,
  source: 'weighed here, 2026-11-25',
});
const grams = (reference: typeof TYPICAL, food: string, preparation: string, unit: string) =>
  toText(weightOf(reference, food, preparation, readUnit(unit)).grams);

describe('a programme’s own table', () => {
  it('is the typical one, the very same, as long as nothing is its own', () => {
    expect(ownReference(TYPICAL, [], [])).toBe(TYPICAL);
  });

  it('has its own foods beside the typical ones, found and weighed like them', () => {
    const own = ownReference(TYPICAL, [SAMPHIRE], []);
    expect(findIngredient(own, 'Samphire')).toEqual({ ...SAMPHIRE.ingredient, isOwn: true });
    expect(findIngredient(TYPICAL, 'samphire')).toBeUndefined();
    expect(grams(own, 'samphire', '', 'Tbsp')).toBe('15/4');
    expect(foodNames(own).byKey.get('samphire')).toBe('samphire');
    expect(own.ingredients).toHaveLength(TYPICAL.ingredients.length + 1);
  });

  it('weighs as its own scale said, spoons of it too, and other preparations as before', () => {
    const own = ownReference(TYPICAL, [], [weighed('carrot', '120', 'grated')]);
    expect(grams(own, 'carrot', 'grated', 'cup')).toBe('120');
    expect(grams(own, 'carrot', 'grated', 'Tbsp')).toBe('15/2');
    expect(grams(own, 'carrot', 'chopped', 'cup')).toBe(grams(TYPICAL, 'carrot', 'chopped', 'cup'));
    expect(measuresOf(own, 'carrot')).toHaveLength(measuresOf(TYPICAL, 'carrot').length);
    expect(weightOf(own, 'carrot', 'grated', readUnit('cup')).from?.source).toBe('weighed here, 2026-11-25');
  });

  it('learns a measure that the typical one did not have', () => {
    const own = ownReference(TYPICAL, [], [weighed('quince', '21', 'chopped')]);
    expect(() => weightOf(TYPICAL, 'quince', 'chopped', readUnit('cup'))).toThrow('No weight is known');
    expect(grams(own, 'quince', 'chopped', 'cup')).toBe('21');
  });

  it('weighs its own foods anew as well', () => {
    const own = ownReference(TYPICAL, [SAMPHIRE], [weighed('samphire', '66')]);
    expect(grams(own, 'samphire', '', 'cup')).toBe('66');
    expect(measuresOf(own, 'samphire')).toHaveLength(1);
  });
});

describe('a weighing', () => {
  it.each([
    ['120', '110'],
    ['330', '110'],
    ['120', undefined],
    ['3000', undefined],
  ])('of %s g where %s g were known is taken', (grams, before) => {
    expect(weighingDoubt(grams, before)).toBeUndefined();
  });

  it.each([
    ['331', '110', 'far from the 110 g known so far'],
    ['36', '110', 'with the empty bowl taken off'],
    ['0', undefined, 'more than nothing'],
    ['3001', undefined, 'at most 3 kg'],
  ])('of %s g where %s g were known is doubted', (grams, before, why) => {
    expect(weighingDoubt(grams, before)).toContain(why);
  });
});
