import { parsePositiveAmount } from '@/core/quantity/amount';
import type { Product } from '@/core/recipes/recipe/cost';
import { find } from '@/store/query';
import type { ProductRow } from '@/store/tables/recipes';
import type { Context } from '../gate/gate';

/** A product as the core computes with it. */
export const productFrom = ({ ingredient, name, packGrams, price, saltMg, energyKj }: ProductRow): Product => ({
  ingredient,
  name,
  packGrams: parsePositiveAmount(packGrams),
  price: price ?? undefined,
  saltMg: saltMg ?? undefined,
  energyKj: energyKj ?? undefined,
});

/** Every product of the programme. */
export async function loadProducts(context: Context): Promise<Product[]> {
  const { db } = context.store;
  return (await find(db, db.models.product, { programmeId: context.actor.programmeId })).map(productFrom);
}
