import type { Temporal } from 'temporal-polyfill';
import { countAttempt, forgiveAttempt, type Limit } from '@/store/attempts';
import { change, find, findOne, insert, select } from '@/store/query';
import type { Store } from '@/store/store';
import { ServiceError } from '../errors';
import { type Actor, nowOf, type Role } from './gate';
import { hashSecret, passwordFits } from './passwords';

/** What page frames show of the programme. */
export interface Programme {
  readonly id: string;
  readonly name: string;
  readonly measureSystem: 'us' | 'metric';
  readonly safetyProfile: 'us' | 'uk';
  readonly timeZone: string;
  readonly retentionMonths: number;
  readonly workHours: string;
  readonly containers: string;
  readonly version: number;
}

/** A browser nobody is signed in with yet, and what serves it. */
export interface Visit {
  readonly clock: () => Temporal.Instant;
  readonly ids: () => string;
  readonly store: Store;
  readonly address: string;
  readonly ip: string;
  /** What the browser calls itself. */
  readonly device: string;
}

export const HOURS_SIGNED_IN = 12;

/** Wrong passwords for one e-mail from one address, from one address for any, and for one e-mail from anywhere. */
const LIMITS = {
  here: { name: 'sign-in-here', points: 8, seconds: 15 * 60 },
  address: { name: 'sign-in-address', points: 100, seconds: 15 * 60 },
  email: { name: 'sign-in-email', points: 40, seconds: 60 * 60 },
} as const satisfies Record<string, Limit>;

/** @throws ServiceError kind "limited" when there were too many attempts, saying how long to wait */
export async function refuseTooMany(store: Store, counted: readonly (readonly [Limit, string])[]): Promise<void> {
  const waits = await Promise.all(counted.map(([limit, key]) => countAttempt(store, limit, key)));
  const seconds = Math.max(...waits);
  if (seconds === 0) return;
  const wait = seconds > 90 ? `${Math.ceil(seconds / 60)} minutes` : `${seconds} seconds`;
  throw new ServiceError('limited', `Too many attempts. Wait ${wait}, then try again.`);
}

/**
 * Signs a browser in with e-mail and password.
 *
 * @returns the id of the sign-in, for the cookie; undefined when e-mail and password do not fit together
 * @throws ServiceError when there were too many wrong attempts, whichever server they reached
 */
export async function signIn(visit: Visit, email: string, password: string): Promise<string | undefined> {
  const { store, ip } = visit;
  const address = email.trim().toLowerCase().slice(0, 190);
  const counted = [
    [LIMITS.here, `${ip} ${address}`],
    [LIMITS.address, ip],
    [LIMITS.email, address],
  ] as const;
  await refuseTooMany(store, counted);
  const member = await findOne(store.db, store.db.models.member, { email: address, status: 'active' });
  if (!(await passwordFits(member?.passwordHash, password.slice(0, 400))) || !member) return undefined;
  await Promise.all(counted.map(([limit, key]) => forgiveAttempt(store, limit, key)));
  return openSignIn(visit, member.id);
}

/** Signs a member in on this browser, without asking for the password: it was just set. */
export async function openSignIn(visit: Visit, memberId: string): Promise<string> {
  const { store, device } = visit;
  const id = visit.ids();
  const createdAt = nowOf(visit);
  const expiresAt = new Date(createdAt.getTime() + HOURS_SIGNED_IN * 3_600_000);
  const row = { id, memberId, device: device.slice(0, 200), createdAt, expiresAt, endedAt: null };
  await insert(store.db, store.db.models.signIn, [row]);
  return id;
}

/** Ends one sign-in, from its own browser. */
export async function endSignIn(visit: Pick<Visit, 'store' | 'clock'>, signInId: string): Promise<void> {
  await change(visit.store.db, 'UPDATE sign_in SET ended_at = :now WHERE id = :signInId AND ended_at IS NULL', {
    signInId,
    now: nowOf(visit),
  });
}

/** A member who is signed in, with the programme. */
export interface SignedInMember {
  readonly actor: Actor;
  readonly programme: Programme;
}

/** The members behind sign-ins, by the sign-in's id: one query. Those that have ended are missing. */
export async function findActors(
  store: Store,
  signInIds: readonly string[],
  now: Date,
): Promise<ReadonlyMap<string, SignedInMember>> {
  const rows = await select<
    Programme & { signInId: string; memberId: string; memberName: string; role: Role; programmeId: string }
  >(
    store.db,
    `SELECT i.id AS signInId, m.id AS memberId, m.name AS memberName, m.role, p.id AS programmeId, p.name,
            p.measure_system AS measureSystem, p.safety_profile AS safetyProfile, p.time_zone AS timeZone,
            p.retention_months AS retentionMonths, p.work_hours AS workHours, p.containers, p.version
       FROM sign_in i JOIN member m ON m.id = i.member_id JOIN programme p ON p.id = m.programme_id
      WHERE i.id IN (:signInIds) AND i.ended_at IS NULL AND i.expires_at > :now AND m.status = 'active'`,
    { signInIds, now },
  );
  return new Map(
    rows.map(({ signInId, memberId, memberName, role, programmeId, ...programme }) => [
      signInId,
      {
        actor: { id: memberId, name: memberName, role, programmeId },
        programme: { ...programme, id: programmeId },
      },
    ]),
  );
}

/** The member behind one sign-in; undefined when it has ended. */
export const findActor = async (store: Store, signInId: string, now: Date): Promise<SignedInMember | undefined> =>
  (await findActors(store, [signInId], now)).get(signInId);

/** The actors behind API tokens, by token: one query. A token that is unknown, was taken back or has ended is missing. */
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
