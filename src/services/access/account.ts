import { z } from 'zod';
import { endLinksOf, endSignInOf, endSignInsEverywhere, openSignIns, provenNow } from '@/store/access';
import { membershipsOf, moveSignIn } from '@/store/accounts';
import { findOne, updateVersion } from '@/store/query';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, ROLES, service } from '../gate/gate';
import { logSecurity } from '../gate/security-log';
import { tellMember } from '../messages/notices';
import { accountOf } from './account-of';
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
      const { id: accountId } = await accountOf(context, db);
      const ended = await endSignInsEverywhere(db, { accountId, now: nowOf(context) });
      await logChange(context, db, 'signed out everywhere', 'member', context.actor.id, { ended });
      return ended;
    }),
});

export const changePassword = service({
  title: 'Change one’s own password',
  roles: ROLES,
  input: z.object({ old: z.string().max(400), password: newPassword }),
  run: async (context, { old, password }) => {
    const account = await accountOf(context, context.store.db);
    await refuseTooMany(context.store, [[OLD_PASSWORDS, account.id]]);
    if (!(await passwordFits(context, account.passwordHash, old))) {
      const message = 'This is not your present password.';
      throw new ServiceError('invalid', message, [{ where: 'old', message }]);
    }
    await refuseCommon(password, [context.actor.name, account.email]);
    const passwordHash = await hashPassword(context, password);
    await context.store.transaction(async (tx) => {
      if (!(await updateVersion(tx, tx.models.account, account.id, account.version, { passwordHash })))
        throw stale('Your account');
      const now = nowOf(context);
      const { id: memberId, programmeId } = context.actor;
      await endSignInsEverywhere(tx, { accountId: account.id, now });
      await endLinksOf(tx, { email: account.email, programmeId, now });
      await logChange(context, tx, 'changed the password', 'member', memberId);
      await tellMember(context, tx, memberId, 'your password was changed');
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
  const account = open && (await findOne(store.db, store.db.models.account, { id: open.accountId }));
  if (!account) return false;
  await refuseTooMany(store, [[OLD_PASSWORDS, account.id]]);
  const fits = await passwordFits(visit, account.passwordHash, password.slice(0, 400));
  const member = open.memberId ? await findOne(store.db, store.db.models.member, { id: open.memberId }) : undefined;
  const about = { programmeId: member?.programmeId, actorId: member?.id, ip: visit.ip };
  await logSecurity(visit, fits ? 'password asked again' : 'wrong password', about);
  if (fits)
    await provenNow(store.db, {
      signInId,
      now: nowOf(visit),
    });
  return fits;
}

export const listProgrammes = service({
  title: 'See which programmes one belongs to',
  roles: ROLES,
  input: z.object({}),
  run: async (context) => {
    const { id: accountId } = await accountOf(context, context.store.db);
    return membershipsOf(context.store.db, { accountId });
  },
});

/**
 * Goes on in another programme, in this browser.
 *
 * @param signInId the sign-in of this browser
 * @param memberId what one is there
 * @throws ServiceError kind "not-found" when one is not a member of it
 */
export async function goToProgramme(visit: Visit, signInId: string, memberId: string): Promise<void> {
  const { store, ip } = visit;
  const moved = await moveSignIn(store.db, { signInId, memberId });
  const member = moved === 1 ? await findOne(store.db, store.db.models.member, { id: memberId }) : undefined;
  if (!member) throw notFound('programme');
  await logSecurity(visit, 'signed in', { programmeId: member.programmeId, actorId: memberId, ip });
}
