import type { LockedSheet } from '@/core/kits/record/locked-sheet';
import { latestSheetId, sheetById } from '@/store/bench';
import type { Db } from '@/store/store';
import { ServiceError } from '../errors';
import type { Context } from '../gate/gate';
import { knownSnapshot, readSnapshot } from '../sheet/session-sheet';

/** The sheet being packed. @throws ServiceError when nothing is locked */
export async function loadLocked(
  context: Context,
  sessionId: string,
  db: Db = context.store.db,
): Promise<{ locked: LockedSheet; revision: number }> {
  const head = await latestSheetId(db, context.actor.programmeId, sessionId);
  if (!head)
    throw new ServiceError('not-found', 'There is no locked kit sheet for this session yet: lock it first, then pack.');
  const locked = knownSnapshot(head.fingerprint) ?? readSnapshot(await sheetById(db, head.id));
  return { locked, revision: head.revision };
}
