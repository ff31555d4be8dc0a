import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import { viewShoppingList } from '../buying/shopping';
import type { Context } from '../gate/gate';
import { labelsToPrint } from '../packing/labels';
import { addProduct } from '../recipes/products';
import { shareKit } from '../roll/away';
import { addPerson, viewRoll } from '../roll/roll';
import { exportSheet, lockKitSheet, viewKitSheet } from './kit-sheet';
import { setKitRules, viewKitRules } from './rules';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const RICE = [{ ingredient: 'long-grain white rice', amount: '300', unit: 'g', pack_grams: '1000' }];

/** Writes down what goes with the kits of a course. */
async function setRules(courseId: string, rules: object): Promise<void> {
  const { course } = await viewKitRules(context, { courseId });
  await setKitRules(context, { courseId, version: course.version, rules });
}

describe('a household of fifteen', () => {
  it('gets one kit for fifteen, counted and labelled as one', async () => {
    const { courseId, sessionId, basis } = await newSession(context, [], RICE);
    for (let child = 1; child <= 15; child++)
      await addPerson(context, {
        courseId,
        cells: cells({ name: `Child ${child} Brood`, household: 'Brood' }),
      });
    const [first] = (await viewRoll(context, { courseId })).people;
    await shareKit(context, { courseId, householdId: first?.householdId ?? '', share: true });
    await lockKitSheet(context, { sessionId, basis: await basis() });
    const { sheet } = await viewKitSheet(context, { sessionId });
    expect(sheet.locked?.kits).toHaveLength(1);
    expect(sheet.locked?.content.variants[0]).toMatchObject({ servings: 15 });
    // 300 g for 4: fifteen eat 1125 g.
    expect(sheet.locked?.content.totals[0]).toMatchObject({ sayEdible: '1125 g', packs: 2 });
    const { labels } = await labelsToPrint(context, { sessionId, paper: 'a4', of: 'kits' });
    expect(labels).toHaveLength(1);
    expect(labels[0]?.name).toContain('Child 1 Brood, Child 2 Brood');
  });
});

describe('what kits use up and cost', () => {
  it('is on the sheet and the shopping list, and held against the budget', async () => {
    const { courseId, sessionId } = await newSession(context, [{ name: 'Ada', servings: '4' }, { name: 'Bo' }], RICE);
    await setRules(courseId, {
      goesHome: true,
      consumables: [{ id: 'fork', name: 'tasting fork', per: 'serving', count: 2, pack: 4 }],
    });
    await addProduct(context, {
      ingredient: 'long-grain white rice',
      name: 'Sack',
      packGrams: '1000',
      price: '2.00',
      saltMg: '10',
      energyKj: '1500',
    });
    const { figures } = await viewKitSheet(context, { sessionId });
    expect(figures?.cost).toMatchObject({ bought: 200, used: 75, perKit: 100, perServing: 40, unpriced: [] });
    // 75 g a serving.
    expect(figures?.cost.kits[0]).toMatchObject({ energyKj: 1125, saltMg: 8 });
    const { usedUp } = await viewShoppingList(context, { sessionId });
    expect(usedUp.map(({ name, count, packs }) => [name, count, packs])).toEqual([
      ['tasting fork', 10, 3],
      ['labelled bag for what was made', 2, undefined],
    ]);
  });

  it('is refused where it makes no sense, and nothing is half saved', async () => {
    const { courseId } = await newSession(context, [{ name: 'Cy' }], RICE);
    const wrong = { consumables: [{ id: 'a', name: '', per: 'week', count: 0 }], cutsFrom: 2 };
    await expect(setRules(courseId, wrong)).rejects.toMatchObject({
      problems: expect.arrayContaining([
        expect.objectContaining({ where: 'rules.cutsFrom' }),
        expect.objectContaining({ where: 'rules.consumables[0].name', message: 'Give it a name.' }),
        expect.objectContaining({ where: 'rules.consumables[0].per' }),
        expect.objectContaining({ where: 'rules.consumables[0].count', message: 'At least one.' }),
      ]),
    });
    const twice = [1, 2].map((id) => ({ id: String(id), kind: 'issue once', name: 'spoons' }));
    await expect(setRules(courseId, { supplies: twice })).rejects.toMatchObject({
      problems: [{ where: 'issue once spoons', message: expect.stringContaining('twice') }],
    });
    expect((await viewKitRules(context, { courseId })).rules).toEqual({ supplies: [], consumables: [] });
  });
});

describe('a kit sheet taken out', () => {
  it('says where a component comes from', async () => {
    const { courseId, sessionId } = await newSession(context, [{ name: 'Dee', mode: 'take-home' }], RICE);
    await setRules(courseId, {
      supplies: [{ id: 'rice', kind: 'jar', name: 'long-grain white rice', grams: '500' }],
    });
    const { text } = await exportSheet(context, { sessionId });
    expect(text).toMatch(/\(75 g\), from the jar/);
    expect(text).toContain('For the whole course');
  });
});
