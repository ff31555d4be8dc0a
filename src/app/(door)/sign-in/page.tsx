import Link from 'next/link';
import { redirect } from 'next/navigation';
import { keepSignIn, visit } from '@/app/access';
import { attemptAtDoor, fields } from '@/app/form';
import { signIn } from '@/services/access/sign-in';
import { PasswordField } from '@/ui/access/password-field';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import { ForgetDrafts } from '@/ui/form/forget-drafts';
import type { FormState } from '@/ui/form/form-state';

export const metadata = { title: 'Sign in' };

async function enter(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  let fits = false;
  const answer = await attemptAtDoor(async () => {
    const { email = '', password = '' } = fields(data);
    const signedIn = await signIn(await visit(), email, password);
    if (signedIn) await keepSignIn(signedIn);
    fits = signedIn !== undefined;
    return undefined;
  });
  if (fits) redirect('/');
  return answer.ok
    ? { ok: false, message: 'E-mail and password do not fit together. Check both and try again.' }
    : answer;
}

export default function SignIn() {
  return (
    <>
      <ForgetDrafts />
      <h1 className="mb-1 text-2xl font-bold">Sign in</h1>
      <p className="mb-5 text-base-content/80">
        Courses, kits and families’ needs are shown only to those whose duty needs them.
      </p>
      <ActionForm action={enter} label="Sign in" className="flex flex-col gap-4">
        <Field label="E-mail" name="email" type="email" autoComplete="username" required />
        <PasswordField label="Password" name="password" autoComplete="current-password" required />
        <button type="submit" className="btn btn-primary">
          Sign in
        </button>
      </ActionForm>
      <p className="mt-4 text-sm">
        <Link href="/forgot" className="link">
          Ask for a new password
        </Link>
      </p>
    </>
  );
}
