// How long each thing that is done in a kitchen usually takes: the figures a cook has in their head.
import { type ToldTime, toldTimes } from '../steps/told-times';
import type { Slip } from './slip';

/** A doing with the fewest and the most minutes in which it makes sense; twice or half of what is usual, ours. */
interface Doing {
  readonly does: RegExp;
  readonly least?: number;
  readonly most?: number;
  /** Words in its sentence that take it out. */
  readonly except?: RegExp;
}

const SLOWLY =
  /\b(?:low(?:est)?|slow\w*|very gently|confit|carameli[sz]\w*|overnight|dr(?:y|ied)|dehydrat\w*|smok\w*)\b/i;
const MORE = /\b(?:more|another|further|extra|last|final|longer|again)\b/i;

/** The first that is met going back from a time in its sentence is what it is of. */
const DOINGS: readonly Doing[] = [
  { does: /toast/, least: 0.2, most: 25, except: SLOWLY },
  { does: /sprinkle|bloom/, most: 40, except: /\b(?:bak\w*|oven|toss|salt)\b/i },
  { does: /soften|sweat|saut[eé]/, least: 0.4, most: 45, except: SLOWLY },
  { does: /wilt/, least: 0.2, most: 12 },
  { does: /bubble|thicken/, least: 0.2, most: 45 },
  { does: /stir-?fr(?:y|ie)/, least: 0.25, most: 25 },
  { does: /(?:pan-|deep-|shallow-)?fr(?:y|ie)|sear|brown/, least: 0.25, most: 35, except: SLOWLY },
  { does: /blanch/, least: 0.1, most: 12 },
  { does: /par-?boil/, least: 1.5, most: 25 },
  { does: /simmer/, least: 0.75, most: 420, except: SLOWLY },
  { does: /boil/, least: 0.3, most: 240, except: /\bovernight\b/i },
  { does: /poach/, least: 0.75, most: 90, except: SLOWLY },
  { does: /steam/, least: 0.4, most: 300 },
  { does: /grill|broil/, least: 0.4, most: 60, except: SLOWLY },
  {
    does: /roast/,
    least: 3,
    most: 330,
    except: /\b(?:nuts?|seeds|almonds|spices|cumin|walnuts|pecans|low|slow\w*|overnight|coffee)\b/i,
  },
  { does: /bak/, least: 2.5, most: 330, except: /\b(?:low|slow\w*|overnight|soda|powder)\b/i },
  { does: /knead/, least: 0.4, most: 40 },
  { does: /whisk|beat|cream|whip/, least: 0.1, most: 40, except: /\b(?:freez\w*|every)\b/i },
  {
    does: /stir|toss|mix|fold/,
    least: 0.05,
    most: 60,
    except:
      /\b(?:simmer|stew|stand|rest|chill|soak|leave|every|low|slow\w*|steep|infuse|marinate|freez\w*|fridge|ferment\w*)\b/i,
  },
  { does: /melt/, least: 0.15, most: 25, except: SLOWLY },
  { does: /marinat/, least: 4, most: 4320 },
  { does: /chill(?!i)|refrigerat/, least: 5, except: /\b(?:glass|plate|blast)\b/i },
  { does: /freez/, least: 4 },
  { does: /soak/, least: 0.5, most: 2880 },
  { does: /pour|cover/, least: 0.5 },
  { does: /stew|brais/, least: 4, most: 420, except: SLOWLY },
  { does: /blend|blitz|pulse|pur[eé]e/, least: 0.03, most: 15 },
  { does: /cook/, least: 0.25, most: 600, except: SLOWLY },
  { does: /prove|proof|rise/, least: 8 },
  { does: /rest|stand|cool|leave|sit|keep|eat|ready|stor|serve|use|hold|last/ },
];
const WORD = new RegExp(`\\b(?:${DOINGS.map(({ does }) => `(?:${does.source})`).join('|')})\\w*\\b`, 'gi');
const STARTS = DOINGS.map((doing) => ({ doing, starts: new RegExp(`^(?:${doing.does.source})`, 'i') }));

/** What sets in the cold needs this long, in minutes. */
const LEAST_TO_SET = 25;
const SETS = /\b(?:set|sets|gelatine|jelly|jellies|mousse|panna cotta|firm)\b/i;

/** A side of what is fried is done in so many minutes. */
const MOST_A_SIDE = 30;
const A_SIDE = /\b(?:(?:on )?(?:each|per|a|either|both) sides?)\b/i;

