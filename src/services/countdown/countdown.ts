import { z } from 'zod';
import { jobChoices, minutesOfJob } from '@/core/countdown/jobs';
import { doNext, saversOf } from '@/core/countdown/thread';
import { HOLDS } from '@/core/crew/crew-standing';
import { jobOfDuty } from '@/core/crew/duties';
import type { JobChanges } from '@/core/stages/facts';
import { JOBS, STAGE_KEYS } from '@/core/stages/stages';
import { stillOpen } from '@/store/closeout';
import { heldJobs } from '@/store/plan';
import { findOne, insert, remove, update, updateVersion } from '@/store/query';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, service } from '../gate/gate';
import { logTaken } from '../gate/taken';
import { loadSheet } from '../kits/kit-sheet';
import { WORKED_OUT } from '../memory';
import { definedOf } from '../plan/changes';
import { loadBundle } from '../plan/sessions';
import { type Hours, loadProgramme } from '../sheet/load-programme';
import { sessionSheet } from '../sheet/session-sheet';
import { sessionFacts, sessionThread } from '../sheet/session-thread';

/** Of so many sessions that can no longer be ready it is tried what would save them; the others say so on their own page. */
export const MOST_LOST = 5;

/** The countdown looks this far ahead, and back to yesterday. */
const DAYS_AHEAD = 14;

/** A session that is over is asked for so many days, until it is closed out. */
const DAYS_TO_CLOSE = 14;

export const viewCountdown = service({
  title: 'See the countdown',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const now = context.clock();
    const { db } = context.store;
    const { programme, meanings, hours } = await loadProgramme(context);
    const today = now.toZonedDateTimeISO(programme.timeZone).toPlainDate();
    const bundles = await loadSessionBundles(db, context.actor.programmeId, {
      notOverOn: today.toString(),
      to: today.add({ days: DAYS_AHEAD }).toString(),
    });
    let saved = 0;
    const threads = bundles.map((bundle) => {
      const sheet = sessionSheet(bundle, programme, meanings);
      const thread = sessionThread(bundle, sheet, programme, hours, now);
      const isLost = thread.tooLate !== undefined && saved++ < MOST_LOST;
      if (!isLost) return { ...thread, savers: [] };
      // Many weeks are tried for each: kept as long as its thread is.
      const savers = WORKED_OUT.of('savers', thread, () =>
        saversOf(sessionFacts(bundle, sheet, programme, hours), now),
      );
      return { ...thread, savers };
    });
    const next = doNext(
      threads.map((session) => ({ session, knots: session.knots })),
      now,
    );
    const open = await stillOpen(db, {
      programmeId: context.actor.programmeId,
      from: today.subtract({ days: DAYS_TO_CLOSE }).toString(),
      before: today.toString(),
    });
    return { threads, next, open, now: now.toString(), timeZone: programme.timeZone };
  },
});

export const viewJobs = service({
  title: 'See the jobs of a session',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const loaded = await loadSheet(context, sessionId);
    const { bundle, sheet, hours, timeZone } = loaded;
    const facts = sessionFacts(bundle, sheet, { timeZone }, hours);
    const now = context.clock();
    const choices = jobChoices(facts).map(({ template, on }) => ({
      key: template.key,
      title: template.title,
      on,
      minutes: minutesOfJob(template, facts),
    }));
    return {
      ...loaded,
      thread: sessionThread(bundle, sheet, { timeZone }, hours, now),
      savers: saversOf(facts, now),
      choices,
      who: whoDoes(bundle, hours.helpers),
      now: now.toString(),
    };
  },
});

/** Names of those of the crew who do each job, by its key. */
function whoDoes({ promises }: SessionBundle, helpers: Hours['helpers']): Readonly<Record<string, readonly string[]>> {
  const who: Record<string, string[]> = {};
  for (const { duty, crewId, state } of promises) {
    const job = jobOfDuty(duty);
    const name = helpers.get(crewId)?.name;
    if (job && name && HOLDS.includes(state))
      who[job] = [...(who[job] ?? []), state === 'accepted' ? name : `${name} (${state})`];
  }
  return who;
}

