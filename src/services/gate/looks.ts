import { insert } from '@/store/query';
import { type Context, nowOf } from './gate';

/** Keeps that somebody looked at what people must avoid: who, when, where, and of how many people. */
export async function logLook(context: Context, page: string, entityId: string, people: number): Promise<void> {
  const { db } = context.store;
  const { id: actorId, name: actorName, programmeId } = context.actor;
  await insert(db, db.models.needLook, [
    { id: context.ids(), programmeId, actorId, actorName, page, entityId, people, at: nowOf(context) },
  ]);
}
