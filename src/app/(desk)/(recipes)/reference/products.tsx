import { saying } from '@/app/saying';
import type { Saying } from '@/core/plan/saying';

import type { Ingredient } from '@/core/reference/reference';
import { avoidanceLabel } from '@/core/safety/avoidances';
import type { listProducts } from '@/services/recipes/products';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import { MoneyField } from '@/ui/form/money-field';
import { LabelBoxes } from '@/ui/kits/label-boxes';
import { addPack, keepFewerDays, labelInKits, removePack } from './actions';

type Listed = Awaited<ReturnType<typeof listProducts>>;

/** The packs of a food that are bought here: weight, price, and what their labels say. */
export async function Products({
  food,
  days,
  listed: { products, limit },
  mayChange,
}: {
  food: Ingredient;
  /** What the table says it keeps. */
  days: { readonly whole: number; readonly opened: number };
  listed: Listed;
  mayChange: boolean;
}) {
  const say = await saying();
  const ingredient = food.name;
  return (
    <section className="sheet p-5" aria-labelledby="products">
      <h2 id="products" className="mb-2 text-xl font-bold">
        Products of {ingredient}
      </h2>
      {products.length === 0 && <p className="text-sm">None yet. A pack with its price tells what a serving costs.</p>}
      <ul className="divide-y divide-base-300">
        {products.map((product) => (
          <li key={product.id} className="flex items-start justify-between gap-3 py-2">
            <span>
              <b>{product.name}</b>
              <span className="block text-sm">{sayProduct(product, say)}</span>
            </span>
            {mayChange && (
              <span className="flex shrink-0 gap-1">
                {product.allergens !== null && (
                  <form action={labelInKits.bind(null, product.id, product.inKits !== 1)}>
                    <button
                      type="submit"
                      className={`btn btn-sm ${product.inKits === 1 ? 'btn-primary' : ''}`}
                      aria-pressed={product.inKits === 1}
                      aria-label={`Kits take the label of ${product.name}`}
                    >
                      In kits
                    </button>
                  </form>
                )}
                <ActionForm action={removePack.bind(null, product.id)}>
                  <button type="submit" className="btn btn-sm" aria-label={`Take ${product.name} away`}>
                    Take away
                  </button>
                </ActionForm>
              </span>
            )}
          </li>
        ))}
      </ul>
      {products.some(({ inKits }) => inKits === 1) && (
        <p className="mt-2 text-sm">
          Kits take the label of the one marked “In kits”, unless a session records another. Read every new pack: makers
          change what is in it.
        </p>
      )}
      {mayChange && (
        <>
          <details className="mt-3">
            <summary className="cursor-pointer font-semibold">Add a product</summary>
            <ActionForm
              action={addPack.bind(null, ingredient)}
              label="Add a product"
              clear
              className="mt-2 flex flex-col gap-3"
            >
              <Field
                label="Name, as you call it"
                name="name"
                required
                maxLength={120}
                hint="no brand is needed: “1 kg bag, wholesaler”"
              />
              <div className="grid grid-cols-2 gap-2">
                <Field label="Grams in the pack" name="packGrams" required inputMode="decimal" />
                <MoneyField label="Price of the pack" name="price" hint="2.49" />
                <Field label="Salt, mg in 100 g" name="saltMg" type="number" min={0} />
                <Field label="Energy, kJ in 100 g" name="energyKj" type="number" min={0} max={3800} />
              </div>
              <fieldset className="text-sm">
                <legend className="font-semibold">On the label</legend>
                <label className="flex items-center gap-2 py-1">
                  <input type="checkbox" name="labelRead" className="checkbox checkbox-sm" /> I have read the label of
                  this very product
                </label>
                <LabelBoxes food={food} small />
              </fieldset>
              <button type="submit" className="btn btn-primary w-fit">
                Add product
              </button>
            </ActionForm>
          </details>
          <details className="mt-3">
            <summary className="cursor-pointer font-semibold">Keep it for fewer days here</summary>
            <ActionForm
              action={keepFewerDays.bind(null, ingredient)}
              label="Keep it for fewer days"
              className="mt-2 flex flex-col gap-3"
            >
              <p className="text-sm">Stricter than the table, never laxer. Empty: as the table says.</p>
              <div className="grid grid-cols-2 gap-2">
                <Field
                  label="As bought, days"
                  name="daysWhole"
                  type="number"
                  min={0}
                  hint={`at most ${days.whole}`}
                  defaultValue={limit.daysWhole ?? ''}
                />
                <Field
                  label="Once opened, days"
                  name="daysOpened"
                  type="number"
                  min={0}
                  hint={`at most ${days.opened}`}
                  defaultValue={limit.daysOpened ?? ''}
                />
              </div>
              <button type="submit" className="btn w-fit">
                Save
              </button>
            </ActionForm>
          </details>
        </>
      )}
    </section>
  );
}

function sayProduct(
  { packGrams, price, saltMg, energyKj, allergens }: Listed['products'][number],
  say: Saying,
): string {
  return [
    `${packGrams} g`,
    price === null
      ? 'price not written'
      : `${say.money(price)} (${say.money((price / Number(packGrams)) * 1000)} a kg)`,
    saltMg === null ? '' : `${saltMg} mg salt in 100 g`,
    energyKj === null ? '' : `${energyKj} kJ in 100 g`,
    allergens === null
      ? 'label not read'
      : allergens.length > 0
        ? `label: ${allergens.map(avoidanceLabel).join(', ')}`
        : 'label: no allergen',
  ]
    .filter(Boolean)
    .join(' · ');
}
