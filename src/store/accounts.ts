// Who signs in: accounts, their memberships of programmes, and who looks over several of them.
import { findOne, insert } from './query';
import { change, select } from './sql';
import type { Db } from './store';
import type { MemberRow } from './tables/access';

/** Whoever has an account without a password sets one by a link. */
export const NO_PASSWORD = '-';

/**
 * The account of an address, made where there is none.
 *
 * @param id of an account that is made; the first membership gives it its own
 * @returns its id
 */
export async function accountFor(
  db: Db,
  { email, id, passwordHash = NO_PASSWORD }: { email: string; id: string; passwordHash?: string },
): Promise<string> {
  const known = await findOne(db, db.models.account, { email });
  if (known) return known.id;
  await insert(db, db.models.account, [{ id, email, passwordHash, totp: null, totpStep: 0, version: 1 }]);
  return id;
}

/** Somebody becomes a member, with the account that their address has, or a new one with this password. */
export async function addMember(
  db: Db,
  {
    passwordHash,
    ...given
  }: Pick<MemberRow, 'id' | 'programmeId' | 'email' | 'name' | 'role'> & { passwordHash?: string },
): Promise<MemberRow> {
  const accountId = await accountFor(db, { email: given.email, id: given.id, passwordHash });
  const member: MemberRow = { ...given, accountId, status: 'active', version: 1 };
  await insert(db, db.models.member, [member]);
  return member;
}

/** Somebody in one of the programmes that they belong to. */
export interface Membership {
  readonly id: string;
  readonly programmeId: string;
  readonly programme: string;
  readonly name: string;
  readonly role: string;
}

/** What somebody is a member of: where they signed in last comes first, then where they came first. */
export const membershipsOf = (db: Db, values: { accountId: string }) =>
  select<Membership>(
    db,
    `SELECT m.id, m.programme_id AS programmeId, p.name AS programme, m.name, m.role
       FROM member m JOIN programme p ON p.id = m.programme_id
      WHERE m.account_id = :accountId AND m.status = 'active'
      ORDER BY (SELECT MAX(i.created_at) FROM sign_in i WHERE i.member_id = m.id) DESC, m.id`,
    values,
  );

/** An account whose last membership ended lets nobody in, and its address is free again. */
export const endAccount = (db: Db, values: { accountId: string }) =>
  change(
    db,
    `UPDATE account SET email = CONCAT('removed-', id), password_hash = '${NO_PASSWORD}', totp = NULL, version = version + 1
      WHERE id = :accountId`,
    values,
  );

/** Whether an account looks over a city, or after the installation. */
export const looksOver = async (db: Db, accountId: string): Promise<boolean> =>
  (await db.models.overseer.count({ where: { accountId } })) > 0;

/** Whether an account is of use beside one membership: it has another, or looks over programmes. */
export async function isOfUseBeside(db: Db, values: { accountId: string; memberId: string }): Promise<boolean> {
  const found = await select<{ n: number }>(
    db,
    `SELECT 1 AS n FROM member WHERE account_id = :accountId AND id <> :memberId AND status = 'active'
      UNION SELECT 1 FROM overseer WHERE account_id = :accountId`,
    values,
  );
  return found.length > 0;
}

/** A browser goes on in another programme of the same person. @returns 0 when the sign-in has ended, or it is not theirs */
export const moveSignIn = (db: Db, values: { signInId: string; memberId: string }) =>
  change(
    db,
    `UPDATE sign_in i JOIN member m ON m.id = :memberId AND m.account_id = i.account_id AND m.status = 'active'
        SET i.member_id = m.id WHERE i.id = :signInId AND i.ended_at IS NULL AND i.awaits_code = 0`,
    values,
  );

/** The members of a programme who sign in with a code beside the password. */
export const withCode = (db: Db, values: { programmeId: string }) =>
  select<{ id: string }>(
    db,
    `SELECT m.id FROM member m JOIN account a ON a.id = m.account_id
      WHERE m.programme_id = :programmeId AND m.status = 'active' AND a.totp IS NOT NULL`,
    values,
  );
