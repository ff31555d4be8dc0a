'use client';

import { useSaying } from '@/ui/saying';

import { DataTable, type TableColumn } from '@/ui/table/data-table';

interface Row {
  readonly id: string;
  readonly ingredient: string;
  readonly product: string;
  readonly packGrams: number;
  readonly shop: string;
  readonly soldBy: string;
  readonly price: number;
  readonly fromDay: string | null;
  readonly toDay: string | null;
  readonly least: number;
  readonly at: string;
}

/** Minor units for a kilogram. */
const perKilogram = ({ soldBy, price, packGrams }: Row): number =>
  soldBy === 'weight' ? price : Math.round((price * 1000) / packGrams);

/** All prices that count, each with what a kilogram of it comes to. */
export function Prices({ prices, today }: { prices: readonly Row[]; today: string }) {
  const say = useSaying();
  const offer = ({ fromDay, toDay, least }: Row) => {
    if (fromDay === null || toDay === null) return '';
    const when = toDay < today ? 'ended on' : fromDay > today ? `from ${say.longDate(fromDay)} to` : 'until';
    return `${when} ${say.longDate(toDay)}${least > 1 ? `, from ${least} packs` : ''}`;
  };
  const columns: readonly TableColumn<Row>[] = [
    { id: 'food', header: 'Food', isName: true, value: ({ ingredient }) => ingredient },
    { id: 'product', header: 'Product', value: ({ product }) => product },
    { id: 'shop', header: 'Shop', value: ({ shop }) => shop },
    { id: 'grams', header: 'Grams', isNumber: true, value: ({ packGrams }) => packGrams },
    {
      id: 'price',
      header: 'Price',
      isNumber: true,
      value: ({ price }) => price,
      show: ({ price, soldBy }) => `${say.money(price)}${soldBy === 'weight' ? ' /kg' : ''}`,
    },
    {
      id: 'kilo',
      header: 'A kilogram',
      isNumber: true,
      value: perKilogram,
      show: (row) => say.money(perKilogram(row)),
    },
    { id: 'offer', header: 'Offer', value: ({ toDay }) => toDay ?? '', show: offer },
    {
      id: 'seen',
      header: 'Written',
      isShort: true,
      value: ({ at }) => at,
      show: ({ at }) => say.yearDate(at),
    },
  ];
  return (
    <DataTable label="Prices" rows={prices} idOf={({ id }) => id} columns={columns} find="Find a food or product" />
  );
}
