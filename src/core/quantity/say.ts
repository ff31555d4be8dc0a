import { parseAmount } from './amount';
import {
  add,
  compare,
  divide,
  equals,
  floor,
  multiply,
  type Rational,
  rational,
  roundHalfEven,
  sign,
  subtract,
  toDecimal,
  ZERO,
} from './rational';
import type { Unit } from './units';

/** How a programme says amounts: US cups, spoons and ounces, or millilitres, spoons and grams. */
export type MeasureSystem = 'us' | 'metric';

const GLYPHS: Readonly<Record<string, string>> = {
  '1/2': '½',
  '1/3': '⅓',
  '2/3': '⅔',
  '1/4': '¼',
  '3/4': '¾',
  '1/6': '⅙',
  '5/6': '⅚',
  '1/8': '⅛',
  '3/8': '⅜',
  '5/8': '⅝',
  '7/8': '⅞',
};

/**
 * A number as a cook writes it.
 *
 * @example sayNumber(rational(3, 2)) //=> '1½'
 * @example sayNumber(rational(7, 27)) //=> '7⁄27'
 */
export function sayNumber(amount: Rational): string {
  const whole = floor(amount);
  const part = subtract(amount, whole);
  if (sign(part) === 0) return `${whole.n}`;
  const glyph = GLYPHS[`${part.n}/${part.d}`];
  const head = sign(whole) === 0 ? '' : `${whole.n}`;
  return glyph ? head + glyph : `${head}${head ? ' ' : ''}${part.n}\u2044${part.d}`;
}

/**
 * A weight for the bench: whole grams, a decimal below 10 g, kilograms with three decimals from 10 kg.
 *
 * @example
 * sayGrams(rational(1234, 10)) //=> '123 g'
 */
export function sayGrams(grams: Rational): string {
  if (compare(grams, rational(10)) < 0) return `${toDecimal(grams, 1)} g`;
  if (compare(grams, rational(10_000)) < 0) return `${toDecimal(grams, 0)} g`;
  return `${toDecimal(divide(grams, rational(1000)), 2)} kg`;
}

const OUNCE = parseAmount('28.349523125');
const QUARTER = rational(1, 4);
const CUP = rational(48);
const TABLESPOON = rational(3);
const TEASPOON_ML = parseAmount('4.92892159375');

/**
 * A weight as the programme says it: "120 g", or "4¼ oz (120 g)" to the nearest quarter ounce.
 *
 * @example
 * sayWeight(rational(500), 'us') //=> '17¾ oz (500 g)'
 * sayWeight(rational(500), 'metric') //=> '500 g'
 */
export function sayWeight(grams: Rational, system: MeasureSystem): string {
  if (system === 'metric') return sayGrams(grams);
  const quarters = roundHalfEven(divide(divide(grams, OUNCE), QUARTER));
  const ounces = multiply(quarters, QUARTER);
  if (sign(ounces) === 0) return sayGrams(grams);
  if (compare(ounces, rational(32)) >= 0) {
    const pounds = floor(divide(ounces, rational(16)));
    const rest = subtract(ounces, multiply(pounds, rational(16)));
    return `${pounds.n} lb${sign(rest) === 0 ? '' : ` ${sayNumber(rest)} oz`} (${sayGrams(grams)})`;
  }
  return `${sayNumber(ounces)} oz (${sayGrams(grams)})`;
}

/** Pieces: exact where a cook can cut them, to the nearest eighth where not. */
export function sayPieces(amount: Rational, unit: Unit): string {
  const eighths = rational(roundHalfEven(multiply(amount, rational(8))).n, 8);
  const cuttable = [1, 2, 3, 4, 6, 8].includes(Number(amount.d));
  const number = cuttable ? sayNumber(amount) : `about ${sayNumber(sign(eighths) === 0 ? rational(1, 8) : eighths)}`;
  if (unit.key === 'each') return number;
  return `${number} ${compare(amount, rational(1)) > 0 ? `${unit.key}s` : unit.key}`;
}

