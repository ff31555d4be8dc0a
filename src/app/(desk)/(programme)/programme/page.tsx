import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { attempt, fields, formOf } from '@/app/form';
import { saying } from '@/app/saying';
import { emergencyNumber } from '@/core/classday/first-steps';
import { linesOf, ROUTINES } from '@/core/classday/routines';
import { RHYTHM_JOBS } from '@/core/countdown/rhythm';
import { USUAL_HOURS } from '@/core/countdown/work-hours';
import { WEEKDAY_NAMES } from '@/core/plan/civil';
import { mannerOf } from '@/core/plan/manner';
import { currencyOf } from '@/core/quantity/money';
import { avoidanceLabel } from '@/core/safety/avoidances';
import { JOBS } from '@/core/stages/stages';
import { setClassWords } from '@/services/classday/class-words';
import type { InputOf } from '@/services/gate/gate';
import { setContainers } from '@/services/kits/rules';
import {
  editProgramme,
  forgetMeaning,
  giveMeaning,
  listMeanings,
  setAdultRatios,
  setRhythm,
  setWorkHours,
} from '@/services/programme/programme';
import { ActionForm } from '@/ui/form/action-form';
import { TimeField } from '@/ui/form/dates';
import { Choice, Field, TextArea } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { namesOf } from '@/ui/form/names';
import { PageTitle } from '@/ui/page';
import { HoursFields, hoursSent } from '@/ui/plan/hours-fields';
import { amountLines } from '@/ui/recipes/amount-lines';
import { Meanings } from './meanings';

export const metadata = { title: 'Programme' };

const settings = namesOf<InputOf<typeof editProgramme>>();
const hoursName = namesOf<InputOf<typeof setWorkHours>>();
const habitName = namesOf<InputOf<typeof setRhythm>>();
const jobTitle = (key: string) => JOBS.find((job) => job.key === key)?.title ?? key;

async function giveAgain(word: string, codes: readonly string[]): Promise<FormState> {
  'use server';
  return attempt(giveMeaning, async () => {
    await call(giveMeaning, { word, codes, foods: [], nothing: codes.length === 0, isFirst: true });
    return `“${word}” means what it meant before.`;
  });
}

type Settings = InputOf<typeof editProgramme>;

async function edit(was: Settings, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(editProgramme, async () => {
    await call(editProgramme, { ...formOf(editProgramme, data), version: was.version });
    return { message: 'Saved. Sheets that are not locked follow at once.', undo: putBack.bind(null, was) };
  });
}

/** Puts the settings back as they were before they were saved. */
async function putBack(was: Settings): Promise<FormState> {
  'use server';
  return attempt(editProgramme, async () => {
    await call(editProgramme, { ...was, version: Number(was.version) + 1 });
    return 'The settings are as before.';
  });
}

type WorkHours = InputOf<typeof setWorkHours>;

async function work(was: WorkHours, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setWorkHours, async () => {
    const { shop, crew } = formOf(setWorkHours, data);
    await call(setWorkHours, { version: was.version, shop: hoursSent(shop), crew: hoursSent(crew) });
    return { message: 'Saved. Every countdown follows at once.', undo: putHoursBack.bind(null, was) };
  });
}

async function putHoursBack(was: WorkHours): Promise<FormState> {
  'use server';
  return attempt(setWorkHours, async () => {
    await call(setWorkHours, { ...was, version: Number(was.version) + 1 });
    return 'The hours are as before.';
  });
}

async function rhythm(version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setRhythm, async () => {
    const { habits = [] } = formOf(setRhythm, data);
    await call(setRhythm, { version, habits });
    return 'Saved. Do next and the week sheet go by it.';
  });
}

async function adults(version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setAdultRatios, async () => {
    const { children = '', adults: fewest = '' } = fields(data);
    await call(setAdultRatios, { version, children, adults: fewest });
    return 'Saved. Every session counts its adults by it.';
  });
}

async function routines(version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setClassWords, async () => {
    const { opening = '', fire = '', closing = '', emergency = '' } = fields(data);
    const rows = (text: string) => text.split(/\r?\n/).filter((row) => row.trim() !== '');
    const sent = { opening: rows(opening), fire: rows(fire), closing: rows(closing) };
    await call(setClassWords, { version, ...sent, emergency });
    return 'Saved. Every class shows them.';
  });
}

type Containers = InputOf<typeof setContainers>;

