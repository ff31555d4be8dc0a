import { type FoodIndex, foodsAmong, wordKey } from '../../reference/food-finder';
import { FORMS, isColour, isQualifier, isSaid as isSaidWord, PACKED_IN, PARTS, SHARE } from './line-words';

/** A number that says neither how large pieces are, nor how many of them, nor how long: it may be an amount. */
const LEFT_NUMBER =
  /(?<![\d.,/-]|size |no\. |number |grade )(?:\d+(?:[.,/]\d+)?|[½⅓⅔¼¾⅛])(?![\d.,/])(?! ?(?:[-–]|to |x |× |inch|in\b|cm|mm|["”″%°]|min|hour|hr|day|week|piece|cube|slice|wedge|strip|chunk|part|quarter|half|halves|third|equal|large|medium|small|thick|thin|long|round|time|bite|spear|segment|floret|lardon|baton|stick|ring|disc|coin|layer|serving|people|month|year))/iu;

/** A remark in a sentence says something of the food, and names none: "(may need a bit more)", "leave out for the little ones". */
const SENTENCE =
  /\b(?:is|are|was|were|isn't|aren't|may|might|can|could|will|would|should|needs?|leave|keep|buy|omit|skip|try|it|they|you|works?|because|since|until|too)\b/i;

/**
 * "Broken up", "cut across the middle", "snipped small": what is done to it, in whatever words. Joined to it with "with" or "in"
 * there may be another food, which the table need not know.
 */
const DONE =
  /^ ?(?:\p{L}+ly )?(?:\p{L}{3,}ed|cut|torn|split|broken|shaken|beaten|frozen|ground|left|kept)\b(?!.*\b(?:with|in|and|plus|or|from|for)\b)/iu;

/** "Ends snapped", "skins thrown away": a part that is taken off, whatever it is called. */
const TAKEN_OFF =
  /^ ?(?:the |any |all )?\p{L}{3,}(?: \p{L}+)? (?:(?:removed|discarded|snapped|pulled|scraped|picked|trimmed|snipped|slit|scooped|wiped|out|off)|(?:cut|sliced|thrown|taken) (?:off|out|away))(?: and \p{L}+| off| out| away)?$/iu;

/** "2 stock cubes is fine": what may stand in for it in its own making. */
const WILL_DO = /\b(?:is|are) (?:fine|ok|okay|good|enough)\b/iu;

/** "Larger ones halved": some of the same. */
const SOME_OF_IT = /^ ?(?:the |any )?(?:larger|bigger|smaller|thicker|thinner|big|large|small) ones?\b/iu;

/** "Save the whites for meringues", "keep some back": what else becomes of it, and no food of this line. */
export const ADVICE = /^ ?(?:save|keep|freeze|reserve|leave|discard|skip|omit|don['’]t|do not)\b/iu;

/** "Can use ½ cup": how else it may be; a food that is named with it is asked about all the same. */
const OTHERWISE = /^ ?(?:can (?:use|be)|could be|may be|use|check|buy|try|go)\b/iu;

/** "In a damp towel", "with a fork", "of their salt": what it is done with, and what comes off it. */
const BY_MEANS =
  /\b(?:in|with|on|under|over|between|using|through|by|against) (?:(?:an?|the|your|two|some) (?:[\p{L}-]+ ){0,2})?(?:towels?|cloth|paper|foil|pan|skillet|wok|pot|bowl|oven|microwave|sieve|colander|processor|blender|mortar|pestle|grinder|peeler|knife|fork|spoon|hands?|fingers|palm|rolling pin|grater|box grater|mandoline?|masher|press|fridge|freezer|(?:cold |running |hot |warm |iced |boiling |fresh |salted )*(?:water|tap))\b|\bin (?:several|two|three|many|a few) changes of water\b|\bof (?:grit|sand|mud|soil|dirt)\b|\bof (?:their|its|any|all|excess) [\p{L}-]+/giu;

/** "1 tbsp lime juice (about ½ lime)": how many of the same that is. */
const OWN_COUNT = /^ ?(?:about|approx\.?|roughly|from|ca?\.|~) ?(?:\d+|[½⅓⅔¼¾]) ([\p{L} ]+)$/iu;

/** What stands in a line beside its food and says neither how it is prepared nor what for: each must be asked about. */
export function unexplainedIn(text: string, ingredient: string, index: FoodIndex): string[] {
  const own = new Set(ingredient.split(' ').map(wordKey));
  const parts = text
    .replace(PACKED_IN, ' ')
    .replace(BY_MEANS, ' ')
    .replace(SHARE, ' ')
    .split(/[,;()]/);
  return parts.flatMap((part) => {
    // An amount that nothing made use of: "2 eggs plus 1 of yesterday".
    const counted = OWN_COUNT.exec(part)?.[1]?.trim().split(' ') ?? [];
    if (counted.length > 0 && counted.every((word) => isQualifier(word) || own.has(wordKey(word)))) return [];
    if (ADVICE.test(part) || SOME_OF_IT.test(part)) return [];
    const isOtherwise = OTHERWISE.test(part);
    if (LEFT_NUMBER.test(part) && !isOtherwise && !WILL_DO.test(part)) return [part.trim()];
    const words = part.match(/[\p{L}\p{M}][\p{L}\p{M}'’-]*/gu) ?? [];
    const isSaid = (word: string) =>
      isQualifier(word) ||
      PARTS.has(wordKey(word)) ||
      FORMS.has(wordKey(word)) ||
      isSaidWord(word) ||
      own.has(wordKey(word)) ||
      (index.produce.has(ingredient) && isColour(word));
    const foods = foodsAmong(words, index).filter(
      ({ name, from, to }) =>
        name !== ingredient &&
        !words.slice(from, to).every(isSaid) &&
        // "2 stock cubes is fine", of stock.
        !(
          WILL_DO.test(part) &&
          words.slice(from, to).some((word) => own.has(wordKey(word)) && ingredient.endsWith(' stock'))
        ),
    );
    const [food] = foods;
    if (food) return [words.join(' ')];
    if (isOtherwise || SENTENCE.test(part) || DONE.test(part) || TAKEN_OFF.test(part)) return [];
    return words.filter(
      (word) => !isSaid(word) && !word.split(/[-’']/).every((piece) => piece === '' || isSaid(piece)),
    );
  });
}
