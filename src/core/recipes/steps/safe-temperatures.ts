import facts from '../../reference/facts/safe-temperatures.json';
import { toldTimes } from './told-times';

/** One limit of the table: a kind of food or state, its temperatures in °C and minutes, and whose it is. */
interface Limit {
  readonly profile: string;
  readonly kind: string;
  readonly food_or_state: string;
  readonly min_c: string;
  readonly max_c: string;
  readonly governing: string;
  readonly max_minutes: string;
  readonly rule: string;
  readonly source: string;
}

export type SafetyProfile = 'us' | 'uk';

/** What a step states and a limit does not allow. */
export interface TemperatureDoubt {
  /** "63 °C is too low for fish." */
  readonly say: string;
  readonly why: string;
}

const limitsOf = (kind: string, profile: SafetyProfile): Limit[] =>
  (facts as readonly Limit[]).filter(
    (limit) => limit.kind === kind && (limit.profile === profile || limit.profile === 'any'),
  );

/** The kinds of food that the table sets apart, the strictest first; each by words of a step or of a food's name. */
const KINDS: readonly (readonly [say: string, words: RegExp, limit: RegExp])[] = [
  ['poultry', /\b(?:chicken|turkey|duck|poultry)\b/i, /poultry/],
  ['minced meat', /\b(?:mince[d]?|burgers?|meatballs?|sausages?|ground (?:beef|pork|lamb|meat))\b/i, /^minced/],
  ['egg dishes', /\b(?:frittata|omelette|quiche|custard|eggs?|egg muffins?)\b/i, /egg dishes/],
  ['fish', /\b(?:fish|salmon|tuna|prawns?|cod|seafood|flakes)\b/i, /fish and shellfish/],
  ['meat', /\b(?:beef|pork|lamb|veal|steaks?|chops?|roast|bacon|ham|meat)\b/i, /steaks/],
];

/** The kind that a step speaks of, else the strictest that the dish holds. */
const kindOf = (step: string, foods: readonly string[]) =>
  KINDS.find(([, words]) => words.test(step)) ?? KINDS.find(([, words]) => foods.some((food) => words.test(food)));

interface Degrees {
  readonly celsius: number;
  readonly said: string;
  /** Where it stands in the step. */
  readonly at: number;
}

/** Every temperature that a step states. */
export function degreesIn(step: string): Degrees[] {
  return [...step.matchAll(/([-−]?\d{1,4})(?: ?[-–] ?\d{2,4})? ?(?:°|º|degrees?)? ?(C|F|celsius|fahrenheit)\b/gi)].map(
    ({ 0: said, 1: value = '', 2: scale = '', index: at }) => {
      const number = Number(value.replace('−', '-'));
      return { celsius: /^f/i.test(scale) ? ((number - 32) * 5) / 9 : number, said, at };
    },
  );
}

/** Figures are whole degrees on a probe: a fifth of one is its error, and the conversion's. */
const ERROR = 0.3;

const INSIDE = /\b(?:until|to|reach\w*|inside|middle|cent(?:re|er)|internal|core|thickest)\b/i;
const NOT_INSIDE = /\b(?:oven|preheat|oil to|fridge|refrigerat\w*|freez\w*|milk to|water to)\b/i;
/** Warmed for another reason than to be done; a step that names meat, fish or egg is about those. */
const NOT_DONE = /\b(?:warm(?:ed)? (?:milk|water|juice)|yeast|foamy|chocolate|syrup|caramel|candy|yogurt)\b/i;
const REHEAT = /\b(?:re-?heat\w*|warm(?:ed)? (?:it |them )?up|heat(?:ed)? (?:it |them )?(?:up )?again)\b/i;
const HOLD = /\b(?:keep|kept|hold|held)\b[^.]{0,40}\b(?:hot|warm)\b/i;
const COOL = /\b(?:cool\w*|chill\w*)\b/i;
const PERISHABLE =
  /\b(?:rice|soup|stew|chilli|sauce|custard|stock|curry|lentils?|beans?|pasta|meat|chicken|mince|dal|pilaf)\b/i;
const KEPT_DRY =
  /\b(?:cake|cakes|jam|bread|loaf|loaves|biscuits?|cookies|pastry|tart shells?|muffins|scones|dough|syrup|caramel)\b/i;

const because = ({ rule, source, governing }: Limit): string =>
  [governing, rule].filter(Boolean).join(', ').concat(` (${source})`);

/**
 * What a step states that the profile's limits do not allow: doneness, reheating, holding hot and cold, cooling, freezing,
 * marinating. What it does not state is not judged here.
 *
 * @param foods names of the foods of its dish
 * @example temperatureDoubts('Cook the salmon until 50 °C inside.', ['salmon fillet'], 'us') //=> [{ say: '50 °C is too low for fish.', … }]
 */
