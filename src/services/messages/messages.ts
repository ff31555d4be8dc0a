import { z } from 'zod';
import { find, insert } from '@/store/query';
import type { Db } from '@/store/store';
import type { MessageRow } from '@/store/tables/messages';
import { type Context, nowOf, service } from '../gate/gate';
import { queueJob } from '../work/jobs';
import { isOpen, LINK_PLACE, withLink } from './link-place';

/**
 * Puts a message into the outbox, in the transaction of what it tells about: it goes out if, and only if, that is saved.
 * The background process hands it to the gateway.
 */
export async function queueMessage(
  from: Pick<Context, 'clock' | 'ids'>,
  db: Db,
  programmeId: string,
  message: Pick<MessageRow, 'sentTo' | 'subject' | 'body'> &
    Partial<Pick<MessageRow, 'linkId' | 'householdId' | 'crewId'>>,
): Promise<void> {
  const id = from.ids();
  await insert(db, db.models.message, [
    {
      linkId: null,
      householdId: null,
      crewId: null,
      ...message,
      id,
      programmeId,
      createdAt: nowOf(from),
      sentAt: null,
    },
  ]);
  await queueJob(from, db, programmeId, 'send message', { messageId: id });
}

/**
 * A message as a coordinator may read it: the link of an open invitation is made again for them, who may invite anybody, and that of
 * a family's page, all of which they may see; the link to somebody's password, or to a page of the crew, is for its owner alone.
 */
function shown(context: Context, body: string, linkId: string | null, invitations: ReadonlySet<string>): string {
  if (linkId === null) return body;
  return invitations.has(linkId)
    ? withLink(context, body, linkId)
    : body.replace(LINK_PLACE, '(a link that only the message held)');
}

export const listMessages = service({
  title: 'See the outbox',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const messages = await find(db, db.models.message, { programmeId }, [['createdAt', 'DESC']], 50);
    const ids = messages.flatMap(({ linkId }) => (linkId ? [linkId] : []));
    const links =
      ids.length > 0 ? await find(db, db.models.accessLink, { id: ids, purpose: ['invite', 'family'] }) : [];
    const invitations = new Set(links.filter((link) => isOpen(link, nowOf(context))).map(({ id }) => id));
    return messages.map(({ linkId, ...message }) => ({
      ...message,
      body: shown(context, message.body, linkId, invitations),
    }));
  },
});
