import { z } from 'zod';
import { change, find, findOne, insert, updateVersion } from '@/store/query';
import type { MemberRow } from '@/store/rows';
import type { Db } from '@/store/store';
import { notFound, ServiceError, stale } from '../errors';
import { queueMessage } from '../messages/messages';
import { logChange } from './change-log';
import { type Context, nowOf, ROLES, service } from './gate';
import { endAllSignIns, makeLink } from './links';
import { hashSecret, newSecret } from './passwords';

const DAYS_TO_JOIN = 7;

export const listMembers = service({
  title: 'See who works with the programme',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const members = await find(db, db.models.member, { programmeId, status: 'active' }, [['name', 'ASC']]);
    const links = await find(db, db.models.accessLink, { programmeId, purpose: 'invite', usedAt: null }, [
      ['createdAt', 'ASC'],
    ]);
    const tokens = await find(db, db.models.apiToken, { programmeId, revokedAt: null }, [['createdAt', 'ASC']]);
    const now = nowOf(context);
    return {
      members: members.map(({ id, name, email, role, version }) => ({ id, name, email, role, version })),
      invitations: links
        .filter((link) => link.email && link.expiresAt > now)
        .map(({ id, email, role, expiresAt }) => ({ id, email, role, expiresAt: expiresAt.toISOString() })),
      tokens: tokens
        .filter((token) => token.expiresAt > now)
        .map(({ id, name, role, expiresAt }) => ({ id, name, role, expiresAt: expiresAt.toISOString() })),
    };
  },
});

export const inviteMember = service({
  title: 'Invite somebody to the programme',
  roles: ['coordinator'],
  input: z.object({
    email: z.email('Write an e-mail address, such as robin@example.org.').max(190).toLowerCase(),
    role: z.enum(ROLES, `Choose one of: ${ROLES.join(', ')}.`),
  }),
  run: (context, { email, role }) =>
    context.store.transaction(async (db) => {
      const { programmeId, name } = context.actor;
      if (await findOne(db, db.models.member, { email })) {
        const message = 'Somebody signs in with this e-mail already.';
        throw new ServiceError('invalid', message, [{ where: 'email', message }]);
      }
      const link = { programmeId, purpose: 'invite' as const, email, role, memberId: null };
      const secret = await makeLink(context, db, link, DAYS_TO_JOIN * 24);
      await queueMessage(context, db, programmeId, {
        sentTo: email,
        subject: 'An invitation to Logistra',
        body: `${name} invites you to join as ${role}.\n\nChoose a password here, within ${DAYS_TO_JOIN} days:\n${context.address}/invite/${secret}`,
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
      await change(db, 'UPDATE access_link SET used_at = :now WHERE id = :linkId AND used_at IS NULL', {
        linkId,
        now: nowOf(context),
      });
      await logChange(context, db, 'took back an invitation', 'member', programmeId, { email: link.email });
    }),
});

/** A member of the asker's programme, locked, so that two coordinators cannot each remove the other at once. */
async function lockedMember(context: Context, db: Db, memberId: string): Promise<MemberRow> {
  const { programmeId } = context.actor;
  await change(db, 'UPDATE programme SET version = version WHERE id = :programmeId', { programmeId });
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
  input: z.object({ memberId: z.uuid(), version: z.coerce.number().int(), role: z.enum(ROLES) }),
  run: (context, { memberId, version, role }) =>
    context.store.transaction(async (db) => {
      const member = await lockedMember(context, db, memberId);
      if (role !== 'coordinator') await refuseLastCoordinator(db, member);
      if (!(await updateVersion(db, db.models.member, memberId, version, { role }))) throw stale(member.name);
      await logChange(context, db, 'changed the role', 'member', memberId, { from: member.role, to: role });
    }),
});

export const removeMember = service({
  title: 'Remove a member, and sign them out everywhere',
  roles: ['coordinator'],
  input: z.object({ memberId: z.uuid(), version: z.coerce.number().int() }),
  run: (context, { memberId, version }) =>
    context.store.transaction(async (db) => {
      const member = await lockedMember(context, db, memberId);
      await refuseLastCoordinator(db, member);
      // The e-mail is free again: they may be invited anew. What they did stays theirs in the log.
      const gone = { status: 'removed' as const, email: `removed-${memberId}`, passwordHash: '-' };
      if (!(await updateVersion(db, db.models.member, memberId, version, gone))) throw stale(member.name);
      await endAllSignIns(db, memberId, nowOf(context));
      await logChange(context, db, 'removed', 'member', memberId, { name: member.name, role: member.role });
    }),
});

export const makeToken = service({
  title: 'Make an API token',
  roles: ['coordinator'],
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
        { id, programmeId, name, role, tokenHash: hashSecret(token), createdAt, expiresAt, revokedAt: null },
      ]);
      await logChange(context, db, 'made a token', 'token', id, { name, role, days });
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
      await change(db, 'UPDATE api_token SET revoked_at = :now WHERE id = :tokenId AND revoked_at IS NULL', {
        tokenId,
        now: nowOf(context),
      });
      await logChange(context, db, 'took back a token', 'token', tokenId, { name: token.name });
    }),
});
