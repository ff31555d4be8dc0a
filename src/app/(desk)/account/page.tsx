import { redirect } from 'next/navigation';
import { attempt, fields } from '@/app/form';
import { changePassword, endOwnSignIn, listSignIns, signOutEverywhere } from '@/services/access/account';
import { ActionForm, type FormState } from '@/ui/action-form';
import { sayMoment } from '@/ui/dates';
import { Field, NewPassword } from '@/ui/field';
import { PageTitle } from '@/ui/page';
import { call, requireMember, signedIn } from '../../access';

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

export default async function Account() {
  const { actor, programme } = await requireMember();
  const { signInId } = await signedIn();
  const signIns = await call(listSignIns, {});
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
                  {sayMoment(createdAt.toISOString(), programme.timeZone)}
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
        <section className="sheet h-fit p-5" aria-labelledby="password">
          <h2 id="password" className="mb-3 text-xl font-bold">
            Change your password
          </h2>
          <ActionForm action={newPassword} label="Change your password" className="flex flex-col gap-3">
            <Field label="Present password" name="old" type="password" autoComplete="current-password" required />
            <NewPassword label="New password" />
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
