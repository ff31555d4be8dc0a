import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context, Role } from '../access/gate';
import { listDuties, viewRoom } from '../classday/room';
import { leaveOut, lockKitSheet, viewKitSheet } from '../kits/kit-sheet';
import { viewBench } from '../packing/bench';
import { labelsToPrint } from '../packing/labels';
import { addPerson, editPerson } from '../roll/roll';
import { exportRoll, saveRoll } from '../roll/roll-file';
import { eraseHousehold, exportHousehold, listHouseholds, listLooks } from './households';
import { clearOut } from './retention';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const FAMILY = {
  name: 'Ivo Castellan',
  avoids: 'sesame',
  household: 'Castellan',
  contact: 'castellan@example.test',
  address: '2 Harbour Steps',
  plan: 'Pen into the outer thigh.',
};

async function lockedWithFamily() {
  own = await newProgramme(store);
  const session = await newSession(own.coordinator, [
    FAMILY,
    { name: 'Mira Castellan', household: ' castellan ', servings: '2' },
    { name: 'Ada Finch' },
  ]);
  await leaveOut(own.coordinator, {
    sessionId: session.sessionId,
    enrolmentId: session.people[1],
    reason: 'Mira is away',
  });
  await lockKitSheet(own.coordinator, { sessionId: session.sessionId, basis: await session.basis() });
  await editPerson(own.coordinator, {
    enrolmentId: session.people[0],
    version: 1,
    cells: cells({ ...FAMILY, name: 'Ivo Castellan-Ray' }),
  });
  return session;
}

const household = async (name: string) =>
  (await listHouseholds(own.coordinator, {})).find((candidate) => candidate.name === name);

describe('a household', () => {
  it('gathers those who name it, however it is written; who names none is one of their own', async () => {
    own = await newProgramme(store);
    const { courseId } = await newSession(own.coordinator, []);
    const rows = [
      cells({ ...FAMILY }),
      cells({ name: 'Mira', household: 'CASTELLAN', contact: 'new@example.test' }),
      cells({ name: 'Ada' }),
    ].map((row, index) => ({ line: index + 2, cells: row }));
    await saveRoll(own.coordinator, { courseId, rows });
    expect(await household('Castellan')).toMatchObject({ people: 2 });
    expect(await household('Ada')).toMatchObject({ people: 1 });
    const { text } = await exportRoll(own.coordinator, { courseId });
    expect(text).toContain(
      'Ivo Castellan,7,1,sesame,,,Castellan,new@example.test,2 Harbour Steps,Pen into the outer thigh.',
    );
    expect(text).toContain('Ada,7,1,,,,,,');
  });

  it('is taken out whole: people, needs, plan, kits, reasons and what was changed', async () => {
    await lockedWithFamily();
    const id = (await household('Castellan'))?.id ?? '';
    const held = JSON.stringify(await exportHousehold(own.coordinator, { householdId: id }));
    for (const part of ['Ivo Castellan-Ray', 'sesame', 'Pen into', '2 Harbour Steps', 'Mira is away', '"number":1'])
      expect(held).toContain(part);
    expect(held).not.toContain('Ada Finch');
  });

  it('erased is gone from rows, snapshots and log; counts stay, and its kit is called back', async () => {
    const { sessionId } = await lockedWithFamily();
    const { programmeId } = own.coordinator.actor;
    expect(await ofProgramme(programmeId)).toContain('Mira is away');
    const { id = '', version = 0 } = (await household('Castellan')) ?? {};
    const before = (await viewBench(own.crew, { sessionId })).sheet;
    await expect(eraseHousehold(own.coordinator, { householdId: id, version: version + 1 })).rejects.toMatchObject({
      kind: 'stale',
    });
    expect(await eraseHousehold(own.coordinator, { householdId: id, version })).toMatchObject({ people: 2, sheets: 1 });
    const left = await ofProgramme(programmeId);
    for (const part of ['Ivo Castellan', 'Mira Castellan', 'Mira is away', 'Pen into', 'Harbour Steps', 'castellan@']) {
      expect(left).not.toContain(part);
    }
    const { sheet, events } = await viewBench(own.crew, { sessionId });
    expect(sheet.kits.map(({ number }) => number)).toEqual(before.kits.map(({ number }) => number));
    expect(events).toMatchObject([{ action: 'called back' }]);
    await expect(exportHousehold(own.coordinator, { householdId: id })).rejects.toMatchObject({ kind: 'not-found' });
    await expect(store.sequelize.query("UPDATE change_log SET detail = '{}'")).rejects.toThrow('append-only');
  });

  it('is due to be erased when its last session lies longer back than the programme keeps', async () => {
    own = await newProgramme(store);
    await newSession(own.coordinator, [FAMILY]);
    expect(await household('Castellan')).toMatchObject({
      lastDate: '2026-11-26',
      eraseFrom: '2028-11-26',
      isDue: false,
    });
    const later = { ...own.coordinator, clock: () => NOW.add({ hours: 24 * 740 }) };
    expect((await listHouseholds(later, {}))[0]).toMatchObject({ isDue: true });
  });
});

