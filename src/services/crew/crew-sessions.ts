import { templateKey } from '@/core/countdown/jobs';
import { finishAfter } from '@/core/countdown/network';
import type { JobView } from '@/core/countdown/thread';
import type { AdultsNeeded } from '@/core/crew/adults';
import type { BriefStep } from '@/core/crew/briefing';
import { type CrewMember, crewCase } from '@/core/crew/crew-case';
import { HOLDS } from '@/core/crew/crew-standing';
import {
  adultsOf,
  JOB_OF,
  jobOfDuty,
  type PlannedJob,
  type Skill,
  sessionWithout,
  type Without,
} from '@/core/crew/duties';
import { holding } from '@/core/crew/fixed-places';
import type { StandingDuty } from '@/core/crew/hand-changes';
import { type Beginning, planTime } from '@/core/crew/plan-jobs';
import type { Place, RosterCase } from '@/core/crew/roster-case';
import { type CivilMinutes, civilOf, DAY, dateOf, minutesOf, timeOf } from '@/core/plan/civil';
import { civilIn } from '@/core/plan/clock';
import { JOBS } from '@/core/stages/stages';
import { travelOf } from '@/store/plan';
import { find } from '@/store/query';
import { loadSessionBundles, type SessionBundle, type SessionFilter } from '@/store/session-bundles';
import type { Db } from '@/store/store';
import type { CrewMemberRow, PromiseRow, ToldDuty } from '@/store/tables/crew';
import type { Context } from '../gate/gate';
import { dutiesOfMeetings, handChanges } from '../sheet/duty-sessions';
import type { Hours, loadProgramme } from '../sheet/load-programme';
import { sessionSheet } from '../sheet/session-sheet';
import { sessionThread } from '../sheet/session-thread';

/** A duty of a session as it stands now. */
export interface SessionDuty extends StandingDuty {
  readonly id: string;
  readonly sessionId: string;
  /** Nobody who could do it has time at any moment at which it may be done. */
  readonly nobodyCan?: string;
}

/** A session as its crew is planned. */
export interface CrewSession {
  readonly id: string;
  readonly title: string;
  readonly courseId: string;
  readonly date: string;
  readonly startsAt: string;
  readonly minutes: number;
  readonly place: string;
  readonly duties: readonly SessionDuty[];
  readonly rooms: readonly { readonly name: string; readonly adults: AdultsNeeded }[];
  readonly promises: readonly PromiseRow[];
  /** Of its dishes, those done in class. */
  readonly steps: readonly BriefStep[];
  /** Its duties in the room as they would be with other dishes. */
  readonly without: (what: Without) => readonly SessionDuty[];
  /** Why it cannot be held with the adults there are. */
  readonly below?: string;
}

/** A duty's id in a roster, of its session's and its key there; and these in it. */
export const dutyId = (sessionId: string, key: string): string => `${sessionId} ${key}`;
export const sessionOf = (id: string): string => id.slice(0, id.indexOf(' '));
export const keyIn = (id: string): string => id.slice(id.indexOf(' ') + 1);

/** People of the crew who are there, by name. */
export const crewNow = async (context: Context, db: Db): Promise<CrewMemberRow[]> =>
  find(db, db.models.crewMember, { programmeId: context.actor.programmeId, erasedAt: null }, [['name', 'ASC']]);

/** Somebody of the crew as a roster looks at them. */
export const memberFrom = ({ skills, limits, goesTo, ...row }: CrewMemberRow): CrewMember => ({
  id: row.id,
  isAdult: row.isAdult === 1,
  skills: Object.fromEntries(Object.entries(skills).map(([skill, { until }]) => [skill as Skill, until])),
  free: row.free,
  ...(limits.mostDuties === undefined ? {} : { mostDuties: limits.mostDuties }),
  ...(limits.mostHours === undefined ? {} : { mostMinutes: limits.mostHours * 60 }),
  ...(limits.noLifting ? { noLifting: true } : {}),
  likes: row.likes,
  ratherNot: row.ratherNot,
  apart: row.apart,
  ...(goesTo.length > 0 ? { goesTo } : {}),
  ...(row.sickUntil === null ? {} : { sickUntil: row.sickUntil }),
});

type Loaded = Awaited<ReturnType<typeof loadProgramme>>;

/** Sessions with what they need people for, and who is planned, asked and has promised. */
export async function crewSessions(
  context: Context,
  loaded: Loaded,
  filter: SessionFilter,
  crew: readonly CrewMemberRow[],
  db: Db = context.store.db,
): Promise<CrewSession[]> {
  const bundles = await loadSessionBundles(db, context.actor.programmeId, filter);
  const members = crew.map(memberFrom);
  return bundles.map((bundle) => crewSession(context, loaded, bundle, members));
}

