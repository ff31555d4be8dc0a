import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import { ServiceError } from '../errors';
import type { Context } from '../gate/gate';
import { viewKitSheet } from '../kits/kit-sheet';
import { sayTheyWereAsked, viewRoll } from '../roll/roll';
import { previewRollFile, saveRoll } from '../roll/roll-file';
import { loadProgramme } from '../sheet/load-programme';
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

describe('two people who give a word a meaning at once', () => {
  it('are told apart: one is kept, the other hears of it', async () => {
    context = (await newProgramme(store)).coordinator;
    const gave = await Promise.allSettled(
      ['EGG', 'MILK', 'FISH', 'SOY'].map((code) => giveMeaning(context, { word: 'sea thrift', codes: [code] })),
    );
    const refused = gave.flatMap((each) => (each.status === 'rejected' ? [each.reason] : []));
    for (const error of refused) expect(error).toBeInstanceOf(ServiceError);
    expect(await listMeanings(context, {})).toHaveLength(1);
  });
});

describe('people whom nobody asked', () => {
  it('get no kit until each is asked or said to have been; the word itself can be given no meaning', async () => {
    context = (await newProgramme(store)).coordinator;
    const { courseId, sessionId } = await newSession(context, [{ name: 'Ada' }]);
    const bytes = new TextEncoder().encode('name,servings\nBo,1\nCy,1\n');
    const { rows, notes } = await previewRollFile(context, { courseId, bytes });
    expect(notes.join(' ')).toContain('not asked');
    await saveRoll(context, { courseId, rows });
    const refused = async () => (await viewKitSheet(context, { sessionId })).sheet.draft?.refusedKits;
    expect(await refused()).toBe(2);
    await expect(giveMeaning(context, { word: 'Not asked', nothing: true })).rejects.toThrow(
      'Nobody asked these people',
    );
    const { people } = await viewRoll(context, { courseId });
    const ids = people.filter(({ name }) => name !== 'Ada').map(({ id }) => id);
    await sayTheyWereAsked(context, { courseId, enrolmentIds: ids.slice(0, 1) });
    expect(await refused()).toBe(1);
    const logged = await find(store.db, store.db.models.change, { action: 'were asked', entityId: ids[0] });
    expect(logged.map(({ actorId }) => actorId)).toEqual([context.actor.id]);
  });

  it('are told from words that say nothing: that is said by a person, whose name is kept', async () => {
    context = (await newProgramme(store)).coordinator;
    const { sessionId } = await newSession(context, [{ name: 'Ada', avoids: 'loves broccoli' }]);
    const refused = async () => (await viewKitSheet(context, { sessionId })).sheet.draft?.refusedKits;
    expect(await refused()).toBe(1);
    const both = { word: 'loves broccoli', codes: ['EGG'], nothing: true };
    await expect(giveMeaning(context, both)).rejects.toThrow('choose one');
    await giveMeaning(context, { word: 'Loves broccoli', nothing: true });
    expect(await refused()).toBe(0);
    expect(await listMeanings(context, {})).toEqual([{ word: 'loves broccoli', codes: [], giverName: 'coordinator' }]);
  });
});

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
    await expect(editProgramme(context, { version: 1, ...SETTINGS, ...change })).rejects.toMatchObject({
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
    await giveMeaning(context, { word: 'latex fruit', foods: ['banana', 'mango'] });
    const needs = async (whose: Context, id: string) => (await viewRoll(whose, { courseId: id })).people[0]?.needs;
    expect(await needs(context, courseId)).toEqual([
      { asWritten: 'Latex Fruit', codes: ['food:banana', 'food:mango'] },
    ]);
    expect((await needs(other, foreign))?.[0]?.codes).toBeUndefined();
    expect(await listMeanings(context, {})).toMatchObject([
      { word: 'latex fruit', codes: ['food:banana', 'food:mango'] },
    ]);
    await forgetMeaning(context, { word: 'latex fruit' });
    expect((await needs(context, courseId))?.[0]?.codes).toBeUndefined();
  });

  it('is never nothing, and never something that cannot be avoided', async () => {
    context = (await newProgramme(store)).coordinator;
    await expect(giveMeaning(context, { word: 'odd' })).rejects.toThrow('Choose at least one allergen, diet or food');
    await expect(giveMeaning(context, { word: 'odd', codes: ['GHOSTS'], foods: ['unicorn'] })).rejects.toThrow(
      'Not something that can be avoided: GHOSTS, unicorn.',
    );
    expect(await listMeanings(context, {})).toEqual([]);
  });
});
