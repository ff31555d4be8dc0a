import fc from 'fast-check';
import Fraction from 'fraction.js';
import { describe, expect, it } from 'vitest';
import {
  AmountError,
  add,
  ceil,
  compare,
  divide,
  equals,
  floor,
  multiply,
  type Rational,
  rational,
  roundHalfEven,
  subtract,
  toDecimal,
  toInteger,
  toText,
} from './rational';

/** Small and very large parts, so that both the number and the bigint path are walked. */
const part = fc.oneof(
  fc.integer({ min: -5000, max: 5000 }),
  fc.maxSafeInteger(),
  fc.bigInt({ min: -(10n ** 30n), max: 10n ** 30n }),
);
const fraction = fc
  .tuple(
    part,
    part.filter((d) => d !== 0 && d !== 0n),
  )
  .map(([n, d]) => rational(n, d));
const oracle = (r: Rational) => new Fraction(BigInt(r.n), BigInt(r.d));
const same = (r: Rational, f: Fraction) => expect(toText(r)).toBe(f.toFraction());

describe('exact numbers agree with an independent library', () => {
  it('when they are added, subtracted, multiplied and divided', () => {
    fc.assert(
      fc.property(fraction, fraction, (a, b) => {
        same(add(a, b), oracle(a).add(oracle(b)));
        same(subtract(a, b), oracle(a).sub(oracle(b)));
        same(multiply(a, b), oracle(a).mul(oracle(b)));
        if (b.n !== 0) same(divide(a, b), oracle(a).div(oracle(b)));
        expect(Math.sign(compare(a, b))).toBe(oracle(a).compare(oracle(b)));
      }),
    );
  });

  it('when they are rounded down and up', () => {
    fc.assert(
      fc.property(fraction, (a) => {
        same(floor(a), oracle(a).floor());
        same(ceil(a), oracle(a).ceil());
      }),
    );
  });
});

describe('exact numbers', () => {
  it('are kept in lowest terms, so that equal numbers look equal', () => {
    expect(toText(rational(6, 8))).toBe('3/4');
    expect(rational(0, -5)).toEqual({ n: 0, d: 1 });
    expect(toText(rational(-6, -8))).toBe('3/4');
    expect(equals(rational(10, 5), rational(2))).toBe(true);
    expect(rational(2n ** 60n, 2n ** 59n)).toEqual({ n: 2, d: 1 });
  });

  it('round halves to the even number, once', () => {
    expect([1, 3, 5, -1, -3].map((n) => toText(roundHalfEven(rational(n, 2))))).toEqual(['0', '2', '2', '0', '-2']);
    expect(toDecimal(rational(625, 10_000), 3)).toBe('0.062');
    expect(toDecimal(rational(635, 10_000), 3)).toBe('0.064');
    expect(toDecimal(rational(1, 3), 3)).toBe('0.333');
    expect(toDecimal(rational(-1, 3), 3)).toBe('-0.333');
    expect(toDecimal(rational(5, 2), 0)).toBe('2');
  });

  it('never divide by nothing, and never count what cannot be counted', () => {
    expect(() => rational(1, 0)).toThrow(AmountError);
    expect(() => divide(rational(1), rational(0))).toThrow(AmountError);
    expect(() => toInteger(rational(1, 2))).toThrow('1/2 is not a whole number');
    expect(() => rational(0.5)).toThrow(AmountError);
  });
});
