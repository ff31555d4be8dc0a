import { addDays, civilOf, DAY } from '../plan/civil';
import type { JobSession, WorkHours } from '../stages/facts';
import { TAUGHT } from '../stages/modes';
import type { Frame, JobSitting, JobTemplate, Limits } from '../stages/stage';
import { JOBS, type StageKey, stageOf } from '../stages/stages';
import type { Job } from './network';

/** Up to so many participants a session starts with the few jobs that every class needs. */
export const SMALL_CLASS = 10;

/** A job of one session, before it is calculated. */
export interface SessionJob extends Job {
  readonly stage: StageKey;
  /** Can be switched off for this session. */
  readonly optional: boolean;
  readonly oneOff: boolean;
  /** It begins and ends at its time, whether or not somebody marks it. */
  readonly byTheClock?: true;
  /** It is going on now. */
  readonly isUnderWay?: true;
}

/** Whether a template's job belongs to a session, and whether it is switched on. */
export function jobChoices(session: JobSession): { template: (typeof JOBS)[number]; on: boolean }[] {
  const small = session.participants <= SMALL_CLASS;
  const isOutdoor = [session, ...(session.groups ?? [])].some(({ outdoor }) => outdoor !== null);
  const fits = ({ modes, outdoor, swapIn }: JobTemplate) =>
    modes.some((mode) => session.modes.includes(mode)) &&
    (!outdoor || isOutdoor) &&
    (!swapIn || (session.swapIns ?? 0) > 0);
  return JOBS.filter(fits).map((template) => {
    if (template.outdoor || template.swapIn) return { template, on: true };
    const asked = session.session[template.key]?.on ?? session.course[template.key]?.on;
    return {
      template,
      on: asked ?? (template.asked?.(session) ? true : template.onRequest ? false : small ? template.few : true),
    };
  });
}

/** What a job takes in a session, in minutes. @param kits those it is done for; all of the session's when left out */
export function minutesOfJob(
  { key, effort, asked }: Pick<JobTemplate, 'key' | 'effort' | 'asked'>,
  session: JobSession,
  kits = session.kits,
): number {
  const change = { ...session.course[key], ...session.session[key] };
  const wanted = asked?.(session);
  return (
    (change.fixed ?? wanted?.minutes ?? effort.fixed) +
    // What the food itself asks for is all there is to it.
    (change.perKit ?? (wanted ? 0 : effort.perKit) ?? 0) * kits +
    (effort.perDish ?? 0) * Math.max(1, session.dishes)
  );
}

/**
 * The key of a job that is done for one group: the template's own for the first, "packing@group" for another.
 *
 * @example
 * groupJobKey('pack', 'g2') //=> 'pack@g2'
 */
export const groupJobKey = (key: string, groupId: string): string => (groupId === '' ? key : `${key}@${groupId}`);

/**
 * The template's key in the key of a group's job.
 *
 * @example
 * templateKey('pack@g2') //=> 'pack'
 */
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
  const limitsOf = (template: JobTemplate, sitting?: JobSitting): Limits => {
    if (!template.perGroup) return template.limits?.(frame, session) ?? {};
    return sitting ? (template.limits?.(frames.get(sitting) ?? frame, sitting) ?? {}) : {};
  };
  const job = (template: JobTemplate & { stage: StageKey }, sitting?: JobSitting): SessionJob => {
    const { groupId = '', groupName = '' } = sitting ?? {};
    const asked = template.asked?.(session);
    const title = asked?.title ?? template.title;
    const key = groupJobKey(template.key, groupId);
    const after = template.after.flatMap((before) => {
      if (!PER_GROUP.has(before)) return [before];
      return sitting ? [groupJobKey(before, groupId)] : sittings.map((each) => groupJobKey(before, each.groupId));
    });
    return {
      key,
      title: sitting && sittings.length > 1 ? `${title}: ${groupName}` : title,
      stage: template.stage,
      after,
      minutes: minutesOfJob(template, session, sitting?.kits),
      hours: keeper[template.hours],
      done: done.has(key),
      optional: !template.few && !template.outdoor,
      oneOff: false,
      ...(template.byTheClock ? { byTheClock: true } : {}),
      ...limitsOf(template, sitting),
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
      stage: stageOf(oneOff.stage).key,
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
