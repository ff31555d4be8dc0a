import Link from 'next/link';
import { v7 } from 'uuid';
import { call, requireMember } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { sayCount } from '@/core/quantity/say';
import { noteCloseOut, viewCloseOut } from '@/services/closeout/close-out';
import { sayLongDate } from '@/ui/dates';
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

async function close(
  sessionId: string,
  foods: readonly string[],
  ids: readonly string[],
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(noteCloseOut, async () => {
    const sent = fields(data);
    const blank = { item: '', percent: null, bad: null, pieces: null, words: '' };
    const whole = (text: string | undefined) => (text ? Number(text) : null);
    const notes = [
      ...foods.map((item, at) => ({
        ...blank,
        id: ids[at] ?? '',
        what: 'left' as const,
        item,
        percent: whole(sent[`left ${at}`]),
      })),
      ...foods.flatMap((item, at) => {
        const [bad, pieces] = [whole(sent[`bad ${at}`]), whole(sent[`pieces ${at}`])];
        if (bad === null && pieces === null) return [];
        return [{ ...blank, id: ids[foods.length + at] ?? '', what: 'bad' as const, item, bad, pieces }];
      }),
      ...(['broke', 'note'] as const).map((what, at) => ({
        ...blank,
        id: ids[2 * foods.length + at] ?? '',
        what,
        words: sent[what] ?? '',
      })),
      { ...blank, id: ids[2 * foods.length + 2] ?? '', what: 'closed' as const },
    ];
    await call(noteCloseOut, { sessionId, notes });
    return 'Closed. What it teaches stands under Lessons.';
  });
}

/** Three minutes after a session: filled in as far as it is known. */
export default async function CloseOut({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { actor } = await requireMember();
  const known = await orNotFound(call(viewCloseOut, { sessionId }));
  const { session, attendance, foods, short, lent, probed, hours, votes } = known;
  const unsafe = probed.filter(({ state }) => state !== 'safe');
  const ids = Array.from({ length: foods.length * 2 + 3 }, () => v7());
  return (
    <>
      <PageTitle title={`Close out: ${session.title}`} over={`${session.courseTitle} · ${sayLongDate(session.date)}`}>
        {actor.role !== 'crew' && (
          <Link href="/lessons" className="btn">
            Lessons
          </Link>
        )}
        <Link href={`/room/${sessionId}`} className="btn">
          In the room
        </Link>
      </PageTitle>
      {known.closedAt && (
        <p role="status" className="mb-4 font-semibold">
          Closed. Closing it again keeps the newer answers.
        </p>
      )}
      <ul className="sheet mb-5 grid gap-x-8 gap-y-2 p-5 md:grid-cols-2" aria-label="What is known already">
        <li>
          <b>
            {attendance.came} of {attendance.of} came
          </b>
          {attendance.cooked > 0 && `, ${attendance.cooked} cooked at home`}
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
      </ul>
      <ActionForm
        action={close.bind(
          null,
          sessionId,
          foods.map(({ food }) => food),
          ids,
        )}
        label="Close out"
        className="flex flex-col gap-4"
      >
        <section className="sheet p-5" aria-labelledby="left">
          <h2 id="left" className="mb-1 text-xl font-bold">
            What was left
          </h2>
          <p className="mb-3 text-sm">
            By eye is good enough. Where nothing is unusual, leave it as it is. Bad pieces only where you counted them.
          </p>
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
        </section>
        <section className="sheet grid gap-3 p-5 md:grid-cols-2" aria-label="Anything else">
          <TextArea
            label="What broke, or is missing"
            name="broke"
            rows={3}
            maxLength={2000}
            defaultValue={known.broke}
          />
          <TextArea label="What to remember" name="note" rows={3} maxLength={2000} defaultValue={known.note} />
        </section>
        <button type="submit" className="btn btn-primary h-12 self-start">
          Close this session
        </button>
      </ActionForm>
    </>
  );
}
