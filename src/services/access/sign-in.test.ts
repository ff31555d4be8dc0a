import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find, insert } from '@/store/query';
import { openStore, type Store } from '@/store/store';
import { NOW, newProgramme, testStore } from '../../../tests/programme';
import { changePassword, endOwnSignIn, listSignIns, signOutEverywhere } from './account';
import type { Context } from './gate';
import { acceptInvitation, askForPassword, makeLink, openLink, resetPassword } from './links';
import { changeRole, inviteMember, listMembers, makeToken, removeMember, revokeToken } from './members';
import { hashPassword } from './passwords';
import { endSignIn, findActor, findTokenActors, signIn, type Visit } from './sign-in';

const PASSWORD = 'tide and thyme';
const now = new Date(NOW.epochMilliseconds);
let store: Store;
let coordinator: Context;

const visit = (change: Partial<Visit> = {}): Visit => ({
  clock: () => NOW,
  ids: () => v7(),
  store,
  address: 'https://kitchen.test',
  ip: v7(),
  device: 'a browser',
  ...change,
});

/** A member who can sign in, with a context of their own. */
async function member(role: 'coordinator' | 'crew' = 'crew', home: Context = coordinator) {
  const id = v7();
  const email = `${id}@example.test`;
  const { programmeId } = home.actor;
  const row = { id, programmeId, email, name: 'Robin', role, status: 'active' as const, version: 1 };
  await insert(store.db, store.db.models.member, [{ ...row, passwordHash: await hashPassword(PASSWORD) }]);
  return { id, email, context: { ...home, actor: { id, programmeId, role, name: 'Robin' } } };
}

/** The link in the newest message to an address. */
async function linkTo(email: string): Promise<string> {
  const [message] = await find(store.db, store.db.models.message, { sentTo: email }, [['id', 'DESC']]);
  return /\/(?:reset|invite)\/(\S+)/.exec(message?.body ?? '')?.[1] ?? '';
}

