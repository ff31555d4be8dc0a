// From which age a child may do a step, with an adult in the room.
import { DANGEROUS, GENTLE, HOT } from './step-age-words';
import { ADULT, type Heat, WHILE } from './step-plan';

/**
 * Least ages with an adult in the room, where the text does not say "an adult": ours, careful, and to be changed by the
 * programme's own rule. Ovens, hot oil, draining what boils and blending what is hot are an adult's.
 *
 * @param heat of the whole step; `heatOf` tells that of a sentence: a step may have several
 * @param heated the steps before it that were over heat: meat in one of them is cooked
 */
export function ageOf(
  written: string,
  heat: Heat,
  heated: readonly string[],
  heatOf: (sentence: string) => Heat,
): number {
  const hot = heated.filter((step) => !/\b(?:pre-?heat|heats? the oven)/i.test(step));
  // The most that any of its sentences asks for: what one of them says takes nothing off another.
  return Math.max(
    ...written
      .split(/(?<=[.;!])\s+/)
      .map((sentence) => Math.max(ageOfSentence(sentence, heat, hot), ageOfSentence(sentence, heatOf(sentence), hot))),
  );
}

function ageOfSentence(written: string, heat: Heat, heated: readonly string[]): number {
  const text = written.replace(WHILE, '');
  if (/\b(?:an? )?(?:adult|grown-?up|instructor|leader)s?\b/i.test(text)) return ADULT;
  if (DANGEROUS.test(text)) return ADULT;
  if (heat === 'oven' || heat === 'grill' || heat === 'fire') return ADULT;
  if (/\b(?:fry|fries|frying(?! pan)|stir-fry|deep|hot oil|sears?|brown the|pressure)\b/i.test(text)) return ADULT;
  // What is drained comes out of boiling water, unless it comes out of a can.
  if (
    /\b(?:drain|strain)/i.test(text) &&
    (/\bboil|\bhot\b|\bcook\b/i.test(text) || DRAINED_HOT.test(text)) &&
    !/\bcans?\b|\bcanned\b|\btins?\b|\btinned\b/i.test(text)
  )
    return ADULT;
  // Raw meat over the heat: fat spits, and whoever turns it judges whether it is done.
  if (heat === 'hob' && /\b(?:turn|tongs|flip|brown|sear)\w*\b/i.test(text) && new RegExp(MEAT.source, 'i').test(text))
    return ADULT;
  // A knife in raw meat is an adult's; with clean hands older children turn it in a marinade.
  const isCut =
    /\b(?:cut|slice|dice|chop|trim|joint|bone|debone|fillet|skin|score|spatchcock|shears|strips|cubes)\b/i.test(text);
  const isRaw =
    !/\bwash your hands\b/i.test(text) &&
    ((RAW_MEAT.test(text) && !/\bcooked\b/i.test(text)) ||
      // Meat that nobody calls cooked, and that was over no heat yet, is raw.
      rawIn(text).some((meat) => !heated.some((step) => step.toLowerCase().includes(meat))));
  if (isRaw && isCut) return ADULT;
  if (heat === 'kettle') return ADULT;
  // Nobody can tell from a step whether what is blended is still hot.
  if (/\b(?:blend|blitz|purée|puree|liquidis|whizz|food processor|pulse)/i.test(text)) return ADULT;
  if (isRaw || heat !== 'none' || HOT.test(text)) return 10;
  if (/\b(?:off|from) the (?:heat|hob|stove)\b/i.test(text)) return 10;
  if (/\b(?:hammer|mallet|coconut)\b/i.test(text)) return 10;
  // It burns on the skin, and in the eye.
  if (CUTS.test(text) && /\b(?:scotch bonnets?|habaneros?|bird'?s?[’']?s?[- ]eye)\b/i.test(text)) return 10;
  // Hard and round: the knife slips.
  if (
    CUTS.test(text) &&
    /\b(?:squash|pumpkin|swede|rutabaga|celeriac|turnip|coconut|watermelon|pineapple|melon)\b/i.test(text)
  )
    return 10;
  if (
    /\b(?:electric (?:hand )?(?:mixer|whisk|beaters?)|(?:hand|stand) mixer|nutcrackers?|pasta machine|pizza (?:wheel|cutter)|bones?)\b/i.test(
      text,
    )
  )
    return 7;
  if (
    /\b(?:table|butter|dinner|plastic|round-ended|child-safe) kni(?:fe|ves)\b|\bscissors\b|\btwo forks\b|\bcut out\b|\bpeel\w* (?:and \w+ )?(?:the |a |each )?(?:bananas?|clementines?|satsumas?|oranges?|mandarins?)\b/i.test(
      text,
    )
  )
    return 3;
  if (
    /\b(?:pit|stone|core|crush the garlic|crush garlic|mince the garlic|open (?:the |a |each )?(?:cans?|tins?)|can opener|wire rack|crack (?:open )?the (?:lobster|crab|claws|nuts))\b/i.test(
      text,
    )
  )
    return 7;
  if (
    /\b(?:chop|dice|slice|cut (?!out)|halve|quarter(?! of an)|shred(?!s\b)|trim|knife|grate(?!d)|peel(?!ed)|zest(?=s? (?:the|a|an|two|\d)|ed))/i.test(
      text,
    )
  )
    return 7;
  if (
    /\b(?:button|switch|plug|rice cooker|slow cooker|ice cream (?:maker|machine)|bread (?:maker|machine)|machine)\b/i.test(
      text,
    )
  )
    return 7;
  // The youngest do what is known to be gentle; of anything else nobody knows.
  return GENTLE.test(text.trim()) ? 3 : 7;
}

