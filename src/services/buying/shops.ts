import { z } from 'zod';
import { filledHole, newPrice, shopFields } from '@/contracts/shops';
import type { ShelfPrice } from '@/core/buying/plan-case';
import { findIngredient } from '@/core/reference/reference';
import { nameKey } from '@/core/roll/name-key';
import { pricesNow } from '@/store/buying';
import { find, findOne, insert, updateVersion } from '@/store/query';
import { type Db, isDuplicate } from '@/store/store';
import type { ShelfPriceRow } from '@/store/tables/buying';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';

/** A price as buying knows it. */
export const shelfPriceFrom = ({
  shopId,
  productId,
  soldBy,
  price,
  fromDay,
  toDay,
  least,
}: ShelfPriceRow): ShelfPrice => ({
  shopId,
  productId,
  soldBy,
  price: price ?? 0,
  least,
  ...(fromDay === null || toDay === null ? {} : { from: fromDay, to: toDay }),
});

/** Of a long book so many products are shown at once. */
const MOST_SHOWN = 300;

export const viewPriceBook = service({
  title: 'See the price book',
  roles: ['coordinator'],
  input: z.object({ find: z.string().trim().max(80).default('') }),
  run: async (context, { find: wanted }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const { programme } = await loadProgramme(context);
    const shops = await find(db, db.models.shop, { programmeId }, [['name', 'ASC']]);
    const products = await find(db, db.models.product, { programmeId }, [
      ['ingredient', 'ASC'],
      ['name', 'ASC'],
    ]);
    const prices = await pricesNow(db, programmeId);
    const plan = await findOne(db, db.models.buyingPlan, { programmeId });
    const today = todayIn(context, programme.timeZone);
    const words = wanted.toLowerCase();
    const found = products.filter(({ ingredient, name }) => `${ingredient} ${name}`.toLowerCase().includes(words));
    const shown = new Map(found.slice(0, MOST_SHOWN).map((product) => [product.id, product]));
    const priced = new Set(prices.map(({ productId }) => productId));
    const shopOf = new Map(shops.map((shop) => [shop.id, shop]));
    return {
      shops,
      today,
      /** Products in all, and of those that were looked for; the first of them are shown. */
      count: { all: products.length, found: found.length, shown: shown.size },
      prices: prices.flatMap((row) => {
        const product = shown.get(row.productId);
        const shop = shopOf.get(row.shopId);
        return product && shop
          ? [
              {
                ...row,
                product: product.name,
                ingredient: product.ingredient,
                packGrams: Number(product.packGrams),
                shop: shop.name,
              },
            ]
          : [];
      }),
      products: [...shown.values()].map(({ id, ingredient, name, packGrams, allergens }) => ({
        id,
        ingredient,
        name,
        packGrams,
        isRead: allergens !== null,
      })),
      /** Products of foods to which brands add allergens, that nobody has read the label of. */
      unread: [...shown.values()].flatMap(({ id, ingredient, name, allergens }) => {
        const food = findIngredient(programme.reference, ingredient);
        const isAsked = food !== undefined && food.contains.length + food.mayContain.length > 0;
        return allergens === null && isAsked && priced.has(id) ? [{ id, ingredient, name, usual: food.contains }] : [];
      }),
      /** Foods that the last plan had no price for. */
      holes: plan?.planned.holes ?? [],
    };
  },
});

const taken = (name: string) =>
  new ServiceError('invalid', `There is a shop called ${name} already. Give this one another name.`, [
    { where: 'name', message: 'Taken already.' },
  ]);

/** Names that differ in the case of their letters alone are one name for people. @throws ServiceError when it is taken */
async function refuseTaken(context: Context, db: Db, name: string, own?: string): Promise<void> {
  const shops = await find(db, db.models.shop, { programmeId: context.actor.programmeId });
  if (shops.some((shop) => shop.id !== own && nameKey(shop.name) === nameKey(name))) throw taken(name);
}

