import { findUnit } from '../quantity/units';
import { findIngredient, type Ingredient, type Reference } from '../reference/reference';
import type { SheetComponent } from './sheet-content';

/** Perishable food sent home: 3 days advised (USDA FoodKeeper, 3 to 4); the stricter figure for both profiles. */
const PERISHABLE_DAYS = 3;

/** How one component must be kept, and for how many days from packing. */
export interface Keeping {
  readonly cold: boolean;
  readonly days: number;
}

/** How a component of this food must be kept: whole and sealed it keeps as bought, cut or opened as its food says. */
export function keepingOf(component: Pick<SheetComponent, 'unit' | 'sealedUnits'>, food: Ingredient): Keeping {
  const piece = findUnit(component.unit)?.dimension === 'count';
  const whole = component.sealedUnits !== undefined || piece;
  const cut = food.perishable === 'when cut' || food.perishable === 'when opened' || food.perishable === 'when thawed';
  const perishable = food.perishable === 'always' || (cut && !whole);
  const cold = perishable || food.storage !== 'ambient';
  const days = whole ? food.daysWhole : food.daysOpened;
  return { cold, days: perishable ? Math.min(days, PERISHABLE_DAYS) : days };
}

/** Whether a component travels in the cold part of its kit. */
export function isSentCold(component: SheetComponent, reference: Reference): boolean {
  const food = findIngredient(reference, component.ingredient);
  return !component.isInside && food !== undefined && keepingOf(component, food).cold;
}
