import { find, findOne } from '@/store/query';
import type { Db } from '@/store/store';
import { type Context, nowOf } from '../gate/gate';
import { queueMessage } from './messages';

type From = Pick<Context, 'clock' | 'ids'>;

/**
 * Tells a member that something about their way in was changed, in the transaction that changes it: whoever did it, the
 * owner hears of it (OWASP ASVS 2.2.3).
 *
 * @param what a sentence's middle: "your password was changed"
 */
export async function tellMember(from: From, db: Db, memberId: string, what: string): Promise<void> {
  const member = await findOne(db, db.models.member, { id: memberId, status: 'active' });
  if (member) await tell(from, db, member, what);
}

/** Tells every coordinator of a programme. */
export async function tellCoordinators(from: From, db: Db, programmeId: string, what: string): Promise<void> {
  for (const member of await find(db, db.models.member, { programmeId, role: 'coordinator', status: 'active' }))
    await tell(from, db, member, what);
}

async function tell(
  from: From,
  db: Db,
  { programmeId, email, name }: { programmeId: string; email: string; name: string },
  what: string,
): Promise<void> {
  const at = nowOf(from).toISOString().slice(0, 16).replace('T', ' ');
  await queueMessage(from, db, programmeId, {
    sentTo: email,
    subject: `Logistra: ${what}`.slice(0, 190),
    body: `Hello ${name},\n\n${what}, at ${at} UTC.\n\nIf this was not you, or you did not expect it: ask for a new password on the sign-in page, sign out everywhere, and tell a coordinator of your programme.`,
  });
}
