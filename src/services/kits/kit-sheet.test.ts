import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { setExtras } from '../plan/sessions';
import { giveMeaning } from '../programme/programme';
import { addPerson, editPerson, setStatus, viewRoll } from '../roll/roll';
import { exportSheet, leaveOut, lockKitSheet, putBack, recordLabel, viewKitSheet, viewWorking } from './kit-sheet';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const refusals = async (sessionId: string) => (await viewKitSheet(context, { sessionId })).sheet.draft?.refusedKits;

describe('a refused kit', () => {
  it('keeps the sheet from being locked until the coordinator leaves it out with a reason', async () => {
    const { sessionId, people, basis } = await newSession(context, [{ name: 'Ada' }, { name: 'Farid', avoids: 'egg' }]);
    expect(await refusals(sessionId)).toBe(1);
    await expect(lockKitSheet(context, { sessionId, basis: await basis() })).rejects.toThrow(
      '1 kit cannot be made safely',
    );
    await expect(leaveOut(context, { sessionId, enrolmentId: people[1], reason: '' })).rejects.toMatchObject({
      problems: [{ where: 'reason' }],
    });
    await leaveOut(context, { sessionId, enrolmentId: people[1], reason: 'brings his own, agreed by phone' });
    expect(await lockKitSheet(context, { sessionId, basis: await basis() })).toMatchObject({ revision: 1 });
    const { sheet } = await viewKitSheet(context, { sessionId });
    expect(sheet.locked?.leftOut).toEqual([
      { enrolmentId: people[1], name: 'Farid', reason: 'brings his own, agreed by phone' },
    ]);
    expect(sheet.locked?.kits.map(({ name }) => name)).toEqual(['Ada']);
    await putBack(context, { sessionId, enrolmentId: people[1] });
    expect((await viewKitSheet(context, { sessionId })).sheet.differences).toEqual([
      { kind: 'added', names: ['Farid'], what: ['1 serving, cannot be made yet'] },
    ]);
    await expect(lockKitSheet(context, { sessionId, basis: await basis() })).rejects.toThrow('cannot be made safely');
  });

  it('becomes possible when the label of the product in hand is recorded', async () => {
    const { sessionId } = await newSession(context, [{ name: 'Ivo', avoids: 'peanut' }]);
    expect(await refusals(sessionId)).toBe(1);
    await recordLabel(context, {
      sessionId,
      ingredient: 'ground cumin',
      product: 'Market stall cumin',
      allergens: ['MUSTARD'],
    });
    expect(await refusals(sessionId)).toBe(0);
    await recordLabel(context, {
      sessionId,
      ingredient: 'ground cumin',
      product: 'Another jar',
      allergens: ['PEANUT'],
    });
    expect(await refusals(sessionId)).toBe(1);
  });

  it('for a word nobody knows waits for its meaning, which then holds for every roll of the programme', async () => {
    const { sessionId } = await newSession(context, [{ name: 'Teo', avoids: 'latex fruit' }]);
    const { sheet } = await viewKitSheet(context, { sessionId });
    expect(sheet.draft?.variants[0]?.unknownWishes).toEqual(['latex fruit']);
    await expect(giveMeaning(context, { word: 'latex fruit' })).rejects.toThrow('Choose at least one');
    await expect(giveMeaning(context, { word: 'latex fruit', foods: ['durian'] })).rejects.toThrow(
      'Not something that can be avoided: durian',
    );
    await giveMeaning(context, { word: 'Latex fruit', foods: ['banana', 'mango'] });
    expect(await refusals(sessionId)).toBe(0);
  });
});

