import { z } from 'zod';
import { ROUTINES } from '@/core/classday/routines';
import { updateVersion } from '@/store/query';
import { stale } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';

const MOST_LINES = 20;

/** One a row; none for the usual ones. */
const lines = z
  .array(z.string().trim().min(1).max(170, 'At most 170 characters a line.'))
  .max(MOST_LINES, `At most ${MOST_LINES} lines.`)
  .default([]);

export const setClassWords = service({
  title: 'Write the programme’s own opening, fire and closing routines, and the number to call',
  roles: ['coordinator'],
  input: z.object({
    version: z.coerce.number().int(),
    opening: lines,
    fire: lines,
    closing: lines,
    emergency: z.string().trim().max(60, 'At most 60 characters.').default(''),
  }),
  run: (context, { version, emergency, ...routines }) =>
    context.store.transaction(async (db) => {
      const id = context.actor.programmeId;
      const written = ROUTINES.flatMap((key) => (routines[key].length > 0 ? [[key, routines[key]] as const] : []));
      const classWords = { ...Object.fromEntries(written), ...(emergency ? { emergency } : {}) };
      if (!(await updateVersion(db, db.models.programme, id, version, { classWords }))) throw stale('The programme');
      await logChange(context, db, 'wrote the routines of', 'programme', id, { changed: written.map(([key]) => key) });
    }),
});
