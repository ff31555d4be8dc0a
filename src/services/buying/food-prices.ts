import type { FoodPrice } from '@/core/buying/nothing-lost';
import type { ShelfPriceRow } from '@/store/tables/buying';
import type { ProductRow } from '@/store/tables/recipes';

/** Prices as they hold, each with the food of its product. */
export const pricesOfFoods = (prices: readonly ShelfPriceRow[], products: readonly ProductRow[]): FoodPrice[] => {
  const byId = new Map(products.map((product) => [product.id, product]));
  return prices.flatMap(({ productId, price, soldBy }) => {
    const product = byId.get(productId);
    return product ? [{ ingredient: product.ingredient, packGrams: Number(product.packGrams), price, soldBy }] : [];
  });
};
