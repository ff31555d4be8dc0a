import { saying } from '@/app/saying';
import type { FullestDay } from '@/core/buying/cold';
import type { Planned } from '@/core/buying/plan';

import { rational } from '@/core/quantity/rational';
import { sayCount, sayGrams } from '@/core/quantity/say';

const grams = (amount: number) => sayGrams(rational(amount));

interface Props {
  readonly planned: Planned;
  readonly budget: number | undefined;
  /** Sessions whose kit sheet is not locked: their amounts may still move. */
  readonly drafts: readonly string[];
  readonly cold: readonly FullestDay[];
}

/** What the plan costs and loses, beside what each session bought by itself would. */
export async function BuyingFigures({ planned, budget, drafts, cold }: Props) {
  const say = await saying();
  const { cost, waste, proven, bound, apart, holes, short } = planned;
  const isWhole = holes.length === 0 && short.length === 0;
  return (
    <section className="sheet mb-5 grid gap-4 p-5 sm:grid-cols-3" aria-label="What it comes to">
      <div>
        <p className="text-sm">
          {isWhole ? 'In all, with the way to each shop' : 'As far as prices are known, with the way to each shop'}
        </p>
        <p className="text-3xl font-bold tabular-nums">{say.money(cost)}</p>
        <p className="text-sm">
          {proven.cost
            ? 'Proven: nothing cheaper meets every need.'
            : `At most ${say.money(cost - (bound ?? 0))} could still be gained: time ran out.`}
        </p>
        {budget !== undefined && (
          <p className="text-sm font-semibold">
            {cost > budget
              ? `${say.money(cost - budget)} over the budget of ${say.money(budget)}.`
              : isWhole
                ? `Within the budget of ${say.money(budget)}.`
                : `Of the budget of ${say.money(budget)}; what has no price comes on top.`}
          </p>
        )}
      </div>
      <div>
        <p className="text-sm">Bought session by session</p>
        <p className="text-3xl font-bold tabular-nums">{say.money(apart.cost)}</p>
        <p className="text-sm">
          {apart.cost > cost
            ? `Together saves ${say.money(apart.cost - cost)} and ${grams(apart.spares)} of food.`
            : 'Together saves nothing here.'}{' '}
          {sayCount(apart.sessions, 'session')}, each with its own trip.
        </p>
      </div>
      <div>
        <p className="text-sm">Opened and not used by the plan</p>
        <p className="text-3xl font-bold tabular-nums">{grams(waste)}</p>
        <p className="text-sm">
          {proven.waste ? 'Proven: no plan as cheap loses less.' : 'A plan as cheap may lose less.'} What keeps stays on
          the shelf.
        </p>
      </div>
      {cold.map(({ storage, day, litres, room, most }) => {
        const isOver = room !== undefined && litres > room;
        return (
          <p key={storage} className={`text-sm sm:col-span-3 ${isOver ? 'font-semibold' : ''}`}>
            <b>The {storage} is fullest</b> on {say.longDate(day)}: about {sayCount(litres, 'litre')}
            {room === undefined
              ? '; how many there are is not counted in any place yet.'
              : isOver
                ? ` of the ${room} there are. Go there twice, or bring boxes with ice; most of it is ${most.join(', ')}.`
                : ` of the ${room} there are.`}
          </p>
        );
      })}
      {drafts.length > 0 && (
        <p className="text-sm sm:col-span-3">
          <b>Still drafts, amounts may move:</b> {drafts.join('; ')}.
        </p>
      )}
    </section>
  );
}
