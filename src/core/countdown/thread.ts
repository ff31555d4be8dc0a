import { Temporal } from 'temporal-polyfill';
import { addDays, type CivilMinutes, civilOf, DAY, dayOf, sayCivil, sayDay } from '../plan/civil';
import { clockOf } from '../plan/clock';
import type { SessionFacts } from '../stages/facts';
import { plural, type Stage, type Standing } from '../stages/stage';
import { JOBS, STAGES, type StageKey, stageOf } from '../stages/stages';
import { groupJobKey, jobsOf, type SessionJob, templateKey } from './jobs';
import { calculate, type Network, sayMinutes, type Timing, whyTooLate } from './network';
import { plannedStart } from './rhythm';

/** A knot's state: told apart by shape and word. */
export type KnotState = 'due later' | 'can start' | 'doing' | 'done' | 'late' | 'cannot be met' | 'not needed';

/** A stage of one session with the latest time it must be done. */
export interface Knot {
  readonly stage: StageKey;
  readonly title: string;
  /** Latest moment, an ISO instant. */
  readonly latest: string;
  /** By when what is left of it must be started, an ISO instant. */
  readonly startBy: string;
  /** When what is left of it begins by the programme's habit; left out where it has none. */
  readonly planned?: string;
  readonly state: KnotState;
  /** One sentence: where the stage stands and why. */
  readonly why: string;
  /** Something of it can be done now: nothing that it waits for is open. */
  readonly ready: boolean;
}

/** A job of one session, calculated. Moments are ISO instants. */
export interface JobView {
  readonly key: string;
  readonly title: string;
  readonly stage: StageKey;
  readonly state: KnotState;
  readonly minutes: number;
  readonly earliest: string;
  readonly startBy: string;
  /** When it begins: as people were asked for it, else by the programme's habit; left out where neither says. */
  readonly planned?: string;
  readonly latest: string;
  /** Minutes that it can be put off. */
  readonly slack: number;
  /** What it waits for is done, and it is not too early. */
  readonly ready: boolean;
  /** True for the jobs that decide whether the session is ready in time. */
  readonly decides: boolean;
  /** What sets its earliest and its latest time, in words. */
  readonly why: string;
  readonly optional: boolean;
  readonly oneOff: boolean;
}

/** The thread of a session: its knots, its jobs, and whether it can still be done. */
export interface Thread {
  readonly knots: readonly Knot[];
  readonly jobs: readonly JobView[];
  /** Why it can no longer be done in time. */
  readonly tooLate: string | undefined;
}

/**
 * The moment a session starts.
 *
 * @example
 * startOf({ date: '2026-11-26', startsAt: '16:00', timeZone: 'America/New_York' }).toString() //=> '2026-11-26T21:00:00Z'
 */
export function startOf(facts: Pick<SessionFacts, 'date' | 'startsAt' | 'timeZone'>): Temporal.Instant {
  return Temporal.Instant.fromEpochMilliseconds(
    clockOf(facts.timeZone).toInstant(civilOf(facts.date, facts.startsAt)) * 60_000,
  );
}

/** Jobs that are over when kits stand packed, by their template's key; the crew's too, where nobody was planned for it. */
const BEFORE_PACKING: ReadonlySet<string> = (() => {
  const before = new Set<string>(['crew']);
  const add = (key: string) => {
    for (const each of JOBS.find((job) => job.key === key)?.after ?? [])
      if (!before.has(each)) {
        before.add(each);
        add(each);
      }
  };
  add('packing');
  return before;
})();

/** The jobs of a session, calculated from what is done and what time it is. @param now civil minutes */
function networkOf(facts: SessionFacts, now: CivilMinutes): Network<SessionJob> {
  const done = new Set(facts.marked);
  const all = ['', ...(facts.groups ?? []).map(({ groupId }) => groupId)];
  for (const stage of STAGES) {
    const groups = standingOf(stage, facts).state === 'done' ? all : (stage.doneGroups?.(facts) ?? []);
    for (const groupId of groups) done.add(groupJobKey(stage.key, groupId));
  }
  // What stands packed was bought, received and made ready, whoever ticked it.
  if (facts.kits > 0 && all.every((groupId) => done.has(groupJobKey('packing', groupId))))
    for (const key of BEFORE_PACKING)
      if (key !== 'crew' || !facts.crewPlaces) for (const groupId of all) done.add(groupJobKey(key, groupId));
  // What somebody is at goes on in whoever's hours, and has so much less to go.
  const jobs = jobsOf(facts, facts, done).map((own) => {
    const job = own.byTheClock ? goneOn(own, now) : own;
    const left = facts.begun?.get(job.key);
    return left === undefined ? job : { ...job, hours: null, minutes: Math.ceil(job.minutes * left) };
  });
  return calculate(jobs, now);
}

