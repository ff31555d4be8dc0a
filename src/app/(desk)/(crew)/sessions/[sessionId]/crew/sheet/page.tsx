import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { timeOf } from '@/core/plan/civil';
import { viewSessionCrew } from '@/services/crew/session-crew';
import { BelowAdults } from '@/ui/crew/below-adults';
import { endOf } from '@/ui/crew/duty-line';
import { sayLongDate } from '@/ui/dates';
import { Caution, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Lead’s sheet' };

/** Columns of the sheet are so many minutes apart. */
const STEP = 15;

/** Who is where from minute to minute on the day, for whoever leads: printed in black and white. */
export default async function LeadsSheet({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { bundle, duties, below, rooms } = await orNotFound(call(viewSessionCrew, { sessionId }));
  const { session } = bundle;
  const own = duties
    .filter(({ date }) => date === session.date)
    .flatMap((duty) =>
      duty.holders
        .filter(({ state }) => state === 'accepted' || state === 'asked')
        .map(({ name, state }) => ({ name, duty, isSure: state === 'accepted' })),
    );
  const names = [...new Set(own.map(({ name }) => name))].sort();
  const open = duties.filter(({ date, empty }) => date === session.date && empty > 0);
  const first =
    Math.floor(Math.min(...duties.filter(({ date }) => date === session.date).map(({ from }) => from)) / STEP) * STEP;
  const last = Math.max(...duties.filter(({ date }) => date === session.date).map(({ to }) => to));
  const times = Number.isFinite(first)
    ? Array.from({ length: Math.ceil((last - first) / STEP) }, (_, at) => first + at * STEP)
    : [];
  return (
    <>
      <PageTitle
        title="Lead’s sheet"
        over={`${session.courseTitle}: ${session.title} · ${sayLongDate(session.date)}, ${session.startsAt} · ${session.place}`}
      >
        <PrintButton />
      </PageTitle>
      {below && <BelowAdults why={below} />}
      {names.length === 0 ? (
        <p>Nobody has said yes, or was asked, for this day yet.</p>
      ) : (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys
        <section className="overflow-x-auto" aria-label="Who is where" tabIndex={0}>
          <table className="table sheet table-sm border-collapse [&_td]:border [&_td]:border-base-content/40 [&_th]:border [&_th]:border-base-content/40">
            <caption className="sr-only">Who is where, by the quarter of an hour</caption>
            <thead>
              <tr>
                <th scope="col">Who</th>
                {times.map((time) => (
                  <th key={time} scope="col" className="px-1 text-center tabular-nums">
                    {timeOf(time)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {names.map((name) => (
                <tr key={name}>
                  <th scope="row">
                    {name}
                    {own.some((each) => each.name === name && !each.isSure) && ' (no answer yet)'}
                  </th>
                  {spansOf(
                    times,
                    own.filter((each) => each.name === name).map(({ duty }) => duty),
                  ).map(({ time, columns, title }) => (
                    <td key={time} colSpan={columns} className={title ? 'bg-base-200 text-center font-semibold' : ''}>
                      {title}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      {open.length > 0 && (
        <p className="mt-3 font-semibold">
          Nobody yet: {open.map(({ title, from, to }) => `${title} (${timeOf(from)} to ${endOf(to)})`).join(', ')}.
        </p>
      )}
      {rooms.map(({ name, adults }) => (
        <p key={name} className="mt-3 text-sm">
          {name && `${name}: `}
          {adults.adults} adults in the room. {adults.because.join(' ')}
        </p>
      ))}
      <div className="mt-4">
        <Caution>Children are never alone with one adult. In an emergency call the emergency number first.</Caution>
      </div>
    </>
  );
}

/** The quarters of somebody's day, those of one duty as one cell. */
function spansOf(times: readonly number[], duties: readonly { title: string; from: number; to: number }[]) {
  const at = (time: number) =>
    duties
      .filter(({ from, to }) => from < time + STEP && time < to)
      .map(({ title }) => title)
      .join(' / ');
  const spans: { time: number; columns: number; title: string }[] = [];
  for (const time of times) {
    const title = at(time);
    const before = spans.at(-1);
    if (before && before.title === title) before.columns++;
    else spans.push({ time, columns: 1, title });
  }
  return spans;
}
