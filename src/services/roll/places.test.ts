import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import { recordAttendance, viewAttendance } from '../classday/attendance';
import type { Context } from '../gate/gate';
import { decideKit, viewNotFetched } from '../handout/not-fetched';
import { refuseDifferences, unlockSheet } from '../kits/decide';
import { lockKitSheet, recordLabel, viewKitSheet } from '../kits/kit-sheet';
import { listMessages } from '../messages/messages';
import { viewBench } from '../packing/bench';
import { editCourse } from '../plan/courses';
import { editSession } from '../plan/sessions';
import { viewSuits } from '../recipes/suits';
import { setAway, setSeveralAway, shareKit } from './away';
import { setReserveCosts } from './reserve';
import { addPerson, changeSeveral, setStatus, setStatuses, viewRoll } from './roll';

let store: Store;
let context: Context;
let crew: Context;
beforeAll(async () => {
  store = await testStore();
  ({ coordinator: context, crew } = await newProgramme(store));
  // The class of the test is on this day.
  crew = { ...crew, clock: () => Temporal.Instant.from('2026-11-26T16:10:00Z') };
});
afterAll(() => store.close());

const setCapacity = async (courseId: string, capacity: string, waitlistRule = 'first come') => {
  const { course } = await viewRoll(context, { courseId });
  await editCourse(context, {
    courseId,
    version: course.version,
    title: course.title,
    capacity,
    rollClosesDays: 5,
    waitlistRule,
  });
};
const person = async (courseId: string, name: string) => {
  const found = (await viewRoll(context, { courseId })).people.find((each) => each.name === name);
  if (!found) throw new Error(`${name} is not on the roll`);
  return found;
};
const kitsOf = async (sessionId: string) =>
  (await viewKitSheet(context, { sessionId })).sheet.draft?.variants.flatMap(({ participants, servings }) =>
    participants.map(({ name }) => `${name}: ${servings}`),
  );

describe('several people changed at once', () => {
  it('are all withdrawn, or nobody is; taken back, each is what they were since when they were it', async () => {
    const { courseId } = await newSession(context, [{ name: 'Ada' }, { name: 'Bo' }, { name: 'Cleo' }]);
    await addPerson(context, { courseId, cells: cells({ name: 'Dai' }), status: 'waitlisted' });
    const [ada, bo, dai] = [await person(courseId, 'Ada'), await person(courseId, 'Bo'), await person(courseId, 'Dai')];
    const seen = [ada, bo].map(({ id, version }) => ({ enrolmentId: id, version }));
    await setStatus(context, { enrolmentId: bo.id, version: bo.version, status: 'waitlisted' });
    await expect(setStatuses(context, { people: seen, status: 'withdrawn' })).rejects.toMatchObject({ kind: 'stale' });
    expect((await person(courseId, 'Ada')).status).toBe('enrolled');

    const now = [await person(courseId, 'Ada'), await person(courseId, 'Bo')];
    const people = now.map(({ id, version }) => ({ enrolmentId: id, version }));
    await setStatuses(context, { people, status: 'withdrawn' });
    expect((await person(courseId, 'Bo')).status).toBe('withdrawn');

    const later = { ...context, clock: () => context.clock().add({ hours: 24 * 3 }) };
    await setStatus(later, { enrolmentId: dai.id, version: dai.version, status: 'enrolled' });
    const before = { enrolmentId: dai.id, version: dai.version + 1, since: dai.since };
    await setStatuses(later, { people: [before], status: 'waitlisted' });
    expect(await person(courseId, 'Dai')).toMatchObject({ status: 'waitlisted', since: dai.since });
  });
});

