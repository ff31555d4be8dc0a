import { dayOf, minutesOf, timeOf, type Weekday, weekdayName, weekdayOf } from './civil';

/** What a place is counted for. */
export const EQUIPMENT = {
  stations: 'stations',
  burners: 'burners',
  ovens: 'ovens',
  shelves: 'oven shelves',
  appliances: 'small appliances',
  sinks: 'sinks',
  fridgeLitres: 'litres of fridge',
  freezerLitres: 'litres of freezer',
  knives: 'knives',
  boards: 'boards',
  pans: 'pans and pots',
  blenders: 'blenders',
} as const;

/** The same of one only. */
const ONE: Readonly<Partial<Record<keyof typeof EQUIPMENT, string>>> = {
  shelves: 'oven shelf',
  fridgeLitres: 'litre of fridge',
  freezerLitres: 'litre of freezer',
  knives: 'knife',
  pans: 'pan or pot',
};

/**
 * "1 sink", "14 knives"
 *
 * @example
 * sayEquipment('sinks', 1) //=> '1 sink'
 * sayEquipment('knives', 14) //=> '14 knives'
 */
export const sayEquipment = (kind: EquipmentKind, count: number): string =>
  `${count} ${count === 1 ? (ONE[kind] ?? EQUIPMENT[kind].slice(0, -1)) : EQUIPMENT[kind]}`;

export type EquipmentKind = keyof typeof EQUIPMENT;
export const EQUIPMENT_KINDS = Object.keys(EQUIPMENT) as EquipmentKind[];

/** How many of each; what is left out was not counted. */
export type EquipmentCounts = Partial<Readonly<Record<EquipmentKind, number>>>;

/** Hours on some days of the week. */
export interface OpenHours {
  readonly weekdays: readonly Weekday[];
  /** HH:MM; `to` may be 24:00. */
  readonly from: string;
  readonly to: string;
}

/** A place under open sky, over a fire: what has to be brought and decided. */
export interface Outdoor {
  readonly fuel: string;
  /** Litres to carry in, for drinking, washing and putting out. */
  readonly waterLitres: number;
  /** The fire is lit this long before the class. */
  readonly lightingMinutes: number;
  /** Where the class goes in bad weather. */
  readonly fallbackPlaceId: string | null;
  /** By when that is decided: hours before the class. */
  readonly decideHours: number;
}

/** A room, kitchen, hall or fire pit. */
export interface Place {
  readonly id: string;
  readonly name: string;
  /** Null when nobody counted. */
  readonly seats: number | null;
  /** Empty when it is always open. */
  readonly hours: readonly OpenHours[];
  readonly equipment: EquipmentCounts;
  /** Needed before and after each class for setting up and clearing. */
  readonly minutesBefore: number;
  readonly minutesAfter: number;
  /** Several classes may be in it at once, as long as seats and equipment last. */
  readonly shared: boolean;
  readonly outdoor: Outdoor | null;
}

/** The hours of a day, earliest first; null when a place is always open. */
export function hoursOn(place: Pick<Place, 'hours'>, weekday: Weekday): { from: number; to: number }[] | null {
  if (place.hours.length === 0) return null;
  return place.hours
    .filter(({ weekdays }) => weekdays.includes(weekday))
    .map(({ from, to }) => ({ from: minutesOf(from), to: minutesOf(to) }))
    .sort((a, b) => a.from - b.from);
}

/** Why a class cannot be here at that hour, or undefined. @param from and to: minutes of the day, setting up included */
export function outsideHours(place: Place, date: string, from: number, to: number): string | undefined {
  const weekday = weekdayOf(dayOf(date));
  const hours = hoursOn(place, weekday);
  if (hours === null || hours.some((open) => open.from <= from && to <= open.to)) return undefined;
  const open = hours.map((each) => `${timeOf(each.from)} to ${timeOf(each.to)}`).join(' and ');
  return open
    ? `${place.name} is open ${open} on ${weekdayName(weekday)}s`
    : `${place.name} is closed on ${weekdayName(weekday)}s`;
}

/**
 * Hours as they are kept: days of the same hours together, in the order in which they come; null is a day without.
 *
 * @example
 * sameHoursTogether([{ weekdays: [1], from: '09:00', to: '17:00' }, null, { weekdays: [3], from: '09:00', to: '17:00' }])
 * //=> [{ weekdays: [1, 3], from: '09:00', to: '17:00' }]
 */
export function sameHoursTogether(days: readonly (OpenHours | null)[]): OpenHours[] {
  const together = new Map<string, OpenHours>();
  for (const day of days) {
    if (!day) continue;
    const key = `${day.from} ${day.to}`;
    const weekdays = [...(together.get(key)?.weekdays ?? []), ...day.weekdays];
    together.set(key, { ...day, weekdays: [...new Set(weekdays)] });
  }
  return [...together.values()];
}

/**
 * "Mon to Fri 09:00 to 18:00; Sat 10:00 to 14:00"
 *
 * @example
 * sayHours([{ weekdays: [1, 2, 3, 4, 5], from: '09:00', to: '18:00' }]) //=> 'Mon to Fri 09:00 to 18:00'
 */
export function sayHours(hours: readonly OpenHours[]): string {
  if (hours.length === 0) return 'always open';
  return hours.map(({ weekdays, from, to }) => `${sayWeekdays(weekdays)} ${from} to ${to}`).join('; ');
}

function sayWeekdays(weekdays: readonly Weekday[]): string {
  const sorted = [...weekdays].sort();
  const [first, last] = [sorted[0] ?? 1, sorted.at(-1) ?? 1];
  const short = (weekday: Weekday) => weekdayName(weekday).slice(0, 3);
  if (sorted.length > 2 && last - first === sorted.length - 1) return `${short(first)} to ${short(last)}`;
  return sorted.map(short).join(', ');
}
