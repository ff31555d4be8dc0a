import { z } from 'zod';
import { findIngredient } from '@/core/reference/reference';
import { nameKey } from '@/core/roll/name-key';
import { writePriceCsv } from '@/formats/buying/price-csv';
import { pricesNow } from '@/store/buying';
import { find, insert } from '@/store/query';
import type { ShelfPriceRow } from '@/store/tables/buying';
import type { ProductRow } from '@/store/tables/recipes';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';
import { priceRow } from './shops';

/** Rows written at once. */
const BATCH = 1000;

export const importPrices = service({
  title: 'Bring prices in from a file',
  roles: ['coordinator'],
  costly: true,
  input: z.object({
    bytes: z.instanceof(Uint8Array),
    /** Lines that cannot be used are left out, and named; otherwise nothing is saved where there are any. */
    skip: z.boolean().default(false),
  }),
  run: async (context, { bytes, skip }) => {
    const { programmeId } = context.actor;
    const { lines, problems: unread } = await pooled('readPrices', { bytes });
    const { programme } = await loadProgramme(context);
    return context.store.transaction(async (db) => {
      const shops = await find(db, db.models.shop, { programmeId });
      const products = new Map(
        (await find(db, db.models.product, { programmeId })).map((row) => [
          `${row.ingredient} ${nameKey(row.name)}`,
          row.id,
        ]),
      );
      const problems = [...unread];
      const added: ProductRow[] = [];
      const prices: ShelfPriceRow[] = [];
      for (const { line, food: written, product, grams, shop: shopName, soldBy, price, from, to, least } of lines) {
        const food = findIngredient(programme.reference, written);
        const shop = shops.find(({ name }) => nameKey(name) === nameKey(shopName));
        if (!food)
          problems.push({
            line,
            message: `“${written}” is not in the reference table: name a food as it does, or add it there.`,
          });
        else if (!shop) problems.push({ line, message: `There is no shop called “${shopName}”: add it first.` });
        else {
          const key = `${food.name} ${nameKey(product)}`;
          const productId = products.get(key) ?? context.ids();
          if (!products.has(key)) {
            products.set(key, productId);
            const unread = { allergens: null, saltMg: null, energyKj: null, readAt: null, readBy: null };
            const own = { id: productId, programmeId, ingredient: food.name, name: product, packGrams: String(grams) };
            added.push({ ...own, price: soldBy === 'weight' ? null : price, ...unread, inKits: 0, version: 1 });
          }
          prices.push(
            priceRow(context, { shopId: shop.id, productId, soldBy, price, fromDay: from, toDay: to, least }, 'file'),
          );
        }
      }
      problems.sort((a, b) => a.line - b.line);
      if (problems.length > 0 && !skip)
        throw new ServiceError(
          'invalid',
          `${problems.length} of ${lines.length + unread.length} lines cannot be used. Nothing was saved: mend them, or bring in the others.`,
          problems.slice(0, 50).map(({ line, message }) => ({ where: `line ${line}`, message })),
        );
      for (let at = 0; at < added.length; at += BATCH) await insert(db, db.models.product, added.slice(at, at + BATCH));
      for (let at = 0; at < prices.length; at += BATCH)
        await insert(db, db.models.shelfPrice, prices.slice(at, at + BATCH));
      await logChange(context, db, 'brought in', 'prices', programmeId, {
        prices: prices.length,
        products: added.length,
      });
      return { prices: prices.length, products: added.length, left: problems.length };
    });
  },
});

export const exportPrices = service({
  title: 'Take the price book out as CSV',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const shops = new Map((await find(db, db.models.shop, { programmeId })).map((row) => [row.id, row]));
    const products = new Map((await find(db, db.models.product, { programmeId })).map((row) => [row.id, row]));
    return writePriceCsv(
      (await pricesNow(db, programmeId)).flatMap(
        ({ shopId, productId, soldBy, price, fromDay: from, toDay: to, least }) => {
          const [shop, product] = [shops.get(shopId), products.get(productId)];
          if (!shop || !product || price === null) return [];
          const { ingredient: food, name, packGrams } = product;
          return [{ food, product: name, grams: Number(packGrams), shop: shop.name, soldBy, price, from, to, least }];
        },
      ),
    );
  },
});
