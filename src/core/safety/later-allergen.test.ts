import { describe, expect, it, vi } from 'vitest';
import { computeCase } from '../kits/figures/kit-case';
import { TYPICAL } from '../reference/reference';
import { blockersOf, EDITION, holdingsOf, labelGaps, withoutCode } from './avoidances';

// A law adds an allergen: nobody who wrote a table or read a label before was asked about it.
vi.mock('../reference/facts/avoidances.json', async (original) => {
  const { default: known } = await original<{ default: object[] }>();
  const later = { code: 'BUCKWHEAT', kind: 'allergen', label: 'buckwheat', implies: [], note: '', since: 2 };
  return { default: [...known, later] };
});

const food = (name: string) => {
  const found = TYPICAL.ingredients.find((each) => each.name === name);
  if (!found) throw new Error(name);
  return found;
};
const blocked = (label?: readonly string[], own = food('carrot')) =>
  blockersOf(holdingsOf(own, label), ['BUCKWHEAT', 'MILK']);

describe('an allergen that came later', () => {
  it('is unknown of everything that was recorded before, and blocks until it was asked about', () => {
    expect(EDITION).toBe(2);
    expect(blocked()).toEqual(['BUCKWHEAT']);
    expect(blocked([])).toEqual(['BUCKWHEAT']);
    expect(blocked(['MILK'])).toEqual(['BUCKWHEAT', 'MILK']);
    expect(blocked([withoutCode('BUCKWHEAT')])).toEqual([]);
    expect(blocked(['BUCKWHEAT', withoutCode('BUCKWHEAT')])).toEqual(['BUCKWHEAT']);
    expect(blocked(undefined, { ...food('carrot'), edition: EDITION })).toEqual([]);
  });

  it('refuses kits to whoever avoids it, and to nobody else', () => {
    const line = { ingredient: 'carrot', preparation: 'grated', amount: '1', unit: 'cup' };
    const kits = [
      { count: 1, servings: 1, avoids: ['BUCKWHEAT'] },
      { count: 1, servings: 1, avoids: ['MILK'] },
    ];
    const outcome = computeCase({ recipe: { servings: 1, lines: [line] }, kits } as never, TYPICAL);
    if (!('result' in outcome)) throw new Error(JSON.stringify(outcome.problems));
    expect(outcome.result.variants.map(({ refused }) => refused?.[0]?.blocked_by)).toEqual([['BUCKWHEAT'], undefined]);
  });
});

describe('a label', () => {
  it('settles a diet only where the product was looked at for it', () => {
    const cheddar = food('cheddar cheese');
    const vegetarian = (label?: readonly string[]) => blockersOf(holdingsOf(cheddar, label), ['MEAT']);
    expect(vegetarian()).toEqual(['MEAT']);
    expect(vegetarian(['MILK'])).toEqual(['MEAT']);
    expect(vegetarian(['MILK', withoutCode('MEAT')])).toEqual([]);
    // What is of meat by nature stays so, whatever is said.
    expect(blockersOf(holdingsOf(food('bacon'), [withoutCode('MEAT')]), ['MEAT'])).toEqual(['MEAT']);
  });

  it('of a food that is made of an allergen is asked about when it does not name it', () => {
    expect(labelGaps(food('firm tofu'), [])).toEqual(['SOY']);
    expect(labelGaps(food('firm tofu'), ['SOY'])).toEqual([]);
    expect(labelGaps(food('sliced bread'), ['WHEAT', 'GLUTEN', withoutCode('SOY')])).toEqual([]);
    expect(labelGaps(food('ground cumin'), [])).toEqual([]);
  });
});
