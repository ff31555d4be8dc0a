import { Secret, TOTP } from 'otpauth';
import { v7 } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { addMember, membershipsOf } from '@/store/accounts';
import { find, findOne } from '@/store/query';
import type { Store } from '@/store/store';
import { NOW, newProgramme, newVisit, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { linkSecret } from '../gate/keys';
import { goToProgramme, listProgrammes, listSignIns } from './account';
import { acceptInvitation, askForPassword, makeLink, resetPassword } from './links';
import { changeRole, inviteMember, listMembers, removeMember } from './members';
import { beginSecondStep, turnOnSecondStep } from './second-step';
import { findActor, passCode, signIn } from './sign-in';

const PASSWORD = 'tide and thyme';
const now = new Date(NOW.epochMilliseconds);
let store: Store;
let here: Context;
let there: Context;

const visit = () => newVisit(store);

/** The secret of the newest link to an address. */
async function linkTo(email: string): Promise<string> {
  const links = await find(store.db, store.db.models.accessLink, { email, usedAt: null }, [['id', 'DESC']]);
  return linkSecret(visit(), links[0]?.id ?? '');
}

async function invited(home: Context, email: string, role: 'crew' | 'coordinator' = 'crew'): Promise<string> {
  await inviteMember(home, { email, role });
  return linkTo(email);
}

/** Somebody who belongs to both programmes. */
async function inBoth() {
  const email = `${v7()}@example.test`;
  const written = { name: 'Robin', email: '', password: PASSWORD };
  const first = await acceptInvitation(visit(), await invited(here, email), written);
  const second = await acceptInvitation(visit(), await invited(there, email, 'coordinator'), written);
  return { email, first, second };
}

const actorOf = async (signInId: string) => (await findActor(store, signInId, now))?.actor;
const enter = async (email: string, password = PASSWORD) => (await signIn(visit(), email, password))?.signInId ?? '';

beforeAll(async () => {
  store = await testStore();
  here = (await newProgramme(store)).coordinator;
  there = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

it('somebody of one programme joins another with the password they have, and with no other', async () => {
  const email = `${v7()}@example.test`;
  const first = await acceptInvitation(visit(), await invited(here, email), {
    name: 'Robin',
    email: '',
    password: PASSWORD,
  });
  const secret = await invited(there, email);
  const wrong = { name: 'Robin', email: '', password: 'salt and seaweed' };
  await expect(acceptInvitation(visit(), secret, wrong)).rejects.toMatchObject({ problems: [{ where: 'password' }] });
  expect(await enter(email, wrong.password)).toBe('');
  const second = await acceptInvitation(visit(), secret, { ...wrong, password: PASSWORD });
  expect(second.accountId).toBe(first.accountId);
  expect(second.programmeId).toBe(there.actor.programmeId);
  // Whoever holds an invitation guesses at the password no more often than at the door.
  const other = await invited((await newProgramme(store)).coordinator, email);
  for (let n = 0; n < 12; n++) await acceptInvitation(visit(), other, wrong).catch(() => undefined);
  await expect(acceptInvitation(visit(), other, { ...wrong, password: PASSWORD })).rejects.toMatchObject({
    kind: 'limited',
  });
});

it('one browser goes on in the other programme, and only in one of theirs', async () => {
  const { email, first, second } = await inBoth();
  const signInId = await enter(email);
  expect(await actorOf(signInId)).toMatchObject({ programmeId: first.programmeId, role: 'crew' });
  await goToProgramme(visit(), signInId, second.id);
  const actor = await actorOf(signInId);
  expect(actor).toMatchObject({ id: second.id, programmeId: second.programmeId, role: 'coordinator' });
  const context = { ...there, actor: { ...there.actor, id: second.id } };
  expect((await listProgrammes(context, {})).map(({ id }) => id).sort()).toEqual([first.id, second.id].sort());
  await expect(goToProgramme(visit(), signInId, there.actor.id)).rejects.toMatchObject({ kind: 'not-found' });
  await expect(goToProgramme(visit(), v7(), first.id)).rejects.toMatchObject({ kind: 'not-found' });
  expect(await actorOf(signInId)).toMatchObject({ id: second.id });
  // Their sign-ins are theirs, in whichever programme they look.
  expect((await listSignIns(context, {})).map(({ id }) => id)).toContain(signInId);
  expect((await listSignIns({ ...here, actor: { ...here.actor, id: first.id } }, {})).map(({ id }) => id)).toContain(
    signInId,
  );
});

it('removed from one programme, they are out of it at once, and in the other as before', async () => {
  const { email, first, second } = await inBoth();
  const [inFirst, inSecond] = [await enter(email), await enter(email)];
  await goToProgramme(visit(), inFirst, first.id);
  await goToProgramme(visit(), inSecond, second.id);
  await removeMember(here, { memberId: first.id, version: 1 });
  expect(await actorOf(inFirst)).toBeUndefined();
  expect(await actorOf(inSecond)).toMatchObject({ id: second.id });
  expect(await actorOf(await enter(email))).toMatchObject({ id: second.id });
  // Invited anew, they come back with the same password.
  const again = await acceptInvitation(visit(), await invited(here, email), {
    name: 'Robin',
    email: '',
    password: PASSWORD,
  });
  expect(await membershipsOf(store.db, { accountId: again.accountId })).toHaveLength(2);
  await removeMember(here, { memberId: again.id, version: 1 });
  await changeRole(there, { memberId: second.id, version: 1, role: 'crew' });
  await removeMember(there, { memberId: second.id, version: 2 });
  // Of none, they have no account: the address is free, for whoever gets an invitation to it.
  expect(await enter(email)).toBe('');
  const fresh = { name: 'Robin', email: '', password: 'salt and seaweed' };
  await acceptInvitation(visit(), await invited(here, email), fresh);
  expect(await enter(email, fresh.password)).not.toBe('');
});

it('a new password and a second step are for both; an invitation elsewhere stays open', async () => {
  const { email, first, second } = await inBoth();
  const elsewhere = await invited((await newProgramme(store)).coordinator, email);
  const old = await enter(email);
  await askForPassword(visit(), email);
  await resetPassword(visit(), await linkTo(email), 'salt and seaweed');
  expect(await actorOf(old)).toBeUndefined();
  const signInId = await enter(email, 'salt and seaweed');
  await goToProgramme(visit(), signInId, second.id);
  const context = { ...there, actor: { ...there.actor, id: second.id } };
  const { secret, sealed } = await beginSecondStep(context, {});
  const codeAt = (minutes: number) =>
    new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: now.getTime() + minutes * 60_000 });
  await turnOnSecondStep(context, { sealed, code: codeAt(0) });
  for (const home of [here, there]) {
    const { members } = await listMembers(home, {});
    expect(members.filter(({ hasSecondStep }) => hasSecondStep).map(({ id }) => id)).toContain(
      home === here ? first.id : second.id,
    );
  }
  const waiting = await signIn(visit(), email, 'salt and seaweed');
  expect(waiting).toMatchObject({ awaitsCode: true });
  expect(await actorOf(waiting?.signInId ?? '')).toBeUndefined();
  // Without the code nobody goes anywhere.
  await expect(goToProgramme(visit(), waiting?.signInId ?? '', first.id)).rejects.toMatchObject({ kind: 'not-found' });
  const later = { ...visit(), clock: () => NOW.add({ minutes: 1 }) };
  expect(await passCode(later, waiting?.signInId ?? '', codeAt(1))).toBe(true);
  const joined = await acceptInvitation(visit(), elsewhere, { name: 'Robin', email: '', password: 'salt and seaweed' });
  expect(joined.accountId).toBe(first.accountId);
});

it('an invitation gives nobody a first password for what its address is elsewhere', async () => {
  // As in a programme that was brought in, or of somebody who is to look after the installation.
  const email = `${v7()}@example.test`;
  const member = { id: v7(), programmeId: here.actor.programmeId, email, name: 'Robin', role: 'coordinator' };
  const { accountId } = await addMember(store.db, member);
  const secret = await invited(there, email);
  const written = { name: 'Whoever sent it', email: '', password: 'another long password' };
  await expect(acceptInvitation(visit(), secret, written)).rejects.toThrow('no password yet');
  expect(await enter(email, written.password)).toBe('');
  expect(await membershipsOf(store.db, { accountId })).toHaveLength(1);
  // By a link to the mailbox they get one, and the invitation still stands.
  await askForPassword(visit(), email);
  await resetPassword(visit(), await linkTo(email), PASSWORD);
  await acceptInvitation(visit(), secret, { ...written, password: PASSWORD });
  expect(await membershipsOf(store.db, { accountId })).toHaveLength(2);
});

it('an address that is typed, and proven by no mailbox, does not open what somebody has here', async () => {
  const { email } = await inBoth();
  const home = (await newProgramme(store)).coordinator;
  const { programmeId } = home.actor;
  const first = {
    programmeId,
    purpose: 'invite' as const,
    email: '',
    role: 'coordinator',
    memberId: null,
    createdBy: null,
  };
  const { id } = await makeLink(home, store.db, first, 1);
  const written = { name: 'Somebody', email, password: 'another long password' };
  await expect(acceptInvitation(visit(), linkSecret(home, id), written)).rejects.toMatchObject({
    problems: [{ where: 'email' }],
  });
  expect(await findOne(store.db, store.db.models.member, { programmeId, email })).toBeUndefined();
});
