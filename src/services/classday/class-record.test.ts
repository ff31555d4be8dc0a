import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find, findOne, update } from '@/store/query';
import type { Store } from '@/store/store';
import { newProgramme, newSession, select, testStore } from '../../../tests/programme';
import type { Context, Role } from '../gate/gate';
import type { OwnKit } from '../handout/families';
import { handOutKits, viewTable } from '../handout/table';
import { lockKitSheet } from '../kits/kit-sheet';
import { listMessages } from '../messages/messages';
import { loadBundle } from '../plan/sessions';
import { eraseHousehold, listHouseholds } from '../privacy/households';
import { viewAttendance } from './attendance';
import { setClassWords } from './class-words';
import { noteComing } from './coming-notes';
import {
  sayCooked,
  sendPicture,
  setLessonNote,
  takePictureBack,
  viewCookedPicture,
  viewLessonNote,
  viewOwnCooking,
} from './follow-later';
import { addToIncident, listIncidents, noteIncident, viewFirstSteps } from './incidents';
import { sayInClass, viewClass } from './live';
import { matchThere, recordThere, viewAtHome } from './on-screen';
import { taste, viewTasting } from './tasting';
import { viewTroubles } from './trouble';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const DAY = '2026-11-26';
const onDay = (context: Context, time = '16:30'): Context => ({
  ...context,
  clock: () => Temporal.Instant.from(`${DAY}T${time}:00Z`),
});
const PEOPLE = [
  { name: 'Ada Vale', plan: 'Blue pen in the red bag.' },
  { name: 'Bo Hale', age: '11' },
  { name: 'Cleo Marsh', age: '12' },
];
async function newClass(people: Parameters<typeof newSession>[1] = PEOPLE) {
  own = await newProgramme(store);
  return newSession(own.coordinator, people);
}

describe('somebody hurt', () => {
  it('is met with the family’s plan and the number to call, and written where coordinators alone read it', async () => {
    const { sessionId, people } = await newClass();
    const crew = onDay(own.crew);
    const first = await viewFirstSteps(crew, { sessionId });
    expect([first.number, first.people[0]?.plan]).toEqual(['911', 'Blue pen in the red bag.']);
    const id = v7();
    const entry = {
      id,
      sessionId,
      enrolmentId: people[0],
      hurt: 'allergic reaction',
      words: 'Ada Vale had hives.',
      told: 'her mother',
      hasCalled: false,
    };
    await noteIncident(crew, entry);
    await noteIncident(crew, entry);
    await expect(listIncidents(crew, { sessionId })).rejects.toMatchObject({ kind: 'forbidden' });
    await expect(listIncidents(onDay(own.instructor), { sessionId })).rejects.toMatchObject({ kind: 'forbidden' });
    await addToIncident(onDay(own.coordinator, '17:00'), { id: v7(), incidentId: id, words: 'She is well again.' });
    const { incidents } = await listIncidents(own.coordinator, { sessionId });
    expect(incidents.map(({ who, entries }) => [who, entries.map(({ words }) => words)])).toEqual([
      ['Ada Vale', ['Ada Vale had hives.', 'She is well again.']],
    ]);
    // Whoever is told hears that there is something to read, and neither who nor what.
    const [message] = await listMessages(own.coordinator, {});
    expect(message?.subject).toContain('something happened');
    expect(JSON.stringify(message)).not.toMatch(/Ada|hives/);
    await expect(
      select(store.db, 'UPDATE incident SET words = :w WHERE id = :id', { w: 'nothing', id }),
    ).rejects.toThrow();
    const [home] = await listHouseholds(own.coordinator, {});
    const household = (await listHouseholds(own.coordinator, {})).find(({ name }) => name.includes('Vale')) ?? home;
    await eraseHousehold(own.coordinator, { householdId: household?.id, version: household?.version });
    const after = await listIncidents(own.coordinator, { sessionId });
    expect(JSON.stringify(after.incidents)).not.toMatch(/Ada|hives|mother/);
  });

  it('asks what happened, and takes nobody who is not of the class', async () => {
    const { sessionId } = await newClass();
    const sent = { id: v7(), sessionId, hurt: 'cut', words: 'A finger.', hasCalled: true };
    await expect(noteIncident(onDay(own.crew), { ...sent, enrolmentId: v7() })).rejects.toMatchObject({
      kind: 'invalid',
    });
    await expect(noteIncident(onDay(own.crew), { ...sent, words: '' })).rejects.toMatchObject({ kind: 'invalid' });
    await expect(noteIncident(onDay(own.crew), { ...sent, hurt: 'asleep' })).rejects.toMatchObject({ kind: 'invalid' });
    // A month later the room is nobody’s duty any more.
    await expect(
      noteIncident({ ...own.crew, clock: () => Temporal.Instant.from('2026-12-26T12:00:00Z') }, sent),
    ).rejects.toMatchObject({ kind: 'forbidden' });
  });
});

