import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context, Role } from '../gate/gate';
import { lockKitSheet } from '../kits/kit-sheet';
import { recordTicks, viewBench } from '../packing/bench';
import { addClosure } from '../plan/closures';
import { addCourse } from '../plan/courses';
import { addSession, editSession } from '../plan/sessions';
import { editProgramme, giveMeaning, setWorkHours } from '../programme/programme';
import { addPerson } from '../roll/roll';
import { addOneOffJob, changeJob, markJob, removeOneOffJob, viewCountdown, viewJobs } from './countdown';

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
    await giveMeaning(coordinator, { word: 'latex fruit', foods: ['banana', 'mango'] });
    expect(await knots(sessionId)).toMatchObject({ roll: { state: 'done' }, kits: { state: 'can start' } });

    await lockKitSheet(coordinator, { sessionId, basis: await basis() });
    // Six days before the class fresh food would not keep.
    expect(await knots(sessionId)).toMatchObject({
      kits: { state: 'done', why: 'Locked, version 1.' },
      buying: { state: 'due later' },
    });
    const inHours = (hours: number) => ({ ...coordinator, clock: () => NOW.add({ hours }) });
    expect(await knots(sessionId, inHours(72))).toMatchObject({
      buying: { state: 'can start' },
      packing: { state: 'due later' },
    });
    await markJob(coordinator, { sessionId, job: 'buying', done: true });
    // The class is on 26 November at four: cold food is packed from the afternoon before.
    expect(await knots(sessionId, inHours(5 * 24))).toMatchObject({ packing: { state: 'due later' } });
    expect(await knots(sessionId, inHours(5 * 24 + 5))).toMatchObject({
      packing: { state: 'can start', why: '1 kit to pack.' },
    });
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
    });
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

describe('the jobs of a session', () => {
  it('are marked by somebody at some time, and the mark can be taken back', async () => {
    own = await newProgramme(store);
    const { coordinator } = own;
    const { sessionId } = await newSession(coordinator, [{ name: 'Ada' }]);
    const state = async (job: string) => {
      const { thread } = await viewJobs(coordinator, { sessionId });
      return thread.jobs.find(({ key }) => key === job)?.state;
    };
    await markJob(coordinator, { sessionId, job: 'closeout', done: true });
    expect(await state('closeout')).toBe('done');
    await markJob(coordinator, { sessionId, job: 'closeout', done: false });
    expect(await state('closeout')).toBe('due later');
    const marks = await find(store.db, store.db.models.stageMark, { sessionId }, [['id', 'ASC']]);
    expect(marks.map(({ actorId, done, at }) => [actorId, done, at.toISOString()])).toEqual([
      [coordinator.actor.id, 1, '2026-11-20T12:00:00.000Z'],
      [coordinator.actor.id, 0, '2026-11-20T12:00:00.000Z'],
    ]);
    await expect(markJob(coordinator, { sessionId, job: 'kits', done: true })).rejects.toThrow('when its stage is');
    await expect(markJob(coordinator, { sessionId, job: 'party', done: true })).rejects.toMatchObject({
      kind: 'not-found',
    });
  });

  it('are few for a small class, take up others when asked, and hold one of their own', async () => {
    own = await newProgramme(store);
    const { coordinator } = own;
    const { sessionId, courseId } = await newSession(coordinator, [{ name: 'Ada' }]);
    const keys = async () => (await viewJobs(coordinator, { sessionId })).thread.jobs.map(({ key }) => key);
    expect(await keys()).toEqual(['recipes', 'roll', 'kits', 'buying', 'packing', 'classday', 'closeout']);
    await changeJob(coordinator, { sessionId, job: 'thaw', for: 'course', on: true });
    await changeJob(coordinator, { sessionId, job: 'packing', for: 'session', fixed: 200 });
    const van = { sessionId, title: 'Fetch the van', stage: 'packing', minutes: 45, hours: 'crew', before: 'packing' };
    const job = await addOneOffJob(coordinator, van);
    const { thread } = await viewJobs(coordinator, { sessionId });
    expect(thread.jobs.find(({ key }) => key === job)).toMatchObject({ title: 'Fetch the van', oneOff: true });
    expect(thread.jobs.find(({ key }) => key === 'packing')?.minutes).toBe(203);
    const other = await addSession(coordinator, {
      ...{
        courseId,
        title: 'Next',
        date: '2026-12-03',
        startsAt: '16:00',
        minutes: 60,
        place: 'Loft',
        mode: 'in person',
      },
    });
    const next = (await viewJobs(coordinator, { sessionId: other })).thread.jobs;
    expect(next.map(({ key }) => key)).toContain('thaw');
    expect(next.find(({ key }) => key === 'packing')?.minutes).toBe(23);
    await removeOneOffJob(coordinator, { sessionId, job });
    expect(await keys()).not.toContain(job);
    await expect(addOneOffJob(coordinator, { ...van, minutes: -1 })).rejects.toMatchObject({
      problems: [{ where: 'minutes' }],
    });
  });

  it('follow the hours that the programme says, and its closures', async () => {
    own = await newProgramme(store);
    const { coordinator } = own;
    const { sessionId } = await newSession(coordinator, [{ name: 'Ada' }]);
    const shopBy = async () =>
      (await viewJobs(coordinator, { sessionId })).thread.jobs.find(({ key }) => key === 'buying')?.startBy;
    expect(await shopBy()).toBe('2026-11-26T14:36:00Z');
    const shop = [{ weekdays: [1, 2], from: '09:00', to: '12:00' }];
    const crew = [{ weekdays: [1, 2, 3, 4, 5], from: '09:00', to: '18:00' }];
    await setWorkHours(coordinator, { version: 1, shop, crew });
    expect(await shopBy()).toBe('2026-11-24T10:59:00Z');
    await addClosure(coordinator, { title: 'Floor repair', from: '2026-11-25', to: '2026-11-26' });
    const { thread } = await viewJobs(coordinator, { sessionId });
    expect(thread.jobs.find(({ key }) => key === 'packing')).toMatchObject({ state: 'cannot be met' });
    expect(thread.tooLate).toContain('Pack takes 23 minutes');
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
