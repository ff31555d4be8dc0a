import { foodsAmong } from '../../reference/food-finder';
import { foodNames, TYPICAL } from '../../reference/reference';
import { readAmount, readMeasure } from './amount-reader';
import { tidyLine } from './line-reader';

/** A recipe as it stands in a text, before its lines are read. */
export interface RecipeText {
  readonly title: string;
  /** Servings, when the text says so; a range gives its lower end. */
  readonly servings: number | undefined;
  readonly lines: readonly { readonly text: string; readonly section: string }[];
  readonly steps: readonly string[];
}

const INGREDIENTS =
  /^(?:the )?(?:ingredients?|(?:what )?you(?:['’]?ll| will)? need|what goes in(?: it)?|what(?:['’]s| is) in it|what to buy|gather|shopping(?: list)?|ingredient list)\b[^.]{0,30}:?$/i;
const METHOD =
  /^(?:the )?(?:method|instructions?|directions?|preparation|steps?|procedure|how to(?: (?:make|cook|prepare|do)\b.{0,40})?|how (?:it['’]?s|it is) (?:done|made)|here['’]?s how|what (?:to|you) do|make it|cooking|to (?:make|prepare|cook)(?: it)?)\s*:?$/i;
const NOTES =
  /^(?:notes?|tips?|nutrition(?:al)?(?: facts| information)?|storage|equipment|comments?|reviews?|related(?: recipes)?|more recipes|you (?:may|might) also like|leave a (?:comment|reply)|share this)\b[^.]{0,20}:?$/i;
const SECTION = /^(?:for the |for |to serve|topping|sauce|dressing|dough|filling|marinade)[^.,\d]{0,40}:?$/i;
/** "For the sauce", alone in its row: a heading wherever it stands. */
const FOR_THE = /^for (?:the )?(?!\w*(?:serving|garnish|topping|frying|dusting|brushing))(?:\p{L}+ ){0,2}\p{L}+:?$/iu;
/** "For the glaze: 150 g icing sugar, 3 tbsp lemon juice" */
const IN_ITS_ROW = /^(for (?:the )?(?:\p{L}+ ){0,2}\p{L}+)\s*[:–-]\s*(?=[\d½⅓⅔¼¾]|an? |some )(.+)$/iu;
/** A step's number, alone in its row. */
const NUMBER_ALONE = /^step (?:\d{1,2}|one|two|three|four|five|six|seven|eight|nine|ten)\s*[:.]?$/i;
const YIELD =
  /^(?:(?:serves|makes|(?:cuts|divides|slices) into|yields?|servings?|portions?|feeds|enough for|serving size)\b\s*(?:enough for)?\s*:?\s*(?:about |approx\.? )?(\d{1,3})|(?:recipe )?yields?:?\s*(\d{1,3})|(\d{1,3})(?: ?(?:[-–]|to) ?\d{1,3})? (?:thick |thin |large |small |equal |even )?(?:servings?|serv\.?|portions?|people|ppl|persone|serves)(?![\p{L}])|(?:for|x) (\d{1,3}) (?:people|ppl|persone|personen|personnes|servings|portions|children))/iu;

/** "Prep 20 mins", "Cooking time: 1 hr 10 min", "Serves 4–6", "Difficulty: easy": what stands above a recipe, often several in a row. */
const FACT =
  /(?:prep(?:aration)?|cook(?:ing)?|bak(?:e|ing)|total|active|hands[- ]on|chill(?:ing)?|rest(?:ing)?|ready|takes|time)(?: time| in)?\s*:?\s*(?:about )?\d+(?:\s*[-–]\s*\d+)?\s*(?:hours?|hrs?|h|minutes?|mins?|m)\b\.?(?:\s*(?:and )?\d+\s*(?:minutes?|mins?|m)\b\.?)?|(?:serves|makes|yields?|servings?|feeds)\s*:?\s*(?:about )?\d{1,3}(?:\s*[-–]\s*\d{1,3})?(?: (?:servings?|people|portions?|rolls|pieces|slices|bowls|bars|squares|loaves|muffins|cookies|biscuits))?(?: \(\d{1,3} (?:pieces|slices|servings|portions)\))?|(?:difficulty|level)\s*:?\s*\w+/gi;

/** Whether a row holds facts of this kind and nothing else; with the servings that it says. */
function factsIn(row: string): { servings: number | undefined } | undefined {
  const found = row.match(FACT);
  if (!found || row.replace(FACT, '').replace(/[\s|,;·•./–-]+/g, '') !== '') return undefined;
  return { servings: found.map(servingsIn).find((each) => each !== undefined) };
}

/** Servings said in a line: "Serves 4", "Makes 12", "4–6 servings", "Feeds four"; undefined when it says none. */
export function servingsIn(line: string): number | undefined {
  const match = YIELD.exec(inFigures(line));
  // "Makes 1 loaf, 8 slices", "Makes about 20 (10 servings)": it is eaten by the slice, and served by the serving.
  const parts =
    match &&
    /\b(\d{1,3}) (?:thick |thin |large |small )?(?:servings?|portions?|slices?|people|pieces|squares|wedges|bars)\b/i.exec(
      inFigures(line).slice(match[0].length),
    );
  const found = Number(parts?.[1] ?? match?.slice(1).find((group) => group !== undefined));
  return match && found >= 1 && found <= 500 ? found : undefined;
}

/** "Cut into 16 squares", "Mark into 8 wedges", "About 16 slices": how many it comes to, said at the end of the work. */
const PARTED =
  /(?:\b(?:cut|mark|divide|slice|score)\b[^.]{0,20}\binto |^about )(\d{1,2}) (?:thick |thin |large |small |equal |even )?(?:servings?|portions?|slices?|pieces|squares|wedges|bars|people)\b/i;

const FIGURES = 'one two three four five six seven eight nine ten eleven twelve'.split(' ');

/** "Serves four" is "Serves 4". */
const inFigures = (line: string) =>
  line.replace(/\b(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\b/gi, (word) =>
    String(FIGURES.indexOf(word.toLowerCase()) + 1),
  );

/** What a recipe is counted in, alone under its title: "6 pots", "10 bars", "For 4", "4". */
const ALONE =
  /^(?:for )?(?:about |around |ca\.? )?(\d{1,3})(?: ?[-–] ?\d{1,3})?(?: (?:large |small |medium |thick |big |little |mini |individual )?(?:slices?|servings?|portions?|people|persons?|pots?|bars?|squares?|balls?|muffins?|cookies|biscuits?|buns?|glasses|bowls?|pieces?|loaves|loaf|cakes?|cupcakes?|pancakes?|waffles?|wraps?|jars?|wedges?|scones?|tarts?|pies|pizzas?|skewers?|fritters?|burgers?|patties|dumplings?|children|kids|guests)(?: ?[|,·(].*)?| ?[|·].*)?$/i;
/** "Fills a jar, 10 servings" */
const SAID_IN =
  /^\D[^\d]*\b(\d{1,3}) (?:servings?|portions?|people|ppl|persons|personnes|personen|personas|persone|porciones|portionen|porzioni)\b/i;
/** "1 loaf, 8 slices" */
const IN_SLICES =
  /^\d{1,2} [^\d]{3,30}\b(\d{1,3}) (?:thick |thin |large |small )?(?:slices?|pieces|servings?|portions?|people)\b/i;
/** "12 oat biscuits" */
const COUNTED_TITLE = /^\d{1,2} (?!x\b)\p{L}[\p{L} -]{2,40}s$/u;
/** "BEEF STEW - Serves 6", "Pancakes for eight": said with the title. */
const WITH_TITLE =
  /[\s,(|–-]+(?:(?:serves|makes|feeds|yields?)\b:? (?:about )?(\d{1,3})[^\d]*|for (\d{1,3})(?: people| persons| children)?(?: \([\p{L} -]+\))?|(\d{1,3}) (?:portions|servings|people|serves))\)?$/iu;

/**
 * Sorts a pasted text into title, ingredient lines and steps: by its headings where it has them, else by what its lines
 * look like.
 */
export function splitRecipeText(text: string): RecipeText {
  const rows = unwrapped(asScanned(text).split(/\r\n?|\n|\u2028|\u2029/))
    .flatMap(inRows)
    .map((row) => row.replace(/\s+/g, ' ').trim())
    .filter((row) => row !== '' && /[\p{L}\p{N}]/u.test(row));
  const numbered = numberedFrom(rows);
  // "3 lunchbox wraps", alone above an empty row or the yield: the title, whatever it begins with.
  const [top = ''] = rows;
  const second = text
    .trimStart()
    .slice(0, 400)
    .split(/\r\n?|\n/, 2)[1]
    ?.trim();
  const isTitled = second === '' || (second !== undefined && servingsIn(second) !== undefined);
  // "16 small bases", alone between the title and an empty row.
  const counted = /^\s*\S[^\n]*\r?\n(\d{1,3}) (?:[\p{L}-]+ ){0,2}[\p{L}-]+s\s*\r?\n\s*\r?\n/u.exec(
    text.trimStart(),
  )?.[1];
  const hasHeadings = rows.some((row) => INGREDIENTS.test(heading(row)));
  let part: 'top' | 'ingredients' | 'steps' | 'rest' = 'top';
  let title = '';
  let servings: number | undefined;
  let section = '';
  const lines: { text: string; section: string }[] = [];
  const steps: string[] = [];
  for (const [at, row] of rows.entries()) {
    if (numbered !== undefined && at >= numbered && part !== 'rest') part = 'steps';
    const bare = title === '' ? withoutFacts(heading(row)) : heading(row);
    if (title === '' && bare !== heading(row)) servings ??= factsIn(heading(row).slice(bare.length))?.servings;
    // "Bake 35 min." is a fact above the ingredients, and a step below them.
    const facts = part === 'steps' || steps.length > 0 ? undefined : factsIn(bare);
    if (facts) {
      servings ??= facts.servings;
      continue;
    }
    if (
      part === 'top' &&
      title !== '' &&
      lines.length === 0 &&
      /^(?:for |per )(?:each |one |every )?(?:person|child|serving|portion)\b[^\d]*$/i.test(bare)
    ) {
      servings ??= 1;
      continue;
    }
    if (NUMBER_ALONE.test(bare)) continue;
    // Kept with the steps: it may warn of something.
    if (/^\*+ ?note|^(?:tip|hint|note|nb)s?:/i.test(row)) {
      steps.push(stepOf(row));
      continue;
    }
    if (part === 'top' && title !== '' && lines.length === 0 && FACTS_IN_A_ROW.test(bare) && !namesFood(bare)) {
      servings ??=
        Number(
          /(\d{1,3})(?: ?[-–] ?\d{1,3})? ?(?:people|ppl|persons|servings?|portions?)\b/i.exec(bare)?.[1] ??
            /\b(?:servings?|serves|feeds|makes|yields?):? (?:about )?(\d{1,3})/i.exec(bare)?.[1] ??
            0,
        ) || undefined;
      continue;
    }
    if (INGREDIENTS.test(bare)) {
      part = 'ingredients';
      servings ??= servingsIn(bare.replace(/^\p{L}+ \(?/u, ''));
    } else if (METHOD.test(bare) && !isAmounts(rows[at + 1] ?? '')) part = 'steps';
    else if (NOTES.test(bare)) part = 'rest';
    else if (part !== 'steps' && servings === undefined && servingsIn(bare) !== undefined) servings = servingsIn(bare);
    else if (part === 'top' && title !== '' && lines.length === 0 && IN_SLICES.test(bare))
      servings ??= Number(IN_SLICES.exec(bare)?.[1]);
    else if (part === 'top' && counted && row === rows[1] && title !== '' && lines.length === 0)
      servings ??= Number(counted);
    else if (part === 'top' && title !== '' && lines.length === 0 && servings === undefined && SAID_IN.test(bare))
      servings = Number(SAID_IN.exec(bare)?.[1]);
    else if (part === 'top' && title !== '' && lines.length === 0 && ALONE.test(inFigures(bare)))
      servings ??= Number(ALONE.exec(inFigures(bare))?.[1]);
    else if (title === '' && part === 'top' && (!startsWithAmount(row) || (isTitled && row === top))) {
      const said = WITH_TITLE.exec(inFigures(bare));
      servings ??= said
        ? Number(said[1] ?? said[2] ?? said[3])
        : COUNTED_TITLE.test(bare)
          ? Number.parseInt(bare, 10)
          : undefined;
      title = (said ? bare.slice(0, bare.length - (inFigures(bare).length - said.index)) : bare)
        .replace(/^recipe(?: for)?:? /i, '')
        .slice(0, 120);
    } else if (part === 'rest') continue;
    else if (part !== 'steps' && title !== '' && isNamed(bare) && startsWithAmount(rows[at + 1] ?? ''))
      section = bare.replace(/:$/, '');
    else if (
      part !== 'steps' &&
      SECTION.test(bare) &&
      (bare.endsWith(':') || part === 'ingredients' || (title !== '' && FOR_THE.test(bare)))
    )
      section = bare.replace(/:$/, '');
    else if (part === 'steps') steps.push(stepOf(row));
    else if (title !== '' && TOOLS.test(tidyLine(row)) && !namesFood(tidyLine(row).split(',')[0] ?? ''))
      steps.push(`Have ready: ${tidyLine(row)}.`);
    else if (title !== '' && isHeadOfList(row, rows[at + 1] ?? '')) section = bare;
    else if (lines.length > 0 && HEATED.test(row)) steps.push(stepOf(row));
    else if (part === 'ingredients') {
      if (!hasHeadings || looksLikeLine(row)) lines.push({ text: tidyLine(row), section });
      else steps.push(stepOf(row));
    } else if (
      !hasHeadings &&
      looksLikeLine(row) &&
      !(lines.length > 0 && DOES.test(row)) &&
      // Where it is told already what to do, only an amount begins another ingredient.
      (steps.length === 0 || startsWithAmount(row))
    )
      lines.push({ text: tidyLine(row), section });
    else if (!hasHeadings && lines.length > 0) steps.push(stepOf(row));
  }
  // "Basic porridge (per person)"
  if (/\bper (?:person|child|serving|portion)\b/i.test(title)) servings ??= 1;
  // Said at the end of a step: "… until brown. Serves 4-6".
  servings ??= rows
    .map(
      (row) =>
        servingsIn(/\b(?:serves|makes|feeds)\b.*$/i.exec(row)?.[0] ?? '') ??
        Number(PARTED.exec(inFigures(row))?.[1] ?? Number.NaN),
    )

    .find((each) => each !== undefined && !Number.isNaN(each));
  return { title, servings, lines, steps: withoutNumbers(steps) };
}

/** What a scan takes for another letter: noughts behind a figure ("1OO g", "25Og"), an I in capitals ("lNGREDlENTS"). */
const asScanned = (text: string): string =>
  text
    .replace(/(?<=\d)[Oo]+(?=\d|[^\p{L}\d]|$|(?:k?g|m?l|cl|oz|lbs?|cm|mm|C|F)\b)/gu, (letters) =>
      '0'.repeat(letters.length),
    )
    // Italian for "as much as it takes"; a note that is found below.
    .replace(/\bq\. ?b\.(?=\s|$)/gi, 'to taste')
    .replace(/ ?\(\*?see notes?[^()]*\)/gi, '')
    .replace(/\b[A-Zl]{4,}\b/g, (word) => (/[A-Z].*[A-Z]/.test(word) ? word.replaceAll('l', 'I') : word));

const BREAKS_OFF = /(?:,|\b(?:for|the|an?|and|or|of|in|to|with|at|until|over|on|about|then|from|into|by|for about))$/i;
/** A row this short was not broken because its page ended. */
const LEAST_ROW = 30;

/** An ingredient that begins without a figure, or ends with what only an ingredient is for. */
const LISTED =
  /^\s*(?:splash|pinch|handful|salt|pepper|juice|zest|dash|drop|drizzle|knob|squeeze|a few|extra|some)\b|(?<![.\d]) ?\d+ ?(?:tbsp|tsp|g|ml|kg)\s*$|\b(?:to taste|to serve|to decorate|to garnish|for (?:serving|dusting|frying|greasing))\s*$/i;

/** Rows as they were written, where a page or a scan broke sentences at its edge, and words with a hyphen. */
function unwrapped(rows: readonly string[]): string[] {
  const goesOn = (row: string, next: string) =>
    row.length >= LEAST_ROW &&
    !/[.!?:;]\s*$/.test(row) &&
    servingsIn(next.trim()) === undefined &&
    !LISTED.test(next) &&
    // An ingredient goes on where it breaks off alone: the next one may begin with a small letter.
    ((/^\s*\p{Ll}/u.test(next) && !startsWithAmount(next) && !startsWithAmount(row) && !LISTED.test(row)) ||
      BREAKS_OFF.test(row.trimEnd()));
  // Notes without stops are rows of their own, however they begin.
  const isProse =
    rows.some((row, at) => goesOn(row, rows[at + 1] ?? '')) &&
    rows.some((row) => /[.!?]\s*$/.test(row)) &&
    rows.some((row) => /\p{Ll}[.!?] \p{Lu}/u.test(row));
  const whole: string[] = [];
  for (const row of rows) {
    const before = whole.at(-1) ?? '';
    if (/\p{Ll}-$/u.test(before) && /^\p{Ll}/u.test(row))
      whole[whole.length - 1] = (KEEPS_HYPHEN.test(before) ? before : before.slice(0, -1)) + row;
    else if (isProse && row.trim() !== '' && goesOn(before, row)) whole[whole.length - 1] = `${before} ${row.trim()}`;
    else whole.push(row);
  }
  return whole;
}

/** "self-" at the end of a row is the first half of "self-raising". */
const KEEPS_HYPHEN =
  /\b(?:self|semi|half|full|low|extra|all|non|pre|free|stir|deep|long|short|sun|bone|skin|well|ready|oven)-$/i;

/** Where steps begin that are numbered without a stop, one after the other: "1 Boil the rice", "2 Mix with the peas". */
function numberedFrom(rows: readonly string[]): number | undefined {
  const numberOf = (row = '') => Number(/^(\d{1,2}) (?=\p{Lu}\p{Ll})/u.exec(row)?.[1] ?? 0);
  const from = rows.findLastIndex((row) => numberOf(row) === 1);
  const run = from < 0 ? [] : rows.slice(from).filter((row) => numberOf(row) > 0);
  const isInOrder = run.every((row, at) => numberOf(row) === at + 1);
  const doing = run.filter((row) => DOES.test(row.replace(/^\d+ /, '')) || /[.!]$/.test(row));
  return run.length > 1 && isInOrder && doing.length > run.length / 2 ? from : undefined;
}

/** "1 Heat the oven", "2 Mix": numbered without a stop. */
const withoutNumbers = (steps: readonly string[]): string[] =>
  steps.length > 1 && steps.every((step, at) => new RegExp(`^${at + 1} \\p{Lu}`, 'u').test(step))
    ? steps.map((step) => step.replace(/^\d+ /, ''))
    : [...steps];

/** "Ingredients: 100 g rice; 700 ml milk": a heading and what is under it, in one row. */
function inRows(row: string): string[] {
  const [, own = '', under = ''] = IN_ITS_ROW.exec(row.trim()) ?? [];
  if (under !== '') return [`${own}:`, ...under.split(/[,;]\s*(?:and )?(?=\d|[½⅓⅔¼¾]|an? |some |pinch)/u)];
  const [, head = '', rest = ''] =
    /^\s*(ingredients|method|instructions|directions|steps)\s*[:–-]\s*(\S.*)$/i.exec(row) ?? [];
  if (rest === '') return inParts(row);
  if (!/^ingr/i.test(head)) return [head, rest];
  return [head, ...rest.split(rest.includes(';') ? /;\s*/ : /,\s*(?=\d|[½⅓⅔¼¾]|an? |pinch)/u)];
}

/** "2 tbsp oil / 1 onion / 2 carrots": several ingredients in a row; "1 cup / 240 ml milk" is one. */
function inParts(row: string): string[] {
  // "Salt, black pepper, nutmeg": seasonings that need no amount.
  const seasonings = row.trim().split(/, (?:and )?/);
  const isSeasoning =
    seasonings.some((each) => /^(?:sea )?salt$|pepper$/i.test(each)) &&
    seasonings.every((each) => each.split(' ').length <= 2);
  if (isSeasoning && seasonings.length > 2 && !/\d|taste/.test(row)) return seasonings;
  // "Sour cream, salsa, and guacamole, for serving"
  const [, served = '', what = ''] =
    /^(\D+?),? ((?:for|to) (?:serving|serve|garnish|top|topping))$/i.exec(row.trim()) ?? [];
  const sides = served.split(/, (?:and )?| and /);
  if (sides.length > 2 && sides.every((each) => each.split(' ').length <= 3))
    return sides.map((each) => `${each}, ${what}`);
  // "1 stock cube, salt"
  const [, counted = '', seasoning = ''] =
    /^(.*\d.*?), (salt|(?:black )?pepper|salt (?:and|&) (?:black )?pepper)$/i.exec(row.trim()) ?? [];
  if (seasoning !== '') return [counted, seasoning];
  // Two columns of a page stand in one row.
  const parts = row.trim().split(/ [/•·|] | {3,}|\t/);
  const isIngredient = (part: string) =>
    /^(?:[\d½⅓⅔¼¾]|[lI|] |an? |half |(?:small |large )?(?:pinch|handful|bunch|knob) )/u.test(part.trim()) &&
    !readMeasure(part) &&
    !/\b(?:min(?:ute)?s?|hours?|people|servings?|portions?)\b/i.test(part) &&
    /\p{L}{3}/u.test(part);
  return parts.length > 1 && parts.every(isIngredient) ? parts : [row];
}

/** What parts of a dish are called, where they are headings. */
const PART_OF_DISH =
  /^(?:the )?(?:crust|fillings?|toppings?|base|dough|pastry|sauce|dressing|dip|dipping sauce|marinade|glaze|icing|frosting|batter|salad|slaw|salsa|soup|curry|meatballs|patties|burgers|wrappers|garnish(?:es)?|syrup|crumble|streusel|sponge|custard|pickle|drizzle|broth|stew|mash|to (?:cook|finish|garnish|assemble|decorate|fry|dust|glaze))$/i;

/** A row of amounts with their measures, no numbered step. */
const isAmounts = (row: string) =>
  startsWithAmount(row) &&
  /^\D*[\d½⅓⅔¼¾][\d/. ]*(?:k?g|m?l|tbsps?|tsps?|cups?|oz|lbs?|tablespoons?|teaspoons?)\b/i.test(row);

/** "Soak overnight", "Mix first": what is done with the ingredients below it, in a heading. */
const isDoing = (bare: string) =>
  /^(?:soak|mix|combine|blend|marinate|toast|grind|cook|boil|chop)\b[^\d,.]*$/i.test(bare) &&
  bare.split(' ').length <= 3;

/** What stands among ingredients and is none. */
const TOOLS =
  /^(?:\d+ |a |some |an )?(?:(?:bamboo|wooden|wood|metal|steel|long|short|small|large|thin|soaked|kebab|cotton|sheets? of) ){0,3}(?:skewers?|toothpicks?|cocktail sticks?|(?:lolly|lollipop|popsicle|ice[- ]cream|craft) sticks?|(?:paper|cupcake|muffin) (?:cases|liners)|baking (?:paper|parchment)|parchment paper|greaseproof paper|(?:kitchen )?string(?! (?:cheese|beans))|cling ?film|(?:tin|kitchen|aluminium) foil|jam jars?|piping bags?)\b/iu;

/** "180C, 45 mins." */
const HEATED = /^(?:gas \d|\d{3} ?°? ?[CF]?\b)[^\d]*\d+(?: ?[-–] ?\d+)? ?(?:mins?|minutes|hours?)\b/i;

/** "One pan · 35 mins · 4 ppl", "Author: Fern  Course: Breakfast  Servings: 12 cups": several facts, whatever they are. */
const FACTS_IN_A_ROW = /^[^·•|]*\d* ?[^·•|]*(?: [·•|] [^·•|]+){2,}$|^(?:\p{Lu}\p{L}+: [^:]+){3,}$/u;

const BULLET = /^[-•*▢□–]\s*/;

/** "Filling", above a list of rows with bullets that has none itself. */
const isHeadOfList = (row: string, next: string) =>
  !BULLET.test(row) &&
  BULLET.test(next) &&
  startsWithAmount(next) &&
  /^[^\d,.]{2,30}$/.test(row) &&
  !namesFood(row) &&
  row.split(' ').length <= 4;

/** "DRY", "Bowl:", "Soak overnight": the name of a part, where amounts follow. */
const isNamed = (bare: string) =>
  (PART_SAUCE.test(bare) && !isFood(bare)) ||
  (!namesFood(bare) &&
    (isDoing(bare) ||
      PART_OF_DISH.test(bare) ||
      /^[^\d,.()]{2,40}:$/.test(bare) ||
      /^\p{Lu}{3,}(?: (?:\p{Lu}{2,}|&)){0,2}$/u.test(bare)));

/** "Peanut sauce:" is a part of the dish, "Peanuts:" and "ALMONDS" may be an ingredient without an amount. */
const PART_SAUCE = /\b(?:sauce|dressing|dip|marinade|glaze|topping|filling|salad|slaw|soup|curry|batter|crumble)s?:$/i;

/** "Fish sauce:" is a food, and all of the row. */
function isFood(row: string): boolean {
  const words = wordsOf(row);
  return foodsAmong(words, foodNames(TYPICAL)).some(({ from, to }) => from === 0 && to === words.length);
}

const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}'’-]+/gu) ?? [];

/** Kinds that the table holds several of, and none by that name. */
const KIND_OF_FOOD =
  /\b(?:nuts?|cheeses?|cream|fish|seafood|shellfish|meat|chicken|beef|pork|lamb|turkey|beans|lentils|pulses|seeds|noodles|bread|pasta|rice|milk|eggs?|fruit|berries|herbs|spices|vegetables|greens|leaves|oil|sugar|flour|butter|chocolate|soya?|gluten|celery|mustard)\b/i;

/** Whether a food of the table is named: a row that names one is never taken for a heading or a tool, and lost. */
const namesFood = (text: string): boolean =>
  KIND_OF_FOOD.test(text) || foodsAmong(wordsOf(text), foodNames(TYPICAL)).length > 0;

/** "Rice pudding Prep 5 mins Cook 90 mins Serves 4": what stands behind a title, where it is nothing but facts. */
function withoutFacts(row: string): string {
  const at = row.search(FACT);
  return at > 2 && factsIn(row.slice(at)) ? row.slice(0, at).replace(/[\s,|–-]+$/, '') : row;
}

/** What a step begins with, and no ingredient does. */
const DOES =
  /^(?:mix|stir|bake|cook|fry|boil|simmer|add|pour|microwave|heat|preheat|put|place|serve|chill|leave|whisk|beat|fold|combine|blend|spread|sprinkle|knead|drain|roast|melt|cool|transfer|remove|divide|shape|toss|let|bring|tip|rub|press|mash|roll (?:out|up|into|the)|cut (?:into|out|the)|turn (?:out|over|down))\b/i;

const heading = (row: string) =>
  row
    .replace(/^[#*_=\s-]+|[*_=\s]+$/g, '')
    .replace(/^\(((?:makes|serves|feeds|yields?) [^()]*)\)$/i, '$1')
    .trim();

/** "Step 1: stir" is a step; its number is not part of it. */
const stepOf = (row: string) =>
  row
    .replace(/^(?:step )?\d{1,2}\s*[.):]\s*/i, '')
    .replace(/^[-•*]\s+/, '')
    .slice(0, 2000);

/** "Three-Cheese Shells" names no amount. */
const startsWithAmount = (row: string) => !/^\p{L}+-\p{Lu}/u.test(row) && readableAmount(tidyLine(row));

function readableAmount(line: string): boolean {
  try {
    return (
      readAmount(line).amount !== undefined &&
      /^[\d½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞]|^(?:an?|one|two|three|four|half|pinch|juice|zest)\b/i.test(line)
    );
  } catch {
    return true;
  }
}

/** An ingredient line is short, or begins with an amount; a step is a sentence. */
function looksLikeLine(row: string): boolean {
  const line = tidyLine(row);
  if (line.length > 160) return false;
  if (readableAmount(line)) return !/[.!]$/.test(line) || line.length < 60;
  return line.length <= 60 && !/[.!?]$/.test(line) && line.split(' ').length <= 8;
}
