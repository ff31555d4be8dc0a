import { z } from 'zod';
import { MODES } from '@/core/plan/mode';
import { insert, remove } from '@/store/query';
import { setSharedKit } from '@/store/roll';
import { notFound } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';
import { loadBundle } from '../plan/sessions';
import { syncCallBacks } from '../sheet/call-backs';

export const setAway = service({
  title: 'Say that somebody misses a session, or comes to it another way',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    enrolmentId: z.uuid('Choose a person.'),
    /** 'away' gets no kit; a mode is how they take part this time; 'usual' takes it back. */
    how: z.enum(['away', 'usual', ...MODES]),
  }),
  run: (context, { sessionId, enrolmentId, how }) =>
    context.store.transaction(async (db) => {
      const { enrolments } = await loadBundle(context, sessionId, db);
      const person = enrolments.find(({ id, status }) => id === enrolmentId && status === 'enrolled');
      if (!person) throw notFound('person');
      await remove(db, db.models.away, { sessionId, enrolmentId });
      if (how !== 'usual')
        await insert(db, db.models.away, [{ sessionId, enrolmentId, mode: how === 'away' ? null : how }]);
      await logChange(context, db, 'changed who comes', 'session', sessionId, { name: person.name, how });
      await syncCallBacks(context, db, { sessionId });
    }),
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
