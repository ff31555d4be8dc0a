import type { RosterDuty } from './crew-case';
import { type CrewMember, crewCase } from './crew-case';
import { suits } from './roster-case';

/** When a job may begin: civil dates with minutes of the day, earliest first. */
export interface Beginning {
  /** YYYY-MM-DD */
  readonly date: string;
  readonly from: number;
}

/** A duty's time, and whether people enough have time then. */
export interface PlannedTime extends Beginning {
  /** How many could do it then. */
  readonly free: number;
}

/**
 * When a job is done: of all times at which it may begin, the one at which most of the people it needs are free and may do it; of
 * those alike, the one nearest to when it is usually done.
 *
 * @param duty for its length, skills and place; its own time is not looked at
 * @param usual as in `may`; where nobody can at any time, it stays there
 * @returns undefined where it may begin at no time
 */
export function planTime(
  duty: RosterDuty,
  may: readonly Beginning[],
  usual: Beginning,
  crew: readonly CrewMember[],
): PlannedTime | undefined {
  const minutes = duty.to - duty.from;
  const [first] = may;
  if (!first) return undefined;
  const options = may.map(
    (at, index): RosterDuty => ({ ...duty, id: String(index), date: at.date, from: at.from, to: at.from + minutes }),
  );
  const given = crewCase(options, crew, [], first.date);
  const distance = ({ date, from }: Beginning) =>
    Math.abs((Date.parse(date) - Date.parse(usual.date)) / 60_000 + from - usual.from);
  return may
    .map((at, index): PlannedTime => {
      const option = given.duties?.[index];
      return { ...at, free: (given.people ?? []).filter((person) => option && suits(person, option)).length };
    })
    .sort((a, b) => Math.min(b.free, duty.people) - Math.min(a.free, duty.people) || distance(a) - distance(b))[0];
}
