// The times that a text tells: figures and words, ranges, halves, sides.
const NUMBER = String.raw`(?:three[- ]quarters of an|(?:a )?quarter of an|(?:\d+\s)?\d+\/\d+|\d+(?:[.,]\d+)?(?:\s?[½¼¾⅓⅔])?|[½¼¾⅓⅔]|an?|one|two|three|four|five|six|eight|ten|twelve|fifteen|twenty|thirty|half an|a few)`;
const TIME = new RegExp(
  String.raw`(${NUMBER})(?:\s?(?:-|–|to|or)\s?(${NUMBER}))?\s?-?(seconds?|secs?|minutes?|mins?|hours?|hrs?|h\b|min\b|days?)(?:\s(?:and\s)?(?:a\s)?(half))?(?:\s?(?:on\s)?(?:each|per|a|either|both)\s?sides?)?`,
  'gi',
);
const WORDS: Readonly<Record<string, number>> = {
  a: 1,
  an: 1,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  eight: 8,
  ten: 10,
  twelve: 12,
  fifteen: 15,
  twenty: 20,
  thirty: 30,
  'half an': 0.5,
  'quarter of an': 0.25,
  'a quarter of an': 0.25,
  'three quarters of an': 0.75,
  'three-quarters of an': 0.75,
  'a few': 3,
};
const VULGAR: Readonly<Record<string, number>> = { '½': 0.5, '¼': 0.25, '¾': 0.75, '⅓': 1 / 3, '⅔': 2 / 3 };

function numberOf(text: string): number {
  const words = WORDS[text.toLowerCase()];
  if (words !== undefined) return words;
  const fraction = /^(?:(\d+)\s)?(\d+)\/(\d+)$/.exec(text);
  if (fraction) return Number(fraction[1] ?? 0) + Number(fraction[2]) / Math.max(1, Number(fraction[3]));
  const part = VULGAR[text.slice(-1)] ?? 0;
  return Number.parseFloat(text.replace(',', '.').replace(/[½¼¾⅓⅔]/, '') || '0') + part;
}

/** A time as a text tells it. */
export interface ToldTime {
  readonly words: string;
  /** Where it stands in the text. */
  readonly at: number;
  /** The longer end of a range; a side counts twice. */
  readonly minutes: number;
}

const EACH: readonly (readonly [unit: RegExp, minutes: number])[] = [
  [/^s/i, 1 / 60],
  [/^h/i, 60],
  [/^d/i, 1440],
];

/**
 * Every time that a text tells, in its order.
 *
 * @example
 * toldTimes('Simmer for 20 to 25 minutes.') //=> [{ words: '20 to 25 minutes', at: 11, minutes: 25 }]
 * toldTimes('Fry for 2 minutes on each side.')[0]?.minutes //=> 4
 * toldTimes('Rest for a quarter of an hour.')[0]?.minutes //=> 15
 */
export const toldTimes = (text: string): ToldTime[] =>
  [...text.matchAll(TIME)].map(({ 0: words, 1: first = '', 2: second, 3: unit = '', 4: half, index: at }) => {
    const number = numberOf(second ?? first) + (half ? 0.5 : 0);
    const each = EACH.find(([test]) => test.test(unit))?.[1] ?? 1;
    return { words, at, minutes: number * each * (/sides?$/i.test(words) ? 2 : 1) };
  });
