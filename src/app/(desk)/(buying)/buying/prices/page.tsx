import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, formOf, texts } from '@/app/form';
import { saying } from '@/app/saying';
import { SOLD_BY } from '@/core/buying/plan-case';
import { WEEKDAY_NAMES } from '@/core/plan/civil';
import { writeMoney } from '@/core/quantity/money';
import { sayCount } from '@/core/quantity/say';
import { AISLES } from '@/core/reference/food-words';
import { addShop, editShop, fillHole, setPrice, viewPriceBook } from '@/services/buying/shops';
import type { InputOf } from '@/services/gate/gate';
import { readLabel } from '@/services/recipes/products';
import { LabelTicks } from '@/ui/buying/label-ticks';
import { ActionForm } from '@/ui/form/action-form';
import { DateField } from '@/ui/form/dates';
import { Choice, Field, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { MoneyField } from '@/ui/form/money-field';
import { Empty, PageTitle } from '@/ui/page';
import { PriceFile } from './price-file';
import { Prices } from './prices';

export const metadata = { title: 'Price book' };

async function saveShop(
  was: { id: string; version: number } | null,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(addShop, async () => {
    const { name, tripCost } = formOf(addShop, data);
    const shop = {
      name,
      tripCost: tripCost ?? '',
      weekdays: texts(data, 'weekdays').map(Number),
      aisles: String(data.get('aisles') ?? '')
        .split(/[\n,;]/)
        .map((aisle) => aisle.trim().toLowerCase())
        .filter((aisle) => (AISLES as readonly string[]).includes(aisle)) as (typeof AISLES)[number][],
    };
    if (was) await call(editShop, { ...shop, shopId: was.id, version: was.version });
    else await call(addShop, shop);
    return `${name} is saved.`;
  });
}

async function fill(ingredient: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(fillHole, async () => {
    await call(fillHole, { ...formOf(fillHole, data), ingredient });
    return `${ingredient} has a price now. Plan again to see what it changes.`;
  });
}

async function price(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setPrice, async () => {
    const sent = formOf(setPrice, data);
    const before = await call(setPrice, sent);
    const was = { ...sent, ...before, price: before.price === null ? '' : writeMoney(before.price) };
    return { message: 'The price is written down.', undo: priceAsBefore.bind(null, was) };
  });
}

async function priceAsBefore(was: InputOf<typeof setPrice>): Promise<FormState> {
  'use server';
  return attempt(setPrice, async () => {
    await call(setPrice, was);
    return 'The price is what it was before.';
  });
}

async function read(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(readLabel, async () => {
    await call(readLabel, { ...formOf(readLabel, data), allergens: texts(data, 'allergens') });
    return 'The label is kept. Plan again to see what it changes.';
  });
}

async function ShopFields({
  of,
}: {
  of?: { name: string; weekdays: readonly number[]; aisles: readonly string[]; tripCost: number };
}) {
  const { week } = await saying();
  return (
    <>
      <Field label="Name" name="name" required maxLength={120} defaultValue={of?.name} />
      <fieldset>
        <legend className="text-sm font-semibold">Days on which you go there</legend>
        <div className="flex flex-wrap gap-x-4 gap-y-1">
          {week.map((day) => (
            <Tick
              key={day}
              label={WEEKDAY_NAMES[day - 1]?.slice(0, 3) ?? ''}
              name="weekdays"
              value={day}
              defaultChecked={of?.weekdays.includes(day)}
            />
          ))}
        </div>
      </fieldset>
      <MoneyField
        label="What a trip costs"
        name="tripCost"
        hint="The way there and your time, such as 3.50"
        defaultValue={of ? writeMoney(of.tripCost) : ''}
      />
      <Field
        label="Aisles in the order you walk"
        name="aisles"
        defaultValue={of ? of.aisles.join(', ') : AISLES.join(', ')}
        hint={`Of: ${AISLES.join(', ')}`}
      />
    </>
  );
}