describe('what children think', () => {
  it('is counted once a child, the newest; without a name each tap counts; tries of a food grow with sessions', async () => {
    const { sessionId, people } = await newClass();
    const crew = onDay(own.crew);
    const [dish] = (await viewTasting(crew, { sessionId })).dishes;
    const tap = (face: string, enrolmentId: string | null = null) => ({
      id: v7(),
      dishId: dish?.id,
      face,
      enrolmentId,
    });
    const again = tap('not yet', people[0]);
    await taste(crew, {
      sessionId,
      events: [again, tap('more please', people[0]), tap('it is fine'), tap('it is fine')],
    });
    await Promise.all([1, 2].map(() => taste(crew, { sessionId, events: [again] })));
    const { dishes, people: seen } = await viewTasting(crew, { sessionId });
    expect(dishes[0]?.votes).toEqual({ 'more please': 1, 'it is fine': 2, 'not yet': 0 });
    expect(seen[0]?.tries).toContainEqual({ food: 'egg', times: 1 });
    expect(seen[1]?.tries).toEqual([]);
    await expect(taste(crew, { sessionId, events: [{ ...tap('not yet'), dishId: v7() }] })).rejects.toMatchObject({
      kind: 'not-found',
    });
  });
});

describe('who comes and goes', () => {
  it('late is there, fetched names by whom, and a slip is taken back', async () => {
    const { sessionId, people } = await newClass();
    const crew = onDay(own.crew);
    const note = (kind: string, who = '') =>
      noteComing(crew, { id: v7(), sessionId, enrolmentId: people[0], kind, who });
    const seen = async () => (await viewAttendance(crew, { sessionId })).people[0];
    await note('late');
    expect(await seen()).toMatchObject({ seen: ['came'], notes: [{ kind: 'late' }] });
    await expect(note('fetched')).rejects.toMatchObject({ kind: 'invalid' });
    await note('fetched', 'Nan Vale');
    expect((await seen())?.notes.map(({ kind, who }) => [kind, who])).toEqual([
      ['late', ''],
      ['fetched', 'Nan Vale'],
    ]);
    await note('taken back');
    expect((await seen())?.notes).toEqual([]);
  });
});

describe('a class on screen', () => {
  it('notes those who are in the call at one press, and says what homes lack', async () => {
    const { sessionId, people } = await newClass(PEOPLE.map((person) => ({ ...person, mode: 'live online' })));
    const crew = onDay(own.crew);
    const found = await matchThere(crew, { sessionId, pasted: 'Ada V.\nGalaxy S9\nCleo Marsh joined' });
    expect(found.there.map(({ name }) => name)).toEqual(['Ada Vale', 'Cleo Marsh']);
    expect([found.missing.map(({ name }) => name), found.strangers]).toEqual([['Bo Hale'], ['Galaxy S9']]);
    const ids = found.there.map(({ id }) => id);
    const noted = await Promise.all([1, 2].map(() => recordThere(crew, { sessionId, ids: [...ids, v7()] })));
    expect(noted.map((each) => each.noted).sort()).toEqual([0, 2]);
    expect((await viewAtHome(crew, { sessionId })).families).toHaveLength(people.length);
    expect((await viewClass(crew, { sessionId })).isOnScreen).toBe(true);
  });
});