/** A class by the clock: under way from its time on, and over when its minutes are. */
function goneOn({ at, ...job }: SessionJob, now: CivilMinutes): SessionJob {
  if (at === undefined || at > now || job.done) return at === undefined ? job : { ...job, at };
  const ends = at + job.minutes;
  if (now >= ends) return { ...job, at, done: true };
  return { ...job, hours: null, minutes: ends - now, finishBy: { at: ends, why: 'it ends' }, isUnderWay: true };
}

/**
 * The thread of a session: jobs counted back from what they serve and forward from now, and the knots that hold them.
 *
 * @param now the present instant
 */
export function threadOf(facts: SessionFacts, now: Temporal.Instant): Thread {
  const clock = clockOf(facts.timeZone);
  const civil = clock.toCivil(Math.floor(now.epochMilliseconds / 60_000));
  const network = networkOf(facts, civil);
  const iso = (at: CivilMinutes) => `${new Date(clock.toInstant(at) * 60_000).toISOString().slice(0, 19)}Z`;
  const decides = new Set(network.chain);
  const titles = () =>
    new Map(network.jobs.map(({ key, title }) => [key, `${title[0]?.toLowerCase()}${title.slice(1)}`]));
  const jobs = network.jobs.map((job): JobView => {
    const timing = network.timings.get(job.key) as Timing;
    const habit = job.done ? undefined : facts.rhythm?.[templateKey(job.key)];
    const told = job.done ? undefined : facts.plannedAt?.[job.key];
    const planned = told ?? (habit && clamp(plannedStart(habit, facts.date, timing), civil));
    return {
      key: job.key,
      title: job.title,
      stage: job.stage,
      state: jobState(job, timing, network, facts, civil),
      minutes: job.minutes,
      earliest: iso(clamp(timing.earliestStart, civil)),
      startBy: iso(clamp(timing.latestStart, civil)),
      ...(planned === undefined ? {} : { planned: iso(planned) }),
      latest: iso(clamp(timing.latestFinish, civil)),
      slack: timing.slack,
      ready: isReady(job, network, civil),
      decides: decides.has(job.key),
      // Said only where it is asked for: two hundred sessions have thousands of jobs.
      get why() {
        return whyOf(job, timing, titles());
      },
      optional: job.optional,
      oneOff: job.oneOff,
    };
  });
  return { knots: STAGES.map((stage) => knotOf(stage, facts, jobs, iso)), jobs, tooLate: whyTooLate(network) };
}

/** Where nobody ever works, a moment far off would be no date: it is shown as a year away. */
const clamp = (at: CivilMinutes, now: CivilMinutes) => Math.min(Math.max(at, now - 366 * DAY), now + 800 * DAY);

function whyOf(job: SessionJob, timing: Timing, titles: ReadonlyMap<string, string>): string {
  if (job.isUnderWay) return 'Under way.';
  if (job.at !== undefined) return 'At its fixed time.';
  const before = titles.get(timing.latestBecause);
  const latest = before ? `before ${before}` : timing.latestBecause;
  const short = timing.slack < 0 && !job.done ? ` Short by ${sayMinutes(-timing.slack)}.` : '';
  const earliest = job.notBefore ? `; not before ${sayCivil(job.notBefore.at)}: ${job.notBefore.why}` : '';
  return `${latest ? latest[0]?.toUpperCase() + latest.slice(1) : 'No latest time'}${earliest}.${short}`;
}

