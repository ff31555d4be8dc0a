// What is not safe in a recipe as a whole: by what is in it and what its steps do, or leave out. Each rule names whose caution it is.
import type { Slip } from './slip';

/** A recipe as these rules look at it. */
interface Looked {
  /** Names of the foods in the reference table. */
  readonly foods: readonly string[];
  /** Ingredient lines as written. */
  readonly lines: readonly string[];
  readonly steps: readonly string[];
}

interface Rule {
  /** The step that is meant; undefined where nothing is wrong; -1 for the recipe as a whole. */
  readonly at: (recipe: Looked) => number | undefined;
  readonly say: string;
  readonly why: string;
}

const has = (foods: readonly string[], test: RegExp) => foods.some((food) => test.test(food));
const anyStep = (steps: readonly string[], test: RegExp) => steps.some((step) => test.test(step));

/** Whether the steps seem to tell all that is done: of two alone, that it is served or put away at their end. */
const isWhole = (steps: readonly string[]) =>
  steps.length > 2 ||
  (steps.length > 1 && /\b(?:serve|jars?|glass(?:es)?|fridge|chill|eat|enjoy)\b/i.test(steps.at(-1) ?? ''));

/** Whether a step heats something; that nothing is to be cooked heats nothing. */
const anyCooks = (steps: readonly string[]) =>
  steps.some((step) =>
    COOKS.test(
      step.replace(
        /\b(?:no|without|not|never|instead of)[- ](?:\w+ )?(?:cook|bak|heat|fry)\w*|\bun-?cooked\b|\bno-bake\b/gi,
        '',
      ),
    ),
  );

/** The first step that does something and nothing that makes it right. */
const stepThat = (steps: readonly string[], does: RegExp, unless?: RegExp): number | undefined => {
  const at = steps.findIndex((step) => does.test(step) && !unless?.test(step));
  return at < 0 ? undefined : at;
};

/** Steps in which something is heated through. */
const COOKS =
  /\b(?:bak|cook|fr(?:y|ie)|boil|simmer|roast|grill|broil|scrambl|poach|steam|microwav|heat|oven|toast|saut|griddl|barbecu|brais|stew|soften|brown|melt|warm|hard-boil)|\bhot (?:\w+ )?(?:pan|skillet|griddle|wok|oil|fat|plate|grill|iron)\b|\b(?:pan|skillet|griddle)\b[^.]*\b(?:turn|flip|side)/i;

const FISH = /fish|salmon|tuna|trout|bass|mackerel|tilapia|prawns|squid|scallops|haddock/;
const RAW_MEAT =
  /chicken|turkey|duck|beef|pork|lamb|minced|sausage|liver|fish|salmon|tuna|trout|bass|prawns|squid|mackerel|tilapia/;

/** Kept so long, or so warm, that it is not safe. */
const KEPT_LONG =
  /\b(?:keeps?|kept|store[ds]?|lasts?|good|ready)\b[^.]*\b(?:weeks?|months?|years?|cupboard|pantry|shelf)\b/i;

