import { z } from 'zod';
import { saveClassMinutes } from '@/store/classday';
import { comingIds } from '@/store/plan';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';
import { loadBundle } from '../plan/sessions';

const minutes = z.coerce
  .number('Write the minutes as a number.')
  .int('Whole minutes.')
  .min(0, 'Not less than 0.')
  .max(240, 'At most four hours.');

export const setClassMinutes = service({
  title: 'Say how a class spends the minutes in which nobody cooks: opening, showing, eating, cleaning',
  roles: ['coordinator', 'instructor'],
  input: z.object({
    sessionId: z.uuid(),
    opening: minutes,
    demonstration: minutes,
    eating: minutes,
    cleaning: minutes,
    /** For those of its course after it, too. */
    forCourse: z.boolean().default(false),
  }),
  run: (context, { sessionId, forCourse, ...own }) =>
    context.store.transaction(async (db) => {
      const { session } = await loadBundle(context, sessionId, db);
      const all = own.opening + own.demonstration + own.eating + own.cleaning;
      if (all >= session.minutes)
        throw new ServiceError(
          'invalid',
          `These are ${all} minutes, and the class has ${session.minutes}: nothing is left for cooking.`,
        );
      const after = forCourse ? await comingIds(db, { courseId: session.courseId, today: session.date }) : [];
      const ids = [...new Set([sessionId, ...after.map(({ id }) => id)])];
      for (const id of ids) await saveClassMinutes(db, { sessionId: id, ...own });
      await logChange(context, db, 'set the minutes of', 'session', sessionId, { ...own, classes: ids.length });
    }),
});
