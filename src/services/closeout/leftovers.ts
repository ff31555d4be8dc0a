import { z } from 'zod';
import { holdLots } from '@/store/buying';
import { lotsTakenFor } from '@/store/closeout';
import { find, findOne, insert } from '@/store/query';
import type { Db } from '@/store/store';
import { appendMoves, lotsNow } from '../buying/stock';
import { openRoom } from '../classday/room';
import { notFound, ServiceError } from '../errors';
import { type Context, nowOf, ROLES, service } from '../gate/gate';
import { loadProgramme, type Programme } from '../sheet/load-programme';
import { refuseBefore } from './closing';

/** What becomes of what is left of a lot. */
export const FATES = ['kept', 'so much is left', 'thrown away', 'given away'] as const;

/** Lots that were taken or made for a session of which something is left, with what was said of each. */
export async function leftoversOf(
  context: Context,
  sessionId: string,
  { reference }: Pick<Programme, 'reference'>,
  db: Db = context.store.db,
) {
  const taken = new Set(
    (await lotsTakenFor(db, { programmeId: context.actor.programmeId, sessionId })).map(({ lotId }) => lotId),
  );
  if (taken.size === 0) return [];
  const said = new Map(
    (await find(db, db.models.closeNote, { sessionId, what: 'lot' }, [['at', 'ASC']])).map(({ item, words }) => [
      item,
      words,
    ]),
  );
  return (await lotsNow(context, db, reference))
    .filter(({ id, now }) => taken.has(id) && now.loose > 0)
    .map(({ id, name, ingredient, now }) => ({
      lotId: id,
      name,
      ingredient,
      /** Open or loose, by the books. */
      grams: now.loose,
      last: now.lastOpen,
      storage: now.storage,
      said: said.get(id) ?? '',
    }));
}

export const settleLeftover = service({
  title: 'Say what becomes of what is left of a lot after a session',
  roles: ROLES,
  input: z.object({
    /** Made by the page: sent twice, it counts once. */
    id: z.uuid(),
    sessionId: z.uuid(),
    lotId: z.uuid(),
    fate: z.enum(FATES),
    /** What the scale says, or the eye; of what is kept. */
    grams: z.coerce
      .number('Write the grams as a number.')
      .int('Whole grams.')
      .min(0, 'Not less than nothing.')
      .max(1_000_000)
      .optional(),
  }),
  run: async (context, { id, sessionId, lotId, fate, grams }) => {
    const { bundle } = await openRoom(context, sessionId);
    await refuseBefore(context, bundle.session);
    const { programme } = await loadProgramme(context);
    if (fate === 'so much is left' && grams === undefined)
      throw new ServiceError('invalid', 'Nothing was saved yet.', [{ where: 'grams', message: 'How many grams?' }]);
    await context.store.transaction(async (db) => {
      // Two phones at one lot wait for each other here: what is left is what it is by then.
      await holdLots(db, { programmeId: context.actor.programmeId, ids: [lotId] });
      // Sent again, whose answer was lost.
      if (await findOne(db, db.models.closeNote, { id })) return;
      const left = (await leftoversOf(context, sessionId, programme, db)).find((each) => each.lotId === lotId);
      if (!left) throw notFound('lot');
      if (fate === 'so much is left' && (grams ?? 0) > left.grams)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          {
            where: 'grams',
            message: `By the books ${left.grams} g of it are open: more than that cannot be left. Count the shelf if the books are wrong.`,
          },
        ]);
      const made = { sessionId, at: nowOf(context), actorId: context.actor.id };
      const note = { item: lotId, percent: null, bad: null, pieces: null, words: fate };
      await insert(db, db.models.closeNote, [{ id, what: 'lot', ...note, ...made }]);
      const gone = fate === 'so much is left' ? left.grams - (grams ?? 0) : fate === 'kept' ? 0 : left.grams;
      if (gone === 0) return;
      const kind = fate === 'thrown away' || fate === 'given away' ? fate : ('used' as const);
      const reason = kind === 'thrown away' ? ('left over, not kept' as const) : ('' as const);
      const move = { id: context.ids(), lotId, kind, packs: 0, grams: gone, storage: null, placeId: null, reason };
      await appendMoves(context, db, [{ ...move, sessionId }]);
    });
  },
});
