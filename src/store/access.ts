import { change, columnsOf, select } from './sql';
import type { Db } from './store';
import type { ProgrammeRow } from './tables/programme';

/** Uses a link up. @returns 0 when somebody has already */
export const useLinkOnce = (db: Db, values: { now: Date; id: string }) =>
  change(db, 'UPDATE access_link SET used_at = :now WHERE id = :id AND used_at IS NULL', values);

/** Somebody’s new password. */
export const setPassword = (db: Db, values: { passwordHash: string; accountId: string }) =>
  change(db, 'UPDATE account SET password_hash = :passwordHash, version = version + 1 WHERE id = :accountId', values);

/** Ends the links of a programme that were sent to a member, or to their address, and every one for a new password. */
export const endLinksOf = (db: Db, values: { now: Date; email: string; programmeId: string | null }) =>
  change(
    db,
    `UPDATE access_link SET used_at = :now WHERE used_at IS NULL AND email = :email
        AND (purpose = 'reset' OR programme_id = :programmeId)`,
    values,
  );

/** Ends every sign-in of a member in their programme. @returns how many were open */
export const endSignInsOf = (db: Db, values: { now: Date; memberId: string }) =>
  change(db, 'UPDATE sign_in SET ended_at = :now WHERE member_id = :memberId AND ended_at IS NULL', values);

/** Ends every sign-in of an account. @returns how many were open */
export const endSignInsEverywhere = (db: Db, values: { now: Date; accountId: string }) =>
  change(db, 'UPDATE sign_in SET ended_at = :now WHERE account_id = :accountId AND ended_at IS NULL', values);

/** Uses up the code of a step of time. @returns 0 when it, or a later one, was used before */
export const useTotpStep = (db: Db, values: { step: number; accountId: string }) =>
  change(db, 'UPDATE account SET totp_step = :step WHERE id = :accountId AND totp_step < :step', values);

/** Uses a recovery code up. @returns 0 when it is none, or was used */
export const useRecoveryCode = (db: Db, values: { now: Date; accountId: string; hash: string }) =>
  change(
    db,
    'UPDATE recovery_code SET used_at = :now WHERE account_id = :accountId AND code_hash = :hash AND used_at IS NULL',
    values,
  );

/** Somebody’s second step, sealed. */
export const setTotp = (db: Db, values: { totp: string; step: number; accountId: string }) =>
  change(db, 'UPDATE account SET totp = :totp, totp_step = :step, version = version + 1 WHERE id = :accountId', values);

/** Somebody goes without a second step. */
export const dropTotp = (db: Db, values: { accountId: string }) =>
  change(db, 'UPDATE account SET totp = NULL, totp_step = 0, version = version + 1 WHERE id = :accountId', values);

/** Whether the coordinators of a programme sign in with a code. */
export const setSecondStep = (db: Db, values: { required: number; programmeId: string }) =>
  change(db, 'UPDATE programme SET second_step = :required, version = version + 1 WHERE id = :programmeId', values);

/** Ends invitations that nobody has used: those to an address, or those that a member sent. */
export const endUnusedInvitations = (
  db: Db,
  values: { now: Date; programmeId: string; email: string | null; createdBy: string | null },
) =>
  change(
    db,
    `UPDATE access_link SET used_at = :now WHERE programme_id = :programmeId AND purpose = 'invite' AND used_at IS NULL
        AND (email = :email OR created_by = :createdBy)`,
    values,
  );

/** Ends the calendar addresses under which a member’s own classes are read. */
export const endFeedsShowing = (db: Db, values: { now: Date; memberId: string }) =>
  change(
    db,
    `UPDATE calendar_feed SET revoked_at = :now WHERE scope = 'instructor' AND scope_id = :memberId AND revoked_at IS NULL`,
    values,
  );

/** Ends an API token. */
export const endToken = (db: Db, values: { now: Date; tokenId: string }) =>
  change(db, 'UPDATE api_token SET revoked_at = :now WHERE id = :tokenId AND revoked_at IS NULL', values);

/** Of whoever is a member: all that is theirs, in whichever programme. */
const OF_SAME_PERSON = 'account_id = (SELECT account_id FROM member WHERE id = :memberId)';

