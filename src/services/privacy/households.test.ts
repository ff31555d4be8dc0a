import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { SheetChanged, SimulatedPrinter } from '@/devices/label-printer';
import { ownedTables } from '@/store/models';
import { find, insert } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, NOW, newProgramme, newSession, select, testStore } from '../../../tests/programme';
import { listDuties, viewRoom } from '../classday/room';
import { addCrewMember } from '../crew/people';
import type { Context, Role } from '../gate/gate';
import { leaveOut, lockKitSheet, viewKitSheet } from '../kits/kit-sheet';
import { viewBench } from '../packing/bench';
import { labelsToPrint, sendToPrinter } from '../packing/labels';
import { addCourse, listCourses } from '../plan/courses';
import { setAway } from '../roll/away';
import { addPerson, editPerson, setStatus } from '../roll/roll';
import { exportRoll, saveRoll } from '../roll/roll-file';
import { onceOnly } from '../work/idempotency';
import { viewJob } from '../work/jobs';
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

/** Puts somebody on the waitlist and back, with a message to the family that words it. */
async function offer(context: Context, enrolmentId: string, name: string) {
  const version = async () => (await find(store.db, store.db.models.enrolment, { id: enrolmentId }))[0]?.version ?? 0;
  await setStatus(context, { enrolmentId, version: await version(), status: 'waitlisted' });
  const message = { subject: `A place for ${name}`, body: `Dear family, ${name} may come.` };
  await setStatus(context, { enrolmentId, version: await version(), status: 'enrolled', message });
}

/** Every row of every table, as text; what the database holds as bytes too. */
async function everything(): Promise<string[]> {
  const rows: string[] = [];
  for (const { key, table } of ownedTables(store.db.models))
    for (const row of await find(store.db, table, {})) rows.push(`${key} ${JSON.stringify(row)}`);
  return rows;
}

