import { foodsAmong, kindsOf, wordKey } from '../../reference/food-finder';
import { foodNames, type Reference } from '../../reference/reference';
import { ageOf } from './step-age';
import { type Heat, type PlannedStep, type SettledStep, type Tool, WHILE } from './step-plan';
import { toldTimes } from './told-times';

/** Steps with the foods of a recipe, as its text has them. */
export interface StepsText {
  readonly steps: readonly string[];
  /** Foods of the recipe, by name. */
  readonly ingredients: readonly string[];
  /** What a person settled, for steps whose words are still the same. */
  readonly settled?: readonly SettledStep[];
}

/**
 * The steps of a recipe as they can be planned: minutes, heat, tools, least age, order, waiting, doneness and what is used
 * up, read from the text; where a text names no minutes, what such a step usually needs. What a person settled stands.
 */
export function planSteps({ steps, ingredients, settled = [] }: StepsText, reference: Reference): PlannedStep[] {
  const index = foodNames(reference);
  const uses = steps.map((text) => usedIn(text, ingredients, index));
  const order = ordered(steps, uses);
  const heats = heatsOf(steps, order);
  return steps.map((text, at): PlannedStep => {
    const own = settled.find((each) => each.text === text);
    if (own) {
      const places = own.after.map((words) => steps.indexOf(words));
      // Where one of them was reworded since, the order is read again.
      const after = places.includes(-1) ? (order[at] ?? []) : places;
      return {
        ...own,
        batchServings: own.batchServings ?? null,
        after,
        uses: uses[at] ?? [],
        isRead: false,
        estimated: false,
      };
    }
    const heat = heats[at] ?? 'none';
    const tools = TOOL_WORDS.flatMap(([tool, test]) => (test.test(plainPans(text.replace(WHILE, ''))) ? [tool] : []));
    const minutes = minutesOf(text, uses[at]?.length ?? 0);
    return {
      text,
      ...minutes,
      heat,
      tools,
      fromAge: ageOf(
        text,
        heat,
        steps.slice(0, at).filter((_, n) => heats[n] !== 'none'),
        heatOf,
      ),
      after: order[at] ?? [],
      mayWait: WAITS.find(([test]) => test.test(text))?.[1] ?? null,
      done: doneness(text),
      consumables: CONSUMABLES.flatMap(([name, test]) => (test.test(text) ? [name] : [])),
      // What soaks, marinates or chills for an hour does not do so in a class.
      ahead: AHEAD.test(text) || (STANDS.test(text) && heat !== 'oven' && minutes.handsOff >= LONG_STAND),
      lastMinute: LAST_MINUTE.test(text),
      batchServings: null,
      uses: uses[at] ?? [],
      isRead: true,
    };
  });
}

