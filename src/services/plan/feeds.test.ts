import ical from 'node-ical';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { cancelSession } from './cancel';
import { exportCalendar, listFeeds, makeFeed, readFeed, revokeFeed } from './feeds';
import { moveSession } from './sessions';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const items = (text: string | undefined) =>
  Object.values(ical.sync.parseICS(text ?? '')).filter((item) => item && 'type' in item) as unknown as {
    type: string;
    uid: string;
    status: string;
    sequence: string;
    start: Date;
    summary: string;
  }[];
const events = (text: string | undefined) => items(text).filter(({ type }) => type === 'VEVENT');

describe('a calendar address', () => {
  it('shows a course’s sessions, hears of each change, keeps what was cancelled, and ends when told', async () => {
    const { courseId, sessionId } = await newSession(context, [{ name: 'Ada Finch', avoids: 'egg' }]);
    const { id, token } = await makeFeed(context, { scope: 'course', scopeId: courseId });
    const before = await readFeed(context, token);
    expect(events(before)).toMatchObject([{ summary: 'Small Hands: Breads', status: 'CONFIRMED' }]);
    expect(events(before)[0]?.start.toISOString()).toBe('2026-11-26T16:00:00.000Z');
    expect(before).not.toContain('Ada');
    await moveSession(context, { sessionId, version: 1, date: '2026-12-01', startsAt: '10:00' });
    const moved = events(await readFeed(context, token))[0];
    expect(moved?.start.toISOString()).toBe('2026-12-01T10:00:00.000Z');
    expect([moved?.uid, Number(moved?.sequence)]).toEqual([events(before)[0]?.uid, 1]);
    await cancelSession(context, { sessionId, version: 2, cancelled: true });
    expect(events(await readFeed(context, token))[0]).toMatchObject({ status: 'CANCELLED' });
    await revokeFeed(context, { feedId: id });
    expect(await readFeed(context, token)).toBeUndefined();
    expect(await listFeeds(context, {})).toEqual([]);
  });

  it('with the jobs holds them as tasks; only the hash of an address is kept', async () => {
    await newSession(context, [{ name: 'Ada Finch' }]);
    const { id, token } = await makeFeed(context, { scope: 'programme', scopeId: '', withJobs: true });
    const tasks = items(await readFeed(context, token)).filter(({ type }) => type === 'VTODO');
    expect(tasks.map(({ summary }) => summary)).toEqual(expect.arrayContaining(['Shop: Breads', 'Close out: Breads']));
    const rows = await find(store.db, store.db.models.calendarFeed, { id });
    expect(JSON.stringify(rows)).not.toContain(token);
  });

  it('of a place or an instructor shows what is theirs', async () => {
    const { sessionId } = await newSession(context, []);
    await moveSession(context, {
      sessionId,
      version: 1,
      date: '2026-12-01',
      startsAt: '10:00',
      instructorId: context.actor.id,
    });
    const text = await exportCalendar(context, { scope: 'instructor', scopeId: context.actor.id });
    expect(events(text).map(({ uid }) => uid)).toEqual([`session-${sessionId}@logistra`]);
  });
});