describe('a course that is full', () => {
  it('puts whoever comes next on the waitlist, gives a free place by its rule, and tells the family', async () => {
    const { courseId, sessionId } = await newSession(context, [
      { name: 'Ada Finch', household: 'Finch' },
      { name: 'Bo' },
    ]);
    await setCapacity(courseId, '2', 'siblings first');
    const add = (name: string, more: object = {}) => addPerson(context, { courseId, cells: cells({ name, ...more }) });
    expect((await add('Cleo', { contact: 'cleo@homes.example' })).status).toBe('waitlisted');
    expect((await add('Edie Finch', { household: 'Finch' })).status).toBe('waitlisted');
    expect(await kitsOf(sessionId)).toEqual(['Ada Finch: 1', 'Bo: 1']);
    const cleo = await person(courseId, 'Cleo');
    const enrol = { enrolmentId: cleo.id, version: cleo.version, status: 'enrolled' };
    await expect(setStatus(context, enrol)).rejects.toThrow('is full: 2 of 2 places are taken');
    const bo = await person(courseId, 'Bo');
    await setStatus(context, { enrolmentId: bo.id, version: bo.version, status: 'withdrawn' });
    const { places } = await viewRoll(context, { courseId });
    const edie = (await person(courseId, 'Edie Finch')).id;
    expect(places).toEqual([{ groupId: null, free: 1, over: 0, waiting: [edie, cleo.id], next: edie }]);
    const message = { subject: 'A place for Cleo', body: 'It is yours.' };
    await setStatus(context, { ...enrol, message });
    expect((await listMessages(context, {}))[0]).toMatchObject({
      sentTo: 'cleo@homes.example',
      subject: 'A place for Cleo',
    });
    expect(await person(courseId, 'Cleo')).toMatchObject({ status: 'enrolled', since: '2026-11-20' });
  });

  it('whose room is lowered below its roll says by how many, and takes nobody off', async () => {
    const { courseId } = await newSession(context, [{ name: 'Ada' }, { name: 'Bo' }, { name: 'Cleo' }]);
    await setCapacity(courseId, '1');
    const { places, people } = await viewRoll(context, { courseId });
    expect(places).toMatchObject([{ free: 0, over: 2 }]);
    expect(people.every(({ status }) => status === 'enrolled')).toBe(true);
  });
});

describe('who comes to one session', () => {
  it('leaves out who is away, and puts siblings into one kit where the family wants it', async () => {
    const { courseId, sessionId, people } = await newSession(context, [
      { name: 'Ada Finch', household: 'Finch two', servings: '2' },
      { name: 'Bo Finch', household: 'Finch two', avoids: 'milk' },
      { name: 'Cleo' },
    ]);
    await setAway(context, { sessionId, people: [{ enrolmentId: people[2] ?? '', how: 'away' }] });
    expect(await kitsOf(sessionId)).toEqual(['Ada Finch: 2', 'Bo Finch: 1']);
    const { householdId } = await person(courseId, 'Ada Finch');
    await shareKit(context, { courseId, householdId, share: true });
    expect(await kitsOf(sessionId)).toEqual(['Ada and Bo Finch: 3']);
    expect((await viewKitSheet(context, { sessionId })).sheet.draft?.variants[0]?.madeWithout).toEqual(['milk']);
    await shareKit(context, { courseId, householdId, share: false });
    await setAway(context, { sessionId, people: [{ enrolmentId: people[2] ?? '', how: 'usual' }] });
    expect(await kitsOf(sessionId)).toHaveLength(3);
  });
});

describe('differences of a locked sheet', () => {
  it('are refused with a reason until something more changes; a need that came is held all the same', async () => {
    const { courseId, sessionId, basis } = await newSession(context, [{ name: 'Ada' }, { name: 'Bo' }]);
    await lockKitSheet(context, { sessionId, basis: await basis() });
    await addPerson(context, { courseId, cells: cells({ name: 'Late' }) });
    const seen = await basis();
    await expect(refuseDifferences(context, { sessionId, basis: seen, reason: '' })).rejects.toMatchObject({
      problems: [{ where: 'reason' }],
    });
    await refuseDifferences(context, { sessionId, basis: seen, reason: 'no food left to buy' });
    expect((await viewKitSheet(context, { sessionId })).sheet.refused).toBe('no food left to buy');
    await addPerson(context, { courseId, cells: cells({ name: 'Later' }) });
    const { sheet } = await viewKitSheet(context, { sessionId });
    expect(sheet.refused).toBeUndefined();
    expect(sheet.differences).toHaveLength(2);
    await expect(refuseDifferences(context, { sessionId, basis: seen, reason: 'as before' })).rejects.toMatchObject({
      kind: 'stale',
    });
  });

  it('end when the sheet is unlocked: the bench is told, letters and numbers come back with the next lock', async () => {
    const { courseId, sessionId, basis } = await newSession(context, [{ name: 'Ada' }]);
    await recordLabel(context, { sessionId, ingredient: 'ground cumin', product: 'Tin', allergens: [] });
    await lockKitSheet(context, { sessionId, basis: await basis() });
    await unlockSheet(context, { sessionId, revision: 1, reason: 'another dish after all' });
    const { sheet } = await viewKitSheet(context, { sessionId });
    expect(sheet).toMatchObject({ locked: undefined, unlocked: 'another dish after all', differences: [] });
    await expect(viewBench(crew, { sessionId })).rejects.toThrow('no locked kit sheet');
    await expect(unlockSheet(context, { sessionId, revision: 1, reason: 'again' })).rejects.toThrow('not locked');
    await addPerson(context, { courseId, cells: cells({ name: 'Bo' }) });
    expect(await lockKitSheet(context, { sessionId, basis: await basis() })).toMatchObject({ revision: 2 });
    expect((await viewBench(crew, { sessionId })).sheet.kits.map(({ number }) => number)).toEqual([1, 2]);
  });
});

