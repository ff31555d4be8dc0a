import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import { playInstrument } from '../equipment/equipment';
import type { Context } from '../gate/gate';
import { lockKitSheet, viewKitSheet } from '../kits/kit-sheet';
import { addDish } from '../plan/sessions';
import { checkDraft, previewRecipe, readDraftLine, saveDraft } from './drafts';
import { confirmServings, settleSlip, viewCard, viewRecipe } from './recipes';
import { addFood, forgetFoodWord, readScale, viewFood, viewReference, weighFood } from './reference-table';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const FOOD = { aisle: 'produce', storage: 'cold', daysWhole: 3, daysOpened: 1, grams: '60', measure: 'cup' };
const read = async (input: { bytes: Uint8Array }) =>
  (await previewRecipe(context, input))[0]?.recipe as NonNullable<
    Awaited<ReturnType<typeof previewRecipe>>[number]['recipe']
  >;
const bytes = (text: string) => new TextEncoder().encode(text);

describe('the reference table', () => {
  it('has 800 foods, found by either side’s words, or nearly', async () => {
    const names = async (search: string) => (await viewReference(context, { search })).foods.map(({ name }) => name);
    expect((await viewReference(context, { search: '' })).all).toBeGreaterThanOrEqual(800);
    expect(await names('zucchini')).toEqual(['courgette']);
    expect(await names('tumeric')).toContain('ground turmeric');
  });

  it('takes a weighing in place of the typical figure, keeps the history, and kits follow it', async () => {
    const { sessionId, basis } = await newSession(context, [{ name: 'Ada', servings: '4' }]);
    const yogurt = async () => {
      const { sheet } = await viewKitSheet(context, { sessionId });
      return sheet.draft?.variants[0]?.components?.find(({ ingredient }) => ingredient === 'plain yogurt')?.grams;
    };
    expect(await yogurt()).toBe('245');
    await lockKitSheet(context, { sessionId, basis: await basis() });
    await playInstrument(context, { device: 'scale', reading: 500 });
    expect(await readScale(context, {})).toBe(500);
    const cup = { name: 'plain yogurt', preparation: '', measure: 'cup' };
    expect(await weighFood(context, { ...cup, count: 2, grams: '500' })).toEqual({
      grams: '250',
      before: '245',
    });
    expect(await yogurt()).toBe('250');
    expect((await viewFood(context, { name: 'long-grain white rice' })).cooked).toBe('2¾');
    const { food, measures, typical, history, cooked } = await viewFood(context, { name: 'plain yogurt' });
    expect(cooked).toBeNull();
    expect(food.name).toBe('plain yogurt');
    expect(measures).toMatchObject([{ grams: '250', source: expect.stringMatching(/^weighed here, 2026-11-20/) }]);
    expect(typical).toMatchObject([{ grams: '245' }]);
    expect(history).toMatchObject([{ measure: 'cup', grams: '250', by: 'coordinator' }]);
    const { together } = await viewFood(context, { name: 'plain yogurt' });
    expect(together).toMatchObject([{ measure: 'cup', say: 'once, 250 g; 2 % above the table’s 245 g' }]);
    // What is locked stays as it was locked.
    expect((await viewKitSheet(context, { sessionId })).sheet.locked?.content.variants[0]?.components?.[0]?.grams).toBe(
      '245',
    );
  });

  it('weighs whatever measure a food has, and no weight', async () => {
    const bunch = { name: 'radish', preparation: '', measure: 'bunch', count: 1, grams: '180' };
    await expect(weighFood(context, bunch)).resolves.toMatchObject({ grams: '180' });
    await expect(weighFood(context, { ...bunch, measure: 'oz' })).rejects.toMatchObject({ kind: 'invalid' });
  });

  it('refuses a weight that is far from what is known: the bowl was on the scale', async () => {
    const salt = { name: 'salt', preparation: '', measure: 'tsp', count: 1 };
    await expect(weighFood(context, { ...salt, grams: '60' })).rejects.toThrow('weigh again');
    await expect(weighFood(context, { ...salt, grams: '0' })).rejects.toMatchObject({
      problems: [{ where: 'grams' }],
    });
    await expect(weighFood(context, { ...salt, name: 'moon dust', grams: '6' })).rejects.toMatchObject({
      kind: 'not-found',
    });
  });

  it('takes a food of one’s own; as long as its label is not read, everything else may be in it', async () => {
    await addFood(context, { ...FOOD, name: 'Samphire', contains: [] });
    const { items } = await readDraftLine(context, { text: '2 cups samphire, rinsed', section: '', chosen: [] });
    expect(items[0]?.line).toMatchObject({ ingredient: 'samphire', amount: '2', unit: 'cup' });
    expect((await viewFood(context, { name: 'samphire' })).food.mayContain).toContain('MILK');
    await addFood(context, { ...FOOD, name: 'oca', contains: [], labelRead: true });
    expect((await viewFood(context, { name: 'oca' })).food.mayContain).toEqual([]);
    await expect(addFood(context, { ...FOOD, name: 'Zucchini' })).rejects.toThrow('zucchini is known as courgette');
    await expect(addFood(context, { ...FOOD, name: 'samphire' })).rejects.toThrow('in the table already');
    await expect(addFood(context, { ...FOOD, name: '<b>', grams: 'ten' })).rejects.toMatchObject({
      problems: [{ where: 'name' }, { where: 'grams' }],
    });
  });
});

