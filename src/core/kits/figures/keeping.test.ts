import { describe, expect, it } from 'vitest';
import { findIngredient, TYPICAL } from '../../reference/reference';
import { keepingOf } from './keeping';

const keeps = (food: string, packed: string, preparation = '', unit = 'each', sealedUnits?: number) => {
  const found = findIngredient(TYPICAL, food);
  if (!found) throw new Error(food);
  return keepingOf({ packed, preparation, unit, ...(sealedUnits ? { sealedUnits } : {}) }, found);
};

describe('how a component is kept', () => {
  it.each([
    ['tomato', '1', 'medium', false],
    ['tomato', '1/2', 'medium', true],
    ['tomato', '2', 'medium, halved', true],
    ['butternut squash', '1/4', '', true],
    ['lemon', '1', 'juiced', true],
    ['onion', '1', 'whole, cut at class', false],
    ['onion', '1', 'cut', true],
    ['canned peaches', '4', '', true],
  ])('%s, %s, %s: in the cold is %s', (food, packed, preparation, cold) => {
    expect(keeps(food, packed, preparation)).toMatchObject(
      cold ? { cold: true, days: expect.toSatisfy((days) => days <= 3) } : { cold: false },
    );
  });

  it('sealed keeps as it was bought', () => {
    expect(keeps('canned peaches', '400', '', 'g', 1).cold).toBe(false);
    expect(keeps('canned peaches', '400', 'drained', 'g').cold).toBe(true);
  });
});
