import Link from 'next/link';
import { Fragment } from 'react';
import { v7 } from 'uuid';
import { call, requireMember } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';

import { sayCount } from '@/core/quantity/say';
import { noteCloseOut, viewCloseOut } from '@/services/closeout/close-out';
import { closeSession, openAgain } from '@/services/closeout/closing';
import { FATES, settleLeftover } from '@/services/closeout/leftovers';

import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field, TextArea } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Close out' };

/** What was left of a food, by eye. */
const LEFT = [
  ['0', 'nothing left'],
  ['10', 'a little'],
  ['25', 'a quarter'],
  ['50', 'half'],
  ['75', 'most of it'],
  ['100', 'all of it'],
] as const;

/** What was asked of people, after “3 of 12”. */
const YES = { came: 'came', collected: 'fetched their kit', cooked: 'cooked it at home' } as const;

const BLANK = { item: '', percent: null, bad: null, pieces: null, words: '' };
const whole = (text: string | undefined) => (text ? Number(text) : null);

async function noteFoods(
  sessionId: string,
  foods: readonly string[],
  trimmed: readonly string[],
  ids: readonly string[],
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(noteCloseOut, async () => {
    const sent = fields(data);
    const left = foods.map((item, at) => ({
      ...BLANK,
      id: ids[at] ?? '',
      what: 'left' as const,
      item,
      percent: whole(sent[`left ${at}`]),
    }));
    const bad = foods.flatMap((item, at) => {
      const [count, pieces] = [whole(sent[`bad ${at}`]), whole(sent[`pieces ${at}`])];
      if (count === null && pieces === null) return [];
      return [{ ...BLANK, id: ids[foods.length + at] ?? '', what: 'bad' as const, item, bad: count, pieces }];
    });
    const trims = trimmed.flatMap((item, at) => {
      const [off, of] = [whole(sent[`off ${at}`]), whole(sent[`of ${at}`])];
      if (off === null && of === null) return [];
      const id = ids[2 * foods.length + at] ?? '';
      return [{ ...BLANK, id, what: 'trim' as const, item, bad: off, pieces: of }];
    });
    await call(noteCloseOut, { sessionId, notes: [...left, ...bad, ...trims] });
    return 'Noted.';
  });
}

async function noteWords(
  sessionId: string,
  ids: readonly string[],
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(noteCloseOut, async () => {
    const sent = fields(data);
    const notes = (['broke', 'note'] as const).map((what, at) => ({
      ...BLANK,
      id: ids[at] ?? '',
      what,
      words: sent[what] ?? '',
    }));
    await call(noteCloseOut, { sessionId, notes });
    return 'Noted.';
  });
}

async function noteTimes(
  sessionId: string,
  jobs: readonly string[],
  ids: readonly string[],
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(noteCloseOut, async () => {
    const sent = fields(data);
    const notes = jobs.flatMap((item, at) => {
      const took = whole(sent[item]);
      return took === null ? [] : [{ ...BLANK, id: ids[at] ?? '', what: 'job' as const, item, bad: took }];
    });
    if (notes.length === 0) return 'Nothing took longer or shorter: nothing to note.';
    await call(noteCloseOut, { sessionId, notes });
    return 'Noted.';
  });
}

async function settle(
  lot: { sessionId: string; lotId: string; id: string },
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(settleLeftover, async () => {
    const { fate = '', grams } = fields(data);
    await call(settleLeftover, { ...lot, fate: fate as 'kept', ...(grams ? { grams } : {}) });
    return 'Noted.';
  });
}

async function close(sessionId: string, id: string): Promise<FormState> {
  'use server';
  return attempt(closeSession, async () => {
    const { isNew, closedAt } = await call(closeSession, { sessionId, id });
    return isNew
      ? 'Closed. What it teaches stands under Lessons.'
      : `It was closed already: ${(await saying()).moment(closedAt)}.`;
  });
}

async function reopen(sessionId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(openAgain, async () => {
    await call(openAgain, { sessionId, reason: fields(data).reason ?? '' });
    return 'It is open again.';
  });
}

