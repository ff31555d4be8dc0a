import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPlace } from '@/services/plan/places';
import { update } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import { viewJobs } from '../countdown/countdown';
import type { Context, Role } from '../gate/gate';
import { addGroup } from '../plan/groups';
import { addDish, addSession } from '../plan/sessions';
import { saveRecipe } from '../recipes/recipes';
import { addPerson, setStatus, viewRoll } from '../roll/roll';
import { setClassMinutes } from './class-minutes';
import { sayInClass, viewClass } from './live';
import { lookAtClasses } from './outlook';
import { viewRunSheet } from './run-sheet';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const at = (context: Context, moment: string): Context => ({ ...context, clock: () => Temporal.Instant.from(moment) });
const SOON = '2026-11-22T09:00:00Z';

/** A class of a stew for 35 minutes, in a place with one knife. */
async function newStew() {
  own = await newProgramme(store);
  const people = [{ name: 'Ada' }, { name: 'Bo' }, { name: 'Cleo' }, { name: 'Dov' }];
  const made = await newSession(own.coordinator, people);
  const stew = await saveRecipe(own.coordinator, {
    title: `Stew ${v7()}`,
    body: {
      servings: 4,
      lines: [{ ingredient: 'onion', preparation: 'chopped', amount: '2', unit: 'cup' }],
      steps: ['Chop the onion.', 'Boil the onion for 30 minutes.'],
    },
  });
  const { sessionId } = made;
  await addDish(own.coordinator, { sessionId, recipeId: stew });
  const placeId = await addPlace(own.coordinator, {
    name: `Hall ${v7()}`,
    seats: '',
    hours: [],
    equipment: { stations: 2, burners: 1, knives: 1 },
    minutesBefore: 0,
    minutesAfter: 0,
    outdoor: null,
  });
  await update(store.db, store.db.models.session, { id: sessionId }, { placeId });
  const settle = async () => (await viewJobs(at(own.coordinator, SOON), { sessionId })).thread.settle;
  return { ...made, stew, settle };
}

describe('days before a class', () => {
  it('its pages say what does not fit and what is missing, without anybody opening the run sheet', async () => {
    const { sessionId, courseId, settle } = await newStew();
    expect(await settle()).toEqual([]);
    expect(await lookAtClasses(at(own.coordinator, SOON))).toBe(1);
    expect((await settle()).join(' ')).toContain('2 knives would lie out at once, and the place has 1');
    const minutes = { opening: 10, demonstration: 25, eating: 15, cleaning: 15 };
    await setClassMinutes(own.coordinator, { sessionId, ...minutes });
    await viewRunSheet(at(own.coordinator, SOON), { sessionId });
    expect((await settle())[0]).toMatch(/^The cooking takes \d+ minutes, and 25 are left for it\.$/);
    // Nobody comes any more: nothing of it holds.
    const { people } = await viewRoll(own.coordinator, { courseId });
    for (const { id, version } of people)
      await setStatus(own.coordinator, { enrolmentId: id, version, status: 'withdrawn' });
    await lookAtClasses(at(own.coordinator, SOON));
    expect(await settle()).toEqual([]);
    // On the day after it nobody has anything to settle.
    const after = at(own.coordinator, '2026-11-28T09:00:00Z');
    expect((await viewJobs(after, { sessionId })).thread.settle).toEqual([]);
  });

  it('its minutes are said for it alone, or for those of its course after it, and leave some for cooking', async () => {
    const { sessionId, courseId, stew } = await newStew();
    const plan = { title: 'Stews', startsAt: '16:00', minutes: 90, place: 'Boatshed', mode: 'in person' };
    const later = await addSession(own.coordinator, { courseId, ...plan, date: '2026-12-03' });
    await addDish(own.coordinator, { sessionId: later, recipeId: stew });
    const cooking = async (id: string) => (await viewRunSheet(own.coordinator, { sessionId: id })).cooking;
    const minutes = { opening: 5, demonstration: 10, eating: 10, cleaning: 5 };
    await setClassMinutes(own.instructor, { sessionId, ...minutes });
    expect([await cooking(sessionId), await cooking(later)]).toEqual([60, 50]);
    await setClassMinutes(own.instructor, { sessionId, ...minutes, demonstration: 20, forCourse: true });
    expect([await cooking(sessionId), await cooking(later)]).toEqual([50, 50]);
    const all = { ...minutes, demonstration: 80 };
    await expect(setClassMinutes(own.instructor, { sessionId, ...all })).rejects.toMatchObject({
      message: 'These are 100 minutes, and the class has 90: nothing is left for cooking.',
    });
    await expect(setClassMinutes(own.crew, { sessionId, ...minutes })).rejects.toMatchObject({ kind: 'forbidden' });
  });
});

describe('a class of another group', () => {
  it('has its own people, plan and log, and names nobody of another course', async () => {
    const { sessionId, courseId } = await newStew();
    const usual = { daysAfter: 0, startsAt: '18:00', place: 'Boatshed', instructorId: null };
    const group = await addGroup(own.coordinator, { courseId, name: 'Late', firstName: 'Early', ...usual });
    const groupId = group.id;
    const [edda] = await Promise.all(
      ['Edda', 'Finn'].map((name) =>
        addPerson(own.coordinator, { courseId, cells: cells({ name, group: 'Late' }), status: 'enrolled' }),
      ),
    );
    const now = '2026-11-26T18:10:00Z';
    const crew = at(own.crew, now);
    const late = await viewClass(crew, { sessionId, sitting: groupId });
    expect(late.people.map(({ name }) => name)).toEqual(['Edda', 'Finn']);
    expect(late.session).toMatchObject({ group: 'Late', startsAt: '18:00' });
    const say = (event: object, sitting = groupId) =>
      sayInClass(crew, { sessionId, sitting, now, events: [{ id: v7(), at: now, ...event }] });
    await say({ what: 'begun', value: { plan: late.plan } });
    await say({ what: 'has', item: v7(), enrolmentId: edda?.id });
    expect((await viewClass(crew, { sessionId })).events).toEqual([]);
    expect((await viewClass(crew, { sessionId, sitting: groupId })).events).toHaveLength(2);
    const other = await newSession(own.coordinator, [{ name: 'Stranger' }]);
    await expect(say({ what: 'has', item: v7(), enrolmentId: other.people[0] })).rejects.toMatchObject({
      message: 'This names somebody who is not on the roll of this class. Nothing was saved.',
    });
    await expect(say({ what: 'done', item: 'x' }, v7())).rejects.toMatchObject({ kind: 'not-found' });
  });
});
