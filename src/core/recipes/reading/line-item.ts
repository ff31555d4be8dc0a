import { parseAmount } from '../../quantity/amount';
import { compare, divide, equals, multiply, ONE, type Rational, toDecimal, toText } from '../../quantity/rational';
import { sayNumber } from '../../quantity/say';
import { findUnit, type Unit } from '../../quantity/units';
import { cookedFactor } from '../../reference/cooked';
import { partOf } from '../../reference/parts';
import { findIngredient, type MeasureFact, measuresOf, type Reference, weightOf } from '../../reference/reference';
import type { WrittenItem } from '../recipe/recipe';
import type { Measured, Span } from './amount-reader';
import type { ReadPart } from './line-reader';
import { saidTwice } from './said-twice';
import { ADVICE } from './unexplained';

/** An exact amount as cooks write it: "3/2" is "1 1/2". */
function asWritten(exact: string): string {
  const [n = '', d] = exact.split('/');
  if (!d) return exact;
  const whole = BigInt(n) / BigInt(d);
  return whole > 0n ? `${whole} ${BigInt(n) % BigInt(d)}/${d}` : exact;
}

/** A read ingredient as it can be computed with, and what is still open. */
export interface LineItem {
  /** Undefined while something is open. */
  readonly item: WrittenItem | undefined;
  /** Questions that only a person can answer; empty when the item is complete. */
  readonly open: readonly string[];
  /** What was taken for granted: said, never silent. */
  readonly assumed: readonly string[];
}

/**
 * The small amounts that "to taste" stands for, in a recipe of about four: what a careful cook begins with, since a kit
 * is measured. Ours, not a standard; the coordinator changes them on the line.
 */
const TASTE: readonly (readonly [test: RegExp, amount: string, unit: string])[] = [
  [/^(?:kosher |sea )?salt(?: flakes)?$/, '1/4', 'tsp'],
  [/(?:black|white|cayenne) pepper$|chilli|paprika|cumin|nutmeg|cinnamon|spice|powder|flakes/, '1/8', 'tsp'],
  [/oil$|butter$|margarine|ghee/, '1', 'Tbsp'],
  [/^fresh |chives|seeds$/, '1', 'Tbsp'],
  [/flour$|sugar$/, '1', 'Tbsp'],
  [/honey|syrup|juice|vinegar|sauce|mustard/, '1', 'Tbsp'],
  [/milk$|^water$| drink$|stock$/, '1', 'Tbsp'],
  [/cream$|yogurt$|^parmesan cheese$/, '2', 'Tbsp'],
  [/^spring onion$/, '1', 'each'],
  [/^(?:salsa|guacamole|hummus)$/, '4', 'Tbsp'],
];

/** What a can, or a thumb of a root, holds where nobody says: the size that both sides of the Atlantic sell most, 400 g or 15 oz. */
const USUAL_SIZE: readonly (readonly [piece: string, foods: RegExp, size: string, unit: string])[] = [
  [
    'can',
    /^(?:canned chopped tomatoes|whole peeled tomatoes|canned (?:chickpeas|(?:black|kidney|white|pinto|butter|borlotti|black-eyed|mixed) beans|lentils|green lentils)|refried beans|baked beans)$/,
    '400',
    'g',
  ],
  ['can', /^coconut milk$/, '400', 'ml'],
  ['knob', /^(?:fresh ginger|galangal|fresh turmeric)$/, '15', 'g'],
];

/** Ways of cutting that weigh nearly the same in a cup. */
const ALIKE: readonly (readonly string[])[] = [
  ['chopped', 'diced', 'cubed', 'pieces', 'cut', 'florets', 'minced'],
  ['grated', 'shredded'],
  ['cubed', 'torn'],
  ['minced', 'crushed'],
  ['leaves', 'whole leaves', 'raw leaves'],
];

/**
 * Settles a read ingredient against the reference table.
 *
 * @param chosen a food that the coordinator chose for it, by its name in the table
 */
