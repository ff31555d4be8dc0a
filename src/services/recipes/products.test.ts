import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { viewHistory } from './history';
import { addProduct, listProducts, removeProduct, tightenKeeping } from './products';
import { viewFood } from './reference-table';
import { viewSuits } from './suits';

let store: Store;
let context: Context;
let foreign: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
  foreign = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const PACK = { ingredient: 'butter', name: '250 g block', packGrams: '250', price: '2,49' };

describe('products', () => {
  it('tell what a serving costs, in the recipe and against the class; another programme’s do not count', async () => {
    const line = { ingredient: 'butter', amount: '100', unit: 'g' };
    const { sessionId, recipeId } = await newSession(context, [{ name: 'Bo', servings: '2' }], [line]);
    expect((await viewHistory(context, { recipeId })).figures?.cost).toEqual({ perServing: 0, known: 0, of: 1 });
    await addProduct(foreign, { ...PACK, price: '0.01' });
    await addProduct(context, PACK);
    // 100 g of 250 g at 2.49, for four: 24.9 cents.
    expect((await viewHistory(context, { recipeId })).figures?.cost).toEqual({ perServing: 25, known: 1, of: 1 });
    const [dish] = (await viewSuits(context, { sessionId })).suits;
    expect(dish?.fit?.findings).toContainEqual({ about: 'cost', verdict: 'fits', say: 'About $0.25 a serving.' });
  });

  it('carry what is on their label only when somebody read it', async () => {
    const of = { ingredient: 'cheddar cheese', packGrams: '400' };
    await addProduct(context, { ...of, name: 'unread', allergens: ['MILK'] });
    await addProduct(context, { ...of, name: 'read', labelRead: true, allergens: ['MILK'] });
    const { products } = await listProducts(context, { ingredient: 'cheddar cheese' });
    expect(products.map(({ name, allergens, readBy }) => [name, allergens, readBy])).toEqual([
      ['read', ['MILK'], context.actor.id],
      ['unread', null, null],
    ]);
  });

  it.each([
    [{ price: '1.234' }, 'price', 'Write the price as 2.49.'],
    [{ price: 'cheap' }, 'price', 'Write the price as 2.49.'],
    [{ packGrams: '0' }, 'packGrams', 'Write the grams as a number'],
    [{ energyKj: '9000' }, 'energyKj', 'At most 3,800 kJ'],
    [{ name: ' ' }, 'name', 'needs a name'],
  ])('with wrong input are refused with the place: %j', async (wrong, where, message) => {
    await expect(addProduct(context, { ...PACK, ...wrong })).rejects.toMatchObject({
      problems: [{ where, message: expect.stringContaining(message) }],
    });
  });

  it('have one name each, and are taken away only by their own programme', async () => {
    await expect(addProduct(context, PACK)).rejects.toThrow('is there already');
    const { products } = await listProducts(context, { ingredient: 'butter' });
    const productId = products[0]?.id ?? '';
    await expect(removeProduct(foreign, { productId })).rejects.toMatchObject({ kind: 'not-found' });
    await removeProduct(context, { productId });
    expect((await listProducts(context, { ingredient: 'butter' })).products).toEqual([]);
  });
});

describe('keeping days', () => {
  it('are made stricter, never laxer, and taken back to what the table says', async () => {
    const { keeps } = await viewFood(context, { name: 'milk' });
    await expect(
      tightenKeeping(context, { ingredient: 'milk', daysOpened: String(keeps.opened + 1) }),
    ).rejects.toMatchObject({ problems: [{ where: 'daysOpened', message: expect.stringContaining('At most') }] });
    await tightenKeeping(context, { ingredient: 'milk', daysOpened: '1' });
    expect((await viewFood(context, { name: 'milk' })).food).toMatchObject({ daysOpened: 1, daysWhole: keeps.whole });
    expect((await viewFood(foreign, { name: 'milk' })).food.daysOpened).toBe(keeps.opened);
    await tightenKeeping(context, { ingredient: 'milk' });
    expect((await viewFood(context, { name: 'milk' })).food.daysOpened).toBe(keeps.opened);
  });
});