function crewSession(
  context: Context,
  { programme, meanings, hours }: Loaded,
  bundle: SessionBundle,
  crew: readonly CrewMember[],
): CrewSession {
  const { id, title, courseTitle, courseId, date, startsAt, minutes, place } = bundle.session;
  const sheet = sessionSheet(bundle, programme, meanings);
  const thread = sessionThread(bundle, sheet, programme, hours, context.clock());
  const views = new Map(thread.jobs.map((job) => [job.key, job]));
  const jobs = thread.jobs.flatMap((job): (PlannedJob & { groupId: string })[] => {
    if (job.state === 'done' || job.state === 'not needed') return [];
    const at = civilIn(job.planned ?? job.startBy, programme.timeZone);
    const key = templateKey(job.key);
    return [
      {
        key,
        groupId: job.key.split('@')[1] ?? '',
        minutes: job.minutes,
        date: at.date,
        from: minutesOf(at.time),
      },
    ];
  });
  const meetings = sheet.meetings();
  const standing = dutiesOfMeetings(meetings, jobs, handChanges(bundle));
  const told = toldTimes(bundle.promises);
  const begins = new Map<string, CivilMinutes>();
  const timed = new Map<string, Partial<SessionDuty>>();
  /** When a job has to be over: as those begin that wait for it, whatever stands by itself between. */
  const before = (key: string): CivilMinutes =>
    Math.min(
      ...thread.jobs
        .filter((other) => waitsFor(other.key, key))
        .map((other) => begins.get(other.key) ?? before(other.key) - other.minutes),
    );
  // From the last job to the first: whoever receives is done before those who pack begin.
  const inOrder = [...standing].sort((a, b) => jobOrder(b.kind) - jobOrder(a.kind));
  for (const duty of inOrder) {
    const key = jobOfDuty(duty.key);
    const job = key === undefined ? undefined : views.get(key);
    if (!job || key === undefined) continue;
    const own = { ...duty, id: '', sessionId: id };
    const at =
      duty.changed === undefined
        ? timeOfJob(own, job, told.get(duty.key), before(key), hours, programme.timeZone, crew)
        : {};
    timed.set(duty.key, at);
    begins.set(key, civilOf(at.date ?? duty.date, timeOf(at.from ?? duty.from)));
  }
  const duties = standing.map(
    (duty): SessionDuty => ({ ...duty, id: dutyId(id, duty.key), sessionId: id, ...timed.get(duty.key) }),
  );
  return {
    id,
    title: `${courseTitle}: ${title}`,
    courseId,
    date,
    startsAt,
    minutes,
    place,
    duties,
    rooms: meetings.flatMap((meeting) => {
      const adults = adultsOf({ ...meeting, jobs: [] });
      return adults ? [{ name: meeting.groupName ?? '', adults }] : [];
    }),
    promises: bundle.promises,
    without: (what) =>
      dutiesOfMeetings(
        meetings.map((meeting) => sessionWithout(meeting, what)),
        [],
        handChanges(bundle),
      ).map((duty) => ({ ...duty, id: dutyId(id, duty.key), sessionId: id })),
    steps: (meetings[0]?.steps ?? []).map(({ text = '', heat, tools }) => ({ text, heat, tools })),
    ...(thread.below ? { below: thread.below } : {}),
  };
}

/** Where the job of a duty stands in the working order. */
const jobOrder = (kind: string): number => JOBS.findIndex(({ key }) => key === JOB_OF.get(kind));

/** Whether a job of the countdown begins after another is done. */
function waitsFor(job: string, other: string): boolean {
  const templates = [job, other].map((key) => JOBS.find((each) => each.key === templateKey(key)));
  const [own, before] = templates;
  if (!own?.after.includes(templateKey(other))) return false;
  return !own.perGroup || !before?.perGroup || job.split('@')[1] === other.split('@')[1];
}

/** When each duty was told to be, to somebody who was asked or has promised. */
const toldTimes = (promises: readonly PromiseRow[]): ReadonlyMap<string, ToldDuty> =>
  new Map(promises.flatMap(({ duty, state, told }) => (told && HOLDS.includes(state) ? [[duty, told] as const] : [])));

/** Moments between the earliest and the latest at which a job may begin are looked at this far apart. */
const STEP = 30;
/** Working hours that are further away than so many days are none. */
const MOST_DAYS_AWAY = 60;
/** Of a long time in which a job may be done, so many moments are looked at. */
const MOST_MOMENTS = 120;

/**
 * When a job is done: when it was told to people, as long as it may be done then; else when most of those it needs have time.
 *
 * @param before when the first job begins that waits for it
 */