export function temperatureDoubts(step: string, foods: readonly string[], profile: SafetyProfile): TemperatureDoubt[] {
  const doubts: TemperatureDoubt[] = [];
  const minutes = toldTimes(step)[0]?.minutes;
  const degrees = degreesIn(step);
  const refuse = (say: string, limit: Limit | undefined) => doubts.push({ say, why: limit ? because(limit) : '' });
  if (COOL.test(step) && !REHEAT.test(step)) {
    coolingDoubts(step, foods, profile, refuse);
  } else if (REHEAT.test(step)) {
    const [limit] = limitsOf('reheat', profile);
    for (const { celsius, said } of degrees)
      if (limit && celsius < Number(limit.min_c) - ERROR) refuse(`${said} is too low for reheating.`, limit);
  } else if (HOLD.test(step)) {
    const [limit] = limitsOf('hot-hold', profile);
    for (const { celsius, said } of degrees)
      if (limit && celsius < Number(limit.min_c) - ERROR) refuse(`${said} is too low for keeping food hot.`, limit);
  } else if (/\bfreez(?:e|er|ing)\b/i.test(step)) {
    const [limit] = limitsOf('freeze', profile);
    for (const { celsius, said } of degrees)
      if (limit && celsius > Number(limit.max_c) + ERROR && celsius < 0)
        refuse(`${said} is too warm for freezing.`, limit);
  } else if (/\b(?:fridge|refrigerat\w*|chiller)\b/i.test(step)) {
    const [limit] = limitsOf('cold-hold', profile);
    for (const { celsius, said } of degrees)
      if (limit && celsius > Number(limit.max_c) + ERROR && celsius < 30)
        refuse(`${said} is too warm for a fridge.`, limit);
  } else if (
    INSIDE.test(step) &&
    !NOT_INSIDE.test(step) &&
    (!NOT_DONE.test(step) || KINDS.some(([, words]) => words.test(step)))
  ) {
    const kind = kindOf(step, foods);
    // What is hotter than food gets is the oven's; what is cooler than a hand is a dough's.
    const inside = degrees.find(({ celsius }) => celsius >= 35 && celsius <= 100);
    if (kind && inside) doneDoubts(step, kind, inside, minutes, profile, refuse);
  }
  if (/\bmarinat/i.test(step)) marinadeDoubts(step, foods, minutes, degrees, profile, refuse);
  return doubts;
}

type Refuse = (say: string, limit: Limit | undefined) => void;

function doneDoubts(
  step: string,
  [kind, , wanted]: (typeof KINDS)[number],
  { celsius, said }: Degrees,
  minutes: number | undefined,
  profile: SafetyProfile,
  refuse: Refuse,
): void {
  const limits = limitsOf('done', profile);
  const own = limits.find(({ food_or_state }) => wanted.test(food_or_state));
  if (own) {
    if (celsius < Number(own.min_c) - ERROR) refuse(`${said} is too low for ${kind}.`, own);
    else if (/rest/.test(own.rule) && celsius < Number(own.min_c) + 5 && !/\brest(?:s|ing|ed)?\b/i.test(step))
      refuse(`${said} is enough for ${kind} only with a rest.`, own);
    return;
  }
  // Where one core temperature stands for all food: the hotter, the shorter it is held.
  const reached = limits.filter(({ min_c }) => celsius >= Number(min_c) - ERROR).at(-1);
  if (!reached) refuse(`${said} is too low for ${kind}.`, limits[0]);
  else if (minutes !== undefined && minutes < Number(reached.max_minutes) - 0.01)
    refuse(`${said} is held too short for ${kind}.`, reached);
}

function coolingDoubts(step: string, foods: readonly string[], profile: SafetyProfile, refuse: Refuse): void {
  const minutes = toldTimes(step)[0]?.minutes;
  const isRice = /\brice\b/i.test(step) || (!PERISHABLE.test(step) && foods.some((food) => / rice$/.test(food)));
  if (minutes === undefined || (KEPT_DRY.test(step) && !isRice)) return;
  const degrees = degreesIn(step).map(({ celsius }) => celsius);
  const isPerishable = isRice || degrees.length > 0 || PERISHABLE.test(step);
  if (!isPerishable) return;
  const limits = limitsOf('cool', profile);
  const target = degrees.at(-1);
  const rice = isRice ? limits.find(({ food_or_state }) => /rice/.test(food_or_state)) : undefined;
  // Without a target it stands out of the cold: the two-hour rule.
  const out = target === undefined ? limitsOf('out', profile)[0] : undefined;
  const usual = limits
    .filter(({ min_c, food_or_state }) => min_c !== '' && !/room temperature|rice/.test(food_or_state))
    .filter(({ min_c }) => target === undefined || target >= Number(min_c) - ERROR)
    .sort((a, b) => Number(b.min_c) - Number(a.min_c))[0];
  const limit = rice ?? out ?? usual;
  if (limit && minutes > Number(limit.max_minutes))
    refuse(`${minutes / 60 >= 1 ? `${minutes / 60} h` : `${minutes} min`} is too long for cooling.`, limit);
}

