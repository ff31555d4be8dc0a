import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { yieldOf } from '@/core/reference/reference';
import { find, findOne, insert } from '@/store/query';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import { addLot, viewStock } from '../buying/stock';
import { recordAllCame, recordAttendance } from '../classday/attendance';
import { sayInClass, viewClass } from '../classday/live';
import { taste } from '../classday/tasting';
import { viewCountdown } from '../countdown/countdown';
import type { Context, Role } from '../gate/gate';
import { lockKitSheet } from '../kits/kit-sheet';
import { addDish, addSession } from '../plan/sessions';
import { loadProgramme } from '../sheet/load-programme';
import { askAfter } from './asking-after';
import { noteCloseOut, viewCloseOut } from './close-out';
import { closeSession, openAgain } from './closing';
import { settleLeftover } from './leftovers';
import { decideLesson, viewLessons } from './lessons/lessons';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const at = (context: Context, day: string, time = '23:00'): Context => ({
  ...context,
  clock: () => Temporal.Instant.from(`${day}T${time}:00Z`),
});
const left = (item: string, percent: number) => ({ id: v7(), what: 'left', item, percent });
const bad = (item: string, count: number, pieces: number) => ({ id: v7(), what: 'bad', item, bad: count, pieces });
const DAY = '2026-11-26';

