import Link from 'next/link';
import { visit } from '@/app/access';
import { attemptAtDoor, fields } from '@/app/form';
import { askForPassword } from '@/services/access/links';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

export const metadata = { title: 'A new password' };

async function ask(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attemptAtDoor(async () => {
    await askForPassword(await visit(), fields(data).email ?? '');
    return 'If a member has this e-mail, a link is on its way to it. It works once, within one hour.';
  });
}

export default function Forgot() {
  return (
    <>
      <h1 className="mb-1 text-2xl font-bold">Ask for a new password</h1>
      <p className="mb-5 text-base-content/80">You get a link by e-mail, and choose a new password there.</p>
      <ActionForm action={ask} label="Ask for a new password" className="flex flex-col gap-4">
        <Field label="E-mail" name="email" type="email" autoComplete="username" required />
        <button type="submit" className="btn btn-primary">
          Send me a link
        </button>
      </ActionForm>
      <p className="mt-4 text-sm">
        <Link href="/sign-in" className="link">
          Back to the sign-in
        </Link>
      </p>
    </>
  );
}
