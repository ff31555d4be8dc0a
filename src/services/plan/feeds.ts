import { createHash, randomBytes } from 'node:crypto';
import { z } from 'zod';
import { beginsAt } from '@/core/countdown/thread';
import { addDays } from '@/core/plan/civil';
import { lastDayOf } from '@/core/plan/sitting';
import { type CalendarEvent, type CalendarTask, writeCalendar } from '@/formats/plan/icalendar-out';
import { endFeed, feedsOf, meetingsIn } from '@/store/plan';
import { findOne, insert } from '@/store/query';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import type { Db, Store } from '@/store/store';
import type { CalendarFeedRow } from '@/store/tables/plan';
import { notFound } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { sessionSheet } from '../sheet/session-sheet';
import { sessionThread } from '../sheet/session-thread';

const hash = (token: string) => createHash('sha256').update(token).digest('hex');

const SCOPES = ['programme', 'course', 'place', 'instructor'] as const;

export const listFeeds = service({
  title: 'See the calendar addresses',
  roles: ['coordinator'],
  input: z.object({}),
  run: (context) => feedsOf(context.store.db, { programmeId: context.actor.programmeId }),
});

/** @throws ServiceError when what a calendar is to show is not the asker's */
async function checkScope(
  context: Context,
  db: Db,
  scope: CalendarFeedRow['scope'],
  scopeId: string | null,
): Promise<void> {
  if (scope === 'programme') return;
  const table = { course: db.models.course, place: db.models.place, instructor: db.models.member };
  const where = { id: scopeId ?? '', programmeId: context.actor.programmeId };
  if (!(await findOne(db, table[scope] as typeof db.models.course, where))) throw notFound(scope);
}

export const makeFeed = service({
  title: 'Make an address under which a calendar program reads the plan',
  roles: ['coordinator'],
  input: z.object({
    scope: z.enum(SCOPES),
    scopeId: z.preprocess((value) => value || null, z.uuid().nullable()),
    withJobs: z.boolean().default(false),
  }),
  run: (context, { scope, scopeId, withJobs }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      await checkScope(context, db, scope, scopeId);
      const token = randomBytes(24).toString('base64url');
      const id = context.ids();
      const row = {
        id,
        programmeId,
        scope,
        scopeId: scope === 'programme' ? null : scopeId,
        withJobs: withJobs ? 1 : 0,
      };
      await insert(db, db.models.calendarFeed, [
        { ...row, tokenHash: hash(token), createdAt: nowOf(context), revokedAt: null, createdBy: context.actor.id },
      ]);
      await logChange(context, db, 'made', 'calendar address', id, { scope, scopeId });
      // Shown once: only its hash is kept.
      return { id, token };
    }),
});

export const revokeFeed = service({
  title: 'End a calendar address',
  roles: ['coordinator'],
  input: z.object({ feedId: z.uuid() }),
  run: (context, { feedId }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const ended = await endFeed(db, { now: nowOf(context), feedId, programmeId });
      if (ended === 0) throw notFound('calendar address');
      await logChange(context, db, 'ended', 'calendar address', feedId);
    }),
});

export const exportCalendar = service({
  title: 'Take out the plan as a calendar file',
  roles: ['coordinator'],
  input: z.object({ scope: z.enum(SCOPES), scopeId: z.uuid().optional(), withJobs: z.boolean().default(false) }),
  run: async (context, { scope, scopeId = null, withJobs }) => {
    await checkScope(context, context.store.db, scope, scopeId);
    return calendarOf(context, { scope, scopeId, withJobs: withJobs ? 1 : 0 });
  },
});

/**
 * The calendar behind an address; whoever has it reads when and where sessions are, and nothing of the people.
 *
 * @returns undefined when there is no such address, or it was ended
 */
export async function readFeed(surroundings: Omit<Context, 'actor'>, token: string): Promise<string | undefined> {
  const feed = await findFeed(surroundings.store, token);
  if (!feed) return undefined;
  const actor = { id: feed.id, programmeId: feed.programmeId, role: 'coordinator' as const, name: 'calendar' };
  return calendarOf({ ...surroundings, actor }, feed);
}

async function findFeed(store: Store, token: string): Promise<CalendarFeedRow | undefined> {
  const row = await findOne(store.db, store.db.models.calendarFeed, { tokenHash: hash(token) });
  return row && row.revokedAt === null ? row : undefined;
}

/** Nobody cooks at home later than so many days after the class. */
const MOST_DAYS_EATEN = 60;

/** Sessions this far back and ahead are shown, in days. */
const BACK = 90;
const AHEAD = 500;
/** Jobs are shown for the sessions of the coming weeks. */
const JOB_DAYS = 28;

type Scope = Pick<CalendarFeedRow, 'scope' | 'scopeId' | 'withJobs'>;

/** Only ever rises: with each change of the session, of somebody on the roll, with each mark. */
const sequenceOf = ({ session, enrolments, marks }: SessionBundle): number =>
  session.version + marks.length + enrolments.reduce((sum, { version }) => sum + version, 0);

async function calendarOf(context: Context, { scope, scopeId, withJobs }: Scope): Promise<string> {
  const { db } = context.store;
  const { programmeId } = context.actor;
  const { programme, meanings, hours } = await loadProgramme(context);
  const now = context.clock();
  const today = now.toZonedDateTimeISO(programme.timeZone).toPlainDate().toString();
  const meetings = await meetingsIn(db, scope, {
    programmeId,
    scopeId,
    from: addDays(today, -BACK),
    to: addDays(today, AHEAD),
  });
  const events = meetings.map(
    ({ id, groupId, sequence, courseTitle, number, mode, teacher, status, ...meeting }): CalendarEvent => ({
      uid: `session-${groupId ? `${id}-${groupId}` : id}@logistra`,
      sequence,
      title: `${courseTitle}: ${meeting.title}`,
      description: [`Session ${number}, ${mode}`, teacher ? `Instructor: ${teacher}` : ''].filter(Boolean).join('\n'),
      place: meeting.place,
      date: meeting.date,
      startsAt: meeting.startsAt,
      minutes: meeting.minutes,
      cancelled: status === 'cancelled',
    }),
  );
  let tasks: CalendarTask[] = [];
  if (withJobs === 1) {
    const ids = meetings
      .filter(({ date, status }) => status === 'planned' && date <= addDays(today, JOB_DAYS))
      .filter(({ date }) => date >= addDays(today, -MOST_DAYS_EATEN))
      .map(({ id }) => id);
    const bundles = await loadSessionBundles(db, programmeId, { ids: [...new Set(ids)] });
    // Until the last family has cooked, its jobs go on.
    const open = bundles.filter(({ session }) => lastDayOf(session) >= today);
    tasks = open.flatMap((bundle) =>
      sessionThread(bundle, sessionSheet(bundle, programme, meanings), programme, hours, now).jobs.map((job) => ({
        uid: `job-${bundle.session.id}-${job.key.replace('@', '-')}@logistra`,
        sequence: sequenceOf(bundle),
        title: `${job.title}: ${bundle.session.title}`,
        description: job.why,
        start: beginsAt(job),
        due: job.latest,
        done: job.state === 'done',
      })),
    );
  }
  const [first] = meetings;
  const what = {
    programme: programme.name,
    course: first?.courseTitle,
    place: first?.place,
    instructor: first?.teacher,
  }[scope];
  return writeCalendar({
    name: what ?? programme.name,
    timeZone: programme.timeZone,
    events,
    tasks,
    stamp: now.toString(),
  });
}