export function lineItem(part: ReadPart, reference: Reference, chosen?: string): LineItem {
  const open: string[] = [];
  const assumed = [...part.assumed];
  const ingredient = findIngredient(reference, chosen ?? part.ingredient ?? '');
  if (part.problem) open.push(part.problem);
  open.push(
    ...part.unexplained.map(
      (words) =>
        `“${words}”: is that another food, or how it comes? Give it a line of its own, say it otherwise, or take it away: nothing in a line is passed over.`,
    ),
  );
  if (!ingredient) {
    open.push(part.food ? `Which food is “${part.food}”?` : 'Which food is it?');
    return { item: undefined, open, assumed };
  }
  const { name } = ingredient;
  const measured = part.vague
    ? tasteOf(part, name, assumed, open)
    : amountOf(part, name, measuresOf(reference, name), assumed, open);
  if (!measured || open.length > 0) return { item: undefined, open, assumed };
  if (part.isReserved && measured.unit.dimension !== 'count') {
    const { amount, unit } = measured;
    assumed.push(`poured off the ${name}, not bought`);
    const item = { ingredient: name, preparation: 'liquid', amount: asWritten(amount), unit: unit.key, reserved: true };
    return { item: item as WrittenItem, open, assumed };
  }
  const preparation = preparationOf(part, name, measured.unit, reference, assumed);
  const ownWeight = part.also.find(({ unit }) => unit.dimension === 'mass');
  // "4 cups cubed sourdough (about 8 oz)": where no cup of it is known, the recipe's own weight is.
  if (preparation === undefined && ownWeight && !part.alsoEach && !part.pack) {
    assumed.push(`taken by its own weight, ${sayNumber(ownWeight.amount.most)} ${ownWeight.unit.key}`);
    return { item: byOwnWeight(part, name, ownWeight, reference, assumed, open), open, assumed };
  }
  if (preparation === undefined) {
    const known = measuresOf(reference, name).map(sayRow);
    open.push(
      known.length > 0
        ? `How much does one ${measured.unit.key} weigh? Known for ${name}: ${known.join('; ')}. Say it in one of these, or in g.`
        : `How much does one ${measured.unit.key} of ${name} weigh? Say the amount in g.`,
    );
    return { item: undefined, open, assumed };
  }
  const twice = saidTwice(part, name, measured, preparation, reference);
  if (twice === 'apart') {
    const other = part.also[0] as Measured;
    open.push(
      `${asWritten(measured.amount)} ${measured.unit.key} and ${sayNumber(other.amount.most)} ${other.unit.key} are not the same amount of ${name}: which is meant? Leave one of them.`,
    );
    return { item: undefined, open, assumed };
  }
  if (twice && measured.unit.dimension === 'volume') {
    const own = `${sayNumber(twice.amount.most)} ${twice.unit.key}`;
    assumed.push(
      twice.typical === ''
        ? `taken as ${own}, as the line says: its tablespoon holds 20 ml`
        : `taken by its own weight, ${own}: ${asWritten(measured.amount)} ${measured.unit.key} would be ${twice.typical} g by the table`,
    );
    return { item: byOwnWeight(part, name, twice, reference, assumed, open), open, assumed };
  }
  if (part.cookedAfter && cookedFactor(name) && measured.unit.dimension === 'volume') {
    const amount = `${asWritten(measured.amount)} ${measured.unit.key}`;
    open.push(
      `“cooked”: were the ${amount} measured before or after? Write “${amount} cooked ${name}”, or “uncooked”.`,
    );
    return { item: undefined, open, assumed };
  }
  // "1 lb macaroni, cooked and drained" is weighed as it is bought.
  const isWeighedRaw = part.cookedAfter && measured.unit.dimension === 'mass' && cookedFactor(name) !== undefined;
  if (isWeighedRaw) assumed.push(`weighed before it is cooked: “cooked” stands behind ${name}`);
  const raw =
    !isWeighedRaw && COOKED.test(preparation)
      ? boughtRaw(part, name, measured, reference, part.pack ? [] : assumed)
      : undefined;
  // Three times its weight in water, or none: nobody can tell which was measured.
  if (!raw && !isWeighedRaw && !part.cookedAfter && COOKED.test(part.preparation) && SWELLS.test(name)) {
    open.push(askDry(name));
    return { item: undefined, open, assumed };
  }
  if (raw && part.pack) {
    open.push(
      `A pack of cooked ${name} is bought ready to eat. Add it as a food of its own, or say how much is cooked from raw: ${raw.amount} g.`,
    );
    return { item: undefined, open, assumed };
  }
  return {
    item: raw ?? {
      ingredient: name,
      ...(preparation ? { preparation } : {}),
      amount: asWritten(measured.amount),
      unit: measured.unit.key,
      ...(measured.sealedGrams ? { sealed_grams: measured.sealedGrams } : {}),
      ...(measured.range ? { range: measured.range } : {}),
    },
    open,
    assumed,
  };
}

