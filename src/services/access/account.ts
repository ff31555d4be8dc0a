import { z } from 'zod';
import { change, findOne, select, updateVersion } from '@/store/query';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from './change-log';
import { nowOf, ROLES, service } from './gate';
import { endAllSignIns } from './links';
import { hashPassword, newPassword, passwordFits } from './passwords';
import { refuseTooMany } from './sign-in';

/** Guesses at the present password, from a browser left open. */
const OLD_PASSWORDS = { name: 'old-password', points: 10, seconds: 15 * 60 };

/** One's own sign-ins that are still open, newest first. */
export const listSignIns = service({
  title: 'See where one is signed in',
  roles: ROLES,
  input: z.object({}),
  run: (context) =>
    select<{ id: string; device: string; createdAt: Date }>(
      context.store.db,
      `SELECT id, device, created_at AS createdAt FROM sign_in
        WHERE member_id = :memberId AND ended_at IS NULL AND expires_at > :now ORDER BY created_at DESC LIMIT 50`,
      { memberId: context.actor.id, now: nowOf(context) },
    ),
});

export const endOwnSignIn = service({
  title: 'End one of one’s own sign-ins',
  roles: ROLES,
  input: z.object({ signInId: z.uuid() }),
  run: async (context, { signInId }) => {
    const ended = await change(
      context.store.db,
      'UPDATE sign_in SET ended_at = :now WHERE id = :signInId AND member_id = :memberId AND ended_at IS NULL',
      { signInId, memberId: context.actor.id, now: nowOf(context) },
    );
    if (ended === 0) throw notFound('sign-in');
  },
});

export const signOutEverywhere = service({
  title: 'Sign out everywhere',
  roles: ROLES,
  input: z.object({}),
  run: (context) =>
    context.store.transaction(async (db) => {
      const ended = await endAllSignIns(db, context.actor.id, nowOf(context));
      await logChange(context, db, 'signed out everywhere', 'member', context.actor.id, { ended });
      return ended;
    }),
});

export const changePassword = service({
  title: 'Change one’s own password',
  roles: ROLES,
  input: z.object({ old: z.string().max(400), password: newPassword }),
  run: async (context, { old, password }) => {
    const { db } = context.store;
    const member = await findOne(db, db.models.member, { id: context.actor.id });
    if (!member) throw notFound('member');
    await refuseTooMany(context.store, [[OLD_PASSWORDS, member.id]]);
    if (!(await passwordFits(member.passwordHash, old))) {
      const message = 'This is not your present password.';
      throw new ServiceError('invalid', message, [{ where: 'old', message }]);
    }
    const passwordHash = await hashPassword(password);
    await context.store.transaction(async (tx) => {
      if (!(await updateVersion(tx, tx.models.member, member.id, member.version, { passwordHash })))
        throw stale('Your account');
      await endAllSignIns(tx, member.id, nowOf(context));
      await logChange(context, tx, 'changed the password', 'member', member.id);
    });
  },
});
