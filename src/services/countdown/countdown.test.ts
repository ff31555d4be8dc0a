import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { cells, NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context, Role } from '../access/gate';
import { lockKitSheet } from '../kits/kit-sheet';
import { recordTicks, viewBench } from '../packing/bench';
import { addCourse } from '../plan/courses';
import { addSession, editSession } from '../plan/sessions';
import { editProgramme, giveMeaning } from '../programme/programme';
import { addPerson } from '../roll/roll';
import { markJob, viewCountdown } from './countdown';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

/** A session's knots by stage, as the countdown shows them. */
async function knots(sessionId: string, context = own.coordinator) {
  const { threads } = await viewCountdown(context, {});
  const thread = threads.find(({ id }) => id === sessionId);
  return Object.fromEntries((thread?.knots ?? []).map(({ stage, state, why }) => [stage, { state, why }]));
}

describe('the thread of a session', () => {
  it('follows it from an empty plan to packed kits', async () => {
    own = await newProgramme(store);
    const { coordinator, crew } = own;
    const { sessionId, courseId, basis } = await newSession(coordinator, []);
    expect(await knots(sessionId)).toMatchObject({
      recipes: { state: 'done' },
      roll: { state: 'can start', why: 'Nobody is on the roll yet.' },
      buying: { state: 'due later' },
      packing: { state: 'due later' },
    });
    await addPerson(coordinator, { courseId, cells: cells({ name: 'Teo', avoids: 'latex fruit' }) });
    expect(await knots(sessionId)).toMatchObject({
      roll: { why: '1 avoidance on the roll still needs a meaning.' },
      kits: { state: 'doing', why: '1 kit cannot be made safely yet.' },
    });
    await giveMeaning(coordinator, { wish: 'latex fruit', foods: ['banana', 'mango'] });
    expect(await knots(sessionId)).toMatchObject({ roll: { state: 'done' }, kits: { state: 'can start' } });

    await lockKitSheet(coordinator, { sessionId, basis: await basis() });
    expect(await knots(sessionId)).toMatchObject({
      kits: { state: 'done', why: 'Locked, revision 1.' },
      buying: { state: 'can start' },
      packing: { state: 'can start', why: '1 kit to pack.' },
    });
    await markJob(coordinator, { sessionId, job: 'buying', done: true });
    const { sheet } = await viewBench(crew, { sessionId });
    const ticks = sheet.kits.flatMap((kit) =>
      kit.components.map((component) => ({ id: v7(), kitId: kit.id, component, action: 'packed' as const })),
    );
    await recordTicks(crew, { sessionId, ticks: ticks.slice(0, 1) });
    expect(await knots(sessionId)).toMatchObject({ buying: { state: 'done' }, packing: { state: 'doing' } });
    await recordTicks(crew, { sessionId, ticks: ticks.slice(1) });
    expect(await knots(sessionId)).toMatchObject({ packing: { state: 'done', why: 'All 1 kit packed.' } });

    await addPerson(coordinator, { courseId, cells: cells({ name: 'Late Comer' }) });
    expect((await knots(sessionId)).kits?.why).toContain('look at the differences');
  });

  it('moves with its session, and is counted in the programme’s time zone', async () => {
    own = await newProgramme(store);
    const { sessionId } = await newSession(own.coordinator, [{ name: 'Ada' }]);
    const start = async () => (await viewCountdown(own.coordinator, {})).threads[0]?.start;
    expect(await start()).toBe('2026-11-26T16:00:00Z');
    const plan = { title: 'Breads', date: '2026-11-28', startsAt: '09:30', minutes: 90, place: 'Boatshed' };
    await editSession(own.coordinator, { sessionId, version: 1, ...plan, mode: 'in person' });
    expect(await start()).toBe('2026-11-28T09:30:00Z');
    const { programmeId } = own.coordinator.actor;
    const [programme] = await store.db.models.programme.findAll({ where: { id: programmeId }, raw: true });
    await editProgramme(own.coordinator, {
      ...(programme as unknown as Parameters<typeof editProgramme>[1] & object),
      timeZone: 'America/Chicago',
    } as never);
    expect(await start()).toBe('2026-11-28T15:30:00Z');
  });

  it('is on the countdown from its own day until two weeks before', async () => {
    own = await newProgramme(store);
    await newSession(own.coordinator, [{ name: 'Ada' }]);
    const shown = async (days: number) =>
      (await viewCountdown({ ...own.coordinator, clock: () => NOW.add({ hours: 24 * days }) }, {})).threads.length;
    // The session is on 26 November, six days from now.
    expect([await shown(-9), await shown(-8), await shown(0), await shown(6), await shown(7)]).toEqual([0, 1, 1, 1, 0]);
  });
});

describe('the countdown', () => {
  it('asks the database as often for thirty sessions as for one', async () => {
    own = await newProgramme(store);
    const { courseId } = await newSession(own.coordinator, [{ name: 'Ada' }]);
    const count = async () => {
      const before = store.queries();
      await viewCountdown(own.coordinator, {});
      return store.queries() - before;
    };
    const few = await count();
    const plan = { date: '2026-11-27', minutes: 60, place: 'Boatshed', mode: 'take-home' as const };
    for (let n = 0; n < 29; n++) {
      const startsAt = `${String(8 + Math.floor(n / 4)).padStart(2, '0')}:00`;
      await addSession(own.coordinator, { courseId, title: `Session ${n}`, startsAt, ...plan });
    }
    expect(await count()).toBe(few);
    // The page adds one: who is signed in.
    expect(few).toBeLessThanOrEqual(7);
    expect((await viewCountdown(own.coordinator, {})).threads).toHaveLength(30);
  });

  it('tells first what is late, and says nothing of a course without sessions', async () => {
    own = await newProgramme(store);
    await addCourse(own.coordinator, { title: 'Nothing yet', audience: '' });
    expect((await viewCountdown(own.coordinator, {})).next).toEqual([]);
    const { sessionId } = await newSession(own.coordinator, []);
    const later = { ...own.coordinator, clock: () => NOW.add({ hours: 48 }) };
    const [first] = (await viewCountdown(later, {})).next;
    expect(first).toMatchObject({ session: { id: sessionId }, knot: { stage: 'roll', state: 'late' } });
  });
});
