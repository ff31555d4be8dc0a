// The network of jobs before a session: what must be done after what, when at the latest, when at the earliest.
// Time is civil minutes: working hours are on the wall clock (see core/plan/civil.ts).
import { type CivilMinutes, DAY, sayCivil, weekdayOf } from '../plan/civil';
import type { OpenHours } from '../plan/place';
import type { Limit, WorkHours } from '../stages/facts';

/** Something to be done before or after a session. */
export interface Job {
  readonly key: string;
  readonly title: string;
  /** Keys of the jobs it waits for; those that are not in the network are passed over. */
  readonly after: readonly string[];
  /** Work, in minutes, from 0. */
  readonly minutes: number;
  /** Whose hours it is done in; null when it needs nobody and runs through the night. */
  readonly hours: WorkHours | null;
  /** It begins exactly then: a class, a hand-out. */
  readonly at?: CivilMinutes;
  /** It must be finished by then, besides what waits for it. */
  readonly finishBy?: Limit;
  /** It must not begin before: cold food keeps only so long. */
  readonly notBefore?: Limit;
  readonly done: boolean;
}

/** Hours made ready for calculating. @param hours none means every hour of every day */
export function workHours(
  who: string,
  hours: readonly OpenHours[],
  closedDays: ReadonlySet<number> = new Set(),
): WorkHours {
  const minutes = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));
  const windows = [1, 2, 3, 4, 5, 6, 7].map((weekday) =>
    hours.length === 0
      ? [{ from: 0, to: DAY }]
      : hours
          .filter(({ weekdays }) => weekdays.includes(weekday as 1))
          .map(({ from, to }) => ({ from: minutes(from), to: minutes(to) }))
          .sort((a, b) => a.from - b.from),
  );
  return { who, windows, closedDays, longest: Math.max(0, ...windows.flat().map(({ from, to }) => to - from)) };
}

/** When a job can and must be done. */
export interface Timing {
  readonly earliestStart: CivilMinutes;
  readonly earliestFinish: CivilMinutes;
  readonly latestStart: CivilMinutes;
  readonly latestFinish: CivilMinutes;
  /** Minutes that it can be put off without harm; below zero when it is too late. */
  readonly slack: number;
  /** What sets the latest start: a job's key, or a limit in words. */
  readonly latestBecause: string;
  readonly earliestBecause: string;
}

export interface Network<J extends Job = Job> {
  /** In an order in which each comes after those it waits for. */
  readonly jobs: readonly J[];
  readonly timings: ReadonlyMap<string, Timing>;
  /** Keys of the jobs that decide, first to last: put one of them off, and the session is late. */
  readonly chain: readonly string[];
  /** Least slack of the jobs not done; null when all are. */
  readonly slack: number | null;
}

/** A network that cannot be: a job waits for itself. */
export class NetworkError extends Error {}

/** Days that are looked through for working hours before giving up: nobody works at all. */
const MOST_DAYS = 370;
const NEVER = 1e12;

/** The start of work of so many minutes that ends by then at the latest; −NEVER when nobody ever works. */
export function startBefore(hours: WorkHours | null, end: CivilMinutes, minutes: number): CivilMinutes {
  if (hours === null || minutes === 0 || Math.abs(end) >= NEVER) return end - minutes;
  const whole = minutes <= hours.longest;
  let left = minutes;
  let day = Math.floor(end / DAY);
  for (let looked = 0; looked < MOST_DAYS; looked++, day--) {
    if (hours.closedDays.has(day)) continue;
    const windows = hours.windows[weekdayOf(day) - 1] ?? [];
    for (let at = windows.length - 1; at >= 0; at--) {
      const { from, to } = windows[at] as { from: number; to: number };
      const close = Math.min(end, day * DAY + to);
      const room = close - (day * DAY + from);
      if (room <= 0 || (whole && room < minutes)) continue;
      if (room >= left) return close - left;
      left -= room;
    }
  }
  return -NEVER;
}

/** The end of work of so many minutes that begins then at the earliest, and when it does begin. */
export function finishAfter(
  hours: WorkHours | null,
  start: CivilMinutes,
  minutes: number,
): { start: CivilMinutes; finish: CivilMinutes } {
  if (hours === null || minutes === 0 || Math.abs(start) >= NEVER) return { start, finish: start + minutes };
  const whole = minutes <= hours.longest;
  let left = minutes;
  let begun: CivilMinutes | undefined;
  let day = Math.floor(start / DAY);
  for (let looked = 0; looked < MOST_DAYS; looked++, day++) {
    if (hours.closedDays.has(day)) continue;
    for (const { from, to } of hours.windows[weekdayOf(day) - 1] ?? []) {
      const open = Math.max(start, day * DAY + from);
      const room = day * DAY + to - open;
      if (room <= 0 || (whole && room < minutes)) continue;
      begun ??= open;
      if (room >= left) return { start: begun, finish: open + left };
      left -= room;
    }
  }
  return { start: NEVER, finish: NEVER };
}

/** Jobs in an order in which each comes after those it waits for. @throws NetworkError when there is none */
export function inOrder<J extends Job>(jobs: readonly J[]): J[] {
  const byKey = new Map(jobs.map((job) => [job.key, job]));
  const state = new Map<string, 'open' | 'done'>();
  const sorted: J[] = [];
  const visit = (job: J) => {
    const seen = state.get(job.key);
    if (seen === 'done') return;
    if (seen === 'open') throw new NetworkError(`“${job.title}” waits for itself. Take one of its conditions away.`);
    state.set(job.key, 'open');
    for (const key of job.after) {
      const before = byKey.get(key);
      if (before) visit(before);
    }
    state.set(job.key, 'done');
    sorted.push(job);
  };
  for (const job of jobs) visit(job);
  return sorted;
}

