import { describe, expect, it } from 'vitest';
import { parsePositiveAmount } from '../../quantity/amount';
import { TYPICAL } from '../../reference/reference';
import { type Product, servingFigures } from './cost';
import { type Recipe, readRecipe, type WrittenLine } from './recipe';

const recipeOf = (lines: WrittenLine[], servings = 4): Recipe => {
  const reading = readRecipe({ servings, lines }, TYPICAL);
  if ('problems' in reading) throw new Error(JSON.stringify(reading.problems));
  return reading.recipe;
};
const product = (ingredient: string, packGrams: string, price?: number, more: Partial<Product> = {}): Product => ({
  ingredient,
  name: `${ingredient} ${packGrams}`,
  packGrams: parsePositiveAmount(packGrams),
  price,
  saltMg: undefined,
  energyKj: undefined,
  ...more,
});
const LINES: WrittenLine[] = [
  { ingredient: 'butter', amount: '100', unit: 'g' },
  { ingredient: 'carrot', amount: '350', unit: 'g', yield_preparation: 'peeled and trimmed', spare: '1/10' },
];

describe('what a serving costs and holds', () => {
  it('is what is bought, with trimmings and spare, at the price by weight; what is eaten for salt and energy', () => {
    const butter = product('butter', '250', 250, { saltMg: 1500, energyKj: 3000 });
    const carrots = product('carrot', '1000', 140);
    const { cost, saltMg, energyKj } = servingFigures(recipeOf(LINES), [butter, carrots]);
    // Butter 1.00; carrots 350 g ÷ 0.70 × 1.1 = 550 g, 0.77: together 1.77 for four.
    expect(cost).toEqual({ perServing: 44, known: 2, of: 2 });
    expect(saltMg).toEqual({ perServing: 375, known: 1, of: 2 });
    expect(energyKj).toEqual({ perServing: 750, known: 1, of: 2 });
  });

  it('takes of several products the cheapest by weight, and its own label', () => {
    const small = product('butter', '125', 150, { saltMg: 0 });
    const large = product('butter', '500', 400, { saltMg: 2000 });
    const [line] = LINES as [WrittenLine];
    const { cost, saltMg } = servingFigures(recipeOf([line]), [small, large]);
    expect([cost.perServing, saltMg.perServing]).toEqual([20, 500]);
  });

  it('never takes a food without a product or a price for nothing, but says that it is missing', () => {
    const { cost } = servingFigures(recipeOf(LINES), [product('butter', '250')]);
    expect(cost).toEqual({ perServing: 0, known: 0, of: 2 });
  });
});
