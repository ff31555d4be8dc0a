import { z } from 'zod';
import { keepingLimit, labelCodes, newProduct } from '@/contracts/reference';
import { servingFigures } from '@/core/recipes/recipe/cost';
import { packedLines, readRecipe } from '@/core/recipes/recipe/recipe';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { findIngredient, TYPICAL } from '@/core/reference/reference';
import { find, findOne, insert, remove, update } from '@/store/query';
import { useLabel, useNoLabel } from '@/store/recipes';
import { isDuplicate } from '@/store/store';
import type { RecipeRow } from '@/store/tables/recipes';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { logTaken } from '../gate/taken';
import { syncCallBacks } from '../sheet/call-backs';
import { labelOf } from '../sheet/label-read';
import { loadProducts } from '../sheet/load-products';
import { loadProgramme, type Programme } from '../sheet/load-programme';

export const listProducts = service({
  title: 'See the products of a food',
  roles: ['coordinator', 'instructor'],
  input: z.object({ ingredient: z.string().min(1).max(80) }),
  run: async (context, { ingredient }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const rows = await find(db, db.models.product, { programmeId, ingredient }, [['name', 'ASC']]);
    const [limit] = await find(db, db.models.keepingLimit, { programmeId, ingredient });
    return {
      products: rows.map(({ allergens, ...row }) => ({
        ...row,
        allergens: allergens,
      })),
      limit: { daysWhole: limit?.daysWhole ?? null, daysOpened: limit?.daysOpened ?? null },
    };
  },
});

export const addProduct = service({
  title: 'Add a product with its pack, price and label',
  roles: ['coordinator'],
  input: newProduct,
  run: async (context, { ingredient, labelRead, allergens, ...product }) => {
    const { programme } = await loadProgramme(context);
    const food = findIngredient(programme.reference, ingredient);
    if (!food) throw notFound('food');
    const { programmeId, id: actorId } = context.actor;
    const read = labelRead
      ? { allergens: labelOf(food, allergens), readAt: nowOf(context), readBy: actorId }
      : { allergens: null, readAt: null, readBy: null };
    try {
      await context.store.transaction(async (db) => {
        const id = context.ids();
        await insert(db, db.models.product, [
          { id, programmeId, ingredient: food.name, ...product, ...read, inKits: 0, version: 1 },
        ]);
        await logChange(context, db, 'added', 'product', id, { ingredient: food.name, ...product, labelRead });
      });
    } catch (error) {
      if (isDuplicate(error))
        throw new ServiceError(
          'invalid',
          `${product.name} is there already. Take it away first, or name this one otherwise.`,
        );
      throw error;
    }
  },
});

export const readLabel = service({
  title: 'Write down what the label of a product says',
  roles: ['coordinator'],
  input: z.object({ productId: z.uuid(), allergens: labelCodes }),
  run: (context, { productId, allergens: ticked }) =>
    context.store.transaction(async (db) => {
      const { programmeId, id: readBy } = context.actor;
      const { programme } = await loadProgramme(context, db);
      const product = await findOne(db, db.models.product, { id: productId, programmeId });
      const food = product && findIngredient(programme.reference, product.ingredient);
      if (!food) throw notFound('product');
      const allergens = labelOf(food, ticked);
      await update(
        db,
        db.models.product,
        { id: productId, programmeId },
        { allergens, readAt: nowOf(context), readBy },
      );
      await logChange(context, db, 'read the label', 'product', productId, { allergens });
      await syncCallBacks(context, db, 'all');
    }),
});

export const setKitLabel = service({
  title: 'Say that kits take the label of a product',
  roles: ['coordinator'],
  input: z.object({ productId: z.uuid(), use: z.boolean() }),
  run: (context, { productId, use }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const product = await findOne(db, db.models.product, { id: productId, programmeId });
      if (!product) throw notFound('product');
      if (use && product.allergens === null)
        throw new ServiceError('invalid', `Nobody has read the label of ${product.name} yet: read it first.`);
      const { ingredient, name } = product;
      // One product of a food at most: two labels would not say which of them is in the kit.
      await useNoLabel(db, {
        programmeId,
        ingredient,
      });
      if (use) await useLabel(db, { productId });
      await logChange(context, db, use ? 'uses the label' : 'no longer uses the label', 'product', productId, {
        ingredient,
        name,
      });
      await syncCallBacks(context, db, 'all');
    }),
});

export const removeProduct = service({
  title: 'Take a product away',
  roles: ['coordinator'],
  input: z.object({ productId: z.uuid() }),
  run: (context, { productId }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const row = await findOne(db, db.models.product, { id: productId, programmeId });
      if (!row) throw notFound('product');
      await remove(db, db.models.product, { id: productId });
      const id = await logTaken(context, db, 'product', productId, row.name, { product: [row] });
      await syncCallBacks(context, db, 'all');
      return id;
    }),
});

export const tightenKeeping = service({
  title: 'Keep a food for fewer days than the table says',
  roles: ['coordinator'],
  input: keepingLimit,
  run: async (context, { ingredient, ...days }) => {
    const { programme } = await loadProgramme(context);
    const own = findIngredient(programme.reference, ingredient);
    if (!own) throw notFound('food');
    // A food of one's own has no typical figure: what was said of it stands for that.
    const typical = findIngredient(TYPICAL, own.name) ?? own;
    for (const name of ['daysWhole', 'daysOpened'] as const) {
      const wanted = days[name];
      if (wanted !== null && wanted > typical[name])
        throw new ServiceError('invalid', 'A limit is made stricter, never laxer. Nothing was saved.', [
          { where: name, message: `At most ${typical[name]} days, which the table says.` },
        ]);
    }
    await context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      await remove(db, db.models.keepingLimit, { programmeId, ingredient: own.name });
      if (days.daysWhole !== null || days.daysOpened !== null)
        await insert(db, db.models.keepingLimit, [{ programmeId, ingredient: own.name, ...days }]);
      await logChange(context, db, 'set keeping days', 'programme', programmeId, { ingredient: own.name, ...days });
    });
  },
});

/** What a serving of a recipe costs and holds; undefined while it cannot be computed with. */
export async function figuresOf(context: Context, { body }: RecipeRow, { reference }: Programme) {
  const { servings, lines } = wholeRecipe(body);
  const reading = readRecipe({ servings, lines: packedLines(lines, reference) }, reference);
  return 'recipe' in reading ? servingFigures(reading.recipe, await loadProducts(context)) : undefined;
}
