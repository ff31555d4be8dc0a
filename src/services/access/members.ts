import { z } from 'zod';
import {
  endFeedsShowing,
  endLinksOf,
  endSignInsEverywhere,
  endSignInsOf,
  endToken,
  endUnusedInvitations,
  revokeMadeBy,
  useLinkOnce,
} from '@/store/access';
import { endAccount, isOfUseBeside, withCode } from '@/store/accounts';
import { overseersOf } from '@/store/overview';
import { holdProgramme } from '@/store/programme';
import { find, findOne, insert, remove, updateVersion } from '@/store/query';
import type { Db } from '@/store/store';
import type { MemberRow } from '@/store/tables/access';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, ROLES, service } from '../gate/gate';
import { LINK_PLACE } from '../messages/link-place';
import { queueMessage } from '../messages/messages';
import { tellCoordinators, tellMember } from '../messages/notices';
import { addressOf } from './addresses';
import { makeLink } from './links';
import { hashSecret, newSecret } from './passwords';

const DAYS_TO_JOIN = 7;

export const listMembers = service({
  title: 'See who works with the programme',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const all = await find(db, db.models.member, { programmeId }, [['name', 'ASC']]);
    const links = await find(db, db.models.accessLink, { programmeId, usedAt: null }, [['createdAt', 'ASC']]);
    const tokens = await find(db, db.models.apiToken, { programmeId, revokedAt: null }, [['createdAt', 'ASC']]);
    const coded = new Set((await withCode(db, { programmeId })).map(({ id }) => id));
    const now = nowOf(context);
    const nameOf = (id: string | null) => all.find((member) => member.id === id)?.name ?? null;
    const entry = <Row extends { role: string | null; expiresAt: Date; createdBy: string | null }>(row: Row) => ({
      role: row.role,
      expiresAt: row.expiresAt.toISOString(),
      by: nameOf(row.createdBy),
    });
    return {
      members: all
        .filter(({ status }) => status === 'active')
        .map(({ id, name, email, role, version }) => ({
          ...{ id, name, email, role, version },
          hasSecondStep: coded.has(id),
          // Somebody asked for a new password, and has not set it yet.
          passwordLink: links.some((link) => link.purpose === 'reset' && link.email === email && link.expiresAt > now),
        })),
      invitations: links
        .filter((link) => link.purpose === 'invite' && link.email && link.expiresAt > now)
        .map((link) => ({ id: link.id, email: link.email, ...entry(link) })),
      /** Who of a city sees the programme's counts and money, and no family. */
      overseers: await overseersOf(db, { programmeId }),
      tokens: tokens
        .filter((token) => token.expiresAt > now)
        .map((token) => ({ id: token.id, name: token.name, ...entry(token) })),
    };
  },
});

export const inviteMember = service({
  title: 'Invite somebody to the programme',
  roles: ['coordinator'],
  input: z.object({
    email: z.email('Write an e-mail address, such as robin@example.org.').max(190).transform(addressOf),
    role: z.enum(ROLES, `Choose one of: ${ROLES.join(', ')}.`),
  }),
  run: (context, { email, role }) =>
    context.store.transaction(async (db) => {
      const { programmeId, name } = context.actor;
      // Only what they can see on this page anyway: who else has an address on this server is nobody's business.
      if (await findOne(db, db.models.member, { email, programmeId, status: 'active' })) {
        const message = 'Somebody here signs in with this e-mail already.';
        throw new ServiceError('invalid', message, [{ where: 'email', message }]);
      }
      await endInvitations(db, programmeId, nowOf(context), { email });
      const link = {
        programmeId,
        purpose: 'invite' as const,
        email,
        role,
        memberId: null,
        createdBy: context.actor.id,
      };
      const { id: linkId } = await makeLink(context, db, link, DAYS_TO_JOIN * 24);
      await queueMessage(context, db, programmeId, {
        sentTo: email,
        subject: 'An invitation to Logistra',
        body: `${name} invites you to join as ${role}.\n\nChoose a password here, within ${DAYS_TO_JOIN} days:\n${context.address}/invite/${LINK_PLACE}`,
        linkId,
      });
      await logChange(context, db, 'invited', 'member', programmeId, { email, role });
    }),
});

export const withdrawInvitation = service({
  title: 'Take back an invitation',
  roles: ['coordinator'],
  input: z.object({ linkId: z.uuid() }),
  run: (context, { linkId }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const link = await findOne(db, db.models.accessLink, { id: linkId, programmeId, purpose: 'invite' });
      if (!link) throw notFound('invitation');
      await useLinkOnce(db, {
        id: linkId,
        now: nowOf(context),
      });
      await logChange(context, db, 'took back an invitation', 'member', programmeId, { email: link.email });
    }),
});

/** Ends invitations of a programme that nobody has used: those to an address, or those that a member sent. */
const endInvitations = (db: Db, programmeId: string, now: Date, of: { email?: string; createdBy?: string }) =>
  endUnusedInvitations(db, { programmeId, now, email: of.email ?? null, createdBy: of.createdBy ?? null });

/**
 * Ends what a member made that opens doors for others, or for programs: tokens, invitations, calendar addresses. Only
 * coordinators may make these, so what they made does not outlive their being one.
 */
