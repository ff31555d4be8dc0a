import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import { addProduct } from './products';
import { findRecipes, saveRecipe } from './recipes';

let store: Store;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

describe('the list of recipes', () => {
  it('tells of each what one looks for it by, and follows prices and new versions', async () => {
    const { coordinator: context } = await newProgramme(store);
    await newSession(context, [{ name: 'Ada' }]);
    const steps = ['Cut the tomatoes. 10 minutes.', 'Bake it in the oven for 20 minutes.'];
    const lines = [
      { amount: '300', unit: 'g', ingredient: 'tomato' },
      { amount: '100', unit: 'g', ingredient: 'cheddar cheese' },
    ];
    await saveRecipe(context, { title: 'Tomato bake', body: { servings: 4, lines, steps } });
    const bake = async () => (await findRecipes(context, {})).find(({ title }) => title === 'Tomato bake');
    expect((await bake())?.overview).toMatchObject({
      handsOff: 20,
      heat: ['oven'],
      foods: ['tomato', 'cheddar cheese'],
      cost: null,
    });
    // November: tomatoes are out of season.
    expect((await bake())?.overview?.outOfSeason).toEqual(['tomato']);
    expect((await bake())?.overview?.holds).toContain('milk');
    for (const [ingredient, price] of [
      ['tomato', '2.00'],
      ['cheddar cheese', '10.00'],
    ])
      await addProduct(context, { ingredient, name: `${ingredient}, a kilogram`, packGrams: '1000', price });
    // 60 cents of tomato (and what is trimmed) and a dollar of cheese for four.
    const cost = (await bake())?.overview?.cost ?? 0;
    expect(cost).toBeGreaterThanOrEqual(40);
    expect(cost).toBeLessThan(50);
    const cooked = (await findRecipes(context, {})).find(({ sessions }) => sessions === 1);
    expect(cooked).toMatchObject({ lastUsed: '2026-11-26', servings: expect.any(Number) });
  });
});
