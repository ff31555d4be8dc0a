import { hash } from '@node-rs/argon2';
import { Secret, TOTP } from 'otpauth';
import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addMember } from '@/store/accounts';
import { ownedTables } from '@/store/models';
import { find } from '@/store/query';
import { openStore, type Store } from '@/store/store';
import { NOW, newProgramme, newVisit, select, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { withLink } from '../messages/link-place';
import { listMessages } from '../messages/messages';
import { listFeeds, makeFeed, readFeed } from '../plan/feeds';
import { changePassword, endOwnSignIn, listSignIns, proveAgain, signOutEverywhere } from './account';
import { listSecurityEvents } from './doors';
import { acceptInvitation, askForPassword, makeLink, openLink, resetPassword } from './links';
import { changeRole, inviteMember, listMembers, makeToken, removeMember, revokeToken } from './members';
import { hashPassword, isOldHash } from './passwords';
import { beginSecondStep, requireSecondStep, turnOnSecondStep } from './second-step';
import { awaitsCode, endSignIn, findActor, findTokenActors, passCode, signIn, type Visit } from './sign-in';

const PASSWORD = 'tide and thyme';
const now = new Date(NOW.epochMilliseconds);
let store: Store;
let coordinator: Context;

const visit = (change: Partial<Visit> = {}) => newVisit(store, change);

/** A member who can sign in, with a context of their own. */
async function member(role: 'coordinator' | 'crew' = 'crew', home: Context = coordinator) {
  const id = v7();
  const email = `${id}@example.test`;
  const { programmeId } = home.actor;
  const passwordHash = await hashPassword(visit(), PASSWORD);
  await addMember(store.db, { id, programmeId, email, name: 'Robin', role, passwordHash });
  return { id, email, context: { ...home, actor: { id, programmeId, role, name: 'Robin' } } };
}

/** The link in the newest message to an address, as it goes out: it is kept nowhere. */
async function linkTo(email: string): Promise<string> {
  const messages = await find(store.db, store.db.models.message, { sentTo: email }, [['id', 'DESC']]);
  const { body = '', linkId = null } = messages.find((message) => message.linkId !== null) ?? {};
  return /\/(?:reset|invite)\/(\S+)/.exec(withLink(visit(), body, linkId ?? ''))?.[1] ?? '';
}

/** A sign-in's id, as the cookie carries it. */
const enter = async (as: Visit, email: string, password: string) => (await signIn(as, email, password))?.signInId ?? '';

beforeAll(async () => {
  store = await testStore();
  coordinator = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

describe('signing in', () => {
  it('takes e-mail and password together, and nothing less', async () => {
    const { id, email } = await member();
    const signInId = await enter(visit(), ` ${email.toUpperCase()} `, PASSWORD);
    expect(await findActor(store, signInId, now)).toMatchObject({ actor: { id, role: 'crew' } });
    expect(await signIn(visit(), email, `${PASSWORD}!`)).toBeUndefined();
    expect(await signIn(visit(), 'nobody@example.test', PASSWORD)).toBeUndefined();
    expect(await signIn(visit(), "' OR 1=1 -- ", "' OR 1=1 -- ")).toBeUndefined();
  });

  it('makes a hash from before keys went in anew', async () => {
    const { id, email } = await member();
    await store.db.models.account.update({ passwordHash: await hash(PASSWORD) }, { where: { id } });
    expect(await signIn(visit(), email, `${PASSWORD}!`)).toBeUndefined();
    const kept = async () => (await find(store.db, store.db.models.account, { id }))[0]?.passwordHash ?? '';
    expect(isOldHash(await kept())).toBe(true);
    expect(await signIn(visit(), email, PASSWORD)).toBeDefined();
    expect(isOldHash(await kept())).toBe(false);
    expect(await signIn(visit(), email, PASSWORD)).toBeDefined();
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
    const [one = '', two = '', three = ''] = await Promise.all([1, 2, 3].map(() => enter(visit(), email, PASSWORD)));
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
    const open = await enter(visit(), email, PASSWORD);
    await askForPassword(visit(), email);
    const secret = await linkTo(email);
    expect(await openLink(visit({ clock: () => NOW.add({ minutes: 61 }) }), 'reset', secret)).toBeUndefined();
    expect(await openLink(visit(), 'invite', secret)).toBeUndefined();
    await expect(resetPassword(visit(), secret, 'short')).rejects.toMatchObject({ problems: [{ where: 'password' }] });
    const both = await Promise.allSettled([1, 2].map((n) => resetPassword(visit(), secret, `salt and seaweed ${n}`)));
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(both.find(({ status }) => status === 'fulfilled')).toMatchObject({ value: { id } });
    expect(await findActor(store, open, now)).toBeUndefined();
    expect(await signIn(visit(), email, PASSWORD)).toBeUndefined();
  });

  it('asked for an e-mail that nobody has sends nothing, says nothing, and is limited', async () => {
    const email = `${v7()}@example.test`;
    for (let n = 0; n < 5; n++) await askForPassword(visit(), email);
    expect(await store.db.models.message.count({ where: { sentTo: email } })).toBe(0);
    await expect(askForPassword(visit(), email)).rejects.toMatchObject({ kind: 'limited' });
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
    const { id } = await join();
    const signInId = await enter(visit(), email, PASSWORD);
    expect(await findActor(store, signInId, now)).toMatchObject({ actor: { id, role: 'instructor', name: 'Sam' } });
    await expect(join()).rejects.toThrow('This link has been used');
    await expect(inviteMember(coordinator, { email, role: 'crew' })).rejects.toMatchObject({
      problems: [{ where: 'email' }],
    });
  });

  it('of the first coordinator lets them give their own e-mail', async () => {
    const { programmeId } = coordinator.actor;
    const link = { programmeId, purpose: 'invite' as const, email: '', role: 'coordinator', memberId: null };
    const { secret } = await makeLink(coordinator, store.db, { ...link, createdBy: null }, 24);
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
    const signInId = await enter(visit(), email, PASSWORD);
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

describe('what looks like a member’s address', () => {
  const LOOK_ALIKES = ['Ä', 'ä', 'á', '\u0430', '\u212a', 'ａ', 'a\u0301', ' '];

  it('is not theirs: no link is made, nothing is sent, nobody signs in', async () => {
    const { id } = await member();
    const { email } = (await find(store.db, store.db.models.member, { id }))[0] ?? { email: '' };
    const alike = LOOK_ALIKES.flatMap((letter) => [
      email.replace('example', `ex${letter}mple`),
      email.replace('.test', `.test${letter === ' ' ? '\u00a0.' : letter}`),
      email.replace(/k|e/, letter),
    ]).filter((other) => other !== email);
    for (const other of alike) {
      await askForPassword(visit(), other);
      expect(await signIn(visit(), other, PASSWORD)).toBeUndefined();
    }
    expect(await store.db.models.accessLink.count({ where: { memberId: id } })).toBe(0);
    expect(await store.db.models.message.count({ where: { sentTo: [...alike, email] } })).toBe(0);
    await askForPassword(visit(), email);
    const [message] = await find(store.db, store.db.models.message, { sentTo: email });
    expect(message?.sentTo).toBe(email);
  });

  it('is another one in every column by which something is known', async () => {
    const columns = await select<{ place: string; collation: string }>(
      store.db,
      `SELECT DISTINCT CONCAT(s.table_name, '.', s.column_name) AS place, c.collation_name AS collation
         FROM information_schema.statistics s JOIN information_schema.columns c
           USING (table_schema, table_name, column_name)
        WHERE s.table_schema = DATABASE() AND s.non_unique = 0 AND c.collation_name IS NOT NULL`,
      {},
    );
    expect(columns.length).toBeGreaterThan(60);
    for (const { place, collation } of columns) {
      for (const [one, other] of [
        ['a', 'ä'],
        ['a', 'A'],
        ['k', '\u212a'],
        ['ss', 'ß'],
        ['a', 'a '],
        ['e', 'e\u0301'],
      ]) {
        // Columns of ids and hashes hold ASCII alone: no other letter can be written there.
        if (collation?.startsWith('ascii') && !/^[\x20-\x7e]*$/.test(other ?? '')) continue;
        const [{ same } = { same: 1 }] = await select<{ same: number }>(
          store.db,
          `SELECT CONVERT(:one USING ${collation.split('_')[0]}) COLLATE ${collation} = CONVERT(:other USING ${collation.split('_')[0]}) COLLATE ${collation} AS same`,
          { one, other },
        );
        // The ids' collation takes no notice of spaces at the end; ids have a fixed length.
        if (other !== 'a ' || !collation.startsWith('ascii'))
          expect({ place, one, other, same }).toMatchObject({ same: 0 });
      }
    }
  });
});

describe('a link', () => {
  it('used, or a password changed, ends all others of that member', async () => {
    const { email, context } = await member();
    await askForPassword(visit(), email);
    const first = await linkTo(email);
    await askForPassword(visit(), email);
    const second = await linkTo(email);
    expect(await openLink(visit(), 'reset', first)).toBeUndefined();
    expect(await openLink(visit(), 'reset', second)).toBeDefined();
    await changePassword(context, { old: PASSWORD, password: 'salt and seaweed' });
    expect(await openLink(visit(), 'reset', second)).toBeUndefined();
  });

  it('that does not work costs no hashing, and is counted', async () => {
    const ip = v7();
    const started = performance.now();
    for (let n = 0; n < 60; n++)
      await expect(resetPassword(visit({ ip }), `guess ${n}`, 'salt and seaweed')).rejects.toThrow('has been used');
    // Sixty hashes would take more than a second of a core.
    expect(performance.now() - started).toBeLessThan(5000);
    await expect(resetPassword(visit({ ip }), 'guess', 'salt and seaweed')).rejects.toMatchObject({ kind: 'limited' });
  });

  it('stands in no message that is kept, nor anywhere in the database', async () => {
    const { email } = await member();
    await askForPassword(visit(), email);
    const secret = await linkTo(email);
    expect(await openLink(visit(), 'reset', secret)).toBeDefined();
    for (const { table } of ownedTables(store.db.models))
      expect(JSON.stringify(await find(store.db, table, {}))).not.toContain(secret);
    const shown = await listMessages(coordinator, {});
    expect(JSON.stringify(shown)).not.toContain(secret);
  });
});

describe('somebody who is removed, or is no coordinator any more', () => {
  it.each(['removed', 'crew'] as const)('leaves no door open that they made: %s', async (how) => {
    const home = (await newProgramme(store)).coordinator;
    const { id, context } = await member('coordinator', home);
    const { token } = await makeToken(context, { name: 'till', role: 'coordinator', days: 9 });
    const invited = `${v7()}@example.test`;
    await inviteMember(context, { email: invited, role: 'coordinator' });
    const secret = await linkTo(invited);
    const feed = await makeFeed(context, { scope: 'programme', scopeId: null });
    const open = await listMembers(home, {});
    expect(open.tokens).toMatchObject([{ name: 'till', by: 'Robin' }]);
    expect(open.invitations).toMatchObject([{ email: invited, by: 'Robin' }]);
    expect(await listFeeds(home, {})).toMatchObject([{ madeBy: 'Robin' }]);
    if (how === 'removed') await removeMember(home, { memberId: id, version: 1 });
    else await changeRole(home, { memberId: id, version: 1, role: 'crew' });
    expect((await findTokenActors(store, [token], now)).size).toBe(0);
    expect(await openLink(visit(), 'invite', secret)).toBeUndefined();
    expect(await readFeed(home, feed.token)).toBeUndefined();
    expect(await listMembers(home, {})).toMatchObject({ tokens: [], invitations: [] });
  });

  it('is told, and so is whoever’s password, role or token changed', async () => {
    const home = (await newProgramme(store)).coordinator;
    const { id, email, context } = await member('coordinator', home);
    await makeToken(home, { name: 'till', role: 'crew', days: 9 });
    await changePassword(context, { old: PASSWORD, password: 'salt and seaweed' });
    await changeRole(home, { memberId: id, version: 1, role: 'crew' });
    const subjects = (await find(store.db, store.db.models.message, { sentTo: email }, [['id', 'ASC']])).map(
      ({ subject }) => subject,
    );
    expect(subjects).toEqual([
      'Logistra: an API token was made, “till”, in the role crew',
      'Logistra: your password was changed',
      'Logistra: your role was changed from coordinator to crew',
    ]);
  });
});

describe('an e-mail of another programme', () => {
  it('is not told to who invites', async () => {
    const other = (await newProgramme(store)).coordinator;
    const { email } = await member('crew', other);
    await inviteMember(coordinator, { email, role: 'crew' });
    expect(JSON.stringify((await listMembers(coordinator, {})).invitations)).toContain(email);
    const own = await member();
    await expect(inviteMember(coordinator, { email: own.email, role: 'crew' })).rejects.toThrow('Somebody here');
  });
});

describe('guesses', () => {
  it('of a stranger do not lock the owner out of a browser they used before', async () => {
    const { email } = await member();
    const { deviceToken } = (await signIn(visit(), email, PASSWORD)) ?? { deviceToken: '' };
    for (let n = 0; n < 40; n++) expect(await signIn(visit(), email, `guess ${n}`)).toBeUndefined();
    await expect(signIn(visit(), email, PASSWORD)).rejects.toMatchObject({ kind: 'limited' });
    expect(await signIn(visit({ deviceToken }), email, PASSWORD)).toBeDefined();
    // The browser itself is limited too, and another member's is no help.
    for (let n = 0; n < 8; n++) expect(await signIn(visit({ deviceToken }), email, `guess ${n}`)).toBeUndefined();
    await expect(signIn(visit({ deviceToken }), email, PASSWORD)).rejects.toMatchObject({ kind: 'limited' });
    const other = await member();
    const foreign = (await signIn(visit(), other.email, PASSWORD))?.deviceToken ?? '';
    await expect(signIn(visit({ deviceToken: foreign }), email, PASSWORD)).rejects.toMatchObject({ kind: 'limited' });
  });

  it('and refusals are kept, without what was typed', async () => {
    const home = (await newProgramme(store)).coordinator;
    const { email, context } = await member('crew', home);
    await signIn(visit(), email, 'a secret of another place');
    await expect(listMembers(context, {})).rejects.toMatchObject({ kind: 'forbidden' });
    const events = await listSecurityEvents(home, {});
    expect(events.map(({ kind, who, detail }) => ({ kind, who, detail }))).toEqual([
      { kind: 'refused', who: 'Robin', detail: 'See who works with the programme' },
      { kind: 'wrong password', who: 'Robin', detail: '' },
    ]);
    expect(JSON.stringify(await find(store.db, store.db.models.securityEvent, {}))).not.toContain('another place');
  });
});

describe('a sign-in', () => {
  it('that lies idle for half an hour ends; one in use goes on to its twelfth hour', async () => {
    const { email } = await member();
    const [used, idle] = [await enter(visit(), email, PASSWORD), await enter(visit(), email, PASSWORD)];
    const after = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
    for (let minutes = 20; minutes < 12 * 60; minutes += 20)
      expect(await findActor(store, used, after(minutes))).toBeDefined();
    expect(await findActor(store, idle, after(31))).toBeUndefined();
    expect(await findActor(store, used, after(12 * 60 + 1))).toBeUndefined();
  });

  it('is asked for the password again before what cannot be undone, and a token is not', async () => {
    const home = (await newProgramme(store)).coordinator;
    const { id, email, context } = await member('coordinator', home);
    const signInId = await enter(visit(), email, PASSWORD);
    const later = { ...context, clock: () => NOW.add({ minutes: 11 }) };
    const asNow = async () => {
      const member = await findActor(store, signInId, new Date(later.clock().epochMilliseconds));
      return { ...later, actor: member?.actor ?? later.actor };
    };
    const input = { name: 'till', role: 'crew', days: 9 };
    await expect(makeToken(await asNow(), input)).rejects.toMatchObject({ kind: 'proof' });
    expect(await proveAgain(visit({ clock: later.clock }), signInId, 'a guess')).toBe(false);
    await expect(makeToken(await asNow(), input)).rejects.toMatchObject({ kind: 'proof' });
    expect(await proveAgain(visit({ clock: later.clock }), signInId, PASSWORD)).toBe(true);
    expect(await makeToken(await asNow(), input)).toHaveProperty('token');
    expect(
      await makeToken(
        { ...later, actor: { id, programmeId: home.actor.programmeId, role: 'coordinator', name: 'till' } },
        input,
      ),
    ).toHaveProperty('token');
  });
});

describe('the second step', () => {
  const at = (seconds: number) => ({ clock: () => NOW.add({ seconds }) });
  const codeOf = (secret: string, seconds: number) =>
    new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: NOW.epochMilliseconds + seconds * 1000 });

  async function withSecondStep() {
    const home = (await newProgramme(store)).coordinator;
    const who = await member('coordinator', home);
    const { secret, sealed } = await beginSecondStep(who.context, {});
    await expect(turnOnSecondStep(who.context, { sealed, code: '000000' })).rejects.toMatchObject({
      problems: [{ where: 'code' }],
    });
    const { codes } = await turnOnSecondStep(who.context, { sealed, code: codeOf(secret, 0) });
    return { ...who, home, secret, codes };
  }

  it('is asked for after the password, and a code works once, in its own half minutes', async () => {
    const { email, secret, id } = await withSecondStep();
    const signInId = await enter(visit(), email, PASSWORD);
    expect(await findActor(store, signInId, now)).toBeUndefined();
    expect(await awaitsCode(visit(), signInId)).toBe(true);
    // The code that turned it on was used up then.
    expect(await passCode(visit(), signInId, codeOf(secret, 0))).toBe(false);
    expect(await passCode(visit(at(300)), signInId, codeOf(secret, 60))).toBe(false);
    expect(await passCode(visit(at(60)), signInId, codeOf(secret, 60))).toBe(true);
    expect(await findActor(store, signInId, now)).toMatchObject({ actor: { id } });
    const again = await enter(visit(), email, PASSWORD);
    expect(await passCode(visit(at(60)), again, codeOf(secret, 60))).toBe(false);
    expect(JSON.stringify(await find(store.db, store.db.models.member, { id }))).not.toContain(secret);
  });

  it('may be a recovery code, each once; guesses are stopped', async () => {
    const { email, codes } = await withSecondStep();
    const enterWith = async (code: string) => passCode(visit(), await enter(visit(), email, PASSWORD), code);
    expect(codes).toHaveLength(10);
    expect(await enterWith(codes[0]?.toUpperCase() ?? '')).toBe(true);
    expect(await enterWith(codes[0] ?? '')).toBe(false);
    for (let n = 0; n < 7; n++) expect(await enterWith(`12345${n}`)).toBe(false);
    await expect(enterWith(codes[1] ?? '')).rejects.toMatchObject({ kind: 'limited' });
  });

  it('is wanted of coordinators where the programme says so, and nothing else is open to them until then', async () => {
    const { home, email } = await withSecondStep();
    const other = await member('coordinator', home);
    const crew = await member('crew', home);
    await requireSecondStep(home, { required: true });
    const must = async (address: string) =>
      (await findActor(store, await enter(visit(), address, PASSWORD), now))?.mustSetUp;
    expect(await must(other.email)).toBe(true);
    expect(await must(crew.email)).toBe(false);
    expect(await awaitsCode(visit(), await enter(visit(), email, PASSWORD))).toBe(true);
  });
});
