import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { findOne } from '@/store/query';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import { recordAllCame } from '../classday/attendance';
import { sayInClass } from '../classday/live';
import type { Context, Role } from '../gate/gate';
import { addDish, addSession } from '../plan/sessions';
import { noteCloseOut, viewCloseOut } from './close-out';
import { decideLesson, viewLessons } from './lessons';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const at = (context: Context, day: string): Context => ({
  ...context,
  clock: () => Temporal.Instant.from(`${day}T18:00:00Z`),
});
const closed = () => ({ id: v7(), what: 'closed' });
const left = (item: string, percent: number) => ({ id: v7(), what: 'left', item, percent });

describe('closing out', () => {
  it('is filled in as far as it is known, by whoever leads, and keeps each answer once', async () => {
    own = await newProgramme(store);
    const { sessionId } = await newSession(own.coordinator, [{ name: 'Ada' }, { name: 'Bo' }]);
    const crew = at(own.crew, '2026-11-26');
    await recordAllCame(crew, { sessionId });
    const said = crew.clock().toString();
    const short = { id: v7(), what: 'short', item: 'egg', value: { percent: 25 }, at: said };
    await sayInClass(crew, { sessionId, now: said, events: [short] });
    const before = await viewCloseOut(crew, { sessionId });
    expect(before).toMatchObject({
      attendance: { came: 2, of: 2, open: 0 },
      short: [{ food: 'egg', percent: 25 }],
      closedAt: null,
    });
    expect(before.foods.map(({ food, left: over }) => [food, over])).toContainEqual(['plain yogurt', null]);
    const notes = [left('plain yogurt', 50), { id: v7(), what: 'bad', item: 'egg', bad: 2, pieces: 12 }, closed()];
    await noteCloseOut(crew, { sessionId, notes });
    await noteCloseOut(crew, { sessionId, notes });
    await noteCloseOut(at(own.coordinator, '2026-11-27'), { sessionId, notes: [left('plain yogurt', 25)] });
    const after = await viewCloseOut(crew, { sessionId });
    expect(after.foods.find(({ food }) => food === 'plain yogurt')?.left).toBe(25);
    expect(after.foods.find(({ food }) => food === 'egg')).toMatchObject({ bad: 2, pieces: 12 });
    expect(after.closedAt).not.toBeNull();
    await expect(
      noteCloseOut(crew, { sessionId, notes: [{ id: v7(), what: 'bad', item: 'egg', bad: 9, pieces: 3 }] }),
    ).rejects.toMatchObject({ kind: 'invalid' });
    await expect(
      noteCloseOut(crew, { sessionId, notes: [{ id: v7(), what: 'left', item: 'egg' }] }),
    ).rejects.toMatchObject({ kind: 'invalid' });
  });
});

describe('lessons', () => {
  it('come from sessions that were closed, change nothing by themselves, and are taken, changed or refused by a person', async () => {
    own = await newProgramme(store);
    const { sessionId, courseId, recipeId } = await newSession(own.coordinator, [{ name: 'Ada' }]);
    const days = ['2026-11-26', '2026-11-27', '2026-11-28'];
    const plan = { title: 'Breads', startsAt: '16:00', minutes: 90, place: 'Boatshed', mode: 'in person' };
    const sessions = [sessionId];
    for (const date of days.slice(1)) {
      const id = await addSession(own.coordinator, { courseId, ...plan, date });
      await addDish(own.coordinator, { sessionId: id, recipeId });
      sessions.push(id);
    }
    const close = async (n: number, percent: number) =>
      noteCloseOut(at(own.coordinator, days[n] ?? ''), {
        sessionId: sessions[n],
        notes: [left('plain yogurt', percent), left('egg', 0), closed()],
      });
    expect(await viewLessons(own.instructor, {})).toEqual([]);
    await close(0, 30);
    await close(1, 35);
    const [lesson, ...others] = await viewLessons(own.instructor, {});
    expect(others).toEqual([]);
    expect(lesson).toMatchObject({ food: 'plain yogurt', sessions: 2, lesson: { sure: 'likely' } });
    expect(lesson?.proposed).toBeLessThan(90);
    const recipe = async () => findOne(store.db, store.db.models.recipe, { id: recipeId });
    expect((await recipe())?.version).toBe(1);
    const word = { recipeId, food: 'plain yogurt', version: 1 };
    await decideLesson(at(own.coordinator, '2026-11-29'), { ...word, word: 'refused', percent: lesson?.proposed });
    expect(await viewLessons(own.coordinator, {})).toEqual([]);
    // More is seen: it comes again, and is taken otherwise than proposed.
    await close(2, 60);
    expect(await viewLessons(own.coordinator, {})).toHaveLength(1);
    await expect(
      decideLesson(at(own.coordinator, '2026-11-29'), { ...word, version: 7, word: 'taken', percent: 75 }),
    ).rejects.toMatchObject({ kind: 'stale' });
    await decideLesson(at(own.coordinator, '2026-11-29'), { ...word, word: 'taken', percent: 75 });
    expect((await recipe())?.body.lines[0]).toMatchObject({ ingredient: 'plain yogurt', amount: '¾' });
    expect((await recipe())?.version).toBe(2);
    // What was seen of the old amount says nothing of the new one.
    expect(await viewLessons(own.coordinator, {})).toEqual([]);
    await expect(
      decideLesson(at(own.coordinator, '2026-11-29'), { ...word, version: 2, word: 'taken', percent: 75 }),
    ).rejects.toMatchObject({ kind: 'stale' });
  });
});
