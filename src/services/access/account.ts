import { z } from 'zod';
import { endSignInOf, openSignIns, provenNow } from '@/store/access';
import { findOne, updateVersion } from '@/store/query';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, ROLES, service } from '../gate/gate';
import { logSecurity } from '../gate/security-log';
import { tellMember } from '../messages/notices';
import { endAllLinks, endAllSignIns } from './links';
import { hashPassword, newPassword, passwordFits, refuseCommon } from './passwords';
import { refuseTooMany, type Visit } from './sign-in';

/** Guesses at the present password, from a browser left open. */
const OLD_PASSWORDS = { name: 'old-password', points: 10, seconds: 15 * 60 };

/** One's own sign-ins that are still open, newest first. */
export const listSignIns = service({
  title: 'See where one is signed in',
  roles: ROLES,
  input: z.object({}),
  run: (context) => openSignIns(context.store.db, { memberId: context.actor.id, now: nowOf(context) }),
});

export const endOwnSignIn = service({
  title: 'End one of one’s own sign-ins',
  roles: ROLES,
  input: z.object({ signInId: z.uuid() }),
  run: async (context, { signInId }) => {
    const ended = await endSignInOf(context.store.db, { signInId, memberId: context.actor.id, now: nowOf(context) });
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
    if (!(await passwordFits(context, member.passwordHash, old))) {
      const message = 'This is not your present password.';
      throw new ServiceError('invalid', message, [{ where: 'old', message }]);
    }
    await refuseCommon(password, [member.name, member.email]);
    const passwordHash = await hashPassword(context, password);
    await context.store.transaction(async (tx) => {
      if (!(await updateVersion(tx, tx.models.member, member.id, member.version, { passwordHash })))
        throw stale('Your account');
      await endAllSignIns(tx, member.id, nowOf(context));
      await endAllLinks(tx, member, nowOf(context));
      await logChange(context, tx, 'changed the password', 'member', member.id);
      await tellMember(context, tx, member.id, 'your password was changed');
    });
  },
});

/**
 * The password given once more, before what cannot be undone.
 *
 * @param signInId the sign-in of this browser
 * @returns whether it is the member's
 */
export async function proveAgain(visit: Visit, signInId: string, password: string): Promise<boolean> {
  const { store } = visit;
  const open = await findOne(store.db, store.db.models.signIn, { id: signInId, endedAt: null, awaitsCode: 0 });
  const member = open && (await findOne(store.db, store.db.models.member, { id: open.memberId, status: 'active' }));
  if (!member) return false;
  await refuseTooMany(store, [[OLD_PASSWORDS, member.id]]);
  const fits = await passwordFits(visit, member.passwordHash, password.slice(0, 400));
  const about = { programmeId: member.programmeId, actorId: member.id, ip: visit.ip };
  await logSecurity(visit, fits ? 'password asked again' : 'wrong password', about);
  if (fits)
    await provenNow(store.db, {
      signInId,
      now: nowOf(visit),
    });
  return fits;
}
