import { redirect } from 'next/navigation';
import { keepSignIn, visit } from '@/app/access';
import { attemptAtDoor, fields } from '@/app/form';
import { GoneLink } from '@/app/gone-link';
import { openLink, resetPassword } from '@/services/access/links';
import { openSignIn } from '@/services/access/sign-in';
import { NewPassword } from '@/ui/access/new-password';
import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';

export const metadata = { title: 'A new password' };

async function set(secret: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  const answer = await attemptAtDoor(async () => {
    const here = await visit();
    const { id } = await resetPassword(here, secret, fields(data).password ?? '');
    await keepSignIn(await openSignIn(here, id));
    return undefined;
  });
  if (answer.ok) redirect('/');
  return answer;
}

export default async function Reset({ params }: { params: Promise<{ secret: string }> }) {
  const { secret } = await params;
  const link = await openLink(await visit(), 'reset', secret);
  if (!link) return <GoneLink />;
  return (
    <>
      <h1 className="mb-1 text-2xl font-bold">Choose a new password</h1>
      <p className="mb-5 text-base-content/80">For {link.email}. You are then signed out everywhere else.</p>
      <ActionForm action={set.bind(null, secret)} label="Choose a new password" className="flex flex-col gap-4">
        <NewPassword label="New password" about={link.email} />
        <button type="submit" className="btn btn-primary">
          Set the password
        </button>
      </ActionForm>
    </>
  );
}
