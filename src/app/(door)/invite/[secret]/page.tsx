import { redirect } from 'next/navigation';
import { keepSignIn, visit } from '@/app/access';
import { attemptAtDoor, fields } from '@/app/form';
import { GoneLink } from '@/app/gone-link';
import { acceptInvitation, isKnownHere, openLink } from '@/services/access/links';
import { openSignIn } from '@/services/access/sign-in';
import { NewPassword } from '@/ui/access/new-password';
import { PasswordField } from '@/ui/access/password-field';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

export const metadata = { title: 'Join' };

async function join(secret: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  const answer = await attemptAtDoor(async () => {
    const here = await visit();
    const { name = '', email = '', password = '' } = fields(data);
    const member = await acceptInvitation(here, secret, { name, email, password });
    await keepSignIn(await openSignIn(here, member.accountId, member));
    return undefined;
  });
  if (answer.ok) redirect('/');
  return answer;
}

export default async function Invite({ params }: { params: Promise<{ secret: string }> }) {
  const { secret } = await params;
  const here = await visit();
  const link = await openLink(here, 'invite', secret);
  if (!link) return <GoneLink />;
  const isKnown = link.email !== '' && (await isKnownHere(here, link));
  return (
    <>
      <h1 className="mb-1 text-2xl font-bold">Join as {link.role}</h1>
      <p className="mb-5 text-base-content/80">
        {link.email ? `You were invited as ${link.email}.` : 'You are the first: you can invite the others.'}
        {isKnown && ' You sign in here already, in another programme: one password is for all of them.'}
      </p>
      <ActionForm action={join.bind(null, secret)} label="Join" className="flex flex-col gap-4">
        <Field label="Your name" name="name" autoComplete="name" required maxLength={120} />
        {!link.email && <Field label="E-mail" name="email" type="email" autoComplete="username" required />}
        {isKnown ? (
          <PasswordField label="Your password" name="password" autoComplete="current-password" required />
        ) : (
          <NewPassword about={link.email} />
        )}
        <button type="submit" className="btn btn-primary">
          Join
        </button>
      </ActionForm>
    </>
  );
}
