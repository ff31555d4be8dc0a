import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { plainSay, sayNamed } from '@/core/quantity/plain-words';
import { viewCard } from '@/services/recipes/recipes';
import { Caution, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Family card' };

/** A recipe for a family's kitchen: their number of servings, their measures, what it contains and what to mind. */
export default async function Card({
  params,
  searchParams,
}: {
  params: Promise<{ recipeId: string }>;
  searchParams: Promise<{ servings?: string; system?: string }>;
}) {
  const { recipeId } = await params;
  const { servings, system } = await readQuery(searchParams);
  const asked = {
    ...(servings && /^\d{1,3}$/.test(servings) && Number(servings) >= 1 && Number(servings) <= 500 ? { servings } : {}),
    ...(system === 'us' || system === 'metric' ? { system } : {}),
  };
  const card = await orNotFound(call(viewCard, { recipeId, ...asked }));
  return (
    <>
      <PageTitle title={card.title} over={`For ${card.servings} ${card.servings === 1 ? 'serving' : 'servings'}`}>
        <form className="flex items-end gap-2" aria-label="The card">
          <label className="flex flex-col gap-1 text-sm font-semibold">
            Servings
            <input
              name="servings"
              type="number"
              min={1}
              max={500}
              defaultValue={card.servings}
              className="input w-24 font-normal"
            />
          </label>
          <label className="flex flex-col gap-1 text-sm font-semibold">
            Measures
            <select name="system" defaultValue={card.system} className="select w-40 font-normal">
              <option value="us">cups and spoons</option>
              <option value="metric">metric</option>
            </select>
          </label>
          <button type="submit" className="btn">
            Show
          </button>
        </form>
        <PrintButton />
        <Link href={`/recipes/${recipeId}`} className="btn">
          Back
        </Link>
      </PageTitle>
      <div className="grid gap-6 md:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
        <section className="sheet h-fit p-5" aria-labelledby="need">
          <h2 id="need" className="mb-2 text-xl font-bold">
            You need
          </h2>
          <ul className="divide-y divide-base-300">
            {card.lines.map(({ say, grams, name }) => (
              <li key={`${name} ${say}`} className="py-1.5">
                <b>{plainSay(say)}</b> {sayNamed(say, name).slice(plainSay(say).length + 1)}
                {say.includes(grams) ? '' : <span className="text-sm text-base-content/80"> ({grams})</span>}
              </li>
            ))}
          </ul>
          <p className="mt-3 font-semibold">
            {card.contains.length > 0
              ? `Contains ${card.contains.join(', ')}.`
              : 'No listed allergen among the ingredients.'}
          </p>
          {card.mayContain.length > 0 && (
            <p className="text-sm">May contain {card.mayContain.join(', ')}: read the labels of what you use.</p>
          )}
        </section>
        <div className="flex flex-col gap-5">
          <section className="sheet h-fit p-5" aria-labelledby="do">
            <h2 id="do" className="mb-2 text-xl font-bold">
              What to do
            </h2>
            {card.steps.length === 0 && <p>The recipe names no steps.</p>}
            <ol className="flex list-decimal flex-col gap-2 pl-5">
              {card.steps.map((step) => (
                <li key={step}>{step}</li>
              ))}
            </ol>
          </section>
          {card.cautions.length > 0 && (
            <section className="sheet h-fit p-5" aria-labelledby="mind">
              <h2 id="mind" className="mb-2 text-xl font-bold">
                Mind this
              </h2>
              <p>{card.cautions.join(' ')}</p>
            </section>
          )}
          <Caution>Wash hands first. Keep raw meat and its juices away from everything that is eaten raw.</Caution>
        </div>
      </div>
    </>
  );
}
