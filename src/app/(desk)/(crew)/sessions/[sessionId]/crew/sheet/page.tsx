import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { viewSessionCrew } from '@/services/crew/session-crew';
import { BelowAdults } from '@/ui/crew/below-adults';
import { endOf } from '@/ui/crew/duty-line';

import { Caution, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Lead’s sheet' };

/** Who is where from minute to minute on the day, for whoever leads: printed in black and white. */
export default async function LeadsSheet({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
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
  const today = duties.filter(({ date }) => date === session.date);
  const bounds = [...new Set(today.flatMap(({ from, to }) => [from, to]))].sort((a, b) => a - b);
  // From each moment at which somebody changes to the next; hours in which nobody has anything are left out.
  const spans = bounds
    .slice(0, -1)
    .map((from, at) => ({ from, to: bounds[at + 1] ?? from }))
    .filter(({ from, to }) => today.some((duty) => duty.from < to && from < duty.to));
  return (
    <>
      <PageTitle
        title="Lead’s sheet"
        over={`${session.courseTitle}: ${session.title} · ${say.longDate(session.date)}, ${say.time(session.startsAt)} · ${session.place}`}
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
            <caption className="sr-only">Who is where, from when to when</caption>
            <thead>
              <tr>
                <th scope="col">Who</th>
                {spans.map(({ from, to }) => (
                  <th key={from} scope="col" className="px-1 text-center tabular-nums">
                    {say.time(from)}–{say.time(endOf(to))}
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
                  {cellsOf(
                    spans,
                    own.filter((each) => each.name === name).map(({ duty }) => duty),
                  ).map(({ from, columns, title }) => (
                    <td key={from} colSpan={columns} className={title ? 'bg-base-200 text-center font-semibold' : ''}>
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
          Nobody yet:{' '}
          {open.map(({ title, from, to }) => `${title} (${say.time(from)} to ${say.time(endOf(to))})`).join(', ')}.
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

interface Span {
  readonly from: number;
  readonly to: number;
}

/** The spans of somebody's day, those of one duty as one cell. */
function cellsOf(spans: readonly Span[], duties: readonly (Span & { readonly title: string })[]) {
  const cells: { from: number; columns: number; title: string }[] = [];
  for (const { from, to } of spans) {
    const title = duties
      .filter((duty) => duty.from < to && from < duty.to)
      .map((duty) => duty.title)
      .join(' / ');
    const before = cells.at(-1);
    if (before && before.title === title) before.columns++;
    else cells.push({ from, columns: 1, title });
  }
  return cells;
}
