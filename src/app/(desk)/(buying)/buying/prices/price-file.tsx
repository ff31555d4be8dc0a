import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { importPrices } from '@/services/buying/price-file';
import { ActionForm } from '@/ui/form/action-form';
import { FileField, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

async function bringIn(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(importPrices, async () => {
    const file = data.get('file');
    const bytes = file instanceof File ? new Uint8Array(await file.arrayBuffer()) : new Uint8Array();
    const { prices, products, left } = await call(importPrices, { bytes, skip: data.get('skip') === 'on' });
    return `${prices} prices are in, ${products} products are new${left > 0 ? `; ${left} lines were left out` : ''}.`;
  });
}

/** Prices in and out as a file. */
export function PriceFile() {
  return (
    <section className="sheet p-5" aria-labelledby="price-file">
      <h2 id="price-file" className="mb-2 text-lg font-bold">
        As a file
      </h2>
      <p className="mb-3 text-sm">
        A CSV file with the columns food, product, grams, shop, price; and sold by, from, to, from packs where you have
        them.{' '}
        <a href="/buying/prices.csv" className="link">
          Take the price book out
        </a>{' '}
        to see one.
      </p>
      <ActionForm action={bringIn} label="Bring prices in from a file" className="flex flex-wrap items-end gap-3">
        <FileField label="Price file" name="file" accept=".csv,text/csv" required />
        <Tick label="Leave out lines that cannot be used" name="skip" />
        <button type="submit" className="btn">
          Bring prices in
        </button>
      </ActionForm>
    </section>
  );
}