const DRAINED_HOT =
  /\b(?:drain|strain)\w*\b[^.]*\b(?:potato|pasta|spaghetti|macaroni|noodle|rice|stock|broth|soup|egg)/i;
const RAW_MEAT =
  /\braw (?:\w+ )?(?:meat|chicken|beef|pork|lamb|turkey|fish|mince|prawns|bacon)\b|\b(?:the|each) (?:chicken|beef|pork|lamb|turkey|steak|fish|mince)\b[^.]*\b(?:skewer|marinade)|\bskewers?\b[^.]*\b(?:chicken|beef|pork|lamb|meat|fish)\b|\b(?:chicken|beef|pork|lamb|meat)\b[^.]*\bon(?:to)? skewers/i;
/** Meat and fish that come raw, unless a word beside them says otherwise. */
const MEAT =
  /\b(?:chicken|turkey|duck|beef|pork|lamb|veal|steaks?|chops|thighs|drumsticks|salmon|fish|cod|haddock|trout|tuna steaks?|mackerel|sea ?bass|tilapia|sardines|herrings?|plaice|halibut|snapper|monkfish|hake|pollock|coley|mussels|clams|scallops|shrimps?|prawns|squid|octopus|rabbit|venison|goose|gammon|brisket|mutton|goat meat|liver|bacon|sausages|mince(?! (?:the|a|some|garlic|onions?|ginger|it)\b)|minced (?:meat|beef|pork|lamb|chicken|turkey))\b(?! (?:stock|broth|gravy|sauce|seasoning|cubes?\b(?=[^.]*stock)))/gi;
/** What stands right before it where it is cooked already: paprika that is smoked cooks no chicken. */
const COOKED_ALREADY =
  /\b(?:cooked|roast(?:ed)?|grilled|fried|poached|leftover|rotisserie|smoked|canned|tinned|cured|vegan|vegetarian|veggie) (?:\w+ )?$/i;
/** What is done to cooked meat alone. */
const DONE_COOKED = /\b(?:carve|rested|shred(?:ded)? the)\b/i;

/** The meat and fish that a step names and nothing in it says is cooked. */
const rawIn = (text: string): string[] =>
  DONE_COOKED.test(text)
    ? []
    : [...text.matchAll(MEAT)].flatMap(({ 0: meat, index }) =>
        COOKED_ALREADY.test(text.slice(0, index)) ? [] : [meat.toLowerCase()],
      );

const CUTS = /\b(?:chop|dice|slice|cut|halve|quarter|peel|cube)/i;
