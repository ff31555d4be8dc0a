import { Check, TriangleAlert } from 'lucide-react';
import { notFound } from 'next/navigation';
import { requireOverseer } from '@/app/overseeing';
import { sayingOf } from '@/core/plan/saying';
import { sayCount } from '@/core/quantity/say';
import { viewInstallation } from '@/services/overview/operating';
import { Field } from '@/ui/form/field';
import { PageTitle } from '@/ui/page';
import { Facts, Figures } from './figures';

export const metadata = { title: 'Installation' };

const ms = (seconds: number) =>
  seconds === Number.POSITIVE_INFINITY
    ? 'over 15 s'
    : seconds >= 1
      ? `${seconds} s`
      : `${Math.round(seconds * 1000)} ms`;

/** How the installation stands, for whoever looks after it: what is wrong first, with what helps. */
export default async function Operator({ searchParams }: { searchParams: Promise<{ find?: string }> }) {
  const context = await requireOverseer();
  if (!context.overseer.isOperator) notFound();
  const { find = '' } = await searchParams;
  const seen = await viewInstallation(context, { find: find.slice(0, 120) });
  const { work, figures, background, programmes } = seen;
  const say = sayingOf(context.overseer.saying);
  const jobs = new Map(work.jobs.map(({ state, n }) => [state, n]));
  return (
    <>
      <PageTitle
        title="Installation"
        over={seen.server ? `Answered by ${seen.server}` : 'Answered by the only web server'}
      />
      <section className="sheet mb-6 p-5" aria-labelledby="standing">
        <h2 id="standing" className="mb-2 text-xl font-bold">
          {seen.wrong.length === 0 ? 'All is well' : 'To be looked at'}
        </h2>
        {seen.wrong.length === 0 ? (
          <p className="flex items-center gap-2">
            <Check aria-hidden="true" className="size-5 text-success" /> The database answers, the tables are of this
            version, and the work is done.
          </p>
        ) : (
          <ul className="flex flex-col gap-1">
            {seen.wrong.map((said) => (
              <li key={said} className="flex items-start gap-2">
                <TriangleAlert aria-hidden="true" className="mt-0.5 size-5 shrink-0 text-error" /> {said}
              </li>
            ))}
          </ul>
        )}
      </section>
      <div className="mb-6 grid gap-6 lg:grid-cols-2">
        <Facts
          title="Database"
          facts={[
            ['Nodes', work.cluster ? `${work.cluster.nodes} see one another` : 'one, by itself'],
            ...(work.cluster
              ? ([
                  ['Level', work.cluster.isLevel ? 'yes' : 'no'],
                  ['Writes that met another node’s', String(work.cluster.conflicts)],
                  ['Waited for slower nodes', `${Math.round(100 * work.cluster.paused)} % of the time`],
                ] as const)
              : []),
            ['Largest tables', seen.sizes.map(({ name, megabytes }) => `${name} ${megabytes} MB`).join(', ')],
          ]}
        />
        <Facts
          title="Work"
          facts={[
            ['Jobs that wait', `${jobs.get('waiting') ?? 0}, the oldest for ${Math.round(work.oldestWaits)} s`],
            ['Jobs under way', String(jobs.get('running') ?? 0)],
            ['Jobs given up', String(jobs.get('failed') ?? 0)],
            ['Kits called back in 24 hours', String(work.callBacks)],
            ...background.map(
              ({ owner, silent, done, began }) =>
                [
                  `Background ${owner}`,
                  `${sayCount(done, 'job')} since ${say.moment(began)}, ${silent > 20 ? `silent for ${silent} s` : 'at work'}`,
                ] as const,
            ),
          ]}
        />
        <Facts
          title="This web server"
          facts={[
            ['Since', say.moment(new Date(figures.began * 1000).toISOString())],
            ['Open streams', String(figures.streams)],
            ['Memory', `${figures.megabytes} MB`],
            ['Processor', `${figures.processorSeconds} s`],
            ['Statements', `${figures.statements.count}, 95 % within ${ms(figures.statements.p95)}`],
          ]}
        />
        <Figures
          title="Jobs given up"
          empty="None."
          heads={['Job', 'Programme', 'When', 'Request']}
          rows={seen.failed.map(({ id, kind, programme, at, request }) => ({
            id,
            cells: [kind, programme, say.moment(at), request || 'by itself'],
          }))}
        />
      </div>
      <div className="flex flex-col gap-6">
        <Figures
          title="Requests of this server"
          empty="None was counted yet."
          heads={['Route', 'Requests', 'Failed', 'Half within', '95 % within']}
          rows={figures.routes.map(({ route, count, failed, p50, p95 }) => ({
            id: route,
            cells: [route, String(count), `${failed} %`, ms(p50), ms(p95)],
          }))}
        />
        <form className="flex flex-wrap items-end gap-3" aria-label="Find programmes">
          <Field label="Find a programme, or those of a city" name="find" defaultValue={find} width="w-72" />
          <button type="submit" className="btn">
            Find
          </button>
        </form>
        <Figures
          title={programmes.length < seen.of ? `Programmes: ${programmes.length} of ${seen.of}` : 'Programmes'}
          empty="There is none of this name."
          heads={['Programme', 'City', 'Members', 'Sessions in 7 days', 'On rolls', 'Last used']}
          rows={programmes.map(({ id, name, city, members, sessions, people, seen: at }) => ({
            id,
            cells: [
              name,
              city ?? '–',
              String(members),
              String(sessions),
              String(people),
              at ? say.moment(at) : 'never',
            ],
          }))}
        />
      </div>
    </>
  );
}