describe('closing out', () => {
  it('is filled in as far as it is known, by whoever leads, in parts, and keeps each answer once', async () => {
    own = await newProgramme(store);
    const { sessionId } = await newSession(own.coordinator, [{ name: 'Ada' }, { name: 'Bo' }]);
    const crew = at(own.crew, DAY);
    await recordAllCame(crew, { sessionId });
    const said = crew.clock().toString();
    const short = { id: v7(), what: 'short', item: 'egg', value: { percent: 25 }, at: said };
    await sayInClass(crew, { sessionId, now: said, events: [short] });
    const before = await viewCloseOut(crew, { sessionId });
    expect(before).toMatchObject({
      attendance: { asked: [{ yes: 'came', count: 2, of: 2 }], open: 0 },
      short: [{ food: 'egg', percent: 25 }],
      closedAt: null,
    });
    expect(before.foods.map(({ food, left: over }) => [food, over])).toContainEqual(['plain yogurt', null]);
    const notes = [left('plain yogurt', 50), bad('egg', 2, 12)];
    // Sent twice at once, by a phone whose answer was lost.
    await Promise.all([noteCloseOut(crew, { sessionId, notes }), noteCloseOut(crew, { sessionId, notes })]);
    await noteCloseOut(at(own.coordinator, '2026-11-27'), { sessionId, notes: [left('plain yogurt', 25)] });
    const after = await viewCloseOut(crew, { sessionId });
    expect(after.foods.find(({ food }) => food === 'plain yogurt')?.left).toBe(25);
    expect(after.foods.find(({ food }) => food === 'egg')).toMatchObject({ bad: 2, pieces: 12 });
    for (const wrong of [bad('egg', 9, 3), { id: v7(), what: 'left', item: 'egg' }])
      await expect(noteCloseOut(crew, { sessionId, notes: [wrong] })).rejects.toMatchObject({ kind: 'invalid' });
  });

  it('is refused before the class, done once by two phones, and taken back with a reason', async () => {
    own = await newProgramme(store);
    const { sessionId } = await newSession(own.coordinator, [{ name: 'Ada' }]);
    const early = at(own.coordinator, DAY, '12:00');
    await expect(closeSession(early, { sessionId, id: v7() })).rejects.toMatchObject({
      message: expect.stringContaining('close it out when it is over'),
    });
    await expect(noteCloseOut(early, { sessionId, notes: [left('egg', 10)] })).rejects.toMatchObject({ kind: 'stale' });
    const late = at(own.crew, DAY);
    const asked = async () => (await viewCountdown(at(own.coordinator, '2026-11-28'), {})).open.map(({ id }) => id);
    expect(await asked()).toEqual([sessionId]);
    const both = await Promise.all([1, 2].map(() => closeSession(late, { sessionId, id: v7() })));
    expect(both.map(({ isNew }) => isNew).sort()).toEqual([false, true]);
    expect(await asked()).toEqual([]);
    const dish = await findOne(store.db, store.db.models.dish, { sessionId });
    const vote = { id: v7(), dishId: dish?.id, face: 'not yet' };
    await expect(taste(late, { sessionId, events: [vote] })).rejects.toMatchObject({ kind: 'stale' });
    await expect(openAgain(late, { sessionId, reason: 'X' })).rejects.toMatchObject({ kind: 'forbidden' });
    await openAgain(at(own.coordinator, DAY), { sessionId, reason: 'A bowl was found' });
    const view = await viewCloseOut(late, { sessionId });
    expect([view.closedAt, view.openedAgain]).toEqual([null, 'A bowl was found']);
    await taste(late, { sessionId, events: [vote] });
    await expect(openAgain(at(own.coordinator, DAY), { sessionId, reason: 'X' })).rejects.toMatchObject({
      kind: 'stale',
    });
    expect((await closeSession(late, { sessionId, id: v7() })).isNew).toBe(true);
  });

  it('says what becomes of an opened pack: never more than there is, and what is thrown away is lost', async () => {
    own = await newProgramme(store);
    const { sessionId } = await newSession(own.coordinator, [{ name: 'Ada' }]);
    const late = at(own.coordinator, DAY);
    const lotId = v7();
    await addLot(late, {
      id: lotId,
      ingredient: 'plain yogurt',
      packs: 1,
      packGrams: 1000,
      storage: 'fridge',
      lastDay: '2026-12-10',
      lastKind: 'use by',
      origin: 'bought',
    });
    const taken = { id: v7(), programmeId: own.coordinator.actor.programmeId, lotId, seq: 2, kind: 'used' as const };
    const what = { packs: 0, grams: 400, day: DAY, storage: null, placeId: null, reason: '', sessionId };
    await insert(store.db, store.db.models.stockMove, [
      { ...taken, ...what, at: new Date(`${DAY}T20:00:00Z`), actorId: own.crew.actor.id },
    ]);
    const { leftovers } = await viewCloseOut(late, { sessionId });
    expect(leftovers).toMatchObject([{ lotId, grams: 600, said: '' }]);
    const say = (fate: string, grams?: number) =>
      settleLeftover(late, { id: v7(), sessionId, lotId, fate, ...(grams === undefined ? {} : { grams }) });
    await expect(say('so much is left', 900)).rejects.toMatchObject({ problems: [{ where: 'grams' }] });
    // Two phones say the same of one pack: it is so much, not that much less twice.
    await Promise.all([say('so much is left', 500), say('so much is left', 500)]);
    const grams = async () => (await viewStock(late, {})).lots.find(({ id }) => id === lotId)?.now.grams;
    expect(await grams()).toBe(500);
    await say('thrown away');
    expect(await grams()).toBeUndefined();
    await expect(say('kept')).rejects.toMatchObject({ kind: 'not-found' });
  });

  it('asks families on the next day whether they cooked, once, by day, and only who got a kit and has not said', async () => {
    own = await newProgramme(store);
    const people = ['Ada', 'Bo', 'Cleo'].map((name) => ({
      name,
      mode: 'take-home',
      household: name,
      contact: `${name.toLowerCase()}@example.test`,
    }));
    const { sessionId, people: ids, basis } = await newSession(own.coordinator, people);
    await lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    const day = at(own.coordinator, DAY, '22:00');
    const mark = (enrolmentId: string | undefined, state: string) =>
      recordAttendance(day, { sessionId, id: v7(), enrolmentId, state });
    await mark(ids[0], 'collected');
    await mark(ids[1], 'collected');
    await mark(ids[1], 'cooked');
    expect(await askAfter(at(own.coordinator, DAY, '22:30'))).toBe(0);
    expect(await askAfter(at(own.coordinator, '2026-11-27', '08:00'))).toBe(0);
    const both = await Promise.all([1, 2].map(() => askAfter(at(own.coordinator, '2026-11-27', '16:00'))));
    expect(both.reduce((sum, each) => sum + each, 0)).toBe(1);
    const { programmeId } = own.coordinator.actor;
    const messages = await find(store.db, store.db.models.message, { programmeId });
    expect(
      messages.filter(({ subject }) => subject.startsWith('Did you cook it?')).map(({ sentTo }) => sentTo),
    ).toEqual(['ada@example.test']);
    expect(await askAfter(at(own.coordinator, '2026-11-28', '16:00'))).toBe(0);
  });
});

