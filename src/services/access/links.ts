import { z } from 'zod';
import type { Limit } from '@/store/attempts';
import { change, findOne, insert } from '@/store/query';
import type { AccessLinkRow } from '@/store/rows';
import { type Db, isDuplicate } from '@/store/store';
import { ServiceError } from '../errors';
import { queueMessage } from '../messages/messages';
import { logChange } from './change-log';
import { type Context, nowOf } from './gate';
import { hashPassword, hashSecret, newPassword, newSecret } from './passwords';
import { refuseTooMany, type Visit } from './sign-in';

const HOURS_TO_RESET = 1;

const LIMITS = {
  asking: { name: 'reset-asked', points: 5, seconds: 60 * 60 },
  opening: { name: 'link-opened', points: 60, seconds: 15 * 60 },
} as const satisfies Record<string, Limit>;

/** Makes a link that works once. @returns its secret, which is kept nowhere else */
export async function makeLink(
  from: Pick<Context, 'clock' | 'ids'>,
  db: Db,
  link: Pick<AccessLinkRow, 'programmeId' | 'purpose' | 'email' | 'role' | 'memberId'>,
  hours: number,
): Promise<string> {
  const secret = newSecret();
  const createdAt = nowOf(from);
  const expiresAt = new Date(createdAt.getTime() + hours * 3_600_000);
  const row = { ...link, id: from.ids(), tokenHash: hashSecret(secret), createdAt, expiresAt, usedAt: null };
  await insert(db, db.models.accessLink, [row]);
  return secret;
}

/** A link that still works, or undefined. Guessing is limited. */
export async function openLink(visit: Visit, purpose: 'invite' | 'reset', secret: string) {
  await refuseTooMany(visit.store, [[LIMITS.opening, visit.ip]]);
  return validLink(visit, visit.store.db, purpose, secret);
}

async function validLink(visit: Visit, db: Db, purpose: 'invite' | 'reset', secret: string) {
  const link = await findOne(db, db.models.accessLink, { tokenHash: hashSecret(secret), purpose });
  if (!link || link.usedAt || link.expiresAt <= nowOf(visit)) return undefined;
  return link;
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
    (await change(db, 'UPDATE access_link SET used_at = :now WHERE id = :id AND used_at IS NULL', {
      id: link.id,
      now: nowOf(visit),
    }));
  if (!link || used !== 1) throw GONE;
  return link;
}

/**
 * Asks for a new password: a link goes to the e-mail if a member has it. The answer is the same either way, so that
 * nobody learns who is a member.
 */
export async function askForPassword(visit: Visit, email: string): Promise<void> {
  const address = email.trim().toLowerCase().slice(0, 190);
  await refuseTooMany(visit.store, [
    [LIMITS.asking, address],
    [LIMITS.asking, visit.ip],
  ]);
  await visit.store.transaction(async (db) => {
    const member = await findOne(db, db.models.member, { email: address, status: 'active' });
    if (!member) return;
    const { programmeId } = member;
    const link = { programmeId, purpose: 'reset' as const, email: address, role: null, memberId: member.id };
    const secret = await makeLink(visit, db, link, HOURS_TO_RESET);
    await queueMessage(visit, db, programmeId, {
      sentTo: address,
      subject: 'A new password for Logistra',
      body: `Hello ${member.name},\n\nset a new password here, within one hour:\n${visit.address}/reset/${secret}\n\nIf you did not ask for it, do nothing: your password stays as it is.`,
    });
  });
}

/** Sets a new password by link, and ends every sign-in of that member. @returns the member's id */
export async function resetPassword(visit: Visit, secret: string, password: string): Promise<string> {
  const passwordHash = await hashPassword(check(z.object({ password: newPassword }), { password }).password);
  return visit.store.transaction(async (db) => {
    const { memberId, programmeId } = await useLink(visit, db, 'reset', secret);
    const member = await findOne(db, db.models.member, { id: memberId ?? '', status: 'active' });
    if (!member) throw GONE;
    await change(db, 'UPDATE member SET password_hash = :passwordHash, version = version + 1 WHERE id = :id', {
      id: member.id,
      passwordHash,
    });
    await endAllSignIns(db, member.id, nowOf(visit));
    await logChange(asMember(visit, member.id, programmeId), db, 'set a new password', 'member', member.id);
    return member.id;
  });
}

/** Ends every sign-in of a member. @returns how many were open */
export const endAllSignIns = (db: Db, memberId: string, now: Date): Promise<number> =>
  change(db, 'UPDATE sign_in SET ended_at = :now WHERE member_id = :memberId AND ended_at IS NULL', { memberId, now });

const invited = z.object({
  name: z.string().trim().min(1, 'Say what you are called.').max(120),
  email: z.email('Write an e-mail address, such as robin@example.org.').max(190),
  password: newPassword,
});

/** Joins a programme by invitation. @returns the new member's id */
export async function acceptInvitation(
  visit: Visit,
  secret: string,
  written: { name: string; email: string; password: string },
): Promise<string> {
  const link = await openLink(visit, 'invite', secret);
  if (!link) throw GONE;
  // The e-mail is the invited one; only the first coordinator, whom nobody could invite, gives their own.
  const { name, email, password } = check(invited, { ...written, email: link.email || written.email });
  const passwordHash = await hashPassword(password);
  const { programmeId, role } = link;
  try {
    return await visit.store.transaction(async (db) => {
      await useLink(visit, db, 'invite', secret);
      const id = visit.ids();
      const member = { id, programmeId, email: email.toLowerCase(), name, role: role ?? 'crew', passwordHash };
      await insert(db, db.models.member, [{ ...member, status: 'active', version: 1 }]);
      await logChange(asMember(visit, id, programmeId), db, 'joined', 'member', id, { role });
      return id;
    });
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    const message = 'Somebody signs in with this e-mail already.';
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
