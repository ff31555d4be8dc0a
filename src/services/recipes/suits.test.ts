import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { addDish, loadBundle, removeDish } from '../plan/sessions';
import { saveDraft } from './drafts';
import { settleStep, viewSteps } from './steps';
import { proposeDishes, viewSuits } from './suits';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

let made = 0;
const newRecipe = (lines: string[], steps: string[]) =>
  saveDraft(context, {
    title: `Dish ${++made}`,
    servings: 4,
    lines: lines.map((text) => ({ text })),
    steps,
  });

describe('the steps of a recipe', () => {
  it('are read from their words until somebody settles one; a circle is refused and nothing is saved', async () => {
    const recipeId = await newRecipe(['2 carrots, chopped'], ['Chop the carrots.', 'Simmer them for 20 minutes.']);
    const { steps, schedules, version } = await viewSteps(context, { recipeId });
    expect(steps.map(({ isRead, handsOff }) => [isRead, handsOff])).toEqual([
      [true, 0],
      [true, 20],
    ]);
    expect(schedules[0]).toMatchObject({ cooks: 1, isShortest: true });
    const plain = ({
      text: _,
      uses: __,
      isRead: ___,
      estimated: ____,
      isOwn: _____,
      ...plan
    }: (typeof steps)[number]) => plan;
    const read = plain(steps[1] as (typeof steps)[number]);
    await settleStep(context, { recipeId, version, step: 1, plan: { ...read, handsOff: 25 } });
    const settled = await viewSteps(context, { recipeId });
    expect(settled.steps[1]).toMatchObject({ isRead: false, handsOff: 25, after: [0] });
    const circle = { ...(settled.steps[0] as (typeof steps)[number]), after: [1] };
    const plan = plain(circle);
    await expect(settleStep(context, { recipeId, version: settled.version, step: 0, plan })).rejects.toMatchObject({
      problems: [{ message: expect.stringContaining('wait for each other') }],
    });
    await settleStep(context, { recipeId, version: settled.version, step: 1 });
    expect((await viewSteps(context, { recipeId })).steps[1]).toMatchObject({ isRead: true, handsOff: 20 });
  });
});

describe('a dish of a session', () => {
  it('is held against its roll and class, and dishes are proposed for sessions without one', async () => {
    const recipeId = await newRecipe(['100 g butter', '2 carrots, chopped'], ['Chop the carrots.', 'Melt the butter.']);
    const { sessionId, courseId } = await newSession(context, [
      { name: 'Bo', age: '8', servings: '1', avoids: 'milk' },
      { name: 'Ada', age: '9', servings: '1' },
    ]);
    const { dishes } = await loadBundle(context, sessionId);
    await removeDish(context, { sessionId, dishId: dishes[0]?.id ?? '' });
    const open = await proposeDishes(context, { courseId, stock: 'carrots', menu: '2026-12-03, carrot soup' });
    expect(open.understood).toMatchObject({ stock: ['carrot'], menuDays: 1 });
    expect(open.sessions[0]?.proposals.map(({ recipeId: id }) => id)).toContain(recipeId);
    await addDish(context, { sessionId, recipeId });
    const [dish] = (await viewSuits(context, { sessionId })).suits;
    expect(dish?.fit?.verdict).toBe('does not fit');
    expect(dish?.fit?.findings.map(({ say }) => say)).toContain('1 avoids milk: nothing safe stands in for butter.');
    const after = await proposeDishes(context, { courseId });
    expect(after.sessions[0]).toMatchObject({ dishes: [{ recipeId }], proposals: [] });
  });
});
