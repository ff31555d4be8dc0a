// Slips that an experienced cook would smell: what is far from usual, what does not fit together, what is not safe.
import { multiply, toDecimal } from '../../quantity/rational';
import type { Reference } from '../../reference/reference';
import { type Item, readRecipe } from '../recipe/recipe';
import type { CheckedLine, CheckedRecipe, Dish, Slip, Weighed } from './slip';
import { amountSlips } from './slip-amounts';
import { measureSlips } from './slip-measures';
import { mixtureSlips } from './slip-mixtures';
import { needSlips } from './slip-needs';
import { outcomeSlips } from './slip-outcome';
import { safetySlips } from './slip-safety';
import { shareSlips } from './slip-shares';
import { stepSlips } from './slip-steps';
import { temperatureSlips } from './slip-temperatures';
import { timeSlips } from './slip-times';

/**
 * Everything about a recipe that looks like a slip, lines first.
 *
 * @param profile whose safe temperatures hold
 */
export function checkRecipe(recipe: CheckedRecipe, reference: Reference, profile: 'us' | 'uk' = 'us'): Slip[] {
  const isEaten = ![recipe.title ?? '', ...recipe.steps].some((text) => NOT_EATEN.test(text));
  const weighed = isEaten ? weigh(recipe.lines, reference).filter(({ text }) => !POURED_AWAY.test(text)) : [];
  const misread = lineSlips(recipe.lines);
  // A line whose figure slipped is far from usual as well, and what it is mixed with is measured against it.
  const isMisread = new Set(misread.map(({ line }) => line));
  const held = isMisread.size > 0 ? [] : weighed;
  const title = recipe.title ?? '';
  const dish: Dish = { title, steps: recipe.steps.join(' '), weighed: held };
  const slips = [
    ...misread,
    ...amountSlips(weighed, recipe.servings, title).filter(({ line }) => !isMisread.has(line)),
    ...measureSlips(weighed, recipe.servings, title, recipe.steps).filter(({ line }) => !isMisread.has(line)),
    // Without a title the kind of dish is not known.
    ...(title === '' ? [] : [...shareSlips(dish, recipe.servings), ...needSlips(dish)]),
    ...mixtureSlips(held, recipe.servings, [title, ...recipe.steps]),
    ...yieldSlips(weighed, recipe),
    ...stepSlips(recipe, weighed, reference, profile),
    ...temperatureSlips(recipe.steps),
    ...timeSlips(recipe, weighed),
    ...outcomeSlips(recipe, weighed, reference),
    ...safetySlips({
      foods: recipe.lines.flatMap(({ items }) => items.flatMap(({ line, food }) => line?.ingredient ?? food)),
      lines: recipe.lines.map(({ text }) => text),
      steps: recipe.steps,
    }),
  ];
  // Salt may be too much for the servings and for the flour, a time too long for its doing and for any: it is told once.
  const isSame = (one: Slip, other: Slip) =>
    one.key === other.key || (one.kind === 'time' && other.kind === 'time' && one.step === other.step);
  return slips.filter((slip, at) => slips.findIndex((each) => isSame(each, slip)) === at);
}

/** Made for the hands: no serving of it is eaten. */
const NOT_EATEN = /\bsalt dough\b|\bplay ?dough\b|\bnot for eating\b|\bmodelling dough\b/i;

/** Listed, and in nothing that is eaten: a bath, a brine, a pan of water. */
const POURED_AWAY =
  /\bfor (?:the )?(?:water bath|bath|brine|brining|boiling|soaking|poaching water|poaching|pasta water|blanching|dusting|rolling|deep[- ]frying)\b/i;

/** Edible grams of the whole; undefined while a line is open or has no weight. */
export function batchGrams(lines: readonly CheckedLine[], reference: Reference): number | undefined {
  const items = lines.flatMap((line) => line.items);
  const weighed = weigh(lines, reference);
  return items.length > 0 && weighed.length === items.length
    ? weighed.reduce((total, { grams }) => total + grams, 0)
    : undefined;
}

function weigh(lines: readonly CheckedLine[], reference: Reference): Weighed[] {
  return lines.flatMap(({ text, items }, at) =>
    items.flatMap(({ line }): Weighed[] => {
      const reading = line && readRecipe({ servings: 1, lines: [line] }, reference);
      if (!line || !reading || 'problems' in reading) return [];
      const item = reading.recipe.lines[0]?.written as Item;
      return [{ at, text, written: line, item, grams: Number(toDecimal(multiply(item.amount, item.weight.grams), 3)) }];
    }),
  );
}

/** "11/2 cups" is more likely 1 1/2 than five and a half. */
const SLIPPED = /(?:^|\s)([1-9])([1-7])\/([2348])(?=\s|$)/;