/** Cooked by the minute, whatever is done with it. */
const QUICK =
  /\b(?:potato(?:es)?|carrots?|peppers?|gelatine|rhubarb|flour|garlic|spices|cumin|noodles|pasta|spaghetti|macaroni|penne|couscous|rice|eggs?|onions?|leeks?|garlic|spinach|peas|pak choi|pancakes?|batter|spoonfuls|prawns|fish|salmon|kale|mince|tortillas?)\b/i;
const MOST_QUICK = 75;
const QUICKLY =
  /^(?:fr(?:y|ie)|sear|soften|sweat|saut|cook|boil|wilt|brown|bubble|poach|stir|sprinkle|leave|whisk|stew|soak)/i;
const NOT_QUICK =
  /\b(?:stew|beef|lamb|pork|bones|broth|stock|pulses|beans|soup|curry|rag[uù]|sauce|bolognese|slow\w*|low(?:est)?|overnight|gently|stuffed|pudding|casserole|chutney|jam|cake|pie|carameli[sz]\w*|confit)\b/i;

/** Times in a step that are far from what its doing takes. */
export function usualTimes(step: string, at: number, isYeasty: boolean): Slip[] {
  const told = toldTimes(step);
  return told.flatMap((time, index): Slip[] => {
    const before = told[index - 1];
    const start = Math.max(step.lastIndexOf('. ', time.at) + 1, step.lastIndexOf('; ', time.at) + 1, 0);
    const clause = step.slice(Math.max(start, before ? before.at + before.words.length : 0), time.at);
    const rest = step.slice(time.at + time.words.length);
    const sentence = step.slice(start, time.at + time.words.length + Math.max(0, rest.search(/[.;]|$/)));
    const word = [...clause.matchAll(WORD)].at(-1)?.[0];
    const doing = word && STARTS.find(({ starts }) => starts.test(word))?.doing;
    const found = judge(time, doing || undefined, word ?? '', sentence, rest, isYeasty);
    return found ? [slip(at, time, ...found)] : [];
  });
}

function judge(
  { minutes, words }: ToldTime,
  doing: Doing | undefined,
  word: string,
  sentence: string,
  rest: string,
  isYeasty: boolean,
): readonly [say: string, why: string] | undefined {
  const isSide = A_SIDE.test(words) || /^\s*(?:on )?(?:each|per|a|either) side/i.test(rest);
  if (isSide && minutes > 2 * MOST_A_SIDE)
    return [`“${words}” a side is very long.`, `What is turned over is done in ${MOST_A_SIDE} minutes a side at most.`];
  if (!doing || doing.except?.test(sentence)) return undefined;
  const { least, most } = doing;
  const isNone = minutes === 0;
  if (
    least !== undefined &&
    minutes < least &&
    !isNone &&
    !MORE.test(sentence) &&
    !/^\s*(?:before|less|at a time)/i.test(rest)
  )
    return [
      `“${words}” is very short to ${verb(word)}.`,
      `Less than ${shown(least)} hardly does anything: a figure may be missing.`,
    ];
  if (/^(?:chill|refrigerat)/i.test(word) && SETS.test(sentence) && minutes < LEAST_TO_SET && !/freez/i.test(sentence))
    return [`In “${words}” nothing sets in the cold.`, 'What sets with gelatine or cold fat takes an hour and more.'];
  if (
    /^knead/i.test(word) &&
    isYeasty &&
    minutes < 2 &&
    !/\b(?:again|lightly|briefly|knock|quickly|gently|just)\b/i.test(sentence)
  )
    return [`“${words}” is very short to knead.`, 'A yeast dough is kneaded for five to ten minutes.'];
  if (most !== undefined && minutes > most)
    return [
      `“${words}” is very long to ${verb(word)}.`,
      `Beyond ${shown(most)} an hour may stand for a minute, or there is a figure too many.`,
    ];
  if (QUICKLY.test(word) && minutes > MOST_QUICK && QUICK.test(sentence) && !NOT_QUICK.test(sentence))
    return [`“${words}” is very long for this.`, 'It is cooked in minutes: an hour may stand for a minute.'];
  return undefined;
}

const verb = (word: string) => word.toLowerCase();
const shown = (minutes: number) =>
  minutes < 1 ? `${Math.round(60 * minutes)} seconds` : minutes < 120 ? `${minutes} minutes` : `${minutes / 60} hours`;

const slip = (step: number, { words }: ToldTime, say: string, why: string): Slip => ({
  kind: 'time',
  step,
  say,
  why,
  key: `time usual ${words} ${step}`,
});
