import { addDays, type CivilMinutes, civilOf, DAY } from '../plan/civil';
import type { Mode } from '../plan/mode';
import type { Job, Limit, WorkHours } from './network';
import type { Stage } from './stages';

/** Whose hours a job is done in: the shop's, the crew's, or nobody's (it runs by itself, or is done at any hour). */
export type Keeper = 'shop' | 'crew' | 'any';

/** What a job takes, in minutes: some in any case, more with each kit, dish or doorstep. */
export interface Effort {
  readonly fixed: number;
  readonly perKit?: number;
  readonly perDish?: number;
}

/** A job as most sessions have it. */
export interface JobTemplate {
  readonly key: string;
  readonly title: string;
  readonly stage: Stage;
  readonly after: readonly string[];
  readonly effort: Effort;
  readonly hours: Keeper;
  readonly modes: readonly Mode[];
  /** A small class has it from the start. */
  readonly few: boolean;
  /** Only where somebody asks for it. */
  readonly onRequest?: boolean;
  /** Only under open sky, and then always. */
  readonly outdoor?: boolean;
  /** Only where a dish is made before class, and then always. */
  readonly swapIn?: boolean;
  /** Done once for each group that the session is given to; the others are done once for all. */
  readonly perGroup?: boolean;
}

const ALL: readonly Mode[] = ['in person', 'take-home', 'live online', 'follow-later', 'demonstration'];
const WITH_KITS: readonly Mode[] = ['in person', 'take-home', 'live online', 'follow-later'];
const TAUGHT: readonly Mode[] = ['in person', 'live online', 'follow-later', 'demonstration'];

