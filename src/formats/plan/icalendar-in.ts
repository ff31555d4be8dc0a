import ICAL from 'ical.js';
import type { Closure } from '@/core/plan/cadence';
import { addDays, civilOf, DAY, dateOf, dayOf, splitCivil } from '@/core/plan/civil';
import { clockOf } from '@/core/plan/clock';
import { type Budget, daysOfRule, MOST_WORK, RuleError, readDayRule } from '@/core/plan/recurrence';
import { decodeText } from '../text';

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
  const budget = { left: MOST_WORK };
  let isCut = false;
  for (const group of groupByUid(parseEvents(events, zones, problems))) {
    const { found, cut } = occurrences(group, window, timeZone, problems, budget);
    isCut ||= cut;
    closures.push(...found);
    if (closures.length > MOST) {
      problems.push({
        where: 'file',
        message: `There are more than ${MOST} closures in it. What is beyond is not offered: export fewer years, or fewer calendars at once.`,
      });
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
): { events: Part[]; zones: Part[]; name: string } {
  const events: Part[] = [];
  const zones: Part[] = [];
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
      const wrong = kind === 'VEVENT' ? impossibleIn(part.lines) : undefined;
      if (wrong)
        problems.push({
          where: `line ${part.first}`,
          message: `The event “${titleIn(part.lines)}” names ${wrong}, which there is not. It was passed over: correct it in the calendar it comes from.`,
        });
      else if (kind === 'VEVENT') events.push(part);
      else zones.push(part);
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

/** What of an event's own dates there cannot be: 30 February, month 13, an hour of 25. Readers would take them for another day. */
function impossibleIn(lines: readonly string[]): string | undefined {
  for (const line of lines) {
    const values = /^(?:DTSTART|DTEND|RECURRENCE-ID|EXDATE)(?:;[^:]*)?:(.*)$/i.exec(line)?.[1]?.split(',') ?? [];
    for (const value of values) {
      const [, year = '', month = '', day = '', hour = '00', minute = '00', second = '00'] =
        /^\s*(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})?Z?)?\s*$/.exec(value) ?? [];
      if (year === '') continue;
      const date = `${year}-${month}-${day}`;
      const isDay = !Number.isNaN(Date.parse(date)) && dateOf(dayOf(date)) === date;
      if (!isDay) return `the day ${date}`;
      // A leap second is a second.
      if (Number(hour) > 23 || Number(minute) > 59 || Number(second) > 60) return `the time ${hour}:${minute}`;
    }
  }
  return undefined;
}

interface Parsed {
  readonly first: number;
  readonly component: ICAL.Component;
  readonly repeats: Repeats;
}

/** Each event in a calendar of its own, with the one zone that it names: a broken one breaks no other. */
function parseEvents(
  events: readonly Part[],
  zones: readonly Part[],
  problems: { where: string; message: string }[],
): Parsed[] {
  const zoneOf = new Map<string, string>();
  for (const { lines } of zones) {
    const name = lines.map((line) => /^TZID[^:]*:(.*)$/i.exec(line)?.[1]?.trim()).find(Boolean);
    if (name) zoneOf.set(name, lines.join('\r\n'));
  }
  return events.flatMap(({ first, lines }) => {
    const named = new Set(lines.flatMap((line) => /;TZID="?([^":;]+)"?/i.exec(line)?.[1] ?? []));
    const whole = [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//Logistra//EN',
      ...[...named].flatMap((name) => zoneOf.get(name) ?? []),
      ...lines.filter((line) => !/^(EXDATE|RDATE|RRULE|EXRULE)\b/i.test(line)),
      'END:VCALENDAR',
    ].join('\r\n');
    try {
      const component = new ICAL.Component(ICAL.parse(whole)).getFirstSubcomponent('vevent');
      if (!component?.getFirstPropertyValue('dtstart')) throw new Error('no start');
      return [{ first, component, repeats: repeatsOf(lines) }];
    } catch {
      problems.push({
        where: `line ${first}`,
        message: `The event “${titleIn(lines)}” cannot be read: its start or its rule is missing or broken. It was passed over.`,
      });
      return [];
    }
  });
}

/** By what an event repeats, as its lines say it. */
interface Repeats {
  readonly rules: readonly string[];
  /** Single further days, and days that fall out: each as it is written, YYYYMMDD or YYYYMMDDTHHMMSS with or without Z. */
  readonly further: readonly string[];
  readonly without: ReadonlySet<string>;
}

