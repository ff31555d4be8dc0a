import { z } from 'zod';
import { insert } from '@/store/query';
import { isDuplicate } from '@/store/store';
import { ServiceError } from '../errors';
import { nowOf, ROLES, service } from '../gate/gate';
import { openRoom } from './room';

export const noteComing = service({
  title: 'Note that somebody came late, left early, or was fetched, and by whom',
  roles: ROLES,
  input: z.object({
    /** Made by whoever sends it: sent twice, it is noted once. */
    id: z.uuid(),
    sessionId: z.uuid(),
    enrolmentId: z.uuid(),
    kind: z.enum(['late', 'left early', 'fetched', 'taken back']),
    who: z.string().trim().max(120, 'At most 120 characters.').default(''),
  }),
  run: async (context, { id, sessionId, enrolmentId, kind, who }) => {
    const { coming } = await openRoom(context, sessionId);
    if (!coming.some((row) => row.id === enrolmentId))
      throw new ServiceError('not-found', 'This person is not expected at this session.');
    if (kind === 'fetched' && who === '')
      throw new ServiceError('invalid', 'Nothing was saved yet.', [
        { where: 'who', message: 'Say who fetched them, as the family named them.' },
      ]);
    const { db } = context.store;
    // Whoever came late came.
    const came = {
      id: context.ids(),
      sessionId,
      enrolmentId,
      state: 'came' as const,
      at: nowOf(context),
      actorId: context.actor.id,
    };
    try {
      await context.store.transaction(async (inside) => {
        await insert(inside, db.models.comingNote, [
          { id, sessionId, enrolmentId, kind, who, at: nowOf(context), actorId: context.actor.id },
        ]);
        if (kind === 'late') await insert(inside, db.models.attendance, [came]);
      });
    } catch (error) {
      if (!isDuplicate(error)) throw error;
    }
  },
});
