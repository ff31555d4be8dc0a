import type { WrittenAlternative, WrittenItem, WrittenLine } from './recipe';
import { sayItem } from './say-item';

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
] as const;

/** The details of a line, without what its words say. */
export const detailsOf = (line: WrittenItem): LineDetails =>
  Object.fromEntries(DETAILS.flatMap((name) => (line[name] === undefined ? [] : [[name, line[name]]])));

/** An alternative as it is being written; settled while its words are as they were. */
export interface DraftAlternative {
  readonly text: string;
  readonly settled?: WrittenAlternative;
}

/** How leaving a line out is written among its alternatives. */
export const LEAVE_OUT = 'leave it out';

/** The alternatives of a line, as they are written. */
export const alternativesAsWritten = (line: WrittenLine): DraftAlternative[] =>
  (line.alternatives ?? []).map((settled) => ({ text: 'omit' in settled ? LEAVE_OUT : sayItem(settled), settled }));