describe('several people', () => {
  it('are changed together, all or nobody, and as they were when it is taken back', async () => {
    const { coordinator: context } = await newProgramme(store);
    const { courseId } = await newSession(context, [{ name: 'Ada' }, { name: 'Bo', mode: 'take-home' }]);
    const seen = async () =>
      (await viewRoll(context, { courseId })).people.map(({ name, mode, servings }) => [name, mode, servings]);
    const before = await seen();
    const people = (await viewRoll(context, { courseId })).people.map(({ id, version }) => ({
      enrolmentId: id,
      version,
    }));
    const home = { mode: 'live online', servings: 3 };
    const stale = people.map((person, at) => ({ ...person, version: at === 1 ? 9 : person.version, ...home }));
    await expect(changeSeveral(context, { people: stale })).rejects.toMatchObject({ kind: 'stale' });
    expect(await seen()).toEqual(before);
    const was = await changeSeveral(context, { people: people.map((person) => ({ ...person, ...home })) });
    expect((await seen()).map(([, mode, servings]) => [mode, servings])).toEqual([
      ['live online', 3],
      ['live online', 3],
    ]);
    await changeSeveral(context, { people: was });
    expect(await seen()).toEqual(before);
    const enrolmentIds = people.map(({ enrolmentId }) => enrolmentId);
    const { id: sessionId } = await setSeveralAway(context, { courseId, enrolmentIds, how: 'take-home' });
    const away = async () => find(store.db, store.db.models.away, { sessionId });
    expect((await away()).map(({ mode }) => mode)).toEqual(['take-home', 'take-home']);
    // One of them is away after all; taken back, each takes part as before.
    const [first = ''] = enrolmentIds;
    await setAway(context, { sessionId, people: [{ enrolmentId: first, how: 'away' }] });
    const { before: then } = await setSeveralAway(context, { courseId, enrolmentIds, how: 'usual' });
    expect(await away()).toEqual([]);
    await setAway(context, { sessionId, people: then });
    const found = await away();
    expect(found.find(({ enrolmentId }) => enrolmentId === first)).toMatchObject({ mode: null });
    expect(found.map(({ mode }) => mode).sort()).toEqual([null, 'take-home'].sort());
    const foreign = people.map((person) => ({ ...person, version: 3, groupId: context.actor.id }));
    await expect(changeSeveral(context, { people: foreign })).rejects.toMatchObject({ kind: 'not-found' });
  });
});

