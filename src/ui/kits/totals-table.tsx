import Link from 'next/link';
import type { SheetContent } from '@/core/kits/record/sheet-content';

/** What all kits come to, for the bench by weight and for the shop in packs. */
export function TotalsTable({ content, base }: { content: SheetContent; base: string }) {
  return (
    <section aria-labelledby="totals">
      <h2 id="totals" className="mb-2 text-xl font-bold">
        Totals
      </h2>
      <div className="sheet overflow-x-auto">
        <table className="table">
          <thead>
            <tr className="text-base-content">
              <th scope="col">Ingredient</th>
              <th scope="col" className="text-right">
                In all kits
              </th>
              <th scope="col" className="text-right">
                To buy, with trimming and spare
              </th>
              <th scope="col" className="text-right">
                Packs
              </th>
            </tr>
          </thead>
          <tbody>
            {content.totals.map((total) => (
              <tr key={total.ingredient}>
                <th scope="row" className="font-normal">
                  {total.ingredient}
                </th>
                <td className="text-right">{total.sayEdible}</td>
                <td className="text-right">
                  <Link
                    href={`${base}${base === '?' ? '' : '&'}working=total.${encodeURIComponent(total.ingredient)}`}
                    scroll={false}
                    prefetch={false}
                    title={`How the total of ${total.ingredient} came about`}
                    className="inline-block min-h-6 leading-6 underline decoration-dotted decoration-base-content/50 underline-offset-4 hover:decoration-solid"
                  >
                    {total.sayPurchase ?? 'whole packs'}
                    {total.pieces !== undefined &&
                      ` (${total.pieces} ${total.pieceUnit === 'each' ? 'pieces' : `${total.pieceUnit}s`})`}
                  </Link>
                </td>
                <td className="text-right">
                  {total.packs !== undefined ? `${total.packs} × ${total.packGrams ?? total.sealedGrams} g` : ''}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
