import { z } from 'zod';
import { endLinksOf, endSignInsOf, setPassword, useLinkOnce } from '@/store/access';
import type { Limit } from '@/store/attempts';
import { freshMember } from '@/store/fresh';
import { findOne, insert } from '@/store/query';
import { type Db, isDuplicate } from '@/store/store';
import type { AccessLinkRow, MemberRow } from '@/store/tables/access';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf } from '../gate/gate';
import { linkSecret } from '../gate/keys';
import { logSecurity } from '../gate/security-log';
import { isOpen, LINK_PLACE } from '../messages/link-place';
import { queueMessage } from '../messages/messages';
import { tellMember } from '../messages/notices';
import { addressOf } from './addresses';
import { hashPassword, hashSecret, newPassword, refuseCommon } from './passwords';
import { refuseTooMany, type Visit } from './sign-in';

const HOURS_TO_RESET = 1;

const LIMITS = {
  asking: { name: 'reset-asked', points: 5, seconds: 60 * 60 },
  opening: { name: 'link-opened', points: 60, seconds: 15 * 60 },
} as const satisfies Record<string, Limit>;

/** Makes a link that works once. @returns its id, and its secret for who may see it now */
export async function makeLink(
  from: Pick<Context, 'clock' | 'ids' | 'deploymentKey'>,
  db: Db,
  link: Pick<AccessLinkRow, 'programmeId' | 'purpose' | 'email' | 'role' | 'memberId' | 'createdBy'> & {
    readonly crewId?: string;
    readonly householdId?: string;
    readonly sessionId?: string;
  },
  hours: number,
): Promise<{ id: string; secret: string }> {
  const id = from.ids();
  const secret = linkSecret(from, id);
  const createdAt = nowOf(from);
  const expiresAt = new Date(createdAt.getTime() + hours * 3_600_000);
  await insert(db, db.models.accessLink, [
    {
      crewId: null,
      householdId: null,
      sessionId: null,
      ...link,
      id,
      tokenHash: hashSecret(secret),
      createdAt,
      expiresAt,
      usedAt: null,
    },
  ]);
  return { id, secret };
}

/** A link that still works, or undefined. Guessing is limited. */
export async function openLink(visit: Visit, purpose: AccessLinkRow['purpose'], secret: string) {
  await refuseTooMany(visit.store, [[LIMITS.opening, visit.ip]]);
  const link = await validLink(visit, visit.store.db, purpose, secret);
  if (!link) await logSecurity(visit, 'link did not work', { ip: visit.ip, detail: purpose });
  return link;
}

/** A link that still works, or undefined; whoever asks without one is not counted. */
export async function validLink(visit: Visit, db: Db, purpose: AccessLinkRow['purpose'], secret: string) {
  const link = await findOne(db, db.models.accessLink, { tokenHash: hashSecret(secret), purpose });
  return link && isOpen(link, nowOf(visit)) ? link : undefined;
}

const GONE = new ServiceError(
  'not-found',
  'This link has been used, or has ended. Ask a coordinator for a new invitation, or ask for a new password again.',
);

/** Uses a link up: of two browsers at once, one gets it. */
async function useLink(visit: Visit, db: Db, purpose: 'invite' | 'reset', secret: string): Promise<AccessLinkRow> {
  const link = await validLink(visit, db, purpose, secret);
  const used =
    link &&
    (await useLinkOnce(db, {
      id: link.id,
      now: nowOf(visit),
    }));
  if (!link || used !== 1) throw GONE;
  return link;
}

/**
 * Asks for a new password: a link goes to the stored address of the member who has this very one. The answer is the same
 * either way, so that nobody learns who is a member.
 */
export async function askForPassword(visit: Visit, email: string): Promise<void> {
  const address = addressOf(email);
  await refuseTooMany(visit.store, [
    [LIMITS.asking, address],
    [LIMITS.asking, visit.ip],
  ]);
  await visit.store.transaction(async (db) => {
    const member = await findOne(db, db.models.member, { email: address, status: 'active' });
    const about = { programmeId: member?.programmeId ?? null, actorId: member?.id ?? null, ip: visit.ip };
    await logSecurity(visit, 'asked for a new password', about);
    if (member) await sendPasswordLink(visit, db, member);
  });
}

async function sendPasswordLink(visit: Visit, db: Db, member: MemberRow): Promise<void> {
  const { id: memberId, programmeId, email, name } = member;
  const { id: linkId } = await passwordLink(visit, db, member);
  await queueMessage(visit, db, programmeId, {
    sentTo: email,
    subject: 'A new password for Logistra',
    body: `Hello ${name},\n\nset a new password here, within one hour:\n${visit.address}/reset/${LINK_PLACE}\n\nIf you did not ask for it, do nothing: your password stays as it is.`,
    linkId,
  });
  await logChange(asMember(visit, memberId, programmeId), db, 'asked for a new password', 'member', memberId);
}

