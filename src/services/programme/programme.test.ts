import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../access/gate';
import { viewKitSheet } from '../kits/kit-sheet';
import { viewRoll } from '../roll/roll';
import { loadProgramme } from './load';
import { editProgramme, forgetMeaning, giveMeaning, listMeanings } from './programme';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const SETTINGS = {
  name: 'Test house',
  measureSystem: 'us',
  safetyProfile: 'us',
  timeZone: 'Europe/London',
  retentionMonths: 24,
} as const;

describe('the settings', () => {
  it('change how amounts are said, and nothing of what is measured', async () => {
    context = (await newProgramme(store)).coordinator;
    const { sessionId } = await newSession(context, [{ name: 'Ada', servings: '4' }]);
    const cumin = async () => {
      const { sheet } = await viewKitSheet(context, { sessionId });
      return sheet.draft?.variants[0]?.components?.find(({ ingredient }) => ingredient === 'ground cumin');
    };
    expect(await cumin()).toMatchObject({ say: '1 tsp' });
    await editProgramme(context, { version: 1, ...SETTINGS, measureSystem: 'metric' });
    expect((await cumin())?.say).toMatch(/ml|tsp/);
    expect((await loadProgramme(context)).programme).toMatchObject({ measureSystem: 'metric', version: 2 });
  });

  it('saved by two people at once keep the first, and tell the second', async () => {
    context = (await newProgramme(store)).coordinator;
    const both = await Promise.allSettled(
      ['Quay house', 'Loft house'].map((name) => editProgramme(context, { version: 1, ...SETTINGS, name })),
    );
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  });

  it.each([
    [{ timeZone: 'Mars/Olympus' }, 'timeZone'],
    [{ measureSystem: 'cubits' }, 'measureSystem'],
    [{ retentionMonths: 0 }, 'retentionMonths'],
    [{ retentionMonths: 'ever' }, 'retentionMonths'],
    [{ name: '  ' }, 'name'],
  ])('that cannot be used are refused by name: %o', async (change, where) => {
    context = (await newProgramme(store)).coordinator;
    await expect(editProgramme(context, { version: 1, ...SETTINGS, ...change } as never)).rejects.toMatchObject({
      problems: [{ where }],
    });
  });
});

describe('what families’ words mean', () => {
  it('holds for every roll of the programme, however the words are spelled, and for no other programme', async () => {
    context = (await newProgramme(store)).coordinator;
    const other = (await newProgramme(store)).coordinator;
    const { courseId } = await newSession(context, [{ name: 'Teo', avoids: 'Latex  Fruit' }]);
    const { courseId: foreign } = await newSession(other, [{ name: 'Ida', avoids: 'latex fruit' }]);
    await giveMeaning(context, { wish: 'latex fruit', foods: ['banana', 'mango'] });
    const wishes = async (whose: Context, id: string) => (await viewRoll(whose, { courseId: id })).people[0]?.wishes;
    expect(await wishes(context, courseId)).toEqual([
      { asWritten: 'Latex Fruit', codes: ['food:banana', 'food:mango'] },
    ]);
    expect((await wishes(other, foreign))?.[0]?.codes).toBeUndefined();
    expect(await listMeanings(context, {})).toEqual([{ wish: 'latex fruit', codes: ['food:banana', 'food:mango'] }]);
    await forgetMeaning(context, { wish: 'latex fruit' });
    expect((await wishes(context, courseId))?.[0]?.codes).toBeUndefined();
  });

  it('is never nothing, and never something that cannot be avoided', async () => {
    context = (await newProgramme(store)).coordinator;
    await expect(giveMeaning(context, { wish: 'odd' })).rejects.toThrow('Choose at least one allergen, diet or food');
    await expect(giveMeaning(context, { wish: 'odd', codes: ['GHOSTS'], foods: ['unicorn'] })).rejects.toThrow(
      'Not something that can be avoided: GHOSTS, unicorn.',
    );
    expect(await listMeanings(context, {})).toEqual([]);
  });
});
