import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPlace } from '@/services/plan/places';
import { update } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context, Role } from '../gate/gate';
import { addDish } from '../plan/sessions';
import { giveMeaning } from '../programme/programme';
import { saveRecipe } from '../recipes/recipes';
import { setAway } from '../roll/away';
import { addPerson, viewRoll } from '../roll/roll';
import { appendToClass } from './class-log';
import { classSince, planClassAgain, sayInClass, viewClass } from './live';
import { swapInClass } from './substitute';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const DAY = '2026-11-26';
const at = (context: Context, time: string): Context => ({
  ...context,
  clock: () => Temporal.Instant.from(`${DAY}T${time}:00Z`),
});

/** A class of today with two dishes and their steps, at two stations. */
async function newClass(people: Parameters<typeof newSession>[1] = PEOPLE) {
  own = await newProgramme(store);
  const session = await newSession(own.coordinator, people);
  const { sessionId } = session;
  const soup = await saveRecipe(own.coordinator, {
    title: `Soup ${v7()}`,
    body: {
      servings: 4,
      lines: [
        { ingredient: 'onion', preparation: 'chopped', amount: '1', unit: 'cup' },
        {
          ingredient: 'milk',
          amount: '1',
          unit: 'cup',
          alternatives: [
            { ingredient: 'oat drink', amount: '1', unit: 'cup', minutes: 4, step: 'Stir more.' },
            { ingredient: 'firm tofu', preparation: 'cubed', amount: '1', unit: 'cup' },
          ],
        },
      ],
      steps: ['Chop the onion.', 'Boil the onion for 10 minutes.', 'Stir in the milk and simmer 5 minutes.'],
    },
  });
  await addDish(own.coordinator, { sessionId, recipeId: soup });
  const placeId = await addPlace(own.coordinator, {
    name: `Hall ${v7()}`,
    seats: '',
    hours: [],
    equipment: { stations: 2, burners: 1, knives: 2 },
    minutesBefore: 0,
    minutesAfter: 0,
    outdoor: null,
  });
  await update(store.db, store.db.models.session, { id: sessionId }, { placeId });
  const say = (context: Context, time: string, ...events: object[]) =>
    sayInClass(at(context, time), {
      sessionId,
      now: `${DAY}T${time}:00Z`,
      events: events.map((event) => ({ id: v7(), at: `${DAY}T${time}:00Z`, ...event })),
    });
  const view = (context: Context, time: string) => viewClass(at(context, time), { sessionId });
  return { ...session, say, view };
}
const PEOPLE = [{ name: 'Ada' }, { name: 'Bo', age: '11' }, { name: 'Cleo', age: '12' }, { name: 'Dov', age: '12' }];

