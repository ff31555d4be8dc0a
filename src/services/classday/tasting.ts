import { z } from 'zod';
import { FACES, triesOf, votesOf } from '@/core/classday/tasting';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { programmeTastings } from '@/store/classday';
import { closedNow } from '@/store/closeout';
import { holdSessions } from '@/store/plan';
import { find, insert } from '@/store/query';
import { ServiceError } from '../errors';
import { nowOf, ROLES, service } from '../gate/gate';
import { openRoom } from './room';

export const viewTasting = service({
  title: 'See what the children of a class may say of its dishes, and what they said',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { bundle, coming } = await openRoom(context, sessionId);
    const { db } = context.store;
    const rows = await find(db, db.models.tasting, { sessionId }, [
      ['at', 'ASC'],
      ['id', 'ASC'],
    ]);
    const foods = new Map(
      bundle.dishes.map(({ id, body }) => [
        id,
        [...new Set(wholeRecipe(body).lines.map(({ ingredient }) => ingredient))],
      ]),
    );
    // How often each child tried each food, in all sessions of the programme whose dishes are known here.
    const all = await programmeTastings(db, {
      programmeId: context.actor.programmeId,
      ids: coming.map(({ id }) => id),
    });
    const tries = triesOf(
      all.map(({ body: _, ...row }) => row),
      (dishId) => {
        const own = foods.get(dishId);
        if (own) return own;
        const body = all.find((row) => row.dishId === dishId)?.body;
        return body ? [...new Set(wholeRecipe(body).lines.map(({ ingredient }) => ingredient))] : [];
      },
    );
    return {
      session: { id: sessionId, title: bundle.session.title, date: bundle.session.date },
      dishes: bundle.dishes.map(({ id, title }) => ({ id, title, votes: votesOf(rows, id) })),
      people: coming
        .map(({ id, name }) => ({
          id,
          name,
          tasted: rows.filter(({ enrolmentId }) => enrolmentId === id).map(({ dishId, face }) => ({ dishId, face })),
          tries: [...(tries.get(id) ?? [])].map(([food, times]) => ({ food, times })).sort((a, b) => b.times - a.times),
        }))
        .sort((a, b) => a.name.localeCompare(b.name)),
    };
  },
});

export const taste = service({
  title: 'Say what one thinks of a dish, with a name or without',
  roles: ROLES,
  input: z.object({
    sessionId: z.uuid(),
    events: z
      .array(
        z.object({
          /** Made by the screen: sent twice, it counts once. */
          id: z.uuid(),
          dishId: z.uuid(),
          face: z.enum(FACES),
          enrolmentId: z.uuid().nullable().default(null),
        }),
      )
      .min(1)
      .max(200),
  }),
  run: async (context, { sessionId, events }) => {
    const { bundle, coming } = await openRoom(context, sessionId);
    for (const { dishId, enrolmentId } of events) {
      if (!bundle.dishes.some((dish) => dish.id === dishId))
        throw new ServiceError('not-found', 'This dish is not cooked here any more: load the page again.');
      if (enrolmentId && !coming.some((row) => row.id === enrolmentId))
        throw new ServiceError('not-found', 'This person is not expected here.');
    }
    await context.store.transaction(async (db) => {
      // Sent twice at once, the second waits, and finds the first.
      await holdSessions(db, context.actor.programmeId, [sessionId]);
      if (await closedNow(db, sessionId))
        throw new ServiceError('stale', 'This session is closed: open it again to add what somebody thought.');
      const known = new Set(
        (await find(db, db.models.tasting, { id: events.map(({ id }) => id) })).map(({ id }) => id),
      );
      const made = { sessionId, at: nowOf(context), actorId: context.actor.id };
      await insert(
        db,
        db.models.tasting,
        events.filter(({ id }) => !known.has(id)).map((event) => ({ ...event, ...made })),
      );
    });
    return {};
  },
});
