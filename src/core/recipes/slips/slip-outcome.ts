// What cannot come out as it is written: times that are none, ranges that run backwards, what keeps another thing from working.
import { parseAmount } from '../../quantity/amount';
import { toDecimal } from '../../quantity/rational';
import { findUnit } from '../../quantity/units';
import { foodsAmong } from '../../reference/food-finder';
import { foodNames, type Reference, weightOf } from '../../reference/reference';
import { plainNumber } from '../reading/amount-reader';
import type { CheckedRecipe, Slip, Weighed } from './slip';

/** What keeps a recipe from coming out. */
export function outcomeSlips(
  { steps, lines }: CheckedRecipe,
  weighed: readonly Weighed[],
  reference: Reference,
): Slip[] {
  return [
    ...steps.flatMap((step, at) => [...backwards(step, at), ...impossible(step, at)]),
    ...gelatineSlips(steps, weighed),
    ...yeastSlips(steps, lines, weighed),
    ...moreUsed(steps, weighed, reference),
  ];
}

const RANGE =
  /(?<![\d/.])(\d{1,4})(?: ?[-–] ?| to )(\d{1,4})(?![\d/]) ?(min(?:ute)?s?|hours?|hrs?|seconds?|days?|°|degrees)/gi;

function backwards(step: string, at: number): Slip[] {
  return [...step.matchAll(RANGE)].flatMap(([said, first, second]): Slip[] =>
    Number(first) > Number(second)
      ? [
          {
            kind: 'range',
            step: at,
            say: `“${said}” runs backwards.`,
            why: 'The smaller end of a range comes first.',
            key: `range ${said} ${at}`,
          },
        ]
      : [],
  );
}

/** Longer than any pot stands at home: three days of marinating or rising, ten hours counted in minutes. */
const MOST: Readonly<Record<string, number>> = { hour: 72, min: 600, day: 60, week: 52 };
/** Nothing bakes or boils through the night and the day after; what cooks slowly says so. */
const MOST_HOT_HOURS = 10;
/** Baked, it keeps for days. */
const KEPT = /\b(?:keep|kept|stor|last|fridge|freez|within|up to|eat|rest|stand|marinat|soak)\w*\b/i;
const HOT = /\b(?:bake|roast|grill|fry|boil|simmer|stew|steam|toast|microwave)\b(?![^.]*\b(?:slow|low)\b)[^.]*$/i;

function impossible(step: string, at: number): Slip[] {
  return [...step.matchAll(/(?<![\d/.,])(\d{1,5}) ?-?(hour|hr|min|day|week)/gi)].flatMap(
    ({ 0: said, 1: number, 2: unit = '', index }): Slip[] => {
      const key = unit.toLowerCase().replace('hr', 'hour');
      const before = step.slice(0, index);
      const isHot = HOT.test(before) && !KEPT.test(before);
      const most = isHot && key === 'hour' ? MOST_HOT_HOURS : isHot && /day|week/.test(key) ? 0 : (MOST[key] ?? 0);
      const isNone = Number(number) === 0;
      if (Number(number) <= most && !isNone) return [];
      return [
        {
          kind: 'time',
          step: at,
          say: `“${said}${key === 'min' ? 'utes' : 's'}” can hardly be meant.`,
          why: `Longer than ${most} ${key === 'min' ? 'minutes are said in hours' : `${key}s nothing ${most === MOST_HOT_HOURS ? 'bakes or boils' : 'stands or cooks'} at home`}.`,
          key: `time ${said} ${at}`,
        },
      ];
    },
  );
}

/** Raw, these fruits take gelatine apart: bromelain, actinidain, papain, ficin. */
const UNSETTING = /^(?:pineapple|kiwi fruit|papaya|fresh figs|guava|passion fruit|fresh ginger|mango)$/;

function gelatineSlips(steps: readonly string[], weighed: readonly Weighed[]): Slip[] {
  const gelatine = weighed.find(({ item }) => item.ingredient.name === 'gelatine');
  if (!gelatine) return [];
  const fruit = weighed.find(
    ({ item, text }) => UNSETTING.test(item.ingredient.name) && !/\bcanned|\btinned|\bcooked/i.test(text),
  );
  const word = fruit?.item.ingredient.name.split(' ')[0] ?? '';
  const isCooked =
    fruit &&
    steps.some((step) => new RegExp(`\\b(?:boil|simmer|cook|poach|stew)\\w*\\b[^.]*\\b${word}`, 'i').test(step));
  const liquid = weighed.reduce(
    (sum, { item, grams }) =>
      sum + (/juice$|water$|milk$|cream$|yogurt$|drink$|purée|passata/.test(item.ingredient.name) ? grams : 0),
    0,
  );
  const share = liquid > 0 ? gelatine.grams / liquid : undefined;
  return [
    ...(fruit && !isCooked
      ? [
          {
            kind: 'fails' as const,
            line: fruit.at,
            say: `Raw ${fruit.item.ingredient.name} keeps gelatine from setting.`,
            why: 'Its enzymes take gelatine apart: cook the fruit first, take it from a can, or set with agar.',
            key: `fails gelatine ${fruit.item.ingredient.name}`,
          },
        ]
      : []),
    ...(share !== undefined && (share > 0.06 || share < 0.006)
      ? [
          {
            kind: 'amount' as const,
            line: gelatine.at,
            say: `Gelatine is ${(100 * share).toFixed(1)} % of the liquid, far from usual.`,
            why: 'Usual are 1.5 to 3 %: 12 g set about 570 ml (maker’s directions).',
            key: `amount gelatine ${gelatine.written.amount}`,
          },
        ]
      : []),
  ];
}

