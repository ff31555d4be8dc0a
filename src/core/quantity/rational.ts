/**
 * Exact numbers: every amount is a fraction until it is shown.
 *
 * A fraction is kept in lowest terms with a positive denominator. Both parts are plain numbers while they are
 * safe integers, and both are bigints from then on, so that ordinary kitchen amounts are fast and no amount is
 * ever rounded.
 */
export type Rational = Readonly<{ n: number; d: number }> | Readonly<{ n: bigint; d: bigint }>;

/** An amount that cannot be read or used; the message says what is wrong and what to write instead. */
export class AmountError extends Error {
  override name = 'AmountError';
}

export const ZERO: Rational = { n: 0, d: 1 };
export const ONE: Rational = { n: 1, d: 1 };

function gcdNumber(a: number, b: number): number {
  while (b !== 0) {
    const r = a % b;
    a = b;
    b = r;
  }
  return a;
}

function gcdBig(a: bigint, b: bigint): bigint {
  while (b !== 0n) {
    const r = a % b;
    a = b;
    b = r;
  }
  return a;
}

const LARGEST = BigInt(Number.MAX_SAFE_INTEGER);

function reduceNumber(n: number, d: number): Rational {
  // 0 over a negative number is -0, which is no other number.
  if (n === 0) return ZERO;
  if (d < 0) {
    n = -n;
    d = -d;
  }
  const g = gcdNumber(n < 0 ? -n : n, d);
  return g === 1 ? { n, d } : { n: n / g, d: d / g };
}

function reduceBig(n: bigint, d: bigint): Rational {
  if (d < 0n) {
    n = -n;
    d = -d;
  }
  const g = gcdBig(n < 0n ? -n : n, d);
  if (g !== 1n) {
    n /= g;
    d /= g;
  }
  return n <= LARGEST && n >= -LARGEST && d <= LARGEST ? { n: Number(n), d: Number(d) } : { n, d };
}

const isSmall = (r: Rational): r is Readonly<{ n: number; d: number }> => typeof r.n === 'number';

/**
 * The fraction n / d in lowest terms.
 *
 * @throws AmountError when d is zero or a part is not a whole number
 * @example
 * toText(rational(6, 4)) //=> '3/2'
 */
export function rational(n: number | bigint, d: number | bigint = 1): Rational {
  if (d === 0 || d === 0n) throw new AmountError('A fraction cannot have 0 below the line.');
  if (typeof n === 'number' && typeof d === 'number' && Number.isSafeInteger(n) && Number.isSafeInteger(d)) {
    return reduceNumber(n, d);
  }
  if ((typeof n === 'number' && !Number.isInteger(n)) || (typeof d === 'number' && !Number.isInteger(d))) {
    throw new AmountError('A fraction is made of whole numbers.');
  }
  return reduceBig(BigInt(n), BigInt(d));
}

/**
 * a + b
 *
 * @example
 * toText(add(rational(1, 3), rational(1, 6))) //=> '1/2'
 */
export function add(a: Rational, b: Rational): Rational {
  if (isSmall(a) && isSmall(b)) {
    if (a.d === b.d) {
      const n = a.n + b.n;
      if (Number.isSafeInteger(n)) return a.d === 1 ? { n, d: 1 } : reduceNumber(n, a.d);
    }
    const left = a.n * b.d;
    const right = b.n * a.d;
    const n = left + right;
    const d = a.d * b.d;
    if (Number.isSafeInteger(left) && Number.isSafeInteger(right) && Number.isSafeInteger(n) && Number.isSafeInteger(d))
      return reduceNumber(n, d);
  }
  const [an, ad, bn, bd] = [BigInt(a.n), BigInt(a.d), BigInt(b.n), BigInt(b.d)];
  return reduceBig(an * bd + bn * ad, ad * bd);
}

/** −a */
export const negate = (a: Rational): Rational => (isSmall(a) ? { n: 0 - a.n, d: a.d } : { n: -a.n, d: a.d });

/**
 * a − b
 *
 * @example
 * toText(subtract(rational(1), rational(1, 3))) //=> '2/3'
 */
export const subtract = (a: Rational, b: Rational): Rational => add(a, negate(b));

/**
 * a × b
 *
 * @example
 * toText(multiply(rational(2, 3), rational(9))) //=> '6'
 */
export function multiply(a: Rational, b: Rational): Rational {
  if (isSmall(a) && isSmall(b)) {
    const n = a.n * b.n;
    const d = a.d * b.d;
    if (Number.isSafeInteger(n) && Number.isSafeInteger(d)) return reduceNumber(n, d);
  }
  return reduceBig(BigInt(a.n) * BigInt(b.n), BigInt(a.d) * BigInt(b.d));
}

