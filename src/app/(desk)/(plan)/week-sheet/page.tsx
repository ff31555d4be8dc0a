import { call } from '@/app/access';
import { saying } from '@/app/saying';
import { sayMinutes } from '@/core/countdown/network';
import { beginsAt } from '@/core/countdown/thread';
import { civilIn } from '@/core/plan/clock';
import { viewCountdown } from '@/services/countdown/countdown';
import { KnotShape } from '@/ui/countdown/knot';

import { Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Week sheet' };

const LATE = 'Overdue';
const NOW = 'Now';

/** What is to be done in the coming seven days, day by day, to be hung up. */
export default async function WeekSheet() {
  const say = await saying();
  const { threads, now, timeZone } = await call(viewCountdown, {});
  const last = new Date(Date.parse(now) + 7 * 86_400_000).toISOString();
  const jobs = threads
    .flatMap((thread) => thread.jobs.map((job) => ({ thread, job })))
    .filter(({ job }) => job.state !== 'done' && beginsAt(job) <= last)
    .sort((a, b) => beginsAt(a.job).localeCompare(beginsAt(b.job)));
  const days = new Map<string, typeof jobs>();
  for (const each of jobs) {
    const at = beginsAt(each.job);
    // What can be begun, or goes on already, is not overdue.
    const isLate = each.job.state === 'late' || each.job.state === 'cannot be met';
    const day = at > now ? say.longDate(civilIn(at, timeZone).date) : isLate ? LATE : NOW;
    days.set(day, [...(days.get(day) ?? []), each]);
  }
  return (
    <>
      <PageTitle
        title="Week sheet"
        over={`From ${say.moment(now)}, by the time each job is begun by your rhythm, else must be`}
      >
        <PrintButton />
      </PageTitle>
      {days.size === 0 && <Empty title="Nothing is due in the coming seven days" />}
      <div className="flex flex-col gap-5">
        {[...days].map(([day, list]) => (
          <section key={day} className="sheet break-inside-avoid p-4" aria-label={day}>
            <h2 className="mb-2 text-lg font-bold">{day}</h2>
            <ul className="flex flex-col divide-y divide-base-300">
              {list.map(({ thread, job }) => (
                <li
                  key={thread.id + job.key}
                  className="grid grid-cols-[1.5rem_minmax(0,1fr)] gap-x-3 py-2 sm:grid-cols-[1.5rem_8rem_minmax(0,1fr)_minmax(0,1fr)]"
                >
                  <span aria-hidden="true" className="mt-0.5 size-5 rounded border-2 border-base-content/60" />
                  <span className="text-sm tabular-nums">
                    {day === LATE ? say.moment(beginsAt(job)) : day === NOW ? 'now' : say.timeAt(beginsAt(job))}
                  </span>
                  <span className="col-start-2 sm:col-start-auto">
                    <span className="flex items-center gap-1.5 font-bold">
                      <KnotShape state={job.state} size={16} /> {job.title}
                    </span>
                    <span className="text-sm">
                      {job.state}, takes {sayMinutes(job.minutes)}
                      {job.planned && `; at the latest ${say.moment(job.startBy)}`}
                    </span>
                  </span>
                  <span className="col-start-2 text-sm sm:col-start-auto">
                    {thread.courseTitle}: {thread.title}, {thread.place}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </>
  );
}
