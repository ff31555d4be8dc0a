import { findIngredient } from '@/core/reference/reference';
import { namedOn } from '@/core/safety/avoidances';
import { isNamed } from '@/core/safety/products-named';
import type { Db } from '@/store/store';
import type { Context } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { either, labelsOf, writeLabel } from '../sheet/session-labels';
import { takenFor } from '../sheet/taken';
import { lotsNow } from './stock';

/** A product that comes to a session, off a trip or off a shelf. */
export interface Came {
  readonly sessionId: string;
  readonly ingredient: string;
  readonly product: string;
  /** Null where nobody read it: all that brands of the food may hold. */
  readonly label: readonly string[] | null;
  /** Somebody who gets of it must be without something: the kits name the very product. */
  readonly isAvoided: boolean;
}

/**
 * Sessions take the label of what their kits are made of: where somebody must be without something, they name this very product from
 * then on; and where it holds what nobody would look for in its food, its label counts for whoever tells a need later. Where several
 * products of a food come, or one that came before is still there, anything that one of them holds may be in any kit.
 */
export async function nameProducts(context: Context, db: Db, came: readonly Came[]): Promise<void> {
  const read = came.filter(({ label }) => label !== null);
  if (read.length === 0) return;
  const { programme } = await loadProgramme(context, db);
  const lots = await lotsNow(context, db, programme.reference);
  for (const sessionId of new Set(read.map((each) => each.sessionId))) {
    const labels = await labelsOf(db, sessionId);
    const taken = await takenFor(context, db, [sessionId]);
    const own = came.filter((each) => each.sessionId === sessionId);
    for (const ingredient of new Set(own.map((each) => each.ingredient))) {
      const of = own.filter((each) => each.ingredient === ingredient);
      if (of.every(({ label }) => label === null)) continue;
      const food = findIngredient(programme.reference, ingredient);
      const usual = [...(food?.contains ?? []), ...(food?.mayContain ?? [])];
      const before = labels.find((label) => label.ingredient === ingredient);
      const inForce = before?.allergens ?? programme.labels.get(ingredient)?.allergens;
      const expected = inForce ? namedOn(inForce) : usual;
      const isStrange = of.some(({ label }) => namedOn(label ?? usual).some((code) => !expected.includes(code)));
      if (!isStrange && !of.some(({ isAvoided }) => isAvoided)) continue;
      const there = [...lots.map((lot) => ({ ingredient: lot.ingredient, product: lot.name })), ...taken];
      const isHere =
        before && there.some((each) => each.ingredient === ingredient && isNamed(before.product, each.product));
      const all = [
        ...(isHere ? [before] : []),
        ...of.map(({ product, label }) => ({ ingredient, product, allergens: [...(label ?? usual)] })),
      ];
      await writeLabel(context, db, sessionId, either(all));
    }
  }
}
