import { compare, floor, fromText } from '../../quantity/rational';
import { findUnit } from '../../quantity/units';
import { findIngredient, type Ingredient, type Reference } from '../../reference/reference';
import type { SheetComponent } from '../record/sheet-content';
import { WHOLE } from '../supply/supplied';

/** Perishable food sent home: 3 days advised (USDA FoodKeeper, 3 to 4); the stricter figure for both profiles. */
const PERISHABLE_DAYS = 3;

/** How one component must be kept, and for how many days from packing. */
export interface Keeping {
  readonly cold: boolean;
  readonly days: number;
}

/** What may be said of a piece that is as it grew, or as it was bought. */
const WHOLE_WORDS = new Set(
  'whole small medium large extra trimmed washed unpeeled ripe firm fresh dried with without skin shell head ear'.split(
    ' ',
  ),
);

/** Whether a component comes as it was bought: sealed, or in whole pieces that nobody has cut, peeled or opened. */
function isWhole({ unit, sealedUnits, packed, preparation = '' }: Kept, { perishable }: Ingredient): boolean {
  if (sealedUnits !== undefined) return true;
  const amount = fromText(packed);
  if (findUnit(unit)?.dimension !== 'count' || compare(floor(amount), amount) !== 0) return false;
  // Pieces out of a can or a jar were opened, however whole they are.
  if (perishable === 'when opened') return false;
  if (preparation === WHOLE) return true;
  return (preparation.toLowerCase().match(/\p{L}+/gu) ?? []).every((word) => WHOLE_WORDS.has(word));
}

type Kept = Pick<SheetComponent, 'unit' | 'sealedUnits' | 'packed' | 'preparation'>;

/** How a component of this food must be kept: whole and sealed it keeps as bought, cut or opened as its food says. */
export function keepingOf(component: Kept, food: Ingredient): Keeping {
  const whole = isWhole(component, food);
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
