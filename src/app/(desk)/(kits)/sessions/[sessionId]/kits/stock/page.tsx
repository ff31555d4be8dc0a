import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { saying } from '@/app/saying';
import { SessionFrame } from '@/app/session-frame';

import { sayCount, sayGrams } from '@/core/quantity/say';
import { viewStockOutcome } from '@/services/kits/planning';
import { Empty } from '@/ui/page';

export const metadata = { title: 'What I have' };

type Outcome = NonNullable<Awaited<ReturnType<typeof viewStockOutcome>>['outcome']>;

const HAVE = 'have ';

export default async function StockPage({
  params,
  searchParams,
}: {
  params: Promise<{ sessionId: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { sessionId } = await params;
  const have = Object.fromEntries(
    Object.entries(await readQuery(searchParams)).flatMap(([name, value]) =>
      name.startsWith(HAVE) && typeof value === 'string' && value.trim() !== ''
        ? [[name.slice(HAVE.length), value]]
        : [],
    ),
  );
  const { bundle, sheet, hours, foods, problems, outcome } = await orNotFound(
    call(viewStockOutcome, { sessionId, have }),
  );
  return (
    <SessionFrame
      bundle={bundle}
      sheet={sheet}
      hours={hours}
      current="kits"
      title="what I have, what it makes"
      actions={
        <Link href={`/sessions/${sessionId}/kits`} className="btn">
          Kit sheet
        </Link>
      }
    >
      {foods.length === 0 ? (
        <Empty title="Nothing is needed yet">
          <p>Choose dishes and bring in the roll first: then what is there can be held against what kits need.</p>
        </Empty>
      ) : (
        <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
          <section className="sheet h-fit p-5" aria-labelledby="have">
            <h2 id="have" className="mb-1 text-xl font-bold">
              What is there
            </h2>
            <p className="mb-3 text-sm">
              As it stands on the shelf and in the box: “750 g”, “2 kg”, “3” for pieces. Left empty, a food is bought
              anyway and limits nothing. Nothing is saved; the address keeps it.
            </p>
            <form aria-label="What is there" className="flex flex-col gap-4">
              <div className="grid gap-3 sm:grid-cols-2">
                {foods.map(({ ingredient, sayPurchase, sayEdible }) => {
                  const problem = problems.find(({ where }) => where === ingredient);
                  return (
                    <label key={ingredient} className="flex flex-col gap-1">
                      <span className="text-sm font-semibold">{ingredient}</span>
                      <input
                        name={`${HAVE}${ingredient}`}
                        defaultValue={have[ingredient] ?? ''}
                        maxLength={40}
                        className={`input w-full ${problem ? 'input-error' : ''}`}
                        aria-invalid={problem ? true : undefined}
                      />
                      <span className={`text-xs ${problem ? 'font-semibold text-error' : 'text-base-content/75'}`}>
                        {problem?.message ?? `all kits need ${sayPurchase ?? sayEdible}`}
                      </span>
                    </label>
                  );
                })}
              </div>
              <button type="submit" className="btn btn-primary w-fit">
                How many kits does it make?
              </button>
            </form>
          </section>
          {outcome && <Makes outcome={outcome} />}
        </div>
      )}
    </SessionFrame>
  );
}

/** How many kits, what runs out first, what rescues the rest. */
async function Makes({ outcome }: { outcome: Outcome }) {
  const say = await saying();
  const { kits, of, variants, isMost, shortages, rescue } = outcome;
  const [first] = shortages;
  return (
    <section className="sheet h-fit p-5" aria-labelledby="makes" aria-live="polite">
      <h2 id="makes" className="font-display text-2xl font-bold">
        {kits === of ? `All ${of} kits` : `${isMost ? '' : 'At least '}${kits} of ${sayCount(of, 'kit')}`}
      </h2>
      {shortages.length === 0 ? (
        <p className="mt-1">Everything that was counted suffices.</p>
      ) : (
        <>
          <p className="mt-1">
            {first?.ingredient} runs out first: it alone makes {first?.kits}.{' '}
            {rescue !== undefined
              ? `${say.money(rescue)} rescues the rest.`
              : 'What the rest costs is not known: a price is missing.'}
          </p>
          <h3 className="mt-4 mb-1 font-bold">What is missing</h3>
          <ul className="divide-y divide-base-300">
            {shortages.map(({ ingredient, kits: alone, missing, packs, product, cost, kitsWithIt }) => (
              <li key={ingredient} className="py-2">
                <b>{ingredient}</b>: {sayGrams(missing)} short, makes {alone} kits
                <span className="block text-sm">
                  {packs !== undefined && product
                    ? `${packs} × ${product}${cost === undefined ? '' : `, ${say.money(cost)}`}`
                    : 'no product with a pack is known'}
                  {kitsWithIt > kits ? `; with it alone ${kitsWithIt} kits` : ''}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      <h3 className="mt-4 mb-1 font-bold">Kit by kit, in packing order</h3>
      <ul className="text-sm">
        {variants.map(({ letter, kits: made, of: wanted }) => (
          <li key={letter}>
            {letter}: {made} of {wanted}
          </li>
        ))}
      </ul>
    </section>
  );
}
