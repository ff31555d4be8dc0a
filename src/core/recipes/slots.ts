import type { WrittenAlternative, WrittenItem, WrittenLine } from './recipe';

/** What fills a flexible slot in place of the food that is written first. */
export interface Filling {
  readonly written: string;
  readonly chosen: string;
}

/**
 * Lines with their flexible slots filled as chosen. What was written first stays among what may stand in, so that kits
 * which must avoid the filling still find something safe.
 */
export function withFillings(lines: readonly WrittenLine[], fillings: readonly Filling[]): readonly WrittenLine[] {
  if (fillings.length === 0) return lines;
  return lines.map((line) => {
    const filling = line.slot && fillings.find(({ written }) => written === line.ingredient);
    const alternatives = line.alternatives ?? [];
    const at = filling ? alternatives.findIndex((each) => isFood(each, filling.chosen)) : -1;
    const chosen = alternatives[at];
    if (!chosen || 'omit' in chosen) return line;
    const { alternatives: _, slot, ...first } = line;
    return { ...chosen, slot, alternatives: [first, ...alternatives.filter((_each, place) => place !== at)] };
  });
}

/** A flexible slot, as somebody chooses what fills it. */
export interface Slot {
  readonly written: string;
  readonly foods: readonly string[];
}

/** The flexible slots among these lines. */
export const slotsOf = (lines: readonly WrittenLine[]): Slot[] =>
  lines.flatMap((line) =>
    line.slot
      ? [
          {
            written: line.ingredient,
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
