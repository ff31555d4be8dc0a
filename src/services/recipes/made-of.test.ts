import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { viewKitSheet } from '../kits/kit-sheet';
import { addDish, fillSlot, loadBundle, removeDish } from '../plan/sessions';
import { editRecipe, saveDraft, saveEdited, takeNewest } from './drafts';
import { viewHistory } from './history';
import { addProduct, listProducts, setKitLabel } from './products';
import { viewRecipe, weighBatch } from './recipes';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const save = (title: string, lines: readonly string[], subRecipes: readonly object[] = []) =>
  saveDraft(context, {
    title,
    servings: 4,
    lines: lines.map((text) => ({ text })),
    steps: ['Mix.'],
    subRecipes,
  });

/** A session that cooks one recipe, for people who avoid something or nothing. */
async function cooking(recipeId: string, people: Parameters<typeof newSession>[1]) {
  const { sessionId } = await newSession(context, people);
  for (const dish of (await loadBundle(context, sessionId)).dishes)
    await removeDish(context, { sessionId, dishId: dish.id });
  await addDish(context, { sessionId, recipeId });
  const dishId = (await loadBundle(context, sessionId)).dishes[0]?.id ?? '';
  const sheet = async () => (await viewKitSheet(context, { sessionId })).sheet.draft;
  return { sessionId, dishId, sheet };
}

describe('a recipe made of another', () => {
  it('brings its ingredients and allergens into every kit, and its new version only when it is taken', async () => {
    const dough = await save('Dough', ['200 g plain flour', '1 tsp salt']);
    const pie = await save('Pie', ['300 g tomatoes'], [{ recipeId: dough, servings: 8 }]);
    const { sheet } = await cooking(pie, [
      { name: 'Ada', servings: '4' },
      { name: 'Wim', avoids: 'wheat', servings: '4' },
    ]);
    const before = await sheet();
    expect(before?.totals.find(({ ingredient }) => ingredient === 'plain wheat flour')?.sayEdible).toBe('400 g');
    expect(before?.variants.find(({ components }) => !components)?.refusals[0]?.ingredient).toBe('plain wheat flour');

    const { lines, version, ...rest } = await editRecipe(context, { recipeId: dough });
    const other = lines.map(({ items: _, ...line }, at) =>
      at === 0 ? { ...line, text: '250 g plain flour', settled: undefined } : line,
    );
    await saveEdited(context, { recipeId: dough, version, ...rest, lines: other });
    expect((await sheet())?.totals[0]).toEqual(before?.totals[0]);
    const { madeOf, version: own } = await viewHistory(context, { recipeId: pie });
    expect(madeOf).toEqual([{ id: dough, title: 'Dough', version: 1, servings: 8, newest: 2 }]);
    await takeNewest(context, { recipeId: pie, version: own, subId: dough });
    expect((await sheet())?.totals.find(({ ingredient }) => ingredient === 'plain wheat flour')?.sayEdible).toBe(
      '500 g',
    );
    expect((await viewHistory(context, { recipeId: pie })).versions[0]?.what).toContain(
      'made of 8 servings of Dough, version 2',
    );
  });

  it('cannot be made of what is made of it: refused with the names, nothing saved', async () => {
    const stock = await save('Stock', ['2 carrots']);
    const soup = await save('Soup', ['1 onion'], [{ recipeId: stock, servings: 4 }]);
    const { lines, version, ...rest } = await editRecipe(context, { recipeId: stock });
    const circle = {
      ...rest,
      lines: lines.map(({ items: _, ...line }) => line),
      subRecipes: [{ recipeId: soup, servings: 2 }],
    };
    await expect(saveEdited(context, { recipeId: stock, version, ...circle })).rejects.toThrow(
      'Soup is itself made of Stock: a circle.',
    );
    expect((await viewRecipe(context, { recipeId: stock })).version).toBe(version);
  });
});

describe('a flexible slot of a session', () => {
  it('is filled as chosen, and whoever avoids the filling gets another of its foods', async () => {
    const recipe = await save('Roast tray', ['500 g any of carrots, courgettes or celery']);
    const { sessionId, dishId, sheet } = await cooking(recipe, [{ name: 'Ada' }, { name: 'Cleo', avoids: 'celery' }]);
    expect((await sheet())?.variants).toHaveLength(1);
    await fillSlot(context, { sessionId, dishId, written: 'carrot', chosen: 'celery' });
    const filled = await sheet();
    expect(filled?.variants.map(({ components }) => components?.[0]?.ingredient)).toEqual(['celery', 'carrot']);
    await expect(fillSlot(context, { sessionId, dishId, written: 'carrot', chosen: 'peanut' })).rejects.toThrow(
      'not one of what may fill it',
    );
    await fillSlot(context, { sessionId, dishId, written: 'carrot', chosen: 'carrot' });
    expect((await sheet())?.variants).toHaveLength(1);
  });
});

describe('the label of a product that is used in kits', () => {
  it('makes a kit possible everywhere; an unread label, or another product, does not', async () => {
    const recipe = await save('Cumin rice', ['200 g long-grain rice', '1 tsp ground cumin']);
    const { sheet } = await cooking(recipe, [{ name: 'Ivo', avoids: 'peanut' }]);
    expect((await sheet())?.refusedKits).toBe(1);
    const pack = { ingredient: 'ground cumin', packGrams: '100' };
    await addProduct(context, { ...pack, name: 'unread' });
    await addProduct(context, { ...pack, name: 'read', labelRead: true, allergens: ['MUSTARD'] });
    const { products } = await listProducts(context, { ingredient: 'ground cumin' });
    const idOf = (name: string) => products.find((each) => each.name === name)?.id ?? '';
    await expect(setKitLabel(context, { productId: idOf('unread'), use: true })).rejects.toThrow(
      'Nobody has read the label',
    );
    expect((await sheet())?.refusedKits).toBe(1);
    await setKitLabel(context, { productId: idOf('read'), use: true });
    expect((await sheet())?.refusedKits).toBe(0);
    await setKitLabel(context, { productId: idOf('read'), use: false });
    expect((await sheet())?.refusedKits).toBe(1);
  });
});

describe('weighing a finished batch', () => {
  it('corrects the servings, takes the estimate away, and is kept with its day', async () => {
    const recipeId = await save('Lentil pot', ['400 g brown lentils']);
    const { servings, before } = await weighBatch(context, {
      recipeId,
      version: 1,
      grams: 3500,
      times: 2,
      role: 'main',
      eater: 'adults',
    });
    expect([servings, before]).toEqual([5, 4]);
    const { body } = await viewRecipe(context, { recipeId });
    expect(body).toMatchObject({ servings: 5, weighed: { grams: 1750, by: 'main, adults' } });
    const nothing = { recipeId, version: 2, grams: 0, role: 'main', eater: 'adults' };
    await expect(weighBatch(context, nothing)).rejects.toMatchObject({ problems: [{ where: 'grams' }] });
  });
});
