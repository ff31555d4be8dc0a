import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { minutesOf, timeOf } from '@/core/plan/civil';
import { viewRunSheet } from '@/services/classday/run-sheet';
import { type BoardTask, RunBoard } from '@/ui/classday/run-board';
import { sayLongDate } from '@/ui/dates';
import { Caution, Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Run sheet' };

/** The hour of a class: who does what when, and whether it fits. */
export default async function RunSheet({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { session, answer, tasks, hands, dishes, around, cooking, fits, changes, ahead } = await orNotFound(
    call(viewRunSheet, { sessionId }),
  );
  const begins = minutesOf(session.startsAt) + around.hygiene;
  const isPlan = 'minutes' in answer;
  const placed = isPlan
    ? answer.tasks.flatMap(({ task, start, hands: who = '' }): BoardTask[] => {
        const own = tasks.find(({ id }) => id === task);
        return own ? [{ ...own, start, hands: who }] : [];
      })
    : [];
  const idle = hands.filter(({ id }) => !placed.some((task) => task.hands === id));
  const inOrder = [...placed].sort((a, b) => a.start - b.start || a.dish.localeCompare(b.dish));
  const time = (minute: number) => timeOf((begins + minute) % 1440);
  return (
    <>
      <PageTitle
        title={`Run sheet: ${session.title}`}
        over={`${session.courseTitle} · ${sayLongDate(session.date)}, ${session.startsAt} · ${session.place}`}
      >
        <Link href={`/room/${sessionId}`} className="btn">
          In the room
        </Link>
        <PrintButton />
      </PageTitle>
      {tasks.length === 0 ? (
        <Empty title="There is nothing to do in this class yet">
          <p>The run sheet is made from the steps of its dishes: choose dishes, and write their steps.</p>
        </Empty>
      ) : !isPlan ? (
        <p role="alert" className="rounded-box border-l-4 border-error bg-error/10 p-4 text-lg font-semibold">
          This cannot be done by who and what is there, not even alone together:{' '}
          {answer.impossible.map((id) => `“${tasks.find((task) => task.id === id)?.text ?? id}”`).join(', ')}. Somebody
          old enough, a tool, or a heat for it is missing; or what must not wait has to.
        </p>
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
              {session.minutes} minutes in all: {around.hygiene} for hands, hair and tables, {around.eating} to eat,{' '}
              {around.cleaning} to clean.
            </p>
            {idle.length > 0 && (
              <p className="mt-1">
                Free all the while: {idle.map(({ id }) => id).join(', ')}. Give them a dish of their own, the tables, or
                the washing up.
              </p>
            )}
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
            <RunBoard hands={hands} tasks={placed} dishes={dishes} minutes={answer.minutes} />
          </section>
          <section className="sheet p-5" aria-labelledby="order">
            <h2 id="order" className="mb-2 text-xl font-bold">
              In order
            </h2>
            {ahead.length > 0 && (
              <p className="mb-2">
                <b>Done before the class:</b> {ahead.map(({ dish, text }) => `${text} (${dish})`).join(' ')}
              </p>
            )}
            <table className="table table-sm">
              <thead>
                <tr>
                  <th scope="col">When</th>
                  <th scope="col">What</th>
                  <th scope="col">Who</th>
                  <th scope="col">With</th>
                </tr>
              </thead>
              <tbody>
                {inOrder.map(({ id, start, on, off, dish, text, hands: who, part }) => {
                  const own = tasks.find((task) => task.id === id);
                  return (
                    <tr key={id} className="align-top">
                      <td className="whitespace-nowrap tabular-nums">
                        {time(start)} to {time(start + on + off)}
                      </td>
                      <td>
                        {text}{' '}
                        {part && (
                          <b>
                            Part {part[0]} of {part[1]}.
                          </b>
                        )}
                        <span className="block text-sm">{dish}</span>
                      </td>
                      <td>{who || 'by itself'}</td>
                      <td className="text-sm">{[own?.heat, ...(own?.tools ?? [])].filter(Boolean).join(', ')}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </section>
          <Caution>
            Minutes are read from the steps, and estimates where these name none. Tasks fit the ages that are on the
            roll; who has never held a knife is shown first. An adult stays at whatever is hot.
          </Caution>
        </div>
      )}
    </>
  );
}
