import { toDecimal } from '../../quantity/rational';
import { findUnit } from '../../quantity/units';
import { partOf, partPortion } from '../../reference/parts';
import { findIngredient, type Reference } from '../../reference/reference';
import type { WrittenItem, WrittenLine } from '../recipe/recipe';
import type { LineDetails } from './line-details';

/** What a kind of ingredient is usually given, and how that is told. */
interface Usual {
  readonly details: LineDetails;
  /** "kept in whole pieces"; empty where there is nothing to tell. */
  readonly say: readonly string[];
}

const LEAVENING = /^(?:baking powder|bicarbonate of soda|dried yeast|fresh yeast|gelatine|cream of tartar)/;
/** Scaled by less than the count: they get too strong. */
const STRONG =
  /^salt$|chilli|(?:black|white|cayenne) pepper$|^ground (?:cloves|nutmeg|cinnamon|cardamom)|sesame oil|fish sauce|soy sauce/;
/** Aromatics whose pieces nobody divides. */
const WHOLE_PIECES = new Set(['clove', 'sprig', 'leaf', 'star', 'pod']);
const AROMATICS =
  /^(?:egg|(?:red |spring )?onion|shallot|leek|fresh ginger|fresh chilli|celery|lemon|lime|bay leaf|cinnamon stick)$/;
/** Pan oil goes by the pan. */
const PAN = /\b(?:for|to) (?:fry|frying|greasing|grease|the pan|the tin|cooking|brushing)\b/;

/**
 * How a line of text scales, is measured and bought where it does not say: whole cloves and eggs, salt and chilli by less
 * than the count, leavening and salt tightly, vegetables loosely, pan oil by the pan, and bought to be trimmed or drained
 * where the table knows what is lost. Told beside the line, and changed there.
 */
export function usualDetails(item: WrittenItem, words: string, reference: Reference): Usual {
  const food = findIngredient(reference, item.ingredient);
  const unit = findUnit(item.unit);
  if (!food || !unit || item.reserved) return { details: {}, say: [] };
  const details: { -readonly [K in keyof LineDetails]: LineDetails[K] } = {};
  const say: string[] = [];
  const isCounted = unit.dimension === 'count';
  if (food.plateGroup === 'fat' && PAN.test(words)) {
    details.scaling = 'per batch';
    say.push('by the pan: one for the servings that the recipe is written for');
  } else if (isCounted && (WHOLE_PIECES.has(unit.key) || AROMATICS.test(food.name))) {
    details.scaling = 'whole';
    say.push('kept in whole pieces');
  } else if (STRONG.test(food.name) && !isCounted) {
    details.scaling = 'damped';
    say.push('grows by less than the servings');
  }
  if (LEAVENING.test(food.name) || food.name === 'salt') {
    details.precision = 'tight';
    say.push('measured tightly');
  } else if ((food.plateGroup === 'vegetable' || food.plateGroup === 'fruit') && unit.dimension === 'volume') {
    details.precision = 'loose';
  }
  const lost = item.sealed_grams ? undefined : lossOf(item, reference);
  if (lost) {
    details.yield_preparation = lost.preparation;
    say.push(`bought to be ${lost.preparation}: ${lost.ediblePortion} of it is left`);
  }
  return { details, say };
}

/** Lines that go by the pan or tray and do not say how many servings one holds: as many as the recipe is written for. */
export const withBatches = (lines: readonly WrittenLine[], servings: number): WrittenLine[] =>
  lines.map((line) =>
    line.scaling === 'per batch' && line.batch_servings === undefined ? { ...line, batch_servings: servings } : line,
  );

/** What is lost of a food before it is measured: weights in the table are of what is eaten. */
function lossOf({ ingredient, preparation = '' }: WrittenItem, reference: Reference) {
  const rows = reference.yields.filter((row) => row.ingredient === ingredient);
  const said = preparation.toLowerCase();
  const part = partOf(ingredient, preparation);
  // What a part of one piece weighs says how many pieces are bought.
  const share = part && partPortion(reference, ingredient, part);
  if (share) return { preparation: part, ediblePortion: toDecimal(share, 2) };
  const very = rows.find((row) => row.preparation.split(/\W+/).some((word) => word.length > 3 && said.includes(word)));
  // A can is bought net: only what is drained weighs less.
  if (ingredient.startsWith('canned ')) return very;
  return very ?? rows[0];
}
