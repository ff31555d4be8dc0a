import { addDays, type CivilMinutes, civilOf, dayOf } from './civil';

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

/**
 * How many days after the session's own date a group meets.
 *
 * @example
 * daysAfter('2026-11-26', { date: '2026-11-28' }) //=> 2
 */
export const daysAfter = (sessionDate: string, { date }: Pick<Sitting, 'date'>): number =>
  dayOf(date) - dayOf(sessionDate);

/**
 * Sittings as they go along when their session moves from one date to another.
 *
 * @example
 * moveAlong([{ date: '2026-11-28' }], '2026-11-26', '2026-12-03') //=> [{ date: '2026-12-05' }]
 */
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

/**
 * The last civil day on which somebody eats of a session: its own, its last group's, or the day by which families cook. Until
 * the end of that day its kits can still be called back, its countdown goes on, and its families are still waiting.
 * `NOT_OVER` (store/sittings.ts) says the same to the database.
 *
 * @example lastDayOf({ date: '2026-11-26', cookBy: null, sittings: [{ date: '2026-11-30', status: 'planned' }] }) //=> '2026-11-30'
 */
export const lastDayOf = ({
  date,
  cookBy,
  sittings,
}: {
  readonly date: string;
  readonly cookBy: string | null;
  readonly sittings: readonly Pick<Sitting, 'date' | 'status'>[];
}): string =>
  [date, cookBy ?? date, ...sittings.flatMap((sitting) => (sitting.status === 'planned' ? [sitting.date] : []))]
    .sort()
    .at(-1) ?? date;

/**
 * When the last group of a session has met, in civil minutes: from then on it can be closed out. Families who cook later are asked
 * until the end of the day by which they do (`lastDayOf`).
 *
 * @example
 * lastMeetingEnds({ date: '2026-11-26', startsAt: '16:00', minutes: 90, sittings: [] }) === civilOf('2026-11-26', '17:30') //=> true
 */
export const lastMeetingEnds = ({
  date,
  startsAt,
  minutes,
  sittings,
}: {
  readonly date: string;
  readonly startsAt: string;
  readonly minutes: number;
  readonly sittings: readonly Pick<Sitting, 'date' | 'startsAt' | 'status'>[];
}): CivilMinutes =>
  Math.max(
    ...[{ date, startsAt }, ...sittings.filter(({ status }) => status === 'planned')].map(
      (meeting) => civilOf(meeting.date, meeting.startsAt) + minutes,
    ),
  );