async function endWhatTheyMade(context: Context, db: Db, memberId: string): Promise<Record<string, number>> {
  const { programmeId } = context.actor;
  const now = nowOf(context);
  return {
    tokens: await revokeMadeBy(db, 'api_token', { programmeId, memberId, now }),
    calendarAddresses: await revokeMadeBy(db, 'calendar_feed', { programmeId, memberId, now }),
    invitations: await endInvitations(db, programmeId, now, { createdBy: memberId }),
  };
}

/** A member of the asker's programme, locked, so that two coordinators cannot each remove the other at once. */
async function lockedMember(context: Context, db: Db, memberId: string): Promise<MemberRow> {
  const { programmeId } = context.actor;
  await holdProgramme(db, { programmeId });
  const member = await findOne(db, db.models.member, { id: memberId, programmeId, status: 'active' });
  if (!member) throw notFound('member');
  return member;
}

async function refuseLastCoordinator(db: Db, member: MemberRow): Promise<void> {
  if (member.role !== 'coordinator') return;
  const { programmeId } = member;
  const all = await find(db, db.models.member, { programmeId, role: 'coordinator', status: 'active' });
  if (all.length === 1)
    throw new ServiceError('invalid', 'A programme needs a coordinator: make somebody else one first.');
}

export const changeRole = service({
  title: 'Change what a member may do',
  roles: ['coordinator'],
  proof: true,
  input: z.object({ memberId: z.uuid(), version: z.coerce.number().int(), role: z.enum(ROLES) }),
  run: (context, { memberId, version, role }) =>
    context.store.transaction(async (db) => {
      const member = await lockedMember(context, db, memberId);
      if (role !== 'coordinator') await refuseLastCoordinator(db, member);
      if (!(await updateVersion(db, db.models.member, memberId, version, { role }))) throw stale(member.name);
      const ended =
        member.role === 'coordinator' && role !== 'coordinator' ? await endWhatTheyMade(context, db, memberId) : {};
      await logChange(context, db, 'changed the role', 'member', memberId, { from: member.role, to: role, ...ended });
      if (role !== member.role)
        await tellMember(context, db, memberId, `your role was changed from ${member.role} to ${role}`);
    }),
});

export const removeMember = service({
  title: 'Remove a member, and sign them out everywhere',
  roles: ['coordinator'],
  proof: true,
  input: z.object({ memberId: z.uuid(), version: z.coerce.number().int() }),
  run: (context, { memberId, version }) =>
    context.store.transaction(async (db) => {
      const member = await lockedMember(context, db, memberId);
      await refuseLastCoordinator(db, member);
      await tellMember(context, db, memberId, 'you were removed from the programme');
      // The e-mail is free again: they may be invited anew. What they did stays theirs in the log.
      const gone = { status: 'removed' as const, email: `removed-${memberId}` };
      if (!(await updateVersion(db, db.models.member, memberId, version, gone))) throw stale(member.name);
      const now = nowOf(context);
      await endSignInsOf(db, { memberId, now });
      await endLinksOf(db, { ...member, now });
      const { accountId } = member;
      // Of other programmes they stay members, and sign in there as before.
      if (!(await isOfUseBeside(db, { accountId, memberId }))) {
        await endAccount(db, { accountId });
        await endSignInsEverywhere(db, { accountId, now });
        await remove(db, db.models.knownDevice, { accountId });
        await remove(db, db.models.recoveryCode, { accountId });
      }
      const ended = await endWhatTheyMade(context, db, memberId);
      // The address under which their own classes are read is in their hands.
      await endFeedsShowing(db, { memberId, now });
      await logChange(context, db, 'removed', 'member', memberId, { name: member.name, role: member.role, ...ended });
    }),
});

export const makeToken = service({
  title: 'Make an API token',
  roles: ['coordinator'],
  proof: true,
  input: z.object({
    name: z.string().trim().min(1, 'Say what the token is for.').max(120),
    role: z.enum(ROLES, `Choose one of: ${ROLES.join(', ')}.`),
    days: z.coerce
      .number('Say for how many days.')
      .int('Whole days.')
      .min(1, 'At least a day.')
      .max(366, 'At most 366 days.'),
  }),
  run: (context, { name, role, days }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const id = context.ids();
      const token = newSecret();
      const createdAt = nowOf(context);
      const expiresAt = new Date(createdAt.getTime() + days * 86_400_000);
      await insert(db, db.models.apiToken, [
        {
          ...{ id, programmeId, name, role, createdAt, expiresAt, revokedAt: null },
          tokenHash: hashSecret(token),
          // The command line makes tokens too, and is nobody's.
          createdBy: context.actor.id === programmeId ? null : context.actor.id,
        },
      ]);
      await logChange(context, db, 'made a token', 'token', id, { name, role, days });
      await tellCoordinators(context, db, programmeId, `an API token was made, “${name}”, in the role ${role}`);
      return { token, expiresAt: expiresAt.toISOString() };
    }),
});

export const revokeToken = service({
  title: 'Take back an API token',
  roles: ['coordinator'],
  input: z.object({ tokenId: z.uuid() }),
  run: (context, { tokenId }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const token = await findOne(db, db.models.apiToken, { id: tokenId, programmeId });
      if (!token) throw notFound('token');
      await endToken(db, {
        tokenId,
        now: nowOf(context),
      });
      await logChange(context, db, 'took back a token', 'token', tokenId, { name: token.name });
      await tellCoordinators(context, db, programmeId, `the API token “${token.name}” was taken back`);
    }),
});
