import Link from 'next/link';
import { v7 } from 'uuid';
import { call, requireMember } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { BATCH_FOODS, BATCH_KINDS } from '@/core/packing/made/batch';
import { beginBatch, endBatch, serveMade, takeTemperature, viewMade } from '@/services/packing/made/made';

import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { FOOD_WORDS, KIND_WORDS, STATE_WORDS } from '@/ui/packing/made/batch-words';
import { LookTimer } from '@/ui/packing/made/look-timer';
import { Caution, PageTitle } from '@/ui/page';
import { UsualCautions } from '@/ui/recipes/usual-cautions';

export const metadata = { title: 'Made ahead' };

async function begin(sessionId: string, id: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(beginBatch, async () => {
    const { name = '', food = 'cooked', kind = 'cool', grams = '', least = '', most = '' } = fields(data);
    await call(beginBatch, { sessionId, id, name, food, kind, grams, least, most });
    return 'It is watched now.';
  });
}

async function note(
  at: { sessionId: string; batchId: string; id: string },
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(takeTemperature, async () => {
    const { degrees = '', probe } = fields(data);
    await call(takeTemperature, { ...at, degrees: probe ? '' : degrees });
    return undefined;
  });
}

async function end(
  at: { sessionId: string; batchId: string; version: number },
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(endBatch, async () => {
    const { outcome = '', storage = 'fridge', note: words = '' } = fields(data);
    await call(endBatch, { ...at, outcome, storage, note: words });
    return undefined;
  });
}

async function serve(
  at: { sessionId: string; lotId: string; id: string },
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(serveMade, async () => {
    await call(serveMade, { ...at, grams: fields(data).grams ?? '' });
    return undefined;
  });
}

const sayMinutes = (minutes: number) => (minutes < 120 ? `${minutes} min` : `${Math.round(minutes / 30) / 2} hours`);

