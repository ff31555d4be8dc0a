import { toDecimal } from '../../quantity/rational';
import { amountSlip, sum } from './amount-slip';
import type { Slip, Weighed } from './slip';

/** The most of a food that a serving usually holds, in grams; beyond it one asks. Typical of family recipes, ours. */
const USUAL: readonly (readonly [test: RegExp, grams: number, said: string])[] = [
  [/^(?:kosher |sea )?salt(?: flakes)?$/, 2.5, 'half a teaspoon of salt'],
  [/^(?:cayenne pepper|chilli flakes)$/, 1.5, 'a pinch of hot chilli'],
  [/^garlic$/, 4, 'a good clove of garlic'],
  [/^fresh ginger$/, 10, 'a small piece of ginger'],
  [/^(?:fresh chilli|jalapeno pepper|scotch bonnet|bird's eye chilli|poblano pepper)$/, 15, 'a whole chilli'],
  [/^vanilla extract$/, 4, 'a teaspoon of vanilla'],
  [/ oil$/, 30, 'two spoons of oil'],
  [/^(?:butter|margarine|lard|ghee)$/, 60, 'four spoons of fat'],
  [/ sugar$/, 60, 'five spoons of sugar'],
  [/^(?:honey|.* syrup|molasses)$/, 60, 'three spoons of syrup'],
  [/^(?:lemon|lime)$/, 120, 'a whole one'],
  [/ vinegar$/, 40, 'three spoons of something sour'],
  [/^(?:chilli powder|paprika|smoked paprika|curry powder|taco seasoning)$/, 6, 'two teaspoons of a mild spice'],
  [/^(?:soy sauce|tamari)$/, 25, 'a spoon and a half of soy sauce'],
  [/^(?:fish sauce|worcestershire sauce|hot sauce|mustard)$/, 15, 'a spoon of it'],
  [/^(?:mayonnaise|tahini|pesto)$/, 60, 'four spoons of it'],
  [/^(?:peanut butter|almond butter)$/, 80, 'five spoons of nut butter'],
  [/^(?:double|single|soured|whipping) cream$|^creme fraiche$|^mascarpone$|^cream cheese$/, 150, 'half a cup of cream'],
  [/ cheese$/, 150, 'a whole ball of cheese'],
  [/^(?:dark|milk|white) chocolate$/, 120, 'a bar of chocolate'],
  [/^tomato paste$/, 60, 'four spoons of paste'],
  [/^cocoa powder$/, 30, 'a third of a cup'],
  [/^egg$/, 150, 'three eggs'],
  [/breadcrumbs$/, 70, 'a cup of crumbs'],
  [/ flour$/, 180, 'a cup and a half of flour'],
  [/^fresh (?:parsley|coriander|basil|mint|dill|thyme|sage|rosemary)$/, 30, 'a bunch of herbs for three'],
];
/** Of dry spices and herbs, a teaspoon. */
const SPICE_GRAMS = 2.5;
/** Of anything at all, by where it is bought: a large portion of it as the main thing on a plate. */
const ANY_GRAMS: Readonly<Record<string, number>> = { meat: 450, dry: 220, produce: 550, bakery: 300, dairy: 400 };
const ANY_ELSE = 700;

/** Where it is not said how many it serves: a plate of so many grams, and four at the least. */
const USUAL_PORTION = 300;
const LEAST_PORTIONS = 4;

/** Lines whose amount is far from what a serving, or a dish, usually takes. */
export function amountSlips(weighed: readonly Weighed[], servings: number | undefined): Slip[] {
  const portions = servings ?? Math.max(LEAST_PORTIONS, sum(weighed, () => true) / USUAL_PORTION);
  return [
    ...weighed.flatMap((each) => perServing(each, portions, weighed) ?? []),
    ...weighed.flatMap((each) => tooLittle(each) ?? []),
    ...weighed.flatMap((each) => tooMany(each, servings) ?? []),
    ...weighed.flatMap((each) => pungent(each, weighed) ?? []),
  ];
}

function perServing(each: Weighed, servings: number, weighed: readonly Weighed[]): Slip | undefined {
  const { name, aisle } = each.item.ingredient;
  const grams = each.grams / servings;
  const known = USUAL.find(([test]) => test.test(name));
  const [, most, said] =
    known ??
    (aisle === 'spices'
      ? [null, SPICE_GRAMS, 'a teaspoon of a dry spice']
      : [null, ANY_GRAMS[aisle] ?? ANY_ELSE, 'a very large plate']);
  // Whole heads of garlic are meant where they are a main part of it: roasted, or laid in oil.
  const isMain = each.grams > 0.15 * sum(weighed, () => true);
  if (name === 'garlic' && each.item.unit.key === 'head' && isMain && grams < 60) return undefined;
  // A loaf or a cake that makes one is no plate.
  if (/ flour$/.test(name) && servings < 4) return undefined;
  if (grams <= most || aisle === 'tap' || /stock$|milk$/.test(name)) return undefined;
  const shown = grams < 10 ? grams.toFixed(1) : Math.round(grams);
  return amountSlip(
    each,
    `${shown} g of ${name} a serving is far more than usual: check amount and unit.`,
    `A serving usually holds at most ${most} g, ${said}.`,
  );
}

/** Strong enough that a few grams of it are meant. */
const STRONG =
  /salt|pepper$|yeast|powder$|soda|gelatine|agar|extract|essence|vanilla|saffron|zest|garlic|ginger|chilli|mustard|leaves?$|^fresh |chives|seeds?$|colour|sprinkles|citric|pectin|starch|gum$|cocoa|coffee|tea|sugar$|oil$|honey|syrup|vinegar|sauce|paste|lemon|lime|flowers|nori|miso/;
/** Below this nobody weighs anything else. */
const FEW_GRAMS = 5;

/** "2.5 g jam": what is weighed in grams and comes to a crumb. */
function tooLittle(each: Weighed): Slip | undefined {
  const { name, aisle } = each.item.ingredient;
  if (!/^(?:g|ml)$/.test(each.item.unit.key) || each.grams >= FEW_GRAMS || aisle === 'spices' || STRONG.test(name))
    return undefined;
  return amountSlip(
    each,
    `${each.grams.toFixed(1)} g of ${name} is a crumb of it: check amount and unit.`,
    `Less than ${FEW_GRAMS} g are weighed of spices and what is as strong.`,
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
const PUNGENT_SHARE = { from: 0.05, to: 0.12, grams: 40 };

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
