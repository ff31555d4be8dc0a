import { describe, expect, it } from 'vitest';
import type { SheetTotal } from '../kits/record/sheet-content';
import { shoppingList } from './shopping-list';

const total = (change: Partial<SheetTotal> & Pick<SheetTotal, 'ingredient'>): SheetTotal => ({
  aisle: 'dry',
  edibleGrams: '300',
  sayEdible: '300 g',
  purchaseGrams: '300',
  sayPurchase: '300 g',
  ...change,
});
const only = (change: Partial<SheetTotal>) => shoppingList([total({ ingredient: 'rice', ...change })])[0]?.items[0];

describe('a walk through the shop', () => {
  it('begins with dry things and ends with cold and frozen ones, each aisle in order of name', () => {
    const aisles = shoppingList([
      total({ ingredient: 'peas', aisle: 'frozen' }),
      total({ ingredient: 'yogurt', aisle: 'dairy' }),
      total({ ingredient: 'rice' }),
      total({ ingredient: 'carrot', aisle: 'produce' }),
      total({ ingredient: 'apple', aisle: 'produce' }),
      total({ ingredient: 'candles', aisle: 'odds' }),
    ]);
    expect(
      aisles.map(({ title, items }) => `${title}: ${items.map(({ ingredient }) => ingredient).join(', ')}`),
    ).toEqual([
      'Vegetables and fruit: apple, carrot',
      'Dry goods: rice',
      'Dairy, eggs and tofu: yogurt',
      'Frozen: peas',
      'odds: candles',
    ]);
  });
});

describe('what to take from the shelf', () => {
  it('is whole packs, with what will be left of them', () => {
    expect(only({ packs: 2, packGrams: '500', purchaseGrams: '1800/2' })).toMatchObject({
      buy: '2 packs of 500 g',
      left: '100 g left over',
    });
    expect(only({ packs: 1, packGrams: '300' })).toMatchObject({ buy: '1 pack of 300 g', left: '0 g left over' });
  });

  it('is sealed units as they are, and never half a can', () => {
    const sealed = { packs: 19, sealedGrams: '400', purchaseGrams: undefined, sayPurchase: undefined };
    expect(only(sealed)).toMatchObject({ buy: '19 × 400 g, sealed', need: '300 g packed' });
  });

  it('is pieces where a food is counted', () => {
    expect(only({ pieces: 18, pieceUnit: 'each' })?.buy).toBe('18 pieces');
    expect(only({ pieces: 1, pieceUnit: 'each' })?.buy).toBe('1 piece');
    expect(only({ pieces: 3, pieceUnit: 'clove' })?.buy).toBe('3 cloves');
  });

  it('is never less than is needed: grams go up, not to the nearest', () => {
    expect(only({ purchaseGrams: '1001/10' })?.buy).toBe('at least 101 g');
    expect(only({ purchaseGrams: '100' })?.buy).toBe('at least 100 g');
    expect(only({ purchaseGrams: '10001' })?.buy).toBe('at least 10.01 kg');
  });
});