function jobState(
  job: SessionJob,
  timing: Timing,
  network: Network<SessionJob>,
  facts: SessionFacts,
  now: CivilMinutes,
): KnotState {
  if (job.done) return 'done';
  const begun =
    job.isUnderWay ||
    facts.begun?.has(job.key) ||
    (templateKey(job.key) === job.stage && standingOf(stageOf(job.stage), facts).state === 'doing');
  // What still lies ahead is not late: there is not enough time for it.
  if (timing.slack < 0 || now > timing.latestFinish) return now > timing.latestStart ? 'late' : 'cannot be met';
  if (begun) return 'doing';
  return isReady(job, network, now) ? 'can start' : 'due later';
}

function isReady(job: SessionJob, network: Network<SessionJob>, now: CivilMinutes): boolean {
  const waits = job.after.some((key) => network.jobs.some((before) => before.key === key && !before.done));
  const earliest = Math.max(job.at ?? Number.NEGATIVE_INFINITY, job.notBefore?.at ?? Number.NEGATIVE_INFINITY);
  return !job.done && !job.isUnderWay && !waits && earliest <= now;
}

function knotOf(
  stage: Stage<StageKey>,
  facts: SessionFacts,
  jobs: readonly JobView[],
  iso: (at: CivilMinutes) => string,
): Knot {
  const { key, title } = stage;
  const standing = standingOf(stage, facts);
  if (stage.latest) {
    const latest = iso(stage.latest(facts));
    return { stage: key, title, latest, startBy: latest, ...standing, ready: false };
  }
  const own = jobs.filter((job) => job.stage === key);
  const open = own.filter((job) => job.state !== 'done');
  const main = own.find((job) => job.key === key) ?? open[0] ?? own.at(-1);
  if (!main) {
    const start = iso(civilOf(facts.date, facts.startsAt));
    return {
      stage: key,
      title,
      latest: start,
      startBy: start,
      state: 'not needed',
      why: 'This session does without it.',
      ready: false,
    };
  }
  const startBy = open.map((job) => job.startBy).sort()[0] ?? main.startBy;
  const planned = open.flatMap((job) => job.planned ?? []).sort()[0];
  const times = {
    ...(planned === undefined ? {} : { planned }),
    latest: stage.countsTo === 'start' ? main.startBy : main.latest,
    startBy,
  };
  const first = open[0];
  if (!first) return { stage: key, title, ...times, state: 'done', why: standing.why || 'Done.', ready: false };
  const late = open.find((job) => job.state === 'late') ?? open.find((job) => job.state === 'cannot be met');
  const state: KnotState = late
    ? late.state
    : own.length > open.length || open.some((job) => job.state === 'doing') || standing.state === 'doing'
      ? 'doing'
      : open.some((job) => job.state === 'can start') && standing.state !== 'due later'
        ? 'can start'
        : 'due later';
  const next = late ?? first;
  const why = standing.why && next.key === key ? standing.why : `${next.title}: ${next.why}`;
  return { stage: key, title, ...times, state, why, ready: open.some(({ ready }) => ready) };
}

/** Where a stage stands by what is saved; one whose work is not in the program can be begun at any time. */
const standingOf = ({ standing }: Stage<StageKey>, facts: SessionFacts): Standing =>
  standing?.(facts) ?? { state: 'can start', why: '' };

/** Days that a session may be moved to be saved. */
const MOST_DAYS_LATER = 28;

/**
 * What would save a session that can no longer be done in time, each tried by calculating it again. Nothing when it can
 * be done, or when nothing helps.
 */
export function saversOf(facts: SessionFacts, now: Temporal.Instant): string[] {
  const civil = clockOf(facts.timeZone).toCivil(Math.floor(now.epochMilliseconds / 60_000));
  const saves = (changed: SessionFacts) => (networkOf(changed, civil).slack ?? 0) >= 0;
  const network = networkOf(facts, civil);
  if (network.slack === null || network.slack >= 0) return [];
  const ways = waysOut(facts, network);
  const savers = ways.filter((way) => saves(way.change(facts))).map(({ say }) => say);
  if (savers.length === 0) {
    const pairs = ways.flatMap((one, at) => ways.slice(at + 1).map((other) => ({ one, other })));
    for (const { one, other } of pairs)
      if (saves(other.change({ ...facts, ...one.change(facts) })))
        savers.push(`${one.say}, and ${other.say[0]?.toLowerCase()}${other.say.slice(1)}`);
  }
  for (let days = 1; days <= MOST_DAYS_LATER; days++) {
    const date = addDays(facts.date, days);
    const groups = (facts.groups ?? []).map((group) => ({ ...group, date: addDays(group.date, days) }));
    // On a day on which nothing takes place nobody is helped.
    if (facts.crew.closedDays.has(dayOf(date))) continue;
    if (!saves({ ...facts, date, groups, cookBy: facts.cookBy && addDays(facts.cookBy, days) })) continue;
    savers.push(`Move it to ${sayDay(date)}, ${facts.startsAt}, ${plural(days, 'day')} later`);
    break;
  }
  return savers;
}

