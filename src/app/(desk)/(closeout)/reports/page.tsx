import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { SECTIONS } from '@/core/closeout/report/report';
import { sayBars } from '@/core/closeout/report/say-figure';
import { sayCount } from '@/core/quantity/say';
import { viewReport } from '@/services/closeout/reports';
import { BarsChart } from '@/ui/closeout/bars-chart';
import { DateField } from '@/ui/form/dates';
import { Choice } from '@/ui/form/field';
import { Caution, Empty, PageTitle } from '@/ui/page';
import { SaveAs } from '@/ui/save-as';
import { askedIn, asQuery } from './asked';

export const metadata = { title: 'Reports' };

const SAVED_AS = [
  ['pdf', 'PDF'],
  ['xlsx', 'Workbook (XLSX)'],
  ['csv', 'CSV'],
] as const;

/** What past sessions came to, for whoever asks: each number opens its working. */
export default async function Reports({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const asked = askedIn(await searchParams);
  const report = await orNotFound(call(viewReport, asked));
  const { figures, sessions, courses, funders, bars, saysBars } = report;
  const groups = figures
    .filter(({ key }) => key.startsWith('group '))
    .map(({ key, value }) => ({ label: key.slice('group '.length), value: value ?? 0 }));
  return (
    <>
      <PageTitle title={`Report: ${report.title}`} over={`${report.span} · ${sayCount(sessions.length, 'session')}`}>
        <Link href="/lessons" className="btn">
          Lessons
        </Link>
        <SaveAs files={SAVED_AS.map(([kind, label]) => [label, `/reports/file/${kind}?${asQuery(asked)}`])} />
      </PageTitle>
      <form className="no-print mb-5 flex flex-wrap items-end gap-3" action="/reports" aria-label="What is reported">
        <DateField label="From" name="from" defaultValue={asked.from ?? ''} width="w-44" />
        <DateField label="To" name="to" defaultValue={asked.to ?? ''} width="w-44" />
        <Choice label="Course" name="courseId" defaultValue={asked.courseId ?? ''}>
          <option value="">all courses</option>
          {courses.map(({ id, title }) => (
            <option key={id} value={id}>
              {title}
            </option>
          ))}
        </Choice>
        <Choice label="For" name="funderId" defaultValue={asked.funderId ?? ''}>
          <option value="">ourselves</option>
          {funders.map(({ id, title }) => (
            <option key={id} value={id}>
              {title}
            </option>
          ))}
        </Choice>
        <button type="submit" className="btn btn-primary">
          Show
        </button>
        <Link
          href={asked.funderId ? `/reports/funders/${asked.funderId}` : '/reports/funders/new'}
          className="link pb-2"
        >
          {asked.funderId ? 'Their wording, period and logo' : 'Somebody else who is reported to'}
        </Link>
      </form>
      {report.intro && <p className="mb-4 max-w-prose whitespace-pre-line">{report.intro}</p>}
      {sessions.length === 0 ? (
        <Empty title="No session was held in this time">
          <p>A report is of sessions that are over. Choose another time, or another course.</p>
        </Empty>
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)] gap-5 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
          <div className="flex flex-col gap-5">
            {SECTIONS.map((section) => (
              <section key={section} className="sheet keep-together p-5" aria-labelledby={section}>
                <h2 id={section} className="mb-2 text-xl font-bold">
                  {section}
                </h2>
                <dl className="divide-y divide-base-300">
                  {figures
                    .filter((figure) => figure.section === section)
                    .map(({ key, label, said, how, parts }) => (
                      <div key={key} className="grid grid-cols-[1fr_auto] gap-x-4 py-1.5">
                        <dt>
                          {label}
                          <span className="block text-sm text-base-content/75">{how}</span>
                        </dt>
                        <dd className="text-right text-lg font-semibold tabular-nums">
                          {parts ? (
                            <Link
                              href={`/reports/working?${asQuery(asked, { figure: key })}`}
                              prefetch={false}
                              className="link"
                              aria-label={`${said}: the working of ${label}`}
                            >
                              {said}
                            </Link>
                          ) : (
                            said
                          )}
                        </dd>
                      </div>
                    ))}
                </dl>
              </section>
            ))}
          </div>
          <div className="flex flex-col gap-5">
            <section className="sheet keep-together p-5" aria-labelledby="attendance">
              <h2 id="attendance" className="mb-2 text-xl font-bold">
                Attendance
              </h2>
              <BarsChart bars={bars} unit="%" says={saysBars} most={100} />
            </section>
            <section className="sheet keep-together p-5" aria-labelledby="groups">
              <h2 id="groups" className="mb-2 text-xl font-bold">
                What was cooked
              </h2>
              <BarsChart
                bars={groups}
                unit={groups.length > 0 ? 'sessions' : ''}
                says={groups.length > 0 ? sayBars(groups, 'sessions') : 'No dish of these sessions is known.'}
              />
            </section>
            <Caution>
              No child and no need is named in a report, and numbers that could tell of one child are not shown: fewer
              than five of an age, a vote, an incident. Look once more before you give it away: what you write yourself
              is not looked at.
            </Caution>
          </div>
        </div>
      )}
    </>
  );
}
