import { blockersOf } from '../../safety/avoidances';
import type { Item, Line, Recipe } from './recipe';

/** Which option each line takes for a set of avoidances: the line's option, or undefined when nothing passes. */
export interface Choice {
  /** By dish and line: 0 written, n the n-th alternative, 'omit', or 'refused'. */
  readonly options: readonly (readonly (number | 'omit' | 'refused')[])[];
  /** By dish and line: what tops up the liquid of a can where it does not suffice, as an option. */
  readonly topUps: readonly (readonly (number | undefined)[])[];
  /** The avoided codes that made a difference on the way, sorted: what the kit is "made without". */
  readonly effective: readonly string[];
}

/**
 * Chooses for each line the first item that is safe: the written one, else the first alternative that holds nothing
 * avoided and nothing unknown.
 *
 * @param avoids avoidance codes, in any order
 */
export function choose(dishes: readonly Recipe[], avoids: readonly string[]): Choice {
  const effective = new Set<string>();
  /** The first safe option of a line from one on. */
  const firstSafe = (line: Line, from: number): number | 'omit' | 'refused' => {
    for (let option = from; option <= line.alternatives.length; option++) {
      const item = itemAt(line, option);
      if (!item) return 'omit';
      if (avoids.length === 0) return option;
      const blockers = blockedBy(item, avoids);
      if (blockers.length === 0) return option;
      for (const code of blockers) effective.add(code);
    }
    return 'refused';
  };
  const options = dishes.map((recipe) => recipe.lines.map((line) => firstSafe(line, 0)));
  const topUps = dishes.map((recipe, dish) =>
    recipe.lines.map((line, index) => {
      const option = options[dish]?.[index];
      if (typeof option !== 'number' || !itemAt(line, option)?.liquidPortion) return undefined;
      const next = firstSafe(line, option + 1);
      return typeof next === 'number' ? next : undefined;
    }),
  );
  return { options, topUps, effective: [...effective].sort() };
}

/** The item of an option of a line; null leaves the line out. */
export const itemAt = (line: Line, option: number): Item | null =>
  option === 0 ? line.written : (line.alternatives[option - 1] ?? null);

/** Everything that a choice may put into a kit: items, what they bring along, and what tops up a can's liquid. */
export const chosenItems = ({ options, topUps }: Choice, dishes: readonly Recipe[]): Item[] =>
  dishes.flatMap((recipe, dish) =>
    recipe.lines.flatMap((line, index) => {
      const chosen = [options[dish]?.[index], options[dish]?.[index] === 'omit' ? undefined : topUps[dish]?.[index]];
      return chosen.flatMap((option) => {
        const item = typeof option === 'number' ? itemAt(line, option) : undefined;
        return item ? [item, ...item.also] : [];
      });
    }),
  );

/** The avoided codes that an item, or what it brings along, holds or may hold, sorted. */
const blockedBy = (item: Item, avoids: readonly string[]): string[] =>
  item.also.length === 0
    ? blockersOf(item.holdings, avoids)
    : [...new Set([item, ...item.also].flatMap(({ holdings }) => blockersOf(holdings, avoids)))].sort();