/** The usual jobs, in working order. Minutes are typical: a course changes them to what it takes there. */
export const JOBS: readonly JobTemplate[] = [
  {
    key: 'recipes',
    title: 'Settle the dishes',
    stage: 'recipes',
    after: [],
    effort: { fixed: 0, perDish: 30 },
    hours: 'any',
    modes: ALL,
    few: true,
  },
  {
    key: 'roll',
    title: 'Close the roll',
    stage: 'roll',
    after: [],
    effort: { fixed: 15 },
    hours: 'any',
    modes: ALL,
    few: true,
  },
  {
    key: 'kits',
    title: 'Lock the kit sheet',
    stage: 'kits',
    after: ['recipes', 'roll'],
    effort: { fixed: 15 },
    hours: 'any',
    modes: ALL,
    few: true,
  },
  {
    key: 'crew',
    title: 'Confirm the crew',
    stage: 'crew',
    after: [],
    effort: { fixed: 30 },
    hours: 'any',
    modes: ALL,
    few: false,
  },
  {
    key: 'buying',
    title: 'Shop',
    stage: 'buying',
    after: ['kits'],
    effort: { fixed: 60, perKit: 1 },
    hours: 'shop',
    modes: ALL,
    few: true,
  },
  {
    key: 'receive',
    title: 'Receive and store',
    stage: 'buying',
    after: ['buying'],
    effort: { fixed: 20 },
    hours: 'crew',
    modes: ALL,
    few: false,
  },
  {
    key: 'thaw',
    title: 'Ripen and thaw',
    stage: 'packing',
    after: ['buying', 'receive'],
    effort: { fixed: DAY },
    hours: 'any',
    modes: ALL,
    perGroup: true,
    few: false,
    onRequest: true,
  },
  {
    key: 'cook-ahead',
    title: 'Cook ahead, soak or marinate',
    stage: 'packing',
    after: ['buying', 'receive', 'thaw'],
    effort: { fixed: 90, perKit: 1 },
    hours: 'crew',
    modes: ALL,
    perGroup: true,
    few: false,
    onRequest: true,
  },
  {
    key: 'swap-in',
    title: 'Make the swap-ins, cool them within two hours, chill',
    stage: 'packing',
    after: ['buying', 'receive', 'thaw'],
    effort: { fixed: 90 },
    hours: 'crew',
    modes: TAUGHT,
    perGroup: true,
    few: true,
    swapIn: true,
  },
  {
    key: 'packing',
    title: 'Pack',
    stage: 'packing',
    after: ['buying', 'receive', 'thaw', 'cook-ahead'],
    effort: { fixed: 20, perKit: 3 },
    hours: 'crew',
    modes: WITH_KITS,
    perGroup: true,
    few: true,
  },
  {
    key: 'handout',
    title: 'Hand out the kits',
    stage: 'handout',
    after: ['packing'],
    effort: { fixed: 0 },
    hours: 'any',
    modes: ['take-home'],
    perGroup: true,
    few: true,
  },
  {
    key: 'deliver',
    title: 'Deliver to the doors',
    stage: 'handout',
    after: ['packing'],
    effort: { fixed: 15, perKit: 8 },
    hours: 'crew',
    modes: ['live online'],
    perGroup: true,
    few: true,
  },
  {
    key: 'send-later',
    title: 'Hand out after the lesson',
    stage: 'handout',
    after: ['packing', 'classday'],
    effort: { fixed: 30, perKit: 2 },
    hours: 'crew',
    modes: ['follow-later'],
    perGroup: true,
    few: true,
  },
  {
    key: 'set-up',
    title: 'Set up the room',
    stage: 'classday',
    after: ['packing', 'buying'],
    effort: { fixed: 30 },
    hours: 'any',
    modes: ['in person', 'demonstration'],
    perGroup: true,
    few: false,
  },
  {
    key: 'weather',
    title: 'Decide on the weather, tell everyone',
    stage: 'classday',
    after: [],
    effort: { fixed: 20 },
    hours: 'any',
    modes: TAUGHT,
    perGroup: true,
    few: true,
    outdoor: true,
  },
  {
    key: 'carry-in',
    title: 'Carry in fuel and water',
    stage: 'classday',
    after: ['weather'],
    effort: { fixed: 45 },
    hours: 'crew',
    modes: TAUGHT,
    perGroup: true,
    few: true,
    outdoor: true,
  },
  {
    key: 'fire',
    title: 'Light the fire, watch it',
    stage: 'classday',
    after: ['carry-in'],
    effort: { fixed: 60 },
    hours: 'any',
    modes: TAUGHT,
    perGroup: true,
    few: true,
    outdoor: true,
  },
  {
    key: 'reheat',
    title: 'Reheat the swap-ins through, once',
    stage: 'classday',
    after: ['swap-in', 'set-up'],
    effort: { fixed: 30 },
    hours: 'any',
    modes: TAUGHT,
    perGroup: true,
    few: true,
    swapIn: true,
  },
  {
    key: 'classday',
    title: 'Teach',
    stage: 'classday',
    after: ['set-up', 'deliver', 'fire', 'swap-in', 'reheat'],
    effort: { fixed: 0 },
    hours: 'any',
    modes: TAUGHT,
    perGroup: true,
    few: true,
  },
  {
    key: 'clean',
    title: 'Clean and put away',
    stage: 'closeout',
    after: ['classday', 'handout'],
    effort: { fixed: 30 },
    hours: 'any',
    modes: ALL,
    perGroup: true,
    few: false,
  },
  {
    key: 'closeout',
    title: 'Close out',
    stage: 'closeout',
    after: ['classday', 'clean', 'handout', 'send-later'],
    effort: { fixed: 20 },
    hours: 'any',
    modes: ALL,
    few: true,
  },
];

/** Up to so many participants a session starts with the few jobs that every class needs. */
export const SMALL_CLASS = 10;

/** What a course or a session changes about a job. */
export interface JobChange {
  /** Shown and counted, or not; left out: as the size of the class has it. */
  readonly on?: boolean;
  readonly fixed?: number;
  readonly perKit?: number;
}

export type JobChanges = Readonly<Record<string, JobChange>>;

/** A job that only this session has. */
export interface OneOffJob {
  readonly id: string;
  readonly title: string;
  readonly stage: Stage;
  readonly minutes: number;
  readonly hours: Keeper;
  /** The job that waits for it: a template's key. */
  readonly before: string;
}

