import { groupJobKey } from '../countdown/jobs';
import type { AdultsNeeded } from './adults';
import { adultsOf, type DutyKind, type DutySession, dutiesOf, type PlannedDuty, type Skill, WEIGHTS } from './duties';

/** What somebody changed about a duty by hand, and why. */
export interface DutyChange {
  /** The duty's key; an id where it is one that only this session has. */
  readonly key: string;
  readonly isLeftOut: boolean;
  /** What is otherwise; an added duty says all of it. */
  readonly change: {
    readonly title?: string;
    /** YYYY-MM-DD */
    readonly date?: string;
    /** Minutes of the day. */
    readonly from?: number;
    readonly to?: number;
    readonly place?: string;
    readonly people?: number;
    readonly skills?: readonly Skill[];
    readonly isAdult?: boolean;
  };
  readonly reason: string;
}

/** A duty as it stands, with the reason where somebody changed it. */
export interface StandingDuty extends PlannedDuty {
  readonly changed?: string;
}

/** Duties in the room whose adults count as having an eye on the children. */
const IN_THE_ROOM: readonly DutyKind[] = ['lead', 'assistant', 'knives', 'heat', 'fire', 'raw meat'];

/** Whether an adult at a duty is there for the children, the whole class through. */
export const countsAsAdult = (
  { kind, isAdult, date, from, to }: PlannedDuty,
  session: Pick<DutySession, 'date' | 'startsAt' | 'minutes'>,
): boolean =>
  IN_THE_ROOM.includes(kind) &&
  isAdult &&
  date === session.date &&
  from <= session.startsAt &&
  to >= session.startsAt + session.minutes;

/**
 * The duties of a session with what was changed by hand. Leaving one out, or asking for fewer, does not make the table of adults
 * laxer: who is missing then is asked for as an assistant.
 */
export function standingDuties(session: DutySession, changes: readonly DutyChange[]): StandingDuty[] {
  const changeOf = new Map(changes.map((change) => [change.key, change]));
  const planned = dutiesOf(session);
  const keys = new Set(planned.map(({ key }) => key));
  const standing = planned.flatMap((duty): StandingDuty[] => {
    const own = changeOf.get(duty.key);
    if (!own) return [duty];
    return own.isLeftOut ? [] : [{ ...duty, ...own.change, changed: own.reason }];
  });
  for (const { key, isLeftOut, change, reason } of changes) {
    const { title, date, from, to, ...rest } = change;
    if (keys.has(key) || isLeftOut || title === undefined || date === undefined) continue;
    if (from === undefined || to === undefined) continue;
    standing.push({
      key,
      kind: 'other',
      title,
      date,
      from,
      to,
      place: session.place,
      people: 1,
      skills: [],
      weight: WEIGHTS.other,
      isAdult: false,
      because: [],
      ...rest,
      changed: reason,
    });
  }
  return withAllAdults(session, standing, adultsOf(session));
}

function withAllAdults(session: DutySession, duties: StandingDuty[], needed?: AdultsNeeded): StandingDuty[] {
  if (!needed || !duties.some(({ kind }) => IN_THE_ROOM.includes(kind))) return duties;
  const there = duties.reduce((sum, duty) => sum + (countsAsAdult(duty, session) ? duty.people : 0), 0);
  const missing = needed.adults - there;
  if (missing <= 0) return duties;
  const why = `${needed.adults} adults in all, whatever is left out by hand.`;
  const at = duties.findIndex((duty) => duty.kind === 'assistant' && countsAsAdult(duty, session));
  const assistant = duties[at];
  if (assistant)
    return duties.with(at, {
      ...assistant,
      people: assistant.people + missing,
      because: [...assistant.because, why],
    });
  const { date, startsAt, minutes, place, groupId, groupName } = session;
  const [own] = dutiesOf({ ...session, steps: [], hasRawMeat: false, isOutdoor: false, jobs: [] });
  return own
    ? [
        ...duties,
        {
          ...own,
          key: groupJobKey('assistant', groupId ?? ''),
          kind: 'assistant',
          title: groupName ? `Assist in class: ${groupName}` : 'Assist in class',
          date,
          from: startsAt,
          to: startsAt + minutes,
          place,
          people: missing,
          skills: own.skills.filter((skill) => skill !== 'lead'),
          weight: WEIGHTS.assistant,
          because: [...needed.because, why],
        },
      ]
    : duties;
}