/** Whether a text tells of a liquid that yeast dies in; an oven is hotter. */
const isTooHot = (text: string): boolean =>
  [...text.matchAll(/(\d{2,3}) ?°? ?([CF])\b/g)].some(
    ([, degrees, scale]) =>
      Number(degrees) > (scale === 'F' ? 130 : 55) && Number(degrees) < (scale === 'F' ? 250 : 120),
  );

function yeastSlips(steps: readonly string[], lines: CheckedRecipe['lines'], weighed: readonly Weighed[]): Slip[] {
  if (!weighed.some(({ item }) => / yeast$/.test(item.ingredient.name) && !/nutritional/.test(item.ingredient.name)))
    return [];
  const why = 'Yeast dies from about 55 °C (130 °F): liquid for it is lukewarm, 35 to 43 °C.';
  const cools = steps.some((step) => /\bcool|\blet (?:it|them) stand/i.test(step));
  const at = steps.findIndex(
    (step) =>
      /\byeast\b/i.test(step) &&
      /\b(?:boiling|very hot|scalding)\b/i.test(step) &&
      !/\bcool|\blukewarm|\bnot\b/i.test(step),
  );
  const hot = steps.findIndex((step) => /\byeast\b/i.test(step) && isTooHot(step));
  const step = at >= 0 ? at : hot;
  if (step >= 0)
    return [{ kind: 'fails', step, say: 'The liquid is too hot for the yeast.', why, key: `fails yeast ${step}` }];
  const line = lines.findIndex(
    ({ text, items }) =>
      ((/\bboiling\b/i.test(text) && !/\bfor boiling\b/i.test(text)) || isTooHot(text)) &&
      items.some(({ line: own, food }) => /water|milk/.test(own?.ingredient ?? food)),
  );
  return line >= 0 && !cools
    ? [{ kind: 'fails', line, say: 'The liquid is too hot for the yeast.', why, key: `fails yeast line ${line}` }]
    : [];
}

const USED =
  /(?<![\d/.-])(\d+(?: \d\/\d|[.,/]\d+)?|[½⅓⅔¼¾]) ?(g|kg|ml|l|cups?|tbsps?|tablespoons?|tsps?|teaspoons?|oz|lb)\b\.?(?: of)?(?: the)? ([\p{L} -]{3,30})/giu;
const FRACTIONS: Readonly<Record<string, string>> = { '½': '1/2', '⅓': '1/3', '⅔': '2/3', '¼': '1/4', '¾': '3/4' };

/** The steps name amounts of a food that come to more than is listed. */
function moreUsed(steps: readonly string[], weighed: readonly Weighed[], reference: Reference): Slip[] {
  const index = foodNames(reference);
  const sums = new Map<string, { grams: number; step: number; said: string[] }>();
  for (const [at, step] of steps.entries())
    for (const [said, number = '', unitWord = '', words = ''] of step.matchAll(USED)) {
      const unit = findUnit(unitWord);
      const [found] = foodsAmong(words.split(' '), index).filter(({ from }) => from === 0);
      const listed = weighed.filter(({ item }) => item.ingredient.name === found?.name);
      if (!unit || !found || listed.length === 0) continue;
      try {
        const grams =
          Number(toDecimal(parseAmount(plainNumber(FRACTIONS[number] ?? number)), 3)) *
          Number(toDecimal(weightOf(reference, found.name, listed[0]?.item.preparation ?? '', unit).grams, 3));
        const sum = sums.get(found.name) ?? { grams: 0, step: at, said: [] };
        sums.set(found.name, { grams: sum.grams + grams, step: at, said: [...sum.said, said.trim()] });
      } catch {
        // A measure in which this food has no weight: it cannot be held against the list.
      }
    }
  return [...sums].flatMap(([name, { grams, step, said }]): Slip[] => {
    const listed = weighed
      .filter(({ item }) => item.ingredient.name === name)
      .reduce((sum, each) => sum + each.grams, 0);
    if (grams <= 1.1 * listed) return [];
    return [
      {
        kind: 'not listed',
        step,
        say: `The steps use more ${name} than is listed: ${said.join(', ')}.`,
        why: `Listed are about ${Math.round(listed)} g, used ${Math.round(grams)} g.`,
        key: `more ${name} ${Math.round(grams)}`,
      },
    ];
  });
}