describe('a class that runs', () => {
  it('begins once, though two tablets press it, and every screen follows', async () => {
    const { say, view, sessionId } = await newClass();
    const { plan } = await view(own.crew, '16:00');
    expect(plan?.tasks.length).toBeGreaterThan(3);
    const begun = { what: 'begun', value: { plan } };
    await Promise.all([say(own.crew, '16:10', begun), say(own.coordinator, '16:10', begun)]);
    const first = plan?.tasks[0]?.id;
    const done = { id: v7(), what: 'done', item: first };
    await say(own.crew, '16:14', done);
    // Its answer was lost: the same sent again changes nothing.
    await say(own.crew, '16:15', done);
    const { events } = await classSince(at(own.instructor, '16:15'), { sessionId, after: 0 });
    expect(events.map(({ what, seq }) => [what, seq])).toEqual([
      ['begun', 1],
      ['begun', 2],
      ['done', 3],
    ]);
    expect(
      (await classSince(at(own.crew, '16:15'), { sessionId, after: 2 })).events.map(({ item, by }) => [item, by]),
    ).toEqual([[first, 'crew']]);
    await expect(say(own.crew, '16:16', { ...done, item: 'something else' })).rejects.toThrow('used before');
  });

  it('puts the hour of a tablet right whose clock is wrong, and keeps what one without a network says a day later', async () => {
    const { say, sessionId } = await newClass();
    const slow = at(own.crew, '16:20');
    await sayInClass(slow, {
      sessionId,
      now: `${DAY}T15:00:00Z`,
      events: [{ id: v7(), what: 'ticked', item: 'opening: hands', at: `${DAY}T14:58:00Z` }],
    });
    await say(own.crew, '16:21', { what: 'ticked', item: 'opening: hair', at: `${DAY}T18:00:00Z` });
    const { events } = await classSince(slow, { sessionId, after: 0 });
    expect(events.map((event) => event.at.slice(11, 16))).toEqual(['16:18', '16:21']);
    const later = (days: number): Context => ({
      ...own.crew,
      clock: () => Temporal.Instant.from(`${DAY}T16:00:00Z`).add({ hours: 24 * days }),
    });
    const late = (days: number) =>
      sayInClass(later(days), {
        sessionId,
        now: later(days).clock().toString(),
        events: [{ id: v7(), what: 'ticked', item: 'closing: off', at: `${DAY}T17:00:00Z` }],
      });
    await expect(late(2)).resolves.toMatchObject({ seq: 3 });
    await expect(late(9)).rejects.toMatchObject({ kind: 'forbidden' });
    await expect(classSince(later(3), { sessionId, after: 0 })).rejects.toMatchObject({ kind: 'forbidden' });
  });

  it('is planned again from where it stands, and can leave a dish out', async () => {
    const { say, view, sessionId } = await newClass();
    const { plan } = await view(own.crew, '16:00');
    await expect(planClassAgain(at(own.crew, '16:05'), { sessionId, id: v7() })).rejects.toThrow('has not begun');
    await say(own.crew, '16:10', { what: 'begun', value: { plan } });
    const id = v7();
    const again = await planClassAgain(at(own.crew, '16:25'), { sessionId, id });
    await planClassAgain(at(own.crew, '16:25'), { sessionId, id });
    expect(again.minutes).toBeGreaterThan(15);
    const now = await view(own.crew, '16:25');
    expect(now.events.filter(({ what }) => what === 'planned again')).toHaveLength(1);
    expect(now.plan?.minutes).toBe(again.minutes);
  });

  it('asks for a whole temperature, a timer of some minutes, a plan to begin with', async () => {
    const { say } = await newClass();
    await expect(say(own.crew, '16:10', { what: 'timer', value: { minutes: -5 } })).rejects.toMatchObject({
      kind: 'invalid',
    });
    await expect(say(own.crew, '16:10', { what: 'begun' })).rejects.toMatchObject({ kind: 'invalid' });
    await expect(
      say(own.crew, '16:10', { what: 'temperature', item: 'x', value: { tenths: 9999 } }),
    ).rejects.toMatchObject({ kind: 'invalid' });
    await expect(say(own.crew, '16:10', { what: 'planned again' })).rejects.toMatchObject({ kind: 'invalid' });
  });
});