const COOKED = /(?<![-\p{L}])cooked\b/iu;

/** What takes up water as it cooks. */
const SWELLS =
  /rice$|pasta|noodles$| dal$| lentils$| peas$|^dried .*beans$|^dried chickpeas$|^(?:couscous|giant couscous|bulgur wheat|quinoa|farro|freekeh|amaranth|millet|buckwheat|polenta|oatmeal|spaghetti|penne|macaroni|fusilli|tagliatelle|rigatoni|farfalle|orzo|textured soya protein)$| oats$/;

const askDry = (name: string): string =>
  `How much ${name} is that dry? What it weighs cooked is not known for this measure: say the dry amount, as “uncooked”.`;

/** What the recipe itself weighs of it: "2 cups (320 g) cooked rice" is bought dry as well. */
function byOwnWeight(
  part: ReadPart,
  name: string,
  own: Measured,
  reference: Reference,
  assumed: string[],
  open: string[],
): WrittenItem | undefined {
  const weight = { amount: asWritten(toText(own.amount.most)), unit: own.unit };
  const isCooked = COOKED.test(part.preparation) && !part.cookedAfter;
  const raw =
    isCooked && own.unit.dimension === 'mass'
      ? boughtRaw({ ...part, amount: own.amount }, name, weight, reference, assumed)
      : undefined;
  if (!raw && isCooked && SWELLS.test(name)) {
    open.push(askDry(name));
    return undefined;
  }
  const item = { ingredient: name, amount: weight.amount, unit: own.unit.key };
  return raw ?? (part.preparation ? { ...item, preparation: part.preparation } : item);
}

/** A cooked amount as it is bought and packed: dry or raw, by weight; undefined where the factor is not known. */
function boughtRaw(
  part: ReadPart,
  name: string,
  { amount, unit }: MeasuredPart,
  reference: Reference,
  assumed: string[],
): WrittenItem | undefined {
  const factor = cookedFactor(name);
  if (!factor) return undefined;
  const cooked = multiply(parseAmount(amount), weightOf(reference, name, 'cooked', unit).grams);
  const dry = divide(cooked, factor);
  const grams = toDecimal(dry, 0);
  const times = sayNumber(factor);
  assumed.push(
    `bought ${compare(factor, ONE) > 0 ? 'dry' : 'raw'}, ${grams} g: ${toDecimal(cooked, 0)} g cooked ÷ ${times}, a typical factor`,
  );
  const { least, most } = part.amount as Span;
  /** An end of the range, as the same share of what the other came to. */
  const end = (of: Rational) => toDecimal(divide(multiply(dry, of), parseAmount(amount)), 0);
  const range = equals(least, most) ? undefined : { least: end(least), most: end(most) };
  return { ingredient: name, amount: grams, unit: 'g', ...(range ? { range } : {}) };
}

interface MeasuredPart {
  readonly amount: string;
  readonly unit: Unit;
  readonly sealedGrams?: string;
  readonly range?: { readonly least: string; readonly most: string };
}

function tasteOf(part: ReadPart, name: string, assumed: string[], open: string[]): MeasuredPart | undefined {
  const small = TASTE.find(([test]) => test.test(name));
  if (!small) {
    open.push(`How much ${name}? The line does not say.`);
    return undefined;
  }
  const [, amount, unit] = small;
  const said = part.vague === 'few' ? 'a few' : 'to taste';
  assumed.push(`“${said}” is taken as ${amount} ${unit} ${name}`);
  return { amount, unit: findUnit(unit) as Unit };
}

