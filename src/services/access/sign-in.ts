import { createHash, randomUUID } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { find, findOne, select } from '@/store/query';
import type { Store } from '@/store/store';
import type { Actor, Role } from './gate';

/** What page frames show of the programme. */
export interface Programme {
  readonly id: string;
  readonly name: string;
  readonly measureSystem: 'us' | 'metric';
  readonly safetyProfile: 'us' | 'uk';
  readonly timeZone: string;
  readonly version: number;
}

/** argon2id with the package's parameters (19 MiB, 2 passes), as OWASP advises. */
export const hashPassword = (password: string): Promise<string> => hash(password);

let nobody: Promise<string> | undefined;

/** A hash that fits no password: checking it takes as long as a real one, so that an unknown e-mail is not told apart. */
const hashOfNobody = (): Promise<string> => {
  nobody ??= hash(randomUUID());
  return nobody;
};

/**
 * Checks e-mail and password.
 *
 * @returns the member's id, or undefined when they do not fit together
 */
export async function checkPassword(store: Store, email: string, password: string): Promise<string | undefined> {
  const member = await findOne(store.db, store.db.models.member, { email: email.trim().toLowerCase() });
  const fits = await verify(member?.passwordHash ?? (await hashOfNobody()), password);
  return fits ? member?.id : undefined;
}

/** A member as an actor, with the programme: one query. Undefined when the member is gone. */
export async function findActor(
  store: Store,
  memberId: string,
): Promise<{ actor: Actor; programme: Programme } | undefined> {
  const [row] = await select<{
    id: string;
    name: string;
    role: Role;
    programmeId: string;
    programmeName: string;
    measureSystem: 'us' | 'metric';
    safetyProfile: 'us' | 'uk';
    timeZone: string;
    version: number;
  }>(
    store.db,
    `SELECT m.id, m.name, m.role, p.id AS programmeId, p.name AS programmeName, p.measure_system AS measureSystem,
            p.safety_profile AS safetyProfile, p.time_zone AS timeZone, p.version
       FROM member m JOIN programme p ON p.id = m.programme_id WHERE m.id = :memberId`,
    { memberId },
  );
  if (!row) return undefined;
  const { id, name, role, programmeId, programmeName, measureSystem, safetyProfile, timeZone, version } = row;
  return {
    actor: { id, name, role, programmeId },
    programme: { id: programmeId, name: programmeName, measureSystem, safetyProfile, timeZone, version },
  };
}

/** How tokens are kept: never as they are. */
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex');

/** The actor behind an API token, or undefined when it is unknown or has ended. */
export async function findTokenActor(store: Store, token: string, now: Date): Promise<Actor | undefined> {
  const [row] = await find(store.db, store.db.models.apiToken, { tokenHash: hashToken(token) });
  if (!row || row.expiresAt <= now) return undefined;
  return { id: row.id, programmeId: row.programmeId, role: row.role as Role, name: row.name };
}
