import ICAL from 'ical.js';
import { tzlib_get_ical_block } from 'timezones-ical-library';
import { civilOf, splitCivil } from '@/core/plan/civil';

// The writer counts a line without the space that folding adds: 75 bytes with it (RFC 5545, 3.1).
ICAL.foldLength = 74;

/** Something that a calendar shows. */
export interface CalendarEvent {
  /** Never changes, however often the event does. */
  readonly uid: string;
  /** Raised with each change (RFC 5545, 3.8.7.4). */
  readonly sequence: number;
  readonly title: string;
  readonly description: string;
  readonly place: string;
  /** Civil, in the feed's time zone. */
  readonly date: string;
  readonly startsAt: string;
  readonly minutes: number;
  readonly cancelled: boolean;
}

/** Something that is to be done, in the same calendar. */
export interface CalendarTask {
  readonly uid: string;
  /** Raised with each change, as an event's. */
  readonly sequence: number;
  readonly title: string;
  readonly description: string;
  /** Instants, ISO. */
  readonly start: string;
  readonly due: string;
  readonly done: boolean;
}

/** A calendar as a whole. */
export interface OutgoingCalendar {
  readonly name: string;
  readonly timeZone: string;
  readonly events: readonly CalendarEvent[];
  readonly tasks: readonly CalendarTask[];
  /** When it was made, an ISO instant. */
  readonly stamp: string;
}

/**
 * Writes a calendar (RFC 5545) with its time zone, so that any program shows the hours of the place, also across a
 * clock change.
 */
export function writeCalendar({ name, timeZone: zoneName, events, tasks, stamp }: OutgoingCalendar): string {
  const timeZone = CALLED_TODAY[zoneName] ?? zoneName;
  const calendar = new ICAL.Component('vcalendar');
  calendar.addPropertyWithValue('version', '2.0');
  calendar.addPropertyWithValue('prodid', '-//Logistra//Sessions//EN');
  calendar.addPropertyWithValue('calscale', 'GREGORIAN');
  calendar.addPropertyWithValue('method', 'PUBLISH');
  calendar.addPropertyWithValue('x-wr-calname', name);
  calendar.addPropertyWithValue('x-wr-timezone', timeZone);
  // How often a subscriber looks again (RFC 7986, 5.7).
  const interval = new ICAL.Property('refresh-interval');
  interval.setParameter('value', 'DURATION');
  interval.resetType('duration');
  interval.setValue(ICAL.Duration.fromString('PT1H') as never);
  calendar.addProperty(interval);
  const zone = zoneComponent(timeZone);
  if (zone) calendar.addSubcomponent(zone);
  const made = utc(stamp);
  for (const event of events) calendar.addSubcomponent(eventComponent(event, timeZone, zone !== undefined, made));
  for (const task of tasks) calendar.addSubcomponent(taskComponent(task, made));
  return `${calendar.toString()}\r\n`;
}

/** Names that the zone database has given up (its file "backward"), as browsers still say them, and what they are called today. */
const CALLED_TODAY: Readonly<Record<string, string>> = {
  'Africa/Asmera': 'Africa/Asmara',
  'America/Buenos_Aires': 'America/Argentina/Buenos_Aires',
  'America/Catamarca': 'America/Argentina/Catamarca',
  'America/Coral_Harbour': 'America/Atikokan',
  'America/Cordoba': 'America/Argentina/Cordoba',
  'America/Godthab': 'America/Nuuk',
  'America/Indianapolis': 'America/Indiana/Indianapolis',
  'America/Jujuy': 'America/Argentina/Jujuy',
  'America/Louisville': 'America/Kentucky/Louisville',
  'America/Mendoza': 'America/Argentina/Mendoza',
  'Asia/Calcutta': 'Asia/Kolkata',
  'Asia/Katmandu': 'Asia/Kathmandu',
  'Asia/Rangoon': 'Asia/Yangon',
  'Asia/Saigon': 'Asia/Ho_Chi_Minh',
  'Atlantic/Faeroe': 'Atlantic/Faroe',
  'Europe/Kiev': 'Europe/Kyiv',
  'Pacific/Enderbury': 'Pacific/Kanton',
  'Pacific/Ponape': 'Pacific/Pohnpei',
  'Pacific/Truk': 'Pacific/Chuuk',
};

/** The zone's rules under the very name that events carry; undefined for UTC and for zones that have none, whose times are written in UTC. */
function zoneComponent(timeZone: string): ICAL.Component | undefined {
  const [block] = tzlib_get_ical_block(timeZone);
  if (!block || timeZone === 'UTC') return undefined;
  const zone = new ICAL.Component(ICAL.parse(block));
  const found = zone.name === 'vtimezone' ? zone : zone.getFirstSubcomponent('vtimezone');
  // Zones that keep the same clock share their rules: they are written under the name of the one that is asked for.
  found?.updatePropertyWithValue('tzid', timeZone);
  return found ?? undefined;
}

function eventComponent(event: CalendarEvent, timeZone: string, named: boolean, stamp: ICAL.Time): ICAL.Component {
  const component = new ICAL.Component('vevent');
  const start = civilOf(event.date, event.startsAt);
  component.addPropertyWithValue('uid', event.uid);
  component.addPropertyWithValue('dtstamp', stamp as never);
  component.addPropertyWithValue('sequence', event.sequence);
  component.addProperty(civilProperty('dtstart', start, timeZone, named));
  component.addProperty(civilProperty('dtend', start + event.minutes, timeZone, named));
  component.addPropertyWithValue('summary', event.title);
  if (event.description) component.addPropertyWithValue('description', event.description);
  if (event.place) component.addPropertyWithValue('location', event.place);
  component.addPropertyWithValue('status', event.cancelled ? 'CANCELLED' : 'CONFIRMED');
  return component;
}

function taskComponent(task: CalendarTask, stamp: ICAL.Time): ICAL.Component {
  const component = new ICAL.Component('vtodo');
  component.addPropertyWithValue('uid', task.uid);
  component.addPropertyWithValue('dtstamp', stamp as never);
  component.addPropertyWithValue('sequence', task.sequence);
  component.addPropertyWithValue('dtstart', utc(task.start) as never);
  // A task without any length would be due before it starts.
  component.addPropertyWithValue('due', utc(task.due <= task.start ? plusMinute(task.start) : task.due) as never);
  component.addPropertyWithValue('summary', task.title);
  if (task.description) component.addPropertyWithValue('description', task.description);
  component.addPropertyWithValue('status', task.done ? 'COMPLETED' : 'NEEDS-ACTION');
  return component;
}

const plusMinute = (instant: string) => new Date(Date.parse(instant) + 60_000).toISOString();

function civilProperty(name: string, civil: number, timeZone: string, named: boolean): ICAL.Property {
  const { date, time } = splitCivil(civil);
  const property = new ICAL.Property(name);
  property.setValue(ICAL.Time.fromDateTimeString(`${date}T${time}:00${named ? '' : 'Z'}`) as never);
  if (named) property.setParameter('tzid', timeZone);
  return property;
}

const utc = (instant: string) => ICAL.Time.fromDateTimeString(`${new Date(instant).toISOString().slice(0, 19)}Z`);