const RULES: readonly Rule[] = [
  {
    // Phytohaemagglutinin is taken apart by boiling alone: a slow cooker makes it worse.
    at: ({ foods, steps }) =>
      has(foods, /^dried (?:kidney|cannellini) beans$/) &&
      steps.length > 0 &&
      !anyStep(
        steps,
        /\bboil\w*\b(?:(?!simmer)[^.]){0,60}\b(?:1\d|[2-9]\d|ten|fifteen|twenty|thirty)\b[^.]{0,12}\bmin|\b(?:boil|simmer)\w*\b(?![^.]*\b(?:slow cooker|crock|low)\b)[^.]{0,40}\bhour|pressure/i,
      )
        ? (stepThat(steps, /\bbeans?\b/i) ?? -1)
        : undefined,
    say: 'Dried kidney beans are not boiled hard.',
    why: 'Soaked at least 5 hours, then boiled hard for at least 10 minutes (FDA: 30) in fresh water: undercooked they are poisonous, and a slow cooker does not get hot enough.',
  },
  {
    at: ({ foods, lines, steps }) =>
      has(foods, /^honey$/)
        ? stepThat(
            [...steps, ...lines],
            /\bbab(?:y|ies)\b|\binfants?\b|\bweaning\b|\b(?:from|suitable|aged?|over)\b[^.]{0,14}\b(?:[1-9]|1[01]) ?months?\b/i,
            /\b(?:not|never|no)\b[^.]{0,30}\b(?:bab|infant|1|one|12)/i,
          )
        : undefined,
    say: 'Honey is not for babies under 12 months.',
    why: 'Honey may hold spores of botulism, baked or not (CDC, NHS).',
  },
  {
    // Baked and dry it keeps; with raw garlic, cream, cheese, meat or fish in it nothing does.
    at: ({ foods, steps }) =>
      has(
        foods,
        /cream$|cheese$|^milk$|^butter$|yogurt$|^egg$|chicken|turkey|minced|beef|pork|lamb|fish|salmon|prawns/,
      ) && !anyStep(steps, /\bbak|\bdry|\bdried|\bbiscuit|\bcookies|\bcrisp/i)
        ? stepThat(
            steps,
            /\b(?:keeps?|kept|store[ds]?|lasts?|good)\b[^.]*\b(?:weeks?|months?|years?)\b[^.]*\b(?:cupboard|pantry|shelf|room temperature|larder)\b/i,
            /\bfridge|\bfreez|\bfrozen/i,
          )
        : undefined,
    say: 'It does not keep out of the cold.',
    why: 'Perishable food is at most two hours out of the cold (USDA FSIS two-hour rule); chilled it keeps for days, frozen for months.',
  },
  {
    at: ({ foods, steps }) =>
      has(
        foods,
        /^garlic$|^fresh (?:basil|rosemary|thyme|oregano|sage|chilli)|^(?:jalapeno pepper|sun-dried tomatoes)$/,
      ) && has(foods, / oil$/)
        ? stepThat(steps, KEPT_LONG, /\bfreez|\bfrozen|\bfridge\b[^.]{0,40}\b(?:[1-4]|two|three|four) days/i)
        : undefined,
    say: 'Garlic or herbs in oil are kept too long.',
    why: 'In oil, without air and acid, botulism can grow: at most four days at or below 5 °C, or frozen (USDA extension guidance).',
  },
  {
    at: ({ steps, foods }) =>
      has(foods, /jam$|marmalade/)
        ? undefined
        : stepThat(
            steps,
            /\b(?:seal|bottle|jars?|canning|process)\w*\b[^.]*\b(?:cupboard|pantry|shelf|larder|room temperature|months?|years?)\b/i,
            /\bfridge|\brefrigerat|\bfreez|\bdry\b/i,
          ),
    say: 'Home bottling for the cupboard needs a tested recipe.',
    why: 'Low-acid food in a closed jar can grow botulism: a tested recipe and pressure, or the fridge (USDA Complete Guide to Home Canning).',
  },
  {
    at: ({ foods, steps }) =>
      has(foods, RAW_MEAT)
        ? stepThat(
            steps,
            /\b(?:pour|drizzle|spoon|serve|brush|baste|toss|dip|dress|use)\w*\b[^.]*\bmarinade\b|\bmarinade\b[^.]*\b(?:as a (?:sauce|dip|dressing)|over to serve|at the table)\b/i,
            /\bboil|\bsimmer|\bthrow\b|\bdiscard|\bbin\b|\bfresh marinade|\bset aside|\bkeep (?:some|half|a little)|\bmarinade over the (?:raw|chicken|meat|fish|beef|pork|lamb)|\binto the (?:bag|bowl)/i,
          )
        : undefined,
    say: 'A marinade that raw meat or fish lay in is used again.',
    why: 'It is thrown away, or boiled before it is used (USDA FSIS).',
  },
  {
    at: ({ foods, steps }) =>
      has(foods, FISH)
        ? stepThat(
            steps,
            /\b(?:lemon|lime|vinegar|citrus|acid)\w*\b[^.]*\b(?:overnight|(?:[4-9]|1\d|2\d) ?(?:hours|hrs?|h)\b)|\b(?:overnight|(?:[4-9]|1\d) hours)\b[^.]*\b(?:lemon|lime|vinegar|citrus)\b/i,
          )
        : undefined,
    say: 'Fish lies in something sour over night.',
    why: 'Acid turns fish firm and white within an hour and makes nothing in it safe: 15 to 30 minutes in the fridge, then cook it (FDA).',
  },
  {
    at: ({ foods, steps }) =>
      has(foods, /^(?:chicken|turkey|duck|whole|minced|pork|sausage)/)
        ? stepThat(
            steps,
            /\b(?:still|slightly|a little|just|a bit|faintly) (?:a (?:little|bit|touch) )?pink\b|\bpink in the (?:middle|centre|center)\b/i,
            /\b(?:no|not|never|nothing|longer)\b[^.]{0,12}\b(?:is |are |it )?(?:still )?pink|\bno pink/i,
          )
        : undefined,
    say: 'Meat that must be cooked through is left pink.',
    why: 'Poultry, pork and minced meat are done by a thermometer: 74 °C (165 °F) for poultry, 71 °C (160 °F) for minced meat (USDA FSIS); the FSA asks for 70 °C for two minutes.',
  },
  {
    at: ({ foods, lines, steps }) => {
      if (!has(foods, FISH)) return undefined;
      const sour = stepThat(
        steps,
        /\b(?:lemon|lime|citrus|acid|vinegar|juice)\b[^.]{0,20}\b(?:(?:has|have|will) (?:now |already )?cook(?:ed|s)?|cooks)\b|\bno (?:cooking|frying|heat(?:ing)?)\b/i,
      );
      if (sour !== undefined) return sour;
      const isRaw =
        has(foods, /^(?:white fish fillet|salmon fillet|tuna steak|prawns|squid|scallops|mackerel|trout)$/) &&
        steps.length > 1 &&
        !anyCooks(steps) &&
        !lines.some((line) => /\b(?:cooked|smoked|canned|tinned|hot-smoked)\b/i.test(line));
      return isRaw ? -1 : undefined;
    },
    say: 'Fish is eaten raw.',
    why: 'Acid cooks nothing: it leaves parasites and bacteria alive. Cook fish through, to 63 °C (145 °F), for children always (FDA).',
  },
  {
    at: ({ foods, lines, steps }) => {
      const said = stepThat(
        [...steps],
        /\braw eggs?\b|\braw egg (?:whites?|yolks?)\b|\buncooked eggs?\b/i,
        /\bpasteuri[sz]ed|\bno raw|\bnot\b|\bnever\b|\bwithout\b|\bwash/i,
      );
      if (said !== undefined) return said;
      // Stirred in off the heat, and nothing heated after it.
      const off = steps.findIndex((step) =>
        /\beggs?\b[^.]*\boff the heat\b|\boff the heat\b[^.]*\beggs?\b/i.test(step),
      );
      if (off >= 0 && has(foods, /^egg$/) && !anyCooks(steps.slice(off + 1))) return off;
      // From where eggs go in, nothing is heated any more: a mousse, whatever was melted for it before.
      const from = Math.max(
        0,
        steps.findIndex((step) => /\b(?:eggs?|yolks?|whites?)\b/i.test(step)),
      );
      const isRaw =
        has(foods, /^egg$/) &&
        isWhole(steps) &&
        !anyCooks(steps.slice(from)) &&
        // "15 minutes till golden", in the oven that is hot; a base baked before says nothing of a mousse on it.
        !steps.slice(from).some((step) => /\bmin\w*\b[^.]*\b(?:golden|brown\w*|risen|springy)\b/i.test(step)) &&
        !lines.some((line) => /hard-?boiled|pasteuri[sz]ed|cooked/i.test(line));
      return isRaw ? -1 : undefined;
    },
    say: 'Egg is eaten raw.',
    why: 'For children, pregnant and older people eggs are cooked through, or pasteurised (FDA; the FSA asks for eggs of a quality scheme).',
  },
  {
    at: ({ foods, lines, steps }) =>
      has(foods, / flour$/) &&
      steps.length > 2 &&
      !anyCooks(steps) &&
      !lines.some((line) => /heat-treated|toasted/i.test(line))
        ? -1
        : undefined,
    say: 'Flour is eaten raw.',
    why: 'Flour is a raw food and is cooked before it is eaten (FDA, FSA).',
  },
  {
    at: ({ steps }) =>
      stepThat(
        steps,
        /\b(?:keep|leave|left|stand|sit|hold|holds|rest)\w*\b[^.]{0,70}\b(?:warm|lunch ?box|worktop|room temperature|counter|on the side|hob|stove|car|in the (?:pan|pot|wok|rice cooker)|out)\b[^.]{0,40}\b(?:[3-9] hours|1\d hours|all day|all week|for days|afternoon|overnight|until (?:the )?evening|morning|next day|tomorrow)\b/i,
        /\bfridge|\brefrigerat|\bfreez|\bchill|\bslow cooker|\bsoak|\bdough|\bbread\b|\bstarter|\bsponge|\bbutter\b|\byeast|\b(?:60|63|140|135) ?°|\bcool box|\bice pack/i,
      ),
    say: 'Food stands warm for hours.',
    why: 'Out of the cold for at most two hours in all, or held at 60 °C (140 °F; UK 63 °C) and above; cooked rice is cooled within an hour (USDA FSIS, FSA).',
  },
  {
    at: ({ steps, lines }) =>
      stepThat(
        [...steps, ...lines],
        /\brhubarb\b[^.]{0,40}\bleaves\b|\b(?:raw|uncooked|fresh) elderberr|\b(?:tomato|potato|aubergine|oleander|foxglove|hydrangea|lily of the valley|daffodil|yew) (?:leaves|flowers|petals|greens|stems)\b|\bgreen potato|\bbitter almonds?\b|\b(?:apricot|peach|cherry|plum) (?:kernels|stones? ground|pits? ground)\b|\bcastor beans?\b|\bnutmegs?, whole, grated\b/i,
        /\b(?:discard|remove|without|never|no|not|throw|trim|cut off|take off)\b/i,
      ),
    say: 'A part of the plant that is poisonous is used.',
    why: 'Rhubarb leaves, raw elderberries, leaves of tomato and potato, bitter kernels and many garden flowers are poisonous (poison centre and FSA guidance).',
  },
];

/** What is not safe in a recipe as a whole. */
export function safetySlips(recipe: Looked): Slip[] {
  return RULES.flatMap(({ at, say, why }): Slip[] => {
    const step = at(recipe);
    if (step === undefined) return [];
    const isStep = step >= 0 && step < recipe.steps.length;
    return [{ kind: 'unsafe', ...(isStep ? { step } : {}), say, why, key: `unsafe ${say}` }];
  });
}