const key = z.string().trim().min(1).max(60);
const known = new Set(JOBS.map((job) => job.key));

/** Jobs that are done when what they are about is: nobody marks them. */
const BY_THEMSELVES = JOBS.flatMap((job) => (job.byItself ? [job.key] : []));

export const markJob = service({
  title: 'Mark a job done, or not done',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), job: key, done: z.boolean() }),
  run: (context, { sessionId, job, done }) =>
    context.store.transaction(async (db) => {
      const bundle = await loadBundle(context, sessionId, db);
      const [template = '', groupId] = job.split('@');
      const isKnown =
        known.has(template) && (!groupId || bundle.session.sittings.some((each) => each.groupId === groupId));
      if (!isKnown && !bundle.oneOffs.some(({ id }) => id === job)) throw notFound('job');
      if (BY_THEMSELVES.includes(job))
        throw new ServiceError(
          'invalid',
          'This job is done when its stage is: choose the dishes, close the roll, lock the sheet.',
        );
      const mark = { id: context.ids(), sessionId, stage: job, done: done ? 1 : 0, actorId: context.actor.id };
      await insert(db, db.models.stageMark, [{ ...mark, at: nowOf(context) }]);
      await logChange(context, db, done ? 'marked done' : 'marked not done', 'session', sessionId, { stage: job });
    }),
});

const MINUTES = z.coerce
  .number('Write the minutes as a number.')
  .int('Whole minutes.')
  .min(0, 'Not less than 0.')
  .max(10_080, 'At most a week.');

export const addOneOffJob = service({
  title: 'Add a job that only one session has',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    title: z.string().trim().min(1, 'Say what is to be done.').max(120, 'At most 120 characters.'),
    stage: z.enum(STAGE_KEYS),
    minutes: MINUTES,
    hours: z.enum(['shop', 'crew', 'any']),
    before: z.string().refine((value) => known.has(value), 'Choose the job that waits for it.'),
  }),
  run: (context, { sessionId, before, ...job }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      const id = context.ids();
      await insert(db, db.models.sessionJob, [{ id, sessionId, beforeKey: before, ...job }]);
      await logChange(context, db, 'added a job', 'session', sessionId, { ...job, before });
      return id;
    }),
});

export const removeOneOffJob = service({
  title: 'Take away a job that only one session has',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), job: z.uuid() }),
  run: (context, { sessionId, job }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      const found = await findOne(db, db.models.sessionJob, { id: job, sessionId });
      if (!found) throw notFound('job');
      await remove(db, db.models.sessionJob, { id: job });
      return logTaken(context, db, 'session', sessionId, found.title, { sessionJob: [found] });
    }),
});

export const changeJob = service({
  title: 'Show, hide or re-time a job of a session or of its whole course',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    job: z.string().refine((value) => known.has(value), 'There is no such job.'),
    for: z.enum(['session', 'course']),
    on: z.boolean().optional(),
    fixed: MINUTES.optional(),
    perKit: MINUTES.optional(),
  }),
  run: (context, { sessionId, job, for: whose, ...change }) =>
    context.store.transaction(async (db) => {
      const { session } = await loadBundle(context, sessionId, db);
      const given = definedOf(change);
      const merge = (jobs: JobChanges): JobChanges => ({ ...jobs, [job]: { ...jobs[job], ...given } });
      if (whose === 'session') {
        const saved = await updateVersion(db, db.models.session, sessionId, session.version, {
          jobs: merge(session.jobs),
        });
        if (!saved) throw stale('The session');
      } else {
        const { courseId } = session;
        // Two people change jobs of one course: the second adds to what the first left.
        const [now] = await heldJobs(db, { courseId });
        await update(db, db.models.course, { id: courseId }, { jobs: merge(now?.jobs ?? session.courseJobs) });
      }
      await logChange(context, db, 'changed a job', whose, whose === 'session' ? sessionId : session.courseId, {
        job,
        ...given,
      });
    }),
});
