import Papa from 'papaparse';
import { foodsAmong } from '@/core/reference/food-finder';
import { foodNames, type Reference } from '@/core/reference/reference';

/** Foods of a reference table that a text names. */
export const foodsIn = (text: string, reference: Reference): string[] => [
  ...new Set(
    text
      .split(/[,;\n]/)
      .flatMap((part) => foodsAmong(part.split(/[^\p{L}'’-]+/u).filter(Boolean), foodNames(reference)))
      .map(({ name }) => name),
  ),
];

/**
 * A school's menu as CSV: rows that begin with a date (YYYY-MM-DD), then what is eaten; other rows are passed over.
 *
 * @returns the foods of each day
 */
export function readMenuCsv(text: string, reference: Reference): ReadonlyMap<string, readonly string[]> {
  const { data } = Papa.parse<string[]>(text, { delimitersToGuess: [',', ';', '\t'], skipEmptyLines: 'greedy' });
  const menu = new Map<string, readonly string[]>();
  for (const [first = '', ...rest] of data) {
    const date = /^\s*(\d{4}-\d{2}-\d{2})\s*$/.exec(first)?.[1];
    if (date) menu.set(date, [...(menu.get(date) ?? []), ...foodsIn(rest.join(', '), reference)]);
  }
  return menu;
}
