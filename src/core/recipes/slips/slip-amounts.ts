import { toDecimal } from '../../quantity/rational';
import { amountSlip, FLOUR, sum } from './amount-slip';
import type { Slip, Weighed } from './slip';
import { isNamed, namedMost, usualMost } from './usual-amounts';

/** Where it is not said how many it serves: a plate of so many grams, and four at the least. */
const USUAL_PORTION = 300;
/** Of a cake or a loaf, a slice. */
const USUAL_SLICE = 90;
const LEAST_PORTIONS = 4;

/** Lines whose amount is far from what a serving, or a dish, usually takes. */
export function amountSlips(weighed: readonly Weighed[], servings: number | undefined, title = ''): Slip[] {
  const total = sum(weighed, () => true);
  const isBaked = sum(weighed, ({ name }) => FLOUR.test(name)) > 0.15 * total;
  const portions = servings ?? Math.max(LEAST_PORTIONS, total / (isBaked ? USUAL_SLICE : USUAL_PORTION));
  return [
    ...weighed.flatMap((each) => perServing(each, portions, weighed, title) ?? []),
    ...weighed.flatMap((each) => tooMany(each, servings) ?? []),
    ...weighed.flatMap((each) => pungent(each, weighed) ?? []),
  ];
}

const PICKLED = /\b(?:pickle[ds]?|pickling|brined?|ferment\w*|cured|preserved|sauerkraut|kimchi|chutney|relish)\b/i;

function perServing(each: Weighed, servings: number, weighed: readonly Weighed[], title: string): Slip | undefined {
  const { name, aisle } = each.item.ingredient;
  const grams = each.grams / servings;
  const [usual, said] = usualMost(each.item.ingredient);
  const most = isNamed(name, title) ? namedMost(usual, each.item.ingredient) : usual;
  // Whole heads of garlic are meant where they are a main part of it: roasted, or laid in oil.
  const isMain = each.grams > 0.15 * sum(weighed, () => true);
  if (name === 'garlic' && each.item.unit.key === 'head' && isMain && grams < 60) return undefined;
  // A loaf or a cake that makes one is no plate.
  if (/ flour$/.test(name) && servings < 4) return undefined;
  // What is laid in brine or vinegar leaves most of it in the jar.
  const isLaid = PICKLED.test(title) && /salt|vinegar|sugar$/.test(name);
  if (grams <= (isLaid ? 4 * most : most) || aisle === 'tap' || /stock$|milk$/.test(name)) return undefined;
  const shown = grams < 10 ? grams.toFixed(1) : Math.round(grams);
  return amountSlip(
    each,
    `${shown} g of ${name} a serving is far more than usual: check amount and unit.`,
    `A serving usually holds at most ${most} g, ${said}.`,
  );
}

/** Spices by the piece that a dish holds few of, whatever its size: more than this, and more than one for every two servings. */
const FEW_PIECES: readonly (readonly [test: RegExp, most: number])[] = [
  [/^bay leaf$/, 4],
  [/^(?:cinnamon stick|star anise)$/, 4],
  [/^vanilla pod$/, 2],
  [/^whole cloves$/, 20],
  [/^cardamom pods$/, 20],
  [/stock cube$|^bouillon cube$/, 4],
  [/^(?:kosher |sea )?salt(?: flakes)?$/, 6],
];

function tooMany(each: Weighed, servings = 4): Slip | undefined {
  const { name } = each.item.ingredient;
  const [, most] = FEW_PIECES.find(([test]) => test.test(name)) ?? [];
  if (most === undefined || each.item.unit.dimension !== 'count') return undefined;
  const count = Number(toDecimal(each.item.amount, 2));
  const usual = Math.max(most, (most / 8) * servings);
  return count > usual
    ? amountSlip(
        each,
        `${count} of ${name} is far more than usual.`,
        `A dish for ${servings} holds at most ${usual} of it.`,
      )
    : undefined;
}

/** Of roots and bulbs as strong as these, so large a share of all of it burns; where they are more, they are what is made. */
const PUNGENT_SHARE = { from: 0.035, to: 0.12, grams: 25 };

function pungent(each: Weighed, weighed: readonly Weighed[]): Slip | undefined {
  const { name } = each.item.ingredient;
  const share = each.grams / sum(weighed, () => true);
  const { from, to, grams } = PUNGENT_SHARE;
  return /^(?:garlic|fresh ginger|horseradish|fresh chilli)$/.test(name) &&
    each.grams > grams &&
    share > from &&
    share < to
    ? amountSlip(
        each,
        `${Math.round(100 * share)} % of all of it is ${name}.`,
        'Usual are 1 to 3 %: check amount and unit.',
      )
    : undefined;
}
