import ICAL from 'ical.js';
import type { Closure } from '@/core/plan/cadence';
import { addDays, civilOf, DAY, splitCivil } from '@/core/plan/civil';
import { clockOf } from '@/core/plan/clock';
import { decodeText } from './text';

/** What an .ics file says, as days and hours on the programme's wall clock. */
export interface CalendarFile {
  /** Its own name, X-WR-CALNAME, or ''. */
  readonly name: string;
  readonly closures: readonly Omit<Closure, 'calendar' | 'placeId'>[];
  /** What could not be used, each with its place and a remedy; the rest is offered. */
  readonly problems: readonly { readonly where: string; readonly message: string }[];
  /** True when a rule without an end was followed only this far. */
  readonly cutAt: string | undefined;
}

/** Occurrences of one event, and of a file: an endless rule must not fill the calendar. */
const MOST_OF_EVENT = 800;
const MOST = 5000;

interface Line {
  readonly number: number;
  readonly text: string;
}

/**
 * Reads a calendar file (RFC 5545): all-day and timed events, recurring ones with exceptions and moved instances, time
 * zones, folded lines. A bad line or event is named, and the rest is read.
 *
 * @param window occurrences before and after are left out, YYYY-MM-DD
 * @param timeZone the programme's: floating times are read in it, others are turned into it
 */
export function readCalendar(
  bytes: Uint8Array,
  window: { readonly from: string; readonly to: string },
  timeZone: string,
): CalendarFile {
  const problems: { where: string; message: string }[] = [];
  const { text } = decodeText(bytes);
  if (!/^\s*BEGIN:VCALENDAR/i.test(text)) {
    const message =
      'This is not a calendar file. It begins with BEGIN:VCALENDAR; export the calendar as .ics and choose that file.';
    return { name: '', closures: [], problems: [{ where: 'file', message }], cutAt: undefined };
  }
  const lines = goodLines(unfold(text), problems);
  const { events, zones, name } = split(lines, problems);
  const closures: Omit<Closure, 'calendar' | 'placeId'>[] = [];
  let isCut = false;
  for (const group of groupByUid(parseEvents(events, zones, problems))) {
    const { found, cut } = occurrences(group, window, timeZone, problems);
    isCut ||= cut;
    closures.push(...found);
    if (closures.length > MOST) {
      isCut = true;
      break;
    }
  }
  closures.sort((a, b) => (a.from + a.title < b.from + b.title ? -1 : 1));
  return { name, closures: closures.slice(0, MOST), problems, cutAt: isCut ? window.to : undefined };
}

/** Long lines are folded: what begins with a space or a tab goes on with the line before. */
function unfold(text: string): Line[] {
  const lines: { number: number; text: string }[] = [];
  text.split(/\r\n|\n|\r/).forEach((raw, index) => {
    const last = lines.at(-1);
    if (/^[ \t]/.test(raw) && last) last.text += raw.slice(1);
    else if (raw.trim() !== '') lines.push({ number: index + 1, text: raw });
  });
  return lines;
}

