import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { reportOf } from '@/core/closeout/report/report';
import type { ReportFacts } from '@/core/closeout/report/report-facts';
import { attendanceBars, inMoney, sayBars, sayFigure } from '@/core/closeout/report/say-figure';
import { addDays } from '@/core/plan/civil';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { currencyOf } from '@/core/quantity/money';
import { writeReportCsv } from '@/formats/closeout/report-csv';
import type { ReportOut } from '@/formats/closeout/report-rows';
import { type ReportScope, reportSubjects } from '@/store/reports';
import type { FunderRow } from '@/store/tables/closeout';
import { notFound, ServiceError } from '../errors';
import { type Context, service, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';
import { loadFunder } from './funders';
import { loadReportFacts } from './report-facts';

/** A year is reported where nobody says from when. */
const USUAL_DAYS = 365;
const FIRST_DAY = '2000-01-01';
/** More that was noted than this is added up off the serving thread. */
const MANY = 3000;

const id = z.union([z.literal(''), z.uuid()]).default('');
const asked = z.object({
  from: z.union([z.literal(''), civilDate]).default(''),
  to: z.union([z.literal(''), civilDate]).default(''),
  courseId: id,
  sessionId: id,
  funderId: id,
});

const figuresOf = (facts: ReportFacts) =>
  facts.sessions.reduce((sum, { seen }) => sum + seen.length, 0) > MANY ? pooled('makeReport', facts) : reportOf(facts);

/** A report as it is given to somebody, with what it is of. */
async function makeReport(context: Context, { from, to, courseId, sessionId, funderId }: z.output<typeof asked>) {
  const { programme } = await loadProgramme(context);
  const { programmeId } = context.actor;
  const today = todayIn(context, programme.timeZone);
  const funder: FunderRow | undefined = funderId ? await loadFunder(context, funderId) : undefined;
  const isOne = courseId !== '' || sessionId !== '';
  const last = to || (funder?.toDay ?? today);
  const first = from || (funder?.fromDay ?? (isOne ? FIRST_DAY : addDays(last, -USUAL_DAYS)));
  if (first > last)
    throw new ServiceError('invalid', 'Nothing is shown yet.', [{ where: 'to', message: 'It ends before it begins.' }]);
  const scope: ReportScope = { programmeId, from: first, to: last, courseId, sessionId };
  const { courses, funders, session } = await reportSubjects(context.store.db, { programmeId, sessionId });
  const course = courses.find((each) => each.id === courseId);
  if (courseId && !course) throw notFound('course');
  if (sessionId && !session) throw notFound('session');
  const facts = await loadReportFacts(context, programme, scope);
  const money = funder?.currency ? { currency: funder.currency, rate: Number(funder.rate) } : undefined;
  const currency = money?.currency ?? currencyOf(programme);
  const figures = (await figuresOf(facts))
    .map((figure) => (money ? inMoney(figure, money) : figure))
    .map((figure) => ({
      ...figure,
      label: funder?.words[figure.key] ?? figure.label,
      said: sayFigure(figure, currency),
    }));
  const sessions = facts.sessions.map(({ id: own, date, course: of, title }) => ({ id: own, date, course: of, title }));
  const say = sayingOf(sayingFacts(programme));
  const attendance = figures.find(({ key }) => key === 'attendance')?.parts ?? [];
  const bars = attendanceBars(attendance, new Map(sessions.map((each) => [each.id, each])), say);
  const shownFrom = isOne && !from && !funder?.fromDay ? (sessions[0]?.date ?? last) : first;
  const out: ReportOut = {
    programme: programme.name,
    title: session ?? course?.title ?? funder?.name ?? programme.name,
    span: `${say.longDate(shownFrom)} to ${say.longDate(last)}`,
    intro: funder?.intro ?? '',
    figures,
    sessions,
    bars,
    saysBars: sayBars(bars, '%'),
    currency,
    ...(funder?.logoKind ? { logo: { kind: funder.logoKind, bytes: new Uint8Array(funder.logo) } } : {}),
  };
  return { out, courses, funders, from: shownFrom, to: last, profile: programme.safetyProfile };
}

export const viewReport = service({
  title: 'See a report of past sessions: of a span, a course, a session, for a funder',
  roles: ['coordinator'],
  input: asked,
  run: async (context, wanted) => {
    const { out, ...known } = await makeReport(context, wanted);
    const { logo: _, ...report } = out;
    return { ...report, ...known };
  },
});

export const exportReport = service({
  title: 'Save a report as PDF, as a workbook, or as CSV',
  roles: ['coordinator'],
  costly: true,
  input: asked.extend({ as: z.enum(['pdf', 'xlsx', 'csv']) }),
  run: async (context, { as, ...wanted }): Promise<{ title: string; body: Uint8Array | string }> => {
    const { out, profile } = await makeReport(context, wanted);
    const { title } = out;
    if (as === 'csv') return { title, body: writeReportCsv(out) };
    if (as === 'xlsx') return { title, body: await pooled('reportXlsx', out) };
    return { title, body: await pooled('reportPdf', { report: out, paper: profile === 'us' ? 'LETTER' : 'A4' }) };
  },
});
