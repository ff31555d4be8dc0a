import { parseAmount } from '../../quantity/amount';
import { equals, multiply, type Rational, toDecimal } from '../../quantity/rational';
import { findUnit, type Unit } from '../../quantity/units';
import { measuresOf, type Reference, weightOf } from '../../reference/reference';
import type { Measured } from './amount-reader';
import type { ReadPart } from './line-reader';

/** A recipe that says a cup and its weight, or ounces and grams, rounds one of them: so far apart it still says one amount. */
const ROUNDED = 0.12;
/** A cup is filled more or less: beyond a third, and more than a spoon of it, it is another amount. */
const FILLED = { share: 0.35, grams: 8 };
/** Leaves pressed into a heaped cup weigh up to so many times those that lie in it. */
const FULLEST = 3;
const FULL = /\b(?:packed|heap(?:ed|ing)|pressed|tightly)\b/i;
/** An imperial pint of 568.26 ml in US pints of 473.18 ml. */
const BRITISH = 1.2009;
/** Of a count beside a weight, pieces are a third to three times as large as usual. */
const PIECES = 3;

/**
 * Compares an amount that a line says twice: "1 cup (120 g) flour", "8 oz/225 g".
 *
 * @example saidTwice of "1 cup (200 g) flour" //=> 'apart': a cup of it weighs 125 g
 * @returns "apart" where the two cannot be the same; the weight that is said where a cup by the table is more than an eighth off; else nothing
 */
export function saidTwice(
  part: ReadPart,
  name: string,
  { amount, unit, sealedGrams }: { readonly amount: string; readonly unit: Unit; readonly sealedGrams?: string },
  preparation: string,
  reference: Reference,
): 'apart' | (Measured & { readonly typical: string }) | undefined {
  const [other] = part.also;
  if (!other || sealedGrams || part.alsoEach || part.amount === undefined) return undefined;
  const { least, most } = part.amount;
  const isUpper = equals(parseAmount(amount), most) || !equals(parseAmount(amount), least);
  const second = Number(toDecimal(multiply(isUpper ? other.amount.most : other.amount.least, other.unit.size), 4));
  const size = (of: Unit) => Number(toDecimal(multiply(parseAmount(amount), of.size), 4));
  const written = part.unit?.unit;
  if (written && written.dimension === other.unit.dimension && written.dimension === unit.dimension) {
    const first = size(unit);
    const isNear = (said: number) => Math.abs(first - said) <= ROUNDED * Math.max(first, said);
    // "275 ml/½ pint": a British pint is a fifth larger than the other.
    const isBritish = /^(?:pt|qt|gal)$/.test(other.unit.key) && isNear(second * BRITISH);
    if (isNear(second) || isBritish) return undefined;
    // "1 tbsp (20 ml)": an Australian tablespoon, which says its own size.
    const isAustralian = written.key === 'Tbsp' && other.unit.key === 'ml' && Math.abs(second / first - 20 / 15) < 0.03;
    return isAustralian ? { ...other, typical: '' } : 'apart';
  }
  const typical = (of: Unit, count: Rational) =>
    Number(toDecimal(multiply(weightOf(reference, name, preparation, of).grams, count), 2));
  if (unit.dimension === 'volume' && other.unit.dimension === 'mass') {
    // "1/4 cup (2 oz) honey": ounces beside a cup of a liquid are fluid ones.
    const fluid =
      other.unit.key === 'oz' && Math.abs(second / 28.349523125 / (size(unit) / 29.5735295625) - 1) < ROUNDED;
    if (fluid) return undefined;
    const first = typical(unit, parseAmount(amount));
    const apart = Math.abs(first - second);
    // "2 heaping cups packed rocket (3 oz)": how it was filled, the table does not know, and the weight does.
    const isFuller = second > first && second < FULLEST * first && FULL.test(part.preparation);
    if (!isFuller && apart > Math.max(FILLED.share * Math.max(first, second), FILLED.grams)) return 'apart';
    return apart > ROUNDED * Math.max(first, second) ? { ...other, typical: String(Math.round(first)) } : undefined;
  }
  // "3 carrots (about 30 g)"
  const piece = findUnit(part.unit?.key ?? '');
  const known = piece && measuresOf(reference, name).find((row) => row.measure === piece.key);
  if (known && piece.dimension === 'count' && other.unit.dimension === 'mass') {
    const ratio = second / (Number(known.grams) * Number(toDecimal(most, 4)));
    return ratio > PIECES || ratio < 1 / PIECES ? 'apart' : undefined;
  }
  return undefined;
}