function goodLines(lines: readonly Line[], problems: { where: string; message: string }[]): Line[] {
  return lines.filter(({ number, text }) => {
    if (/^[A-Za-z0-9-]+(;[^:"]*(?:"[^"]*"[^:"]*)*)?:/.test(text)) return true;
    problems.push({
      where: `line ${number}`,
      message: `“${text.slice(0, 60)}” is not a line of a calendar. It was passed over.`,
    });
    return false;
  });
}

interface Part {
  readonly first: number;
  readonly lines: string[];
}

/** The file's events and time zones, each as lines of its own, so that a broken one breaks no other. */
function split(
  lines: readonly Line[],
  problems: { where: string; message: string }[],
): { events: Part[]; zones: string[]; name: string } {
  const events: Part[] = [];
  const zones: string[] = [];
  let name = '';
  let part: Part | undefined;
  let kind = '';
  for (const { number, text } of lines) {
    const begin = /^BEGIN:(VEVENT|VTIMEZONE)\s*$/i.exec(text)?.[1]?.toUpperCase();
    if (begin && part && kind === 'VEVENT')
      problems.push({
        where: `line ${part.first}`,
        message: 'This event has no end (END:VEVENT is missing). It was passed over.',
      });
    if (begin) {
      part = { first: number, lines: [] };
      kind = begin;
    }
    if (!part) {
      const named = /^X-WR-CALNAME[^:]*:(.*)$/i.exec(text)?.[1];
      if (named) name = named.replace(/\\([,;\\])/g, '$1').trim();
      continue;
    }
    part.lines.push(text);
    if (new RegExp(`^END:${kind}\\s*$`, 'i').test(text)) {
      if (kind === 'VEVENT') events.push(part);
      else zones.push(part.lines.join('\r\n'));
      part = undefined;
    }
  }
  if (part && kind === 'VEVENT')
    problems.push({
      where: `line ${part.first}`,
      message: 'The file ends in the middle of this event. It was passed over.',
    });
  return { events, zones, name };
}

interface Parsed {
  readonly first: number;
  readonly component: ICAL.Component;
}

function parseEvents(
  events: readonly Part[],
  zones: readonly string[],
  problems: { where: string; message: string }[],
): Parsed[] {
  return events.flatMap(({ first, lines }) => {
    const whole = [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//Logistra//EN',
      ...zones,
      ...lines,
      'END:VCALENDAR',
    ].join('\r\n');
    try {
      const component = new ICAL.Component(ICAL.parse(whole)).getFirstSubcomponent('vevent');
      if (!component?.getFirstPropertyValue('dtstart')) throw new Error('no start');
      return [{ first, component }];
    } catch {
      problems.push({
        where: `line ${first}`,
        message: `The event “${titleIn(lines)}” cannot be read: its start or its rule is missing or broken. It was passed over.`,
      });
      return [];
    }
  });
}

const titleIn = (lines: readonly string[]) =>
  lines.map((line) => /^SUMMARY[^:]*:(.*)$/i.exec(line)?.[1]).find(Boolean) ?? 'without a title';

/** An event with the instances of it that were moved or cancelled. */
function groupByUid(parsed: readonly Parsed[]): { main: Parsed | undefined; exceptions: Parsed[] }[] {
  const groups = new Map<string, { main: Parsed | undefined; exceptions: Parsed[] }>();
  parsed.forEach((each, index) => {
    const uid = String(each.component.getFirstPropertyValue('uid') ?? `without ${index}`);
    const group = groups.get(uid) ?? { main: undefined, exceptions: [] };
    if (each.component.hasProperty('recurrence-id')) group.exceptions.push(each);
    // The same event sent again replaces what it said before.
    else group.main = each;
    groups.set(uid, group);
  });
  return [...groups.values()];
}

type Found = Omit<Closure, 'calendar' | 'placeId'>;

function occurrences(
  { main, exceptions }: { main: Parsed | undefined; exceptions: Parsed[] },
  window: { readonly from: string; readonly to: string },
  timeZone: string,
  problems: { where: string; message: string }[],
): { found: Found[]; cut: boolean } {
  const found: Found[] = [];
  let cut = false;
  const take = (event: ICAL.Event, start: ICAL.Time, end: ICAL.Time, first: number) => {
    const status = String(event.component.getFirstPropertyValue('status') ?? '').toUpperCase();
    if (status === 'CANCELLED') return;
    try {
      const span = spanOf(start, end, timeZone, zoneNameOf(event.component));
      if (span.to < window.from || span.from > window.to) return;
      found.push({ title: (event.summary ?? '').trim().slice(0, 190), ...span });
    } catch (error) {
      const message = error instanceof RangeError ? error.message : 'Its times cannot be read.';
      problems.push({ where: `line ${first}`, message });
    }
  };
  const known = new Set(problems.map(({ message }) => message));
  for (const each of main ? [main] : exceptions) {
    const event = new ICAL.Event(
      each.component,
      main ? { exceptions: exceptions.map(({ component }) => component) as never } : {},
    );
    const unknownZone = zoneTrouble(each.component, timeZone);
    if (unknownZone && !known.has(unknownZone)) problems.push({ where: `line ${each.first}`, message: unknownZone });
    try {
      if (!event.isRecurring()) {
        take(event, event.startDate, event.endDate, each.first);
        continue;
      }
      // The start is the first occurrence, also where only single further days are given (RFC 5545, 3.8.5.2).
      if (!event.component.hasProperty('rrule')) take(event, event.startDate, event.endDate, each.first);
      const iterator = event.iterator();
      for (let n = 0, next = iterator.next(); next; next = iterator.next(), n++) {
        if (next.toString().slice(0, 10) > window.to) {
          cut ||= !/UNTIL|COUNT/.test(String(each.component.getFirstPropertyValue('rrule') ?? ''));
          break;
        }
        if (n >= MOST_OF_EVENT * 20 || found.length >= MOST_OF_EVENT) {
          cut = true;
          break;
        }
        if (!isRealDay(next, event)) continue;
        const details = event.getOccurrenceDetails(next);
        take(details.item, details.startDate, details.endDate, each.first);
      }
    } catch {
      problems.push({
        where: `line ${each.first}`,
        message: `The rule by which “${event.summary ?? 'an event'}” repeats cannot be followed. It was passed over.`,
      });
    }
  }
  return { found, cut };
}

/**
 * Whether an occurrence is one: what repeats by month or year on a day that a month does not have leaves that month out
 * (RFC 5545, 3.3.10); the parser would slide it into the next.
 */
function isRealDay(at: ICAL.Time, event: ICAL.Event): boolean {
  const rule = event.component.getFirstPropertyValue('rrule') as ICAL.Recur | null;
  if (!rule || !/^(MONTHLY|YEARLY)$/.test(rule.freq) || Object.keys(rule.parts).length > 0) return true;
  return at.day === event.startDate.day || event.component.hasProperty('rdate');
}

/** What is wrong with the zone of an event: neither in the file nor known by name. */
function zoneTrouble(component: ICAL.Component, timeZone: string): string | undefined {
  const tzid = zoneNameOf(component);
  if (!tzid) return undefined;
  const start = component.getFirstPropertyValue('dtstart') as ICAL.Time;
  if (start.zone && start.zone !== ICAL.Timezone.localTimezone && start.zone.tzid === tzid && start.zone.component)
    return undefined;
  try {
    clockOf(tzid);
    return undefined;
  } catch {
    return `There is no time zone “${tzid}”. Its times were read as ${timeZone}: check them.`;
  }
}

/** An occurrence on the programme's wall clock. The end of a whole day is the day after (RFC 5545, 3.6.1). */
function spanOf(start: ICAL.Time, end: ICAL.Time, timeZone: string, named: string | undefined): Omit<Found, 'title'> {
  if (start.isDate) {
    const from = dateText(start);
    const to = addDays(dateText(end), -1);
    // An event that ends where it begins is that day.
    return to < from ? { from, to: from } : { from, to };
  }
  const from = civilIn(start, timeZone, named);
  const to = Math.max(civilIn(end, timeZone, named), from);
  const begin = splitCivil(from);
  const close = splitCivil(to);
  // From midnight to midnight it is whole days, however it was written.
  if (begin.time === '00:00' && close.time === '00:00' && to > from)
    return { from: begin.date, to: splitCivil(to - DAY).date };
  if (close.date > begin.date)
    return { from: begin.date, to: close.time === '00:00' ? addDays(close.date, -1) : close.date };
  return { from: begin.date, to: begin.date, hours: { from: begin.time, to: close.time } };
}

const two = (value: number) => String(value).padStart(2, '0');
const dateText = (time: ICAL.Time) => `${String(time.year).padStart(4, '0')}-${two(time.month)}-${two(time.day)}`;

/** The zone that an event's start names; its other occurrences and its end are in it too. */
function zoneNameOf(component: ICAL.Component): string | undefined {
  const tzid = component.getFirstProperty('dtstart')?.getParameter('tzid');
  return typeof tzid === 'string' ? tzid : undefined;
}

/** A time of the file in civil minutes of the programme. */
function civilIn(time: ICAL.Time, timeZone: string, named: string | undefined): number {
  const civil = civilOf(dateText(time), `${two(time.hour)}:${two(time.minute)}`);
  const tzid = time.zone?.tzid;
  if (time.zone === ICAL.Timezone.utcTimezone || tzid === 'UTC') return clockOf(timeZone).toCivil(civil);
  // A zone that the file describes itself.
  if (time.zone?.component) return clockOf(timeZone).toCivil(Math.floor(time.toUnixTime() / 60));
  if (named && named !== timeZone) {
    try {
      return clockOf(timeZone).toCivil(clockOf(named).toInstant(civil));
    } catch {
      // Not a zone there is: told once, and read as the programme's.
    }
  }
  return civil;
}
