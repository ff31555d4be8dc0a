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

const taking = z.object({ enrolmentId: z.uuid('Choose a person.'), how: z.enum(HOWS) });
type Taking = z.output<typeof taking>;
const eachOnce = (people: readonly Taking[]) => new Set(people.map((each) => each.enrolmentId)).size === people.length;

/**
 * Notes how people take part in a session, whatever was noted of them before.
 *
 * @returns how they took part before, to put it back
 */
async function noteHow(context: Context, db: Db, sessionId: string, people: readonly Taking[]): Promise<Taking[]> {
  const { enrolments, away } = await loadBundle(context, sessionId, db);
  const enrolled = new Map(enrolments.filter(({ status }) => status === 'enrolled').map((each) => [each.id, each]));
  const ids = people.map(({ enrolmentId }) => enrolmentId);
  if (ids.some((id) => !enrolled.has(id))) throw notFound('person');
  await remove(db, db.models.away, { sessionId, enrolmentId: ids });
  const otherwise = people.flatMap(({ enrolmentId, how }) =>
    how === 'usual' ? [] : [{ sessionId, enrolmentId, mode: how === 'away' ? null : how }],
  );
  if (otherwise.length > 0) await insert(db, db.models.away, otherwise);
  for (const { enrolmentId, how } of people) {
    const name = enrolled.get(enrolmentId)?.name;
    await logChange(context, db, 'changed who comes', 'session', sessionId, { name, how });
  }
  await syncCallBacks(context, db, { sessionId });
  const before = new Map(away.map(({ enrolmentId, mode }) => [enrolmentId, (mode ?? 'away') as Taking['how']]));
  return ids.map((enrolmentId) => ({ enrolmentId, how: before.get(enrolmentId) ?? 'usual' }));
}

export const setAway = service({
  title: 'Say that somebody misses a session, or comes to it another way',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    people: z.array(taking).min(1).max(2000).refine(eachOnce, 'Somebody is in it twice.'),
  }),
  run: (context, { sessionId, people }) => context.store.transaction((db) => noteHow(context, db, sessionId, people)),
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
    const people = [...new Set(enrolmentIds)].map((enrolmentId) => ({ enrolmentId, how }));
    const before = await context.store.transaction((db) => noteHow(context, db, next.id, people));
    return { ...next, before };
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