function amountOf(
  part: ReadPart,
  name: string,
  measuresKnown: readonly MeasureFact[],
  assumed: string[],
  open: string[],
): MeasuredPart | undefined {
  const amount = oneOf(part.amount as Span, name, assumed, open);
  if (!amount) return undefined;
  const { unit } = part.unit ?? {};
  if (part.pack) {
    const one = part.pack.amount.least;
    const total = toText(multiply(amount, one));
    // A pack of a weight stays whole: it is sealed.
    const grams = part.pack.unit.dimension === 'mass' ? toText(multiply(one, part.pack.unit.size)) : undefined;
    return { amount: total, unit: part.pack.unit, ...(grams ? { sealedGrams: grams } : {}) };
  }
  const { least, most } = part.amount as Span;
  const range = equals(least, most)
    ? {}
    : { range: { least: asWritten(toText(least)), most: asWritten(toText(most)) } };
  const isLeaves = part.unit?.key === 'each' && /\blea(?:f|ves)\b/i.test(part.food);
  // The recipe's own weight goes before what the table says of a piece or a handful.
  const weighed = part.also.find((each) => each.unit.dimension === 'mass');
  if (weighed && (!unit || unit.dimension === 'count')) {
    const total = part.alsoEach ? multiply(weighed.amount.most, amount) : weighed.amount.most;
    assumed.push(
      `taken by its own weight, ${sayNumber(total)} ${weighed.unit.key}${part.alsoEach ? '' : ' for all of them'}`,
    );
    return { amount: toText(total), unit: weighed.unit };
  }
  if (unit && !isLeaves) return { amount: toText(amount), unit, ...range };
  // A measure in brackets says how much a piece is: "1 onion (about 110 g)" needs it only where pieces have no weight.
  const [also] = part.also;
  const word =
    isLeaves && measuresKnown.some(({ measure }) => measure === 'leaf') ? 'leaf' : (part.unit?.key ?? 'each');
  if (also && word !== 'each') {
    assumed.push(`taken by its measure, ${sayNumber(also.amount.least)} ${also.unit.key}`);
    return { amount: toText(also.amount.least), unit: also.unit };
  }
  // One cabbage is a head of it.
  const knows = (wanted: string) => measuresKnown.some(({ measure }) => measure === wanted);
  const other =
    word === 'each' ? 'head' : word === 'head' || (word === 'sheet' && IN_SHEETS.test(name)) ? 'each' : word;
  const piece = findUnit(!knows(word) && knows(other) ? other : word);
  const isWeighed = measuresKnown.some(({ measure }) => measure === word);
  if (also && !isWeighed) {
    const isEach = part.alsoEach;
    const total = isEach ? multiply(also.amount.least, amount) : also.amount.least;
    assumed.push(
      `taken by its measure in brackets, ${sayNumber(total)} ${also.unit.key}${isEach ? '' : ' for all of them'}`,
    );
    return { amount: toText(total), unit: also.unit };
  }
  if (piece && also)
    assumed.push(`counted by the piece: the ${sayNumber(also.amount.least)} ${also.unit.key} in brackets are not used`);
  if (piece) return { amount: toText(amount), unit: piece, ...range };
  const usual = USUAL_SIZE.find(([piece, foods]) => piece === word && foods.test(name));
  if (usual) {
    const [, , size, key] = usual;
    assumed.push(`a ${part.unit?.key ?? word} of ${name} is taken as ${size} ${key}`);
    const total = toText(multiply(amount, parseAmount(size)));
    // A can stays whole: it is sealed.
    const sealed = word === 'can' && key === 'g' ? { sealedGrams: size } : {};
    return { amount: total, unit: findUnit(key) as Unit, ...sealed };
  }
  open.push(
    `How much is one ${word} of ${name}? Add it in brackets, such as “(${/^(?:handful|sprig|knob)$/.test(word) ? 15 : 200} g)”.`,
  );
  return undefined;
}

/** Of a range the kits use one end: the upper, so that nobody runs short; of salt and chilli the lower. */
function oneOf({ least, most }: Span, name: string, assumed: string[], open: string[]): Rational | undefined {
  if (equals(least, most)) return least;
  if (compare(least, most) > 0) {
    open.push(`The range runs backwards: ${sayNumber(least)} to ${sayNumber(most)}. Which is meant?`);
    return undefined;
  }
  const used = /^salt$|chilli|(?:black|white|cayenne) pepper$/.test(name) ? least : most;
  assumed.push(`of ${sayNumber(least)} to ${sayNumber(most)}, kits use ${sayNumber(used)}`);
  return used;
}

