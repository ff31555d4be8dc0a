import { orNotFound } from '@/app/or-not-found';
import { requireOverseer } from '@/app/overseeing';
import { sayShown } from '@/core/closeout/report/small-numbers';
import { sayingOf } from '@/core/plan/saying';
import { sayMoney } from '@/core/quantity/money';
import { sayCount } from '@/core/quantity/say';
import { spanOf, viewCity } from '@/services/overview/city';
import { DateField } from '@/ui/form/dates';
import { Empty, PageTitle } from '@/ui/page';
import { SaveAs } from '@/ui/save-as';
import { ProgrammesTable } from './programmes-table';

export const metadata = { title: 'Programmes' };

/** A city's programmes in counts and money, with what is worth a question to their coordinators. */
export default async function City({
  params,
  searchParams,
}: {
  params: Promise<{ cityId: string }>;
  searchParams: Promise<{ from?: string; to?: string }>;
}) {
  const { cityId } = await params;
  const context = await requireOverseer();
  const span = spanOf(context.clock().toString().slice(0, 10), await searchParams);
  const { programmes, totals } = await orNotFound(viewCity(context, { cityId, ...span }));
  const city = context.overseer.cities.find(({ id }) => id === cityId);
  const say = sayingOf(context.overseer.saying);
  const asked = programmes.filter(({ asks }) => asks.length > 0);
  const facts = [
    ['Programmes', String(totals.programmes)],
    ['Sessions held', totals.cancelled > 0 ? `${totals.held} (${totals.cancelled} called off)` : String(totals.held)],
    ['People', sayShown(totals.people)],
    ['Came', totals.attendance === null ? 'not noted' : `${totals.attendance} %`],
    ['Kits', sayShown(totals.kits)],
    ['Hours of the crews', String(Math.round(totals.crewMinutes / 60))],
    ['Spent', totals.money.map(({ currency, spent }) => sayMoney(spent, currency)).join(', ') || '0'],
  ] as const;
  return (
    <>
      <PageTitle title={city?.name ?? ''} over={`${say.longDate(span.from)} to ${say.longDate(span.to)}`}>
        <SaveAs files={[['CSV', `/overview/${cityId}/figures.csv?from=${span.from}&to=${span.to}`]]} />
      </PageTitle>
      <form className="no-print mb-5 flex flex-wrap items-end gap-3" aria-label="Which days">
        <DateField label="From" name="from" defaultValue={span.from} width="w-44" />
        <DateField label="To" name="to" defaultValue={span.to} width="w-44" />
        <button type="submit" className="btn btn-primary">
          Show
        </button>
      </form>
      {programmes.length === 0 ? (
        <Empty title="No programme belongs to it yet">
          <p>Whoever looks after the installation adds them: npm run overview.</p>
        </Empty>
      ) : (
        <>
          <dl className="sheet mb-6 flex flex-wrap gap-x-8 gap-y-3 p-5">
            {facts.map(([label, value]) => (
              <div key={label}>
                <dt className="text-sm">{label}</dt>
                <dd className="text-xl font-bold">{value}</dd>
              </div>
            ))}
          </dl>
          <section className="sheet mb-6 p-5" aria-labelledby="asks">
            <h2 id="asks" className="mb-2 text-xl font-bold">
              Worth a question
            </h2>
            {asked.length === 0 ? (
              <p>Nothing stands out in these days.</p>
            ) : (
              <ul className="grid gap-x-8 gap-y-2 md:grid-cols-2">
                {asked.map(({ id, name, asks }) => (
                  <li key={id}>
                    <b>{name}</b>: {asks.join(' ')}
                  </li>
                ))}
              </ul>
            )}
          </section>
          <ProgrammesTable programmes={programmes} />
          <p className="mt-4 text-sm text-base-content/80">
            Counts and money only: {sayCount(programmes.length, 'programme')} of yours, and no family of theirs is shown
            to you. Fewer than five people are not counted out, nor what would tell how many they are. What is spent is
            what was paid on shopping trips; a budget is the part of the courses’ budgets that these days’ sessions
            have.
          </p>
        </>
      )}
    </>
  );
}
