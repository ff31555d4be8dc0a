import { revalidatePath } from 'next/cache';
import Link from 'next/link';
import { redirect } from 'next/navigation';
import { call, requireMember, signedIn, visit } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { currentOverseer } from '@/app/overseeing';
import { saying } from '@/app/saying';
import {
  changePassword,
  endOwnSignIn,
  goToProgramme,
  listProgrammes,
  listSignIns,
  signOutEverywhere,
} from '@/services/access/account';
import { renewRecoveryCodes, turnOffSecondStep, viewSecondStep } from '@/services/access/second-step';
import { NewPassword } from '@/ui/access/new-password';

import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Your account' };

async function end(signInId: string): Promise<FormState> {
  'use server';
  return attempt(endOwnSignIn, async () => {
    await call(endOwnSignIn, { signInId });
    return undefined;
  });
}

async function leaveAll(): Promise<void> {
  'use server';
  await call(signOutEverywhere, {});
  (await signedIn()).destroy();
  redirect('/sign-in');
}

async function newPassword(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  const answer = await attempt(changePassword, async () => {
    const { old = '', password = '' } = fields(data);
    await call(changePassword, { old, password });
    (await signedIn()).destroy();
    return undefined;
  });
  if (answer.ok) redirect('/sign-in');
  return answer;
}

async function newCodes(): Promise<FormState> {
  'use server';
  return attempt(renewRecoveryCodes, async () => {
    const { codes } = await call(renewRecoveryCodes, {});
    return { message: 'The earlier ones no longer work. Keep these with your papers:', copy: codes.join(' ') };
  });
}

async function turnOff(): Promise<FormState> {
  'use server';
  return attempt(turnOffSecondStep, async () => {
    await call(turnOffSecondStep, {});
    return undefined;
  });
}

async function goTo(memberId: string): Promise<void> {
  'use server';
  const { signInId } = await signedIn();
  if (signInId) await goToProgramme(await visit(), signInId, memberId);
  // Nothing that was shown of the other programme stays in the browser.
  revalidatePath('/', 'layout');
  redirect('/');
}

export default async function Account() {
  const say = await saying();
  const { actor } = await requireMember();
  const { signInId } = await signedIn();
  const signIns = await call(listSignIns, {});
  const step = await call(viewSecondStep, {});
  const programmes = await call(listProgrammes, {});
  const overseer = await currentOverseer();
  return (
    <>
      <PageTitle title="Your account" over={`${actor.name}, ${actor.role}`} />
      <div className="grid gap-6 lg:grid-cols-2">
        <section className="sheet h-fit p-5" aria-labelledby="sign-ins">
          <h2 id="sign-ins" className="mb-3 text-xl font-bold">
            Where you are signed in
          </h2>
          <ul className="mb-4 divide-y divide-base-300">
            {signIns.map(({ id, device, createdAt }) => (
              <li key={id} className="flex items-center justify-between gap-3 py-2">
                <span className="min-w-0 text-sm">
                  <b>{id === signInId ? 'This browser' : 'Another browser'}</b>, since{' '}
                  {say.moment(createdAt.toISOString())}
                  <span className="block">{sayDevice(device)}</span>
                </span>
                {id !== signInId && (
                  <ActionForm action={end.bind(null, id)}>
                    <button type="submit" className="btn btn-sm">
                      Sign out
                    </button>
                  </ActionForm>
                )}
              </li>
            ))}
          </ul>
          <form action={leaveAll}>
            <button type="submit" className="btn">
              Sign out everywhere
            </button>
          </form>
        </section>
        {(programmes.length > 1 || overseer) && (
          <section className="sheet h-fit p-5" aria-labelledby="programmes">
            <h2 id="programmes" className="mb-1 text-xl font-bold">
              Your programmes
            </h2>
            <p className="mb-3 text-sm">
              One password is for all. Pages that are open in this browser belong to the programme they were opened in.
            </p>
            <ul className="divide-y divide-base-300">
              {programmes.map(({ id, programme, role }) => (
                <li key={id} className="flex items-center justify-between gap-3 py-2">
                  <span className="min-w-0 text-sm">
                    <b>{programme}</b>, {role}
                  </span>
                  {id === actor.id ? (
                    <span className="text-sm">You are here</span>
                  ) : (
                    <form action={goTo.bind(null, id)}>
                      <button type="submit" className="btn btn-sm">
                        Go on here
                      </button>
                    </form>
                  )}
                </li>
              ))}
              {overseer && (
                <li className="py-2 text-sm">
                  <Link href="/overview" className="link">
                    What you look over
                  </Link>
                </li>
              )}
            </ul>
          </section>
        )}
        <section className="sheet h-fit p-5" aria-labelledby="second-step">
          <h2 id="second-step" className="mb-3 text-xl font-bold">
            A code beside the password
          </h2>
          {step.isOn ? (
            <>
              <p className="mb-3">
                It is on. {step.recoveryCodesLeft} of your recovery codes {step.recoveryCodesLeft === 1 ? 'is' : 'are'}{' '}
                left.
              </p>
              <div className="flex flex-wrap gap-2">
                <ActionForm action={newCodes} label="New recovery codes" className="flex flex-wrap">
                  <button type="submit" className="btn">
                    Get new recovery codes
                  </button>
                </ActionForm>
                <ActionForm action={turnOff} label="Turn the code off" className="flex flex-wrap">
                  <button type="submit" className="btn">
                    Turn it off
                  </button>
                </ActionForm>
              </div>
            </>
          ) : (
            <>
              <p className="mb-3">
                Whoever learns your password still does not come in without your telephone. It is off.
              </p>
              <Link href="/second-step" className="btn">
                Set it up
              </Link>
            </>
          )}
        </section>
        <section className="sheet h-fit p-5" aria-labelledby="password">
          <h2 id="password" className="mb-3 text-xl font-bold">
            Change your password
          </h2>
          <ActionForm action={newPassword} label="Change your password" className="flex flex-col gap-3">
            <Field label="Present password" name="old" type="password" autoComplete="current-password" required />
            <NewPassword label="New password" about={actor.name} />
            <p className="text-xs">You sign in again with it, everywhere.</p>
            <button type="submit" className="btn btn-primary w-fit">
              Change password
            </button>
          </ActionForm>
        </section>
      </div>
    </>
  );
}

/** What a browser says of itself, as people say it. */
function sayDevice(device: string): string {
  const systems = ['Android', 'iPhone', 'iPad', 'Windows', 'Mac', 'Linux'];
  const system = systems.find((name) => device.includes(name));
  return system ? `a browser on ${system}` : 'a program';
}
