import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { minutesOf } from '@/core/plan/civil';
import type { ClassMinutes } from '@/core/plan/class-minutes';
import { setClassMinutes } from '@/services/classday/class-minutes';
import { viewRunSheet } from '@/services/classday/run-sheet';
import { RunBoard } from '@/ui/classday/run-board';
import { SetOut, SetOutCheck } from '@/ui/classday/set-out';

import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Caution, Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Run sheet' };

interface Props {
  readonly params: Promise<{ sessionId: string }>;
  readonly searchParams: Promise<{ group?: string }>;
}

async function setMinutes(sessionId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setClassMinutes, async () => {
    const { opening, demonstration, eating, cleaning, forCourse } = fields(data);
    const minutes = { opening, demonstration, eating, cleaning };
    await call(setClassMinutes, { sessionId, ...minutes, forCourse: forCourse === 'on' });
    return 'Saved. The run sheet goes by it.';
  });
}

/** The hour of a class: who does what when, what lies out where, and whether it fits. */
export default async function RunSheet({ params, searchParams }: Props) {
  const say = await saying();
  const { sessionId } = await params;
  const { group = '' } = await searchParams;
  const sheet = await orNotFound(call(viewRunSheet, { sessionId, sitting: group }));
  const { session, answer, plan, impossible, stations, food, dishes, around, cooking, fits, changes, ahead, setOut } =
    sheet;
  const { actor } = await requireMember();
  const begins = minutesOf(session.startsAt) + around.opening + around.demonstration;
  const timeAt = (minute: number) => say.time(begins + minute);
  const childrenOf = new Map(
    stations.flatMap(({ pairs }) => pairs.map(({ id, children }) => [id, children.join(' + ')] as const)),
  );
  const nameOf = (hands: string) => childrenOf.get(hands) || hands;
  const query = group ? `?group=${group}` : '';
  return (
    <>
      <PageTitle
        title={`Run sheet: ${session.title}`}
        over={`${session.courseTitle}${session.group && `, ${session.group}`} · ${say.longDate(session.date)}, ${say.time(session.startsAt)} · ${session.place}`}
      >
        <Link href={`/live/${sessionId}${query}`} prefetch={false} className="btn btn-primary">
          Run the class
        </Link>
        <Link href={`/room/${sessionId}/run-sheet/cards${query}`} prefetch={false} className="btn">
          Station cards
        </Link>
        <Link href={`/room/${sessionId}`} className="btn">
          In the room
        </Link>
        <PrintButton />
      </PageTitle>
      {sheet.groups.length > 1 && (
        <nav aria-label="Groups" className="no-print mb-4 flex flex-wrap gap-2">
          {sheet.groups.map(({ sitting, name }) => (
            <Link
              key={sitting}
              href={`/room/${sessionId}/run-sheet${sitting ? `?group=${sitting}` : ''}`}
              aria-current={sitting === group ? 'page' : undefined}
              className={`btn ${sitting === group ? 'btn-primary' : ''}`}
            >
              {name || 'First group'}
            </Link>
          ))}
        </nav>
      )}
      {impossible.length > 0 ? (
        <p role="alert" className="rounded-box border-l-4 border-error bg-error/10 p-4 text-lg font-semibold">
          This cannot be done by who and what is there, not even alone together:{' '}
          {[...new Set(impossible.map(({ text }) => `“${text}”`))].join(', ')}. Somebody old enough, a tool, or a heat
          for it is missing; or what must not wait has to.
        </p>
      ) : !plan || plan.tasks.length === 0 || !('minutes' in answer) ? (
        <Empty title="There is nothing to do in this class yet">
          <p>The run sheet is made from the steps of its dishes: choose dishes, and write their steps.</p>
        </Empty>
      ) : (
        <div className="flex flex-col gap-5">
          <section className="sheet p-5" aria-label="Whether it fits">
            <p className="text-lg">
              <b>
                {answer.minutes} minutes of cooking in {cooking} that are left for it
                {fits ? '.' : `: ${answer.minutes - cooking} too many.`}
              </b>{' '}
              {answer.proven.minutes
                ? 'No order is shorter.'
                : `There may be a shorter one, not below ${answer.bound?.minutes ?? 0} minutes.`}{' '}
              {dishes.length > 1 &&
                (answer.spread === 0 ? 'The dishes end together.' : `The dishes end within ${answer.spread} minutes.`)}
            </p>
            <p className="text-sm">
              {session.minutes} minutes in all: {around.opening} for hands, hair and tables
              {around.demonstration > 0 && `, ${around.demonstration} to show how`}, {around.eating} to eat,{' '}
              {around.cleaning} to clean.
            </p>
            {actor.role !== 'crew' && <MinutesForm sessionId={sessionId} around={around} />}
            {changes.length > 0 && (
              <>
                <p className="mt-2 font-semibold">Tried, and shorter:</p>
                <ul className="list-disc pl-5">
                  {changes.map(({ say, minutes, fits: would }) => (
                    <li key={say}>
                      {minutes} minutes {say}
                      {would && <b>: it fits</b>}
                    </li>
                  ))}
                </ul>
              </>
            )}
          </section>
          <section className="sheet p-5" aria-label="The hour">
            <RunBoard plan={plan} dishes={dishes} nameOf={nameOf} />
          </section>
          {setOut && (
            <section className="sheet p-5" aria-labelledby="check">
              <h2 id="check" className="mb-2 text-xl font-bold">
                To settle before the class
              </h2>
              {ahead.length > 0 && (
                <p className="mb-2">
                  <b>Done before the class:</b> {ahead.map(({ dish, text }) => `${text} (${dish})`).join(' ')}
                </p>
              )}
              <SetOutCheck {...setOut} nameOf={nameOf} timeAt={timeAt} />
            </section>
          )}
          {setOut && (
            <section aria-labelledby="set-out">
              <h2 id="set-out" className="mb-2 text-xl font-bold">
                Set-out
              </h2>
              <SetOut
                plan={plan}
                stations={stations}
                tools={setOut.tools}
                food={food}
                isOnScreen={sheet.isOnScreen}
                timeAt={timeAt}
              />
            </section>
          )}
          {actor.role !== 'crew' && (
            <p className="no-print">
              For families:{' '}
              {dishes.map(({ id, title, recipeId }) => (
                <Link key={id} href={`/recipes/${recipeId}/card`} prefetch={false} className="link mr-4">
                  card of {title}
                </Link>
              ))}
            </p>
          )}
          <AdultTasks plan={plan} timeAt={timeAt} />
          <Caution>
            Minutes are read from the steps, and estimates where these name none. Tasks fit the ages that are on the
            roll; who has never held a knife is shown first. An adult stays at whatever is hot.
          </Caution>
        </div>
      )}
    </>
  );
}