function repeatsOf(lines: readonly string[]): Repeats {
  const valuesOf = (name: string) =>
    lines.flatMap((line) => new RegExp(`^${name}(?:;[^:]*)?:(.*)$`, 'i').exec(line)?.[1]?.split(',') ?? []);
  return {
    rules: lines.flatMap((line) => /^RRULE(?:;[^:]*)?:(.*)$/i.exec(line)?.[1] ?? []),
    further: valuesOf('RDATE').map((value) => value.trim().split('/')[0] ?? ''),
    without: new Set(valuesOf('EXDATE').map((value) => value.trim())),
  };
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

interface Window {
  readonly from: string;
  readonly to: string;
}

function occurrences(
  { main, exceptions }: { main: Parsed | undefined; exceptions: Parsed[] },
  window: Window,
  timeZone: string,
  problems: { where: string; message: string }[],
  budget: Budget,
): { found: Found[]; cut: boolean } {
  const found: Found[] = [];
  const known = new Set(problems.map(({ message }) => message));
  const tell = (first: number, message: string) => {
    if (!known.has(message)) problems.push({ where: `line ${first}`, message });
    known.add(message);
  };
  const take = ({ component, first }: Parsed, start: ICAL.Time, end: ICAL.Time) => {
    if (String(component.getFirstPropertyValue('status') ?? '').toUpperCase() === 'CANCELLED') return;
    try {
      const span = spanOf(start, end, timeZone, zoneNameOf(component));
      if (span.to < window.from || span.from > window.to) return;
      const title = String(component.getFirstPropertyValue('summary') ?? '').trim();
      if (span.hours && span.hours.from === span.hours.to) {
        tell(first, `“${title || 'An event'}” has no length: it closes nothing, and was passed over.`);
        return;
      }
      found.push({ title: title.slice(0, 190), ...span });
    } catch (error) {
      problems.push({
        where: `line ${first}`,
        message: error instanceof RangeError ? error.message : 'Its times cannot be read.',
      });
    }
  };
  for (const each of main ? [main, ...exceptions] : exceptions) {
    const unknownZone = zoneTrouble(each.component, timeZone);
    if (unknownZone) tell(each.first, unknownZone);
  }
  // An instance that was moved or changed stands for itself, in the place of the one it names.
  for (const each of exceptions) {
    const { startDate, endDate } = new ICAL.Event(each.component);
    take(each, startDate, endDate);
    if (each.component.getFirstProperty('recurrence-id')?.getParameter('range'))
      tell(
        each.first,
        'This event changes all later ones as well. Only the one it names was changed: check the others.',
      );
  }
  if (!main) return { found, cut: false };
  const event = new ICAL.Event(main.component);
  const { startDate } = event;
  const { rules, further } = main.repeats;
  const replaced = new Set(
    exceptions.flatMap(({ component }) => {
      const named = component.getFirstPropertyValue('recurrence-id') as ICAL.Time;
      return [stamp(named), named.toUnixTime()];
    }),
  );
  const length = event.duration;
  const at = (start: ICAL.Time) => {
    if (replaced.has(stamp(start)) || replaced.has(start.toUnixTime()) || isWithout(main.repeats.without, start))
      return;
    const end = start.clone();
    end.addDuration(length);
    take(main, start, end);
  };
  if (rules.length === 0 || further.length > 0) at(startDate);
  let cut = false;
  try {
    for (const rule of rules) {
      const { days, isEndless } = daysOfEvent(rule, startDate, window, length, budget);
      cut ||= isEndless || days.length >= MOST_OF_EVENT;
      for (const day of days) at(onDay(startDate, day));
    }
  } catch (error) {
    if (!(error instanceof RuleError)) throw error;
    problems.push({
      where: `line ${main.first}`,
      message: `The rule by which “${event.summary ?? 'an event'}” repeats cannot be followed: ${error.message}. It was passed over.`,
    });
  }
  for (const day of further.slice(0, MOST_OF_EVENT)) {
    const start = furtherStart(day, startDate);
    if (start) at(start);
    else tell(main.first, `A further day of “${event.summary ?? 'an event'}”, ${day.slice(0, 20)}, cannot be read.`);
  }
  return { found, cut };
}

/** Days since 1970-01-01 on which an event's rule has it begin, within the window and what lies before it by its length. */
function daysOfEvent(text: string, start: ICAL.Time, window: Window, length: ICAL.Duration, budget: Budget) {
  const rule = readDayRule(text);
  const before = Math.ceil(length.toSeconds() / 86_400) + 1;
  const span = { from: dayOf(window.from) - before, to: dayOf(window.to) + 1 };
  const days = daysOfRule(rule, dayOf(dateText(start)), span, MOST_OF_EVENT, budget);
  return { days, isEndless: rule.count === undefined && rule.until === undefined };
}

/** The same time on another day. */
function onDay(start: ICAL.Time, day: number): ICAL.Time {
  const date = dateOf(day);
  const time = start.clone();
  time.year = Number(date.slice(0, 4));
  time.month = Number(date.slice(5, 7));
  time.day = Number(date.slice(8, 10));
  return time;
}

/** A day given by itself, at its own time or the event's; undefined when it is none. */
function furtherStart(text: string, start: ICAL.Time): ICAL.Time | undefined {
  const [, year, month, day, hour, minute] = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})\d{2}Z?)?$/.exec(text) ?? [];
  if (!year || Number.isNaN(Date.parse(`${year}-${month}-${day}`))) return undefined;
  const time = onDay(start, dayOf(`${year}-${month}-${day}`));
  if (hour !== undefined && !start.isDate) {
    time.hour = Number(hour);
    time.minute = Number(minute);
  }
  return time;
}

/** A moment as a file writes it, without its zone. */
const stamp = (time: ICAL.Time) =>
  `${dateText(time).replaceAll('-', '')}${time.isDate ? '' : `T${two(time.hour)}${two(time.minute)}${two(time.second)}`}`;

/** Whether an occurrence falls out: named by its very moment, by its day, or in UTC. */
function isWithout(without: ReadonlySet<string>, start: ICAL.Time): boolean {
  if (without.size === 0) return false;
  const local = stamp(start);
  if (without.has(local) || without.has(`${local}Z`) || without.has(local.slice(0, 8))) return true;
  const utc = start.isDate
    ? undefined
    : `${new Date(start.toUnixTime() * 1000).toISOString().replace(/[-:]|\.\d+/g, '')}`;
  return utc !== undefined && without.has(utc);
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
