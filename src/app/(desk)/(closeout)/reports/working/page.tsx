import Link from 'next/link';
import { notFound } from 'next/navigation';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { sayValue } from '@/core/closeout/report/say-figure';
import { viewReport } from '@/services/closeout/reports';

import { PageTitle } from '@/ui/page';
import { askedIn, asQuery } from '../asked';

export const metadata = { title: 'Working' };

/** How a figure of a report comes about: what each session brings to it. */
export default async function Working({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const say = await saying();
  const query = await searchParams;
  const asked = askedIn(query);
  const { figures, sessions, span, currency } = await orNotFound(call(viewReport, asked));
  const figure = figures.find(({ key }) => key === query.figure);
  if (!figure?.parts) notFound();
  const { label, said, how, unit } = figure;
  const parts = new Map(figure.parts.map((part) => [part.sessionId, part]));
  const isShare = unit === 'percent';
  return (
    <>
      <PageTitle title={`${label}: ${said}`} over={span}>
        <Link href={`/reports?${asQuery(asked)}`} className="btn">
          Back to the report
        </Link>
      </PageTitle>
      <p className="mb-4">{how[0]?.toUpperCase() + how.slice(1)}.</p>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard */}
      <section className="sheet overflow-x-auto p-5" tabIndex={0} aria-label="Sessions">
        <table className="table">
          <thead>
            <tr>
              <th scope="col">Day</th>
              <th scope="col">Session</th>
              <th scope="col" className="text-right">
                {isShare ? 'Yes' : label}
              </th>
              {isShare && (
                <th scope="col" className="text-right">
                  Noted
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {sessions.map(({ id, date, course, title }) => {
              const part = parts.get(id);
              return part ? (
                <tr key={id}>
                  <td>{say.longDate(date)}</td>
                  <td>
                    <Link href={`/room/${id}/close`} prefetch={false} className="link">
                      {title}
                    </Link>
                    , {course}
                  </td>
                  <td className="text-right tabular-nums">
                    {isShare ? part.value : sayValue(part.value, unit, currency)}
                  </td>
                  {isShare && <td className="text-right tabular-nums">{part.of}</td>}
                </tr>
              ) : null;
            })}
          </tbody>
        </table>
      </section>
    </>
  );
}
