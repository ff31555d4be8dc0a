import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { saying } from '@/app/saying';
import type { Estimate } from '@/core/closeout/estimates';
import type { LessonKind } from '@/core/closeout/lessons';
import { rational } from '@/core/quantity/rational';
import { sayCount, sayGrams } from '@/core/quantity/say';
import { decideLesson, viewLessons } from '@/services/closeout/lessons/lessons';

import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Lessons' };

interface Of {
  readonly kind: LessonKind;
  readonly ofId: string;
  readonly item: string;
  readonly version: number;
}

async function decide(
  of: Of,
  word: 'taken' | 'refused',
  percent: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(decideLesson, async () => {
    const own = fields(data).percent;
    await call(decideLesson, { ...of, word, percent: own ? Number(own) : percent });
    if (word === 'refused') return 'Refused. It comes again only when more is seen.';
    if (of.kind === 'job') return 'Taken: the countdown of the course goes by it.';
    return of.kind === 'trimming' ? 'Taken: it is bought by it from now on.' : 'Taken: the recipe has a new version.';
  });
}

type Lessons = Awaited<ReturnType<typeof viewLessons>>;

/** What a lesson changes, as the field that changes it is called. */
const CHANGES = {
  amount: 'Per cent of what is written',
  spare: 'Per cent spare',
  trimming: 'Per cent edible',
  step: 'Per cent of its minutes',
  job: 'Per cent of its minutes',
} as const;

const percent = (share: number) => Math.round(share * 100);
const between = ({ low, high }: Pick<Estimate, 'low' | 'high'>) => `${percent(low)} to ${percent(high)} %`;

/** So many are shown at first: nobody decides more in one go. */
const AT_ONCE = 10;

/** What sessions teach, with how sure it is: nothing changes before somebody takes it. */
export default async function LessonsPage({ searchParams }: { searchParams: Promise<{ all?: string }> }) {
  const { actor } = await requireMember();
  const { all } = await searchParams;
  const { lessons, taken, likings, coming, packs } = await call(viewLessons, {});
  const shown = all ? lessons : lessons.slice(0, AT_ONCE);
  return (
    <>
      <PageTitle title="Lessons" over="What closed sessions teach; nothing changes before somebody takes it">
        {actor.role === 'coordinator' && (
          <Link href="/reports" className="btn">
            Reports
          </Link>
        )}
      </PageTitle>
      {lessons.length === 0 && (
        <Empty title="Nothing waits to be decided">
          <p>
            Lessons come from sessions that were closed: what was left, what was tapped as short, what was bad, what
            took longer than planned.
          </p>
        </Empty>
      )}
      {shown.map((lesson) => (
        <LessonSheet
          key={`${lesson.kind} ${lesson.ofId} ${lesson.item}`}
          lesson={lesson}
          mayDecide={actor.role === 'coordinator'}
        />
      ))}
      {shown.length < lessons.length && (
        <p className="mb-4">
          These {shown.length} are the surest.{' '}
          <Link href="/lessons?all=1" className="link">
            Show all {lessons.length}
          </Link>
        </p>
      )}
      <div className="grid gap-5 lg:grid-cols-2">
        {taken.length > 0 && <Taken taken={taken} />}
        <Liked likings={likings} />
        <Coming coming={coming} />
        {packs.length > 0 && <Packs packs={packs} />}
      </div>
    </>
  );
}

