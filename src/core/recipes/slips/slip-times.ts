// Times and ovens that are too short or too cool for what they cook: a dropped figure, a minute for an hour.
import { toldTimes } from '../steps/told-times';
import type { CheckedRecipe, Slip, Weighed } from './slip';
import { longTimes } from './slip-long-times';
import { usualTimes } from './usual-times';

/** What is cooked for less than it takes, from where the steps first name it. */
export function timeSlips({ steps, lines }: CheckedRecipe, weighed: readonly Weighed[]): Slip[] {
  const grams = new Map(weighed.map((each) => [each.item.ingredient.name, each.grams]));
  const isYeasty = [...grams.keys()].some((name) => / yeast$/.test(name) && !/nutritional/.test(name));
  const slips = [
    ...tooShort(steps, lines, grams),
    ...steps.flatMap(hardlyBoiled),
    ...hardlyBaked(steps, grams),
    ...(isYeasty ? steps.flatMap(hardlyRisen) : []),
    ...longTimes(steps, [...grams.keys()]),
    ...steps.flatMap((step, at) => usualTimes(step, at, isYeasty)),
  ];
  // A time may be short for its food and for its doing: it is told once.
  return slips.filter(({ step }, at) => slips.findIndex((each) => each.step === step) === at);
}

interface Least {
  readonly foods: RegExp;
  /** How steps call it. */
  readonly called: RegExp;
  /** Cut so small, its time is no longer that of the whole. */
  readonly cut: RegExp;
  /** Minutes that it takes cut so small; left out where it may be raw. */
  readonly small?: number;
  /** Minutes over heat without which it is surely not done, in the oven and elsewhere: half of what is usual, ours. */
  readonly oven: number;
  readonly else: number;
}

const CUT_SMALL =
  /\b(?:strips?|diced?|cubed?|cubes|sliced|slices|pieces|minced?|ground|shredded|cooked|leftover|rotisserie|thin|escalopes?)\b/i;
/** Meat for a stew cooks fast only where something else does the work. */
const NEVER_CUT = /\b(?:pressure|instant pot|cooked|leftover|minced?|thin strips)\b/i;
const CUT_ROOTS =
  /\b(?:grated|shredded|ribbons?|matchsticks?|julienned|spirali[sz]ed|shaved|raw|canned|tinned|cooked|frozen|purée)\b/i;

const LEAST: readonly Least[] = [
  {
    foods: /^whole (?:chicken|turkey|duck)$/,
    called: /\b(?:chicken|turkey|duck|bird)\b/i,
    cut: /\b(?:spatchcock|joint)/i,
    oven: 40,
    else: 40,
  },
  {
    foods:
      /^(?:stewing beef|stewing lamb|pork shoulder|lamb shoulder|lamb shanks?|oxtail|beef brisket|beef short ribs)$/,
    called: /\b(?:beef|lamb|pork|meat|oxtail|brisket|ribs|shanks?|stew)\b/i,
    cut: NEVER_CUT,
    oven: 35,
    else: 35,
  },
  {
    foods:
      /^(?:green |yellow )?split peas$|^dried (?!red)[a-z-]+ (?:beans|peas)$|^dried (?:chickpeas|beans)$|^(?:brown|green|black) lentils$/,
    called: /\b(?:peas|beans|chickpeas|lentils|pulses|everything)\b/i,
    cut: /\b(?:canned|tinned|cooked|sprout\w*|blitz\w*|falafels?|food processor|grind)\b/i,
    oven: 16,
    else: 16,
  },
  {
    foods: /^(?:pearl barley|brown rice)$/,
    called: /\b(?:barley|rice|everything)\b/i,
    cut: /\b(?:cooked|quick-cook|leftover|pouch)\b/i,
    oven: 14,
    else: 14,
  },
  {
    foods: /^(?:red lentils|.*-grain white rice|short-grain rice|basmati rice|jasmine rice)$/,
    called: /\b(?:lentils|rice|everything)\b/i,
    cut: /\b(?:cooked|quick-cook|leftover|cold|pouch|soaked|ground|toast\w*)\b/i,
    oven: 7,
    else: 6,
  },
  {
    foods: /^chicken (?:thigh|drumstick|leg|wings)/,
    called: /\b(?:chicken|thighs?|drumsticks?|wings?|legs?)\b/i,
    cut: CUT_SMALL,
    small: 3,
    oven: 16,
    else: 10,
  },
  {
    foods: /^(?:chicken|turkey|duck) breast$/,
    called: /\b(?:chicken|turkey|duck|breasts?)\b/i,
    cut: CUT_SMALL,
    small: 3,
    oven: 10,
    else: 6,
  },
  {
    foods: /^(?:salmon fillet|white fish fillet|trout|mackerel)$/,
    called: /\b(?:salmon|fish|fillets?|trout|mackerel|cod)\b/i,
    cut: CUT_SMALL,
    small: 2,
    oven: 6,
    else: 3,
  },
  {
    foods: /^(?:potato|new potatoes)$/,
    called: /\b(?:potato(?:es)?|vegetables|everything)\b/i,
    cut: CUT_ROOTS,
    oven: 20,
    else: 4,
  },
  {
    foods: /^(?:sweet potato|carrot|parsnip|swede|turnip|celeriac|beetroot|butternut squash|pumpkin)$/,
    called:
      /\b(?:potato(?:es)?|carrots?|parsnips?|swede|turnips?|celeriac|beetroots?|beets?|squash|pumpkin|vegetables|everything)\b/i,
    cut: CUT_ROOTS,
    oven: 12,
    else: 4,
  },
];

