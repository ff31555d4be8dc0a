import { addDays, dayOf } from './civil';

/**
 * When and where a group other than the first meets for a session: planned and bought for once, taught once more. The
 * first group of a course meets when and where the session itself says.
 */
export interface Sitting {
  readonly groupId: string;
  readonly groupName: string;
  readonly date: string;
  readonly startsAt: string;
  readonly place: string;
  readonly placeId: string | null;
  readonly instructorId: string | null;
  readonly status: 'planned' | 'cancelled';
}

/** Groups follow the first within so many days: what is bought once, a day before, must still be fresh for the last. */
export const MOST_DAYS_AFTER = 4;

/** How many days after the session's own date a group meets. */
export const daysAfter = (sessionDate: string, { date }: Pick<Sitting, 'date'>): number =>
  dayOf(date) - dayOf(sessionDate);

/** Sittings as they go along when their session moves from one date to another. */
export const moveAlong = <S extends Pick<Sitting, 'date'>>(sittings: readonly S[], from: string, to: string): S[] =>
  sittings.map((sitting) => ({ ...sitting, date: addDays(sitting.date, dayOf(to) - dayOf(from)) }));

/**
 * Which sitting a person comes to: '' for the session's own, which also takes whoever is in no group, or in one that
 * this session is not given to. Undefined when their group's sitting is cancelled: they do not come at all.
 */
export function sittingOf(
  groupId: string | null,
  sittings: readonly Pick<Sitting, 'groupId' | 'status'>[],
): string | undefined {
  const own = sittings.find((sitting) => sitting.groupId === groupId);
  if (!own) return '';
  return own.status === 'cancelled' ? undefined : own.groupId;
}
