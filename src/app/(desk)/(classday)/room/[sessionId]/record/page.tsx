import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { judgeInside } from '@/core/classday/doneness';
import { classNow } from '@/core/classday/live/class-events';
import { tickOf } from '@/core/classday/routines';
import { sayTenths } from '@/core/packing/made/batch';
import type { Heat } from '@/core/recipes/steps/step-plan';
import { avoidanceLabel } from '@/core/safety/avoidances';
import { viewClass } from '@/services/classday/live';

import { PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Record of a class' };

interface Props {
  readonly params: Promise<{ sessionId: string }>;
  readonly searchParams: Promise<{ group?: string }>;
}

const VERDICTS = { safe: 'safe', hold: 'held there, then probed again', 'go on': 'too low, cooked on' } as const;
const TITLES = { opening: 'Before anybody cooked', fire: 'At the fire', closing: 'Before anybody went' } as const;

/** What was ticked, measured and changed in a class, by whom and when: to print and keep. */
export default async function ClassRecord({ params, searchParams }: Props) {
  const say = await saying();
  const { sessionId } = await params;
  const { group = '' } = await searchParams;
  await requireMember();
  const { session, plan, events, routines, profile } = await orNotFound(call(viewClass, { sessionId, sitting: group }));
  const now = classNow(events);
  const probed = (plan?.tasks ?? []).filter(({ inside }) => inside);
  return (
    <>
      <PageTitle
        title={`Record of the class: ${session.title}`}
        over={`${session.courseTitle}${session.group && `, ${session.group}`} · ${say.longDate(session.date)}, ${say.time(session.startsAt)} · ${session.place}`}
      >
        <Link href={`/live/${sessionId}${group ? `?group=${group}` : ''}`} prefetch={false} className="btn">
          Back to the class
        </Link>
        <PrintButton />
      </PageTitle>
      <p className="mb-4">
        {now.begun
          ? `The cooking began at ${say.timeAt(now.begun.at)} (${now.begun.by}).`
          : 'The cooking has not begun.'}
      </p>
      <section className="sheet keep-together mb-4 p-5" aria-labelledby="temperatures">
        <h2 id="temperatures" className="mb-2 text-xl font-bold">
          Temperatures
        </h2>
        {probed.length === 0 && <p>No dish of this class must be probed.</p>}
        {probed.map((task) => {
          const readings = now.readings.get(task.id) ?? [];
          return (
            <div key={task.id} className="mb-2">
              <p className="font-semibold">
                {task.dish}
                {task.station ? `, station ${task.station}` : ''}: at least {task.inside?.said} inside (
                {task.inside?.kind}, {task.inside?.source})
              </p>
              <ul className="list-disc pl-5">
                {readings.map(({ tenths, source, at, by }, n) => {
                  const verdict =
                    task.inside && judgeInside(task.inside, readings.slice(0, n + 1), (task.heat || 'none') as Heat);
                  return (
                    <li key={`${at} ${tenths}`}>
                      {say.timeAt(at)}: {sayTenths(tenths, profile)}, {source}, {by}.{' '}
                      {verdict && VERDICTS[verdict.state]}
                    </li>
                  );
                })}
              </ul>
              {readings.length === 0 && <p>Nothing was read.</p>}
            </div>
          );
        })}
      </section>
      {(['opening', 'fire', 'closing'] as const)
        .filter((routine) => routines[routine].length > 0)
        .map((routine) => (
          <section key={routine} className="sheet keep-together mb-4 p-5" aria-label={TITLES[routine]}>
            <h2 className="mb-2 text-xl font-bold">{TITLES[routine]}</h2>
            <table className="table table-sm">
              <tbody>
                {routines[routine].map((line) => {
                  const by = now.ticked.get(tickOf(routine, line));
                  return (
                    <tr key={line}>
                      <th scope="row" className="font-normal whitespace-normal">
                        {line}
                      </th>
                      <td className="whitespace-nowrap">{by ? `${say.timeAt(by.at)}, ${by.by}` : 'not ticked'}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </section>
        ))}
      {now.swaps.length + now.troubles.length > 0 && (
        <section className="sheet keep-together mb-4 p-5" aria-labelledby="otherwise">
          <h2 id="otherwise" className="mb-2 text-xl font-bold">
            Otherwise than written
          </h2>
          <ul className="list-disc pl-5">
            {now.swaps.map(({ id, item, value, at, by }) => (
              <li key={id}>
                {say.timeAt(at)}, {by}: {item || 'somebody new'}
                {value.instead === '' && ' left out'}
                {value.instead && `: ${value.instead} instead`}
                {value.avoid && ` must avoid ${avoidanceLabel(value.avoid)}`}
              </li>
            ))}
            {now.troubles.map(({ id, what, item, value, at, by }) => (
              <li key={id}>
                {say.timeAt(at)}, {by}: {item}{' '}
                {what === 'short' ? `ran short, ${value.percent ?? 0} % more was needed` : 'was wrong'}
                {value.text && `: “${value.text}”`}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
