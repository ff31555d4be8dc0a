import { findOne, insert } from '@/store/query';
import { type Db, isDuplicate } from '@/store/store';
import { ServiceError } from '../errors';
import { type Context, nowOf } from '../gate/gate';

/**
 * A context in which a service saves once, however often the same request is sent: what its transaction comes to is kept
 * in that very transaction, so that either both are there or neither. A request that was done before gets the kept
 * result, and changes nothing. Kept for a day.
 *
 * @param key made by the sender, up to 120 characters
 * @param request identifies the request, so that a key is not used for two different ones
 */
export function onceOnly(context: Context, key: string, request: string): Context {
  const { id: actorId, programmeId } = context.actor;

  /** What this request came to before, if it was done. */
  async function earlier<T>(db: Db): Promise<{ result: T } | undefined> {
    const reply = await findOne(db, db.models.idempotentReply, { actorId, idempotencyKey: key });
    if (!reply) return undefined;
    if (reply.request === request) return reply.body as { result: T };
    const message = 'This key was used for another request. Make a new key for each new request.';
    throw new ServiceError('invalid', message, [{ where: 'Idempotency-Key', message }]);
  }

  async function transaction<T>(work: (db: Db) => Promise<T>): Promise<T> {
    const before = await earlier<T>(context.store.db);
    if (before) return before.result;
    try {
      return await context.store.transaction(async (db) => {
        const result = await work(db);
        const row = { actorId, idempotencyKey: key, request, programmeId, body: { result } };
        await insert(db, db.models.idempotentReply, [{ ...row, createdAt: nowOf(context) }]);
        return result;
      });
    } catch (error) {
      // The same request came twice at once: the other was quicker, and nothing of this one was saved.
      const other = isDuplicate(error) ? await earlier<T>(context.store.db) : undefined;
      if (other) return other.result;
      throw error;
    }
  }
  return { ...context, store: { ...context.store, transaction } };
}