describe('lessons', () => {
  const days = [DAY, '2026-11-27', '2026-11-28', '2026-11-29'];

  /** Sessions of one dish on four days. */
  async function newDays() {
    own = await newProgramme(store);
    const made = await newSession(own.coordinator, [{ name: 'Ada', age: '12' }]);
    const plan = { title: 'Breads', startsAt: '16:00', minutes: 90, place: 'Boatshed', mode: 'in person' };
    const sessions = [made.sessionId];
    for (const date of days.slice(1)) {
      const id = await addSession(own.coordinator, { courseId: made.courseId, ...plan, date });
      await addDish(own.coordinator, { sessionId: id, recipeId: made.recipeId });
      sessions.push(id);
    }
    const close = async (n: number, ...notes: object[]) => {
      const context = at(own.coordinator, days[n] ?? '');
      await noteCloseOut(context, { sessionId: sessions[n], notes: [left('egg', 0), ...notes] });
      await closeSession(context, { sessionId: sessions[n], id: v7() });
    };
    const lessons = async () => (await viewLessons(at(own.instructor, '2026-12-01'), {})).lessons;
    const decide = (
      lesson: Awaited<ReturnType<typeof lessons>>[number] | undefined,
      word: string,
      more: object = {},
    ) => {
      const { kind, ofId, item, version, proposed } = lesson ?? ({} as never);
      return decideLesson(at(own.coordinator, '2026-12-01'), {
        kind,
        ofId,
        item,
        version,
        word,
        percent: proposed,
        ...more,
      });
    };
    const recipe = async () => findOne(store.db, store.db.models.recipe, { id: made.recipeId });
    return { ...made, sessions, close, lessons, decide, recipe };
  }

  it('come from closed sessions, change nothing by themselves, and are taken, changed or refused by a person', async () => {
    const { close, lessons, decide, recipe } = await newDays();
    expect(await lessons()).toEqual([]);
    await close(0, left('plain yogurt', 30));
    await close(1, left('plain yogurt', 35));
    const [lesson, ...others] = await lessons();
    expect(others).toEqual([]);
    expect(lesson).toMatchObject({ kind: 'amount', item: 'plain yogurt', sessions: 2, lesson: { sure: 'likely' } });
    expect(lesson?.proposed).toBeLessThan(90);
    expect((await recipe())?.version).toBe(1);
    await decide(lesson, 'refused');
    expect(await lessons()).toEqual([]);
    // More is seen: it comes again, and is taken otherwise than proposed; by two at once, one of them.
    await close(2, left('plain yogurt', 60));
    const [again] = await lessons();
    await expect(decide(again, 'taken', { version: 7 })).rejects.toMatchObject({ kind: 'stale' });
    const both = await Promise.allSettled([1, 2].map(() => decide(again, 'taken', { percent: 75 })));
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect((await recipe())?.body.lines[0]).toMatchObject({ ingredient: 'plain yogurt', amount: '¾' });
    expect((await recipe())?.version).toBe(2);
    // What was seen of the old amount says nothing of the new one.
    expect(await lessons()).toEqual([]);
    await expect(decide(again, 'taken', { version: 2 })).rejects.toMatchObject({ kind: 'stale' });
  });

  it('say how many spare pieces a dish wants, from what was bad', async () => {
    const { close, lessons, decide, recipe } = await newDays();
    for (const n of [0, 1, 2]) await close(n, bad('plain yogurt', 5, 20));
    const [lesson] = await lessons();
    expect(lesson).toMatchObject({ kind: 'spare', item: 'plain yogurt', sessions: 3 });
    expect(lesson?.proposed).toBeGreaterThanOrEqual(25);
    await decide(lesson, 'taken', { percent: 25 });
    expect((await recipe())?.body.lines[0]?.spare).toBe('1/4');
    expect(await lessons()).toEqual([]);
  });

  it('count spare pieces by the shop where the food is bought now', async () => {
    const { sessions, close, lessons } = await newDays();
    const { programmeId, id: actorId } = own.coordinator.actor;
    const { db } = store;
    const [good, poor] = [v7(), v7()];
    const shop = { programmeId, aisles: [], weekdays: [], tripCost: 0, version: 1 };
    await insert(db, db.models.shop, [
      { ...shop, id: good, name: 'Quay Market' },
      { ...shop, id: poor, name: 'Corner Stall' },
    ]);
    for (const [n, shopId] of [poor, poor, good, good].entries()) {
      const [tripId, lotId] = [v7(), v7()];
      const made = { programmeId, at: new Date(`${days[n]}T10:00:00Z`), actorId };
      const trip = {
        id: tripId,
        shopId,
        day: days[n] ?? '',
        state: 'received' as const,
        paid: null,
        payer: '',
        seq: 1,
      };
      await insert(db, db.models.trip, [{ ...trip, ...made }]);
      const lot = {
        id: lotId,
        ingredient: 'plain yogurt',
        productId: null,
        name: 'Yogurt',
        packGrams: 1000,
        placeId: null,
      };
      const kept = {
        storage: 'fridge' as const,
        lastDay: '2026-12-24',
        lastKind: 'use by' as const,
        price: null,
        tripId,
      };
      await insert(db, db.models.stockLot, [{ ...lot, ...kept, origin: 'bought' as const, allergens: null, ...made }]);
      const what = { packs: 0, grams: 100, day: days[n] ?? '', storage: null, placeId: null, reason: '' };
      const sessionId = sessions[n] ?? '';
      await insert(db, db.models.stockMove, [
        { id: v7(), lotId, seq: 1, kind: 'used' as const, ...what, sessionId, ...made },
      ]);
    }
    for (const n of [0, 1]) await close(n, bad('plain yogurt', 10, 40));
    for (const n of [2, 3]) await close(n, bad('plain yogurt', 2, 40));
    const lesson = (await lessons()).find(({ kind }) => kind === 'spare');
    // At the market where it is bought now few are bad; the stall's forty spoil the figure no more.
    expect(lesson).toMatchObject({ sessions: 2, note: 'Corner Stall: 20 of 80 bad; Quay Market: 4 of 80 bad' });
    expect(lesson?.seen.map(({ say }) => say)).toEqual(Array(2).fill('2 of 40 were bad, from Quay Market'));
    expect(lesson?.proposed).toBeLessThan(20);
  });

  it('say what jobs took, as somebody noted it, and change the minutes of the course', async () => {
    const { sessions, courseId, close, lessons, decide } = await newDays();
    const context = at(own.coordinator, DAY);
    const shopping = async (n: number) =>
      (await viewCloseOut(context, { sessionId: sessions[n] })).jobs.find(({ key }) => key === 'buying');
    const planned = (await shopping(0))?.planned ?? 0;
    expect(planned).toBeGreaterThan(60);
    const took = (minutes: number) => ({ id: v7(), what: 'job', item: 'buying', bad: minutes });
    const wrong = noteCloseOut(context, { sessionId: sessions[0], notes: [took(planned * 9)] });
    await expect(wrong).rejects.toMatchObject({ problems: [{ where: 'buying' }] });
    const none = noteCloseOut(context, { sessionId: sessions[0], notes: [{ ...took(60), item: 'flying' }] });
    await expect(none).rejects.toMatchObject({ kind: 'invalid' });
    for (const n of [0, 1, 2]) await close(n, took(planned * 2));
    const lesson = (await lessons()).find(({ kind }) => kind === 'job');
    expect(lesson).toMatchObject({ item: `buying ${courseId}`, title: '“Shop” takes longer', sessions: 3 });
    expect(lesson?.proposed).toBeGreaterThan(150);
    await decide(lesson, 'taken', { percent: 200 });
    expect((await shopping(3))?.planned).toBe(planned * 2);
    expect((await lessons()).filter(({ kind }) => kind === 'job')).toEqual([]);
  });

  it('say how much is left of a food that is trimmed, and buy by it from then on', async () => {
    const { sessionId, close, lessons, decide, recipeId } = await newDays();
    const line = { ingredient: 'carrot', preparation: 'chopped', amount: '400', unit: 'g' };
    const body = { servings: 4, lines: [{ ...line, yield_preparation: 'peeled and trimmed' }], steps: [] };
    await store.db.models.recipe.update({ body } as never, { where: { id: recipeId } });
    const item = 'carrot: peeled and trimmed';
    const trim = (off: number, of: number) => ({ id: v7(), what: 'trim', item, bad: off, pieces: of });
    const context = at(own.coordinator, DAY);
    expect((await viewCloseOut(context, { sessionId })).trims).toMatchObject([{ item }]);
    const wrong = noteCloseOut(context, { sessionId, notes: [trim(900, 800)] });
    await expect(wrong).rejects.toMatchObject({ kind: 'invalid' });
    for (const n of [0, 1, 2]) await close(n, trim(120 + n, 1000));
    const lesson = (await lessons()).find(({ kind }) => kind === 'trimming');
    expect(lesson).toMatchObject({ item, would: [{ now: '70 % edible' }], sessions: 3 });
    expect(lesson?.proposed).toBeGreaterThan(75);
    const both = await Promise.allSettled([1, 2].map(() => decide(lesson, 'taken', { percent: 87 })));
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    const { programme } = await loadProgramme(own.coordinator);
    expect(yieldOf(programme.reference, 'carrot', 'peeled and trimmed').from).toMatchObject({
      ediblePortion: '0.87',
      source: 'weighed here, 2026-12-01',
    });
    expect((await lessons()).filter(({ kind }) => kind === 'trimming')).toEqual([]);
  });

  it('say what steps took in class, and settle their minutes', async () => {
    const { sessions, close, lessons, decide, recipe, recipeId } = await newDays();
    const before = await recipe();
    const body = {
      ...(before?.body ?? { lines: [], servings: 1 }),
      steps: ['Chop the herbs for 10 minutes.', 'Stir it all.'],
    };
    await store.db.models.recipe.update({ body } as never, { where: { id: recipeId } });
    for (const n of [0, 1, 2]) {
      const crew = (time: string) => at(own.crew, days[n] ?? '', time);
      const { plan } = await viewClass(crew('21:00'), { sessionId: sessions[n] });
      const chop = plan?.tasks.find(({ text }) => text.startsWith('Chop'));
      const say = (time: string, event: object) =>
        sayInClass(crew(time), {
          sessionId: sessions[n],
          now: `${days[n]}T${time}:00Z`,
          events: [{ id: v7(), at: `${days[n]}T${time}:00Z`, ...event }],
        });
      await say('21:10', { what: 'begun', value: { plan } });
      await say('21:30', { what: 'done', item: chop?.id });
      await close(n);
    }
    const lesson = (await lessons()).find(({ kind }) => kind === 'step');
    expect(lesson).toMatchObject({ item: '0', would: [{ now: '10 min' }], sessions: 3 });
    expect(lesson?.proposed).toBeGreaterThan(130);
    await decide(lesson, 'taken', { percent: 200 });
    expect((await recipe())?.body.planned).toMatchObject([{ text: 'Chop the herbs for 10 minutes.', handsOn: 20 }]);
  });
});
