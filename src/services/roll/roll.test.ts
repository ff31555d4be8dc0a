import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RollCells } from '@/core/roll/roll-row';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { viewHousehold } from './home';
import { editPerson, viewRoll } from './roll';
import { previewRollFile, saveRoll } from './roll-file';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const names = async (courseId: string) => (await viewRoll(context, { courseId })).people.map(({ name }) => name);

describe('bringing in a roll', () => {
  it('previews without saving, and saves what was previewed', async () => {
    const { courseId } = await newSession(context, []);
    const bytes = new TextEncoder().encode('name;servings;avoids\nŁucja Wren;2;eggs, "latex fruit"\nBram;1;\n');
    const preview = await previewRollFile(context, { courseId, bytes });
    expect(preview.rows).toHaveLength(2);
    expect(await names(courseId)).toEqual([]);
    expect(await saveRoll(context, { courseId, rows: preview.rows })).toEqual({
      saved: 2,
      updated: 0,
      waiting: 0,
    });
    const [lucja] = (await viewRoll(context, { courseId })).people;
    expect(lucja?.needs.map(({ asWritten, codes }) => [asWritten, codes])).toEqual([
      ['eggs', ['EGG']],
      ['"latex fruit"', undefined],
    ]);
  });

  it('saves nothing while one row is refused, and everything once it is mended or left out', async () => {
    const { courseId } = await newSession(context, [{ name: 'Ada Finch' }]);
    const rows = [
      { line: 2, cells: cells({ name: 'Bram' }) },
      { line: 3, cells: cells({ name: 'Cleo', servings: '0' }) },
      { line: 4, cells: cells({ name: 'Ada  finch' }) },
    ];
    await expect(saveRoll(context, { courseId, rows })).rejects.toMatchObject({
      message: expect.stringContaining('2 of 3 rows cannot be used. Nothing was saved.'),
      problems: [{ where: 'line 3, servings' }, { where: 'line 4, name' }],
    });
    expect(await names(courseId)).toEqual(['Ada Finch']);
    const mended = [
      rows[0],
      { line: 3, cells: cells({ name: 'Cleo', servings: '2' }) },
      { ...rows[2], leaveOut: true },
    ];
    expect(await saveRoll(context, { courseId, rows: mended })).toEqual({ saved: 2, updated: 0, waiting: 0 });
    expect(await names(courseId)).toEqual(['Ada Finch', 'Bram', 'Cleo']);
  });

  it('twice at the same moment enrols nobody twice', async () => {
    const { courseId } = await newSession(context, []);
    const rows = [
      { line: 2, cells: cells({ name: 'Bram' }) },
      { line: 3, cells: cells({ name: 'Cleo' }) },
    ];
    const both = await Promise.allSettled([
      saveRoll(context, { courseId, rows }),
      saveRoll(context, { courseId, rows }),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(await names(courseId)).toEqual(['Bram', 'Cleo']);
  });

  it('gives a child of two homes one place, and keeps the contact of both', async () => {
    const { courseId } = await newSession(context, []);
    const row = (household: string, contact: string, as?: 'update') => ({
      line: 2,
      cells: cells({ name: 'Ada Finch', household, contact }),
      ...(as ? { as } : {}),
    });
    await saveRoll(context, { courseId, rows: [row('Finch', 'mum@homes.example')] });
    const other = row('Brook', 'dad@homes.example');
    await expect(saveRoll(context, { courseId, rows: [other] })).rejects.toMatchObject({
      problems: [{ message: expect.stringContaining('is on the roll already') }],
    });
    await saveRoll(context, { courseId, rows: [{ ...other, as: 'update' }] });
    const [ada] = (await viewRoll(context, { courseId })).people;
    const { household } = await viewHousehold(context, { householdId: ada?.householdId ?? '' });
    expect(household).toMatchObject({ name: 'Finch', contact: 'mum@homes.example; dad@homes.example' });
  });

  it('refuses what is not a roll with words a person can act on', async () => {
    const { courseId } = await newSession(context, []);
    await expect(previewRollFile(context, { courseId, bytes: new Uint8Array() })).rejects.toMatchObject({
      kind: 'invalid',
      message: expect.stringContaining('empty'),
    });
    await expect(saveRoll(context, { courseId, rows: [{ line: 2, cells: cells(), leaveOut: true }] })).rejects.toThrow(
      'there is nobody to save',
    );
  });

  it('is logged: who, what and when, never to be changed', async () => {
    const { courseId } = await newSession(context, []);
    await saveRoll(context, { courseId, rows: [{ line: 2, cells: cells({ name: 'Bram' }) }] });
    const log = await store.db.models.change.findAll({
      where: { entityId: courseId },
      raw: true,
      order: [['id', 'ASC']],
    });
    expect(log.map((row) => (row as unknown as { action: string }).action)).toEqual(['added', 'brought in a roll']);
    expect(log.at(-1)).toMatchObject({ actorId: context.actor.id, detail: { people: 1, updated: 0, leftOut: 0 } });
  });
});

describe('how a family is reached', () => {
  const shown = { contact: 'wren@quay.example', address: 'Net Loft 3' };

  async function family() {
    const both = { household: `Wren ${crypto.randomUUID()}`, ...shown };
    const { courseId, people } = await newSession(context, [
      { name: 'Łucja', ...both },
      { name: 'Bram', ...both },
    ]);
    const roll = async () => viewRoll(context, { courseId, editing: people[0] ?? '' });
    const change = (child: 0 | 1, written: Partial<RollCells>, saw = shown) =>
      editPerson(context, {
        enrolmentId: people[child],
        version: 1,
        cells: cells({ name: child === 0 ? 'Łucja' : 'Bram', ...written }),
        shown: saw,
      });
    const reach = async () => {
      const { contact, address } = (await roll()).cells ?? {};
      return { contact, address };
    };
    return { change, reach };
  }

  it('is cleared when it is emptied, and stays where nothing was changed', async () => {
    const { change, reach } = await family();
    await change(0, { contact: '', address: shown.address });
    expect(await reach()).toEqual({ contact: '', address: 'Net Loft 3' });
  });

  it('changed from two siblings’ forms at once keeps both changes, and refuses what was changed meanwhile', async () => {
    const { change, reach } = await family();
    await change(0, { ...shown, contact: 'new@quay.example' });
    await change(1, { ...shown, address: 'Rope Walk 9' });
    expect(await reach()).toEqual({ contact: 'new@quay.example', address: 'Rope Walk 9' });
    const other = await family();
    await other.change(0, { ...shown, contact: 'one@quay.example' });
    await expect(other.change(1, { ...shown, contact: 'two@quay.example' })).rejects.toMatchObject({ kind: 'stale' });
    expect((await other.reach()).contact).toBe('one@quay.example');
  });
});
