import { parseAmount } from '../../quantity/amount';
import { fromText, toNumber } from '../../quantity/rational';
import { findUnit } from '../../quantity/units';
import { measuresOf, type Reference } from '../../reference/reference';
import type { SheetComponent, SheetContent, SheetVariant } from '../record/sheet-content';
import { isSentCold } from './keeping';

/** A size of container that the programme packs in. */
export interface ContainerSize {
  readonly name: string;
  readonly ml: number;
}

/** What a food of unknown bulk takes up: chopped vegetables and grains lie at 0.5 to 0.8 g in a millilitre. Ours, coarse. */
const USUAL_DENSITY = 0.6;
/** A can takes up more than what it holds, a whole piece more than its flesh: by this part. Ours, coarse. */
const AROUND = 1.15;

const numberOf = (exact: string): number => toNumber(fromText(exact));

/** Grams in a millilitre of a food: by its own spoon or cup in the table, the preparation packed where that has one. */
function densityOf(component: SheetComponent, reference: Reference): number {
  const rows = measuresOf(reference, component.ingredient).flatMap((row) => {
    const unit = findUnit(row.measure);
    return unit?.dimension === 'volume' ? [{ row, ml: toNumber(unit.size) }] : [];
  });
  const own = rows.find(({ row }) => row.preparation !== '' && component.name.includes(row.preparation)) ?? rows[0];
  return own ? toNumber(parseAmount(own.row.grams)) / own.ml : USUAL_DENSITY;
}

/** Millilitres that a component takes up in its kit; 0 for what is not packed. */
export function volumeOf(component: SheetComponent, reference: Reference): number {
  if (component.isInside) return 0;
  const grams = numberOf(component.grams);
  if (component.sealedUnits !== undefined) return grams * AROUND;
  const unit = findUnit(component.unit);
  if (unit?.dimension === 'volume') return numberOf(component.packed) * toNumber(unit.size);
  if (unit?.dimension === 'count') return (grams / USUAL_DENSITY) * AROUND;
  return grams / densityOf(component, reference);
}

/** What is measured out of a pool needs something to be in; sealed units, whole pieces and equipment do not. */
const needsContainer = ({ unit, sealedUnits, isInside }: SheetComponent) =>
  !isInside && sealedUnits === undefined && findUnit(unit)?.dimension !== 'count';

/** The smallest container that holds so much, or as many of the largest as it takes; undefined where there are none. */
export function containerFor(
  ml: number,
  sizes: readonly ContainerSize[],
): { readonly name: string; readonly count: number } | undefined {
  const sorted = [...sizes].sort((a, b) => a.ml - b.ml);
  const fits = sorted.find((size) => size.ml >= ml);
  if (fits) return { name: fits.name, count: 1 };
  const largest = sorted.at(-1);
  return largest && { name: largest.name, count: Math.ceil(ml / largest.ml) };
}

/** What one kit of a variant takes up. */
export interface KitBulk {
  readonly letter: string;
  readonly ml: number;
  readonly coldMl: number;
  /** Containers by name, for one kit. */
  readonly containers: ReadonlyMap<string, number>;
  /** Which each component goes into, by the component's key, in words: "lidded pot, 60 ml", "2 × zip bag". */
  readonly into: Readonly<Record<string, string>>;
  readonly coldKeys: ReadonlySet<string>;
}

/** What a kit of each variant takes up, all together and cold, and the containers that it needs. */
export const kitBulks = (content: SheetContent, sizes: readonly ContainerSize[]): KitBulk[] =>
  content.variants.flatMap((variant) => (variant.components ? [bulkOf(variant, content.input.reference, sizes)] : []));

function bulkOf({ letter, components }: SheetVariant, reference: Reference, sizes: readonly ContainerSize[]): KitBulk {
  const containers = new Map<string, number>();
  const into: Record<string, string> = {};
  const coldKeys = new Set<string>();
  let ml = 0;
  let coldMl = 0;
  for (const component of components ?? []) {
    const volume = volumeOf(component, reference);
    ml += volume;
    if (isSentCold(component, reference)) {
      coldMl += volume;
      coldKeys.add(component.key);
    }
    const chosen = needsContainer(component) ? containerFor(volume, sizes) : undefined;
    if (!chosen) continue;
    containers.set(chosen.name, (containers.get(chosen.name) ?? 0) + chosen.count);
    into[component.key] = chosen.count === 1 ? chosen.name : `${chosen.count} × ${chosen.name}`;
  }
  return { letter, ml, coldMl, containers, into, coldKeys };
}
