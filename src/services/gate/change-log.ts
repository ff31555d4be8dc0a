import { insert } from '@/store/query';
import type { Db } from '@/store/store';
import type { Context } from './gate';

/** Adds to the append-only log who changed what and when; in the same transaction as the change itself. @returns id of the entry */
export async function logChange(
  context: Context,
  db: Db,
  action: string,
  entity: string,
  entityId: string,
  detail: Readonly<Record<string, unknown>> = {},
): Promise<string> {
  const id = context.ids();
  await insert(db, db.models.change, [
    {
      id,
      programmeId: context.actor.programmeId,
      at: new Date(context.clock().epochMilliseconds),
      actorId: context.actor.id,
      action,
      entity,
      entityId,
      detail,
    },
  ]);
  return id;
}
