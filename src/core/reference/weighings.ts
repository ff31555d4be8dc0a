import type { MeasureFact } from './reference';

/** One measure of a food, as it was put on the scale. */
export interface Weighing {
  readonly measure: string;
  readonly preparation: string;
  /** Grams of one measure, as a decimal. */
  readonly grams: string;
}

/** What the weighings of one measure say together, in grams to a tenth. */
export interface WeighedTogether extends Pick<Weighing, 'measure' | 'preparation'> {
  readonly times: number;
  readonly least: number;
  readonly most: number;
  readonly mean: number;
  /** What the table says of it, and by how many per cent the mean is above (below, where negative); undefined where it says nothing. */
  readonly table?: { readonly grams: string; readonly percent: number };
}

const tenth = (grams: number) => Math.round(grams * 10) / 10;

/**
 * Compares a programme's weighings with one another and with the table.
 *
 * @returns a row for each measure and preparation, in the order in which they were weighed first
 * @example
 * weighedTogether([{ measure: 'cup', preparation: '', grams: '130' }, { measure: 'cup', preparation: '', grams: '120' }], [])
 * //=> [{ measure: 'cup', preparation: '', times: 2, least: 120, most: 130, mean: 125 }]
 */
export function weighedTogether(weighings: readonly Weighing[], typical: readonly MeasureFact[]): WeighedTogether[] {
  const groups = new Map<string, Weighing[]>();
  for (const weighing of weighings) {
    const key = `${weighing.measure}|${weighing.preparation}`;
    groups.set(key, [...(groups.get(key) ?? []), weighing]);
  }
  return [...groups.values()].map((rows) => {
    const { measure, preparation } = rows[0] as Weighing;
    const grams = rows.map((row) => Number(row.grams));
    const mean = grams.reduce((sum, each) => sum + each, 0) / grams.length;
    const known = typical.find((row) => row.measure === measure && row.preparation === preparation);
    const percent = known && Math.round((mean / Number(known.grams) - 1) * 100);
    return {
      measure,
      preparation,
      times: grams.length,
      least: tenth(Math.min(...grams)),
      most: tenth(Math.max(...grams)),
      mean: tenth(mean),
      ...(known && percent !== undefined ? { table: { grams: known.grams, percent } } : {}),
    };
  });
}

/** Said in a sentence, without what was weighed: "3 times, 118 to 131 g, 124 g on average; 4 % above the table’s 119 g". */
export function sayWeighedTogether({ times, least, most, mean, table }: WeighedTogether): string {
  const weighed =
    times === 1
      ? `once, ${mean} g`
      : `${times} times, ${least === most ? mean : `${least} to ${most}`} g, ${mean} g on average`;
  if (!table) return `${weighed}; the table says nothing of it`;
  const { grams, percent } = table;
  if (percent === 0) return `${weighed}; as the table says`;
  return `${weighed}; ${Math.abs(percent)} % ${percent > 0 ? 'above' : 'below'} the table’s ${grams} g`;
}