/**
 * a ÷ b
 *
 * @throws AmountError when b is zero
 * @example
 * toText(divide(rational(1), rational(3))) //=> '1/3'
 */
export function divide(a: Rational, b: Rational): Rational {
  if (b.n === 0 || b.n === 0n) throw new AmountError('Nothing can be divided by 0.');
  return isSmall(b) ? multiply(a, { n: b.d, d: b.n }) : multiply(a, { n: b.d, d: b.n });
}

/**
 * Negative when a < b, zero when equal, positive when a > b.
 *
 * @example
 * compare(rational(1, 3), rational(1, 2)) < 0 //=> true
 */
export function compare(a: Rational, b: Rational): number {
  if (isSmall(a) && isSmall(b)) {
    const left = a.n * b.d;
    const right = b.n * a.d;
    if (Number.isSafeInteger(left) && Number.isSafeInteger(right)) return left - right;
  }
  const difference = BigInt(a.n) * BigInt(b.d) - BigInt(b.n) * BigInt(a.d);
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}

/** True when both are the same number. */
export const equals = (a: Rational, b: Rational): boolean => a.n === b.n && a.d === b.d;

/**
 * −1, 0 or 1.
 *
 * @example
 * sign(rational(-1, 8)) //=> -1
 */
export const sign = (a: Rational): number => (a.n < 0 ? -1 : a.n > 0 ? 1 : 0);

/** The largest whole number not above a, as a number or bigint. */
function floorInteger(a: Rational): number | bigint {
  if (isSmall(a)) return floorNumber(a.n, a.d);
  const q = a.n / a.d;
  return a.n < 0n && q * a.d !== a.n ? q - 1n : q;
}

/** Exact for safe integers: floating division alone may round up across a whole number. */
function floorNumber(n: number, d: number): number {
  const r = n % d;
  const toward0 = (n - r) / d;
  return r < 0 ? toward0 - 1 : toward0;
}

/**
 * Rounds down to a whole number.
 *
 * @example
 * toText(floor(rational(-3, 2))) //=> '-2'
 */
export const floor = (a: Rational): Rational => rational(floorInteger(a));

/**
 * Rounds up to a whole number.
 *
 * @example
 * toText(ceil(rational(9, 4))) //=> '3'
 */
export const ceil = (a: Rational): Rational => negate(floor(negate(a)));

/**
 * Rounds to the nearest whole number, halves to the even one.
 *
 * @example
 * toText(roundHalfEven(rational(5, 2))) //=> '2'
 */
export function roundHalfEven(a: Rational): Rational {
  const low = floor(a);
  const twice = multiply(subtract(a, low), rational(2));
  const side = compare(twice, ONE);
  if (side !== 0) return side < 0 ? low : add(low, ONE);
  return BigInt(low.n) % 2n === 0n ? low : add(low, ONE);
}

/** A whole number as a plain number. @throws AmountError when it is not whole or too large to be one */
export function toInteger(a: Rational): number {
  if (!isSmall(a) || a.d !== 1) throw new AmountError(`${toText(a)} is not a whole number that can be counted.`);
  return a.n;
}

/**
 * As it crosses a wire or is stored: "3/4", "2", "-1/8".
 *
 * @example toText(rational(6, 8)) //=> '3/4'
 */
export const toText = (a: Rational): string => (a.d === 1 || a.d === 1n ? `${a.n}` : `${a.n}/${a.d}`);

/** What `toText` wrote. @example fromText('3/4') //=> rational(3, 4) */
export function fromText(text: string): Rational {
  const [n = '0', d = '1'] = text.split('/');
  return rational(BigInt(n), BigInt(d));
}

/**
 * The nearest plain number: for estimates and for files of other programs, never to go on reckoning exactly with.
 *
 * @example
 * toNumber(rational(3, 4)) //=> 0.75
 */
export const toNumber = (a: Rational): number => Number(a.n) / Number(a.d);

/**
 * A decimal of at most `places` places, rounded half to even, without trailing zeros.
 *
 * @example toDecimal(rational(1, 3), 3) //=> '0.333'
 */
export function toDecimal(a: Rational, places: number): string {
  const scale = 10n ** BigInt(places);
  const whole = BigInt(roundHalfEven(multiply(a, rational(scale))).n);
  const magnitude = (whole < 0n ? -whole : whole).toString().padStart(places + 1, '0');
  const head = magnitude.slice(0, magnitude.length - places);
  const tail = places === 0 ? '' : magnitude.slice(-places).replace(/0+$/, '');
  return `${whole < 0n ? '-' : ''}${head}${tail ? `.${tail}` : ''}`;
}

/**
 * The larger of two.
 *
 * @example
 * toText(max(rational(2, 3), rational(3, 5))) //=> '2/3'
 */
export const max = (a: Rational, b: Rational): Rational => (compare(a, b) >= 0 ? a : b);
