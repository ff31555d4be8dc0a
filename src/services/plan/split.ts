import { z } from 'zod';
import { civilDate, civilTime } from '@/contracts/plan';
import { sayDay } from '@/core/plan/civil';
import { freshSession } from '@/store/fresh';
import { moveDishes } from '@/store/plan';
import { find, insert } from '@/store/query';
import { copyRows } from '@/store/session-rows';
import { groupsOf } from '@/store/sittings';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';
import { changeSessions, placeIdOf } from './changes';
import { usualSittings } from './groups';
import { loadBundle } from './sessions';

export const splitSession = service({
  title: 'Split a session: some of its dishes on another day',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    version: z.coerce.number().int(),
    dishIds: z.array(z.uuid()).min(1, 'Choose at least one dish that goes.'),
    title: z.string().trim().min(1, 'The new session needs a title.').max(120, 'At most 120 characters.'),
    date: civilDate,
    startsAt: civilTime,
    minutes: z.coerce.number('Write the minutes as a number.').int('Whole minutes.').min(15).max(720),
    place: z.string().trim().min(1, 'Say where it takes place.').max(120),
  }),
  run: (context, { sessionId, version, dishIds, ...wanted }) =>
    context.store.transaction(async (db) => {
      const { session, dishes, sheet } = await loadBundle(context, sessionId, db);
      if (sheet)
        throw new ServiceError(
          'invalid',
          'The kit sheet is locked: its kits hold all dishes. Split a session before its sheet is locked, or take dishes off and accept the differences.',
        );
      const going = dishes.filter(({ id }) => dishIds.includes(id));
      if (going.length !== new Set(dishIds).size)
        throw new ServiceError('stale', 'One of these dishes was taken off the session since. Look at it again.');
      if (going.length === dishes.length)
        throw new ServiceError('invalid', 'Every dish would go: move the session instead of splitting it.', [
          { where: 'dishIds', message: 'Leave at least one dish here.' },
        ]);
      const others = await find(db, db.models.session, { courseId: session.courseId });
      const row = freshSession({
        id: context.ids(),
        courseId: session.courseId,
        number: Math.max(...others.map(({ number }) => number)) + 1,
        mode: session.mode,
        instructorId: session.instructorId,
        jobs: session.jobs,
        because: `Split from ${session.title}`.slice(0, 255),
        placeId: await placeIdOf(context, db, wanted.place),
        ...wanted,
      });
      await insert(db, db.models.session, [row]);
      await insert(db, db.models.sitting, usualSittings([row], await groupsOf(db, session.courseId)));
      await moveDishes(db, { to: row.id, ids: dishIds });
      // What was read of the products in hand holds for both.
      await copyRows(db, 'split', new Map([[sessionId, row.id]]), context.ids);
      await logChange(context, db, 'split', 'session', sessionId, {
        into: row.id,
        dishes: going.map(({ title }) => title),
      });
      const said = `Split ${session.title}: ${going.map(({ title }) => title).join(', ')} on ${sayDay(row.date)}`;
      await changeSessions(context, db, [{ sessionId, version, change: {} }], said, { madeId: row.id, dishIds });
      return row.id;
    }),
});