beforeAll(async () => {
  store = await testStore();
  coordinator = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

describe('signing in', () => {
  it('takes e-mail and password together, and nothing less', async () => {
    const { id, email } = await member();
    const signInId = await signIn(visit(), ` ${email.toUpperCase()} `, PASSWORD);
    expect(await findActor(store, signInId ?? '', now)).toMatchObject({ actor: { id, role: 'crew' } });
    expect(await signIn(visit(), email, `${PASSWORD}!`)).toBeUndefined();
    expect(await signIn(visit(), 'nobody@example.test', PASSWORD)).toBeUndefined();
    expect(await signIn(visit(), "' OR 1=1 -- ", "' OR 1=1 -- ")).toBeUndefined();
  });

  it('is limited for all servers together, tells how long to wait, and good ones do not count', async () => {
    const { email } = await member();
    const other = openStore(process.env.TEST_DATABASE_URL ?? '');
    const ip = v7();
    for (let good = 0; good < 12; good++) expect(await signIn(visit({ ip }), email, PASSWORD)).toBeDefined();
    for (let wrong = 0; wrong < 8; wrong++) {
      expect(await signIn(visit({ ip, store: wrong % 2 ? other : store }), email, 'a wrong one')).toBeUndefined();
    }
    await expect(signIn(visit({ ip, store: other }), email, PASSWORD)).rejects.toMatchObject({
      kind: 'limited',
      message: expect.stringMatching(/Wait 1[45] minutes/),
    });
    // Somebody else's guesses do not lock the member out of their own address.
    expect(await signIn(visit(), email, PASSWORD)).toBeDefined();
    await other.close();
  });

  it('ends by time, by signing out, one by one or everywhere, whichever server asks', async () => {
    const { email, context } = await member();
    const [one = '', two = '', three = ''] = await Promise.all([1, 2, 3].map(() => signIn(visit(), email, PASSWORD)));
    const later = new Date(NOW.add({ hours: 13 }).epochMilliseconds);
    expect(await findActor(store, one, later)).toBeUndefined();
    await endSignIn(visit(), one);
    expect(await findActor(store, one, now)).toBeUndefined();
    await endOwnSignIn(context, { signInId: two });
    expect((await listSignIns(context, {})).map(({ id }) => id)).toEqual([three]);
    const foreign = await member();
    await expect(endOwnSignIn(foreign.context, { signInId: three })).rejects.toMatchObject({ kind: 'not-found' });
    expect(await signOutEverywhere(context, {})).toBe(1);
    expect(await findActor(store, three, now)).toBeUndefined();
  });
});

describe('a new password', () => {
  it('comes by a link that works once, for an hour, and signs out everywhere', async () => {
    const { id, email } = await member();
    const open = (await signIn(visit(), email, PASSWORD)) ?? '';
    await askForPassword(visit(), email);
    const secret = await linkTo(email);
    expect(await openLink(visit({ clock: () => NOW.add({ minutes: 61 }) }), 'reset', secret)).toBeUndefined();
    expect(await openLink(visit(), 'invite', secret)).toBeUndefined();
    await expect(resetPassword(visit(), secret, 'short')).rejects.toMatchObject({ problems: [{ where: 'password' }] });
    const both = await Promise.allSettled([1, 2].map((n) => resetPassword(visit(), secret, `salt and seaweed ${n}`)));
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(both.find(({ status }) => status === 'fulfilled')).toMatchObject({ value: id });
    expect(await findActor(store, open, now)).toBeUndefined();
    expect(await signIn(visit(), email, PASSWORD)).toBeUndefined();
  });

  it('asked for an e-mail that nobody has sends nothing, says nothing, and is limited', async () => {
    const before = await store.db.models.message.count();
    for (let n = 0; n < 5; n++) await askForPassword(visit(), 'nobody-here@example.test');
    expect(await store.db.models.message.count()).toBe(before);
    await expect(askForPassword(visit(), 'nobody-here@example.test')).rejects.toMatchObject({ kind: 'limited' });
  });

  it('chosen by oneself needs the present one', async () => {
    const { email, context } = await member();
    await expect(changePassword(context, { old: 'a guess', password: 'salt and seaweed' })).rejects.toMatchObject({
      problems: [{ where: 'old' }],
    });
    await changePassword(context, { old: PASSWORD, password: 'salt and seaweed' });
    expect(await signIn(visit(), email, 'salt and seaweed')).toBeDefined();
  });
});

describe('an invitation', () => {
  it('makes one member of the invited role and e-mail, once', async () => {
    const email = `${v7()}@example.test`;
    await inviteMember(coordinator, { email, role: 'instructor' });
    const secret = await linkTo(email);
    const join = () =>
      acceptInvitation(visit(), secret, { name: 'Sam', email: 'other@example.test', password: PASSWORD });
    const id = await join();
    const signInId = (await signIn(visit(), email, PASSWORD)) ?? '';
    expect(await findActor(store, signInId, now)).toMatchObject({ actor: { id, role: 'instructor', name: 'Sam' } });
    await expect(join()).rejects.toThrow('This link has been used');
    await expect(inviteMember(coordinator, { email, role: 'crew' })).rejects.toMatchObject({
      problems: [{ where: 'email' }],
    });
  });

  it('of the first coordinator lets them give their own e-mail', async () => {
    const { programmeId } = coordinator.actor;
    const link = { programmeId, purpose: 'invite' as const, email: '', role: 'coordinator', memberId: null };
    const secret = await makeLink(coordinator, store.db, link, 24);
    await expect(
      acceptInvitation(visit(), secret, { name: '', email: 'no address', password: 'short' }),
    ).rejects.toMatchObject({ problems: [{ where: 'name' }, { where: 'email' }, { where: 'password' }] });
    const email = `${v7()}@example.test`;
    await acceptInvitation(visit(), secret, { name: 'Kim', email, password: PASSWORD });
    expect(await signIn(visit(), email, PASSWORD)).toBeDefined();
  });
});

describe('members and tokens', () => {
  it('leave a programme with a coordinator, also when two remove each other at once', async () => {
    const home = (await newProgramme(store)).coordinator;
    const other = await member('coordinator', home);
    const both = await Promise.allSettled([
      removeMember(home, { memberId: other.id, version: 1 }),
      removeMember(other.context, { memberId: home.actor.id, version: 1 }),
    ]);
    expect(both.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    const left = await find(store.db, store.db.models.member, {
      programmeId: home.actor.programmeId,
      role: 'coordinator',
      status: 'active',
    });
    expect(left).toHaveLength(1);
    await expect(changeRole(home, { memberId: left[0]?.id, version: left[0]?.version, role: 'crew' })).rejects.toThrow(
      'A programme needs a coordinator',
    );
  });

  it('removed are out at once, and may be invited anew', async () => {
    const { id, email } = await member();
    const signInId = (await signIn(visit(), email, PASSWORD)) ?? '';
    await removeMember(coordinator, { memberId: id, version: 1 });
    expect(await findActor(store, signInId, now)).toBeUndefined();
    expect(await signIn(visit(), email, PASSWORD)).toBeUndefined();
    await inviteMember(coordinator, { email, role: 'crew' });
  });

  it('a token acts in its role until its end or until it is taken back, and is kept only as a hash', async () => {
    const { token } = await makeToken(coordinator, { name: 'till', role: 'crew', days: 2 });
    const who = async (at: Date) => (await findTokenActors(store, ['unknown', token], at)).get(token);
    expect(await who(now)).toMatchObject({ role: 'crew', name: 'till' });
    const later = new Date(Temporal.Instant.from(NOW).add({ hours: 49 }).epochMilliseconds);
    expect(await who(later)).toBeUndefined();
    expect(JSON.stringify(await find(store.db, store.db.models.apiToken, {}))).not.toContain(token);
    const { tokens } = await listMembers(coordinator, {});
    await revokeToken(coordinator, { tokenId: tokens.find(({ name }) => name === 'till')?.id ?? '' });
    expect(await who(now)).toBeUndefined();
  });
});