/**
 * Scoops as a cook says them, largest first: "1½ cups", "2 Tbsp + 1 tsp", "½ cup + ⅓ cup"; in metric "375 ml",
 * "1 Tbsp + ½ tsp".
 *
 * @param scoops sizes in US teaspoons, as measured with the programme's tools
 */
export function sayScoops(scoops: readonly Rational[], system: MeasureSystem): string {
  return system === 'us' ? sayUsScoops(scoops) : sayMetricScoops(scoops);
}

function sayUsScoops(scoops: readonly Rational[]): string {
  const cups = scoops.filter((scoop) => compare(scoop, rational(12)) >= 0).map((scoop) => divide(scoop, CUP));
  const spoons = scoops.filter((scoop) => equals(scoop, TABLESPOON)).length;
  const tsps = scoops.filter((scoop) => compare(scoop, TABLESPOON) < 0);
  const others = scoops.filter((s) => compare(s, TABLESPOON) > 0 && compare(s, rational(12)) < 0);
  const parts = [...sayTogether(cups, 'cup', 'cups')];
  for (const other of others) parts.push(`${sayNumber(divide(other, TABLESPOON))} Tbsp`);
  if (spoons > 0) parts.push(`${spoons} Tbsp`);
  parts.push(...sayTogether(tsps, 'tsp', 'tsp'));
  return parts.join(' + ');
}

/** One number where it can be read off the tools (1 + ½ is 1½), the scoops one by one where not (½ + ⅓). */
function sayTogether(sizes: readonly Rational[], one: string, many: string): string[] {
  if (sizes.length === 0) return [];
  const total = sizes.reduce(add);
  const wholes = sizes.filter((size) => Number(size.d) === 1);
  const parts = sizes.filter((size) => Number(size.d) !== 1);
  const partsTotal = parts.reduce(add, ZERO);
  const word = (amount: Rational) => (compare(amount, rational(1)) > 0 ? many : one);
  // Told as one when the parts are all of one kind, or halves and quarters.
  const oneKind = new Set(parts.map((size) => size.d)).size <= 1;
  const quarters = [1, 2, 4].includes(Number(partsTotal.d)) && parts.every((size) => [2, 4].includes(Number(size.d)));
  if (parts.length === 0 || oneKind || quarters) return [`${sayNumber(total)} ${word(total)}`];
  const said = parts.map((size) => `${sayNumber(size)} ${one}`);
  return wholes.length > 0 ? [`${sayNumber(wholes.reduce(add))} ${word(wholes.reduce(add))}`, ...said] : said;
}

function sayMetricScoops(scoops: readonly Rational[]): string {
  const inMl = scoops.map((scoop) => multiply(scoop, TEASPOON_ML));
  const cups = inMl.filter((ml) => compare(ml, rational(15)) > 0);
  const spoons = inMl.filter((ml) => equals(ml, rational(15))).length;
  const small = inMl.filter((ml) => compare(ml, rational(15)) < 0);
  const parts: string[] = [];
  if (cups.length > 0) parts.push(`${toDecimal(cups.reduce(add), 1)} ml`);
  if (spoons > 0) parts.push(`${spoons} Tbsp`);
  parts.push(
    ...sayTogether(
      small.map((ml) => divide(ml, rational(5))),
      'tsp',
      'tsp',
    ),
  );
  return parts.join(' + ');
}

/** An exact amount with its unit, as a recipe has it: "2 cups", "⅓ cup", "3 cloves", "1½". */
export function sayAmount(amount: Rational, unit: Unit): string {
  if (unit.key === 'each') return sayNumber(amount);
  const hasPlural = unit.key === 'cup' || unit.dimension === 'count';
  return `${sayNumber(amount)} ${unit.key}${hasPlural && compare(amount, rational(1)) > 0 ? 's' : ''}`;
}

/**
 * How many of something: "1 kit", "3 kits".
 *
 * @example
 * sayCount(1, 'kit') //=> '1 kit'
 * sayCount(14, 'kit') //=> '14 kits'
 */
export const sayCount = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;