function lineSlips(lines: readonly CheckedLine[]): Slip[] {
  return lines.flatMap(({ text, items }, at): Slip[] => {
    const slips: Slip[] = [];
    const [, whole, top, bottom] = SLIPPED.exec(text) ?? [];
    if (whole && Number(top) < Number(bottom))
      slips.push({
        kind: 'fraction',
        line: at,
        say: `“${text}” may be ${whole} ${top}/${bottom}: the space is missing.`,
        why: 'Nobody measures in such halves, thirds or eighths; the space between a whole number and a fraction is easily lost.',
        repair: text.replace(`${whole}${top}/${bottom}`, `${whole} ${top}/${bottom}`),
        key: `fraction ${text}`,
      });
    const open = items.flatMap((item) => item.open).join(' ');
    if (/^The range runs backwards/.test(open))
      slips.push({
        kind: 'range',
        line: at,
        say: open,
        why: 'The smaller end of a range comes first.',
        key: `range ${text}`,
      });
    const volume =
      /^How much does one (cup|pint|quart|gallon|litre)\b.*Known for [^:]*: (?!.*\b(?:cup|tsp|Tbsp)\b)/.exec(open)?.[1];
    if (volume)
      slips.push({
        kind: 'unit',
        line: at,
        say: `A ${volume} of ${items[0]?.food ?? 'this'} is unusual: check the unit.`,
        why: 'It is known by the piece alone: nobody measures it so.',
        key: `unit ${text}`,
      });
    const piece = /^How much (?:does|is) one (clove|stalk|slice|stick|sprig|head)\b/.exec(open)?.[1];
    if (piece && !(piece === 'slice' && SLICED.test(items[0]?.food ?? '')))
      slips.push({
        kind: 'unit',
        line: at,
        say: `A ${piece} of ${items[0]?.food ?? 'this'} is unusual: check the unit.`,
        why: `No weight is known for a ${piece} of it; cloves are of garlic, stalks of celery, slices of bread.`,
        key: `unit ${text}`,
      });
    return slips;
  });
}

/** What is cut in slices, whether or not one of them has a weight. */
const SLICED =
  /ginger|galangal|lemon|lime|orange|ham|cheese|bread|loaf|cucumber|tomato|onion|turkey|beef|chicken|pineapple|apple|pizza|cake/i;

/** Grams a serving below which it is no serving, above which nobody eats it; of baked goods less. */
const LEAST_SERVING = 25;
/** Of pasta or rice, eaten from a plate. */
const LEAST_PLATE = 80;
const PLATED =
  /^(?:pasta|spaghetti|penne|macaroni|fusilli|tagliatelle|rigatoni|farfalle|egg noodles|rice noodles)$| rice$/;
/** Of what is eaten in a bite, as its steps say. */
const LEAST_BITE = 10;
const BITE = /\b(?:balls?|bites?|truffles?|cookies|biscuits|crackers|straws|crisps)\b/i;
/** Rice that is wrapped, or goes into something, is on no plate. */
const WRAPPED = /\b(?:rolls?|sushi|dolma|stuff(?:ed|ing)?|fill(?:ing)?|parcels?|cakes?)\b/i;
/** Of a dressing or a seasoning, a spoon. */
const LEAST_DRESSING = 4;
const MOST_SERVING = 900;
const MOST_BAKED = 350;

function yieldSlips(weighed: readonly Weighed[], { servings, lines, steps }: CheckedRecipe): Slip[] {
  const total = weighed.reduce((sum, { grams }) => sum + grams, 0);
  if (servings === undefined || total === 0) return [];
  // What could not be weighed may be the main part of it.
  const isWhole = lines.every(({ items }) => items.every(({ line }) => line !== undefined));
  const each = total / servings;
  const slips: Slip[] = [];
  const flour = weighed.reduce((sum, { item, grams }) => sum + (/ flour$/.test(item.ingredient.name) ? grams : 0), 0);
  // The spoons of flour that thicken a pie make no cake of it.
  const isBaked = flour > 0.1 * total && steps.some((step) => /\bbake\b/i.test(step));
  const most = isBaked ? MOST_BAKED : MOST_SERVING;
  const dressing = weighed.reduce(
    (sum, { item, grams }) => sum + (/^(?:fat|other|sugar)$/.test(item.ingredient.plateGroup) ? grams : 0),
    0,
  );
  const isBite = steps.some((step) => BITE.test(step));
  const plated = weighed.reduce(
    (sum, { item, grams }) => sum + (PLATED.test(item.ingredient.name) && item.unit.key !== 'tsp' ? grams : 0),
    0,
  );
  const isPlate = plated > 150 && !isBaked && !steps.some((step) => WRAPPED.test(step));
  const usual = isBite ? LEAST_BITE : isPlate ? LEAST_PLATE : LEAST_SERVING;
  const least = dressing > 0.6 * total ? LEAST_DRESSING : usual;
  if ((isWhole && each < least) || each > most)
    slips.push({
      kind: 'yield',
      say: `${servings} ${servings === 1 ? 'serving' : 'servings'} of ${Math.round(each)} g each: check how many it serves.`,
      why: `A serving weighs from ${least} g, a taste, to ${most} g${isBaked ? ' of something baked' : ', a large plate of soup'}.`,
      key: `yield ${servings} ${Math.round(total)}`,
    });
  const pan = steps.map((step, at) => ({ at, litres: panLitres(step) })).find(({ litres }) => litres !== undefined);
  if (pan?.litres !== undefined && total > pan.litres * 1000)
    slips.push({
      kind: 'pan',
      step: pan.at,
      say: `About ${(total / 1000).toFixed(1)} l go into a pan of ${pan.litres} l.`,
      why: 'A gram takes up about a millilitre, and a pan boils over long before it is full.',
      key: `pan ${pan.litres} ${Math.round(total)}`,
    });
  return slips;
}

function panLitres(step: string): number | undefined {
  const match = /(\d+(?:[.,]\d+)?)[ -]?(l|litre|liter|quart|qt)s?[ -](?:sauce)?(?:pan|pot|dish|casserole|bowl)\b/i.exec(
    step,
  );
  if (!match) return undefined;
  const size = Number((match[1] as string).replace(',', '.'));
  return /^q/i.test(match[2] as string) ? size * 0.946 : size;
}