/** What a programme's own rows hold, as one text. */
async function ofProgramme(programmeId: string): Promise<string> {
  const { models } = store.db;
  const courses = await find(store.db, models.course, { programmeId });
  const courseId = courses.map(({ id }) => id);
  const sessions = await find(store.db, models.session, { courseId });
  const sessionId = sessions.map(({ id }) => id);
  return JSON.stringify([
    await find(store.db, models.household, { programmeId }),
    await find(store.db, models.enrolment, { courseId }),
    await find(store.db, models.kitExclusion, { sessionId }),
    await find(store.db, models.kitSheet, { sessionId }),
    await find(store.db, models.change, { programmeId }),
    await find(store.db, models.message, { programmeId }),
    await find(store.db, models.job, { programmeId }),
    await find(store.db, models.printOut, { programmeId }),
  ]);
}

describe('what people must avoid', () => {
  it('is shown to those in the room near the class: need and plan, never contact or address', async () => {
    own = await newProgramme(store);
    const { sessionId, courseId } = await newSession(own.coordinator, [FAMILY, { name: 'Ada Finch' }]);
    await addPerson(own.coordinator, { courseId, cells: cells({ name: 'Teo', avoids: 'latex fruit' }) });
    const near = (role: Role, days: number) => ({ ...own[role], clock: () => NOW.add({ hours: 24 * days }) });
    const room = await viewRoom(near('crew', 5), { sessionId });
    expect(room.people).toMatchObject([
      { name: 'Ivo Castellan', avoids: [{ means: 'sesame' }], plan: 'Pen into the outer thigh.' },
      { name: 'Teo', avoids: [{ asWritten: 'latex fruit', means: '' }] },
    ]);
    expect(room.others).toBe(1);
    expect(JSON.stringify(room)).not.toMatch(/Harbour|castellan@|Ada/);
    // The class is on 26 November: shown from the 24th until the 27th.
    for (const [days, allowed] of [
      [3, false],
      [4, true],
      [7, true],
      [8, false],
    ] as const) {
      const look = viewRoom(near('instructor', days), { sessionId });
      if (allowed) await expect(look).resolves.toBeDefined();
      else await expect(look).rejects.toMatchObject({ kind: 'forbidden' });
    }
    await expect(viewRoom(near('coordinator', 0), { sessionId })).resolves.toBeDefined();
  });

  it('is offered with the sessions that can be packed, and no others', async () => {
    own = await newProgramme(store);
    const far = await newSession(own.coordinator, [FAMILY]);
    const duties = async (days: number) => {
      const rows = await listDuties({ ...own.crew, clock: () => NOW.add({ hours: 24 * days }) }, {});
      return rows.map(({ id, canPack, roomIsOpen }) => ({ id, canPack, roomIsOpen }));
    };
    expect(await duties(0)).toEqual([]);
    expect(await duties(4)).toEqual([{ id: far.sessionId, canPack: false, roomIsOpen: true }]);
    await lockKitSheet(own.coordinator, { sessionId: far.sessionId, basis: await far.basis() });
    expect(await duties(0)).toEqual([{ id: far.sessionId, canPack: true, roomIsOpen: false }]);
    expect(await duties(6)).toEqual([{ id: far.sessionId, canPack: true, roomIsOpen: true }]);
    expect(await duties(9)).toEqual([]);
  });

  it('is never looked at without being kept: who, where, of how many', async () => {
    own = await newProgramme(store);
    const { sessionId, basis } = await newSession(own.coordinator, [FAMILY]);
    await lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    await viewKitSheet(own.coordinator, { sessionId });
    await viewRoom({ ...own.crew, clock: () => NOW.add({ hours: 24 * 5 }) }, { sessionId });
    await labelsToPrint(own.coordinator, { sessionId, paper: 'a4' });
    const looks = await listLooks(own.coordinator, {});
    expect(new Set(looks.map(({ page }) => page))).toEqual(new Set(['kit sheet', 'room', 'labels']));
    expect(looks.find(({ page }) => page === 'room')).toMatchObject({ actorId: own.crew.actor.id, people: 1 });
  });

  it('is not kept for ever: looks, messages and pages end by themselves, twice the same as once', async () => {
    own = await newProgramme(store);
    const { sessionId } = await newSession(own.coordinator, [FAMILY]);
    await viewKitSheet(own.coordinator, { sessionId });
    const { programmeId } = own.coordinator.actor;
    expect(await clearOut(store, programmeId, NOW.add({ hours: 24 * 729 }))).toEqual({ removed: 0 });
    expect(await clearOut(store, programmeId, NOW.add({ hours: 24 * 731 }))).toEqual({ removed: 1 });
    expect(await clearOut(store, programmeId, NOW.add({ hours: 24 * 731 }))).toEqual({ removed: 0 });
  });
});
