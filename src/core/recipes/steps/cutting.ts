import { wordKey } from '../../reference/food-finder';
import type { PlannedStep } from './step-plan';

/** A line as far as it says how its food is cut. */
export interface CutLine {
  readonly ingredient: string;
  readonly preparation?: string | undefined;
}

/** How a preparation of a line is said as a thing to do. */
const CUTS: readonly (readonly [preparation: RegExp, verb: string])[] = [
  [/\bpeeled and (?:chopped|diced|cubed)\b/, 'Peel and chop'],
  [/\bpeeled and sliced\b/, 'Peel and slice'],
  [/\bpeeled and grated\b/, 'Peel and grate'],
  [/\b(?:finely )?(?:chopped|minced)\b/, 'Chop'],
  [/\b(?:diced|cubed)\b/, 'Dice'],
  [/\bsliced\b/, 'Slice'],
  [/\bgrated\b/, 'Grate'],
  [/\bshredded\b/, 'Shred'],
  [/\bcrushed\b/, 'Crush'],
  [/\bquartered\b/, 'Quarter'],
  [/\bhalved\b/, 'Halve'],
  [/\bpeeled\b/, 'Peel'],
];
/** Sold so, or left so. */
const NOT_CUT = /\b(?:canned|frozen|dried|ground|unpeeled|raw leaves|whole)\b/;
/** A step that cuts. */
const CUTTING = /\b(?:chop|dice|slice|cut|cube|grate|shred|mince|crush|quarter|halve|peel|prepare|trim)\w*\b/i;

/** "Onions" names "onion". */
const isNamed = (food: string, text: string): boolean => {
  const said = new Set(text.split(/[^\p{L}]+/u).map(wordKey));
  return food.split(' ').some((word) => said.has(wordKey(word)));
};

/**
 * What the lines of a recipe have cut and none of its steps cuts: a task with minutes like any other where it is cooked.
 *
 * @param isCutHere whether the food of a line comes whole to where it is cooked
 * @example
 * cuttingSteps([{ ingredient: 'onion', preparation: 'chopped' }], ['Fry the onion.']) //=> ['Chop the onion.']
 * cuttingSteps([{ ingredient: 'onion', preparation: 'chopped' }], ['Chop the onions and fry them.']) //=> []
 */
export function cuttingSteps(
  lines: readonly CutLine[],
  steps: readonly string[],
  isCutHere: (line: CutLine) => boolean = () => true,
): string[] {
  const foods = new Map<string, string[]>();
  for (const line of lines) {
    const { ingredient, preparation = '' } = line;
    const [, verb = ''] = CUTS.find(([how]) => how.test(preparation)) ?? [];
    if (!verb || NOT_CUT.test(`${ingredient} ${preparation}`) || !isCutHere(line)) continue;
    if (
      steps.some(
        (text) =>
          CUTTING.test(text) && (isNamed(ingredient, text) || /\beverything\b|\ball (?:the )?vegetables\b/i.test(text)),
      )
    )
      continue;
    foods.set(verb, [...new Set([...(foods.get(verb) ?? []), ingredient])]);
  }
  return [...foods].map(([verb, own]) => `${verb} the ${own.join(own.length === 2 ? ' and the ' : ', the ')}.`);
}

/** Steps with the first of them put last, so that the others keep their numbers. @param count how many come first now */
export function putLast(steps: readonly PlannedStep[], count: number): PlannedStep[] {
  const own = steps.length - count;
  const place = (at: number) => (at < count ? own + at : at - count);
  const moved = steps.map((step) => ({ ...step, after: step.after.map(place).sort((a, b) => a - b) }));
  return [...moved.slice(count), ...moved.slice(0, count)];
}

/** Steps that wait for the cutting of what they use, also where a person settled their order before it was known; and no others. */
export function waitForCutting(steps: readonly PlannedStep[], count: number): PlannedStep[] {
  const uses = (at: number, cut: number) => steps[cut]?.uses.some((food) => steps[at]?.uses.includes(food)) ?? false;
  const cuts = Array.from({ length: count }, (_, n) => n);
  const own = steps.map((step, at) =>
    at < count ? [] : step.after.filter((before) => before >= count || uses(at, before)),
  );
  const reaches = (from: number, to: number, seen = new Set<number>()): boolean =>
    (own[from] ?? []).some((at) => at === to || (!seen.has(at) && reaches(at, to, seen.add(at))));
  return steps.map((step, at) => {
    if (at < count) return { ...step, after: [] };
    const missing = cuts.filter((cut) => uses(at, cut) && !reaches(at, cut));
    return { ...step, after: [...missing, ...(own[at] ?? [])] };
  });
}