/** The open sign-ins of somebody, newest first. */
export const openSignIns = (db: Db, values: { memberId: string; now: Date }) =>
  select<{ id: string; device: string; createdAt: Date }>(
    db,
    `SELECT id, device, created_at AS createdAt FROM sign_in
        WHERE ${OF_SAME_PERSON} AND ended_at IS NULL AND expires_at > :now ORDER BY created_at DESC LIMIT 50`,
    values,
  );

/** Ends a sign-in of somebody. @returns 0 when it was none of theirs */
export const endSignInOf = (db: Db, values: { now: Date; signInId: string; memberId: string }) =>
  change(
    db,
    `UPDATE sign_in SET ended_at = :now WHERE id = :signInId AND ${OF_SAME_PERSON} AND ended_at IS NULL`,
    values,
  );

/** The password was given in a sign-in just now. */
export const provenNow = (db: Db, values: { now: Date; signInId: string }) =>
  change(db, 'UPDATE sign_in SET proven_at = :now WHERE id = :signInId', values);

/** The last hundred things that happened at the doors of a programme, newest first. */
export const doorEvents = (db: Db, values: { programmeId: string }) =>
  select<{ id: string; at: Date; kind: string; who: string | null; ip: string; detail: string }>(
    db,
    `SELECT e.id, e.at, e.kind, COALESCE(m.name, t.name) AS who, e.ip, e.detail FROM security_event e
         LEFT JOIN member m ON m.id = e.actor_id LEFT JOIN api_token t ON t.id = e.actor_id
        WHERE e.programme_id = :programmeId ORDER BY e.at DESC, e.id DESC LIMIT 100`,
    values,
  );

/** The same password, hashed anew; nothing where it was changed meanwhile. */
export const rehashPassword = (db: Db, values: { fresh: string; id: string; old: string }) =>
  change(db, 'UPDATE account SET password_hash = :fresh WHERE id = :id AND password_hash = :old', values);

/** A browser was seen. */
export const seeDevice = (db: Db, values: { now: Date; id: string }) =>
  change(db, 'UPDATE known_device SET seen_at = :now WHERE id = :id', values);

/** The second step was taken. */
export const codeGiven = (db: Db, values: { signInId: string }) =>
  change(db, 'UPDATE sign_in SET awaits_code = 0 WHERE id = :signInId', values);

/** Ends a sign-in. */
export const closeSignIn = (db: Db, values: { now: Date; signInId: string }) =>
  change(db, 'UPDATE sign_in SET ended_at = :now WHERE id = :signInId AND ended_at IS NULL', values);

/** Sign-ins were used just now. */
export const seeSignIns = (db: Db, values: { now: Date; ids: readonly string[] }) =>
  change(db, 'UPDATE sign_in SET seen_at = :now WHERE id IN (:ids) AND seen_at < :now', values);

/** Ends what a member made. @returns how many */
export const revokeMadeBy = (
  db: Db,
  table: 'api_token' | 'calendar_feed',
  values: { now: Date; programmeId: string; memberId: string },
) =>
  change(
    db,
    `UPDATE ${table} SET revoked_at = :now WHERE programme_id = :programmeId AND created_by = :memberId AND revoked_at IS NULL`,
    values,
  );

/** The members behind sign-ins that have not ended and did not lie idle, each with their programme. */
export const membersSignedIn = (db: Db, values: { signInIds: readonly string[]; now: Date; idleSince: Date }) =>
  select<
    ProgrammeRow & {
      signInId: string;
      memberId: string;
      memberName: string;
      role: string;
      hasTotp: number;
      programmes: number;
      seenAt: Date;
      provenAt: Date;
    }
  >(
    db,
    `SELECT i.id AS signInId, i.seen_at AS seenAt, i.proven_at AS provenAt, m.id AS memberId, m.name AS memberName, m.role,
            a.totp IS NOT NULL AS hasTotp,
            (SELECT COUNT(*) FROM member x WHERE x.account_id = a.id AND x.status = 'active') AS programmes, ${columnsOf(db.models.programme, 'p')}
       FROM sign_in i JOIN member m ON m.id = i.member_id JOIN account a ON a.id = m.account_id
       JOIN programme p ON p.id = m.programme_id
      WHERE i.id IN (:signInIds) AND i.ended_at IS NULL AND i.expires_at > :now AND i.seen_at > :idleSince
        AND i.awaits_code = 0 AND m.status = 'active'`,
    values,
  );