/** Three minutes after a session: filled in as far as it is known. */
export default async function CloseOut({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { actor } = await requireMember();
  const known = await orNotFound(call(viewCloseOut, { sessionId }));
  const { session, attendance, foods, short, lent, probed, hours, votes } = known;
  const unsafe = probed.filter(({ state }) => state !== 'safe');
  const ids = (count: number) => Array.from({ length: count }, () => v7());
  return (
    <>
      <PageTitle title={`Close out: ${session.title}`} over={`${session.courseTitle} · ${say.longDate(session.date)}`}>
        {actor.role !== 'crew' && (
          <Link href="/lessons" className="btn">
            Lessons
          </Link>
        )}
        <Link href={`/room/${sessionId}`} className="btn">
          In the room
        </Link>
      </PageTitle>
      {known.closedAt ? (
        <p role="status" className="mb-4 font-semibold">
          Closed. What is noted from now on counts too.
        </p>
      ) : (
        known.openedAgain && <p className="mb-4">Opened again: {known.openedAgain}</p>
      )}
      <ul className="sheet mb-5 grid gap-x-8 gap-y-2 p-5 md:grid-cols-2" aria-label="What is known already">
        <li>
          {attendance.asked.map(({ yes, count, of }, at) => (
            <Fragment key={yes}>
              {at > 0 && ', '}
              <b>
                {count} of {of}
              </b>{' '}
              {YES[yes]}
            </Fragment>
          ))}
          {attendance.asked.length === 0 && 'Nobody is on the roll'}
          {attendance.open > 0 && (
            <>
              ; {attendance.open} still open:{' '}
              <Link href={`/room/${sessionId}/attendance`} className="link">
                note them
              </Link>
            </>
          )}
        </li>
        <li>
          <b>{sayCount(hours.people, 'person', 'people')} of the crew</b>, {Math.floor(hours.minutes / 60)} h{' '}
          {hours.minutes % 60} min
          {hours.open > 0 && (
            <>
              ; {hours.open} not tapped out:{' '}
              <Link href={`/room/${sessionId}/door`} className="link">
                at the door
              </Link>
            </>
          )}
        </li>
        <li>
          {short.length === 0
            ? 'Nothing was tapped as short or wrong.'
            : short
                .map(
                  ({ what, food, percent, text }) =>
                    `${food || text} ${what === 'short' ? `ran short, ${percent ?? 0} % more was needed` : 'was wrong'}`,
                )
                .join('; ')}
        </li>
        <li>
          {probed.length === 0
            ? 'No temperature had to be taken.'
            : unsafe.length === 0
              ? `${sayCount(probed.length, 'temperature')} taken, all safe.`
              : `Not seen safe: ${unsafe.map(({ task, state }) => `${task} (${state})`).join('; ')}`}
        </li>
        <li>
          {votes
            .map(
              ({ dish, votes: own }) =>
                `${dish}: ${Object.entries(own)
                  .map(([face, count]) => `${count} ${face}`)
                  .join(', ')}`,
            )
            .join('; ') || 'Nobody has tasted.'}
        </li>
        <li>
          {lent.length === 0
            ? 'Nothing is lent out.'
            : `Not brought back: ${lent.map(({ item, count }) => `${count} ${item}`).join(', ')}.`}
          {known.incidents > 0 && ` ${sayCount(known.incidents, 'incident')} noted.`}
        </li>
        {known.money.lots > 0 && (
          <li>
            Taken off the shelf for it: {say.money(known.money.worth)}
            {known.money.unpriced > 0 && `, ${sayCount(known.money.unpriced, 'lot')} without a price`}
          </li>
        )}
        {(known.said.length > 0 || session.cookBy) && (
          <li>
            {session.cookBy && `Families cook until ${say.longDate(session.cookBy)}. `}
            {known.said.length > 0 && `They said: ${known.said.map((note) => `“${note}”`).join('; ')}`}
          </li>
        )}
      </ul>
      <div className="flex flex-col gap-4">
        <section className="sheet p-5" aria-labelledby="left">
          <h2 id="left" className="mb-1 text-xl font-bold">
            What was left
          </h2>
          <p className="mb-3 text-sm">
            By eye is good enough. Where nothing is unusual, leave it as it is. Bad pieces only where you counted them.
          </p>
          <ActionForm
            action={noteFoods.bind(
              null,
              sessionId,
              foods.map(({ food }) => food),
              known.trims.map(({ item }) => item),
              ids(foods.length * 2 + known.trims.length),
            )}
            label="What was left"
            className="flex flex-col gap-3"
          >
            <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
              {foods.map(({ food, left, bad, pieces }, at) => (
                <fieldset key={food} className="rounded-box border border-base-300 p-3">
                  <legend className="font-semibold">{food}</legend>
                  <div className="grid grid-cols-[2fr_1fr_1fr] items-end gap-2">
                    <Choice label={`Left of ${food}`} isHeaded name={`left ${at}`} defaultValue={String(left ?? 0)}>
                      {LEFT.map(([value, label]) => (
                        <option key={value} value={value}>
                          {label}
                        </option>
                      ))}
                    </Choice>
                    <Field label="Bad" name={`bad ${at}`} type="number" min={0} defaultValue={bad ?? ''} />
                    <Field label="of" name={`pieces ${at}`} type="number" min={1} defaultValue={pieces ?? ''} />
                  </div>
                </fieldset>
              ))}
            </div>
            {known.trims.length > 0 && (
              <details open={known.trims.some(({ off }) => off !== null)}>
                <summary className="cursor-pointer font-semibold">What was trimmed off, where you weighed it</summary>
                <div className="mt-2 grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
                  {known.trims.map(({ item, off, of }, at) => (
                    <fieldset key={item} className="rounded-box border border-base-300 p-3">
                      <legend className="font-semibold">{item}</legend>
                      <div className="grid grid-cols-2 items-end gap-2">
                        <Field label="Grams off" name={`off ${at}`} type="number" min={0} defaultValue={off ?? ''} />
                        <Field label="of grams" name={`of ${at}`} type="number" min={1} defaultValue={of ?? ''} />
                      </div>
                    </fieldset>
                  ))}
                </div>
              </details>
            )}
            <button type="submit" className="btn w-fit">
              Note what was left
            </button>
          </ActionForm>
        </section>
        {known.leftovers.length > 0 && (
          <section className="sheet p-5" aria-labelledby="lots">
            <h2 id="lots" className="mb-2 text-xl font-bold">
              What becomes of it
            </h2>
            <ul className="flex flex-col gap-3">
              {known.leftovers.map(({ lotId, name, grams, last, said }) => (
                <li key={lotId}>
                  <ActionForm
                    action={settle.bind(null, { sessionId, lotId, id: v7() })}
                    label={`What becomes of ${name}`}
                    className="flex flex-wrap items-end gap-3"
                  >
                    <span className="w-full sm:w-72">
                      <b>{name}</b>, open: {grams} g by the books, until {say.longDate(last)}
                      {said && `; ${said}`}
                    </span>
                    <Choice label="It is" name="fate" defaultValue="kept">
                      {FATES.map((fate) => (
                        <option key={fate} value={fate}>
                          {fate}
                        </option>
                      ))}
                    </Choice>
                    <Field label="Grams left" name="grams" type="number" min={0} max={grams} width="w-32" />
                    <button type="submit" className="btn">
                      Note
                    </button>
                  </ActionForm>
                </li>
              ))}
            </ul>
          </section>
        )}
        {known.jobs.length > 0 && (
          <details className="sheet p-5" open={known.jobs.some(({ took }) => took !== null)}>
            <summary className="cursor-pointer text-xl font-bold">How long the work took, where it was unusual</summary>
            <ActionForm
              action={noteTimes.bind(
                null,
                sessionId,
                known.jobs.map(({ key }) => key),
                ids(known.jobs.length),
              )}
              label="How long the work took"
              className="mt-3 flex flex-col gap-3"
            >
              <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
                {known.jobs.map(({ key, title, planned, took }) => (
                  <Field
                    key={key}
                    label={`${title}, minutes`}
                    hint={`${planned} were planned`}
                    name={key}
                    type="number"
                    min={1}
                    defaultValue={took ?? ''}
                  />
                ))}
              </div>
              <button type="submit" className="btn w-fit">
                Note the minutes
              </button>
            </ActionForm>
          </details>
        )}
        <ActionForm
          action={noteWords.bind(null, sessionId, ids(2))}
          label="Anything else"
          className="sheet grid gap-3 p-5 md:grid-cols-2"
        >
          <TextArea
            label="What broke, or is missing"
            name="broke"
            rows={3}
            maxLength={2000}
            defaultValue={known.broke}
          />
          <TextArea label="What to remember" name="note" rows={3} maxLength={2000} defaultValue={known.note} />
          <button type="submit" className="btn w-fit">
            Note it
          </button>
        </ActionForm>
        {known.closedAt ? (
          actor.role !== 'crew' && (
            <ActionForm
              action={reopen.bind(null, sessionId)}
              label="Open it again"
              className="flex flex-wrap items-end gap-3"
            >
              <Field label="Why it is opened again" name="reason" required maxLength={300} width="w-80" />
              <button type="submit" className="btn">
                Open it again
              </button>
            </ActionForm>
          )
        ) : (
          <ActionForm action={close.bind(null, sessionId, v7())} label="Close this session">
            <button type="submit" className="btn btn-primary h-12">
              Close this session
            </button>
          </ActionForm>
        )}
      </div>
    </>
  );
}