const COOKED =
  /\b(?:bak|roast|boil|simmer|fr(?:y|ie)|grill|broil|steam|poach|brais|stew|cook|brown|sear|sweat|soften|microwav|barbecu|pressure|slow)\w*/i;
const OVEN = /\b(?:bak|roast|oven)\w*/i;
const OFF = /\b(?:rest|stand|cool|chill|marinat|soak|rise|prove|set aside)\w*\b/i;
/** A thermometer or a night decides, not these minutes. */
const ELSE_DECIDED =
  /\b(?:thermometer|probe|inside|thickest|middle|cent(?:re|er)|internal|registers?|reads?|reach(?:es)?|pressure|instant pot|microwav\w*|slow cooker|overnight|packet|pack says)\b/i;

/** Things named for what is done in or with them. */
const NAMED_FOR =
  /\b(?:roasting|frying|baking|cooking|boiling|stewing|brown) (?:pan|tin|tray|dish|sheet|bag|paper|parchment|powder|soda|oil|spray|water|juices|sugar|rice|beef|onions?)s?\b/gi;

/** From so many grams on, weighed as one, it is roasted whole. */
const JOINT = 900;

function tooShort(steps: readonly string[], lines: CheckedRecipe['lines'], grams: ReadonlyMap<string, number>): Slip[] {
  const foods = new Set(grams.keys());
  const sentences = steps.flatMap((step, at) =>
    step.split(/(?<=[.;])\s+/).map((text) => ({ at, text: text.replace(NAMED_FOR, '') })),
  );
  const slips: Slip[] = [];
  for (const { foods: test, called, cut: small, ...least } of LEAST) {
    const [name] = [...foods].filter((food) => test.test(food));
    if (name === undefined) continue;
    const own = lines.filter(({ items }) => items.some(({ line }) => line?.ingredient === name));
    const isSmall =
      own.some(({ text }) => small.test(text)) || steps.some((step) => called.test(step) && small.test(step));
    // Cut small it takes a moment, and meat more than that.
    if (isSmall && least.small === undefined) continue;
    const first = sentences.findIndex(({ text }) => called.test(text));
    if (first < 0) continue;
    const from = sentences.slice(first);
    // What rests or cools stands off the heat.
    const cooking = from.filter(
      ({ text }) => COOKED.test(text) || (/\b(?:minutes|mins|hours?)\b/i.test(text) && !OFF.test(text)),
    );
    const said = cooking.map(({ text }) => minutesIn(text));
    // Where a step that cooks leaves its time to the cook, or to a sign, nothing can be held against it.
    if (
      cooking.some(
        ({ text }, at) => said[at] === undefined && COOKED.test(text) && !/\b(?:preheat|heat the oven)/i.test(text),
      )
    )
      continue;
    const total = said.reduce<number>((sum, minutes) => sum + (minutes ?? 0), 0);
    const isOven = from.some(({ text }) => OVEN.test(text));
    // A joint is no portion.
    const isJoint =
      /breast$/.test(name) &&
      (grams.get(name) ?? 0) >= JOINT &&
      own.every(({ text }) => /^[\d.,½¼¾ ]+ ?(?:k?g|lbs?|pounds?)\b/i.test(text));
    const most = isSmall ? (least.small ?? 0) : (isOven ? least.oven : least.else) * (isJoint ? 2.5 : 1);
    const start = from[0] as (typeof from)[number];
    if (total === 0 || total >= most || from.some(({ text }) => ELSE_DECIDED.test(text))) continue;
    slips.push({
      kind: 'time',
      step: start.at,
      say: `${total} minutes are hardly enough for ${name}.`,
      why: `From where it goes over heat, less than ${most} minutes are told: raw inside, or a figure is missing.`,
      key: `time short ${name} ${total}`,
    });
  }
  return slips;
}

