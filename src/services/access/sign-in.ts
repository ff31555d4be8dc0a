import type { Temporal } from 'temporal-polyfill';
import { closeSignIn, codeGiven, membersSignedIn, rehashPassword, seeDevice, seeSignIns } from '@/store/access';
import { looksOver, membershipsOf } from '@/store/accounts';
import { countAttempt, forgiveAttempt, type Limit } from '@/store/attempts';
import { find, findOne, insert } from '@/store/query';
import type { Store } from '@/store/store';
import type { AccountRow, MemberRow } from '@/store/tables/access';
import type { ProgrammeRow } from '@/store/tables/programme';
import { ServiceError } from '../errors';
import { type Actor, nowOf, type Role } from '../gate/gate';
import { MINUTES_IDLE, SEEN_EVERY_MINUTES } from '../gate/idle';
import { logSecurity } from '../gate/security-log';
import { tellMember } from '../messages/notices';
import { addressOf } from './addresses';
import { hashPassword, hashSecret, isOldHash, newSecret, passwordFits } from './passwords';
import { codeFits } from './second-step';

/** A browser nobody is signed in with yet, and what serves it. */
export interface Visit {
  readonly clock: () => Temporal.Instant;
  readonly ids: () => string;
  readonly store: Store;
  readonly address: string;
  readonly deploymentKey: string;
  readonly ip: string;
  /** What the browser calls itself. */
  readonly device: string;
  /** The secret that a member's earlier sign-in left in this browser; '' in one that is new to us. */
  readonly deviceToken: string;
}

/** A sign-in ends after so many hours (OWASP ASVS 3.3.2, level 2), and when it lay idle. */
export const HOURS_SIGNED_IN = 12;

/**
 * Wrong passwords: for one e-mail from one address, from one address for any, for one e-mail from anywhere, and for a member
 * from a browser that they have signed in from. That last one is counted by itself: strangers' guesses do not lock out the
 * owner.
 */
const LIMITS = {
  here: { name: 'sign-in-here', points: 8, seconds: 15 * 60 },
  address: { name: 'sign-in-address', points: 100, seconds: 15 * 60 },
  email: { name: 'sign-in-email', points: 40, seconds: 60 * 60 },
  device: { name: 'sign-in-device', points: 8, seconds: 15 * 60 },
  code: { name: 'sign-in-code', points: 8, seconds: 15 * 60 },
} as const satisfies Record<string, Limit>;

/** @throws ServiceError kind "limited" when there were too many attempts, saying how long to wait */
export async function refuseTooMany(store: Store, counted: readonly (readonly [Limit, string])[]): Promise<void> {
  const waits = await Promise.all(counted.map(([limit, key]) => countAttempt(store, limit, key)));
  const seconds = Math.max(...waits);
  if (seconds === 0) return;
  const wait = seconds > 90 ? `${Math.ceil(seconds / 60)} minutes` : `${seconds} seconds`;
  throw new ServiceError('limited', `Too many attempts. Wait ${wait}, then try again.`);
}

/** What a good e-mail and password come to. */
export interface SignedIn {
  /** The id of the sign-in, for the cookie. */
  readonly signInId: string;
  /** True when a code of the second step is wanted before it counts. */
  readonly awaitsCode: boolean;
  /** For the browser to keep: it is known from now on. */
  readonly deviceToken: string;
}

/**
 * Signs a browser in with e-mail and password.
 *
 * @returns undefined when e-mail and password do not fit together
 * @throws ServiceError when there were too many wrong attempts, whichever server they reached
 */
