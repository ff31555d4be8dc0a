import type { Take } from '@/core/buying/take-out';
import { find } from '@/store/query';
import type { Db } from '@/store/store';
import type { Context } from '../gate/gate';

/** Which revision of the sheet gave the letters, and the letters: "3|A C". */
export const writeFor = (revision: number, letters: readonly string[]): string => `${revision}|${letters.join(' ')}`;
/** The same, read. */
export const readFor = (reason: string): { revision: number; letters: string[] } => {
  const [revision = '0', letters = ''] = reason.split('|');
  return { revision: Number(revision), letters: letters.split(' ').filter(Boolean) };
};

/** What was taken of a lot for a session. */
export interface Taken extends Take {
  readonly sessionId: string;
  readonly product: string;
  /** Of the lot; null where nobody read it. */
  readonly label: readonly string[] | null;
}

/** What was taken off the shelves for sessions before. */
export async function takenFor(context: Context, db: Db, sessionIds: readonly string[]): Promise<Taken[]> {
  const { programmeId } = context.actor;
  const moves = await find(db, db.models.stockMove, { programmeId, sessionId: [...sessionIds], kind: 'used' });
  if (moves.length === 0) return [];
  const lots = await find(db, db.models.stockLot, { programmeId, id: [...new Set(moves.map(({ lotId }) => lotId))] });
  return moves.map(({ lotId, packs, grams, reason, sessionId }) => ({
    sessionId: sessionId ?? '',
    lotId,
    ingredient: lots.find(({ id }) => id === lotId)?.ingredient ?? '',
    product: lots.find(({ id }) => id === lotId)?.name ?? '',
    label: lots.find(({ id }) => id === lotId)?.allergens ?? null,
    letters: readFor(reason).letters,
    packs,
    grams,
  }));
}
