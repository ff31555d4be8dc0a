import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { FLATBREAD, newProgramme, newSession, testStore } from '../../../tests/programme';
import { viewShoppingList } from '../buying/shopping';
import type { Context } from '../gate/gate';
import { lockKitSheet, viewSession } from '../kits/kit-sheet';
import { exportRecipe, listRecipes, previewRecipeFile, saveRecipe, viewRecipe } from '../recipes/recipes';
import { addCourse, listCourses, viewCourse } from './courses';
import { addDish, addSession, editSession, removeDish } from './sessions';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const PLAN = {
  title: 'Soups',
  date: '2026-12-03',
  startsAt: '15:45',
  minutes: 90,
  place: 'Net loft',
  mode: 'take-home',
} as const;

describe('a course', () => {
  it('numbers its sessions as they are added, and lists them by date', async () => {
    const courseId = await addCourse(context, { title: 'Winter pots', audience: 'ages 8 to 11' });
    await addSession(context, { courseId, ...PLAN, title: 'Second', date: '2026-12-10' });
    await addSession(context, { courseId, ...PLAN, title: 'First' });
    const { sessions } = await viewCourse(context, { courseId });
    expect(sessions.map(({ title, number }) => [title, number])).toEqual([
      ['First', 2],
      ['Second', 1],
    ]);
    const listed = (await listCourses(context, {})).find(({ id }) => id === courseId);
    expect(listed).toMatchObject({ sessions: 2, people: 0, next: '2026-12-03' });
  });

  it('takes 29 February where there is one, and no hour that is none', async () => {
    const courseId = await addCourse(context, { title: 'Leap', audience: '' });
    await addSession(context, { courseId, ...PLAN, date: '2028-02-29' });
    for (const wrong of [
      { date: '2027-02-29' },
      { date: '2026-13-01' },
      { startsAt: '24:00' },
      { minutes: 5 },
      { place: ' ' },
    ]) {
      await expect(addSession(context, { courseId, ...PLAN, ...wrong })).rejects.toMatchObject({
        kind: 'invalid',
        problems: [{ where: Object.keys(wrong)[0] }],
      });
    }
    expect((await viewCourse(context, { courseId })).sessions).toHaveLength(1);
  });
});

describe('a session', () => {
  it('changed by two people at once keeps the first, and tells the second', async () => {
    const { sessionId } = await newSession(context, []);
    const edits = await Promise.allSettled(
      ['Net loft', 'Harbour hall'].map((place) => editSession(context, { sessionId, version: 1, ...PLAN, place })),
    );
    expect(edits.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(edits.find(({ status }) => status === 'rejected')).toMatchObject({
      reason: { kind: 'stale', message: expect.stringContaining('changed by someone else') },
    });
  });

  it('has each dish once, in the order they were chosen, also when it is chosen twice at once', async () => {
    const { sessionId } = await newSession(context, []);
    const body = { servings: 4, lines: FLATBREAD, steps: [] };
    const recipeId = await saveRecipe(context, { title: `Second dish ${v7()}`, body });
    const both = await Promise.allSettled([1, 2].map(() => addDish(context, { sessionId, recipeId })));
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    const { bundle } = await viewSession(context, { sessionId });
    expect(bundle.dishes.map(({ position }) => position)).toEqual([1, 2]);
    await removeDish(context, { sessionId, dishId: bundle.dishes[0]?.id ?? '' });
    expect((await viewSession(context, { sessionId })).bundle.dishes).toHaveLength(1);
    const log = await find(store.db, store.db.models.change, { entityId: sessionId }, [['id', 'ASC']]);
    expect(log.map(({ action }) => action)).toEqual(['added', 'chose a dish', 'chose a dish', 'took away']);
  });

  it('buys what was locked, not what the roll became since', async () => {
    const { sessionId, basis } = await newSession(context, [{ name: 'Ada', servings: '4' }]);
    const eggs = async () => {
      const { aisles } = await viewShoppingList(context, { sessionId });
      return aisles.flatMap(({ items }) => items).find(({ ingredient }) => ingredient === 'egg')?.buy;
    };
    expect(await eggs()).toBe('1 piece');
    await lockKitSheet(context, { sessionId, basis: await basis() });
    const { bundle } = await viewSession(context, { sessionId });
    await removeDish(context, { sessionId, dishId: bundle.dishes[0]?.id ?? '' });
    expect(await eggs()).toBe('1 piece');
  });
});

describe('a recipe', () => {
  it('goes out as it came in, and has a name of its own', async () => {
    const title = `Yogurt dip ${v7()}`;
    const body = { servings: 4, lines: FLATBREAD, steps: ['Stir.'], description: 'Cool and quick.' };
    const recipeId = await saveRecipe(context, { title, body });
    await expect(saveRecipe(context, { title, body })).rejects.toThrow('is there already');
    const { text } = await exportRecipe(context, { recipeId });
    const again = await previewRecipeFile(context, { bytes: new TextEncoder().encode(text) });
    expect(again).toMatchObject({ file: { title, body: (await viewRecipe(context, { recipeId })).body } });
    expect((await listRecipes(context, {})).find(({ id }) => id === recipeId)).toMatchObject({
      lines: 3,
      servings: 4,
      sessions: 0,
    });
  });

  it('that cannot be computed is refused with each place, and not saved', async () => {
    const ofProgramme = { where: { programmeId: context.actor.programmeId } };
    const before = await store.db.models.recipe.count(ofProgramme);
    const lines = [
      { ingredient: 'unicorn', amount: '1', unit: 'cup' },
      { ingredient: 'egg', preparation: 'large, without shell', amount: '1/0', unit: 'each' },
      { ingredient: 'salt', amount: '1', unit: 'bucket' },
    ];
    await expect(saveRecipe(context, { title: 'Odd', body: { servings: 4, lines, steps: [] } })).rejects.toMatchObject({
      problems: [{ where: 'lines[0].ingredient' }, { where: 'lines[1].amount' }, { where: 'lines[2].unit' }],
    });
    expect(await store.db.models.recipe.count(ofProgramme)).toBe(before);
  });
});
