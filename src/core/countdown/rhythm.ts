import { type CivilMinutes, civilOf, DAY, minutesOf, type Weekday, weekdayOf } from '../plan/civil';
import type { RhythmRule } from '../stages/facts';

/** Jobs that programmes have habits about. */
export const RHYTHM_JOBS = ['recipes', 'roll', 'kits', 'buying', 'packing'] as const;

/** A job's room: it can begin no earlier, and must begin no later. */
interface Room {
  readonly earliestStart: CivilMinutes;
  readonly latestStart: CivilMinutes;
}

/**
 * When a job is begun by the programme's habit: the last such moment that is not too late. Where the habit falls before the job can
 * begin at all, as soon as it can.
 *
 * @param date of the session, YYYY-MM-DD
 * @example
 * // We shop on Saturdays at ten; the class is on a Thursday.
 * plannedStart({ weekday: 6, time: '10:00' }, '2026-11-26', room) //=> Saturday 21 Nov, 10:00, in civil minutes
 */
export function plannedStart(rule: RhythmRule, date: string, { earliestStart, latestStart }: Room): CivilMinutes {
  const planned = 'weekday' in rule ? lastWeekday(rule.weekday, rule.time, latestStart) : daysBefore(rule, date);
  return Math.max(Math.min(planned, latestStart), Math.min(earliestStart, latestStart));
}

const daysBefore = ({ daysBefore: days, time }: { daysBefore: number; time: string }, date: string): CivilMinutes =>
  civilOf(date, time) - days * DAY;

/** The last such weekday and time that is not after a moment. */
function lastWeekday(weekday: Weekday, time: string, until: CivilMinutes): CivilMinutes {
  const minutes = minutesOf(time);
  const day = Math.floor((until - minutes) / DAY);
  return (day - ((weekdayOf(day) - weekday + 7) % 7)) * DAY + minutes;
}
