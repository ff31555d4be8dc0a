import Link from 'next/link';
import { redirect } from 'next/navigation';
import { signedIn, visit } from '@/app/access';
import { attemptAtDoor, fields } from '@/app/form';
import { awaitsCode, passCode } from '@/services/access/sign-in';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

export const metadata = { title: 'The code' };

async function enter(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  let fits = false;
  const answer = await attemptAtDoor(async () => {
    const { signInId = '' } = await signedIn();
    fits = await passCode(await visit(), signInId, fields(data).code ?? '');
    return undefined;
  });
  if (fits) redirect('/');
  return answer.ok
    ? { ok: false, message: 'This code does not fit. Wait for the next one in the app; each works once.' }
    : answer;
}

export default async function Code() {
  const { signInId = '' } = await signedIn();
  if (!(await awaitsCode(await visit(), signInId))) redirect('/sign-in');
  return (
    <>
      <h1 className="mb-1 text-2xl font-bold">The code beside the password</h1>
      <p className="mb-5 text-base-content/80">
        Open the app on your telephone that shows your codes. Without it, write one of your recovery codes.
      </p>
      <ActionForm action={enter} label="The code" className="flex flex-col gap-4">
        <Field
          label="Code"
          name="code"
          autoComplete="one-time-code"
          inputMode="text"
          required
          maxLength={20}
          autoFocus
        />
        <button type="submit" className="btn btn-primary">
          Go on
        </button>
      </ActionForm>
      <p className="mt-4 text-sm">
        <Link href="/sign-in" className="link">
          Sign in as somebody else
        </Link>
      </p>
    </>
  );
}