export const addShop = service({
  title: 'Add a shop',
  roles: ['coordinator'],
  input: shopFields,
  run: async (context, shop) => {
    const { programmeId } = context.actor;
    try {
      return await context.store.transaction(async (db) => {
        await refuseTaken(context, db, shop.name);
        const id = context.ids();
        await insert(db, db.models.shop, [{ id, programmeId, ...shop, version: 1 }]);
        await logChange(context, db, 'added', 'shop', id, { name: shop.name });
        return id;
      });
    } catch (error) {
      if (isDuplicate(error)) throw taken(shop.name);
      throw error;
    }
  },
});

export const editShop = service({
  title: 'Change a shop, its days and its aisles',
  roles: ['coordinator'],
  input: shopFields.extend({ shopId: z.uuid(), version: z.coerce.number().int() }),
  run: async (context, { shopId, version, ...shop }) => {
    const { programmeId } = context.actor;
    try {
      await context.store.transaction(async (db) => {
        if (!(await findOne(db, db.models.shop, { id: shopId, programmeId }))) throw notFound('shop');
        await refuseTaken(context, db, shop.name, shopId);
        if (!(await updateVersion(db, db.models.shop, shopId, version, shop))) throw stale('shop');
        await logChange(context, db, 'changed', 'shop', shopId, { name: shop.name });
      });
    } catch (error) {
      if (isDuplicate(error)) throw taken(shop.name);
      throw error;
    }
  },
});

/** @throws ServiceError when shop or product are not of this programme */
async function refuseForeign(context: Context, db: Db, { shopId, productId }: { shopId: string; productId?: string }) {
  const { programmeId } = context.actor;
  if (!(await findOne(db, db.models.shop, { id: shopId, programmeId }))) throw notFound('shop');
  if (productId && !(await findOne(db, db.models.product, { id: productId, programmeId }))) throw notFound('product');
}

/** Prices as they are appended. */
export const priceRow = (
  context: Context,
  price: z.output<typeof newPrice>,
  source: ShelfPriceRow['source'],
): ShelfPriceRow => ({
  id: context.ids(),
  programmeId: context.actor.programmeId,
  ...price,
  source,
  at: nowOf(context),
  actorId: context.actor.id,
});

export const setPrice = service({
  title: 'Write down what a product costs in a shop',
  roles: ['coordinator'],
  input: newPrice,
  /** @returns what was written there before: set again, it holds again; no price where there was none */
  run: (context, price) =>
    context.store.transaction(async (db) => {
      await refuseForeign(context, db, price);
      const { shopId, productId, fromDay, toDay } = price;
      const same = { programmeId: context.actor.programmeId, shopId, productId, fromDay, toDay };
      const newest: [string, string][] = [
        ['at', 'DESC'],
        ['id', 'DESC'],
      ];
      const [before] = await find(db, db.models.shelfPrice, same, newest, 1);
      await insert(db, db.models.shelfPrice, [priceRow(context, price, 'typed')]);
      return { soldBy: before?.soldBy ?? price.soldBy, price: before?.price ?? null, least: before?.least ?? 1 };
    }),
});

export const fillHole = service({
  title: 'Add a product of a food with what it costs',
  roles: ['coordinator'],
  input: filledHole,
  run: async (context, { ingredient, shopId, name, soldBy, packGrams, price }) => {
    const { programmeId } = context.actor;
    const { programme } = await loadProgramme(context);
    const food = findIngredient(programme.reference, ingredient);
    if (!food) throw notFound('food');
    await context.store.transaction(async (db) => {
      await refuseForeign(context, db, { shopId });
      const same = await findOne(db, db.models.product, { programmeId, ingredient: food.name, name });
      const productId = same?.id ?? context.ids();
      if (!same)
        await insert(db, db.models.product, [
          {
            id: productId,
            programmeId,
            ingredient: food.name,
            name,
            packGrams: String(packGrams),
            price: soldBy === 'weight' ? null : price,
            allergens: null,
            saltMg: null,
            energyKj: null,
            readAt: null,
            readBy: null,
            inKits: 0,
            version: 1,
          },
        ]);
      await insert(db, db.models.shelfPrice, [
        priceRow(context, { shopId, productId, soldBy, price, fromDay: null, toDay: null, least: 1 }, 'typed'),
      ]);
      await logChange(context, db, 'added', 'product', productId, { ingredient: food.name, name, price });
    });
  },
});
