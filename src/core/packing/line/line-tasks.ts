import { isSentCold } from '../../kits/figures/keeping';
import type { LockedSheet } from '../../kits/record/locked-sheet';
import type { SheetComponent } from '../../kits/record/sheet-content';
import { fromText, toNumber } from '../../quantity/rational';
import { findUnit } from '../../quantity/units';
import { findIngredient } from '../../reference/reference';
import type { BenchSheet } from '../progress';
import type { LineClass, LineTask } from './line';

/** A row of the bench as a task of a line. */
export interface RowTask extends LineTask {
  readonly row: number;
  readonly name: string;
  /** Kits that get something of it. */
  readonly kits: number;
}

/** Seconds that a component takes a packer, by how it is measured: our own estimates, until the ticks of a bench say otherwise. */
const SECONDS = { sealed: 4, piece: 2, pieces: 3, scoop: 6, weighed: 14, closed: 4 } as const;
/** More scoops than this and more are weighed. */
const MOST_SCOOPS = 6;

/**
 * Seconds to put one component into one kit.
 *
 * @param isClosed it goes into a pot or bag of its own, which is closed
 */
export function secondsOf(
  component: Pick<SheetComponent, 'sealedUnits' | 'unit' | 'packed'>,
  isClosed: boolean,
): number {
  const closing = isClosed ? SECONDS.closed : 0;
  if (component.sealedUnits !== undefined) return SECONDS.sealed * Math.max(1, component.sealedUnits);
  const count = Math.max(1, toNumber(fromText(component.packed)));
  const dimension = findUnit(component.unit)?.dimension;
  if (dimension === 'count') return Math.round(SECONDS.pieces + SECONDS.piece * count) + closing;
  if (dimension === 'volume' && count <= MOST_SCOOPS) return Math.round(SECONDS.scoop * Math.ceil(count)) + closing;
  return SECONDS.weighed + closing;
}

/** The rows of a bench as tasks of a line: what all kits together take, raw last, cold before it. */
export function lineTasks(sheet: BenchSheet, locked: LockedSheet): RowTask[] {
  const { reference } = locked.content.input;
  const count = new Map<string, number>();
  for (const { variant } of sheet.kits) count.set(variant, (count.get(variant) ?? 0) + 1);
  return sheet.rows.flatMap(({ row, name }) => {
    const own = sheet.variants.flatMap((variant) =>
      variant.components.filter((component) => component.row === row).map((component) => ({ variant, component })),
    );
    const kits = own.reduce((sum, { variant }) => sum + (count.get(variant.letter) ?? 0), 0);
    if (kits === 0) return [];
    const seconds = own.reduce(
      (sum, { variant, component }) =>
        sum + secondsOf(component, variant.into[component.key] !== undefined) * (count.get(variant.letter) ?? 0),
      0,
    );
    const classOf = (component: SheetComponent): LineClass => {
      if (!isSentCold(component, reference)) return 'any';
      return findIngredient(reference, component.ingredient)?.aisle === 'meat' ? 'raw' : 'cold';
    };
    const classes = own.map(({ component }) => classOf(component));
    const last = classes.includes('raw') ? 'raw' : classes.includes('cold') ? 'cold' : 'any';
    return [{ id: String(row), row, name, kits, seconds, class: last }];
  });
}

/** Containers that are set out before anything is filled: each kind with how many, over all kits. */
export function setOut(sheet: BenchSheet): { readonly container: string; readonly count: number }[] {
  const counts = new Map<string, number>();
  for (const { variant } of sheet.kits) {
    const into = sheet.variants.find(({ letter }) => letter === variant)?.into ?? {};
    for (const container of Object.values(into)) counts.set(container, (counts.get(container) ?? 0) + 1);
  }
  return [...counts].map(([container, count]) => ({ container, count }));
}
