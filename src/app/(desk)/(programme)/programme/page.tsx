import Link from 'next/link';
import { attempt, fields } from '@/app/form';
import { USUAL_HOURS } from '@/core/countdown/work-hours';
import { avoidanceLabel } from '@/core/safety/avoidances';
import { setContainers } from '@/services/kits/rules';
import { editProgramme, forgetMeaning, listMeanings, setWorkHours } from '@/services/programme/programme';
import { ActionForm, type FormState } from '@/ui/action-form';
import { Choice, Field } from '@/ui/field';
import { PageTitle } from '@/ui/page';
import { HoursFields, hoursOf } from '@/ui/plan/hours-fields';
import { amountLines } from '@/ui/recipes/amount-lines';
import { call, requireMember } from '../../../access';

export const metadata = { title: 'Programme' };

async function edit(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(editProgramme, async () => {
    await call(editProgramme, fields(data) as never);
    return 'Saved. Sheets that are not locked follow at once.';
  });
}

async function work(version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setWorkHours, async () => {
    const sent = fields(data);
    await call(setWorkHours, { version, shop: hoursOf(sent, 'shop-'), crew: hoursOf(sent, 'crew-') } as never);
    return 'Saved. Every countdown follows at once.';
  });
}

async function pack(version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setContainers, async () => {
    const containers = amountLines(fields(data).containers ?? '', ['ml', 'l']);
    await call(setContainers, {
      version,
      containers: containers.map(({ name, amount }) => ({ name, ml: amount })),
    } as never);
    return 'Saved. Kit sheets count them at once.';
  });
}

async function forget(wish: string, shown: readonly string[]): Promise<FormState> {
  'use server';
  return attempt(forgetMeaning, async () => {
    await call(forgetMeaning, { wish, shown: [...shown] });
    return undefined;
  });
}

export default async function ProgrammePage() {
  const meanings = await call(listMeanings, {});
  const { programme } = await requireMember();
  const sizes = programme.containers;
  const hours = programme.workHours;
  return (
    <>
      <PageTitle title="Programme">
        <Link href="/places" className="btn">
          Places
        </Link>
        <Link href="/closures" className="btn">
          Closures
        </Link>
        <Link href="/people" className="btn">
          People
        </Link>
        <Link href="/families" className="btn">
          Families’ data
        </Link>
        <Link href="/devices" className="btn">
          Devices
        </Link>
      </PageTitle>
      <div className="grid gap-6 lg:grid-cols-2">
        <section className="sheet h-fit p-5" aria-labelledby="settings">
          <h2 id="settings" className="mb-3 text-xl font-bold">
            Settings
          </h2>
          <ActionForm version={programme.version} action={edit} label="Settings" className="flex flex-col gap-3">
            <input type="hidden" name="version" value={programme.version} />
            <Field label="Name" name="name" required maxLength={120} defaultValue={programme.name} />
            <Choice
              label="Measures"
              name="measureSystem"
              defaultValue={programme.measureSystem}
              hint="How amounts are measured and said. Sheets already locked stay as they are."
            >
              <option value="us">US: cups, spoons, ounces</option>
              <option value="metric">Metric: millilitres, spoons, grams</option>
            </Choice>
            <Choice
              label="Safety profile"
              name="safetyProfile"
              defaultValue={programme.safetyProfile}
              hint="Typical figures for temperatures and dates; your local code decides."
            >
              <option value="us">United States</option>
              <option value="uk">United Kingdom</option>
            </Choice>
            <Field
              label="Time zone"
              name="timeZone"
              required
              defaultValue={programme.timeZone}
              hint="For example Europe/London or America/Chicago"
            />
            <Field
              label="Months that families’ data is kept"
              name="retentionMonths"
              inputMode="numeric"
              required
              defaultValue={programme.retentionMonths}
              hint="After a household’s last session; then it is listed to be erased"
            />
            <button type="submit" className="btn btn-primary w-fit">
              Save
            </button>
          </ActionForm>
        </section>
        <section className="sheet h-fit p-5" aria-labelledby="meanings">
          <h2 id="meanings" className="mb-3 text-xl font-bold">
            What families’ words mean here
          </h2>
          {meanings.length === 0 && <p>Every word on your rolls was known, or waits on a roll for its meaning.</p>}
          <ul className="divide-y divide-base-300">
            {meanings.map(({ wish, codes, giverName }) => (
              <li key={wish} className="flex items-center justify-between gap-3 py-2">
                <span>
                  <b>“{wish}”</b>{' '}
                  {codes.length > 0 ? `avoids ${codes.map(avoidanceLabel).join(', ')}` : 'says nothing to avoid'}
                  {giverName && <span className="text-sm text-base-content/80"> (said by {giverName})</span>}
                </span>
                <ActionForm action={forget.bind(null, wish, codes)} label={`Take back the meaning of ${wish}`}>
                  <button type="submit" className="btn btn-sm" aria-label={`Take back the meaning of ${wish}`}>
                    Take back
                  </button>
                </ActionForm>
              </li>
            ))}
          </ul>
        </section>
        <section className="sheet h-fit p-5 lg:col-span-2" aria-labelledby="containers">
          <h2 id="containers" className="mb-1 text-xl font-bold">
            Containers
          </h2>
          <p className="mb-3 text-sm">
            The sizes that kits are packed in. Each measured amount goes into the smallest that holds it; the kit sheet
            counts them.
          </p>
          <ActionForm
            version={programme.version}
            action={pack.bind(null, programme.version)}
            label="Containers"
            className="flex flex-col gap-3"
          >
            <label className="flex max-w-md flex-col gap-1">
              <span className="text-sm font-semibold">A container a line with its millilitres</span>
              <textarea
                name="containers"
                rows={5}
                maxLength={2000}
                className="textarea w-full"
                defaultValue={sizes.map(({ name, ml }) => `${name}, ${ml} ml`).join('\n')}
              />
              <span className="text-xs text-base-content/75">For example “lidded pot, 60 ml” or “zip bag, 1 l”</span>
            </label>
            <button type="submit" className="btn btn-primary w-fit">
              Save containers
            </button>
          </ActionForm>
        </section>
        <section className="sheet h-fit p-5 lg:col-span-2" aria-labelledby="hours">
          <h2 id="hours" className="mb-1 text-xl font-bold">
            Working hours
          </h2>
          <p className="mb-3 text-sm">
            Jobs are counted back within these hours. A weekday left empty is a day of rest (all left empty: any hour);
            the crew also rests on public holidays and closures of your own.
          </p>
          <ActionForm
            version={programme.version}
            action={work.bind(null, programme.version)}
            label="Working hours"
            className="flex flex-col gap-3"
          >
            <div className="grid gap-6 md:grid-cols-2">
              <HoursFields legend="Shops are open" prefix="shop-" hours={hours.shop ?? USUAL_HOURS.shop} />
              <HoursFields legend="The crew works" prefix="crew-" hours={hours.crew ?? USUAL_HOURS.crew} />
            </div>
            <button type="submit" className="btn btn-primary w-fit">
              Save hours
            </button>
          </ActionForm>
        </section>
      </div>
    </>
  );
}