interface WayOut {
  readonly say: string;
  readonly change: (facts: SessionFacts) => SessionFacts;
}

/** What could be done otherwise about the jobs that are late. */
function waysOut(facts: SessionFacts, network: Network<SessionJob>): WayOut[] {
  const late = network.jobs.filter(({ key, done }) => !done && (network.timings.get(key) as Timing).slack < 0);
  const withJob = (key: string, change: object) => (before: SessionFacts) => ({
    ...before,
    session: { ...before.session, [key]: { ...before.session[key], ...change } },
  });
  const isLate = (key: string) => late.filter((job) => templateKey(job.key) === key);
  const ways: WayOut[] = JOBS.filter(({ key, onRequest }) => onRequest && isLate(key).length > 0)
    // What is thawed, ripened or cooked ahead can be bought ready; receiving, cleaning and the like cannot.
    .map(({ key, title }) => ({
      say: `Leave out “${title}”: buy it ready for use`,
      change: withJob(key, { on: false }),
    }));
  const minutes = Math.max(0, ...isLate('packing').map((job) => job.minutes));
  if (minutes > 0) {
    const half = Math.ceil(minutes / 2);
    ways.push({
      say: `Twice as many hands at packing: ${sayMinutes(half)} instead of ${sayMinutes(minutes)}`,
      change: withJob('packing', { fixed: half, perKit: 0 }),
    });
  }
  for (const keeper of ['crew', 'shop'] as const) {
    if (!late.some(({ hours }) => hours === facts[keeper])) continue;
    const whole = [{ from: 0, to: DAY }];
    ways.push({
      say:
        keeper === 'crew'
          ? 'Let the crew work outside its usual hours'
          : 'Shop where it is open outside the usual hours',
      change: (before) => ({
        ...before,
        [keeper]: {
          ...before[keeper],
          windows: before[keeper].windows.map(() => whole),
          closedDays: new Set<number>(),
          longest: DAY,
        },
      }),
    });
  }
  return ways;
}

/** Something that matters now: a knot of one session, and how long is left. */
export interface DoNext<Session> {
  readonly session: Session;
  readonly knot: Knot;
}

/** When something is begun: by habit, else at the latest. */
export const beginsAt = ({ planned, startBy }: Pick<Knot, 'planned' | 'startBy'>): string => planned ?? startBy;

/** Stages worth doing now: what is begun first comes first; only knots that nothing holds up, within `days`. */
export function doNext<Session>(
  threads: readonly { readonly session: Session; readonly knots: readonly Knot[] }[],
  now: Temporal.Instant,
  days = 7,
  most = 5,
): DoNext<Session>[] {
  const horizon = new Date(now.epochMilliseconds + days * DAY * 60_000).toISOString();
  const open = threads.flatMap(({ session, knots }) =>
    knots
      .filter(
        ({ state, ready }) =>
          ready && (state === 'late' || state === 'cannot be met' || state === 'can start' || state === 'doing'),
      )
      .filter((knot) => beginsAt(knot) <= horizon)
      .map((knot) => ({ session, knot })),
  );
  open.sort((a, b) => beginsAt(a.knot).localeCompare(beginsAt(b.knot)));
  return open.slice(0, most);
}

/** How long until a moment, said: "in 3 days", "in 5 hours", "2 days late". */
export function sayLeft(latest: string, now: Temporal.Instant): string {
  const minutes = (Date.parse(latest) - now.epochMilliseconds) / 60_000;
  const text = sayMinutes(Math.trunc(minutes));
  return minutes >= 0 ? `in ${text}` : `${text} late`;
}
