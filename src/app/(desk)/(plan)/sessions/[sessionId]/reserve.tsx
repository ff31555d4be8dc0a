import { call } from '@/app/access';
import { attempt, formOf } from '@/app/form';
import { saying } from '@/app/saying';
import { writeMoney } from '@/core/quantity/money';
import { type reserveOf, setReserveCosts } from '@/services/roll/reserve';
import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { MoneyField } from '@/ui/form/money-field';
import { ReserveChart } from '@/ui/roll/reserve-chart';

async function save(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setReserveCosts, async () => {
    await call(setReserveCosts, formOf(setReserveCosts, data));
    return 'Saved for all sessions.';
  });
}

const percent = (chance: number) => {
  const shown = Math.round(chance * 100);
  return shown === 0 && chance > 0 ? 'less than 1 %' : `${shown} %`;
};

/** How many are expected, and how many kits balance one thrown away against a child turned away. */
export async function Reserve({
  expected: { enrolled, past, forecast, costs, best, all },
  reserve,
}: {
  expected: Awaited<ReturnType<typeof reserveOf>>;
  /** Kits made beside those of the roll. */
  reserve: number;
}) {
  const say = await saying();
  if (enrolled === 0) return null;
  const made = Math.min(enrolled + reserve, all.length - 1);
  const now = all[made] ?? best;
  return (
    <section className="sheet h-fit p-5" aria-labelledby="reserve">
      <h2 id="reserve" className="mb-1 text-xl font-bold">
        How many will come
      </h2>
      <p className="mb-2">
        Of {enrolled} on the roll about <b>{forecast.expected.toFixed(1)}</b> come; in eight of ten sessions{' '}
        {forecast.low} to {forecast.high}.{' '}
        {past === 0
          ? 'Nobody has been counted yet: this is the usual experience, 85 of 100.'
          : `From ${forecast.counted} expected in ${past} past ${past === 1 ? 'session' : 'sessions'} of this kind.`}
      </p>
      <p className="mb-3">
        <b>{best.kits} kits</b> balance a kit thrown away ({say.money(costs.wasted)}) against a child turned away (
        {say.money(costs.turnedAway)}): short in {percent(best.runsShort)} of sessions, about {best.wasted.toFixed(1)}{' '}
        left over. With the {enrolled + reserve} you make: short in{' '}
        {percent(enrolled + reserve > made ? 0 : now.runsShort)}, about{' '}
        {(now.wasted + (enrolled + reserve - made)).toFixed(1)} left over.
      </p>
      <ReserveChart chances={forecast.chances} kits={enrolled + reserve} />
      <p className="mt-2 text-sm">
        Everybody on the roll keeps their kit: the number tells how many to hold in reserve, or how many need no fresh
        food before somebody has come.
      </p>
      <details className="mt-2">
        <summary className="cursor-pointer text-sm font-semibold">What these cost here</summary>
        <ActionForm
          action={save}
          label="What kits too many and too few cost"
          className="mt-2 flex flex-wrap items-end gap-2"
        >
          <MoneyField label="A kit thrown away" name="wasted" defaultValue={writeMoney(costs.wasted)} />
          <MoneyField label="A child turned away" name="turnedAway" defaultValue={writeMoney(costs.turnedAway)} />
          <button type="submit" className="btn">
            Save
          </button>
        </ActionForm>
      </details>
    </section>
  );
}
