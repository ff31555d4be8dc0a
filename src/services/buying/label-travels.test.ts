import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { WrittenLine } from '@/core/recipes/recipe/recipe';
import { find, findOne } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { forgetLabel, lockKitSheet, recordLabel } from '../kits/kit-sheet';
import { addPerson, editPerson } from '../roll/roll';
import { labelsOf } from '../sheet/session-labels';
import { nameProducts } from './label-travels';
import { addLot, countShelf, viewStock } from './stock';
import { takeForSession, viewFromShelf } from './take-out';

const CARROTS: WrittenLine[] = [{ ingredient: 'carrot', preparation: 'grated', amount: '200', unit: 'g' }];

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const carrots = (more: object) => ({
  id: v7(),
  ingredient: 'carrot',
  packs: 0,
  packGrams: null,
  grams: 2000,
  storage: 'fridge',
  lastDay: '2026-12-10',
  lastKind: 'best before',
  origin: 'bought',
  labelRead: true,
  allergens: [],
  ...more,
});

const calledBack = async (sessionId: string) =>
  (await find(store.db, store.db.models.packEvent, { sessionId }, [['seq', 'ASC']])).at(-1)?.action;

describe('what is in the kits', () => {
  it('is what was taken off the shelves: whoever tells a need later is called back, whatever label is written down since', async () => {
    const { sessionId, courseId, basis } = await newSession(context, [{ name: 'Ada' }], CARROTS);
    // Carrots in a dressing with sesame: nobody looks for it in carrots.
    await addLot(context, carrots({ name: 'Dressed carrots', allergens: ['SESAME'] }));
    await lockKitSheet(context, { sessionId, basis: await basis() });
    await takeForSession(context, { sessionId });
    expect(await labelsOf(store.db, sessionId)).toMatchObject([{ product: 'Dressed carrots', allergens: ['SESAME'] }]);
    const ada = await findOne(store.db, store.db.models.enrolment, { courseId });
    const tell = (avoids: string, version: number) =>
      editPerson(context, { enrolmentId: ada?.id ?? '', version, cells: cells({ name: 'Ada', avoids }) });
    await tell('sesame', ada?.version ?? 1);
    expect(await calledBack(sessionId)).toBe('called back');
    // Another product in hand, or none, does not take the lot out of the kits.
    const shown = 'Dressed carrots|SESAME';
    await recordLabel(context, { sessionId, ingredient: 'carrot', product: 'Plain carrots', allergens: [], shown });
    await forgetLabel(context, { sessionId, ingredient: 'carrot', shown: 'Plain carrots|' });
    expect(await calledBack(sessionId)).toBe('called back');
  });

  it('is taken only from what is right for everybody of a letter, though it made no difference to the sheet', async () => {
    const { sessionId, basis } = await newSession(
      context,
      [{ name: 'Bo' }, { name: 'Cy', avoids: 'mustard' }],
      CARROTS,
    );
    await addLot(context, carrots({ name: 'Mustard carrots', allergens: ['MUSTARD'], lastDay: '2026-11-30' }));
    await addLot(context, carrots({ name: 'Carrots of the field' }));
    await lockKitSheet(context, { sessionId, basis: await basis() });
    const { takes } = await viewFromShelf(context, { sessionId });
    expect([...new Set(takes.map(({ name }) => name))]).not.toContain('Mustard carrots');
    await takeForSession(context, { sessionId });
    expect(await calledBack(sessionId)).toBeUndefined();
  });

  it('may be either of two products that came for one session: both are named, and what either holds counts', async () => {
    const { sessionId, courseId, basis } = await newSession(context, [{ name: 'Dot', avoids: 'milk' }], CARROTS);
    const came = { sessionId, ingredient: 'carrot', isAvoided: true };
    await nameProducts(context, store.db, [
      { ...came, product: 'Quay carrots', label: ['SESAME'] },
      { ...came, product: 'Hill carrots', label: [] },
    ]);
    const [label] = await labelsOf(store.db, sessionId);
    expect(label).toMatchObject({ product: 'Quay carrots” or “Hill carrots', allergens: ['SESAME'] });
    await addLot(context, carrots({ name: 'Hill carrots' }));
    await lockKitSheet(context, { sessionId, basis: await basis() });
    expect((await viewFromShelf(context, { sessionId })).takes).toMatchObject([{ name: 'Hill carrots' }]);
    await addPerson(context, { courseId, cells: cells({ name: 'Eli', avoids: 'sesame' }) });
    expect((await viewFromShelf(context, { sessionId })).takes).toMatchObject([{ name: 'Hill carrots' }]);
  });
});

describe('a shelf that was counted many times', () => {
  it('is read in few queries, and stands as its last count says', async () => {
    const lot = carrots({ name: 'Counted carrots', packs: 4, packGrams: 500, grams: 0 });
    await addLot(context, lot);
    for (const packs of [3, 5, 2]) await countShelf(context, { moves: [{ id: v7(), lotId: lot.id, packs, grams: 0 }] });
    const before = store.queries();
    const { lots } = await viewStock(context, {});
    expect(store.queries() - before).toBeLessThanOrEqual(8);
    expect(lots.find(({ id }) => id === lot.id)?.now).toMatchObject({ packs: 2, loose: 0, grams: 1000 });
  });
});
