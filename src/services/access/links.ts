import { z } from 'zod';
import { LONGEST_PASSWORD } from '@/contracts/password';
import { endLinksOf, endSignInsEverywhere, setPassword, useLinkOnce } from '@/store/access';
import { addMember, type Membership, membershipsOf, NO_PASSWORD } from '@/store/accounts';
import type { Limit } from '@/store/attempts';
import { findOne, insert } from '@/store/query';
import { type Db, isDuplicate } from '@/store/store';
import type { AccessLinkRow, AccountRow, MemberRow } from '@/store/tables/access';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf } from '../gate/gate';
import { linkSecret } from '../gate/keys';
import { logSecurity } from '../gate/security-log';
import { isOpen, LINK_PLACE } from '../messages/link-place';
import { queueMessage } from '../messages/messages';
import { tellMember } from '../messages/notices';
import { addressOf } from './addresses';
import { hashPassword, hashSecret, newPassword, passwordFits, refuseCommon } from './passwords';
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
    const account = await findOne(db, db.models.account, { email: address });
    const [member] = account ? await membershipsOf(db, { accountId: account.id }) : [];
    const about = { programmeId: member?.programmeId ?? null, actorId: member?.id ?? null, ip: visit.ip };
    await logSecurity(visit, 'asked for a new password', about);
    // Messages go out from a programme: who belongs to none asks whoever looks after the machine.
    if (account && member) await sendPasswordLink(visit, db, account, member);
  });
}

async function sendPasswordLink(
  visit: Visit,
  db: Db,
  account: AccountRow,
  { id: memberId, programmeId, name }: Membership,
): Promise<void> {
  const { id: linkId } = await passwordLink(visit, db, account, programmeId);
  await queueMessage(visit, db, programmeId, {
    sentTo: account.email,
    subject: 'A new password for Logistra',
    body: `Hello ${name},\n\nset a new password here, within one hour:\n${visit.address}/reset/${LINK_PLACE}\n\nIf you did not ask for it, do nothing: your password stays as it is.`,
    linkId,
  });
  await logChange(asMember(visit, memberId, programmeId), db, 'asked for a new password', 'member', memberId);
}

/** A link for a new password of an account, for an hour; earlier ones end. */
export async function passwordLink(
  from: Pick<Context, 'clock' | 'ids' | 'deploymentKey'>,
  db: Db,
  { email }: Pick<AccountRow, 'email'>,
  programmeId: string | null,
): Promise<{ id: string; secret: string }> {
  await endLinksOf(db, { email, programmeId: null, now: nowOf(from) });
  const link = { programmeId, purpose: 'reset' as const, email, role: null, memberId: null, createdBy: null };
  return makeLink(from, db, link, HOURS_TO_RESET);
}

/** Sets a new password by link, and ends every sign-in and every other link of that account. @returns the account */
export async function resetPassword(visit: Visit, secret: string, password: string): Promise<AccountRow> {
  // Nothing is hashed for somebody without a link: that would cost the server more than them.
  const link = await openLink(visit, 'reset', secret);
  const { db: reading } = visit.store;
  const owner = link && (await findOne(reading, reading.models.account, { email: link.email }));
  if (!owner) throw GONE;
  check(z.object({ password: newPassword }), { password });
  const memberships = await membershipsOf(reading, { accountId: owner.id });
  await refuseCommon(password, [...memberships.map(({ name }) => name), owner.email]);
  const passwordHash = await hashPassword(visit, password);
  return visit.store.transaction(async (db) => {
    const { programmeId, email } = await useLink(visit, db, 'reset', secret);
    const account = await findOne(db, db.models.account, { email });
    if (!account) throw GONE;
    const now = nowOf(visit);
    await setPassword(db, { accountId: account.id, passwordHash });
    await endSignInsEverywhere(db, { accountId: account.id, now });
    await endLinksOf(db, { email, programmeId, now });
    const [member] = await membershipsOf(db, { accountId: account.id });
    if (!member) return account;
    await logChange(asMember(visit, member.id, member.programmeId), db, 'set a new password', 'member', member.id);
    await tellMember(visit, db, member.id, 'a new password was set by a link');
    return account;
  });
}

