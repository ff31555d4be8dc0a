import Link from 'next/link';
import { redirect } from 'next/navigation';
import { call, requireMember, signedIn } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { saying } from '@/app/saying';
import { changePassword, endOwnSignIn, listSignIns, signOutEverywhere } from '@/services/access/account';
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

export default async function Account() {
  const say = await saying();
  const { actor } = await requireMember();
  const { signInId } = await signedIn();
  const signIns = await call(listSignIns, {});
  const step = await call(viewSecondStep, {});
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