const OVERNIGHT = 600;

/** The minutes that a sentence tells; undefined where it tells none. */
function minutesIn(text: string): number | undefined {
  const told = toldTimes(text).map(({ minutes }) => minutes);
  if (/\bovernight\b/i.test(text)) told.push(OVERNIGHT);
  return told.length === 0 ? undefined : told.reduce((sum, minutes) => sum + minutes, 0);
}

/** Whole or in chunks, roots are hard after so many minutes in boiling water. */
const LEAST_BOILED = 4;
const ROOTS =
  '(?:potato(?:es)?|carrots?|parsnips?|swede|turnips?|celeriac|beetroots?|squash|pumpkin|lentils|rice|pasta|spaghetti|macaroni|penne)';
const BOILED = new RegExp(
  `\\b(?:boil|simmer|steam|cook)\\w*\\b[^.;,]{0,30}\\b${ROOTS}\\b[^.;,]{0,40}?\\b(\\d{1,2}) ?min(?!\\w* (?:before|more|until|less|short|under|fewer))`,
  'gi',
);
const SOONER =
  /\b(?:par-?boil|blanch|quick-cook|fresh pasta|instant|microwav|pressure|frozen|thin|grated|ribbons|leftover|cooked)/i;

/** "Boil the potatoes for 1 minute": what is named beside its minutes, whatever is done with it afterwards. */
function hardlyBoiled(step: string, at: number): Slip[] {
  if (SOONER.test(step)) return [];
  return [...step.matchAll(BOILED)].flatMap(([said, number]): Slip[] =>
    Number(number) < LEAST_BOILED
      ? [
          {
            kind: 'time',
            step: at,
            say: `“${said}” is too short.`,
            why: `In under ${LEAST_BOILED} minutes it stays hard: a figure may be missing.`,
            key: `time boiled ${number} ${at}`,
          },
        ]
      : [],
  );
}

/** Minutes in which no loaf or cake bakes, and nothing of flour at all. */
const LEAST_LOAF = 18;
const LEAST_BAKED = 5;

function hardlyBaked(steps: readonly string[], grams: ReadonlyMap<string, number>): Slip[] {
  const flour = [...grams].reduce((sum, [name, each]) => sum + (/ flour$/.test(name) ? each : 0), 0);
  const isOnly = steps.join(' ').match(/\bbak(?:e|ing)\b(?! (?:powder|soda|paper|sheet|tray|tin))/gi)?.length === 1;
  if (flour < 100 || !isOnly) return [];
  const isLoaf = steps.some((step) => /\b(?:loaf|cake|springform|bundt) (?:tin|pan)\b/i.test(step));
  const least = isLoaf ? LEAST_LOAF : LEAST_BAKED;
  return steps.flatMap((step, at): Slip[] => {
    const [said, number] =
      /\bbake\b[^.;]{0,40}?\b(\d{1,2}(?:\.\d)?) ?min(?!\w* (?:more|before|longer|blind))/i.exec(step) ?? [];
    if (said === undefined || Number(number) >= least || /\bblind\b|\bmore\b/i.test(step)) return [];
    return [
      {
        kind: 'time',
        step: at,
        say: `“${said}” is too short.`,
        why: `${isLoaf ? 'A loaf or cake' : 'What is made of flour'} is raw inside after less than ${least} minutes.`,
        key: `time baked ${number} ${at}`,
      },
    ];
  });
}

/** Minutes in which no yeast dough rises. */
const LEAST_RISE = 10;

function hardlyRisen(step: string, at: number): Slip[] {
  return [...step.matchAll(/\b(?:rise|prove|proof|double)\b[^.;]{0,30}?\b(\d{1,2}) ?(min|hour)/gi)].flatMap(
    ([said, number, unit = '']): Slip[] =>
      /^m/i.test(unit) && Number(number) < LEAST_RISE
        ? [
            {
              kind: 'time',
              step: at,
              say: `“${said}” is too short for yeast.`,
              why: `A yeast dough rises in half an hour to two hours; in under ${LEAST_RISE} minutes nothing is seen of it.`,
              key: `time rise ${number} ${at}`,
            },
          ]
        : [],
  );
}