/** A row for each table in which a family may be written about, with these words in every such column. */
async function writeEverywhere(words: string, short: string): Promise<number> {
  const { id: memberId, programmeId } = own.coordinator.actor;
  const crewId = await addCrewMember(own.coordinator, { name: 'Somebody' });
  const ids: Record<string, string> = { programmeId, actorId: memberId, entityId: v7(), crewId };
  const of = ({ type }: { type: unknown }, name: string, key: string, isNamed: boolean) => {
    if (key === 'ownFood' && name === 'body') return { ingredient: { name: words }, measures: [], yields: [] };
    if (/JSON/.test(String(type))) return isNamed ? [words] : [];
    if (/TEXT/.test(String(type))) return isNamed ? words : '';
    if (/DATE$|DATETIME/.test(String(type))) return '2026-11-20';
    return /INT/.test(String(type)) ? 1 : v7().slice(-5);
  };
  let texts = 0;
  for (const { key, table, log, notes } of ownedTables(store.db.models)) {
    const columns = [...log, ...notes];
    if (columns.length === 0 || key === 'kitSheet') continue;
    texts += columns.length;
    const attributes = Object.entries(table.getAttributes());
    const isText = (name: string) => /TEXT|JSON/.test(String(table.getAttributes()[name]?.type));
    const row = Object.fromEntries(
      attributes.map(([name, attribute]) => {
        if (name === 'id') return [name, v7()];
        if (/Id$|By$/.test(name)) return [name, ids[name] ?? null];
        if (columns.includes(name) && !isText(name)) return [name, short];
        if (name === 'pdf') return [name, Buffer.from('%PDF')];
        return [name, of(attribute as { type: unknown }, name, key, columns.includes(name))];
      }),
    );
    if (key === 'programme') await store.db.models.programme.update({ name: short }, { where: { id: programmeId } });
    else await insert(store.db, table, [row]);
    if (key !== 'programme')
      ids[`${key === 'courseGroup' ? 'group' : key === 'closureCalendar' ? 'calendar' : key}Id`] = String(row.id ?? '');
  }
  return texts;
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
    // Reached elsewhere: that it is the same family is said, not guessed.
    const same = rows.map((row) => (row.line === 3 ? { ...row, home: 'same' } : row));
    await expect(saveRoll(own.coordinator, { courseId, rows })).rejects.toMatchObject({
      problems: [{ where: 'line 3, household' }],
    });
    await saveRoll(own.coordinator, { courseId, rows: same });
    expect(await household('Castellan')).toMatchObject({ people: 2 });
    expect(await household('Ada')).toMatchObject({ people: 1 });
    const { text } = await exportRoll(own.coordinator, { courseId });
    expect(text).toContain(
      'Ivo Castellan,7,1,sesame,,,Castellan,castellan@example.test; new@example.test,2 Harbour Steps,Pen into the outer thigh.',
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

  it('is taken out of every table that names a person or a household, the next one included', async () => {
    const { people, sessionId } = await lockedWithFamily();
    const id = (await household('Castellan'))?.id ?? '';
    await setAway(own.coordinator, { sessionId, people: [{ enrolmentId: people[1], how: 'take-home' }] });
    const issue = { sessionId, enrolmentId: people[0] as string, supplyId: 'oil', units: 1, drawn: '20', label: null };
    await insert(store.db, store.db.models.issue, [issue]);
    const columns = await select<{ tableName: string }>(
      store.db,
      `SELECT table_name AS tableName FROM information_schema.columns
        WHERE table_schema = DATABASE() AND column_name IN ('enrolment_id', 'household_id')
       UNION SELECT table_name FROM information_schema.key_column_usage
        WHERE table_schema = DATABASE() AND referenced_table_name IN ('enrolment', 'household')`,
      {},
    );
    const { records } = await exportHousehold(own.coordinator, { householdId: id });
    const named = new Map(ownedTables(store.db.models).map(({ key, table }) => [table.getTableName(), key]));
    // Its people and itself are told beside the records.
    const wanted = columns
      .map(({ tableName }) => named.get(tableName) ?? tableName)
      .filter((key) => key !== 'enrolment');
    expect(Object.keys(records)).toEqual(expect.arrayContaining(wanted));
    expect(wanted.length).toBeGreaterThan(5);
    expect([records.away?.length, records.issue?.length, records.kit?.length]).toEqual([1, 1, 1]);
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

  it('erased leaves no word in any table that can hold one, and takes nothing of others with it', async () => {
    const { sessionId, people } = await lockedWithFamily();
    const context = own.coordinator;
    const { programmeId } = context.actor;
    const RARE = 'Quillon Wetherspindle';
    const FORMER = 'wetherspindle@former.example.test';
    await editPerson(context, {
      enrolmentId: people[0],
      version: 2,
      cells: cells({ ...FAMILY, name: RARE, contact: FORMER, plan: 'Quillon’s pen is in the blue bag' }),
      shown: { contact: FAMILY.contact, address: FAMILY.address },
    });
    await offer(context, people[1] ?? '', RARE);
    await editPerson(context, {
      enrolmentId: people[0],
      version: 3,
      cells: cells({ ...FAMILY, name: RARE, contact: 'later@wetherspindle.example.test' }),
      shown: { contact: FORMER, address: FAMILY.address },
    });
    await setAway(context, { sessionId, people: [{ enrolmentId: people[0], how: 'away' }] });
    const { jobId } = await sendToPrinter(context, { sessionId, paper: 'a4' });
    const key = v7();
    await addCourse(onceOnly(context, key, 'a'.repeat(64)), { title: 'Kept for all' });
    // The rare name in every column where somebody may have written it.
    const words = `Ring ${RARE} or ${FORMER}, not Quillonwether.`;
    const texts = await writeEverywhere(words, `${RARE}, not Quillonwether.`);
    expect(texts).toBeGreaterThan(35);

    const { id = '', version = 0 } = (await household('Castellan')) ?? {};
    const held = await exportHousehold(context, { householdId: id });
    const tables = ownedTables(store.db.models).filter(({ ownership }) => ownership.of);
    for (const { key: table } of tables)
      if (table !== 'household' && table !== 'enrolment') expect(Object.keys(held.records)).toContain(table);
    expect(JSON.stringify(held.records)).toContain('away');
    expect(held.records.message).toMatchObject([{ sentTo: FORMER }]);
    expect(held.lookedAtBy).toEqual([]);

    const others = await store.db.models.idempotentReply.count({ where: { programmeId } });
    await eraseHousehold(context, { householdId: id, version });
    const left = await everything();
    for (const part of [RARE, FORMER, 'later@wetherspindle.example.test', 'pen is in the blue bag'])
      expect(left.filter((row) => row.includes(part)).map((row) => row.slice(0, 160))).toEqual([]);
    // What only looks like it is somebody else's.
    expect(left.join('').split('not Quillonwether.').length - 1).toBeGreaterThanOrEqual(texts);
    expect(await store.db.models.idempotentReply.count({ where: { programmeId } })).toBe(others);
    expect(await addCourse(onceOnly(context, key, 'a'.repeat(64)), { title: 'Kept for all' })).toBeDefined();
    expect((await listCourses(context, {})).filter(({ title }) => title === 'Kept for all')).toHaveLength(1);
    expect((await viewJob(context, { jobId })).state).toBe('waiting');
  });

  it('erased while its labels are being made takes these pages away as well', async () => {
    const { sessionId } = await lockedWithFamily();
    const { labels, title, sheet } = await labelsToPrint(own.coordinator, { sessionId, paper: 'a4' });
    expect(JSON.stringify(labels)).toContain('Ivo Castellan');
    const { id = '', version = 0 } = (await household('Castellan')) ?? {};
    await eraseHousehold(own.coordinator, { householdId: id, version });
    const { programmeId } = own.coordinator.actor;
    const task = { id: v7(), programmeId, sessionId, title, pdf: new Uint8Array([37]), sheet };
    await expect(new SimulatedPrinter(store).print(task)).rejects.toBeInstanceOf(SheetChanged);
    const after = await labelsToPrint(own.coordinator, { sessionId, paper: 'a4' });
    expect(JSON.stringify(after.labels)).not.toContain('Castellan');
    await new SimulatedPrinter(store).print({ ...task, sheet: after.sheet });
    await new SimulatedPrinter(store).print({ ...task, sheet: after.sheet });
    expect(await store.db.models.printOut.count({ where: { sessionId } })).toBe(1);
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
      { name: 'Teo', avoids: [{ asWritten: 'latex fruit', means: undefined }] },
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
