import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadSessionBundles } from '@/store/session-bundles';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { lockKitSheet, viewKitSheet } from '../kits/kit-sheet';
import { recordTicks, viewBench } from '../packing/bench';
import { addCourse } from './courses';
import { addGroup } from './groups';
import { addDish, addSession } from './sessions';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const load = (filter: Parameters<typeof loadSessionBundles>[2], of: Context = context) =>
  loadSessionBundles(store.db, of.actor.programmeId, filter);

describe('sessions with all that belongs to them', () => {
  it('come in order of date and time, and not from another programme', async () => {
    const courseId = await addCourse(context, { title: 'Ordered', audience: '' });
    const at = (date: string, startsAt: string) =>
      addSession(context, { courseId, title: 'X', date, startsAt, minutes: 60, place: 'Loft', mode: 'in person' });
    const late = await at('2027-03-02', '16:00');
    const early = await at('2027-03-02', '09:00');
    const first = await at('2027-03-01', '18:00');
    const span = { from: '2027-03-01', to: '2027-03-02' };
    expect((await load(span)).map(({ session }) => session.id)).toEqual([first, early, late]);
    expect((await load({ ids: [late, first] })).map(({ session }) => session.id)).toEqual([first, late]);
    const foreign = (await newProgramme(store)).coordinator;
    expect(await load({ ids: [late] }, foreign)).toEqual([]);
    expect(await load({ ids: [] })).toEqual([]);
  });

  it('bring the newest locked sheet, who locked it, and what was ticked, in order', async () => {
    const { sessionId, basis } = await newSession(context, [{ name: 'Bo', servings: '4' }]);
    await lockKitSheet(context, { sessionId, basis: await basis() });
    const { sheet } = await viewBench(context, { sessionId });
    const kit = sheet.kits[0] as (typeof sheet.kits)[number];
    const ticks = kit.components.slice(0, 2).map((component) => {
      return { id: context.ids(), kitId: kit.id, component, action: 'packed' as const };
    });
    await recordTicks(context, { sessionId, ticks });
    const recipeId = (await load({ ids: [sessionId] }))[0]?.dishes[0]?.recipeId ?? '';
    const other = await newSession(context, [{ name: 'Ada', servings: '2' }]);
    await addDish(context, { sessionId: other.sessionId, recipeId });
    const [bundle] = await load({ ids: [sessionId] });
    expect(bundle?.sheet).toMatchObject({ revision: 1, lockedByName: context.actor.name });
    expect(bundle?.events.map(({ seq, component }) => [seq, component])).toEqual(
      ticks.map(({ component }, n) => [n + 1, component]),
    );
    // A recipe that two sessions cook is told to both.
    const both = await load({ ids: [sessionId, other.sessionId] });
    expect(both.map(({ dishes }) => dishes.find((dish) => dish.recipeId === recipeId)?.body.servings)).toEqual([
      expect.any(Number),
      expect.any(Number),
    ]);
    expect(
      both.every(({ dishes }) =>
        dishes.every(({ body, recipeVersion }) => body.lines.length > 0 && recipeVersion === 1),
      ),
    ).toBe(true);
    expect((await viewKitSheet(context, { sessionId })).sheet.locked).toBeDefined();
  });

  it('bring sittings where a course is given to several groups, and none elsewhere', async () => {
    const { courseId, sessionId } = await newSession(context, [{ name: 'Bo', servings: '1' }]);
    expect((await load({ ids: [sessionId] }))[0]?.session).toMatchObject({ sittings: [], groupName: null });
    const usual = { firstName: 'First', name: 'Second', daysAfter: '1', startsAt: '10:00', place: 'Hall' };
    await addGroup(context, { courseId, ...usual });
    expect((await load({ ids: [sessionId] }))[0]?.session).toMatchObject({
      groupName: 'First',
      sittings: [{ groupName: 'Second', startsAt: '10:00', place: 'Hall', status: 'planned' }],
    });
  });

  it('are loaded in as many queries however many there are', async () => {
    const { sessionId } = await newSession(context, [{ name: 'Bo', servings: '1' }]);
    const counted = async (filter: Parameters<typeof loadSessionBundles>[2]) => {
      const before = store.queries();
      await load(filter);
      return store.queries() - before;
    };
    expect(await counted({ ids: [sessionId] })).toBe(5);
    expect(await counted({ from: '2026-01-01', to: '2028-01-01' })).toBe(5);
  });
});