export async function signIn(visit: Visit, email: string, password: string): Promise<SignedIn | undefined> {
  const { store, ip } = visit;
  const address = addressOf(email);
  const account = await findOne(store.db, store.db.models.account, { email: address });
  const [member] = account ? await membershipsOf(store.db, { accountId: account.id }) : [];
  const isKnown = account !== undefined && (await knownDevice(visit, account.id)) !== undefined;
  const counted = isKnown
    ? ([[LIMITS.device, `${account.id} ${hashSecret(visit.deviceToken)}`]] as const)
    : ([
        [LIMITS.here, `${ip} ${address}`],
        [LIMITS.address, ip],
        [LIMITS.email, address],
      ] as const);
  const about = { programmeId: member?.programmeId ?? null, actorId: member?.id ?? null, ip };
  try {
    await refuseTooMany(store, counted);
  } catch (error) {
    await logSecurity(visit, 'too many attempts', about);
    throw error;
  }
  const fits = await passwordFits(visit, account?.passwordHash, password.slice(0, 400));
  // Whoever belongs to nothing any more, and looks over nothing, has nowhere to go.
  const isOfUse = member !== undefined || (account !== undefined && (await looksOver(store.db, account.id)));
  if (!fits || !account || !isOfUse) {
    await logSecurity(visit, 'wrong password', about);
    return undefined;
  }
  await Promise.all(counted.map(([limit, key]) => forgiveAttempt(store, limit, key)));
  if (isOldHash(account.passwordHash))
    await rehashPassword(store.db, {
      id: account.id,
      old: account.passwordHash,
      fresh: await hashPassword(visit, password),
    });
  return openSignIn(visit, account.id, member);
}

/** The row of this browser, where the account was signed in from it before. */
const knownDevice = async ({ store, deviceToken }: Visit, accountId: string) =>
  deviceToken
    ? findOne(store.db, store.db.models.knownDevice, { accountId, tokenHash: hashSecret(deviceToken) })
    : undefined;

/**
 * Signs somebody in on this browser, without asking for the password: it was just given, or set.
 *
 * @param member in which programme; absent for the one they were in last
 */
export async function openSignIn(
  visit: Visit,
  accountId: string,
  member?: Pick<MemberRow, 'id' | 'programmeId'>,
): Promise<SignedIn> {
  const { store, device, ip } = visit;
  const { db } = store;
  const signInId = visit.ids();
  const now = nowOf(visit);
  const account = await findOne(db, db.models.account, { id: accountId });
  const awaitsCode = account !== undefined && account.totp !== null;
  const as = member ?? (await membershipsOf(db, { accountId }))[0];
  await insert(db, db.models.signIn, [
    {
      id: signInId,
      accountId,
      memberId: as?.id ?? null,
      device: device.slice(0, 200),
      createdAt: now,
      expiresAt: new Date(now.getTime() + HOURS_SIGNED_IN * 3_600_000),
      endedAt: null,
      seenAt: now,
      provenAt: now,
      awaitsCode: awaitsCode ? 1 : 0,
    },
  ]);
  if (!awaitsCode) await logSecurity(visit, 'signed in', { programmeId: as?.programmeId, actorId: as?.id, ip });
  return { signInId, awaitsCode, deviceToken: await rememberDevice(visit, accountId, now) };
}

async function rememberDevice(visit: Visit, accountId: string, now: Date): Promise<string> {
  const { db } = visit.store;
  const known = await knownDevice(visit, accountId);
  if (known) {
    await seeDevice(db, { id: known.id, now });
    return visit.deviceToken;
  }
  const token = newSecret();
  const row = { id: visit.ids(), accountId, tokenHash: hashSecret(token), createdAt: now, seenAt: now };
  await insert(db, db.models.knownDevice, [row]);
  return token;
}

/** Whose sign-in waits for a code, and in which programme; undefined when it waits for none. */
async function awaiting(
  visit: Visit,
  signInId: string,
): Promise<{ account: AccountRow; member: MemberRow | undefined } | undefined> {
  const { db } = visit.store;
  const row = await findOne(db, db.models.signIn, { id: signInId, endedAt: null, awaitsCode: 1 });
  // Whoever has the password and not the telephone gets no more than a quarter of an hour.
  if (!row || nowOf(visit).getTime() - row.createdAt.getTime() > 15 * 60_000) return undefined;
  const account = await findOne(db, db.models.account, { id: row.accountId });
  const member = row.memberId ? await findOne(db, db.models.member, { id: row.memberId, status: 'active' }) : undefined;
  return account && (member || !row.memberId) ? { account, member } : undefined;
}

/** Whether a sign-in waits for a code. */
export const awaitsCode = async (visit: Visit, signInId: string): Promise<boolean> =>
  (await awaiting(visit, signInId)) !== undefined;