/**
 * Counts back from the fixed moments and limits, and forward from now.
 *
 * @param now civil minutes
 * @throws NetworkError when a job waits for itself
 */
export function calculate<J extends Job>(jobs: readonly J[], now: CivilMinutes): Network<J> {
  const sorted = inOrder(jobs);
  const byKey = new Map(sorted.map((job) => [job.key, job]));
  const late = new Map<string, { start: number; finish: number; because: string }>();
  const waits = new Map<string, Job[]>();
  for (const job of sorted)
    for (const key of job.after) {
      const list = waits.get(key);
      if (list) list.push(job);
      else waits.set(key, [job]);
    }
  for (let at = sorted.length - 1; at >= 0; at--) {
    const job = sorted[at] as Job;
    if (job.at !== undefined) {
      late.set(job.key, { start: job.at, finish: job.at + job.minutes, because: 'its fixed time' });
      continue;
    }
    let finish = job.finishBy?.at ?? NEVER;
    let because = job.finishBy?.why ?? '';
    for (const next of waits.get(job.key) ?? []) {
      const start = late.get(next.key)?.start ?? NEVER;
      if (start < finish) {
        finish = start;
        because = next.key;
      }
    }
    late.set(job.key, { start: startBefore(job.hours, finish, job.minutes), finish, because });
  }
  const timings = new Map<string, Timing>();
  const drivenBy = new Map<string, string>();
  for (const job of sorted) {
    const latest = late.get(job.key) as { start: number; finish: number; because: string };
    let ready = now;
    let because = 'now';
    if (job.notBefore && job.notBefore.at > ready) {
      ready = job.notBefore.at;
      because = job.notBefore.why;
    }
    for (const key of job.after) {
      const before = byKey.get(key);
      const finish = before && !before.done ? (timings.get(key) as Timing).earliestFinish : -NEVER;
      if (finish > ready) {
        ready = finish;
        because = key;
      }
      if (before && !before.done && finish >= ready) drivenBy.set(job.key, key);
    }
    const early =
      job.at !== undefined
        ? { start: Math.max(job.at, ready), finish: Math.max(job.at, ready) + job.minutes }
        : finishAfter(job.hours, ready, job.minutes);
    timings.set(job.key, {
      earliestStart: early.start,
      earliestFinish: early.finish,
      latestStart: latest.start,
      latestFinish: latest.finish,
      // A fixed time waits: what is ready before it has so long to spare.
      slack: job.at !== undefined ? job.at - ready : latest.start - early.start,
      latestBecause: latest.because,
      earliestBecause: because,
    });
  }
  const open = sorted.filter((job) => !job.done);
  const slack = open.length === 0 ? null : Math.min(...open.map((job) => (timings.get(job.key) as Timing).slack));
  return { jobs: sorted, timings, chain: decidingChain(open, timings, drivenBy), slack };
}

/** From the job with the least slack that comes last, back along what holds each up. */
function decidingChain(
  open: readonly Job[],
  timings: ReadonlyMap<string, Timing>,
  drivenBy: ReadonlyMap<string, string>,
): string[] {
  let last: Job | undefined;
  for (const job of open) {
    const slack = (timings.get(job.key) as Timing).slack;
    const least = last ? (timings.get(last.key) as Timing).slack : Number.POSITIVE_INFINITY;
    if (slack <= least && slack < NEVER / 2) last = job;
  }
  const chain: string[] = [];
  for (let key = last?.key; key !== undefined; key = drivenBy.get(key)) chain.unshift(key);
  return chain;
}

/**
 * "2 days", "5 hours", "20 minutes": the largest whole unit.
 *
 * @example
 * sayMinutes(95) //=> '95 minutes'
 */
export function sayMinutes(minutes: number): string {
  const size = Math.abs(Math.round(minutes));
  const plural = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;
  if (size >= 2 * DAY) return plural(Math.floor(size / DAY), 'day');
  if (size >= 120) return plural(Math.floor(size / 60), 'hour');
  return plural(size, 'minute');
}

/** Why a network can no longer be done in time, in a sentence; undefined when it can. */
export function whyTooLate({ jobs, timings, chain, slack }: Network): string | undefined {
  if (slack === null || slack >= 0) return undefined;
  const title = (key: string) => jobs.find((job) => job.key === key)?.title ?? key;
  const first = jobs.find(({ key, done }) => !done && (timings.get(key) as Timing).slack < 0);
  if (!first) return undefined;
  const timing = timings.get(first.key) as Timing;
  if (timing.earliestStart >= NEVER / 2 || timing.latestStart <= -NEVER / 2)
    return `${first.title} finds no working hours at all: ${first.hours?.who ?? 'nobody'} works on no day.`;
  const held =
    timing.earliestBecause === 'now'
      ? ''
      : ` (${timings.has(timing.earliestBecause) ? `after ${title(timing.earliestBecause).toLowerCase()}` : timing.earliestBecause})`;
  const rest = chain.slice(chain.indexOf(first.key) + 1).map((key) => title(key).toLowerCase());
  const before = rest.length > 0 ? `, before ${rest.join(', ')}` : '';
  return `${first.title} takes ${sayMinutes(first.minutes)} and can start ${sayCivil(timing.earliestStart)} at the earliest${held}, but had to start by ${sayCivil(timing.latestStart)}${before}: ${sayMinutes(timing.slack)} too late.`;
}
