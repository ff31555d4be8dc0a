import { saying } from '@/app/saying';
import { sayDrivers } from '@/core/kits/figures/kit-cost';

import { sayCount } from '@/core/quantity/say';
import type { kitFigures } from '@/services/kits/figures';

type Figures = NonNullable<Awaited<ReturnType<typeof kitFigures>>>;

/** What the kits use up, and what they cost: beside the sheet, in two quiet panels. */
export async function KitFigures({ figures: { consumables, cost, budget } }: { figures: Figures }) {
  const say = await saying();
  const priced = cost.foods.length;
  return (
    <div className="grid gap-5 lg:grid-cols-2">
      <section className="sheet h-fit p-4" aria-labelledby="used-up">
        <h2 id="used-up" className="mb-2 text-xl font-bold">
          Used up
        </h2>
        {consumables.length === 0 ? (
          <p className="text-sm">
            Nothing is counted yet: name bags, ice packs and forks under the course’s Supplies, and container sizes
            under Programme.
          </p>
        ) : (
          <table className="table table-sm">
            <thead>
              <tr className="text-base-content">
                <th scope="col">What</th>
                <th scope="col" className="text-right">
                  Count
                </th>
                <th scope="col">Why</th>
              </tr>
            </thead>
            <tbody>
              {consumables.map(({ name, count, packs, because }) => (
                <tr key={name}>
                  <th scope="row" className="font-normal">
                    {name}
                  </th>
                  <td className="text-right font-semibold">
                    {count}
                    {packs !== undefined && (
                      <span className="block text-xs font-normal">{sayCount(packs, 'pack')}</span>
                    )}
                  </td>
                  <td className="text-sm">{because}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
      <section className="sheet h-fit p-4" aria-labelledby="cost">
        <h2 id="cost" className="mb-2 text-xl font-bold">
          Cost, salt and energy
        </h2>
        {priced === 0 ? (
          <p className="text-sm">No price is known yet: write packs and prices of products in the reference table.</p>
        ) : (
          <>
            <p>
              <b>{say.money(cost.perKit)} a kit</b>, {say.money(cost.perServing)} a serving: {say.money(cost.bought)}{' '}
              for whole packs, of which {say.money(cost.used)} goes into kits.
            </p>
            {budget !== null && (
              <p className={cost.perKit > budget ? 'font-bold text-error' : ''}>
                {cost.perKit > budget
                  ? `${say.money(cost.perKit - budget)} over the budget of ${say.money(budget)} a kit.`
                  : `Within the budget of ${say.money(budget)} a kit.`}
              </p>
            )}
            <p className="mt-1 text-sm">Most of it: {sayDrivers(cost)}.</p>
            <table className="table table-sm mt-2">
              <thead>
                <tr className="text-base-content">
                  <th scope="col">Kit</th>
                  <th scope="col" className="text-right">
                    A kit
                  </th>
                  <th scope="col" className="text-right">
                    Salt a serving
                  </th>
                  <th scope="col" className="text-right">
                    Energy a serving
                  </th>
                </tr>
              </thead>
              <tbody>
                {cost.kits.map(({ letter, cost: each, saltMg, energyKj }) => (
                  <tr key={letter}>
                    <th scope="row">{letter}</th>
                    <td className="text-right">{say.money(each)}</td>
                    <td className="text-right">{saltMg > 0 ? `${(saltMg / 1000).toFixed(1)} g` : '–'}</td>
                    <td className="text-right">{energyKj > 0 ? `${energyKj} kJ` : '–'}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        )}
        {priced > 0 && cost.unpriced.length > 0 && (
          <p className="mt-2 text-sm">
            Without a price, and not counted: {cost.unpriced.slice(0, 6).join(', ')}
            {cost.unpriced.length > 6 && ` and ${cost.unpriced.length - 6} more`}.
          </p>
        )}
        {priced > 0 && cost.unlabelled.length > 0 && (
          <p className="mt-1 text-sm">
            Salt and energy count only what labels say: {sayCount(cost.unlabelled.length, 'food')} without.
          </p>
        )}
      </section>
    </div>
  );
}
