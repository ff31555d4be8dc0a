import { z } from 'zod';
import { find, insert } from '@/store/query';
import type { MessageRow } from '@/store/rows';
import type { Db } from '@/store/store';
import { type Context, nowOf, service } from '../access/gate';
import { queueJob } from '../work/jobs';

/**
 * Puts a message into the outbox, in the transaction of what it tells about: it goes out if, and only if, that is saved.
 * The background process hands it to the gateway.
 */
export async function queueMessage(
  from: Pick<Context, 'clock' | 'ids'>,
  db: Db,
  programmeId: string,
  message: Pick<MessageRow, 'sentTo' | 'subject' | 'body'>,
): Promise<void> {
  const id = from.ids();
  await insert(db, db.models.message, [{ ...message, id, programmeId, createdAt: nowOf(from), sentAt: null }]);
  await queueJob(from, db, programmeId, 'send message', { messageId: id });
}

export const listMessages = service({
  title: 'See the outbox',
  roles: ['coordinator'],
  input: z.object({}),
  run: (context) =>
    find(
      context.store.db,
      context.store.db.models.message,
      { programmeId: context.actor.programmeId },
      [['createdAt', 'DESC']],
      50,
    ),
});
