import type { WrittenAlternative, WrittenItem, WrittenLine } from './recipe';

/** What stands in a session in place of the food that is written first. */
export interface Filling {
  readonly written: string;
  readonly chosen: string;
}

/**
 * Lines with their flexible slots filled, and their swaps taken, as chosen. What was written first stays among what may stand in, so that kits
 * which must avoid the filling still find something safe.
 */
export function withFillings(lines: readonly WrittenLine[], fillings: readonly Filling[]): readonly WrittenLine[] {
  if (fillings.length === 0) return lines;
  return lines.map((line) => {
    const filling = isOpen(line) && fillings.find(({ written }) => written === line.ingredient);
    const alternatives = line.alternatives ?? [];
    const at = filling ? alternatives.findIndex((each) => isFood(each, filling.chosen)) : -1;
    const chosen = alternatives[at];
    if (!chosen || 'omit' in chosen) return line;
    const { alternatives: _, slot, ...first } = line;
    return {
      ...chosen,
      ...(slot ? { slot } : {}),
      alternatives: [first, ...alternatives.filter((_each, place) => place !== at)],
    };
  });
}

/** A line that somebody chooses for a session: a flexible slot, or one with a swap for its price or its season. */
export interface Slot {
  readonly written: string;
  /** Nothing is meant more than another. */
  readonly isSlot: boolean;
  readonly foods: readonly string[];
}

/** What stands in for an avoidance is chosen by the kit; what stands in for another reason, by a person. */
const isOpen = ({ slot, alternatives = [] }: WrittenLine) =>
  slot === true || alternatives.some((each) => 'reason' in each && each.reason && each.reason !== 'allergy or diet');

/** The lines among these that are chosen for a session. */
export const slotsOf = (lines: readonly WrittenLine[]): Slot[] =>
  lines.flatMap((line) =>
    isOpen(line)
      ? [
          {
            written: line.ingredient,
            isSlot: line.slot === true,
            foods: [
              line.ingredient,
              ...(line.alternatives ?? []).flatMap((each) => ('omit' in each ? [] : [each.ingredient])),
            ],
          },
        ]
      : [],
  );

const isFood = (each: WrittenAlternative, food: string): each is WrittenItem =>
  !('omit' in each) && each.ingredient === food;
