import { call, requireMember } from '@/app/access';
import { attempt, fields, formOf } from '@/app/form';
import { saying } from '@/app/saying';
import { listSecurityEvents } from '@/services/access/doors';
import {
  changeRole,
  inviteMember,
  listMembers,
  makeToken,
  removeMember,
  revokeToken,
  withdrawInvitation,
} from '@/services/access/members';
import { requireSecondStep } from '@/services/access/second-step';
import { ROLES } from '@/services/gate/gate';

import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'People' };

async function invite(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(inviteMember, async () => {
    const sent = formOf(inviteMember, data);
    await call(inviteMember, sent);
    return `An invitation for ${sent.email} lies in the outbox, under Devices, and works for 7 days. Hand its link over yourself where no mail is sent from here.`;
  });
}

async function setRole(
  memberId: string,
  version: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(changeRole, async () => {
    await call(changeRole, { memberId, version, role: fields(data).role ?? '' });
    return 'Saved.';
  });
}

async function remove(memberId: string, version: number): Promise<FormState> {
  'use server';
  return attempt(removeMember, async () => {
    await call(removeMember, { memberId, version });
    return undefined;
  });
}

async function takeBack(linkId: string): Promise<FormState> {
  'use server';
  return attempt(withdrawInvitation, async () => {
    await call(withdrawInvitation, { linkId });
    return undefined;
  });
}

async function newToken(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(makeToken, async () => {
    const { token } = await call(makeToken, formOf(makeToken, data));
    return { message: 'Keep it now, it is not shown again:', copy: token };
  });
}

async function endToken(tokenId: string): Promise<FormState> {
  'use server';
  return attempt(revokeToken, async () => {
    await call(revokeToken, { tokenId });
    return undefined;
  });
}

async function wantSecondStep(required: boolean): Promise<FormState> {
  'use server';
  return attempt(requireSecondStep, async () => {
    await call(requireSecondStep, { required });
    return undefined;
  });
}

const WHAT_THEY_SEE = {
  coordinator: 'Everything.',
  instructor: 'Recipes, benches, and what the children of a class must avoid, from two days before it.',
  crew: 'Benches, and what the children of a class must avoid, from two days before it. Never the roll.',
};

const roleOptions = ROLES.map((role) => <option key={role}>{role}</option>);