describe('locking', () => {
  it('takes only the sheet that was looked at', async () => {
    const { sessionId, courseId, basis } = await newSession(context, [{ name: 'Ada' }]);
    const seen = await basis();
    await addPerson(context, { courseId, cells: cells({ name: 'Late Joiner' }) });
    await expect(lockKitSheet(context, { sessionId, basis: seen })).rejects.toMatchObject({ kind: 'stale' });
    expect((await viewKitSheet(context, { sessionId })).sheet.locked).toBeUndefined();
  });

  it('by two people at once makes one revision, and tells the other', async () => {
    const { sessionId, basis } = await newSession(context, [{ name: 'Ada' }]);
    const seen = await basis();
    const both = await Promise.allSettled([
      lockKitSheet(context, { sessionId, basis: seen }),
      lockKitSheet(context, { sessionId, basis: seen }),
    ]);
    expect(both.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    expect(both.find(({ status }) => status === 'rejected')).toMatchObject({
      reason: { message: expect.stringContaining('Nothing has changed') },
    });
    expect(await find(store.db, store.db.models.kitSheet, { sessionId })).toHaveLength(1);
  });

  it('keeps kit numbers, ids and letters from revision to revision; new people get the next', async () => {
    const { sessionId, courseId, people, basis } = await newSession(context, [
      { name: 'Ada' },
      { name: 'Bram' },
      { name: 'Cleo', avoids: 'milk' },
    ]);
    await recordLabel(context, { sessionId, ingredient: 'ground cumin', product: 'Tin', allergens: [] });
    await lockKitSheet(context, { sessionId, basis: await basis() });
    const first = (await viewKitSheet(context, { sessionId })).sheet.locked;
    const bram = (await viewRoll(context, { courseId })).people.find(({ name }) => name === 'Bram');
    await setStatus(context, { enrolmentId: bram?.id, version: bram?.version, status: 'withdrawn' });
    await addPerson(context, { courseId, cells: cells({ name: 'Late Joiner', servings: '3' }) });
    const { sheet } = await viewKitSheet(context, { sessionId });
    expect(sheet.differences.map(({ kind, names }) => [kind, names])).toEqual([
      ['added', ['Late Joiner']],
      ['removed', ['Bram']],
    ]);
    expect(await lockKitSheet(context, { sessionId, basis: sheet.basis })).toMatchObject({ revision: 2 });
    const second = (await viewKitSheet(context, { sessionId })).sheet.locked;
    const kitOf = (sheetOf: typeof first, id: string | undefined) =>
      sheetOf?.kits.find((kit) => kit.enrolmentId === id);
    expect(kitOf(second, people[0])).toEqual(kitOf(first, people[0]));
    expect(kitOf(second, people[2])).toEqual(kitOf(first, people[2]));
    expect(second?.kits.map(({ name, number, variant }) => [name, number, variant])).toEqual([
      ['Ada', 1, 'A'],
      ['Cleo', 3, 'B'],
      ['Late Joiner', 4, 'C'],
    ]);
  });

  it('leaves a revision that the database itself will not change', async () => {
    const { sessionId, basis } = await newSession(context, [{ name: 'Ada' }]);
    const { fingerprint } = await lockKitSheet(context, { sessionId, basis: await basis() });
    expect(fingerprint).toMatch(/^[0-9a-f]{64}$/);
    await expect(store.db.models.kitSheet.update({ snapshot: '{}' }, { where: { sessionId } })).rejects.toThrow(
      'kit_sheet is append-only',
    );
    await expect(store.db.models.kitSheet.destroy({ where: { sessionId } })).rejects.toThrow('append-only');
    await expect(store.db.models.change.destroy({ where: {} })).rejects.toThrow('change_log is append-only');
  });
});

describe('what is made beside the kits', () => {
  it('is locked, numbered, packed and labelled with them, and falls away again as a difference', async () => {
    const { sessionId, basis } = await newSession(context, [{ name: 'Ada' }, { name: 'Cleo', avoids: 'milk' }]);
    const [dish] = (await viewKitSheet(context, { sessionId })).bundle.dishes;
    await setExtras(context, { sessionId, reserve: '1', crew: '2', swapIns: { [dish?.id ?? '']: '4' } });
    await lockKitSheet(context, { sessionId, basis: await basis() });
    const { locked } = (await viewKitSheet(context, { sessionId })).sheet;
    expect(locked?.kits.map(({ number, name }) => [number, name])).toEqual([
      [1, 'Ada'],
      [2, 'Cleo'],
      [3, `Swap-in: ${dish?.title}`],
      [4, 'Crew'],
      [5, 'Reserve 1'],
    ]);
    await setExtras(context, { sessionId, crew: '2' });
    expect(
      (await viewKitSheet(context, { sessionId })).sheet.differences.map(({ kind, names }) => [kind, names]),
    ).toEqual([
      ['removed', [`Swap-in: ${dish?.title}`]],
      ['removed', ['Reserve 1']],
    ]);
  });

  it('is refused when it is not a number of portions', async () => {
    const { sessionId } = await newSession(context, [{ name: 'Ada' }]);
    await expect(setExtras(context, { sessionId, crew: '-1' })).rejects.toMatchObject({
      problems: [{ where: 'crew' }],
    });
    await expect(setExtras(context, { sessionId, reserve: 'some' })).rejects.toMatchObject({
      problems: [{ where: 'reserve' }],
    });
  });
});

describe('a sheet', () => {
  it('shows its working, of the draft and of the locked revision', async () => {
    const { sessionId, basis, courseId } = await newSession(context, [{ name: 'Cleo', avoids: 'milk', servings: '2' }]);
    const ask = (of: 'draft' | 'locked', place: object) => viewWorking(context, { sessionId, of, ...place });
    expect((await ask('draft', { variant: 'A', row: 0 })).value).toBe('⅓ cup = 84 g');
    expect((await ask('draft', { variant: 'A', row: 0 })).from[0]?.from[0]?.from[0]?.because).toBe(
      'in place of what holds or may hold milk',
    );
    await lockKitSheet(context, { sessionId, basis: await basis() });
    await addPerson(context, { courseId, cells: cells({ name: 'Dario', servings: '2' }) });
    expect((await ask('locked', { ingredient: 'egg' })).from.at(-1)?.from.map(({ because }) => because)).toEqual([
      '1 × 50 g egg, large, without shell',
    ]);
    expect((await ask('draft', { ingredient: 'egg' })).from.at(-1)?.from).toHaveLength(2);
    await expect(ask('draft', { variant: 'Z', row: 0 })).rejects.toMatchObject({ kind: 'not-found' });
  });

  it('goes out as CSV in which nothing runs as a formula', async () => {
    const { sessionId } = await newSession(context, [
      { name: '=cmd()', servings: '2' },
      { name: 'Bram', avoids: 'egg' },
    ]);
    const { text } = await exportSheet(context, { sessionId });
    expect(text).toContain("'=cmd()");
    expect(text).not.toMatch(/(^|,)=/m);
    expect(text).toMatch(/refused,,,B,1,1,,egg: holds or may hold egg/);
    expect(text).toMatch(/to buy,,plain yogurt/);
  });

  it('of five hundred people loads in few queries, however many there are', async () => {
    const many = await newSession(context, [{ name: 'Ada' }, { name: 'Bram' }]);
    const before = store.queries();
    await viewKitSheet(context, { sessionId: many.sessionId });
    const few = store.queries() - before;
    // The page adds one: who is signed in.
    expect(few).toBeLessThanOrEqual(8);
    const rows = Array.from({ length: 40 }, (_, n) => cells({ name: `Person ${n}` }));
    for (const row of rows) await addPerson(context, { courseId: many.courseId, cells: row });
    const again = store.queries();
    await viewKitSheet(context, { sessionId: many.sessionId });
    expect(store.queries() - again).toBe(few);
  });
});

describe('two people editing one child', () => {
  it('both see it: the second is refused and nothing of theirs is saved', async () => {
    const { courseId, people } = await newSession(context, [{ name: 'Ada' }]);
    const edit = (change: object) =>
      editPerson(context, { enrolmentId: people[0], version: 1, cells: cells({ name: 'Ada', ...change }) });
    await edit({ servings: '2' });
    await expect(edit({ servings: '3', avoids: 'egg' })).rejects.toThrow('Ada was changed by someone else');
    const [ada] = (await viewRoll(context, { courseId })).people;
    expect(ada).toMatchObject({ servings: 2, version: 2, needs: [] });
  });
});
