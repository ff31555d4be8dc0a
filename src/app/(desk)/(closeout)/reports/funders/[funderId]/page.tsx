import Link from 'next/link';
import { redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt, fields, ticked } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { removeFunder, saveFunder, viewFunder } from '@/services/closeout/funders';
import { ActionForm } from '@/ui/form/action-form';
import { DateField } from '@/ui/form/dates';
import { Field, TextArea, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Who is reported to' };

/** Figures that funders call otherwise, by their key, with what we call them. */
const OWN_WORDS = [
  ['reached', 'People reached'],
  ['places', 'Places taken'],
  ['attendance', 'Attendance'],
  ['contact', 'Contact hours'],
  ['cooked', 'Cooked at home'],
  ['kits', 'Kits made'],
  ['servings', 'Servings'],
  ['tries', 'Foods tried'],
  ['given food', 'Food given'],
  ['lost food', 'Food lost'],
  ['volunteers', 'Volunteers'],
  ['volunteer hours', 'Hours of the crew'],
  ['kit cost', 'Cost of a kit'],
  ['person cost', 'Cost of a person reached'],
] as const;

async function save(funderId: string, version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(saveFunder, async () => {
    const { name = '', intro, fromDay, toDay, currency, rate } = fields(data);
    const words = Object.fromEntries(OWN_WORDS.map(([key]) => [key, String(data.get(`word ${key}`) ?? '')]));
    const file = data.get('logo');
    const logo = ticked(data, 'noLogo')
      ? new Uint8Array()
      : file instanceof File && file.size > 0
        ? new Uint8Array(await file.arrayBuffer())
        : undefined;
    const saved = await call(saveFunder, {
      funderId,
      version,
      name,
      intro,
      fromDay: fromDay ?? '',
      toDay: toDay ?? '',
      currency,
      rate: rate || '1',
      words,
      ...(logo ? { logo } : {}),
    });
    return redirect(`/reports?funderId=${saved}`);
  });
}

async function takeOut(funderId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(removeFunder, async () => {
    await call(removeFunder, { funderId });
    return redirect('/reports');
  });
}

/** Somebody who is reported to: how they call things, for which time, in which money. */
export default async function Funder({ params }: { params: Promise<{ funderId: string }> }) {
  const { funderId } = await params;
  const funder = funderId === 'new' ? undefined : await orNotFound(call(viewFunder, { funderId }));
  return (
    <>
      <PageTitle title={funder ? `Reported to: ${funder.name}` : 'Somebody else who is reported to'}>
        <Link href={funder ? `/reports?funderId=${funder.id}` : '/reports'} className="btn">
          Reports
        </Link>
      </PageTitle>
      <ActionForm
        action={save.bind(null, funder?.id ?? '', funder?.version ?? 0)}
        label="Who is reported to"
        {...(funder ? { version: funder.version } : {})}
        className="sheet grid max-w-3xl gap-4 p-5"
      >
        <Field label="Name" name="name" required maxLength={120} defaultValue={funder?.name ?? ''} />
        <TextArea
          label="What stands above the figures"
          name="intro"
          rows={4}
          maxLength={3000}
          defaultValue={funder?.intro ?? ''}
        />
        <div className="grid gap-4 sm:grid-cols-2">
          <DateField label="Their period begins" name="fromDay" defaultValue={funder?.fromDay ?? ''} />
          <DateField label="Their period ends" name="toDay" defaultValue={funder?.toDay ?? ''} />
          <Field
            label="They count money in"
            name="currency"
            maxLength={8}
            hint="Left empty: as you do"
            defaultValue={funder?.currency ?? ''}
          />
          <Field label="One of yours is so much of theirs" name="rate" defaultValue={funder?.rate ?? '1'} />
        </div>
        <fieldset className="rounded-box border border-base-300 p-4">
          <legend className="px-1 font-semibold">What they call it</legend>
          <p className="mb-2 text-sm">Left empty: as we do.</p>
          <div className="grid gap-3 sm:grid-cols-2">
            {OWN_WORDS.map(([key, label]) => (
              <Field
                key={key}
                label={label}
                name={`word ${key}`}
                maxLength={120}
                defaultValue={funder?.words[key] ?? ''}
              />
            ))}
          </div>
        </fieldset>
        <label className="flex flex-col gap-1 text-sm font-semibold">
          Logo, PNG or JPEG of at most 500 kB
          <input type="file" name="logo" accept="image/png,image/jpeg" className="file-input" />
        </label>
        {funder?.hasLogo && <Tick label="Take the logo away" name="noLogo" />}
        <button type="submit" className="btn btn-primary w-fit">
          Save
        </button>
      </ActionForm>
      {funder && (
        <ActionForm action={takeOut.bind(null, funder.id)} label="Take them out" className="mt-4">
          <button type="submit" className="btn">
            Take {funder.name} out
          </button>
        </ActionForm>
      )}
    </>
  );
}