const invited = z.object({
  name: z.string().trim().min(1, 'Say what you are called.').max(120),
  email: z.email('Write an e-mail address, such as robin@example.org.').max(190),
  password: newPassword,
});
const invitedAgain = invited.extend({ password: z.string().max(LONGEST_PASSWORD) });

/** Whether the address that an invitation was sent to has a password here already, of another programme: it is asked for. */
export async function isKnownHere(visit: Visit, { email }: Pick<AccountRow, 'email'>): Promise<boolean> {
  const account = await findOne(visit.store.db, visit.store.db.models.account, { email });
  return account !== undefined && account.passwordHash !== NO_PASSWORD;
}

/** Guesses at the password that somebody has here already, from an invitation. */
const JOINING = { name: 'joining', points: 8, seconds: 15 * 60 };

/**
 * Joins a programme by invitation, with a new password, or with the one that the address has here already.
 *
 * @returns the new member
 */
export async function acceptInvitation(
  visit: Visit,
  secret: string,
  written: { name: string; email: string; password: string },
): Promise<MemberRow> {
  const link = await openLink(visit, 'invite', secret);
  if (!link?.programmeId) throw GONE;
  const { programmeId, role } = link;
  // The e-mail is the invited one; only the first coordinator, whom nobody could invite, gives their own.
  const sent = { ...written, email: addressOf(link.email || written.email) };
  const isKnown = link.email !== '' && (await isKnownHere(visit, sent));
  const { name, email, password } = check(isKnown ? invitedAgain : invited, sent);
  if (isKnown) await refuseWrongPassword(visit, email, password);
  else await refuseCommon(password, [name, email]);
  const passwordHash = isKnown ? undefined : await hashPassword(visit, password);
  try {
    return await visit.store.transaction(async (db) => {
      await useLink(visit, db, 'invite', secret);
      const id = visit.ids();
      const known = await findOne(db, db.models.account, { email });
      // An address that was typed is proven by no mailbox. And an invitation is read by whoever sent it: it gives nobody a first
      // password for what its address is elsewhere, in a programme that was brought in, or over a city.
      if (known && !isKnown) throw link.email === '' ? TAKEN : NO_PASSWORD_YET;
      const member = await addMember(db, { id, programmeId, email, name, role: role ?? 'crew', passwordHash });
      await endLinksOf(db, { email, programmeId, now: nowOf(visit) });
      await logChange(asMember(visit, id, programmeId), db, 'joined', 'member', id, { role });
      return member;
    });
  } catch (error) {
    throw isDuplicate(error) ? TAKEN : error;
  }
}

const CANNOT = 'This e-mail cannot be used here. Ask whoever invited you to write to another address of yours.';
const TAKEN = new ServiceError('invalid', CANNOT, [{ where: 'email', message: CANNOT }]);

const FIRST =
  'This address belongs to somebody here who has no password yet. Ask for a new one on the sign-in page, or ask whoever looks after the installation; then open this link again.';
const NO_PASSWORD_YET = new ServiceError('invalid', FIRST, [{ where: 'email', message: FIRST }]);

async function refuseWrongPassword(visit: Visit, email: string, password: string): Promise<void> {
  const { db } = visit.store;
  await refuseTooMany(visit.store, [[JOINING, email]]);
  const account = await findOne(db, db.models.account, { email });
  if (await passwordFits(visit, account?.passwordHash, password)) return;
  await logSecurity(visit, 'wrong password', { ip: visit.ip });
  const message = 'This is not the password that you sign in with here.';
  throw new ServiceError('invalid', message, [{ where: 'password', message }]);
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
