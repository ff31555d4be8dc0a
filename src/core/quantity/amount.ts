import { AmountError, add, type Rational, rational, sign } from './rational';

const VULGAR: Readonly<Record<string, readonly [number, number]>> = {
  '½': [1, 2],
  '⅓': [1, 3],
  '⅔': [2, 3],
  '¼': [1, 4],
  '¾': [3, 4],
  '⅕': [1, 5],
  '⅖': [2, 5],
  '⅗': [3, 5],
  '⅘': [4, 5],
  '⅙': [1, 6],
  '⅚': [5, 6],
  '⅛': [1, 8],
  '⅜': [3, 8],
  '⅝': [5, 8],
  '⅞': [7, 8],
};

const PLAIN = /^\d+$/;

/** No kitchen amount is longer than this; longer text is a mistake or an attack. */
const LONGEST = 40;

/**
 * Reads an amount as a cook writes it, exactly.
 *
 * @param text "2", "3/4", "1 1/2", "1½", "1.25"; spaces around and the fraction slash (U+2044) are accepted
 * @returns the exact number, zero or above; a sign is refused
 * @throws AmountError naming what was written and how to write it
 * @example parseAmount('1 1/3') //=> 4/3
 */
export function parseAmount(text: string): Rational {
  // Most amounts are a plain small number.
  if (text.length < 10 && PLAIN.test(text)) return rational(Number(text));
  const trimmed = text
    .trim()
    .replace(/[\u2044\u2215]/g, '/')
    .replace(/\s+/g, ' ');
  if (trimmed === '' || trimmed.length > LONGEST) return refuse(trimmed);
  const vulgar = /^(\d*) ?([½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞])$/.exec(trimmed);
  if (vulgar) {
    const [n, d] = VULGAR[vulgar[2] as string] as readonly [number, number];
    return add(rational(integer(vulgar[1] || '0')), rational(n, d));
  }
  const mixed = /^(?:(\d+) )?(\d+) ?\/ ?(\d+)$/.exec(trimmed);
  if (mixed) {
    const [, whole = '0', n = '', d = ''] = mixed;
    if (/^0+$/.test(d)) throw new AmountError(`"${trimmed}" divides by 0. Write a fraction such as 1/2.`);
    return add(rational(integer(whole)), rational(integer(n), integer(d)));
  }
  const decimal = /^(\d+)(?:\.(\d+))?$/.exec(trimmed);
  if (decimal) {
    const [, whole = '', fraction = ''] = decimal;
    return rational(integer(whole + fraction), integer(`1${'0'.repeat(fraction.length)}`));
  }
  return refuse(trimmed);
}

function refuse(text: string): never {
  throw new AmountError(`"${text.slice(0, LONGEST)}" is not an amount. Write a number such as 2, 3/4, 1 1/2 or 1.25.`);
}

/** Digits as a whole number: a plain one while it is safe. */
const integer = (digits: string): number | bigint => (digits.length <= 15 ? Number(digits) : BigInt(digits));

/**
 * Reads an amount that must be more than nothing. @throws AmountError when it is zero or cannot be read
 *
 * @example
 * toText(parsePositiveAmount('1 1/2')) //=> '3/2'
 */
export function parsePositiveAmount(text: string): Rational {
  const amount = parseAmount(text);
  if (sign(amount) <= 0) throw new AmountError(`"${text.trim()}" must be more than 0.`);
  return amount;
}
