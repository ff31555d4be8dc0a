import { SOLD_BY, type SoldBy } from '@/core/buying/plan-case';
import { writeCsv } from '../csv';
import { readTable, type TableFile } from '../table-csv';

/** One line of a price file, read. Money in minor units, days as YYYY-MM-DD. */
export interface PriceLine {
  /** As the file counts, the headings are line 1. */
  readonly line: number;
  readonly food: string;
  readonly product: string;
  readonly grams: number;
  readonly shop: string;
  readonly soldBy: SoldBy;
  readonly price: number;
  readonly from: string | null;
  readonly to: string | null;
  readonly least: number;
}

export const PRICE_HEADINGS = [
  'food',
  'product',
  'grams',
  'shop',
  'sold by',
  'price',
  'from',
  'to',
  'from packs',
] as const;
const NEEDED = ['food', 'product', 'grams', 'shop', 'price'] as const;
const MOST_LINES = 10_000;

/** "2.49", "2,49", "£2.49": minor units; undefined for what is no price. */
function centsOf(text: string): number | undefined {
  const plain = text.replace(/[^\d.,-]/g, '').replace(',', '.');
  return /^\d{1,6}(\.\d{1,2})?$/.test(plain) ? Math.round(Number(plain) * 100) : undefined;
}

const isDay = (text: string) => /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text));

/** What is wrong with a line, or the line. */
function lineOf(cell: (name: string) => string, line: number): PriceLine | string {
  const [food, product, shop] = [cell('food'), cell('product'), cell('shop')];
  if (!food || !product || !shop)
    return `Write ${[
      ['a food', food],
      ['a product', product],
      ['a shop', shop],
    ]
      .filter(([, value]) => !value)
      .map(([name]) => name)
      .join(', ')}.`;
  const soldBy = (cell('sold by').toLowerCase() || 'pack') as SoldBy;
  if (!SOLD_BY.includes(soldBy)) return `“${soldBy}” is no way to sell: ${SOLD_BY.join(', ')}.`;
  const grams = Number(cell('grams').replace(',', '.'));
  if (!(grams > 0 && grams <= 1_000_000)) return `“${cell('grams')}” is no weight of a pack: write grams, more than 0.`;
  const price = centsOf(cell('price'));
  if (price === undefined) return `“${cell('price')}” is no price: write it as 2.49.`;
  if (price === 0) return 'A price of 0 is no price: leave the line out, or write what it costs.';
  const [from, to] = [cell('from'), cell('to')];
  if ((from === '') !== (to === '')) return 'An offer has a first and a last day.';
  if (from && (!isDay(from) || !isDay(to))) return `Write days as 2026-12-24: “${isDay(from) ? to : from}” is none.`;
  if (from > to) return 'The offer ends before it begins.';
  const least = cell('from packs') === '' ? 1 : Number(cell('from packs'));
  if (!(Number.isInteger(least) && least >= 1 && least <= 100)) return `“${cell('from packs')}” is no number of packs.`;
  return {
    line,
    food,
    product,
    grams: Math.round(grams),
    shop,
    soldBy,
    price,
    from: from || null,
    to: to || null,
    least,
  };
}

/**
 * Reads a file of prices: a heading row with food, product, grams, shop and price, in any order; and, where there are any, sold by, from,
 * to and from packs. Semicolons, tabs or commas.
 *
 * @throws FileRefused where it is no such table
 */
export const readPriceCsv = (bytes: Uint8Array): TableFile<PriceLine> =>
  readTable(bytes, { needed: NEEDED, most: MOST_LINES, like: 'the price book' }, lineOf);

const written = (cents: number) => (cents / 100).toFixed(2);

/** The price book as a file that can be brought in again. */
export const writePriceCsv = (lines: readonly Omit<PriceLine, 'line'>[]): string =>
  writeCsv([
    [...PRICE_HEADINGS],
    ...lines.map(({ food, product, grams, shop, soldBy, price, from, to, least }) => [
      food,
      product,
      grams,
      shop,
      soldBy,
      written(price),
      from ?? '',
      to ?? '',
      least,
    ]),
  ]);