export default async function PriceBook({ searchParams }: { searchParams: Promise<{ find?: string }> }) {
  const say = await saying();
  const { find = '' } = await searchParams;
  const { shops, prices, products, holes, unread, today, count } = await call(viewPriceBook, {
    find: find.slice(0, 80),
  });
  return (
    <>
      <PageTitle title="Price book" over="Shops, what their packs cost, and what a kilogram comes to">
        <Link href="/buying" className="btn">
          Buying
        </Link>
      </PageTitle>
      {holes.length > 0 && shops.length > 0 && (
        <section id="holes" className="sheet mb-5 p-5" aria-labelledby="holes-title">
          <h2 id="holes-title" className="mb-1 text-xl font-bold">
            Needed, and without a price
          </h2>
          <p className="mb-3 text-sm">The plan cannot count what it does not know: one line each.</p>
          <ul className="flex flex-col gap-3">
            {holes.map((ingredient) => (
              <li key={ingredient}>
                <ActionForm
                  action={fill.bind(null, ingredient)}
                  label={`Price of ${ingredient}`}
                  className="flex flex-wrap items-end gap-2"
                >
                  <b className="w-40 self-center">{ingredient}</b>
                  <Field label="As its pack calls it" name="name" required maxLength={120} width="w-48" />
                  <Choice label="Sold by" name="soldBy" defaultValue="pack" width="w-28">
                    {SOLD_BY.map((way) => (
                      <option key={way}>{way}</option>
                    ))}
                  </Choice>
                  <Field label="Grams" name="packGrams" type="number" min={1} required width="w-24" />
                  <MoneyField label="Price" name="price" required width="w-24" />
                  <Choice label="In" name="shopId" width="w-44">
                    {shops.map(({ id, name }) => (
                      <option key={id} value={id}>
                        {name}
                      </option>
                    ))}
                  </Choice>
                  <button type="submit" className="btn" aria-label={`Save the price of ${ingredient}`}>
                    Save
                  </button>
                </ActionForm>
              </li>
            ))}
          </ul>
        </section>
      )}
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div className="flex min-w-0 flex-col gap-5">
          {(count.all > count.shown || find !== '') && (
            <form className="no-print flex flex-wrap items-end gap-2" aria-label="Find in the whole book">
              <Field label="Find in the whole book" name="find" type="search" defaultValue={find} width="w-64" />
              <button type="submit" className="btn">
                Find
              </button>
              <p className="text-sm">
                {count.shown} of {sayCount(count.all, 'product')} shown
                {count.found > count.shown ? ': look for a food to see the rest.' : '.'}
              </p>
            </form>
          )}
          {count.all === 0 ? (
            <Empty title="No price yet">
              <p>
                Add a shop beside this, then write down a price, or bring in a file: food, product, grams, shop, price.
              </p>
            </Empty>
          ) : (
            <Prices
              today={today}
              prices={prices.map(
                ({ id, ingredient, product, packGrams, shop, soldBy, price: cents, fromDay, toDay, least, at }) => ({
                  id,
                  ingredient,
                  product,
                  packGrams,
                  shop,
                  soldBy,
                  price: cents ?? 0,
                  fromDay,
                  toDay,
                  least,
                  at: at.toISOString().slice(0, 10),
                }),
              )}
            />
          )}
          <PriceFile />
          {unread.length > 0 && (
            <section id="labels" className="sheet p-5" aria-labelledby="labels-title">
              <h2 id="labels-title" className="mb-1 text-lg font-bold">
                Labels that nobody has read
              </h2>
              <p className="mb-3 text-sm">
                Brands add allergens to these: until a label is read they are planned for nobody who avoids one.
              </p>
              <ActionForm action={read} label="Read a label" clear className="flex flex-col gap-3">
                <Choice label="Product" name="productId" width="max-w-md">
                  {unread.map(({ id, ingredient, name }) => (
                    <option key={id} value={id}>
                      {ingredient}: {name}
                    </option>
                  ))}
                </Choice>
                <LabelTicks wide />
                <button type="submit" className="btn w-fit">
                  I read it: it names only these
                </button>
              </ActionForm>
            </section>
          )}
        </div>
        <div className="flex flex-col gap-5">
          {products.length > 0 && shops.length > 0 && (
            <section className="sheet h-fit p-5" aria-labelledby="new-price">
              <h2 id="new-price" className="mb-3 text-xl font-bold">
                Write down a price
              </h2>
              <ActionForm action={price} label="Write down a price" clear className="flex flex-col gap-3">
                <Choice label="Product" name="productId">
                  {products.map(({ id, ingredient, name }) => (
                    <option key={id} value={id}>
                      {ingredient}: {name}
                    </option>
                  ))}
                </Choice>
                <Choice label="Shop" name="shopId">
                  {shops.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </Choice>
                <div className="grid grid-cols-2 gap-2">
                  <Choice label="Sold by" name="soldBy">
                    {SOLD_BY.map((way) => (
                      <option key={way}>{way}</option>
                    ))}
                  </Choice>
                  <MoneyField label="Price" name="price" hint="By weight: a kilogram. Empty: no longer had" />
                </div>
                <details>
                  <summary className="cursor-pointer text-sm font-semibold">It is an offer</summary>
                  <div className="mt-2 flex flex-col gap-2">
                    <DateField label="From" name="fromDay" />
                    <DateField label="To" name="toDay" />
                    <Field label="From how many packs" name="least" type="number" min={1} max={100} defaultValue={1} />
                  </div>
                </details>
                <button type="submit" className="btn btn-primary w-fit">
                  Save price
                </button>
              </ActionForm>
            </section>
          )}
          {shops.map((shop) => (
            <section key={shop.id} className="sheet h-fit p-5" aria-label={shop.name}>
              <h2 className="text-lg font-bold">{shop.name}</h2>
              <p className="text-sm">
                {shop.weekdays.map((day) => WEEKDAY_NAMES[day - 1]).join(', ')}; a trip costs {say.money(shop.tripCost)}
              </p>
              <details className="mt-2">
                <summary className="cursor-pointer text-sm font-semibold">Change</summary>
                <ActionForm
                  version={shop.version}
                  isUndoable
                  action={saveShop.bind(null, { id: shop.id, version: shop.version })}
                  label={`Change ${shop.name}`}
                  className="mt-2 flex flex-col gap-3"
                >
                  <ShopFields of={shop} />
                  <button type="submit" className="btn w-fit">
                    Save
                  </button>
                </ActionForm>
              </details>
            </section>
          ))}
          <section className="sheet h-fit p-5" aria-labelledby="new-shop">
            <h2 id="new-shop" className="mb-3 text-xl font-bold">
              Add a shop
            </h2>
            <ActionForm action={saveShop.bind(null, null)} label="Add a shop" clear className="flex flex-col gap-3">
              <ShopFields />
              <button type="submit" className="btn btn-primary w-fit">
                Add shop
              </button>
            </ActionForm>
          </section>
        </div>
      </div>
    </>
  );
}