describe('attendance', () => {
  it('is noted by whoever is in the room, once however often it is sent, and tells the next forecast', async () => {
    const { sessionId, people } = await newSession(context, [{ name: 'Ada' }, { name: 'Bo' }, { name: 'Cleo' }]);
    const ids = people as string[];
    const mark = (at: number, state: string, id = v7()) =>
      recordAttendance(crew, { sessionId, id, enrolmentId: ids[at], state });
    const once = v7();
    await mark(0, 'absent', once);
    await mark(0, 'absent', once);
    await mark(0, 'came');
    await mark(1, 'absent');
    await expect(mark(1, 'cooked')).rejects.toThrow('says nothing');
    await expect(recordAttendance(crew, { sessionId, id: v7(), enrolmentId: v7(), state: 'came' })).rejects.toThrow(
      'not expected',
    );
    const { people: seen } = await viewAttendance(crew, { sessionId });
    expect(seen.map(({ name, seen: states }) => [name, states])).toEqual([
      ['Ada', ['came']],
      ['Bo', ['absent']],
      ['Cleo', []],
    ]);
    await expect(store.db.models.attendance.destroy({ where: { sessionId } })).rejects.toThrow('append-only');
    const next = await newSession(context, [{ name: 'Dario' }, { name: 'Edie' }]);
    const { version, ...session } = (await viewKitSheet(context, { sessionId: next.sessionId })).bundle.session;
    await editSession(context, {
      ...session,
      sessionId: next.sessionId,
      version,
      date: '2026-12-03',
      instructorId: '',
      cookBy: '',
    });
    const reserve = (await viewSuits(context, { sessionId: next.sessionId })).reserve;
    expect(reserve).toMatchObject({ enrolled: 2, past: 1, forecast: { counted: 2 } });
  });

  it('turns into a number of kits by what the programme says a kit and a child cost', async () => {
    const { sessionId } = await newSession(
      context,
      Array.from({ length: 12 }, (_, at) => ({ name: `Child ${at}` })),
    );
    await setReserveCosts(context, { wasted: '9', turnedAway: '1' });
    const few = (await viewSuits(context, { sessionId })).reserve.best.kits;
    await setReserveCosts(context, { wasted: '1', turnedAway: '90' });
    expect((await viewSuits(context, { sessionId })).reserve.best.kits).toBeGreaterThan(few);
    await expect(setReserveCosts(context, { wasted: '-1', turnedAway: '1' })).rejects.toMatchObject({
      problems: [{ where: 'wasted' }],
    });
  });
});

describe('a mode with room for so many', () => {
  it('lets whoever comes next wait, and says what is full', async () => {
    const { courseId } = await newSession(context, [{ name: 'Ada', mode: 'take-home' }]);
    const { course } = await viewRoll(context, { courseId });
    const edited = { courseId, version: course.version, title: course.title, rollClosesDays: 5 };
    await editCourse(context, { ...edited, modePlaces: { 'take-home': 1 } });
    const add = (name: string, mode: string) => addPerson(context, { courseId, cells: cells({ name, mode }) });
    expect((await add('Bo', 'take-home')).status).toBe('waitlisted');
    expect((await add('Cy', 'in person')).status).toBe('enrolled');
    const bo = await person(courseId, 'Bo');
    await expect(setStatus(context, { enrolmentId: bo.id, version: bo.version, status: 'enrolled' })).rejects.toThrow(
      'is full take-home: 1 of 1 places are taken',
    );
    expect((await viewRoll(context, { courseId })).modes).toEqual([{ mode: 'take-home', enrolled: 1, room: 1 }]);
  });
});

describe('a kit that nobody fetched', () => {
  it('is decided on the same day, and given only to whoever can eat all of it', async () => {
    const { courseId, sessionId, people, basis } = await newSession(context, [
      { name: 'Ada', mode: 'take-home' },
      { name: 'Bo', mode: 'take-home' },
    ]);
    await lockKitSheet(context, { sessionId, basis: await basis() });
    const wait = (name: string, avoids: string) =>
      addPerson(context, { courseId, cells: cells({ name, avoids }), status: 'waitlisted' });
    const fits = await wait('Cy', '');
    const avoids = await wait('Di', 'egg');
    expect((await viewNotFetched(context, { sessionId })).kits).toEqual([]);
    const mark = { sessionId, enrolmentId: people[0] ?? '', id: v7() };
    await recordAttendance(crew, { ...mark, state: 'not collected' });
    const [kit] = (await viewNotFetched(context, { sessionId })).kits;
    expect(kit).toMatchObject({ name: 'Ada', takers: [{ name: 'Cy' }], fate: undefined });
    const decide = (fate: string, toId?: string, id = v7()) =>
      decideKit(context, { sessionId, id, kitId: kit?.id ?? '', fate, ...(toId ? { toId } : {}) });
    await expect(decide('given away', avoids.id)).rejects.toThrow('can eat all of it');
    const id = v7();
    await decide('held', undefined, id);
    await decide('held', undefined, id);
    await decide('given away', fits.id);
    expect((await viewNotFetched(context, { sessionId })).kits[0]?.fate).toEqual({ kind: 'given away', to: 'Cy' });
  });
});
