import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { insert } from '@/store/query';
import type { Store } from '@/store/store';
import { newProgramme, newSession, select, testStore } from '../../../tests/programme';
import { addLot } from '../buying/stock';
import { recordAttendance } from '../classday/attendance';
import type { Context } from '../gate/gate';
import { addDish, addSession } from '../plan/sessions';
import { noteCloseOut } from './close-out';
import { closeSession, openAgain } from './closing';
import { settleLeftover } from './leftovers';
import { decideLesson, viewLessons } from './lessons/lessons';
import { viewReport } from './reports';

let store: Store;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const chanceFrom = (seed: number) => () => {
  seed = (seed * 1103515245 + 12345) % 2147483648;
  return seed / 2147483648;
};
const DAYS = ['2026-11-26', '2026-11-27', '2026-11-28', '2026-11-29'];
const FOODS = ['plain yogurt', 'plain wheat flour'];

describe('a search for a session that is closed wrongly', () => {
  it.each([5, 23, 71])('finds none: seed %i', async (seed) => {
    const chance = chanceFrom(seed);
    const upTo = (most: number) => Math.floor(chance() * (most + 1));
    const pick = <T>(all: readonly T[]): T => all[Math.floor(chance() * all.length)] as T;
    const own = await newProgramme(store);
    const { programmeId } = own.coordinator.actor;
    const people = ['Ada', 'Bo', 'Cleo'].map((name) => ({ name }));
    const made = await newSession(own.coordinator, people);
    const plan = { title: 'Breads', startsAt: '16:00', minutes: 90, place: 'Boatshed', mode: 'in person' };
    const sessions = [made.sessionId];
    for (const date of DAYS.slice(1)) {
      const id = await addSession(own.coordinator, { courseId: made.courseId, ...plan, date });
      await addDish(own.coordinator, { sessionId: id, recipeId: made.recipeId });
      sessions.push(id);
    }
    let minute = 0;
    const now = (context: Context): Context => ({
      ...context,
      clock: () => Temporal.Instant.from('2026-11-30T10:00:00Z').add({ minutes: minute }),
    });
    const lotId = v7();
    const lot = { id: lotId, ingredient: 'plain yogurt', packs: 1, packGrams: 1000, storage: 'fridge' };
    await addLot(now(own.coordinator), { ...lot, lastDay: '2026-12-10', lastKind: 'use by', origin: 'bought' });
    const used = { programmeId, lotId, kind: 'used' as const, packs: 0, day: DAYS[0] ?? '', storage: null };
    await insert(
      store.db,
      store.db.models.stockMove,
      sessions.map((sessionId, at) => {
        const row = { id: v7(), seq: at + 2, grams: 100, placeId: null, reason: '', sessionId };
        return { ...used, ...row, at: new Date('2026-11-29T20:00:00Z'), actorId: own.crew.actor.id };
      }),
    );
    /** What is refused is refused in words; anything else is a finding. */
    const may = (work: Promise<unknown>) =>
      work.catch((error: unknown) => {
        if (!['invalid', 'stale', 'not-found', 'forbidden'].includes((error as { kind?: string }).kind ?? ''))
          throw error;
      });
    const step = (): Promise<unknown> => {
      const sessionId = pick(sessions);
      const who = now(pick([own.coordinator, own.crew]));
      const roll = chance();
      if (roll < 0.3) {
        const item = pick(FOODS);
        const note = chance() < 0.6 ? { what: 'left', percent: upTo(60) } : { what: 'bad', bad: upTo(8), pieces: 6 };
        return may(noteCloseOut(who, { sessionId, notes: [{ id: v7(), item, ...note }] }));
      }
      if (roll < 0.5) return may(closeSession(who, { sessionId, id: v7() }));
      if (roll < 0.6) return may(openAgain(now(own.coordinator), { sessionId, reason: 'Seen again' }));
      if (roll < 0.75) {
        const fate = pick(['kept', 'so much is left', 'thrown away', 'given away'] as const);
        return may(settleLeftover(who, { id: v7(), sessionId, lotId, fate, grams: upTo(700) }));
      }
      if (roll < 0.85) {
        const mark = { id: v7(), enrolmentId: pick(made.people), state: pick(['came', 'absent']) };
        return may(recordAttendance(now(own.coordinator), { sessionId, ...mark }));
      }
      return may(
        (async () => {
          const [lesson] = (await viewLessons(who.actor.role === 'crew' ? now(own.coordinator) : who, {})).lessons;
          if (!lesson) return;
          const { kind, ofId, item, version, proposed } = lesson;
          const word = pick(['taken', 'refused'] as const);
          await decideLesson(now(own.coordinator), { kind, ofId, item, version, word, percent: proposed });
        })(),
      );
    };
    let decided = 0;
    for (let turn = 0; turn < 60; turn++) {
      minute += 1;
      await Promise.all(Array.from({ length: 1 + upTo(2) }, step));
      decided = await judge();
    }
    // A search that never comes near would find nothing.
    expect(decided).toBeGreaterThan(0);

    /** From the rows alone. @returns how many lessons were taken */
    async function judge(): Promise<number> {
      const rows = await select<{ sessionId: string; what: string }>(
        store.db,
        "SELECT session_id AS sessionId, what FROM close_note WHERE session_id IN (:sessions) AND what IN ('closed', 'opened again') ORDER BY session_id, at, what",
        { sessions },
      );
      for (const sessionId of sessions) {
        const words = rows.filter((row) => row.sessionId === sessionId).map(({ what }) => what);
        const [closed, opened] = ['closed', 'opened again'].map((what) => words.filter((word) => word === what).length);
        expect((closed ?? 0) - (opened ?? 0), words.join(', ')).toBeGreaterThanOrEqual(0);
        expect((closed ?? 0) - (opened ?? 0), words.join(', ')).toBeLessThanOrEqual(1);
      }
      const [counts] = await select<{ taken: number; versions: number; grams: number; yes: number; no: number }>(
        store.db,
        `SELECT (SELECT COUNT(*) FROM lesson_word WHERE programme_id = :programmeId AND word = 'taken' AND kind <> 'job') AS taken,
                (SELECT version - 1 FROM recipe WHERE id = :recipeId) AS versions,
                (SELECT 1000 - SUM(IF(kind = 'received', 0, grams)) FROM stock_move WHERE lot_id = :lotId) AS grams,
                (SELECT COUNT(*) FROM (SELECT session_id, enrolment_id, SUBSTRING_INDEX(GROUP_CONCAT(state ORDER BY at DESC, id DESC), ',', 1) AS state
                   FROM attendance WHERE session_id IN (:sessions) GROUP BY session_id, enrolment_id) a WHERE state = 'came') AS yes,
                (SELECT COUNT(*) FROM (SELECT session_id, enrolment_id, SUBSTRING_INDEX(GROUP_CONCAT(state ORDER BY at DESC, id DESC), ',', 1) AS state
                   FROM attendance WHERE session_id IN (:sessions) GROUP BY session_id, enrolment_id) a WHERE state = 'absent') AS no`,
        { programmeId, recipeId: made.recipeId, lotId, sessions },
      );
      // Each lesson that was taken made one version, and no version came of none.
      expect(Number(counts?.versions)).toBe(Number(counts?.taken));
      expect(Number(counts?.grams)).toBeGreaterThanOrEqual(0);
      const { figures } = await viewReport(now(own.coordinator), { courseId: made.courseId });
      const attendance = figures.find(({ key }) => key === 'attendance');
      const sum = (of: 'value' | 'of') => (attendance?.parts ?? []).reduce((all, part) => all + (part[of] ?? 0), 0);
      expect([sum('value'), sum('of')]).toEqual([Number(counts?.yes), Number(counts?.yes) + Number(counts?.no)]);
      return Number(counts?.taken);
    }
  });
});
