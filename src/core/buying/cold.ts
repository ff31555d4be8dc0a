import type { Ingredient } from '../reference/reference';
import type { Planned } from './plan';
import type { Storage } from './stock';

/** Litres of fridge that a kilogram takes with its pack and the air that must pass around it. Ours, coarse. */
const LITRES_A_KILOGRAM = 2;

/** The day on which most stands in the cold. */
export interface FullestDay {
  readonly storage: 'fridge' | 'freezer';
  /** YYYY-MM-DD */
  readonly day: string;
  readonly litres: number;
  /** What there is, in all places together; undefined where nobody counted it. */
  readonly room?: number;
  /** What brings the most to it, in words of the shop. */
  readonly most: readonly string[];
}

/** Food that is there now. */
export interface StandsThere {
  readonly storage: Storage;
  readonly grams: number;
  readonly last: string;
  readonly name: string;
}

interface Stands {
  readonly storage: Storage;
  readonly grams: number;
  readonly from: string;
  readonly to: string;
  readonly name: string;
}

/** Where a food is kept, as the reference table says. */
export const STORED: Readonly<Record<string, Storage>> = { ambient: 'shelf', cold: 'fridge', frozen: 'freezer' };

/**
 * How full fridge and freezer get by a plan: from the day on which something is bought to the last on which it is used, beside
 * what stands there now.
 *
 * @param room litres there are, by storage
 */
export function fullestDays(
  { trips }: Pick<Planned, 'trips'>,
  there: readonly StandsThere[],
  foodOf: (name: string) => Ingredient | undefined,
  today: string,
  room: Readonly<Partial<Record<Storage, number>>>,
): FullestDay[] {
  const all: Stands[] = [
    ...there.map(({ last, ...lot }) => ({ ...lot, from: today, to: last })),
    ...trips.flatMap(({ day, lines }) =>
      lines.map(({ ingredient, packs, packGrams, uses, product }) => ({
        storage: STORED[foodOf(ingredient)?.storage ?? ''] ?? 'shelf',
        grams: packs * packGrams,
        from: day,
        to: uses.at(-1)?.day ?? day,
        name: product,
      })),
    ),
  ];
  const days = [...new Set([today, ...trips.map(({ day }) => day)])].sort();
  return (['fridge', 'freezer'] as const).flatMap((storage): FullestDay[] => {
    const on = (day: string) => all.filter((each) => each.storage === storage && each.from <= day && day <= each.to);
    const gramsOn = (day: string) => on(day).reduce((sum, { grams }) => sum + grams, 0);
    const day = days.reduce((most, each) => (gramsOn(each) > gramsOn(most) ? each : most), today);
    const litres = Math.ceil((gramsOn(day) * LITRES_A_KILOGRAM) / 1000);
    if (litres === 0) return [];
    const most = on(day)
      .toSorted((a, b) => b.grams - a.grams)
      .slice(0, 3)
      .map(({ name }) => name);
    return [{ storage, day, litres, most, ...(room[storage] === undefined ? {} : { room: room[storage] }) }];
  });
}
