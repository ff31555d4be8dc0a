// The amount at the beginning of an ingredient line: numbers as cooks write them, ranges, sums, multiples of a pack.
import { parseAmount } from '../../quantity/amount';
import { add, divide, equals, multiply, ONE, type Rational, rational } from '../../quantity/rational';
import { findUnit, type Unit } from '../../quantity/units';
import { isQualifier } from './line-words';
import { LETTERS, PIECES, SPELLINGS, takeUnit, type WrittenUnit } from './unit-words';

/** An amount with both its ends; they are the same where no range was written. */
export interface Span {
  readonly least: Rational;
  readonly most: Rational;
}

/** Something measured: "400 g". */
export interface Measured {
  readonly amount: Span;
  readonly unit: Unit;
}

export interface ReadAmount {
  readonly amount: Span | undefined;
  readonly unit: WrittenUnit | undefined;
  /** What one pack holds: the 400 g of a 400 g can. */
  readonly pack: Measured | undefined;
  /** The same amount said otherwise: "1 cup (240 ml)". */
  readonly also: readonly Measured[];
  /** "heaped", "scant": how full the measure is. */
  readonly fill: string;
  /** "large", "small" … of the piece. */
  readonly size: string;
  /** Taken for granted, said to the coordinator. */
  readonly assumed: readonly string[];
  /** An amount that is left open by the line: "some", "a few". */
  readonly vague: '' | 'few' | 'to taste';
  readonly rest: string;
}

const VULGAR = '½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞';
/** A number: "1 1/2", "1½", "3/4", "1.5", "1,5", "1,000"; not the beginning of a longer one. */
const NUMBER = String.raw`(?:\d+ ?[${VULGAR}]|[${VULGAR}]|\d+[ -]\d+ ?/ ?\d+|\d+ ?/ ?\d+|\d{1,3}(?:,\d{3})+(?!\d)|\d+[.,]\d+|\d+)`;

const WORDS: Readonly<Record<string, string>> = {
  one: '1',
  two: '2',
  three: '3',
  four: '4',
  five: '5',
  six: '6',
  seven: '7',
  eight: '8',
  nine: '9',
  ten: '10',
  eleven: '11',
  twelve: '12',
};

/** What a measure comes in, said behind it. */
const CONTAINER =
  /^(can|tin|jar|tub|bag|pack|packet|package|bottle|carton|block|bar|pouch|ball|box|sachet|net|bunch)(?:es|s)?(?: of)? (?=\p{L})/iu;

const FILL = /^(heaped|heaping|rounded|level|scant|generous|good|full)\b(?!-)\.? ?/i;
/** The British and Australian spoon between the two others: 10 ml. */
const DESSERT_SPOON = /^(?:dessert ?spoon(?:ful)?s?|dsp|dspn|dstsp|dstspn)s?\b\.?(?: of)? /i;
const TWO = rational(2);
const SIZE = /^(extra[- ]large|large|medium|small|big)(?:[- ]sized?)?\b,? ?/i;

/** A number as text, in the form `parseAmount` reads: "1,5" is 1.5, "1,000" is 1000, "1-1/2" is 1 1/2. */
export function plainNumber(text: string): string {
  if (/^\d{1,3}(,\d{3})+$/.test(text)) return text.replace(/,/g, '');
  return text.replace(/^(\d+)-(\d+ ?\/)/, '$1 $2').replace(/^(\d+),(\d+)$/, '$1.$2');
}

/** So many packs of so many pieces; of a measure, it is what one pack holds. */
const PACKS_OF =
  /^(\d+) (?:packs?|packets?|packages?|bags?|trays?|box(?:es)?) of (\d+)(?= (?!k?g\b|m?l\b|oz\b|lbs?\b|gram|kilo|ounce|pound|cup|tbsp|tsp|litre|liter|pint)\p{L})/iu;