describe('what ran short', () => {
  it('says which kits are still here, and what tops them up', async () => {
    const { sessionId, basis } = await newClass(PEOPLE.map((person) => ({ ...person, mode: 'take-home' })));
    await lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    const crew = onDay(own.crew);
    const say = (what: string, item: string, value: object) =>
      sayInClass(crew, {
        sessionId,
        now: crew.clock().toString(),
        events: [{ id: v7(), what, item, value, at: crew.clock().toString() }],
      });
    await say('short', 'plain yogurt', { percent: 50 });
    const before = (await viewTroubles(crew, { sessionId })).troubles[0];
    expect(before).toMatchObject({ kits: [1, 2, 3], percent: 50, isSettled: false });
    const [kit] = (await viewTable(crew, { sessionId })).kits;
    const handed = {
      id: v7(),
      kitId: kit?.id,
      what: 'handed',
      who: '',
      item: '',
      at: crew.clock().toString(),
      wasAway: false,
    };
    await handOutKits(crew, { sessionId, events: [handed] });
    await say('settled', before?.id ?? '', {});
    expect((await viewTroubles(crew, { sessionId })).troubles[0]).toMatchObject({ kits: [2, 3], isSettled: true });
  });
});

describe('what families cook later', () => {
  const picture = new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]);

  it('is told on their own page, asked there, and shown with consent until its end', async () => {
    const { sessionId } = await newClass([{ name: 'Ada Vale', mode: 'follow-later' }]);
    const bundle = await loadBundle(own.coordinator, sessionId);
    const householdId = bundle.enrolments[0]?.householdId ?? '';
    const family: OwnKit = { context: onDay(own.crew), householdId, sessionId };
    await setLessonNote(own.instructor, { sessionId, version: 0, words: 'Turn it once.' });
    await expect(setLessonNote(own.instructor, { sessionId, version: 0, words: 'Twice.' })).rejects.toMatchObject({
      kind: 'stale',
    });
    expect((await viewOwnCooking(family)).lesson).toBe('Turn it once.');
    await sayCooked(family, { word: 'cooked', note: 'the cumin was missing' });
    await expect(sendPicture(family, picture, '')).rejects.toThrow('what the picture may be used for');
    await expect(sendPicture(family, new Uint8Array([1, 2, 3]), 'public')).rejects.toThrow('no picture');
    await sendPicture(family, picture, 'programme');
    await sendPicture(family, picture, 'public');
    const seen = await viewLessonNote(own.instructor, { sessionId });
    expect(seen.said.map(({ name, word, note }) => [name, word, note])).toEqual([
      ['Ada Vale', 'cooked', 'the cumin was missing'],
    ]);
    expect(seen.pictures).toHaveLength(1);
    const pictureId = seen.pictures[0]?.id;
    expect((await viewCookedPicture(own.instructor, { pictureId })).picture).toEqual(picture);
    const yearLater = { ...own.instructor, clock: () => Temporal.Instant.from('2028-01-01T12:00:00Z') };
    await expect(viewCookedPicture(yearLater, { pictureId })).rejects.toMatchObject({ kind: 'not-found' });
    const attendance = await find(store.db, store.db.models.attendance, { sessionId });
    expect(attendance.map(({ state }) => state)).toEqual(['cooked']);
    await takePictureBack(family);
    await expect(viewCookedPicture(own.instructor, { pictureId })).rejects.toMatchObject({ kind: 'not-found' });
  });
});

describe('the routines', () => {
  it('are the programme’s own words; a list that is left empty is as usual', async () => {
    const { sessionId } = await newClass();
    const programmeId = own.coordinator.actor.programmeId;
    const before = await findOne(store.db, store.db.models.programme, { id: programmeId });
    await setClassWords(own.coordinator, { version: before?.version, opening: ['Boots off'], emergency: '112' });
    const { routines } = await viewClass(onDay(own.crew), { sessionId });
    expect(routines.opening).toEqual(['Boots off']);
    expect(routines.closing.length).toBeGreaterThan(3);
    expect(routines.fire).toEqual([]);
    expect((await viewFirstSteps(onDay(own.crew), { sessionId })).number).toBe('112');
    await update(store.db, store.db.models.programme, { id: programmeId }, { classWords: {} });
  });
});
