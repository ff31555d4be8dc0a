import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { lockKitSheet, viewKitSheet } from '../kits/kit-sheet';
import { addDish } from '../plan/sessions';
import { editRecipe, saveDraft, saveEdited } from './drafts';
import { viewHistory } from './history';
import { viewRecipe } from './recipes';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

let made = 0;
async function newRecipe(): Promise<string> {
  const lines = ['2 cups plain flour', '100 g butter'].map((text) => ({ text }));
  const draft = { title: `Shortbread ${++made}`, servings: 4, lines, steps: ['Rub the butter into the flour.'] };
  return saveDraft(context, draft);
}

/** The recipe as the editor opens it, with some of its lines in other words. */
async function edited(recipeId: string, words: Record<number, object>) {
  const { lines, ...rest } = await editRecipe(context, { recipeId });
  return {
    recipeId,
    ...rest,
    lines: lines.map(({ items: _, ...each }, index) => ({ ...each, ...words[index] })),
  };
}

describe('a recipe that is edited', () => {
  it('gets a next version, its difference told, and keeps what its words do not say', async () => {
    const recipeId = await newRecipe();
    const details = { pack_grams: '250', spare: '1/10' };
    const alternatives = [{ text: '80 g olive oil' }, { text: 'leave it out' }];
    await saveEdited(context, await edited(recipeId, { 1: { details, alternatives } }));
    // In other words: what is settled beside them stays, as the editor sends it.
    const { lines } = await editRecipe(context, { recipeId });
    expect(lines[1]?.alternatives.map(({ text }) => text)).toEqual(['80 g olive oil', 'leave it out']);
    await saveEdited(context, await edited(recipeId, { 1: { text: '120 g butter', settled: undefined } }));
    const { body, version } = await viewRecipe(context, { recipeId });
    expect(version).toBe(3);
    expect(body.lines[1]).toMatchObject({
      amount: '120',
      pack_grams: '250',
      alternatives: [{ amount: '80' }, { omit: true }],
    });
    const { versions } = await viewHistory(context, { recipeId });
    expect(versions.map(({ version: number }) => number)).toEqual([3, 2, 1]);
    expect(versions[0]?.what).toEqual(['120 g butter, was 100 g butter (20 % more)']);
    expect(versions[1]?.what).toContain('butter: packs: 250 g, was packs: none');
    await expect(store.sequelize.query('UPDATE recipe_version SET version = 9')).rejects.toThrow('append-only');
  });

  it('is refused when somebody saved meanwhile, or an alternative cannot be read; nothing is half-saved', async () => {
    const recipeId = await newRecipe();
    const mine = await edited(recipeId, { 1: { text: '90 g butter', settled: undefined } });
    await saveEdited(context, await edited(recipeId, { 1: { text: '110 g butter', settled: undefined } }));
    await expect(saveEdited(context, mine)).rejects.toMatchObject({ kind: 'stale' });
    const wrong = await edited(recipeId, { 1: { alternatives: [{ text: '3 moonbeams' }] } });
    await expect(saveEdited(context, wrong)).rejects.toMatchObject({
      problems: [{ where: 'line 2, “110 g butter”', message: expect.stringContaining('3 moonbeams') }],
    });
    expect((await viewHistory(context, { recipeId })).versions).toHaveLength(2);
  });

  it('stays as it was in a locked sheet, which then shows what would differ', async () => {
    const recipeId = await newRecipe();
    const { sessionId, basis } = await newSession(context, [{ name: 'Bo', servings: '4' }]);
    await addDish(context, { sessionId, recipeId });
    await lockKitSheet(context, { sessionId, basis: await basis() });
    expect((await viewHistory(context, { recipeId })).behind).toEqual([]);
    await saveEdited(context, await edited(recipeId, { 1: { text: '120 g butter', settled: undefined } }));
    expect((await viewHistory(context, { recipeId })).behind).toMatchObject([{ id: sessionId }]);
    const { sheet } = await viewKitSheet(context, { sessionId });
    expect(sheet.differences.flatMap(({ what }) => what)).toEqual(['butter 4¼ oz (120 g), was 3½ oz (100 g)']);
    await lockKitSheet(context, { sessionId, basis: sheet.basis });
    expect((await viewHistory(context, { recipeId })).behind).toEqual([]);
  });

  it('is saved as a variation under a name of its own, which knows where it comes from', async () => {
    const recipeId = await newRecipe();
    const draft = (await edited(recipeId, { 1: { text: '80 g olive oil', settled: undefined } })) as object;
    await expect(saveEdited(context, { ...draft, asVariation: true })).rejects.toThrow('a name of its own');
    const title = `Oil biscuits ${made}`;
    const variation = await saveEdited(context, { ...draft, title, asVariation: true });
    expect((await viewRecipe(context, { recipeId: variation })).parent?.id).toBe(recipeId);
    const { variations, versions } = await viewHistory(context, { recipeId });
    expect(variations).toEqual([{ id: variation, title }]);
    expect(versions).toHaveLength(1);
  });
});