async function pack(was: Containers, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setContainers, async () => {
    const containers = amountLines(fields(data).containers ?? '', ['ml', 'l']);
    await call(setContainers, {
      version: was.version,
      containers: containers.map(({ name, amount }) => ({ name, ml: amount })),
    });
    return { message: 'Saved. Kit sheets count them at once.', undo: putContainersBack.bind(null, was) };
  });
}

async function putContainersBack(was: Containers): Promise<FormState> {
  'use server';
  return attempt(setContainers, async () => {
    await call(setContainers, { ...was, version: Number(was.version) + 1 });
    return 'The containers are as before.';
  });
}

async function forget(word: string, shown: readonly string[]): Promise<FormState> {
  'use server';
  return attempt(forgetMeaning, async () => {
    await call(forgetMeaning, { word, shown: [...shown] });
    return { message: `“${word}” has no meaning any more.`, undo: giveAgain.bind(null, word, shown) };
  });
}

export default async function ProgrammePage() {
  const say = await saying();
  const meanings = await call(listMeanings, {});
  const { programme } = await requireMember();
  const manner = mannerOf(programme);
  const sizes = programme.containers;
  const hours = { ...USUAL_HOURS, ...programme.workHours };
  const { version, name, measureSystem, safetyProfile, timeZone, retentionMonths } = programme;
  const currency = currencyOf(programme);
  const was = { version, name, measureSystem, safetyProfile, timeZone, retentionMonths, currency };
  return (
    <>
      <PageTitle title="Programme">
        <Link href="/start" className="btn">
          Setting up
        </Link>
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
          <ActionForm
            version={programme.version}
            action={edit.bind(null, { ...was, manner })}
            label="Settings"
            className="flex flex-col gap-3"
          >
            <Field label="Name" name={settings('name')} required maxLength={120} defaultValue={programme.name} />
            <Choice
              label="Measures"
              name={settings('measureSystem')}
              defaultValue={programme.measureSystem}
              hint="How amounts are measured and said. Sheets already locked stay as they are."
            >
              <option value="us">US: cups, spoons, ounces</option>
              <option value="metric">Metric: millilitres, spoons, grams</option>
            </Choice>
            <Choice
              label="Safety profile"
              name={settings('safetyProfile')}
              defaultValue={programme.safetyProfile}
              hint="Typical figures for temperatures and dates; your local code decides."
            >
              <option value="us">United States</option>
              <option value="uk">United Kingdom</option>
            </Choice>
            <Field
              label="Currency"
              name={settings('currency')}
              required
              maxLength={3}
              defaultValue={currency}
              hint="Three letters, such as EUR or GBP"
            />
            <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
              <Choice label="Dates" name={settings('manner.dateOrder')} defaultValue={manner.dateOrder}>
                <option value="day first">5 Nov 2026</option>
                <option value="month first">Nov 5, 2026</option>
              </Choice>
              <Choice label="Clock" name={settings('manner.clock')} defaultValue={manner.clock}>
                <option value={24}>16:30</option>
                <option value={12}>4:30 pm</option>
              </Choice>
              <Choice label="Week begins" name={settings('manner.firstWeekday')} defaultValue={manner.firstWeekday}>
                <option value={1}>Monday</option>
                <option value={7}>Sunday</option>
              </Choice>
            </div>
            <Field
              label="Time zone"
              name={settings('timeZone')}
              required
              defaultValue={programme.timeZone}
              hint="For example Europe/London or America/Chicago"
            />
            <Field
              label="Months that families’ data is kept"
              name={settings('retentionMonths')}
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
          {meanings.length > 0 && <Meanings meanings={meanings.map(lineOf)} forget={forget} />}
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
            action={pack.bind(null, { version, containers: sizes })}
            label="Containers"
            className="flex flex-col gap-3"
          >
            <TextArea
              label="A container a line with its millilitres"
              name="containers"
              rows={5}
              maxLength={2000}
              width="max-w-md"
              defaultValue={sizes.map(({ name, ml }) => `${name}, ${ml} ml`).join('\n')}
              hint="For example “lidded pot, 60 ml” or “zip bag, 1 l”"
            />
            <button type="submit" className="btn btn-primary w-fit">
              Save containers
            </button>
          </ActionForm>
        </section>
        <section className="sheet h-fit p-5 lg:col-span-2" aria-labelledby="adults">
          <h2 id="adults" className="mb-1 text-xl font-bold">
            Adults in a class
          </h2>
          <p className="mb-3 text-sm">
            How many adults a class needs follows from the ages of its children and from what is hot or sharp, by a
            typical table. Ask for more here where your licence, your insurance or your venue does; it never becomes
            less than the table.
          </p>
          <ActionForm
            version={programme.version}
            isUndoable
            action={adults.bind(null, version)}
            label="Adults in a class"
            className="flex flex-wrap items-end gap-3"
          >
            <Field
              label="Children to one adult, at the most"
              name="children"
              type="number"
              min={1}
              max={30}
              defaultValue={programme.adultRatios.children ?? ''}
            />
            <Field
              label="Adults in a room, at the least"
              name="adults"
              type="number"
              min={2}
              max={30}
              defaultValue={programme.adultRatios.adults ?? ''}
            />
            <button type="submit" className="btn btn-primary w-fit">
              Save
            </button>
          </ActionForm>
        </section>
        <section className="sheet h-fit p-5 lg:col-span-2" aria-labelledby="routines">
          <h2 id="routines" className="mb-1 text-xl font-bold">
            Routines of a class
          </h2>
          <p className="mb-3 text-sm">
            One line for each thing that somebody ticks. A list that is left empty is as usual.
          </p>
          <ActionForm
            version={programme.version}
            isUndoable
            action={routines.bind(null, version)}
            label="Routines of a class"
            className="grid gap-3 lg:grid-cols-3"
          >
            {ROUTINES.map((key) => (
              <TextArea
                key={key}
                label={{ opening: 'Before anybody cooks', fire: 'At a fire', closing: 'Before anybody goes' }[key]}
                name={key}
                rows={8}
                defaultValue={linesOf(programme.classWords, key).join('\n')}
              />
            ))}
            <Field
              label="Number to call in an emergency"
              name="emergency"
              maxLength={60}
              defaultValue={emergencyNumber(programme.classWords.emergency ?? '', programme.safetyProfile)}
            />
            <button type="submit" className="btn btn-primary w-fit self-end">
              Save
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
            action={work.bind(null, { version, ...hours })}
            label="Working hours"
            className="flex flex-col gap-3"
          >
            <div className="grid gap-6 md:grid-cols-2">
              <HoursFields legend="Shops are open" name={hoursName('shop')} hours={hours.shop} week={say.week} />
              <HoursFields legend="The crew works" name={hoursName('crew')} hours={hours.crew} week={say.week} />
            </div>
            <button type="submit" className="btn btn-primary w-fit">
              Save hours
            </button>
          </ActionForm>
        </section>
        <section className="sheet h-fit p-5 lg:col-span-2" aria-labelledby="rhythm">
          <h2 id="rhythm" className="mb-1 text-xl font-bold">
            Our rhythm
          </h2>
          <p className="mb-3 text-sm">
            When each job is usually begun. Do next and the week sheet go by it; the jobs of a session show beside it
            how much can still be put off.
          </p>
          <ActionForm
            version={programme.version}
            isUndoable
            action={rhythm.bind(null, version)}
            label="Our rhythm"
            className="flex flex-col gap-3"
          >
            {RHYTHM_JOBS.map((job, at) => {
              const rule = programme.workHours.rhythm?.[job];
              const on = !rule ? '' : 'weekday' in rule ? `w${rule.weekday}` : `d${rule.daysBefore}`;
              return (
                <fieldset key={job} className="flex flex-wrap items-end gap-3">
                  <legend className="sr-only">{jobTitle(job)}</legend>
                  <b className="w-40 self-center">{jobTitle(job)}</b>
                  <input type="hidden" name={habitName(`habits[${at}].job`)} value={job} />
                  <Choice label="On" name={habitName(`habits[${at}].on`)} defaultValue={on} width="w-48">
                    <option value="">no habit</option>
                    {say.week.map((day) => (
                      <option key={day} value={`w${day}`}>
                        {WEEKDAY_NAMES[day - 1]} before it
                      </option>
                    ))}
                    {[0, 1, 2, 3, 4, 5, 6, 7].map((days) => (
                      <option key={days} value={`d${days}`}>
                        {days === 0 ? 'the same day' : days === 1 ? 'the day before' : `${days} days before`}
                      </option>
                    ))}
                  </Choice>
                  <TimeField
                    label="At"
                    name={habitName(`habits[${at}].time`)}
                    defaultValue={rule?.time ?? ''}
                    width="w-32"
                  />
                </fieldset>
              );
            })}
            <button type="submit" className="btn btn-primary w-fit">
              Save the rhythm
            </button>
          </ActionForm>
        </section>
      </div>
    </>
  );
}

const lineOf = ({ word, codes, giverName }: { word: string; codes: readonly string[]; giverName: string }) => ({
  word,
  codes,
  avoids: codes.map(avoidanceLabel).join(', '),
  giverName,
});