/** What is made ahead for a session: what its steps ask for, and what cools, stands or is kept now. */
export default async function Made({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { actor } = await requireMember();
  const { session, batches, kept, toMake, profile } = await orNotFound(call(viewMade, { sessionId }));
  const open = batches.filter(({ endedAt }) => endedAt === null);
  const over = batches.filter(({ endedAt }) => endedAt !== null);
  const scale = profile === 'us' ? '°F' : '°C';
  return (
    <>
      <PageTitle
        title={`Made ahead: ${session.title}`}
        over={`${session.courseTitle} · ${say.longDate(session.date)}, ${say.time(session.startsAt)} · ${session.place}`}
      >
        {actor.role === 'coordinator' && (
          <>
            <Link href={`/sessions/${sessionId}/packing`} className="btn">
              Packing
            </Link>
            <Link href="/temperatures" className="btn">
              All temperatures
            </Link>
            <Link href="/cold-failed" className="btn">
              A fridge failed
            </Link>
          </>
        )}
      </PageTitle>
      <div className="flex flex-col gap-5">
        {open.map(({ id, version, name, kind, food, begunAt, lookAt, standing, readings, note: words }) => {
          const isBad = standing.state === 'throw away' || standing.state === 'put right';
          return (
            <section
              key={id}
              aria-labelledby={id}
              className={`sheet border-l-8 p-5 ${isBad ? 'border-l-error' : standing.state === 'reached' ? 'border-l-success' : 'border-l-info'}`}
            >
              <h2 id={id} className="text-2xl font-bold">
                {name} {KIND_WORDS[kind]}
              </h2>
              <p className="text-sm">
                Since {say.moment(begunAt)}, {FOOD_WORDS[food]}
                {words && `, ${words}`}
              </p>
              <p className={`my-2 text-lg ${isBad ? 'font-bold text-error' : ''}`}>
                <b className="inline-block first-letter:uppercase">{STATE_WORDS[standing.state]}.</b> {standing.say}
              </p>
              {lookAt && <LookTimer at={lookAt} what={kind === 'stand' ? 'is it ready' : 'take its temperature'} />}
              {readings.length > 0 && (
                <ol className="my-2 flex flex-wrap gap-x-5 gap-y-1 tabular-nums">
                  {readings.map((reading) => (
                    <li key={reading.id}>
                      {say.moment(reading.at)}: <b>{reading.say}</b>{' '}
                      <span className="text-sm">
                        ({reading.source}, {reading.by})
                      </span>
                    </li>
                  ))}
                </ol>
              )}
              <div className="flex flex-wrap items-end gap-4">
                <ActionForm
                  action={note.bind(null, { sessionId, batchId: id, id: v7() })}
                  label={`Temperature of ${name}`}
                  className="flex flex-wrap items-end gap-2"
                  clear
                >
                  <Field label={`Thermometer, ${scale}`} name="degrees" inputMode="decimal" width="w-28" />
                  <button type="submit" className="btn btn-primary h-12">
                    Note it
                  </button>
                  <button type="submit" name="probe" value="on" className="btn h-12">
                    Read the probe
                  </button>
                </ActionForm>
                <ActionForm
                  action={end.bind(null, { sessionId, batchId: id, version })}
                  label={`What becomes of ${name}`}
                  className="flex flex-wrap items-end gap-2"
                >
                  <Choice
                    label="What becomes of it"
                    name="outcome"
                    defaultValue={standing.state === 'throw away' ? 'thrown away' : kind === 'cool' ? 'kept' : 'served'}
                  >
                    <option value="kept">kept for later</option>
                    <option value="served">served or packed</option>
                    {standing.state === 'put right' && kind === 'cool' && (
                      <option value="cooled anew">heated through, cooled anew</option>
                    )}
                    <option value="thrown away">thrown away</option>
                  </Choice>
                  {kind === 'cool' && (
                    <Choice label="Where" name="storage" defaultValue="fridge">
                      <option>fridge</option>
                      <option>freezer</option>
                    </Choice>
                  )}
                  <Field label="Note" name="note" width="w-40" />
                  <button type="submit" className="btn h-12">
                    It is over
                  </button>
                </ActionForm>
              </div>
            </section>
          );
        })}
        {kept.length > 0 && (
          <section className="sheet p-5" aria-labelledby="kept">
            <h2 id="kept" className="mb-2 text-xl font-bold">
              Made and kept
            </h2>
            <ul className="divide-y divide-base-300">
              {kept.map(({ id, name, grams, storage, lastDay }) => (
                <li key={id} className="flex flex-wrap items-end justify-between gap-3 py-2">
                  <span>
                    <b>{name}</b>: {grams} g in the {storage}, use by {say.longDate(lastDay)}
                  </span>
                  <span className="flex flex-wrap items-end gap-2">
                    <ActionForm
                      action={serve.bind(null, { sessionId, lotId: id, id: v7() })}
                      label={`Serve: ${name}`}
                      className="flex items-end gap-2"
                    >
                      <Field label="Grams" name="grams" width="w-24" defaultValue={grams} />
                      <button type="submit" className="btn" aria-label={`Served or packed: ${name}`}>
                        Served or packed
                      </button>
                    </ActionForm>
                    <a className="btn" href={`/shelves/${id}/label.pdf`} target="_blank" rel="noreferrer">
                      Label
                    </a>
                  </span>
                </li>
              ))}
            </ul>
          </section>
        )}
        {toMake.length > 0 && (
          <section className="sheet p-5" aria-labelledby="to-make">
            <h2 id="to-make" className="mb-2 text-xl font-bold">
              What the dishes ask for
            </h2>
            <ul className="divide-y divide-base-300">
              {toMake.map(({ dish, kind, text, hands, alone, most, batches: turns }) => (
                <li key={`${dish} ${text}`} className="flex flex-wrap items-center justify-between gap-3 py-2">
                  <span className="max-w-2xl">
                    <b>{dish}.</b> {text}{' '}
                    <span className="text-sm">
                      {hands > 0 && `${sayMinutes(hands)} of hands. `}
                      {alone > 0 && `Stands at least ${sayMinutes(alone)}. `}
                      {most !== null && `At most ${sayMinutes(most)}. `}
                      {turns > 1 && `In ${turns} batches: a pan or a tray holds no more. `}
                    </span>
                  </span>
                  <ActionForm action={begin.bind(null, sessionId, v7())} label={`Begin: ${text}`}>
                    <input type="hidden" name="name" value={dish} />
                    <input type="hidden" name="kind" value={kind === 'cook' ? 'cool' : 'stand'} />
                    <input type="hidden" name="food" value={/\brice\b/i.test(`${dish} ${text}`) ? 'rice' : 'cooked'} />
                    <input type="hidden" name="least" value={alone || ''} />
                    <input type="hidden" name="most" value={most ?? ''} />
                    <button
                      type="submit"
                      className="btn"
                      aria-label={`${kind === 'cook' ? 'It cools now' : 'It stands now'}: ${dish}`}
                    >
                      {kind === 'cook' ? 'It cools now' : 'It stands now'}
                    </button>
                  </ActionForm>
                </li>
              ))}
            </ul>
          </section>
        )}
        <details className="sheet p-5" open={open.length === 0 && toMake.length === 0}>
          <summary className="cursor-pointer text-xl font-bold">Watch something else</summary>
          <ActionForm
            action={begin.bind(null, sessionId, v7())}
            label="Watch something else"
            className="mt-3 flex flex-wrap items-end gap-3"
            clear
          >
            <Field label="What" name="name" width="w-56" required />
            <Choice label="What it does" name="kind" defaultValue="cool">
              {BATCH_KINDS.map((kind) => (
                <option key={kind} value={kind}>
                  {KIND_WORDS[kind]}
                </option>
              ))}
            </Choice>
            <Choice label="What it is" name="food" defaultValue="cooked">
              {BATCH_FOODS.map((food) => (
                <option key={food} value={food}>
                  {FOOD_WORDS[food]}
                </option>
              ))}
            </Choice>
            <Field label="Grams" name="grams" inputMode="numeric" width="w-24" />
            <button type="submit" className="btn btn-primary">
              Begin
            </button>
          </ActionForm>
        </details>
        {over.length > 0 && (
          <section className="sheet p-5" aria-labelledby="over">
            <h2 id="over" className="mb-2 text-xl font-bold">
              Over
            </h2>
            <ul>
              {over.map(({ id, name, kind, outcome, readings, endedAt }) => (
                <li key={id} className="border-t border-base-300 py-1">
                  <b>{name}</b> {KIND_WORDS[kind]}: {outcome}, {endedAt && say.moment(endedAt)}.{' '}
                  {readings.map(({ say }) => say).join(' → ')}
                </li>
              ))}
            </ul>
          </section>
        )}
        <Caution>
          Into the thickest part, at a slant where it is thin, away from bone; the probe is cleaned before and after.
          Shallow pans, ice water and stirring cool quickly; a deep pot in a fridge does not. The figures are the usual
          ones: your local code and your venue’s rules decide.
        </Caution>
        <UsualCautions at="packing" />
      </div>
    </>
  );
}