/**
 * Takes the second step: a code of the telephone, or one of the recovery codes.
 *
 * @returns whether the sign-in counts now
 * @throws ServiceError when there were too many wrong codes
 */
export async function passCode(visit: Visit, signInId: string, code: string): Promise<boolean> {
  const whose = await awaiting(visit, signInId);
  if (!whose) return false;
  const { account, member } = whose;
  const { id: actorId, programmeId } = member ?? {};
  await refuseTooMany(visit.store, [[LIMITS.code, account.id]]);
  const used = await codeFits(visit, account, code);
  if (used === undefined || used === 'used before') {
    await logSecurity(visit, used ? 'code used again' : 'wrong code', { programmeId, actorId, ip: visit.ip });
    // Somebody has seen a code of theirs, and their password (OWASP ASVS 2.8.5).
    if (used && member)
      await tellMember(visit, visit.store.db, member.id, 'a code of yours was used a second time, and refused');
    return false;
  }
  await forgiveAttempt(visit.store, LIMITS.code, account.id);
  await codeGiven(visit.store.db, { signInId });
  if (used === 'recovery code') await logSecurity(visit, 'recovery code used', { programmeId, actorId, ip: visit.ip });
  await logSecurity(visit, 'signed in', { programmeId, actorId, ip: visit.ip });
  return true;
}

/** Ends one sign-in, from its own browser. */
export async function endSignIn(visit: Pick<Visit, 'store' | 'clock'>, signInId: string): Promise<void> {
  await closeSignIn(visit.store.db, {
    signInId,
    now: nowOf(visit),
  });
}

/** A member who is signed in, with the programme. */
export interface SignedInMember {
  readonly actor: Actor;
  readonly programme: ProgrammeRow;
  /** How many programmes they belong to. */
  readonly programmes: number;
  /** The programme wants a second step of them, and they have none yet: they see nothing else until they have. */
  readonly mustSetUp: boolean;
}

/** The members behind sign-ins, by the sign-in's id: one query. Those that have ended, or lay idle, are missing. */
export async function findActors(
  store: Store,
  signInIds: readonly string[],
  now: Date,
): Promise<ReadonlyMap<string, SignedInMember>> {
  const rows = await membersSignedIn(store.db, { signInIds, now, idleSince: minutesBefore(now, MINUTES_IDLE) });
  const unseen = rows.filter(({ seenAt }) => seenAt < minutesBefore(now, SEEN_EVERY_MINUTES));
  if (unseen.length > 0)
    await seeSignIns(store.db, {
      ids: unseen.map(({ signInId }) => signInId),
      now,
    });
  return new Map(
    rows.map(({ signInId, memberId, memberName, role, hasTotp, programmes, seenAt: _, provenAt, ...programme }) => [
      signInId,
      {
        actor: { id: memberId, name: memberName, role: role as Role, programmeId: programme.id, provenAt },
        programme,
        programmes,
        mustSetUp: role === 'coordinator' && programme.secondStep === 1 && !hasTotp,
      },
    ]),
  );
}

const minutesBefore = (now: Date, minutes: number) => new Date(now.getTime() - minutes * 60_000);

/** The member behind one sign-in; undefined when it has ended. */
export const findActor = async (store: Store, signInId: string, now: Date): Promise<SignedInMember | undefined> =>
  (await findActors(store, [signInId], now)).get(signInId);

/**
 * The actors behind API tokens, by token: one query. A token that is unknown, was taken back or has ended is missing.
 */
export async function findTokenActors(
  store: Store,
  tokens: readonly string[],
  now: Date,
): Promise<ReadonlyMap<string, Actor>> {
  const byHash = new Map(tokens.map((token) => [hashSecret(token), token]));
  const rows = await find(store.db, store.db.models.apiToken, { tokenHash: [...byHash.keys()] });
  return new Map(
    rows
      .filter(({ revokedAt, expiresAt }) => !revokedAt && expiresAt > now)
      .map(({ id, programmeId, role, name, tokenHash }) => [
        byHash.get(tokenHash) ?? '',
        { id, programmeId, role: role as Role, name },
      ]),
  );
}
