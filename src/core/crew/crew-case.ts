import { dayOf, type Weekday, weekdayOf } from '../plan/civil';
import type { DutyKind, PlannedDuty, Skill } from './duties';
import type { Duty, Free, Person, Place, RosterCase } from './roster-case';

/** When somebody usually has time, and days on which it is otherwise. Minutes of the day. */
export interface FreeTimes {
  readonly weekly: readonly { readonly weekday: Weekday; readonly from: number; readonly to: number }[];
  readonly exceptions: readonly {
    /** YYYY-MM-DD */
    readonly date: string;
    readonly from: number;
    readonly to: number;
    /** There on that day though not usually; or away though usually there. */
    readonly isFree: boolean;
  }[];
}

/** Somebody of the crew as a roster looks at them. */
export interface CrewMember {
  readonly id: string;
  readonly isAdult: boolean;
  /** The last day on which each holds; null for one that does not end. */
  readonly skills: Readonly<Partial<Record<Skill, string | null>>>;
  readonly free: FreeTimes;
  /** In the whole span of a roster. */
  readonly mostDuties?: number;
  readonly mostMinutes?: number;
  readonly noLifting?: boolean;
  /** Kinds of duties that they are glad of, and that they would rather not have. */
  readonly likes?: readonly DutyKind[];
  readonly ratherNot?: readonly DutyKind[];
  readonly apart?: readonly string[];
  /** Places that they go to; to any where it is left out. */
  readonly goesTo?: readonly string[];
  /** Off all duties until this day, the day included: with food, and with those who eat it. */
  readonly sickUntil?: string;
}

/** A duty with the id of its place in a plan, and the session it is of. */
export interface RosterDuty extends PlannedDuty {
  readonly id: string;
  readonly sessionId: string;
}

/** Held by nobody's paper: of age, and able to lift. */
const ADULT = 'adult';
const LIFTS = 'lifts';
const LIFTED: readonly DutyKind[] = ['shop', 'receive', 'set up'];
/** What it costs to give somebody what they would rather not do; and gains, to give them what they like. */
const RATHER_NOT = 3;
const LIKES = -1;
/** A place that somebody goes to, as a skill that they hold. */
const goes = (place: string) => `goes to ${place}`;
/** A skill that does not end ends on this day of a case. */
const ALWAYS = 5000;

/** Spans in which somebody is free on a day: what is usual and what is added, less what is taken away. */
export function freeOn({ weekly, exceptions }: FreeTimes, date: string): { from: number; to: number }[] {
  const own = exceptions.filter((each) => each.date === date);
  const there = [
    ...weekly.filter(({ weekday }) => weekday === weekdayOf(dayOf(date))),
    ...own.filter(({ isFree }) => isFree),
  ].sort((a, b) => a.from - b.from);
  const joined: { from: number; to: number }[] = [];
  for (const { from, to } of there) {
    const last = joined.at(-1);
    if (last && from <= last.to) last.to = Math.max(last.to, to);
    else joined.push({ from, to });
  }
  return own
    .filter(({ isFree }) => !isFree)
    .reduce(
      (spans, gone) =>
        spans.flatMap(({ from, to }) => [
          ...(from < Math.min(to, gone.from) ? [{ from, to: Math.min(to, gone.from) }] : []),
          ...(Math.max(from, gone.to) < to ? [{ from: Math.max(from, gone.to), to }] : []),
        ]),
      joined,
    );
}

/**
 * Duties and a crew as a case of whole numbers.
 *
 * @param from the first day of the span, YYYY-MM-DD: day 0 of the case
 */
export function crewCase(
  duties: readonly RosterDuty[],
  crew: readonly CrewMember[],
  now: readonly Place[],
  from: string,
  ways: RosterCase['travel'] = [],
): RosterCase {
  const first = dayOf(from);
  const dayIn = (date: string) => dayOf(date) - first;
  const dates = [...new Set(duties.map(({ date }) => date))].sort();
  // Asked for only where somebody does not go everywhere.
  const far = crew.some(({ goesTo }) => goesTo) ? [...new Set(duties.map(({ place }) => place))] : [];
  const isFar = (place: string) => far.includes(place);
  return {
    duties: duties.map(
      (duty): Duty => ({
        id: duty.id,
        day: dayIn(duty.date),
        from: duty.from,
        to: duty.to,
        place: duty.place,
        people: duty.people,
        weight: duty.weight,
        skills: [
          ...duty.skills,
          ...(duty.isAdult ? [ADULT] : []),
          ...(LIFTED.includes(duty.kind) ? [LIFTS] : []),
          ...(isFar(duty.place) ? [goes(duty.place)] : []),
        ],
      }),
    ),
    people: crew.map((member): Person => {
      const held = Object.entries(member.skills).map(
        ([skill, until]) => [skill, until === null ? ALWAYS : dayIn(until)] as const,
      );
      return {
        id: member.id,
        skills: Object.fromEntries([
          // What ended before the span began holds on none of its days.
          ...held.filter(([, until]) => until >= 0),
          ...(member.isAdult ? [[ADULT, ALWAYS] as const] : []),
          ...(member.noLifting ? [] : [[LIFTS, ALWAYS] as const]),
          ...(member.goesTo ?? far).map((place) => [goes(place), ALWAYS] as const),
        ]),
        free: dates
          .filter((date) => member.sickUntil === undefined || date > member.sickUntil)
          .flatMap((date) => freeOn(member.free, date).map((span): Free => [dayIn(date), span.from, span.to])),
        ...(member.mostDuties === undefined ? {} : { most_duties: member.mostDuties }),
        ...(member.mostMinutes === undefined ? {} : { most_minutes: member.mostMinutes }),
        wishes: duties.flatMap(({ id, kind }) => {
          if (member.ratherNot?.includes(kind)) return [{ duty: id, cost: RATHER_NOT }];
          return member.likes?.includes(kind) ? [{ duty: id, cost: LIKES }] : [];
        }),
        ...(member.apart ? { apart: member.apart } : {}),
      };
    }),
    travel: ways,
    now,
  };
}
