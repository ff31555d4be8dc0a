import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import { lockKitSheet } from '../kits/kit-sheet';
import { addSession } from '../plan/sessions';
import { addPerson } from '../roll/roll';
import { recordAllCame, recordAttendance, viewAttendance } from './attendance';

let store: Store;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

describe('who came', () => {
  it('is noted for all the rest at one press, but never over what was seen of somebody', async () => {
    const own = await newProgramme(store);
    const made = await newSession(own.coordinator, [{ name: 'Ada' }, { name: 'Bo' }, { name: 'Cleo' }]);
    const { sessionId, people } = made;
    const seen = async () =>
      (await viewAttendance(own.coordinator, { sessionId })).people.map((one) => [one.name, one.seen.join()]);
    await recordAttendance(own.coordinator, { sessionId, id: v7(), enrolmentId: people[1], state: 'absent' });

    const pressed = await Promise.all([1, 2].map(() => recordAllCame(own.coordinator, { sessionId })));
    expect(pressed.map(({ noted }) => noted).sort()).toEqual([0, 2]);
    expect(await seen()).toEqual([
      ['Ada', 'came'],
      ['Bo', 'absent'],
      ['Cleo', 'came'],
    ]);
    // Somebody was counted who is not there after all.
    await recordAttendance(own.coordinator, { sessionId, id: v7(), enrolmentId: people[2], state: 'absent' });
    expect((await recordAllCame(own.coordinator, { sessionId })).noted).toBe(0);
    expect((await seen())[2]).toEqual(['Cleo', 'absent']);
    // Nobody is in a group of that id.
    expect((await recordAllCame(own.coordinator, { sessionId, groupId: v7() })).noted).toBe(0);
  });

  it('asks after nobody who joined the course after the class, and had no kit of it', async () => {
    const own = await newProgramme(store);
    const { sessionId, courseId, basis } = await newSession(own.coordinator, [{ name: 'Ada' }]);
    await lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    const later = { ...own.coordinator, clock: () => Temporal.Instant.from('2026-12-02T12:00:00Z') };
    await addPerson(later, { courseId, cells: cells({ name: 'Late' }), status: 'enrolled' });
    expect((await viewAttendance(later, { sessionId })).people.map(({ name }) => name)).toEqual(['Ada']);
    const plan = { title: 'Next', startsAt: '16:00', minutes: 90, place: 'Boatshed', mode: 'in person' };
    const next = await addSession(later, { courseId, ...plan, date: '2026-12-03' });
    expect((await viewAttendance(later, { sessionId: next })).people.map(({ name }) => name)).toEqual(['Ada', 'Late']);
  });
});
