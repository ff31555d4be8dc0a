// What was taken away is put back as it was, from the entry of the log that says so.

import { z } from 'zod';
import { placeSessions, placeSittings } from '@/store/plan';
import { findOne, insert } from '@/store/query';
import { isDuplicate, isOrphan } from '@/store/store';
import type { DishRow } from '@/store/tables/recipes';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';
import { PUT_BACK, type Taken } from '../gate/taken';
import { syncCallBacks } from '../sheet/call-backs';

/** The day before is past: nobody remembers what was taken away then, and much has been planned on its absence. */
const HOURS = 24;

export const putBackTaken = service({
  title: 'Put back what was taken away',
  roles: ['coordinator'],
  input: z.object({ changeId: z.uuid() }),
  run: async (context, { changeId }): Promise<string> => {
    const { programmeId } = context.actor;
    try {
      return await context.store.transaction(async (db) => {
        const entry = await findOne(db, db.models.change, { id: changeId, programmeId });
        const { taken, called } = (entry?.detail ?? {}) as { taken?: Taken; called?: string };
        if (!entry || !taken || entry.at.getTime() < context.clock().epochMilliseconds - HOURS * 3_600_000)
          throw notFound('change');
        for (const kind of PUT_BACK) await insert(db, db.models[kind] as never, (taken[kind] ?? []) as never);
        for (const { id, name } of taken.place ?? []) {
          await placeSessions(db, { id, programmeId, name });
          await placeSittings(db, { id, programmeId, name });
        }
        if (taken.product) await syncCallBacks(context, db, 'all');
        for (const { sessionId } of (taken.dish ?? []) as readonly DishRow[])
          await syncCallBacks(context, db, { sessionId });
        await logChange(context, db, 'put back', entry.entity, entry.entityId, { called });
        return called ?? '';
      });
    } catch (error) {
      if (isDuplicate(error))
        throw new ServiceError('stale', 'It was put back already, or something of its name is there now.');
      if (isOrphan(error)) throw new ServiceError('stale', 'It cannot be put back: what it belonged to is gone too.');
      throw error;
    }
  },
});