function marinadeDoubts(
  step: string,
  foods: readonly string[],
  minutes: number | undefined,
  degrees: readonly Degrees[],
  profile: SafetyProfile,
  refuse: Refuse,
): void {
  const isFish = KINDS.some(
    ([kind, words]) =>
      kind === 'fish' &&
      (words.test(step) || (!/meat|chicken|pork|beef/i.test(step) && foods.some((food) => words.test(food)))),
  );
  const isAcid = /\b(?:lime|lemon|vinegar|citrus|orange)\b/i.test(step);
  const limits = limitsOf('marinate', profile);
  const limit = limits.find(({ food_or_state }) => (isFish ? /fish/ : /meat/).test(food_or_state));
  if (isFish && isAcid && limit && minutes !== undefined && minutes > Number(limit.max_minutes))
    refuse('Fish lies too long in an acid marinade.', limit);
  for (const { celsius, said } of degrees)
    if (limit && celsius > Number(limit.max_c) + ERROR && celsius < 35)
      refuse(`${said} is too warm for a marinade.`, limit);
}

/** How hot food must be inside, and what that comes from. */
export interface Inside {
  /** "poultry" */
  readonly kind: string;
  /** Tenths of °C at which it is safe at once, or after so many seconds. */
  readonly tenths: number;
  readonly seconds: number;
  /** The least that is safe at all, and the minutes it must be held there; the same as `tenths` where there is only one. */
  readonly leastTenths: number;
  readonly leastMinutes: number;
  /** "165 °F" */
  readonly said: string;
  /** What to do beside: "then rest 3 min". */
  readonly rule: string;
  readonly source: string;
}

/** Sold cooked or cured: it is eaten as it is. */
const EATEN_AS_IS = /\b(?:cooked|cured|smoked|canned|tinned)\b/i;

/**
 * How hot a step's food must be inside before it is done, by the profile; undefined where it holds nothing that must.
 *
 * @param step its words
 * @param foods names of the foods in what is cooked
 * @example
 * insideOf('Fry until golden.', ['chicken breast'], 'us')?.said //=> '165 °F'
 * insideOf('Fry until golden.', ['onion'], 'us') //=> undefined
 */
export function insideOf(step: string, foods: readonly string[], profile: SafetyProfile): Inside | undefined {
  const raw = foods.filter((food) => !EATEN_AS_IS.test(food));
  const kind = KINDS.find(([, words]) => raw.some((food) => words.test(food)));
  if (!kind) return REHEAT.test(step) ? reheated(profile) : undefined;
  const [name, , wanted] = kind;
  const limits = limitsOf('done', profile).sort((a, b) => Number(a.min_c) - Number(b.min_c));
  const own = limits.find(({ food_or_state }) => wanted.test(food_or_state));
  // Where one temperature stands for all food it is held: 75 °C for half a minute is what a class can wait for.
  const [least, usual = least] = own ? [own, own] : limits;
  return least && usual && insideFrom(name, usual, least);
}

/**
 * The raw food among some after which hands are washed again: "raw chicken breast", "egg"; '' for none.
 *
 * @example
 * washAfter(['onion', 'egg']) //=> 'egg'
 * washAfter(['cooked ham']) //=> ''
 */
export function washAfter(foods: readonly string[]): string {
  const raw = foods.find((food) => !EATEN_AS_IS.test(food) && KINDS.some(([, words]) => words.test(food)));
  return raw ? (/\begg/.test(raw) ? raw : `raw ${raw}`) : '';
}

const reheated = (profile: SafetyProfile): Inside | undefined => {
  const [limit] = limitsOf('reheat', profile);
  return limit && insideFrom('what is heated again', limit, limit);
};

const tenthsOf = ({ min_c }: Limit) => Math.round(Number(min_c) * 10);
const heldMinutes = ({ rule, max_minutes }: Limit) => (/\bhold\b/.test(rule) ? Number(max_minutes || 0) : 0);

const insideFrom = (kind: string, usual: Limit, least: Limit): Inside => ({
  kind,
  tenths: tenthsOf(usual),
  seconds: Math.round(heldMinutes(usual) * 60),
  leastTenths: tenthsOf(least),
  leastMinutes: heldMinutes(least),
  said: usual.governing,
  rule: usual.rule,
  source: usual.source,
});
