import { z } from 'zod';
import { MODES } from '@/core/plan/mode';
import { nextSessions } from '@/store/plan';
import { insert, remove } from '@/store/query';
import { setSharedKit } from '@/store/roll';
import type { Db } from '@/store/store';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service, todayIn } from '../gate/gate';
import { loadCourse } from '../plan/courses';
import { loadBundle } from '../plan/sessions';
import { syncCallBacks } from '../sheet/call-backs';
import { timeZoneOf } from '../sheet/load-programme';

/** 'away' gets no kit; a mode is how they take part this time; 'usual' takes it back. */
const HOWS = ['away', 'usual', ...MODES] as const;

/** Notes how people take part in a session, whatever was noted of them before. */
async function noteHow(
  context: Context,
  db: Db,
  sessionId: string,
  people: readonly { readonly id: string; readonly name: string }[],
  how: (typeof HOWS)[number],
): Promise<void> {
  await remove(db, db.models.away, { sessionId, enrolmentId: people.map(({ id }) => id) });
  const mode = how === 'away' || how === 'usual' ? null : how;
  if (how !== 'usual')
    await insert(
      db,
      db.models.away,
      people.map(({ id: enrolmentId }) => ({ sessionId, enrolmentId, mode })),
    );
  for (const { name } of people) await logChange(context, db, 'changed who comes', 'session', sessionId, { name, how });
  await syncCallBacks(context, db, { sessionId });
}

export const setAway = service({
  title: 'Say that somebody misses a session, or comes to it another way',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    enrolmentId: z.uuid('Choose a person.'),
    how: z.enum(HOWS),
  }),
  run: (context, { sessionId, enrolmentId, how }) =>
    context.store.transaction(async (db) => {
      const { enrolments } = await loadBundle(context, sessionId, db);
      const person = enrolments.find(({ id, status }) => id === enrolmentId && status === 'enrolled');
      if (!person) throw notFound('person');
      await noteHow(context, db, sessionId, [person], how);
    }),
});

export const setSeveralAway = service({
  title: 'Say for several people how they take part in the course’s next session',
  roles: ['coordinator'],
  input: z.object({
    courseId: z.uuid(),
    enrolmentIds: z.array(z.uuid()).min(1, 'Select somebody.').max(2000),
    how: z.enum(HOWS),
  }),
  run: async (context, { courseId, enrolmentIds, how }) => {
    await loadCourse(context, courseId);
    const today = todayIn(context, await timeZoneOf(context));
    const [next] = await nextSessions(context.store.db, { courseId, today });
    if (!next) throw new ServiceError('invalid', 'The course has no session to come.');
    await context.store.transaction(async (db) => {
      const { enrolments } = await loadBundle(context, next.id, db);
      const people = enrolments.filter(({ id, status }) => status === 'enrolled' && enrolmentIds.includes(id));
      if (people.length !== new Set(enrolmentIds).size) throw notFound('person');
      await noteHow(context, db, next.id, people, how);
    });
    return next;
  },
});

export const shareKit = service({
  title: 'Give the siblings of a household one kit, or several',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid(), householdId: z.uuid(), share: z.boolean() }),
  run: (context, { courseId, householdId, share }) =>
    context.store.transaction(async (db) => {
      const changed = await setSharedKit(db, {
        courseId,
        householdId,
        share: share ? 1 : 0,
        programmeId: context.actor.programmeId,
      });
      if (changed === 0) throw notFound('household');
      await logChange(context, db, share ? 'share one kit' : 'get a kit each', 'household', householdId, { courseId });
      await syncCallBacks(context, db, { courseId });
    }),
});