describe('a substitution on the day', () => {
  it('takes what the recipe has for it, with its words and minutes, before the class and in it', async () => {
    const { view, say, sessionId } = await newClass();
    const swap = (time: string, sent: object) =>
      swapInClass(at(own.crew, time), { sessionId, id: v7(), station: 'all', ...sent });
    const before = (await view(own.crew, '15:00')).plan;
    const { changed } = await swap('15:30', { food: 'milk' });
    expect(changed[0]).toMatch(/^Station 1: .* oat drink instead of milk \(Soup .*\)\.$/);
    const after = (await view(own.crew, '16:00')).plan;
    const stirred = after?.tasks.find(({ text }) => text.startsWith('Stir in'));
    expect(stirred?.notes).toBe('Oat drink instead of milk. Stir more.');
    expect(after?.minutes).toBe((before?.minutes ?? 0) + 4);
    await say(own.crew, '16:10', { what: 'begun', value: { plan: after } });
    await swap('16:12', { food: 'onion', way: 'leave out' });
    const now = (await view(own.crew, '16:12')).plan;
    expect(now?.tasks.find(({ text }) => text.startsWith('Chop'))?.notes).toBe('Without onion.');
  });

  it('is refused where somebody who eats of it must avoid what stands in, or nobody knows what a food holds', async () => {
    const { sessionId, view } = await newClass([{ name: 'Ada' }, { name: 'Bo', age: '12', avoids: 'nuts' }]);
    const swap = (sent: object) => swapInClass(at(own.crew, '15:00'), { sessionId, id: v7(), station: 'all', ...sent });
    await expect(swap({ food: 'milk', way: 'other', instead: 'almond butter' })).rejects.toThrow(
      /not safe, and nothing was changed.*tree nuts/,
    );
    await expect(swap({ food: 'milk', way: 'other', instead: 'moonmilk' })).rejects.toMatchObject({ kind: 'invalid' });
    await expect(swap({})).rejects.toMatchObject({ kind: 'invalid' });
    // Somebody new must avoid egg: the flatbread has nothing for it.
    await expect(swap({ avoid: 'EGG' })).rejects.toThrow(/nothing safe stands in for egg/);
    expect((await view(own.crew, '15:00')).events).toEqual([]);
    // What was not safe before is said on the screen of the class.
    expect((await view(own.crew, '15:00')).unsafe[0]).toContain('ground cumin');
  });

  it('is found for everybody where somebody new in the room must avoid something, and the tasks say so', async () => {
    const { sessionId, view } = await newClass();
    const sent = { sessionId, id: v7(), station: 'all', avoid: 'MILK' };
    const { changed } = await swapInClass(at(own.crew, '15:00'), sent);
    expect(changed[0]).toMatch(/firm tofu, cubed instead of plain yogurt \(Flatbread .*made without milk/);
    expect(
      (await view(own.crew, '15:00')).plan?.tasks.some(({ notes }) => notes.includes('Oat drink instead of milk')),
    ).toBe(true);
  });

  it('is never taken back by a plan that somebody worked out before it: whoever did is told to look again', async () => {
    const { sessionId, view, say } = await newClass();
    await say(own.crew, '16:10', { what: 'begun', value: { plan: (await view(own.crew, '16:00')).plan } });
    const before = await view(own.crew, '16:11');
    await swapInClass(at(own.coordinator, '16:12'), { sessionId, id: v7(), food: 'milk', station: 'all' });
    // Somebody else's plan was worked out from what stood there a moment ago.
    const late = { id: v7(), what: 'planned again' as const, item: '', enrolmentId: null, at: `${DAY}T16:12:00Z` };
    const value = before.plan ? { plan: before.plan } : {};
    const readTo = before.events.at(-1)?.seq ?? 0;
    const which = { sessionId, sitting: '' };
    const append = (seq: number) =>
      store.transaction((db) => appendToClass(at(own.crew, '16:12'), db, which, [{ ...late, value }], 0, seq));
    await expect(append(readTo)).rejects.toMatchObject({ kind: 'stale' });
    const { plan, events } = await view(own.crew, '16:12');
    expect(plan?.tasks.some(({ notes }) => notes.includes('Oat drink instead of milk'))).toBe(true);
    // What is done meanwhile is no other plan.
    await say(own.crew, '16:12', { what: 'done', item: plan?.tasks[0]?.id });
    await expect(append(events.at(-1)?.seq ?? 0)).resolves.toBeGreaterThan(readTo);
  });

  it('is asked for anew on every screen when a need, a word’s meaning or who is away changes', async () => {
    const { sessionId, courseId } = await newClass();
    const mark = async () => (await classSince(at(own.crew, '16:00'), { sessionId, after: 0 })).mark;
    const marks = [await mark()];
    await addPerson(own.coordinator, { courseId, cells: cells({ name: 'Elin', age: '9', avoids: 'moonroot' }) });
    marks.push(await mark());
    await giveMeaning(own.coordinator, { word: 'moonroot', codes: ['EGG'], foods: [], nothing: false, isFirst: true });
    marks.push(await mark());
    const { people } = await viewRoll(own.coordinator, { courseId });
    await setAway(own.coordinator, { sessionId, people: [{ enrolmentId: people[0]?.id, how: 'away' }] });
    marks.push(await mark());
    expect(new Set(marks).size).toBe(4);
    expect(await mark()).toBe(marks[3]);
  });
});
