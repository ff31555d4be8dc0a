import type { WrittenAlternative, WrittenItem, WrittenLine, WrittenSwap } from '../recipe/recipe';
import { sayItem } from '../recipe/say-item';

/** What a line's words do not say of it. */
export type LineDetails = Pick<WrittenItem, (typeof DETAILS)[number]>;

/** Their names. */
export const DETAILS = [
  'scaling',
  'damping',
  'batch_servings',
  'precision',
  'sealed_grams',
  'yield_preparation',
  'spare',
  'pack_grams',
  'within',
  'reserved',
] as const;

/** The details of a line, without what its words say. */
export const detailsOf = (line: WrittenItem): LineDetails =>
  Object.fromEntries(DETAILS.flatMap((name) => (line[name] === undefined ? [] : [[name, line[name]]])));

/** What labels a line states, of its own product and of what stands in: "oat milk: GLUTEN", "tofu: names no allergen". */
export function labelsOf({ alternatives = [], ...line }: WrittenLine): string[] {
  const swaps = alternatives.flatMap((each) => ('omit' in each ? [] : [each, ...(each.also ?? [])]));
  return [line, ...swaps].flatMap(({ ingredient, label }) =>
    label ? [`${ingredient}: ${label.join(', ') || 'names no allergen'}`] : [],
  );
}

/** An alternative without what labels said of its products. */
export function withoutLabel(alternative: WrittenAlternative): WrittenAlternative {
  if ('omit' in alternative) return alternative;
  const { label: _, also, ...rest } = alternative;
  return { ...rest, ...(also ? { also: also.map(({ label: __, ...each }) => each) } : {}) };
}

/** A line without what labels said of its products. */
export function withoutLabels({ label: _, alternatives, ...line }: WrittenLine): WrittenLine {
  return { ...line, ...(alternatives ? { alternatives: alternatives.map(withoutLabel) } : {}) };
}

/** An alternative as it is being written; settled while its words are as they were. */
export interface DraftAlternative extends Pick<WrittenSwap, 'reason' | 'step' | 'minutes'> {
  /** What stands in; what it brings along behind a semicolon: "2 Tbsp ground flaxseed; 3 Tbsp water". */
  readonly text: string;
  readonly settled?: WrittenAlternative;
}

/** How leaving a line out is written among its alternatives. */
export const LEAVE_OUT = 'leave it out';

/** The alternatives of a line, as they are written. */
export const alternativesAsWritten = (line: WrittenLine): DraftAlternative[] =>
  (line.alternatives ?? []).map((settled) => {
    if ('omit' in settled) return { text: LEAVE_OUT, settled };
    const { reason, step, minutes, also = [] } = settled;
    return {
      text: [settled, ...also].map(sayItem).join('; '),
      settled,
      ...(reason ? { reason } : {}),
      ...(step ? { step } : {}),
      ...(minutes ? { minutes } : {}),
    };
  });