/** A link for a new password of a member, for an hour; earlier ones end. */
export async function passwordLink(
  from: Pick<Context, 'clock' | 'ids' | 'deploymentKey'>,
  db: Db,
  member: Pick<MemberRow, 'id' | 'programmeId' | 'email'>,
): Promise<{ id: string; secret: string }> {
  await endAllLinks(db, member, nowOf(from));
  const { id: memberId, programmeId, email } = member;
  const link = { programmeId, purpose: 'reset' as const, email, role: null, memberId, createdBy: null };
  return makeLink(from, db, link, HOURS_TO_RESET);
}

/** Sets a new password by link, and ends every sign-in and every other link of that member. @returns the member */
export async function resetPassword(visit: Visit, secret: string, password: string): Promise<MemberRow> {
  // Nothing is hashed for somebody without a link: that would cost the server more than them.
  const link = await openLink(visit, 'reset', secret);
  const { db: reading } = visit.store;
  const owner = link && (await findOne(reading, reading.models.member, { id: link.memberId ?? '', status: 'active' }));
  if (!owner) throw GONE;
  check(z.object({ password: newPassword }), { password });
  await refuseCommon(password, [owner.name, owner.email]);
  const passwordHash = await hashPassword(visit, password);
  return visit.store.transaction(async (db) => {
    const { memberId, programmeId } = await useLink(visit, db, 'reset', secret);
    const member = await findOne(db, db.models.member, { id: memberId ?? '', status: 'active' });
    if (!member) throw GONE;
    await setPassword(db, {
      id: member.id,
      passwordHash,
    });
    await endAllSignIns(db, member.id, nowOf(visit));
    await endAllLinks(db, member, nowOf(visit));
    await logChange(asMember(visit, member.id, programmeId), db, 'set a new password', 'member', member.id);
    await tellMember(visit, db, member.id, 'a new password was set by a link');
    return member;
  });
}

/** Ends every link that was sent to a member, or to their address. */
export const endAllLinks = (db: Db, { id, email }: Pick<MemberRow, 'id' | 'email'>, now: Date): Promise<number> =>
  endLinksOf(db, {
    id,
    email,
    now,
  });

/** Ends every sign-in of a member. @returns how many were open */
export const endAllSignIns = (db: Db, memberId: string, now: Date): Promise<number> =>
  endSignInsOf(db, { memberId, now });

const invited = z.object({
  name: z.string().trim().min(1, 'Say what you are called.').max(120),
  email: z.email('Write an e-mail address, such as robin@example.org.').max(190),
  password: newPassword,
});

/** Joins a programme by invitation. @returns the new member */
export async function acceptInvitation(
  visit: Visit,
  secret: string,
  written: { name: string; email: string; password: string },
): Promise<MemberRow> {
  const link = await openLink(visit, 'invite', secret);
  if (!link) throw GONE;
  // The e-mail is the invited one; only the first coordinator, whom nobody could invite, gives their own.
  const { name, email, password } = check(invited, { ...written, email: link.email || written.email });
  await refuseCommon(password, [name, email]);
  const passwordHash = await hashPassword(visit, password);
  const { programmeId, role } = link;
  try {
    return await visit.store.transaction(async (db) => {
      await useLink(visit, db, 'invite', secret);
      const id = visit.ids();
      const member = freshMember({
        id,
        programmeId,
        email: addressOf(email),
        name,
        role: role ?? 'crew',
        passwordHash,
      });
      await insert(db, db.models.member, [member]);
      await endAllLinks(db, member, nowOf(visit));
      await logChange(asMember(visit, id, programmeId), db, 'joined', 'member', id, { role });
      return member;
    });
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    // Said to the one who has the link, and so the mailbox; only the first coordinator types an address.
    const message = 'This e-mail cannot be used here. Ask whoever invited you to write to another address of yours.';
    throw new ServiceError('invalid', message, [{ where: 'email', message }]);
  }
}

function check<T extends z.ZodType>(schema: T, value: unknown): z.output<T> {
  const reading = schema.safeParse(value);
  if (reading.success) return reading.data;
  throw new ServiceError(
    'invalid',
    'Something is not right yet.',
    reading.error.issues.map((issue) => ({ where: String(issue.path[0] ?? ''), message: issue.message })),
  );
}

/** For the change log: the member acts, though not signed in yet. */
const asMember = (visit: Visit, id: string, programmeId: string): Context => ({
  ...visit,
  actor: { id, programmeId, name: '', role: 'crew' },
});