const sayRow = ({ measure, preparation }: MeasureFact) => (preparation ? `${measure}, ${preparation}` : measure);

/** Of ways of cutting that weigh nearly the same, the middle one: a cup of carrots is 110 g grated, 122 g sliced, 128 g chopped. */
function middleOf(rows: readonly MeasureFact[]): MeasureFact | undefined {
  const sorted = rows
    .filter(({ preparation, measure }) => preparation !== 'cooked' && measure === rows[0]?.measure)
    .toSorted((a, b) => Number(a.grams) - Number(b.grams));
  const [least, most] = [sorted[0], sorted.at(-1)];
  return least && most && Number(most.grams) <= ALMOST * Number(least.grams) ? sorted[sorted.length >> 1] : undefined;
}

/** One of them is a sheet. */
const IN_SHEETS = /nori|lasagne|filo|rice paper|wrappers|graham/;

/** Within a fifth of each other: no cook fills a cup more exactly. */
const ALMOST = 1.25;

/** Air goes out of it: a cup of it mashed weighs far more than one of its pieces. */
const MASHED = /\b(?:mashed|pur[ée]e[ds]?|smashed)\b/u;

/** The preparation under which the table knows the weight of such a unit; undefined when it knows none. */
function preparationOf(
  part: ReadPart,
  name: string,
  unit: Unit,
  reference: Reference,
  assumed: string[],
): string | undefined {
  // "Egg yolks (save the whites)": what else to do weighs nothing.
  const said = part.preparation
    .split(/, ?/)
    .filter((segment) => !ADVICE.test(segment))
    .join(', ')
    .toLowerCase()
    .replace(/\bwhites\b/, 'white')
    .replace(/\byolks\b/, 'yolk')
    .replace(/\bjuiced\b/, 'juice')
    .replace(/\bzested\b/, 'zest');
  const isCitrus = measuresOf(reference, name).some((row) => row.preparation === 'zest');
  const asked = isCitrus ? said.replace(/\b(?:rind|peel)\b/, 'zest') : said;
  if (unit.dimension === 'mass') return part.preparation;
  const rows = measuresOf(reference, name).filter((row) =>
    unit.dimension === 'count' ? row.measure === unit.key : findUnit(row.measure)?.dimension === unit.dimension,
  );
  const words = (text: string) =>
    text
      .toLowerCase()
      .split(/[^\p{L}]+/u)
      .filter(Boolean);
  const isIn = (preparation: string) =>
    preparation !== '' && words(preparation).every((word) => words(asked).includes(word));
  const exact = rows.find((row) => row.preparation === asked) ?? rows.find((row) => isIn(row.preparation));
  if (exact) return exact.preparation;
  const alike = ALIKE.flatMap((group) => (group.some((word) => words(asked).includes(word)) ? group : []));
  const near = rows.find((row) => words(row.preparation).some((word) => alike.includes(word)));
  const partly = rows.find((row) => words(row.preparation).some((word) => words(asked).includes(word)));
  // Grains, pulses and pasta that nobody calls cooked are raw; nuts and berries that nobody calls cut are whole.
  const plain = ['', 'raw', 'whole'].flatMap((as) => rows.find((row) => row.preparation === as) ?? [])[0];
  // Nobody who writes “eggs” means the whites.
  const usual = partOf(name, '');
  const wholes = rows.filter((row) => partOf(name, row.preparation) === usual);
  const kinds = new Set(wholes.map((row) => row.preparation));
  // Juice and zest of one lemon are the whole lemon.
  const both = /\bjuice\b/.test(asked) && /\bzest\b/.test(asked) ? plain : undefined;
  if (unit.dimension === 'volume' && !near && !partly && MASHED.test(asked)) return undefined;
  const row = both ?? near ?? partly ?? plain ?? (kinds.size === 1 ? wholes[0] : middleOf(wholes));
  if (!row) return undefined;
  if (row.preparation !== '') assumed.push(`weighed as ${name}, ${row.preparation}`);
  else if (said !== '' && !/^(?:divided|plus |to |for )/.test(said))
    assumed.push(`“${part.preparation}” does not change the weight of ${name}`);
  return row.preparation;
}
