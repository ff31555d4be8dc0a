import ical from 'node-ical';
import { describe, expect, it } from 'vitest';
import { type CalendarEvent, writeCalendar } from './icalendar-out';

const event = (change: Partial<CalendarEvent> = {}): CalendarEvent => ({
  uid: 'session-1@logistra',
  sequence: 0,
  title: 'Breads from the pan',
  description: 'Small Hands Kitchen, session 1; in person\nBring: aprons, towels',
  place: 'Boatshed kitchen',
  date: '2026-10-29',
  startsAt: '16:00',
  minutes: 90,
  cancelled: false,
  ...change,
});
const write = (
  events: readonly CalendarEvent[],
  timeZone = 'America/New_York',
  tasks: Parameters<typeof writeCalendar>[0]['tasks'] = [],
) => writeCalendar({ name: 'Small Hands; Kitchen, one', timeZone, events, tasks, stamp: '2026-10-01T08:00:00Z' });
/** Read back by a parser that is not the writer. */
const readBack = (text: string) =>
  Object.values(ical.sync.parseICS(text)).filter((item) => item && 'type' in item) as unknown as Record<
    string,
    unknown
  >[];
const events = (text: string) =>
  readBack(text).filter(({ type }) => type === 'VEVENT') as unknown as {
    uid: string;
    summary: string;
    start: Date;
    end: Date;
    status: string;
    sequence: string;
    location: string;
    description: string;
  }[];

describe('a calendar feed, read back by another parser', () => {
  it.each([
    ['America/New_York', '2026-10-29', '2026-10-29T20:00:00.000Z'],
    ['America/New_York', '2026-11-05', '2026-11-05T21:00:00.000Z'],
    ['Australia/Sydney', '2026-10-03', '2026-10-03T06:00:00.000Z'],
    ['Australia/Sydney', '2026-10-05', '2026-10-05T05:00:00.000Z'],
    ['Asia/Kathmandu', '2026-10-29', '2026-10-29T10:15:00.000Z'],
    ['UTC', '2026-10-29', '2026-10-29T16:00:00.000Z'],
  ])('shows four o’clock in %s on %s', (timeZone, date, instant) => {
    const text = write([event({ date })], timeZone);
    const [found] = events(text);
    expect(found?.start.toISOString()).toBe(instant);
    expect(found && (found.end.getTime() - found.start.getTime()) / 60_000).toBe(90);
    if (timeZone !== 'UTC') expect(text).toContain(`TZID:${timeZone}`);
  });

  it('names every time zone as it is called today, with its rules under that name', () => {
    const old = new Set(['Asia/Calcutta', 'Europe/Kiev', 'America/Buenos_Aires', 'Asia/Saigon', 'America/Godthab']);
    const january = (zone: string) =>
      Intl.DateTimeFormat('en', { timeZone: zone, timeZoneName: 'longOffset' })
        .formatToParts(new Date('2027-01-14T12:00:00Z'))
        .find(({ type }) => type === 'timeZoneName')
        ?.value.replace('GMT', '')
        .replace(':', '') || '+0000';
    const zones = Intl.supportedValuesOf('timeZone').filter((zone) => zone !== 'UTC');
    const written = zones.map((zone) => ({ zone, text: write([event({ date: '2027-01-14' })], zone) }));
    const misnamed = written.filter(({ text }) => {
      const used = new Set([...text.matchAll(/;TZID=([^:]+):/g)].map(([, name]) => name));
      const [defined, ...more] = [...text.matchAll(/\r\nTZID:(\S+)/g)].map(([, name]) => name ?? '');
      return used.size !== 1 || more.length > 0 || !used.has(defined) || old.has(defined ?? '');
    });
    expect(misnamed).toEqual([]);
    // Where a law changed its clocks lately, the data of the two disagree: five zones at the most.
    const otherwise = written.filter(({ zone, text }) => !text.includes(`TZOFFSETTO:${january(zone)}`));
    expect(otherwise.length).toBeLessThanOrEqual(5);
  });

  it('keeps words as they are, in lines of at most 75 bytes', () => {
    const title = `Pot, pan; and “Größe” \\ ${'long '.repeat(30)}end`;
    const text = write([event({ title })]);
    expect(events(text)[0]).toMatchObject({
      summary: title,
      location: 'Boatshed kitchen',
      description: event().description,
    });
    for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
  });

  it('keeps the uid, raises the sequence, and keeps what was cancelled', () => {
    const [found] = events(write([event({ sequence: 3, cancelled: true })]));
    expect(found).toMatchObject({ uid: 'session-1@logistra', status: 'CANCELLED' });
    expect(String(found?.sequence)).toBe('3');
  });

  it('holds what is to be done as tasks', () => {
    const task = {
      uid: 'job@logistra',
      sequence: 3,
      title: 'Shop',
      description: '',
      start: '2026-10-28T12:00:00Z',
      due: '2026-10-28T14:00:00Z',
      done: false,
    };
    const todos = readBack(
      write([], 'America/New_York', [task, { ...task, uid: 'moment@logistra', due: task.start, done: true }]),
    ).filter(({ type }) => type === 'VTODO');
    expect(todos.map(({ summary, status, sequence }) => [summary, status, Number(sequence)])).toEqual([
      ['Shop', 'NEEDS-ACTION', 3],
      ['Shop', 'COMPLETED', 3],
    ]);
    for (const { start, due } of todos as unknown as { start: Date; due: Date }[]) expect(due > start).toBe(true);
  });
});