async function LessonSheet({ lesson: all, mayDecide }: { lesson: Lessons['lessons'][number]; mayDecide: boolean }) {
  const say = await saying();
  const { kind, ofId, of, version, item, title, lesson, proposed, would, seen, sessions, note } = all;
  const about = { kind, ofId, item, version };
  return (
    <section className="sheet mb-4 p-5" aria-label={`${title}: ${of}`}>
      <h2 className="text-xl font-bold">
        {of}: {title}
      </h2>
      <p className="text-lg">
        {would.map(({ now, after }) => `${now} → ${after}`).join('; ')}{' '}
        <span className="text-base">
          ({lesson.sure}, from {sayCount(sessions, 'session')};{' '}
          {kind === 'spare' ? 'the share that is bad lies' : 'the truth lies'} at {between(lesson)}, nine times in ten)
        </span>
      </p>
      <ul className="list-disc pl-5 text-sm">
        {seen.map(({ title: session, date, say: sentence }) => (
          <li key={`${session} ${date} ${sentence}`}>
            {session}, {say.longDate(date)}: {sentence}
          </li>
        ))}
      </ul>
      {note && <p className="mt-1 text-sm">By shop: {note}.</p>}
      {mayDecide && (
        <div className="mt-3 flex flex-wrap items-end gap-3">
          <ActionForm
            action={decide.bind(null, about, 'taken', proposed)}
            label={`Take: ${title}, ${of}`}
            className="flex flex-wrap items-end gap-3"
          >
            <Field
              label={CHANGES[kind]}
              name="percent"
              type="number"
              min={0}
              max={400}
              defaultValue={proposed}
              width="w-56"
            />
            <button type="submit" className="btn btn-primary">
              Take it into {kind === 'job' ? 'the course' : kind === 'trimming' ? 'the table of foods' : 'the recipe'}
            </button>
          </ActionForm>
          <ActionForm action={decide.bind(null, about, 'refused', proposed)} label={`Refuse: ${title}, ${of}`}>
            <button type="submit" className="btn">
              Refuse it
            </button>
          </ActionForm>
        </div>
      )}
    </section>
  );
}

const sayLeft = ({ sessions, left, short }: { sessions: number; left: number; short: number }) =>
  sessions === 0
    ? 'not cooked'
    : `${left} % left${short > 0 ? `, ${short} % short` : ''} on average of ${sayCount(sessions, 'session')}`;

async function Taken({ taken }: Pick<Lessons, 'taken'>) {
  const say = await saying();
  return (
    <section className="sheet p-5" aria-labelledby="taken">
      <h2 id="taken" className="mb-2 text-xl font-bold">
        Taken, and what came of it
      </h2>
      <ul className="flex flex-col gap-2">
        {taken.map(({ kind, of, item, percent: share, at, before, since }) => (
          <li key={`${kind} ${of} ${item} ${at}`}>
            <b>
              {of}: {item}, {share} %{kind === 'spare' && ' spare'}
            </b>{' '}
            since {say.moment(at)}.
            {kind === 'amount' && (
              <span className="block text-sm">
                Before: {sayLeft(before)}. Since: {sayLeft(since)}.
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Liked({ likings }: Pick<Lessons, 'likings'>) {
  return (
    <section className="sheet p-5" aria-labelledby="liked">
      <h2 id="liked" className="mb-2 text-xl font-bold">
        What children liked
      </h2>
      {likings.length === 0 && <p>Nobody has tasted yet.</p>}
      <ul className="flex flex-col gap-3">
        {likings.map(({ recipeId, title, votes, liked, byAge, proposes }) => (
          <li key={recipeId}>
            <b>{title}</b>: {votes['more please']} would have more, {votes['it is fine']} found it fine,{' '}
            {votes['not yet']} not yet. {proposes}
            <span className="block text-sm">
              Would have more: {between(liked)}
              {byAge
                .map(({ ages, liked: own, votes: count }) => `; ${ages}: ${percent(own.value)} % of ${count}`)
                .join('')}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Coming({ coming }: Pick<Lessons, 'coming'>) {
  return (
    <section className="sheet p-5" aria-labelledby="coming">
      <h2 id="coming" className="mb-2 text-xl font-bold">
        How many come
      </h2>
      {coming.length === 0 && <p>Nobody was noted yet.</p>}
      <ul className="list-disc pl-5">
        {coming.map(({ mode, say, count, of, share }) => (
          <li key={`${mode} ${say}`}>
            {mode}: {count} of {of} {say}: {between(share)} of those on the roll
          </li>
        ))}
      </ul>
      <p className="mt-2 text-sm">The reserve of kits is counted with it, session by session.</p>
    </section>
  );
}

function Packs({ packs }: Pick<Lessons, 'packs'>) {
  return (
    <section className="sheet p-5" aria-labelledby="packs">
      <h2 id="packs" className="mb-2 text-xl font-bold">
        Packs that lost food
      </h2>
      <ul className="list-disc pl-5">
        {packs.map(({ name, packGrams, lots, share, grams }) => (
          <li key={`${name} ${packGrams}`}>
            {name} in packs of {sayGrams(rational(packGrams))}: {sayGrams(rational(grams))} of it thrown away
            {share !== null && ` (${share} %)`}, from {sayCount(lots, 'lot')}. A smaller pack, or a second dish that
            uses it, would save it.
          </li>
        ))}
      </ul>
    </section>
  );
}