/** Foods of the recipe that a step names, by their own name or another, or by the one word that tells them apart. */
function usedIn(text: string, ingredients: readonly string[], index: ReturnType<typeof foodNames>): string[] {
  const words = text.split(/[^\p{L}'’-]+/u).filter(Boolean);
  const keys = new Set(words.map(wordKey));
  if (EVERYTHING.test(text)) return [...ingredients];
  const named = foodsAmong(words, index).map(({ name }) => name);
  const lastWord = (name: string) => name.split(' ').at(-1);
  return ingredients.filter((name) => {
    if (named.includes(name)) return true;
    // "Corn" is found as one food of that kind; the recipe has it frozen.
    if (named.some((other) => !ingredients.includes(other) && lastWord(other) === lastWord(name))) return true;
    if (kindsOf(name).some((kind) => keys.has(kind))) return true;
    // "the flour" for plain wheat flour, "cheese" for feta cheese: where only one food of the recipe has that word.
    return name
      .split(' ')
      .map(wordKey)
      .some(
        (word) =>
          word.length > 3 &&
          keys.has(word) &&
          ingredients.filter((other) => other.split(' ').map(wordKey).includes(word)).length === 1 &&
          !VAGUE.has(word),
      );
  });
}

const EVERYTHING = /\b(?:everything|all (?:of )?(?:the )?ingredients)\b/i;

/** Words in names of foods that tell nothing alone. */
const VAGUE = new Set(['dried', 'fresh', 'ground', 'canned', 'white', 'black', 'green', 'baking', 'plain', 'large']);

/** What goes on by itself while hands are free. */
const ALONE =
  /\b(?:slow[- ]cook|pressure[- ]cook|air[- ]fr|barbecu|broil|bury|embers|poach|hard-boil|bubble|wrap\b|reduc|simmer|bak|roast|boil|rest|prov|proof|rise|rising|chill|cool|soak|marinat|leave|stand|freez|steam|stew|braise|set\b|refrigerat|grill|toast in the oven|sit\b|infuse|thaw|dry(?! (?:\w+ )?pan)|keep|fridge|microwav|return\w* to the oven|in the oven)/gi;
/** What needs hands the whole time. */
const BY_HAND =
  /\b(?:knead|whisk|stir|(?<!air[- ])fry(?!er)|fries|beat|soften|saut|sweat|toss|rub|roll|brown|warm|mix|cook|melt|toast)/gi;

interface Minutes {
  readonly handsOn: number;
  readonly handsOff: number;
  readonly estimated: boolean;
}

/**
 * Minutes of a step. A time belongs to the last thing done before it: "simmer for 30 minutes" goes on alone, "knead for 5
 * minutes" does not. Of a range the longer end; a side stands for two. What is done beside takes what it usually takes.
 */
function minutesOf(text: string, foods: number): Minutes {
  const parts = text.split(/(?<=[.;!])\s+/).map((sentence) => sentenceMinutes(sentence, foods));
  const sum = (pick: 'handsOn' | 'handsOff') => parts.reduce((total, part) => total + part[pick], 0);
  return {
    handsOn: Math.max(1, sum('handsOn')),
    handsOff: sum('handsOff'),
    estimated: parts.some((part) => part.estimated),
  };
}

function sentenceMinutes(text: string, foods: number): Minutes {
  let [handsOn, handsOff] = [0, 0];
  let isTimed = false;
  // "LOW 6–8 hours or HIGH 3–4": one or the other, and the longer is planned for.
  const said = text.replace(EITHER_HEAT, (_, longer: string) => longer).replace(WARM_PLACE, 'there');
  for (const { words, at, minutes: exactly } of toldTimes(said)) {
    // How many days it keeps, is no time of a class.
    if (/days?$/i.test(words)) continue;
    const before = said.slice(0, at);
    if (/\b(?:every|within|packet|short of|ahead|before|earlier|under|last)\s*(?:the\s)?(?:last\s)?$/i.test(before))
      continue;
    // "Add the peas five minutes before the end" takes no five minutes; "let it stand five minutes before eating" does.
    const after = said.slice(at + words.length);
    const isMoment = /^\s*(?:before|ahead|earlier|later)/i.test(after);
    if (isMoment && lastMatch(before, ALONE) < 0 && lastMatch(before, BY_HAND) < 0) continue;
    if (/^\s*short of/i.test(after)) continue;
    const minutes = Math.max(1, Math.round(exactly));
    // What was said last before the time; a time at the head of a sentence belongs to what follows.
    const nearby = /[a-z]/i.test(before) ? before : after;
    const [alone, byHand] = [lastMatch(nearby, ALONE), lastMatch(nearby, BY_HAND)];
    // "Bakes in a dry pan" is frying.
    const isFrying = /\bpan\b/i.test(plainPans(nearby)) && !/\boven\b/i.test(text) && /\bbak/i.test(nearby);
    // What is cooked by the clock and not stirred goes on alone: "cook for about half an hour".
    const isCooking =
      byHand >= 0 && /^cook/i.test(nearby.slice(byHand)) && minutes >= ALONE_FROM && !STIRRED.test(text);
    const isAlone = !isFrying && ((alone >= 0 && alone >= byHand) || isCooking);
    if (isAlone) handsOff += minutes;
    else handsOn += minutes;
    isTimed = true;
  }
  if (AHEAD.test(text) && handsOff === 0) {
    handsOff += OVERNIGHT;
    isTimed = true;
  }
  const usual = USUAL.reduce((total, [test, each, perFood]) => {
    return test.test(text) ? total + each + perFood * Math.max(1, foods) : total;
  }, 0);
  // What is done by hand for a stated time has its time; what goes on alone is put on by somebody first.
  if (isTimed) return { handsOn: handsOn > 0 ? handsOn : Math.max(2, Math.min(usual, 10)), handsOff, estimated: false };
  const long = UNTIMED_ALONE.find(([test]) => test.test(text))?.[1] ?? 0;
  return { handsOn: usual, handsOff: long, estimated: usual + long > 0 };
}

/** From so many minutes on nobody stands at a pot that simmers. */
const ALONE_FROM = 8;
const STIRRED =
  /\bstirr?\w*\b[^.]*\b(?:constantly|all the time|continuously|often)|\bconstantly\b|\bbreaking\b|\btossing\b/i;
const EITHER_HEAT = /(\blow\b[^.;]*?\d[^.;]*?hours?),? or (?:on )?\bhigh\b[^.;]*?hours?/gi;
const WARM_PLACE =
  /\b(?:a |the )?(?:warm|cool|draught-free|dark) (?:place|spot|room|corner|oven that is off)\b|\bsomewhere (?:warm|cool|dark)\b/gi;
/** A text whose tins are no pans on a hob: "a loaf pan", "an 8-inch pan". */
const plainPans = (text: string) =>
  text.replace(
    /\b(?:loaf|cake|baking|sheet|muffin|springform|square|roasting|brownie|bundt|tart|pie|lined|greased|prepared|\d+(?:x\d+)?-?(?: ?inch|cm|″|")?)[- ]pans?\b/gi,
    'tin',
  );

/** Twelve hours, as "overnight" is understood. */
const OVERNIGHT = 720;

function lastMatch(text: string, words: RegExp): number {
  return [...text.matchAll(words)].at(-1)?.index ?? -1;
}

/**
 * Minutes that such a thing usually takes where the text does not say: each, and for each food. Ours, from watching
 * children cook rather than chefs; whoever teaches it sets its own.
 */
const USUAL: readonly (readonly [test: RegExp, minutes: number, perFood: number])[] = [
  [/\b(?:chop|dice|slice|cut|halve|quarter|shred|mince|trim|tear)/i, 2, 2],
  [/\b(?:grate|peel|zest(?=s? (?:the|a|an|two|\d)|ed))/i, 1, 2],
  [/\b(?:wash|rinse|drain)/i, 2, 0],
  [/\b(?:mix|stir|whisk|combine|fold|toss|beat|cream|layer|fill|spread|mash)/i, 3, 0],
  [/\b(?:knead|roll|shape|form|press|thread)/i, 5, 0],
  [/\b(?:soften|fry|fries|brown|melt|warm|toast)/i, 4, 0],
  [/\b(?:measure|weigh)/i, 1, 1],
];

/** Minutes that go by alone where the text names none. */
const UNTIMED_ALONE: readonly (readonly [test: RegExp, minutes: number])[] = [
  [/\bboil\w*\b[^.]*\bpasta\b|\bpasta\b[^.]*\bboil/i, 10],
  [/\b(?:boil|cook)\w*\b[^.]*\b(?:rice|quinoa|lentils)\b|\brice\b[^.]*\bboil/i, 15],
  [/\bcook\w*\b[^.]*\b(?:pasta|spaghetti|noodles)\b/i, 10],
  [/\b(?:bring|brings)\b[^.]*\bboil/i, 8],
  [/\b(?:pre)?heats? the oven|\bpreheat/i, 12],
  [/\b(?:cool|chill)\b/i, 20],
];

const HEAT_WORDS: readonly (readonly [Heat, RegExp])[] = [
  ['fire', /\b(?:fire|embers|campfire|barbecue|coals)\b/i],
  ['microwave', /\bmicrowave/i],
  [
    'oven',
    /\boven\b|\bair[- ]fry|\broast(?!ed|ing (?:tin|tray|pan))|\bbak(?:e|es|ing)\b(?![^.]*\bpan\b)(?!\s(?:powder|soda|paper|parchment|tray|sheet|tin|dish|beans|case))/i,
  ],
  ['kettle', /\bkettle\b|\b(?:pour|cover|dissolve|soak|top)\w*\b[^.]*\b(?:boiling|hot) water\b/i],
  ['grill', /\b(?:grill|broil)/i],
  [
    'hob',
    /\b(?:simmer|boil|cook\b|fry(?!er)|fries|frying|saut|soften|sweat|sear|brown the|hob|stove|pan\b|griddle|skillet|wok|steam|melt|warms? (?!water|milk|liquid|place|spot|room|tap)|stew|poach|caramelis|carameliz|toast|scrambl|wilt|heat(?:ed)? (?:through|the oil|the butter)|heat the|heat oil|piping hot|bubble|thicken|reduced by|hard-boil|last \d+ min|over (?:a )?(?:low|medium|high|gentle|moderate)|turn (?:up|down) the heat|reduce the heat|slow[- ]cook|pressure[- ]cook|brais(?:e|ing)\b|blanch|deglaz|\broux\b|parboil|par-boil|scald|render (?:the|down)|temper the|centre reads|hot oil|risotto)/i,
  ],
  ['kettle', /\b(?:kettle|boiling water|hot water)\b/i],
];

/** What each step is cooked over: "add the spices and stir for a minute" goes on with what stands on the hob. */
function heatsOf(steps: readonly string[], order: readonly (readonly number[])[]): Heat[] {
  const heats: Heat[] = [];
  for (const [at, text] of steps.entries()) {
    const own = heatOf(text);
    const goesOn = own === 'none' && ADDED.test(text) && !OFF_HEAT.test(text);
    const isHot = (n: number) => heats[n] === 'hob' && !OFF_HEAT.test(steps[n] ?? '');
    heats.push(goesOn && (order[at] ?? []).some(isHot) ? 'hob' : own);
  }
  return heats;
}

/** What is over the heat no more when the step ends. */
const OFF_HEAT =
  /\b(?:off|from) the (?:heat|hob|stove|fire)\b|\b(?:drain|cool|chill|set aside|tip|transfer|remove|rest|blend|bowl|plate|serve)\b/i;

function heatOf(text: string): Heat {
  // What is eaten warm is not heated again.
  const said = text
    .replace(WHILE, '')
    .replace(/\b(?:while|still|serve|eat|eaten|keep|served)\s+(?:\w+\s){0,3}warm\b/gi, '')
    .replace(/\bclean pan\b/gi, '')
    .replace(/\b(?:hard-|soft-)?boiled (?=eggs?\b)/gi, '')
    .replace(WARM_PLACE, '')
    .replace(/\boven(?:-?proof|-safe| gloves?| dish)\b/gi, 'dish')
    .replace(/\b(?:line|grease|butter|flour)\b[^.;]*\b(?:tin|tray|pan|dish)\b/gi, '')
    .replace(/\b(?:off|from) the (?:heat|hob|stove)\b/gi, '');
  return HEAT_WORDS.find(([, test]) => test.test(plainPans(said)))?.[0] ?? 'none';
}

/** What a knife does; the mince that is shaped was cut by the butcher. */
const CUTTING =
  'chop|dice|slice|cut (?!out)|halve|quarter(?!s? of)|shred(?!s\\b)|score|(?<!the |with |of |and )mince (?!meat|into|with|mixture|and)|trim';

const TOOL_WORDS: readonly (readonly [Tool, RegExp])[] = [
  ['knife', new RegExp(`\\b(?:${CUTTING}|knife|claw|mandolin)`, 'i')],
  ['board', new RegExp(`\\b(?:${CUTTING}|board)`, 'i')],
  // A peeler is for what is hard: the rest is peeled by hand.
  [
    'peeler',
    /(?<!\beggs?\b.{0,60})\bpeel(?!\w* (?:and (?:chop|crush|mince) )?(?:the |an? |\d )?(?:prawns?|shrimps?|eggs?|bananas?|oranges?|clementines?|satsumas?|chestnuts?))/i,
  ],
  ['grater', /\b(?:grate|zest(?=s? (?:the|a|an|two|\d)|ed))/i],
  ['bowl', /\b(?:bowl|whisk|mix|stir [^.]*\binto\b|fold|knead|toss|combine|beat|marinat)/i],
  ['whisk', /\bwhisk|\bwhip/i],
  ['sieve', /\b(?:sieve|strain|drain|sift|colander)/i],
  ['pot', /\b(?:pot|saucepan|simmer(?!ing)|hard-boil|boil(?:s|ed)?|boiling (?=salted))\b/i],
  ['pan', /\b(?:frying pan|pan\b|griddle|skillet|wok|(?<!air[- ])fry|fries|soften|saut)/i],
  ['tray', /\b(?:tray|baking sheet|baking tin|tin\b)/i],
  ['rolling pin', /\b(?:roll out|rolling pin|roll (?:palm|it(?! up)|the dough|into rounds))/i],
  ['blender', /\b(?:blend|purée|puree|blitz|liquidis|food processor|whizz)/i],
  ['thermometer', /\bthermometer|\bprobe\b|\b7\d ?°|\b1[467]\d ?°?F/i],
];

/** What what was made may wait, in minutes. */
const WAITS: readonly (readonly [RegExp, number])[] = [
  [
    /\b(?:apple|avocado|banana|pear)\b[^.]*\b(?:cut|slice|peel|chop|dice)|\b(?:cut|slice|peel|chop|dice)\b[^.]*\b(?:apple|avocado|banana|pear)\b/i,
    20,
  ],
  [/\b(?:dress|dressing)\b/i, 15],
  [/\b(?:while|still|eat|serve)\w*\s+(?:\w+\s)?(?:warm|hot)\b/i, 20],
  [/\b(?:fry|fries|grill)/i, 30],
];

const AHEAD =
  /\b(?:overnight|(?:the )?(?:night|day|evening) before|\d+ hours (?:before|ahead)|in advance|ahead of (?:time|class))\b/i;
/** What stands by itself in the cold or in water, and for how long it is no part of a class any more. */
const STANDS = /\b(?:soak|marinat|marinad|chill|refrigerat|fridge|freez|keep(?:s)? cold)/i;
const LONG_STAND = 60;
const LAST_MINUTE =
  /\b(?:just before|right before|at the last (?:minute|moment)|last of all|immediately before|to serve\b|at the table|honey last)/i;

/** "until golden", "to 74 °C" */
function doneness(text: string): string {
  const heat = /\boven\b/i.test(text)
    ? undefined
    : /\b(?:to|reaches|reach|reads|of)\s(\d{2,3}\s?°\s?[CF][^.;]*)/i.exec(text)?.[0];
  const eye = /\b(?:un)?till?\b(?! (?:eaten|needed|serving|use|class|the class)\b)[^.;,]*/i.exec(text)?.[0];
  return [heat, eye].filter(Boolean).join(', ').slice(0, 120);
}

const CONSUMABLES: readonly (readonly [string, RegExp])[] = [
  ['foil', /\bfoil\b/i],
  ['baking paper', /\b(?:baking|greaseproof|parchment) paper\b|\bparchment\b|\blined? (?:a |the )?(?:tray|tin)\b/i],
  ['cling film', /\b(?:cling film|plastic wrap|wrap tightly)\b/i],
  ['gloves', /\bgloves?\b|\bchill(?:i|ies)\b/i],
  ['paper towel', /\b(?:kitchen paper|paper towels?|pat \w+ dry)\b/i],
  ['skewers', /\bskewers?\b|\bcocktail sticks?\b/i],
  ['paper cases', /\bpaper cases\b|\bmuffin cases\b/i],
  ['bag', /\b(?:zip|freezer|plastic) bags?\b/i],
];

/** What was made before and is meant by no food's name. */
const MADE_BEFORE =
  /\b(?:everything|all|dough|batter|mixture|sauce|filling|dressing|soup|stew|topping|pieces|rounds|squares|cups?|pan|pot|tray|rest|salt at the end|fill|fold|serve|cool|the dish)\b/i;
/** What stands for a food named just before, or for what was made. */
const PRONOUN = /\b(?:it|them|they|these|this)\b/i;
/** What goes on with something that is there. */
const GOES_ON =
  /^(?:(?:an? )?(?:adult|instructor)s?\s)?(?:add|stir in|roll|shape|form|knot|press|fold|pour|top|fill|spread|serve|layer|dress|return|season|garnish|sprinkle|drizzle|divide|(?:beat|stir|mix|whisk|rub|fold)\b[^.,;]*\bin[.,;])/i;
const MEANWHILE = /^(?:meanwhile|in the meantime|at the same time|while (?:the|it|they|that)\b)/i;
const OVEN_FIRST = /^(?:(?:an? )?(?:adult|instructor)s?\s)?(?:pre-?heats?|heats? the oven)/i;

/**
 * For each step those that must be done before: the ones that handled its foods, and the one before where it goes on with
 * what that made. What no step takes up is needed at the end.
 */
function ordered(written: readonly string[], uses: readonly (readonly string[])[]): number[][] {
  // "While the rice simmers" says when, not what with; "into pieces" and "for the dressing" what for.
  const steps = written.map((text) => text.replace(WHILE, ''));
  const taken = new Set<number>();
  const all: number[][] = [];
  for (const [at, text] of steps.entries()) {
    const after = new Set<number>();
    const isBeside = text !== written[at];
    const own = isBeside ? (uses[at] ?? []).filter((food) => names(text, food)) : (uses[at] ?? []);
    for (const food of own) {
      const last = uses.slice(0, at).findLastIndex((foods) => foods.includes(food));
      if (last >= 0) after.add(last);
    }
    const before = [...Array(at).keys()];
    const isOven = IN_OVEN.test(text);
    const isHeatUp = (n: number) => OVEN_FIRST.test(steps[n] ?? '');
    // "The wedges", "the knots": what an earlier step made and named.
    for (const [, thing = ''] of text.matchAll(/\bthe (\p{L}{4,})/giu)) {
      const maker =
        PLACES.test(thing) || MADE_FOR.test(text.slice(0, text.indexOf(thing) + thing.length))
          ? -1
          : steps.slice(0, at).findLastIndex((each) => wordsOf(each).includes(wordKey(thing)));
      if (maker >= 0) after.add(maker);
    }
    const first = beforeComma(text).replace(PURPOSE, '');
    const isNew = own.length > 0 && after.size === 0 && !GOES_ON.test(text) && !MADE_BEFORE.test(first);
    if (at > 0 && !OVEN_FIRST.test(text) && !MEANWHILE.test(text) && !isBeside && !isNew) {
      // An oven that heats is waited for by what goes into it.
      const open = before.filter((n) => !taken.has(n) && (isOven || !isHeatUp(n)));
      // What is put together takes up everything that waits; what goes on with "it" takes up the last.
      if (/\b(?:all|everything|serve|fill|fold|layer|top|assemble|spread)\b/i.test(text))
        for (const n of open) after.add(n);
      // What is added goes to what is on the heat.
      else if (ADDED.test(text) && open.some((n) => ON_HEAT.test(steps[n] ?? '')))
        after.add(open.findLast((n) => ON_HEAT.test(steps[n] ?? '')) as number);
      else if (MADE_BEFORE.test(text) || PRONOUN.test(text) || GOES_ON.test(text) || after.size === 0)
        after.add(at - 1);
    }
    if (isOven) for (const n of before) if (!taken.has(n) && isHeatUp(n)) after.add(n);
    if (at > 0 && at === steps.length - 1)
      for (const n of before) if (!taken.has(n) && !reaches(n, after, all)) after.add(n);
    for (const n of after) taken.add(n);
    all.push([...after].sort((a, b) => a - b));
  }
  return all;
}

/** What something becomes, or is for: none of what was made before. */
const PURPOSE =
  /\b(?:into|in) (?:\p{L}+ )?(?:pieces|rounds|squares|cubes|strips|half rounds)\b|\bfor (?:the|a) \p{L}+|\binto (?:a |the )?(?:\p{L}+ )?(?:bowl|pan|pot|tray|tin)\b/giu;
const MADE_FOR = /\bfor the \p{L}+$/iu;
const IN_OVEN = /\b(?:bakes?|roasts?|into the (?:hot )?oven|in the oven)\b/i;
const ADDED = /^(?:(?:an? )?(?:adult|instructor)s?\s)?(?:add|stir in|pour in)\b/i;
const ON_HEAT =
  /\b(?:fry|fries|soften|warms?|sweat|saut|brown|melts?|simmer|boil|stirs? \p{L}+.* in it|in a (?:pot|pan))\b/iu;

/** Whether a text names a food, by a word of its own. */
const names = (text: string, food: string): boolean => {
  const words = new Set(wordsOf(text));
  return food.split(' ').some((word) => words.has(wordKey(word)));
};

/** Where things are done: named again and again, and made by nobody. */
const PLACES =
  /^(?:oven|hob|fridge|freezer|pan|grill|table|board|bowl|tray|heat|rest|top|side|sides|same|other|last|first|water|salt)$/i;
const wordsOf = (text: string) =>
  text
    .split(/[^\p{L}]+/u)
    .filter(Boolean)
    .map(wordKey);

/** The part of a sentence that says what it begins with. */
const beforeComma = (text: string) => text.split(/[,;.]/, 1)[0] ?? '';

/** Whether one of these steps waits for a step already, through others. */
const reaches = (step: number, from: Iterable<number>, all: readonly (readonly number[])[]): boolean =>
  [...from].some((at) => at === step || reaches(step, all[at] ?? [], all));
