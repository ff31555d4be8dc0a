// What stands in brackets behind a food: how it is counted, which of its kind it is, what a mix is of.
import { AmountError } from '../../quantity/rational';
import { type FoodIndex, wordKey } from '../../reference/food-finder';
import { type ReadAmount, readAmount } from './amount-reader';
import { type Settled, settle, surely } from './line-food';

/** "1/4 c. (packed) mint": what stands there belongs to the food behind it. */
export const isOnlyMeasure = (before: string) => {
  const { found } = safely(`${before} x`);
  return found.amount !== undefined && found.rest === 'x';
};

/** "mixed vegetables (carrots, peas, corn)": what a mix is of is no food beside it. */
export function isMix(before: string, inside: string, index: FoodIndex): boolean {
  const parts = inside.split(/, ?(?:and |or )?| and | & | or |\/|\+/).map((part) => part.trim());
  return (
    /\b(?:mix(?:ed|ture)?|assorted|medley|selection)\b/i.test(before) &&
    parts.every(
      (part) => part === '' || surely(part, index) || surely(`${part} ${before.trim().split(' ').at(-1)}`, index),
    )
  );
}

/** "(2 medium)", "(1 packet)": the same, counted. */
export const COUNTED =
  /^(?:about |approx\.? )?\d+(?: (?:large|medium|small|lg|med))?(?: (?:packets?|sachets?|sticks?|cans?|tins?|cubes?|cloves?|heads?|bunch(?:es)?|ears?|stalks?|ribs?|slices?|pieces?|eggs?))?$/i;

/** "(1/4 of an 8-oz block)": the same, as a part of its pack. */
export const PART_OF_PACK =
  /^(?:about )?(?:[½⅓⅔¼¾]|\d ?\/ ?\d|half|a (?:third|quarter)) (?:of )?(?:an? |the )?(?:[\d.]+[ -]?\p{L}+ )?(?:block|pack|packet|package|can|tin|jar|bag|box|tub|bunch|head)$/iu;

/** "2 shallots (eschalots)", "3 tbsp lime juice (2 limes)": another name of the same food, or the same food counted. */
export function isSame(before: string, inside: string, index: FoodIndex): boolean {
  const name = inside.replace(/^(?:about |from )?[\d½]+(?:[-–]\d+)? (?:(?:large|medium|small) )?/i, '');
  const other = index.byKey.get(name.split(' ').map(wordKey).join(' '));
  return other !== undefined && other === settle(safely(before).found.rest, index).ingredient;
}

/** "rice (basmati)", "cheese (tasty)": which of its kind, where that is a food of the table. */
export function isKind(before: string, inside: string, index: FoodIndex): boolean {
  const noun = (safely(before).found.rest || before).trim();
  return (
    /^[\p{L}-]+(?: [\p{L}-]+)?$/u.test(inside) &&
    /^[\p{L} -]+$/u.test(noun) &&
    index.byKey.has(`${inside} ${noun}`.split(' ').map(wordKey).join(' '))
  );
}

/** "chicken or vegetable", "cheddar, mozzarella or a mix": nothing but names between commas and "or". */
export const KINDS = /^[\p{L}-]+(?: [\p{L}-]+)?(?:, [\p{L}-]+(?: [\p{L}-]+)?)*,? or [\p{L}-]+(?: [\p{L}-]+)?$/u;

export const BETWEEN_KINDS = /,? or |, /;

/** The food of the first kind that brackets name: "broth (chicken or vegetable)" is chicken broth, or vegetable broth. */
export function ofKind(food: Settled, kinds: readonly string[], alternatives: string[], index: FoodIndex): Settled {
  const [first, ...others] = kinds;
  if (first === undefined) return food;
  const whole = (kind: string) => (surely(`${kind} ${food.words}`, index) ? `${kind} ${food.words}` : kind);
  alternatives.push(...others.map(whole).filter((other) => surely(other, index)));
  const settled = settle(whole(first), index);
  if (food.ingredient && !(settled.ingredient && others.length === 0)) return food;
  return settled.ingredient ? { ...settled, before: food.before, after: food.after } : food;
}

/** An amount that is none ("1/0") is said, and the rest of the line is read all the same. */
export function safely(line: string): { found: ReadAmount; problem: string } {
  try {
    return { found: readAmount(line), problem: '' };
  } catch (error) {
    if (!(error instanceof AmountError)) throw error;
    return { found: readAmount(line.replace(/^\S+ ?/, 'some ')), problem: error.message };
  }
}
