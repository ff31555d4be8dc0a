import type { DraftAlternative, LineDetails } from '@/core/recipes/reading/line-details';
import type { WrittenLine } from '@/core/recipes/recipe/recipe';
import type { SettledStep } from '@/core/recipes/steps/step-plan';

/** A recipe as it came in, before a person has looked at it: nothing in it is decided yet. */
export interface IncomingRecipe {
  readonly title: string;
  readonly servings: number | undefined;
  readonly description: string;
  readonly lines: readonly IncomingLine[];
  readonly steps: readonly string[];
  /** Steps that the file says how to plan. */
  readonly planned?: readonly SettledStep[];
  readonly estimated?: boolean;
}

/** One ingredient line as written; settled when the file itself said everything of it. */
export interface IncomingLine {
  readonly text: string;
  readonly section: string;
  readonly settled?: WrittenLine;
  /** Nobody has said yet whether the labels that its file states are those of the products used here. */
  readonly labelIsOpen?: boolean;
  /** What the file said of it beside its words. */
  readonly details?: LineDetails;
  readonly alternatives?: readonly DraftAlternative[];
}
