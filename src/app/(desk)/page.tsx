import Link from 'next/link';
import { redirect } from 'next/navigation';
import { Temporal } from 'temporal-polyfill';
import { call, requireMember } from '@/app/access';
import { readQuery } from '@/app/query';
import { saying } from '@/app/saying';
import { sayLeft } from '@/core/countdown/thread';
import { stageHref, stageOf } from '@/core/stages/stages';
import { MOST_LOST, viewCountdown } from '@/services/countdown/countdown';
import { stillToSetUp, viewFirstRun } from '@/services/programme/first-run';
import { ToSettle } from '@/ui/classday/to-settle';
import { CountdownLanes } from '@/ui/countdown/countdown-lanes';
import { KnotLegend, KnotShape } from '@/ui/countdown/knot';
import { BelowAdults } from '@/ui/crew/below-adults';
import { Empty, PageTitle } from '@/ui/page';
import { SettingUp, sayStep } from './(programme)/start/setting-up';

export const metadata = { title: 'Countdown' };

/** Lanes that are drawn at once; an ordinary programme has fewer sessions in two weeks. */
const LANES = 12;

export default async function Countdown({ searchParams }: { searchParams: Promise<{ all?: string }> }) {
  const say = await saying();
  const { actor } = await requireMember();
  if (actor.role !== 'coordinator') redirect('/duties');
  const { threads, next, open, now, timeZone } = await call(viewCountdown, {});
  const instant = Temporal.Instant.from(now);
  const { all } = await readQuery(searchParams);
  const shown = all === undefined ? threads.slice(0, LANES) : threads;
  const toSetUp = await call(stillToSetUp, {});
  const isFirst = threads.length === 0 && open.length === 0 && toSetUp.length > 0;
  return (
    <>
      <PageTitle title="Countdown" over={`The coming two weeks, ${say.moment(now)} now`}>
        <Link href="/week-sheet" className="btn">
          Week sheet
        </Link>
        <Link href="/calendar" className="btn">
          Calendar
        </Link>
      </PageTitle>
      {open.length > 0 && (
        <section
          aria-label="Still to close out"
          className="mb-5 rounded-box border-l-4 border-info bg-base-200 p-3 text-sm"
        >
          <p className="text-base font-semibold">Over, and still to close out</p>
          <ul className="flex flex-wrap gap-x-5">
            {open.map(({ id, title, course, date }) => (
              <li key={id}>
                <Link href={`/room/${id}/close`} prefetch={false} className="link">
                  {title}
                </Link>
                , {course}, {say.shortDate(date)}
              </li>
            ))}
          </ul>
        </section>
      )}
      {!isFirst && toSetUp.length > 0 && (
        <p className="mb-4">
          Still to set up: {toSetUp.map(sayStep).join(', ')}.{' '}
          <Link href="/start" className="link font-semibold">
            Go on with it
          </Link>
        </p>
      )}
      {isFirst ? (
        <SettingUp found={await call(viewFirstRun, {})} />
      ) : threads.length === 0 ? (
        <Empty title="No session in the coming two weeks">
          <p>Add a session to a course, and its thread appears here with everything that has to happen before it.</p>
          <Link href="/courses" className="btn btn-primary">
            Go to the courses
          </Link>
        </Empty>
      ) : (
        <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_19rem]">
          <div className="flex min-w-0 flex-col gap-4">
            {threads.map(
              ({ id, title, date, below }) =>
                below && (
                  <BelowAdults
                    key={id}
                    why={`${title}, ${say.shortDate(date)}: ${below}`}
                    href={`/sessions/${id}/crew`}
                  />
                ),
            )}
            <TooLate threads={threads} />
            <ToSettle classes={threads} say={say} />
            <CountdownLanes threads={shown} now={now} timeZone={timeZone} say={say} />
            {shown.length < threads.length && (
              <p className="text-sm">
                The next {shown.length} of {threads.length} sessions.{' '}
                <Link href="/?all" className="link">
                  Show them all
                </Link>
              </p>
            )}
            <KnotLegend />
          </div>
          <section aria-labelledby="next" className="sheet h-fit p-4">
            <h2 id="next" className="mb-3 text-xl font-bold">
              Do next
            </h2>
            {next.length === 0 && <p>Nothing is due within a week. Enjoy the quiet.</p>}
            <ol className="flex flex-col divide-y divide-base-300">
              {next.map(({ session, knot }) => (
                <li key={`${session.id}${knot.stage}`} className="flex flex-col gap-1.5 py-3 first:pt-0 last:pb-0">
                  <p className="flex items-center gap-2 font-bold">
                    <KnotShape state={knot.state} />
                    {knot.title}: {session.title}
                  </p>
                  <p className="text-sm">
                    {say.text(knot.why)}{' '}
                    <span className={knot.state === 'late' ? 'font-bold text-error' : 'font-semibold'}>
                      {knot.state === 'late'
                        ? `${sayLeft(knot.startBy, instant)}.`
                        : knot.planned
                          ? `Planned for ${say.moment(knot.planned)}; can be put off until ${say.moment(knot.startBy)}.`
                          : `Start ${sayLeft(knot.startBy, instant)}.`}
                    </span>
                  </p>
                  <Link href={stageHref(knot.stage, session)} className="btn btn-sm w-fit">
                    {stageOf(knot.stage).go ?? 'Open the jobs'}
                  </Link>
                </li>
              ))}
            </ol>
          </section>
        </div>
      )}
    </>
  );
}

/** Sessions that can no longer be ready, each with why and what would save it. */
async function TooLate({ threads }: { threads: Awaited<ReturnType<typeof viewCountdown>>['threads'] }) {
  const say = await saying();
  const late = threads.filter(({ tooLate }) => tooLate).slice(0, MOST_LOST);
  if (late.length === 0) return null;
  return (
    <section aria-label="Can no longer be ready in time" className="flex flex-col gap-3">
      {late.map(({ id, title, date, startsAt, tooLate, savers }) => (
        <div key={id} className="sheet border-l-4 border-l-error p-4">
          <h2 className="font-bold">
            {title}, {say.shortDate(date)}, {say.time(startsAt)}: can no longer be ready in time
          </h2>
          <p className="text-sm">{tooLate && say.text(tooLate)}</p>
          {savers.length > 0 ? (
            <>
              <p className="mt-2 text-sm font-semibold">This would save it:</p>
              <ul className="list-disc pl-5 text-sm">
                {savers.map((saver) => (
                  <li key={saver}>{say.text(saver)}</li>
                ))}
              </ul>
            </>
          ) : (
            <p className="mt-2 text-sm">Nothing that was tried saves it: cancel it, or change what it needs.</p>
          )}
          <Link href={`/sessions/${id}/countdown`} className="btn btn-sm mt-3">
            Open its jobs
          </Link>
        </div>
      ))}
    </section>
  );
}
