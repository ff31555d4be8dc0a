import { describe, expect, it } from 'vitest';
import { EATERS, estimateServings, ROLES_OF_DISH, servingGrams } from './serving-size';

describe('an estimated yield', () => {
  it.each([
    [2100, 'main', 'adults', 6],
    [2100, 'main', 'children', 9],
    [2100, 'main', 'teenagers', 5],
    [2100, 'side', 'adults', 18],
    [500, 'taste', 'small children', 25],
    [60, 'main', 'adults', 1],
    [9_000_000, 'taste', 'adults', 500],
  ] as const)('of %i g as a %s for %s is %i servings', (grams, role, eater, servings) => {
    expect(estimateServings(grams, role, eater)).toBe(servings);
  });

  it('is larger the smaller the part of the meal, and the smaller the eater', () => {
    for (const eater of EATERS) {
      const sizes = ROLES_OF_DISH.map((role) => servingGrams(role, eater));
      expect([...sizes].sort((a, b) => a - b)).toEqual(sizes);
    }
    expect(estimateServings(3000, 'main', 'children')).toBeGreaterThan(estimateServings(3000, 'main', 'teenagers'));
  });
});
