import { z } from 'zod';
import { editedSession, newSession } from '@/contracts/plan';
import { find, findOne, insert, remove, updateVersion } from '@/store/query';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import { type Db, isDuplicate } from '@/store/store';
import { logChange } from '../access/change-log';
import { type Context, service } from '../access/gate';
import { notFound, ServiceError, stale } from '../errors';
import { loadCourse } from './courses';

/** One session with all that belongs to it. @throws ServiceError when it is not the asker's */
export async function loadBundle(
  context: Context,
  sessionId: string,
  db: Db = context.store.db,
): Promise<SessionBundle> {
  const [bundle] = await loadSessionBundles(db, context.actor.programmeId, { ids: [sessionId] });
  if (!bundle) throw notFound('session');
  return bundle;
}

export const addSession = service({
  title: 'Add a session',
  roles: ['coordinator'],
  input: newSession,
  run: (context, session) =>
    context.store.transaction(async (db) => {
      await loadCourse(context, session.courseId, db);
      const others = await find(db, db.models.session, { courseId: session.courseId });
      const number = Math.max(0, ...others.map((other) => other.number)) + 1;
      const id = context.ids();
      await insert(db, db.models.session, [{ id, number, ...session, version: 1 }]);
      await logChange(context, db, 'added', 'session', id, session);
      return id;
    }),
});

export const editSession = service({
  title: 'Change a session’s date, place or mode',
  roles: ['coordinator'],
  input: editedSession,
  run: (context, { sessionId, version, ...values }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      if (!(await updateVersion(db, db.models.session, sessionId, version, values))) throw stale('The session');
      await logChange(context, db, 'changed', 'session', sessionId, values);
    }),
});

export const addDish = service({
  title: 'Choose a dish for a session',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), recipeId: z.uuid('Choose a recipe.') }),
  run: async (context, { sessionId, recipeId }) => {
    try {
      await context.store.transaction(async (db) => {
        const bundle = await loadBundle(context, sessionId, db);
        const recipe = await findOne(db, db.models.recipe, { id: recipeId, programmeId: context.actor.programmeId });
        if (!recipe) throw notFound('recipe');
        const position = Math.max(0, ...bundle.dishes.map((dish) => dish.position)) + 1;
        await insert(db, db.models.dish, [{ id: context.ids(), sessionId, recipeId, position }]);
        await logChange(context, db, 'chose a dish', 'session', sessionId, { recipeId, title: recipe.title });
      });
    } catch (error) {
      if (isDuplicate(error)) throw new ServiceError('invalid', 'This dish is chosen for the session already.');
      throw error;
    }
  },
});

export const removeDish = service({
  title: 'Take a dish off a session',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), dishId: z.uuid() }),
  run: (context, { sessionId, dishId }) =>
    context.store.transaction(async (db) => {
      const bundle = await loadBundle(context, sessionId, db);
      const dish = bundle.dishes.find((candidate) => candidate.id === dishId);
      if (!dish) throw notFound('dish');
      await remove(db, db.models.dish, { id: dishId });
      await logChange(context, db, 'took off a dish', 'session', sessionId, {
        recipeId: dish.recipeId,
        title: dish.title,
      });
    }),
});
