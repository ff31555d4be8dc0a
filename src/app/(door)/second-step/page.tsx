import Link from 'next/link';
import QRCode from 'qrcode';
import { call, requireSignIn } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { beginSecondStep, turnOnSecondStep, viewSecondStep } from '@/services/access/second-step';
import { ServiceError } from '@/services/errors';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

export const metadata = { title: 'A code beside the password' };

async function turnOn(sealed: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(turnOnSecondStep, async () => {
    const { codes } = await call(turnOnSecondStep, { sealed, code: fields(data).code ?? '' });
    return {
      message:
        'It is on. Keep these recovery codes where you keep your papers: each works once, if the telephone is lost.',
      copy: codes.join(' '),
    };
  });
}

/** What is shown to set it up; null when the password has to be given first. */
async function begun() {
  try {
    return await call(beginSecondStep, {});
  } catch (error) {
    if (error instanceof ServiceError && error.kind === 'proof') return null;
    throw error;
  }
}

export default async function SecondStep() {
  const { mustSetUp } = await requireSignIn();
  const { isOn } = await call(viewSecondStep, {});
  const setUp = isOn ? null : await begun();
  return (
    <>
      <h1 className="mb-1 text-2xl font-bold">A code beside the password</h1>
      <p className="mb-4 text-base-content/80">
        {mustSetUp ? 'Your programme asks it of its coordinators. ' : ''}
        Whoever learns your password still does not come in without your telephone.
      </p>
      {isOn && <p className="font-semibold">It is on: signing in asks for a code.</p>}
      {!isOn && !setUp && (
        <p>
          Sign out and in again first: your password was given a while ago. <Link href="/account">Your account</Link>
        </p>
      )}
      {setUp && (
        <>
          <ol className="mb-4 list-decimal pl-5 text-sm">
            <li>Open an app for one-time codes on your telephone. Any that knows TOTP will do.</li>
            <li>Scan this picture with it, or write the letters under it into it.</li>
            <li>Write the six figures that it shows.</li>
          </ol>
          <img
            src={await QRCode.toDataURL(setUp.address, { margin: 1, width: 220 })}
            alt="The secret, as a code to scan; the same letters stand below"
            width={220}
            height={220}
          />
          <code className="my-3 block break-all text-sm">{setUp.secret.replace(/(.{4})/g, '$1 ')}</code>
        </>
      )}
      {/* Stays where it is when the code is on: its answer holds the recovery codes, which are shown once. */}
      {(isOn || setUp) && (
        <ActionForm
          action={turnOn.bind(null, setUp?.sealed ?? '')}
          label="A code beside the password"
          className="flex flex-col gap-4"
        >
          {setUp && (
            <>
              <Field
                label="Code"
                name="code"
                autoComplete="one-time-code"
                inputMode="numeric"
                required
                maxLength={10}
              />
              <button type="submit" className="btn btn-primary">
                Turn it on
              </button>
            </>
          )}
        </ActionForm>
      )}
      <p className="mt-4 text-sm">
        <Link href="/" className="link">
          {mustSetUp ? 'Go on, when it is on' : 'Back'}
        </Link>
      </p>
    </>
  );
}
