// Changes of the plan: made together, each version checked, and one step back for the whole of it.

import { z } from 'zod';
import { holdSessions } from '@/store/plan';
import { find, findOne, insert, updateVersion } from '@/store/query';
import type { SessionRow } from '@/store/rows';
import type { Db } from '@/store/store';
import { logChange } from '../access/change-log';
import { type Context, nowOf, service } from '../access/gate';
import { notFound, ServiceError, stale } from '../errors';
import { placeNamed } from './places';

/** What may be changed of a session. */
export type SessionChange = Partial<
  Pick<
    SessionRow,
    'title' | 'date' | 'startsAt' | 'minutes' | 'place' | 'mode' | 'instructorId' | 'cookBy' | 'status' | 'because'
  >
>;

/** A change of one session, and the version it was seen at. */
export interface WantedChange {
  readonly sessionId: string;
  readonly version: number;
  readonly change: SessionChange;
}

/** A session as it was before a change, and the version it has after. */
interface Step {
  readonly before: SessionRow;
  readonly version: number;
}

/** What a calendar must hear of. */
const TOLD: readonly (keyof SessionChange)[] = ['title', 'date', 'startsAt', 'minutes', 'place', 'status'];

/** The id of a place by its name; null when it is no place the programme has counted. */
export async function placeIdOf(context: Context, db: Db, name: string): Promise<string | null> {
  return (await placeNamed(db, context.actor.programmeId, name))?.id ?? null;
}

/**
 * Changes sessions, all or none, so that it can be taken back in one step.
 *
 * @param said what was done, as the one who takes it back reads it
 * @returns id of the change
 * @throws ServiceError when a session is not the asker's, or was changed since it was seen
 */
export async function changeSessions(
  context: Context,
  db: Db,
  wanted: readonly WantedChange[],
  said: string,
): Promise<string> {
  const rows = await holdSessions(
    db,
    context.actor.programmeId,
    wanted.map(({ sessionId }) => sessionId),
  );
  const steps: Step[] = [];
  for (const { sessionId, version, change } of wanted) {
    const before = rows.find(({ id }) => id === sessionId);
    if (!before) throw notFound('session');
    const place = change.place === undefined ? {} : { placeId: await placeIdOf(context, db, change.place) };
    const isTold = TOLD.some((key) => change[key] !== undefined && change[key] !== before[key]);
    const values = { ...change, ...place, sequence: before.sequence + (isTold ? 1 : 0) };
    if (!(await updateVersion(db, db.models.session, sessionId, version, values)))
      throw stale(`${before.title}, ${before.date},`);
    steps.push({ before, version: version + 1 });
    await logChange(context, db, change.status === 'cancelled' ? 'cancelled' : 'changed', 'session', sessionId, change);
  }
  const id = context.ids();
  await insert(db, db.models.planChange, [
    {
      id,
      programmeId: context.actor.programmeId,
      at: nowOf(context),
      actorId: context.actor.id,
      said: said.slice(0, 255),
      sessions: JSON.stringify(steps),
      undoneAt: null,
    },
  ]);
  return id;
}

/** The last changes that can still be taken back, newest first. */
export const listChanges = service({
  title: 'See the last changes of the plan',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const rows = await find(
      db,
      db.models.planChange,
      { programmeId: context.actor.programmeId, undoneAt: null },
      [
        ['at', 'DESC'],
        ['id', 'DESC'],
      ],
      5,
    );
    return rows.map(({ id, said, at }) => ({ id, said, at: at.toISOString() }));
  },
});

export const undoChange = service({
  title: 'Take a change of the plan back',
  roles: ['coordinator'],
  input: z.object({ changeId: z.uuid() }),
  run: (context, { changeId }) =>
    context.store.transaction(async (db) => {
      const row = await findOne(db, db.models.planChange, { id: changeId, programmeId: context.actor.programmeId });
      if (!row) throw notFound('change');
      if (row.undoneAt) throw new ServiceError('stale', 'This was taken back already.');
      const steps = JSON.parse(row.sessions) as Step[];
      await holdSessions(
        db,
        context.actor.programmeId,
        steps.map(({ before }) => before.id),
      );
      for (const { before, version } of steps) {
        const now = await findOne(db, db.models.session, { id: before.id });
        if (!now || now.version !== version)
          throw new ServiceError(
            'stale',
            `${before.title} was changed again since. Take that back first, or move it by hand.`,
          );
        // A calendar hears of the way back too: its sequence only ever goes up.
        const { id, version: _version, sequence: _sequence, ...values } = before;
        await updateVersion(db, db.models.session, id, version, { ...values, sequence: now.sequence + 1 });
        await logChange(context, db, 'took back', 'session', id, { said: row.said });
      }
      await db.models.planChange.update(
        { undoneAt: nowOf(context) },
        { where: { id: changeId }, transaction: db.transaction },
      );
      return row.said;
    }),
});
