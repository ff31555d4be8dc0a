import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { given } from '@/app/form';
import { readQuery } from '@/app/query';
import { saying } from '@/app/saying';
import { sayCount } from '@/core/quantity/say';
import { AISLE_TITLES, AISLES, KEPT, MEASURES } from '@/core/reference/food-words';
import { holdingFactsOf } from '@/core/reference/reference';
import { avoidanceLabel } from '@/core/safety/avoidances';
import { listProducts } from '@/services/recipes/products';
import { viewFood, viewReference } from '@/services/recipes/reference-table';
import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import { Caution, PageTitle } from '@/ui/page';
import { FoodFields } from '@/ui/recipes/food-fields';
import { AS } from '@/ui/table/stacked';
import { addOwnFood, forgetWord, weigh } from './actions';
import { Products } from './products';

export const metadata = { title: 'Reference table' };

type Food = Awaited<ReturnType<typeof viewReference>>['foods'][number];

/** Rows on one page: the rest is found by searching. */
const ROWS = 60;

export default async function Reference({
  searchParams,
}: {
  searchParams: Promise<{ q?: string; aisle?: string; order?: string; all?: string; food?: string; add?: string }>;
}) {
  const { actor } = await requireMember();
  const { q = '', aisle = '', order = '', all: isAll, food: chosen, add } = await readQuery(searchParams);
  const { foods, all } = await call(viewReference, { search: q, aisle, order: readOrder(order) });
  const shown = isAll ? foods : foods.slice(0, ROWS);
  const food = chosen ? await call(viewFood, { name: chosen }).catch(() => undefined) : undefined;
  const listed = food && (await call(listProducts, { ingredient: food.food.name }));
  const asked = { ...given({ q, aisle, order }), ...(isAll ? { all: '1' } : {}) };
  const href = (name: string) => `?${new URLSearchParams({ ...asked, food: name })}`;
  const mayChange = actor.role === 'coordinator';
  return (
    <>
      <PageTitle title="Reference table" over={`${all} foods: what they weigh, hold, and how long they keep`}>
        <Link href="/recipes" className="btn">
          Recipes
        </Link>
      </PageTitle>
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="flex min-w-0 flex-col gap-3">
          <form className="flex flex-wrap items-end gap-2" aria-label="Search the table">
            <label className="flex flex-col gap-1">
              <span className="text-sm font-semibold">Food</span>
              <input name="q" defaultValue={q} className="input w-64" placeholder="chickpea, zucchini, …" />
            </label>
            <Choice label="Kind" name="aisle" defaultValue={aisle} width="w-48">
              <option value="">any</option>
              {AISLES.map((each) => (
                <option key={each} value={each}>
                  {AISLE_TITLES[each]}
                </option>
              ))}
            </Choice>
            <Choice label="In order of" name="order" defaultValue={readOrder(order)} width="w-48">
              <option value="table">what is used most</option>
              <option value="name">name</option>
              <option value="keeps">how soon it goes off</option>
            </Choice>
            <button type="submit" className="btn">
              Find
            </button>
            <span className="self-end pb-2.5 text-sm" role="status">
              {shown.length < foods.length ? `The first ${shown.length} of ${foods.length}` : `${foods.length} found`}
            </span>
          </form>
          <div className="sheet overflow-x-auto">
            <table {...AS.table} className="table stacked">
              <thead {...AS.rowgroup}>
                <tr {...AS.row}>
                  <th scope="col">Food</th>
                  <th scope="col">Contains</th>
                  <th scope="col">Brands may add</th>
                  <th scope="col">Keeps</th>
                  <th scope="col">Weighs</th>
                </tr>
              </thead>
              <tbody {...AS.rowgroup}>
                {shown.map((each) => (
                  <tr {...AS.row} key={each.name} className={each.name === food?.food.name ? 'bg-base-200' : ''}>
                    <th {...AS.rowheader} scope="row">
                      <Link href={href(each.name)} scroll={false} className="link">
                        {each.name}
                      </Link>
                      {each.isOwn && <span className="ml-2 badge badge-sm badge-outline">own</span>}
                    </th>
                    <td {...AS.cell} data-label="Contains">
                      {said([...each.contains, ...each.diet])}
                    </td>
                    <td {...AS.cell} data-label="Brands may add">
                      {each.isOwn && each.mayContain.length > 8
                        ? 'label not read'
                        : said([...each.mayContain, ...each.dietCheck])}
                    </td>
                    <td {...AS.cell} data-label="Keeps">
                      {sayKeeping(each)}
                    </td>
                    <td {...AS.cell} data-label="Weighs">
                      {sayWeights(each)}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {shown.length < foods.length && (
            <Link href={`?${new URLSearchParams({ ...asked, all: '1' })}`} prefetch={false} className="btn w-fit">
              Show all {foods.length}
            </Link>
          )}
          <Caution>
            Figures are typical ones, each with its source; weigh your own where it matters. What a brand may add counts
            as contained until its label is recorded.
          </Caution>
        </div>
        <div className="flex flex-col gap-5">
          {food && <FoodPanel food={food} mayChange={mayChange} />}
          {food && listed && (
            <Products key={food.food.name} food={food.food} days={food.keeps} listed={listed} mayChange={mayChange} />
          )}
          {mayChange && (
            <details className="sheet p-5" open={add !== undefined}>
              <summary className="cursor-pointer text-xl font-bold">Add a food</summary>
              <ActionForm action={addOwnFood} label="Add a food" clear className="mt-3 flex flex-col gap-3">
                <FoodFields {...(add ? { name: add } : {})} />
                <button type="submit" className="btn btn-primary w-fit">
                  Add to the table
                </button>
              </ActionForm>
            </details>
          )}
        </div>
      </div>
    </>
  );
}

const readOrder = (order: string) => (order === 'name' || order === 'keeps' ? order : 'table');

const said = (codes: readonly string[]) => codes.map(avoidanceLabel).join(', ');

function sayKeeping({ daysWhole, daysOpened, storage }: Food): string {
  const days = (count: number) => (count >= 365 ? sayCount(Math.floor(count / 365), 'year') : sayCount(count, 'day'));
  return `${KEPT[storage]}, ${days(daysWhole)}${daysOpened === daysWhole ? '' : `; opened ${days(daysOpened)}`}`;
}

const sayWeights = ({ measures }: Food) =>
  measures
    .map(({ measure, preparation, grams }) => `${measure}${preparation ? ` ${preparation}` : ''} ${grams} g`)
    .join('; ');

/** Why a food of the table holds something, may hold it by brand, or does not. */
function Holdings({ of }: { of: string }) {
  const facts = holdingFactsOf(of);
  if (facts.length === 0) return null;
  const states = { contains: 'contains', may: 'some brands', no: 'not' } as const;
  return (
    <ul className="mb-3 flex flex-col gap-1 text-sm">
      {facts.map(({ codes, state, why, source }) => (
        <li key={`${codes}${state}${why}`}>
          <b>
            {states[state]} {said(codes)}
          </b>
          : {why} <span className="text-base-content/80">({source})</span>
        </li>
      ))}
    </ul>
  );
}

/** A measure with the preparation that it is of: "cup|grated". */
const sayPair = ({ measure, preparation }: { measure: string; preparation: string }) => `${measure}|${preparation}`;

/** One food: what each figure is and comes from, and a cup of it put on the scale. */
async function FoodPanel({ food, mayChange }: { food: Awaited<ReturnType<typeof viewFood>>; mayChange: boolean }) {
  const say = await saying();
  const { name, source, plateGroup, vegetableFamily, aisle, perishable } = food.food;
  return (
    <section className="sheet p-5" aria-labelledby="food">
      <h2 id="food" className="text-xl font-bold">
        {name}
      </h2>
      <p className="text-sm">
        {[
          AISLE_TITLES[aisle] ?? aisle,
          plateGroup,
          vegetableFamily,
          perishable === 'never' ? '' : `goes off ${perishable}`,
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      <p className="mb-3 text-sm text-base-content/80">
        Keeping: {source}
        {food.isOwn ? '' : ' · Group: after USDA MyPlate, sorted by us'}
      </p>
      {food.words.length > 0 && (
        <ul className="mb-3 text-sm" aria-label={`What else ${name} is called here`}>
          {food.words.map((word) => (
            <li key={word} className="flex items-center justify-between gap-2">
              also called “{word}” here
              {mayChange && (
                <ActionForm action={forgetWord.bind(null, word)}>
                  <button type="submit" className="btn btn-xs" aria-label={`Forget “${word}”`}>
                    Forget
                  </button>
                </ActionForm>
              )}
            </li>
          ))}
        </ul>
      )}
      <Holdings of={name} />
      <table className="table table-sm">
        <thead>
          <tr>
            <th scope="col">One</th>
            <th scope="col" className="text-right">
              Grams
            </th>
            <th scope="col">From</th>
          </tr>
        </thead>
        <tbody>
          {food.measures.map(({ measure, preparation, grams, source: from }) => (
            <tr key={`${measure}|${preparation}`}>
              <td>
                {measure}
                {preparation ? `, ${preparation}` : ''}
              </td>
              <td className="text-right tabular-nums">{grams}</td>
              <td>{say.text(from)}</td>
            </tr>
          ))}
          {food.cooked && (
            <tr>
              <td>weighs cooked, for each gram bought</td>
              <td className="text-right tabular-nums">× {food.cooked}</td>
              <td>typical kitchen yield, rounded</td>
            </tr>
          )}
          {food.yields.map(({ preparation, ediblePortion, source: from }) => (
            <tr key={preparation}>
              <td>edible when {preparation}</td>
              <td className="text-right tabular-nums">{Math.round(Number(ediblePortion) * 100)} %</td>
              <td>{from}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {mayChange && (
        <ActionForm action={weigh.bind(null, name)} label={`Weigh ${name}`} className="mt-3 flex flex-col gap-2">
          <h3 className="font-bold">Put it on the scale</h3>
          <div className="grid grid-cols-[4.5rem_1fr] gap-2">
            <Field label="Count" name="count" type="number" min={1} max={100} defaultValue={1} />
            <Choice label="of" name="what">
              {[...new Set([...food.measures.map(sayPair), ...MEASURES.map((measure) => `${measure}|`)])].map(
                (pair) => (
                  <option key={pair} value={pair}>
                    {pair.replace(/\|$/, '').replace('|', ', ')}
                  </option>
                ),
              )}
            </Choice>
          </div>
          <Field label="How it comes, if otherwise" name="otherwise" maxLength={80} hint="Such as sliced, or fine" />
          <Field label="Grams" name="grams" inputMode="decimal" hint="Empty: what the kitchen scale shows now" />
          <button type="submit" className="btn w-fit">
            Take this weight
          </button>
        </ActionForm>
      )}
      {food.history.length > 0 && (
        <>
          <h3 className="mt-4 font-bold">Weighed here</h3>
          <ul className="mb-2 text-sm">
            {food.together.map(({ measure, preparation, say: compared }) => (
              <li key={measure + preparation}>
                <b>
                  {measure}
                  {preparation ? `, ${preparation}` : ''}
                </b>
                : {compared}
              </li>
            ))}
          </ul>
          <p className="mb-2 text-sm text-base-content/80">Kits use the last of each:</p>
          <ul className="text-sm">
            {food.history.map(({ at, measure, preparation, grams, by }) => (
              <li key={at + measure + preparation}>
                {say.text(at.slice(0, 10))}: {measure}
                {preparation ? `, ${preparation}` : ''} {grams} g{by ? `, ${by}` : ''}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