/** A session as its jobs are counted from. */
export interface JobSession {
  readonly date: string;
  readonly startsAt: string;
  readonly minutes: number;
  /** Of the session and of its participants. */
  readonly modes: readonly Mode[];
  readonly participants: number;
  readonly kits: number;
  readonly dishes: number;
  /** Dishes of which a batch is finished before class. */
  readonly swapIns?: number;
  /** Days before the session that the roll closes. */
  readonly rollClosesDays: number;
  /** By when families cook what they get after the lesson; null for a week after it. */
  readonly cookBy: string | null;
  readonly course: JobChanges;
  readonly session: JobChanges;
  readonly oneOffs: readonly OneOffJob[];
  /** What a fire under open sky asks for; null under a roof. */
  readonly outdoor: OutdoorJobs | null;
  /** The other groups that it is given to, and what the first is called. Kits above are those of all. */
  readonly groups?: readonly JobGroup[];
  readonly groupName?: string;
}

/** A group beside the first, with when it meets. */
export interface JobGroup {
  readonly groupId: string;
  readonly groupName: string;
  readonly date: string;
  readonly startsAt: string;
  readonly kits: number;
  readonly outdoor: OutdoorJobs | null;
}

/** The fire and the weather of an outdoor session. */
export interface OutdoorJobs {
  readonly lightingMinutes: number;
  readonly decideHours: number;
}

/** A job of one session, before it is calculated. */
export interface SessionJob extends Job {
  readonly stage: Stage;
  /** Can be switched off for this session. */
  readonly optional: boolean;
  readonly oneOff: boolean;
}

/** Days that food keeps around a session: the usual caution, which a course may only make stricter. */
const KEEPS = { freshDays: 5, cookedHours: 48, packedHours: 24, homeHours: 48 };

/** Days before a session by which its crew is to be known, and after it by which it is closed out. */
const CREW_DAYS = 3;
const CLOSE_DAYS = 2;
/** Hours before an online class by which the kits are in the homes. */
const HOME_BEFORE = 2;

/** Whether a template's job belongs to a session, and whether it is switched on. */
export function jobChoices(session: JobSession): { template: JobTemplate; on: boolean }[] {
  const small = session.participants <= SMALL_CLASS;
  const isOutdoor = [session, ...(session.groups ?? [])].some(({ outdoor }) => outdoor !== null);
  const fits = ({ modes, outdoor, swapIn }: JobTemplate) =>
    modes.some((mode) => session.modes.includes(mode)) &&
    (!outdoor || isOutdoor) &&
    (!swapIn || (session.swapIns ?? 0) > 0);
  return JOBS.filter(fits).map((template) => {
    if (template.outdoor || template.swapIn) return { template, on: true };
    const asked = session.session[template.key]?.on ?? session.course[template.key]?.on;
    return { template, on: asked ?? (template.onRequest ? false : small ? template.few : true) };
  });
}

/** What a job takes in a session, in minutes. @param kits those it is done for; all of the session's when left out */
export function minutesOfJob(
  { key, effort }: Pick<JobTemplate, 'key' | 'effort'>,
  session: JobSession,
  kits = session.kits,
): number {
  const change = { ...session.course[key], ...session.session[key] };
  return (
    (change.fixed ?? effort.fixed) +
    (change.perKit ?? effort.perKit ?? 0) * kits +
    (effort.perDish ?? 0) * Math.max(1, session.dishes)
  );
}

/** The key of a job that is done for one group: the template's own for the first, "packing@group" for another. */
export const groupJobKey = (key: string, groupId: string): string => (groupId === '' ? key : `${key}@${groupId}`);

/** The template's key in the key of a group's job. */
export const templateKey = (key: string): string => key.split('@', 1)[0] as string;

const PER_GROUP: ReadonlySet<string> = new Set(JOBS.filter(({ perGroup }) => perGroup).map(({ key }) => key));