/** Half a dozen and its like become numbers, so that the grammar knows only those. */
function spellNumbers(line: string): string {
  return (
    line
      .replace(/^(?:about|approx(?:imately)?\.?|approximately|around|roughly|ca?\.|circa|up to|at least|~|≈)\s*/i, '')
      .replace(/^(?:an? )?generous (?=an? |half|\d)/i, '')
      .replace(/^half a dozen\b/i, '6')
      .replace(/^(?:a|one|1) (?:dozen|doz\.?)\b/i, '12')
      .replace(/^two dozen\b/i, '24')
      .replace(/^(\d+) dozen\b/i, (_, count) => String(Number(count) * 12))
      .replace(/^(?:a )?couple(?: of)?\b/i, '2')
      // "3 packs of 2 chicken breasts"
      .replace(PACKS_OF, (_, packs, count) => String(Number(packs) * Number(count)))
      .replace(/^(?:one[- ])?half(?: of)? (?:an?|the)\b/i, '1/2')
      .replace(/^half\b(?= )/i, '1/2')
      .replace(/^(?:three|3)[- ]quarters?(?: of)?(?: an?| the)?\b/i, '3/4')
      .replace(/^(?:two|2)[- ]thirds?(?: of)?(?: an?| the)?\b/i, '2/3')
      .replace(/^(?:(?:an?|one|1)[- ])?third(?: of)?(?: an?| the)?\b/i, '1/3')
      .replace(/^(?:(?:an?|one|1)[- ])?quarter(?: of)?(?: an?| the)?\b/i, '1/4')
      .replace(
        /^(one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\b/i,
        (word) => WORDS[word.toLowerCase()] ?? word,
      )
      .replace(/^(?:an?|the)\b(?= \d)/i, '1')
      .replace(/^an?\b(?= )/i, '1')
      .replace(/^(\d+) (?:and|&) (?:an?|one) half\b/i, '$1 1/2')
      .replace(/^(\d+) (?:and|&) (?:an?|one) quarter\b/i, '$1 1/4')
  );
}

const VAGUE: readonly (readonly [pattern: RegExp, vague: 'few' | 'to taste'])[] = [
  [/^(?:a )?few (?:gratings|grinds|drops|shakes|twists)(?: of)? /i, 'to taste'],
  [/^(?:a )?few\b ?/i, 'few'],
  [/^several\b ?/i, 'few'],
  [
    /^(?:a )?(?:(?:good|generous|small) )?(?:little|bit|drizzle|splash|squeeze|sprinkle|sprinkling|gratings?|grinds?|dusting|scrapings?|shakes?|knob|lump|touch|glug|slug|lick|dab|dollop)(?: bit)?(?: of)?\b ?/i,
    'to taste',
  ],
  [/^some\b ?/i, 'to taste'],
];

/** Where numbers stand in a line; made once, since a long list is read line by line. */
const BETWEEN = new RegExp(`^between (${NUMBER}) and (${NUMBER})(?= )`, 'i');
const RANGE = new RegExp(`^(${NUMBER})(?: ?[-–—] ?| to | or )(${NUMBER})(?![\\d/])`, 'i');
const SINGLE = new RegExp(`^(${NUMBER})`);
const TIMES = new RegExp(`^[x×*] ?(${NUMBER}) ?-?(\\p{L}+)\\.? `, 'iu');
const SIZED = new RegExp(
  `^(${NUMBER}) ?-?(\\p{L}+)\\.? (?=(?:can|tin|jar|pack|packet|package|bag|carton|box|tub|bottle|block|container|punnet|pouch|ball|bar)e?s?\\b)`,
  'iu',
);
const TWICE = new RegExp(`^/ ?(${NUMBER}) ?(\\p{L}+(?: oz)?)\\.?(?= )`, 'u');
const ADDED = new RegExp(`^(?:\\+|plus|and|&)? ?(${NUMBER}) ?(\\p{L}+(?: oz)?)\\.?(?: |$)`, 'iu');
const MEASURE = new RegExp(
  `^(?:about|approx\\.?|approximately|around|roughly|nearly|just over|just under|ca?\\.|~)? ?(${NUMBER})(?:(?: ?[-–] ?| to )(${NUMBER}))?[ -]?(?:(?:loosely |tightly |firmly |lightly )?(?:packed|heaped|heaping|rounded|level|scant|generous) )?(\\p{L}+\\.?(?: oz)?)(?: each| in total| total| in all| altogether| net| drained| flesh| peeled| prepared| cleaned| trimmed| weight| peeled weight| prepared weight| drained weight| unpeeled| raw| uncooked| raw weight| uncooked weight)?$`,
  'iu',
);
const FOOD_FIRST = new RegExp(
  `^(\\p{L}[^\\d${VULGAR}]*?) ?[-–—:,]? ?(${NUMBER}(?: ?[-–] ?${NUMBER})?) ?(\\p{L}+\\.?)?$`,
  'u',
);

const COUNT_AND_HOW = new RegExp(`^(\\p{L}[\\p{L} ]*?),? (${NUMBER}) (\\p{L}[\\p{L} -]*)$`, 'u');

/** "Scant ½ cup", "a generous 2 tbsp": how full the measure is, said before the number. */
const FULL_BEFORE = new RegExp(`^(?:an? )?(scant|generous|heaped|heaping|rounded|level) (?=${NUMBER})`, 'i');

/** Reads what a line begins with; what follows is left in `rest`. */
export function readAmount(line: string): ReadAmount {
  const [said = '', fill = ''] = FULL_BEFORE.exec(line) ?? [];
  if (said === '') return readCount(line);
  const read = readCount(line.slice(said.length));
  return { ...read, fill: fill.toLowerCase(), assumed: [...read.assumed, `“${fill}” is measured as a level one`] };
}

function readCount(line: string): ReadAmount {
  const assumed: string[] = [];
  for (const [pattern, vague] of VAGUE) {
    if (!pattern.test(line)) continue;
    const rest = line.replace(pattern, '');
    const unit = takeUnit(rest, assumed);
    return {
      ...nothing(),
      vague,
      rest: ofLess(unit && (unit.unit?.dimension ?? 'count') === 'count' ? unit.rest : rest),
      assumed,
    };
  }
  // "1-1/2" and "1 and 1/2" are one and a half.
  const spelled = spellNumbers(line).replace(/^(\d+)(?:-| and | & )(\d+ ?\/ ?\d+)(?![\d/])/i, '$1 $2');
  const between = BETWEEN.exec(spelled);
  const range = RANGE.exec(spelled);
  const single = SINGLE.exec(spelled);
  const [matched = '', first = '', second] = between ?? range ?? single ?? [];
  if (matched === '') {
    // "pinch salt", "small handful raisins": one of it is meant.
    const size = SIZE.exec(spelled)?.[0] ?? '';
    const unit = takeUnit(spelled.slice(size.length), assumed);
    // "Scant teaspoon of salt": how full it is says that one is meant.
    const fill = FILL.exec(spelled)?.[0] ?? '';
    const filled = fill === '' ? undefined : takeUnit(spelled.slice(fill.length), assumed);
    if (filled)
      return {
        ...nothing(),
        amount: { least: ONE, most: ONE },
        unit: { key: filled.key, unit: filled.unit },
        fill: fill.trim().toLowerCase(),
        rest: ofLess(filled.rest),
        assumed: [...assumed, `“${fill.trim()}” is measured as a level one`],
      };
    if (!unit || (unit.unit && unit.unit.dimension !== 'count' && !/pinch|dash|smidgen/.test(unit.key)))
      return { ...nothing(), rest: line };
    const one = { least: ONE, most: ONE };
    return {
      ...nothing(),
      amount: one,
      unit: { key: unit.key, unit: unit.unit },
      size: size.trim(),
      rest: ofLess(unit.rest),
      assumed,
    };
  }
  const least = parseAmount(plainNumber(first));
  const most = second === undefined ? least : parseAmount(plainNumber(second));
  return afterNumber({ least, most }, spelled.slice(matched.length).trim(), assumed);
}

const nothing = (): ReadAmount => ({
  amount: undefined,
  unit: undefined,
  pack: undefined,
  also: [],
  fill: '',
  size: '',
  assumed: [],
  vague: '',
  rest: '',
});

function afterNumber(counted: Span, after: string, assumed: string[]): ReadAmount {
  let amount = counted;
  let rest = after.replace(/^of (?:an?|the) /i, '');
  const take = (pattern: RegExp): string => {
    const found = pattern.exec(rest)?.[0] ?? '';
    rest = rest.slice(found.length);
    return found.trim();
  };
  // "2 x 400 g tins": so many packs of that.
  const times = TIMES.exec(rest);
  const sized = times ?? SIZED.exec(rest);
  let pack: Measured | undefined;
  const packUnit = sized && findUnit(sized[2] ?? '');
  if (sized && packUnit) {
    pack = measured(sized[1] as string, packUnit);
    rest = rest.slice(sized[0].length);
  }
  // "a 400g can": the number was the pack's own.
  const fill = take(FILL).replace(/^(?:good|full)$/i, '');
  const dessert = take(DESSERT_SPOON);
  if (dessert !== '') {
    assumed.push(`a ${dessert.replace(/\.?$/, '').replace(/(?: of)$/, '')} is taken as two teaspoons, 10 ml`);
    amount = { least: multiply(amount.least, TWO), most: multiply(amount.most, TWO) };
    rest = `tsp ${rest}`;
  }
  let size = take(SIZE);
  rest = rest.replace(/^-(?=inch|cm|ounce|oz|g\b|ml\b)/i, '');
  const unit = takeUnit(rest, assumed);
  if (unit) rest = unit.rest;
  if (size === '') size = take(SIZE);
  // "1-inch piece": the piece itself says nothing more.
  if (unit?.key === 'inch' || unit?.key === 'cm' || unit === undefined)
    rest = rest.replace(/^(?:piece|knob|chunk|length)s?(?: of)? /i, '');
  // "400g tin of butter beans", "200g bag spinach": one pack, whose measure was said first.
  const container = unit?.unit && unit.unit.dimension !== 'count' && !pack ? CONTAINER.exec(rest) : null;
  if (container && unit?.unit) {
    const key = PIECES[(container[1] ?? '').toLowerCase()] ?? 'pack';
    const one = { least: ONE, most: ONE };
    return {
      ...nothing(),
      amount: one,
      unit: { key, unit: undefined },
      pack: { amount, unit: unit.unit },
      fill,
      size,
      assumed,
      rest: ofLess(rest.slice(container[0].length)),
    };
  }
  let total = amount;
  const also: Measured[] = [];
  if (unit?.unit) {
    const sum = sumAfter(rest, total, unit.unit);
    if (sum) {
      total = sum.total;
      rest = sum.rest;
    }
  }
  // "675g/1lb 8oz", "1lb 8oz/675g": one amount in two systems; what follows the stroke adds to nothing.
  const twice = TWICE.exec(rest);
  const otherUnit = twice && (findUnit(twice[2] ?? '') ?? findUnit(SPELLINGS[(twice[2] ?? '').toLowerCase()] ?? ''));
  if (twice && otherUnit) {
    const other = measured(twice[1] as string, otherUnit);
    rest = rest.slice(twice[0].length).trim();
    const sum = sumAfter(rest, other.amount, otherUnit);
    also.push(sum ? { amount: sum.total, unit: otherUnit } : other);
    if (sum) rest = sum.rest;
  }
  const written = unit && { key: unit.key, unit: unit.unit };
  if (pack && !written) {
    // "2 x 400 g chickpeas": packs, of whatever kind.
    return {
      ...nothing(),
      amount,
      unit: { key: 'pack', unit: undefined },
      pack,
      also,
      fill,
      size,
      assumed,
      rest: ofLess(rest),
    };
  }
  return { ...nothing(), amount: total, unit: written, pack, also, fill, size, assumed, rest: ofLess(rest) };
}

function measured(number: string, unit: Unit): Measured {
  const amount = parseAmount(plainNumber(number));
  return { amount: { least: amount, most: amount }, unit };
}

const ofLess = (text: string) => text.trim().replace(/^(?:of )?(?:an? |the )|^of /i, '');

/** "1 cup + 2 Tbsp", "1 cup plus 2 Tbsp", "1 lb 4 oz": added up in the first unit. */
function sumAfter(rest: string, total: Span, unit: Unit): { total: Span; rest: string } | undefined {
  const match = ADDED.exec(rest);
  const letter = LETTERS[match?.[2] ?? ''];
  const more = match && findUnit(letter ?? match[2] ?? '');
  if (
    !match ||
    !more ||
    more.dimension !== unit.dimension ||
    unit.dimension === 'count' ||
    equals(more.size, unit.size)
  )
    return undefined;
  const extra = divide(multiply(parseAmount(plainNumber(match[1] as string)), more.size), unit.size);
  return { total: { least: add(total.least, extra), most: add(total.most, extra) }, rest: rest.slice(match[0].length) };
}

/** A measure alone: "400 g", "about 110 g", "15-ounce"; undefined for anything else. */
export function readMeasure(text: string): Measured | undefined {
  const match = MEASURE.exec(text.trim());
  const word = (match?.[3] ?? '').replace(/\.$/, '');
  const unit = findUnit(word) ?? findUnit(SPELLINGS[word.toLowerCase()] ?? '');
  if (!match || !unit) return undefined;
  const least = parseAmount(plainNumber(match[1] as string));
  return { amount: { least, most: match[2] ? parseAmount(plainNumber(match[2])) : least }, unit };
}

/** A number at the end of a line instead of its beginning: "Flour: 250 g", "eggs, 2", "onion, 1 large"; turned round, or undefined. */
export function turnedRound(line: string): string | undefined {
  // "Green chillies - 2, slit": how it comes stays behind.
  const comma = line.indexOf(', ');
  const [told, how] = comma < 0 ? [line, ''] : [line.slice(0, comma), line.slice(comma)];
  if (how && /\d/.test(told) && !/\d/.test(how)) {
    const turned = turnedRound(told);
    return turned && turned + how;
  }
  // "Bananas, 3 very ripe"
  const [, fruit = '', count = '', said = ''] = COUNT_AND_HOW.exec(line) ?? [];
  const kind = said.split(' ');
  const isPiece = PIECES[(kind.at(-1) ?? '').toLowerCase().replace(/s$/, '')] !== undefined && kind.length > 1;
  if (said !== '' && (isPiece ? kind.slice(0, -1) : kind).every(isQualifier)) return `${count} ${said} ${fruit}`;
  const match = FOOD_FIRST.exec(line);
  if (!match) return undefined;
  const [, food = '', number = '', word = ''] = match;
  if (
    word &&
    !SIZE.test(word) &&
    !findUnit(LETTERS[word] ?? word) &&
    !SPELLINGS[word.toLowerCase()] &&
    !PIECES[word.toLowerCase().replace(/s$/, '')]
  )
    return undefined;
  return `${number} ${word} ${food.replace(/[\s:,–—-]+$/, '')}`.replace(/\s+/g, ' ');
}