describe('a recipe that comes in', () => {
  const SOUP =
    'Pier soup\nServes 4\nIngredients\n2 cups red lentils\n6 cups stock\n1/2 cup salt\n1 moonfruit\nMethod\nRinse the chicken.\nSimmer lentils in the stock, season with salt.';

  it('is read line by line, asks what is open, and saves nothing before that is answered', async () => {
    const { title, servings, lines, steps } = await read({ bytes: bytes(SOUP) });
    expect([title, servings, lines.length, steps.length]).toEqual(['Pier soup', 4, 4, 2]);
    const draft = {
      title,
      servings,
      description: '',
      steps,
      lines: lines.map(({ text, section }) => ({ text, section, chosen: [] })),
      right: [],
    };
    await expect(saveDraft(context, draft)).rejects.toMatchObject({
      problems: [{ where: 'line 4, “1 moonfruit”', message: 'Which food is “moonfruit”?' }],
    });
    const settled = {
      ...draft,
      lines: draft.lines.map((line, n) => (n === 3 ? { ...line, chosen: ['lemon'] } : line)),
    };
    const { slips, grams } = await checkDraft(context, settled);
    expect(grams).toBeGreaterThan(1000);
    expect(slips.map(({ kind }) => kind)).toEqual(['amount', 'not used', 'unsafe']);
    const salt = slips[0]?.key ?? '';
    const recipeId = await saveDraft(context, { ...settled, right: [salt] });
    const saved = await viewRecipe(context, { recipeId });
    expect(saved.slips.map(({ kind }) => kind)).not.toContain('amount');
    // What was answered once is known here from then on, and nowhere else; it can be forgotten.
    const again = (text: string, who = context) => readDraftLine(who, { text, section: '', chosen: [] });
    expect((await again('3 moonfruits')).items[0]?.line).toMatchObject({ ingredient: 'lemon', amount: '3' });
    const foreign = (await newProgramme(store)).coordinator;
    expect((await again('3 moonfruits', foreign)).items[0]?.open).toEqual(['Which food is “moonfruits”?']);
    expect((await viewFood(context, { name: 'lemon' })).words).toEqual(['moonfruit']);
    await expect(forgetFoodWord(foreign, { word: 'moonfruit' })).rejects.toMatchObject({ kind: 'not-found' });
    await forgetFoodWord(context, { word: 'moonfruit' });
    expect((await again('3 moonfruits')).items[0]?.open).toHaveLength(1);
    const unsafe = saved.slips.find(({ kind }) => kind === 'unsafe');
    await settleSlip(context, { recipeId, version: saved.version, key: unsafe?.key ?? '' });
    // What is not safe stays said, whoever thinks otherwise.
    expect((await viewRecipe(context, { recipeId })).slips.map(({ kind }) => kind)).toContain('unsafe');
    await expect(settleSlip(context, { recipeId, version: 1, key: 'x' })).rejects.toMatchObject({ kind: 'stale' });
  });

  it('goes out as a card for any number of servings, by cups or by grams, with allergens and cautions in words', async () => {
    const text =
      'Cake\nServes 4\nIngredients\n2 cups plain flour\n1 cup milk\n2 eggs\n1 cup water\nMethod\nMix everything. Bake.';
    const { lines, steps } = await read({ bytes: bytes(text) });
    const draft = {
      title: 'Carded cake',
      servings: 4,
      description: '',
      steps,
      lines: lines.map((line) => ({ text: line.text })),
    };
    const recipeId = await saveDraft(context, draft);
    const card = await viewCard(context, { recipeId, servings: 2, system: 'us' });
    expect(card.lines.map(({ say, name }) => `${say} ${name}`)).toEqual([
      '1 cup plain wheat flour',
      '½ cup milk',
      '1 egg, large, without shell',
      '½ cup water',
    ]);
    expect(card.contains).toEqual(['milk', 'egg', 'wheat', 'gluten']);
    expect(card.cautions).toEqual(
      expect.arrayContaining([
        'Nobody tastes raw dough or batter.',
        'Cook egg through for children and for anybody who is pregnant, older or ill.',
      ]),
    );
    const metric = await viewCard(context, { recipeId, servings: 8, system: 'metric' });
    // Four US cups are 946 ml, measured with metric tools to within five in a hundred.
    const flour = Number(/^(\d+) ml$/.exec(metric.lines[0]?.say ?? '')?.[1]);
    expect(Math.abs(flour - 946) / 946).toBeLessThanOrEqual(0.05);
    await expect(viewCard(context, { recipeId, servings: 0 })).rejects.toMatchObject({
      problems: [{ where: 'servings' }],
    });
  });

  it.each([
    ['', 'There is nothing to read'],
    ['Just a title', 'No ingredient line was found'],
    ['<!doctype html><p>no recipe', 'This web page holds no recipe'],
    ['{"@type":"HowTo"}', 'No schema.org Recipe'],
    [`Ingredients\n${'1 cup milk\n'.repeat(400)}`, '400 ingredient lines are more than a recipe holds'],
  ])('that is none is refused with what to do: %j', async (text, message) => {
    await expect(previewRecipe(context, { bytes: bytes(text.slice(0, 20_000)) })).rejects.toThrow(message);
  });

  it('of which only the weight is known is estimated, and locks no kits before its servings are confirmed', async () => {
    const { lines, servings } = await read({
      bytes: bytes('Ingredients\n1 kg carrots, grated\n2 Tbsp olive oil'),
    });
    expect(servings).toBeNull();
    const draft = {
      title: 'Grated carrots',
      servings: 4,
      description: '',
      steps: [],
      lines: lines.map(({ text, section }) => ({ text, section })),
    };
    const recipeId = await saveDraft(context, { ...draft, estimated: true });
    const { sessionId, basis } = await newSession(context, [{ name: 'Bo', servings: '4' }]);
    await addDish(context, { sessionId, recipeId });
    await expect(lockKitSheet(context, { sessionId, basis: await basis() })).rejects.toMatchObject({
      message: expect.stringContaining('only an estimate'),
      problems: [{ where: 'Grated carrots' }],
    });
    await confirmServings(context, { recipeId, version: 1, servings: 5 });
    expect((await viewRecipe(context, { recipeId })).body).toMatchObject({ servings: 5 });
    await lockKitSheet(context, { sessionId, basis: await basis() });
  });
});
