import { z } from 'zod';
import { insert } from '@/store/query';
import type { Db } from '@/store/store';
import type { SheetNoteRow } from '@/store/tables/kits';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { loadSheet } from './kit-sheet';

const reason = z.string().trim().min(3, 'Say in a few words why.').max(255, 'At most 255 characters.');

/** Writes down what was decided about a sheet. */
async function note(
  context: Context,
  db: Db,
  decided: Pick<SheetNoteRow, 'sessionId' | 'kind' | 'revision' | 'basis' | 'reason'>,
): Promise<void> {
  await insert(db, db.models.sheetNote, [
    { id: context.ids(), ...decided, at: nowOf(context), actorId: context.actor.id },
  ]);
}

export const refuseDifferences = service({
  title: 'Refuse the differences of a locked kit sheet',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), basis: z.string().length(64), reason }),
  run: (context, { sessionId, basis, reason: why }) =>
    context.store.transaction(async (db) => {
      const { bundle, sheet } = await loadSheet(context, sessionId, db);
      if (!sheet.locked || sheet.differences.length === 0)
        throw new ServiceError('invalid', 'Nothing has changed since the last lock: there is nothing to refuse.');
      if (sheet.basis !== basis)
        throw new ServiceError(
          'stale',
          'Something more has changed while you were looking. Look at the differences again.',
        );
      const revision = bundle.sheet?.revision ?? 0;
      await note(context, db, { sessionId, kind: 'refused', revision, basis, reason: why });
      await logChange(context, db, 'refused differences', 'session', sessionId, { revision, reason: why });
    }),
});

export const unlockSheet = service({
  title: 'Unlock a kit sheet, with a reason',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), revision: z.coerce.number().int(), reason }),
  run: (context, { sessionId, revision, reason: why }) =>
    context.store.transaction(async (db) => {
      const { bundle, sheet } = await loadSheet(context, sessionId, db);
      if (!sheet.locked) throw new ServiceError('invalid', 'This kit sheet is not locked.');
      if (bundle.sheet?.revision !== revision)
        throw new ServiceError('stale', 'Somebody locked it anew while you were looking. Look at it again.');
      await note(context, db, { sessionId, kind: 'unlocked', revision, basis: '', reason: why });
      await logChange(context, db, 'unlocked the kit sheet', 'session', sessionId, { revision, reason: why });
    }),
});