/**
 * The jobs of a session with their limits. Where it is given to several groups, what is done for each of them is there
 * once a group, counted back from when that group meets; shopping serves them all.
 *
 * @param hours the shop's and the crew's
 * @param done keys of the jobs that are done
 */
export function jobsOf(
  session: JobSession,
  hours: { readonly shop: WorkHours; readonly crew: WorkHours },
  done: ReadonlySet<string>,
): SessionJob[] {
  const keeper = { shop: hours.shop, crew: hours.crew, any: null };
  const sittings = sittingsOf(session);
  const frame = frameOf(session, sittings);
  const frames = new Map(sittings.map((sitting) => [sitting, frameOf(session, [sitting])]));
  const job = (template: JobTemplate, sitting?: JobSitting): SessionJob => {
    const { groupId = '', groupName = '' } = sitting ?? {};
    const key = groupJobKey(template.key, groupId);
    const after = template.after.flatMap((before) => {
      if (!PER_GROUP.has(before)) return [before];
      return sitting ? [groupJobKey(before, groupId)] : sittings.map((each) => groupJobKey(before, each.groupId));
    });
    return {
      key,
      title: sitting && sittings.length > 1 ? `${template.title}: ${groupName}` : template.title,
      stage: template.stage,
      after,
      minutes: minutesOfJob(template, session, sitting?.kits),
      hours: keeper[template.hours],
      done: done.has(key),
      optional: !template.few && !template.outdoor,
      oneOff: false,
      ...(sitting
        ? groupTimesOf(template.key, sitting, frames.get(sitting) ?? frame)
        : timesOf(template.key, session, frame)),
    };
  };
  const chosen = jobChoices(session).filter(({ on }) => on);
  const jobs = chosen.flatMap(({ template }) =>
    template.perGroup
      ? sittings.filter(({ outdoor }) => !template.outdoor || outdoor !== null).map((sitting) => job(template, sitting))
      : [job(template)],
  );
  for (const oneOff of session.oneOffs) {
    let waits = false;
    jobs.forEach((waiting, at) => {
      if (waiting.oneOff || templateKey(waiting.key) !== oneOff.before) return;
      jobs[at] = { ...waiting, after: [...waiting.after, oneOff.id] };
      waits = true;
    });
    jobs.push({
      key: oneOff.id,
      title: oneOff.title,
      stage: oneOff.stage,
      after: [],
      minutes: oneOff.minutes,
      hours: keeper[oneOff.hours],
      done: done.has(oneOff.id),
      optional: true,
      oneOff: true,
      ...(waits ? {} : { finishBy: { at: frame.start, why: 'the session starts' } }),
    });
  }
  return jobs;
}

/** The session's own sitting first, then those of the other groups. */
function sittingsOf(session: JobSession): JobSitting[] {
  const groups = session.groups ?? [];
  const others = groups.reduce((sum, { kits }) => sum + kits, 0);
  const { date, startsAt, minutes, outdoor, groupName = '' } = session;
  const own = { groupId: '', groupName, date, startsAt, kits: session.kits - others, outdoor };
  return [own, ...groups].map((sitting) => ({ ...sitting, minutes }));
}

type JobSitting = JobGroup & { readonly minutes: number };

/** What the limits of a session's jobs are counted from. */
interface Frame {
  /** When the first of its groups meets, and the last. */
  readonly start: CivilMinutes;
  readonly last: CivilMinutes;
  readonly isTaught: boolean;
  readonly cookBy: CivilMinutes;
  readonly online: boolean;
  /** Every kit follows the lesson. */
  readonly later: boolean;
}

function frameOf({ modes, cookBy, date }: JobSession, sittings: readonly JobSitting[]): Frame {
  const starts = sittings.map((sitting) => civilOf(sitting.date, sitting.startsAt));
  const start = Math.min(...starts);
  const last = Math.max(...starts);
  return {
    start,
    last,
    isTaught: modes.some((mode) => TAUGHT.includes(mode)),
    // A group that meets later cooks later.
    cookBy: civilOf(cookBy ?? addDays(date, 7), '18:00') + Math.floor(last / DAY - civilOf(date, '00:00') / DAY) * DAY,
    online: modes.includes('live online'),
    later: modes.every((mode) => mode === 'follow-later'),
  };
}