function timeOfJob(
  duty: SessionDuty,
  job: JobView,
  told: ToldDuty | undefined,
  before: CivilMinutes,
  hours: Hours,
  timeZone: string,
  crew: readonly CrewMember[],
): Partial<SessionDuty> {
  const civil = (instant: string) => {
    const { date, time } = civilIn(instant, timeZone);
    return civilOf(date, time);
  };
  const length = duty.to - duty.from;
  const keeper = JOBS.find(({ key }) => key === templateKey(job.key))?.hours ?? 'any';
  const open = keeper === 'any' ? null : hours[keeper];
  const earliest = civil(job.earliest);
  // What is late is done as soon as it can be; where nobody ever works, it stays where it is.
  const soonest = finishAfter(open, earliest, length).start;
  const first = soonest - earliest < MOST_DAYS_AWAY * DAY ? soonest : earliest;
  const latest = Math.max(first, Math.min(civil(job.startBy), before - length));
  if (told) {
    const at = civilOf(told.date, timeOf(told.from));
    if (at >= earliest - DAY && at <= latest) return { date: told.date, from: told.from, to: told.from + length };
  }
  const step = Math.max(STEP, Math.ceil((latest - first) / MOST_MOMENTS / STEP) * STEP);
  const beginnings: Beginning[] = [];
  for (let at = Math.ceil(first / STEP) * STEP; at <= latest; at += step) {
    if (finishAfter(open, at, length).start !== at || (at % DAY) + length > DAY) continue;
    beginnings.push({ date: dateOf(Math.floor(at / DAY)), from: at % DAY });
  }
  // People are told whole fives: "at 14:55", not "at 14:56".
  const asUsual = Math.min(Math.max(civilOf(duty.date, timeOf(duty.from)), first), latest);
  const rounded = asUsual === first ? Math.ceil(asUsual / 5) * 5 : Math.floor(asUsual / 5) * 5;
  const usual = { date: dateOf(Math.floor(rounded / DAY)), from: rounded % DAY };
  if (!beginnings.some(({ date, from }) => date === usual.date && from === usual.from)) beginnings.push(usual);
  const best = planTime(duty, beginnings.sort(byTime), usual, crew);
  if (!best) return {};
  const at = best.free > 0 ? best : usual;
  return {
    date: at.date,
    from: at.from,
    to: at.from + length,
    ...(best.free > 0 || crew.length === 0
      ? {}
      : { nobodyCan: 'Nobody who may do it has time at any moment at which it can be done.' }),
  };
}

const byTime = (a: Beginning, b: Beginning) => (a.date < b.date ? -1 : a.date > b.date ? 1 : a.from - b.from);

/** What a duty is told as. */
export const toldOf = ({ title, date, from, to, place }: ToldDuty): ToldDuty => ({ title, date, from, to, place });

/** The case of a roster, with what stands by hand or by word. */
export interface CrewRoster {
  readonly given: RosterCase;
  /** Who holds places now, whatever their state. */
  readonly places: readonly Place[];
  /** Places that are held by hand or word, and break a rule all the same. */
  readonly letGo: readonly Place[];
}

const placeOf = ({ sessionId, duty, crewId }: PromiseRow): Place => ({ duty: dutyId(sessionId, duty), person: crewId });

/**
 * Sessions and a crew as a case of the solver.
 *
 * @param today the first day of the case, YYYY-MM-DD
 * @param keep what is only planned stands as well
 */
export async function rosterOf(
  context: Context,
  sessions: readonly CrewSession[],
  crew: readonly CrewMemberRow[],
  today: string,
  keep: (promise: PromiseRow) => boolean = () => false,
): Promise<CrewRoster> {
  const duties = sessions.flatMap((session) => session.duties).filter(({ date }) => date >= today);
  const ids = new Set(duties.map(({ id }) => id));
  const people = new Set(crew.map(({ id }) => id));
  const all = sessions
    .flatMap(({ promises }) => promises)
    .filter((each) => ids.has(dutyId(each.sessionId, each.duty)) && people.has(each.crewId));
  const held = all.filter(({ state }) => HOLDS.includes(state));
  const given = crewCase(duties, crew.map(memberFrom), held.map(placeOf), today, await waysBetween(context));
  const never = all.filter(({ state }) => state === 'declined' || state === 'ruled out').map(placeOf);
  const stands = held
    .filter((each) => each.state !== 'planned' || each.isPinned === 1 || keep(each))
    .sort((a, b) => rank(a) - rank(b));
  const fixed = holding({ ...given, never }, stands.map(placeOf));
  return { given: fixed.given, places: held.map(placeOf), letGo: fixed.letGo };
}

/** Who promised comes before who was asked, and these before a pin. */
const rank = ({ state }: PromiseRow) => ['accepted', 'asked', 'planned'].indexOf(state);

/** Ways between the places of the programme, by their names. */
async function waysBetween(context: Context): Promise<NonNullable<RosterCase['travel']>> {
  const { db } = context.store;
  const { programmeId } = context.actor;
  const [ways, places] = [await travelOf(db, programmeId), await find(db, db.models.place, { programmeId })];
  const nameOf = new Map(places.map(({ id, name }) => [id, name]));
  return ways.flatMap(({ fromId, toId, minutes }) => {
    const [from, to] = [nameOf.get(fromId), nameOf.get(toId)];
    return from && to ? [{ between: [from, to] as const, minutes }] : [];
  });
}