const AROUND = [
  ['opening', 'Hands, hair and tables'],
  ['demonstration', 'Showing how'],
  ['eating', 'Eating'],
  ['cleaning', 'Cleaning'],
] as const;

function MinutesForm({ sessionId, around }: { sessionId: string; around: ClassMinutes }) {
  return (
    <details className="no-print mt-1">
      <summary className="cursor-pointer text-sm underline">Change these minutes</summary>
      <ActionForm
        action={setMinutes.bind(null, sessionId)}
        label="Minutes in which nobody cooks"
        className="mt-2 flex flex-wrap items-end gap-3"
      >
        {AROUND.map(([name, label]) => (
          <Field
            key={name}
            label={`${label}, minutes`}
            name={name}
            type="number"
            min={0}
            max={240}
            required
            defaultValue={around[name]}
            width="w-44"
          />
        ))}
        <label className="flex items-center gap-2 pb-2 text-sm">
          <input type="checkbox" name="forCourse" className="checkbox" /> and for the classes of its course after it
        </label>
        <button type="submit" className="btn">
          Save
        </button>
      </ActionForm>
    </details>
  );
}

function AdultTasks({
  plan,
  timeAt,
}: {
  plan: NonNullable<Awaited<ReturnType<typeof viewRunSheet>>['plan']>;
  timeAt: (minute: number) => string;
}) {
  const own = plan.tasks.filter(({ station }) => station === null).sort((a, b) => a.start - b.start);
  if (own.length === 0) return null;
  return (
    <section className="sheet p-5" aria-labelledby="adults">
      <h2 id="adults" className="mb-2 text-xl font-bold">
        For adults alone
      </h2>
      <ol className="flex flex-col gap-1">
        {own.map(({ id, start, text, dish, hands, inside }) => (
          <li key={id} className="flex gap-3">
            <span className="w-20 shrink-0 tabular-nums">{timeAt(start)}</span>
            <span>
              {text} {inside && <b>At least {inside.said} inside.</b>}
              <span className="block text-sm">
                {dish}
                {hands && `, ${hands}`}
              </span>
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