export default async function People() {
  const say = await saying();
  const { actor, programme } = await requireMember();
  const events = await call(listSecurityEvents, {});
  const { members, invitations, tokens, overseers } = await call(listMembers, {});
  return (
    <>
      <PageTitle title="People" over="Who works with the programme, and what each may see" />
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div className="flex flex-col gap-6">
          <section className="sheet p-5" aria-labelledby="members">
            <h2 id="members" className="mb-3 text-xl font-bold">
              Members
            </h2>
            <ul className="divide-y divide-base-300">
              {members.map((member) => (
                <li key={member.id} className="flex flex-wrap items-end justify-between gap-3 py-3">
                  <span>
                    <b>{member.name}</b>
                    {member.id === actor.id && ' (you)'}
                    <span className="block text-sm">
                      {member.email}
                      {member.hasSecondStep && ' · code beside the password'}
                      {member.passwordLink && ' · asked for a new password, not set yet'}
                    </span>
                  </span>
                  <span className="flex flex-wrap items-end gap-2">
                    <ActionForm
                      version={member.version}
                      isUndoable
                      action={setRole.bind(null, member.id, member.version)}
                      label={`Role of ${member.name}`}
                      className="flex items-end gap-2"
                    >
                      <Choice
                        label="Role"
                        aria-label={`Role of ${member.name}`}
                        name="role"
                        defaultValue={member.role}
                        width="w-36"
                      >
                        {roleOptions}
                      </Choice>
                      <button type="submit" className="btn">
                        Change role
                      </button>
                    </ActionForm>
                    <ActionForm action={remove.bind(null, member.id, member.version)} label={`Remove ${member.name}`}>
                      <button type="submit" className="btn" aria-label={`Remove ${member.name}`}>
                        Remove
                      </button>
                    </ActionForm>
                  </span>
                </li>
              ))}
            </ul>
          </section>
          {invitations.length > 0 && (
            <section className="sheet p-5" aria-labelledby="invitations">
              <h2 id="invitations" className="mb-3 text-xl font-bold">
                Invited, not here yet
              </h2>
              <ul className="divide-y divide-base-300">
                {invitations.map(({ id, email, role, expiresAt, by }) => (
                  <li key={id} className="flex items-center justify-between gap-3 py-2">
                    <span>
                      <b>{email}</b> as {role}, until {say.shortDate(expiresAt.slice(0, 10))}
                      <span className="block text-sm">
                        {by ? `sent by ${by}` : 'nobody knows any more who sent it'}
                      </span>
                    </span>
                    <ActionForm action={takeBack.bind(null, id)}>
                      <button type="submit" className="btn btn-sm" aria-label={`Take back the invitation of ${email}`}>
                        Take back
                      </button>
                    </ActionForm>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {overseers.length > 0 && (
            <section className="sheet p-5" aria-labelledby="overseers">
              <h2 id="overseers" className="mb-1 text-xl font-bold">
                Who looks over the programme
              </h2>
              <p className="mb-2 text-sm">
                They see its counts and money beside those of other programmes: sessions, people, kits, hours, what was
                spent. No family, no name, and nothing below five people.
              </p>
              <ul>
                {overseers.map(({ name, city }) => (
                  <li key={`${name} ${city}`}>
                    <b>{name}</b>, {city}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <section className="sheet p-5" aria-labelledby="tokens">
            <h2 id="tokens" className="mb-3 text-xl font-bold">
              API tokens
            </h2>
            <p className="mb-3 text-sm">
              For your own programs. A token acts in its role until it ends, and is shown once, when it is made.
            </p>
            <ul className="mb-3 divide-y divide-base-300">
              {tokens.map(({ id, name, role, expiresAt, by }) => (
                <li key={id} className="flex items-center justify-between gap-3 py-2">
                  <span>
                    <b>{name}</b>, {role}, until {say.shortDate(expiresAt.slice(0, 10))}
                    <span className="block text-sm">{by ? `made by ${by}` : 'made on the command line'}</span>
                  </span>
                  <ActionForm action={endToken.bind(null, id)}>
                    <button type="submit" className="btn btn-sm" aria-label={`Take back the token ${name}`}>
                      Take back
                    </button>
                  </ActionForm>
                </li>
              ))}
            </ul>
            <ActionForm action={newToken} label="Make a token" clear className="flex flex-wrap items-end gap-3">
              <Field label="What it is for" name="name" required maxLength={120} width="grow" />
              <Choice label="Role of the token" name="role" defaultValue="crew">
                {roleOptions}
              </Choice>
              <Field label="Days" name="days" inputMode="numeric" required defaultValue="90" width="w-24" />
              <button type="submit" className="btn">
                Make token
              </button>
            </ActionForm>
          </section>
        </div>
        <div className="flex flex-col gap-6">
          <section className="sheet h-fit p-5" aria-labelledby="invite">
            <h2 id="invite" className="mb-3 text-xl font-bold">
              Invite somebody
            </h2>
            <ActionForm action={invite} label="Invite somebody" clear className="flex flex-col gap-3">
              <Field label="E-mail" name="email" type="email" required maxLength={190} />
              <Choice label="Role" name="role" defaultValue="crew">
                {roleOptions}
              </Choice>
              <button type="submit" className="btn btn-primary w-fit">
                Send invitation
              </button>
            </ActionForm>
            <h3 className="mt-5 mb-1 font-bold">What each role sees</h3>
            <dl className="text-sm">
              {ROLES.map((role) => (
                <div key={role} className="mb-2">
                  <dt className="font-semibold">{role}</dt>
                  <dd>{WHAT_THEY_SEE[role]}</dd>
                </div>
              ))}
            </dl>
          </section>
          <section className="sheet h-fit p-5" aria-labelledby="doors">
            <h2 id="doors" className="mb-3 text-xl font-bold">
              At the doors
            </h2>
            <ActionForm
              action={wantSecondStep.bind(null, programme.secondStep !== 1)}
              label="A code beside the password"
              className="mb-4 flex flex-wrap"
            >
              <p className="mb-2 basis-full text-sm">
                {programme.secondStep === 1
                  ? 'Coordinators sign in with a code beside the password. Whoever has none sets it up first.'
                  : 'Coordinators may sign in with a code beside the password; nobody has to.'}
              </p>
              <button type="submit" className="btn btn-sm">
                {programme.secondStep === 1 ? 'No longer ask it of coordinators' : 'Ask it of all coordinators'}
              </button>
            </ActionForm>
            <h3 className="mb-1 font-bold">What happened</h3>
            {events.length === 0 && <p className="text-sm">Nothing yet.</p>}
            <ul className="divide-y divide-base-300 text-sm">
              {events.slice(0, 12).map(({ id, at, kind, who, ip, detail }) => (
                <li key={id} className="py-1">
                  <b>{kind}</b>
                  {who && `, ${who}`}
                  {detail && `: ${detail}`}
                  <span className="block text-xs">
                    {say.moment(at.toISOString())}
                    {ip && ` · ${ip}`}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        </div>
      </div>
    </>
  );
}
