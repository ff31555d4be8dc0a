import { sayDay } from '../plan/civil';
import type { PlannedDuty } from './duties';

/** What of somebody decides whether they may do a duty, whatever their time and wishes. */
export interface Held {
  readonly isAdult: boolean;
  /** The last day of each skill and check, YYYY-MM-DD; null for one that does not end. */
  readonly skills: Readonly<Partial<Record<string, string | null>>>;
  /** Off all duties until this day, the day included. */
  readonly sickUntil?: string | null;
}

/**
 * Why somebody may not do a duty on its day; undefined where they may.
 *
 * @example
 * whyNot({ isAdult: true, skills: { driving: '2026-11-24' } }, { date: '2026-11-26', skills: ['driving'], isAdult: true })
 * //=> 'driving ends on Tue 24 Nov'
 */
export function whyNot(
  { isAdult, skills, sickUntil }: Held,
  duty: Pick<PlannedDuty, 'date' | 'skills' | 'isAdult'>,
): string | undefined {
  if (duty.isAdult && !isAdult) return 'it is for adults';
  if (sickUntil && duty.date <= sickUntil) return `sick until ${sayDay(sickUntil)}`;
  for (const skill of duty.skills) {
    const until = skills[skill];
    if (until === undefined) return `lacks ${skill}`;
    if (until !== null && until < duty.date) return `${skill} ends on ${sayDay(until)}`;
  }
  return undefined;
}
