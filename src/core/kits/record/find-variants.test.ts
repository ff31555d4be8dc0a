import { describe, expect, it } from 'vitest';
import { findVariants } from './find-variants';
import type { SheetVariant } from './sheet-content';

const variant = (letter: string, more: Partial<SheetVariant>) =>
  ({
    letter,
    servings: 2,
    madeWithout: [],
    unknownWishes: [],
    participants: [],
    components: [],
    ...more,
  }) as unknown as SheetVariant;
const VARIANTS = [
  variant('A', { participants: [{ id: '1', name: 'Zoë Okarr' }] }),
  variant('B', { madeWithout: ['milk'], servings: 4 }),
  variant('C', { madeWithout: ['egg', 'milk'], components: [{ option: 1, name: 'firm tofu, cubed' }] as never }),
  variant('AA', { unknownWishes: ['E120'], components: null }),
];
const found = (wanted: string) => findVariants(VARIANTS, wanted).map(({ letter }) => letter);

describe('a variant looked for on a long kit sheet', () => {
  it.each([
    ['', ['A', 'B', 'C', 'AA']],
    ['aa', ['AA']],
    ['a', ['A']],
    ['zoe', ['A']],
    ['Milk', ['B', 'C']],
    ['tofu', ['C']],
    ['e120', ['AA']],
    ['feeding 4', ['B']],
    ['nobody', []],
  ])('"%s" is %j', (wanted, letters) => {
    expect(found(wanted)).toEqual(letters);
  });
});