interface Times {
  readonly at?: CivilMinutes;
  readonly finishBy?: Limit;
  readonly notBefore?: Limit;
  readonly minutes?: number;
}

/** Fixed times and limits of a job that is done once for all groups. */
function timesOf(key: string, session: JobSession, { start, last, isTaught, cookBy, later }: Frame): Times {
  switch (key) {
    case 'recipes':
      return { finishBy: { at: start - 10 * DAY, why: 'dishes are settled ten days before' } };
    case 'roll':
      return {
        finishBy: {
          at: start - session.rollClosesDays * DAY,
          why: `the roll closes ${session.rollClosesDays} days before`,
        },
      };
    case 'crew':
      return { finishBy: { at: start - CREW_DAYS * DAY, why: `the crew is known ${CREW_DAYS} days before` } };
    case 'buying':
      return {
        notBefore: {
          at: later ? start : last - KEEPS.freshDays * DAY,
          why: `fresh food keeps about ${KEEPS.freshDays} days`,
        },
        ...(isTaught && !later ? { finishBy: { at: start, why: 'the class starts' } } : {}),
      };
    case 'closeout': {
      const end = session.modes.includes('follow-later') ? cookBy : last;
      return { finishBy: { at: end + CLOSE_DAYS * DAY, why: 'while it is fresh in mind' } };
    }
    default:
      return {};
  }
}

/** Fixed times and limits of a job that is done for one group. */
function groupTimesOf(key: string, sitting: JobSitting, { start, cookBy, online, later }: Frame): Times {
  switch (key) {
    case 'cook-ahead':
    case 'swap-in':
      return later
        ? {}
        : {
            notBefore: {
              at: start - KEEPS.cookedHours * 60,
              why: `what is cooked ahead keeps ${KEEPS.cookedHours} hours, cold`,
            },
          };
    case 'packing': {
      if (later) return { finishBy: { at: cookBy - DAY, why: 'families cook the day after they get it' } };
      if (online)
        return {
          notBefore: {
            at: start - KEEPS.homeHours * 60,
            why: `cold kits leave at most ${KEEPS.homeHours} hours before they are cooked`,
          },
          finishBy: { at: start, why: 'the class starts' },
        };
      return {
        notBefore: {
          at: start - KEEPS.packedHours * 60,
          why: `cold food is packed at most ${KEEPS.packedHours} hours ahead`,
        },
        finishBy: { at: start, why: 'the session starts' },
      };
    }
    case 'handout':
      return { at: start, minutes: sitting.minutes };
    case 'deliver':
      return {
        finishBy: { at: start - HOME_BEFORE * 60, why: `kits are in the homes ${HOME_BEFORE} hours before the class` },
      };
    case 'send-later':
      return { finishBy: { at: cookBy - DAY, why: 'families cook the day after they get it' } };
    case 'reheat':
      return { notBefore: { at: start - 120, why: 'what is reheated is kept hot, two hours at most' } };
    case 'set-up':
      return { notBefore: { at: start - 180, why: 'the room is set up on the day' } };
    case 'weather': {
      const hours = sitting.outdoor?.decideHours ?? 24;
      return { finishBy: { at: start - hours * 60, why: `the weather is decided on ${hours} hours before` } };
    }
    case 'fire': {
      const minutes = sitting.outdoor?.lightingMinutes ?? 60;
      return {
        notBefore: { at: start - minutes - 60, why: 'a fire is never left alone' },
        finishBy: { at: start, why: 'the class starts' },
        minutes,
      };
    }
    case 'classday':
      return { at: start, minutes: sitting.minutes };
    case 'clean':
      return { finishBy: { at: start + sitting.minutes + 120, why: 'the room is left clean' } };
    default:
      return {};
  }
}
