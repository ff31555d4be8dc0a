import { redirect } from 'next/navigation';
import { checkPassword } from '@/services/access/sign-in';
import { runningStore } from '@/services/runtime';
import { ActionForm, type FormState } from '@/ui/action-form';
import { Field } from '@/ui/field';
import { Wordmark } from '@/ui/wordmark';
import { signedIn } from '../access';
import { attempt, fields } from '../form';

export const metadata = { title: 'Sign in' };

async function signIn(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  const { email = '', password = '' } = fields(data);
  let fits = false;
  const answer = await attempt(async () => {
    const memberId = await checkPassword(runningStore(), email.slice(0, 190), password.slice(0, 400));
    if (!memberId) return undefined;
    const session = await signedIn();
    session.memberId = memberId;
    await session.save();
    fits = true;
    return undefined;
  });
  if (fits) redirect('/');
  return answer.ok
    ? { ok: false, message: 'E-mail and password do not fit together. Check both and try again.' }
    : answer;
}

export default function SignIn() {
  return (
    <main className="mx-auto flex min-h-dvh max-w-md flex-col justify-center gap-6 px-4 py-10">
      <Wordmark />
      <div className="sheet p-6">
        <h1 className="mb-1 text-2xl font-bold">Sign in</h1>
        <p className="mb-5 text-base-content/80">
          Courses, kits and families’ needs are shown only to those whose duty needs them.
        </p>
        <ActionForm action={signIn} label="Sign in" className="flex flex-col gap-4">
          <Field label="E-mail" name="email" type="email" autoComplete="username" required />
          <Field label="Password" name="password" type="password" autoComplete="current-password" required />
          <button type="submit" className="btn btn-primary">
            Sign in
          </button>
        </ActionForm>
      </div>
    </main>
  );
}
