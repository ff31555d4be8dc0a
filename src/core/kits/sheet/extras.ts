import { type Choice, choose, chosenItems } from '../../recipes/recipe/choice';
import type { Recipe } from '../../recipes/recipe/recipe';
import { blockersOf, type Need } from '../../safety/avoidances';
import type { Supply } from '../supply/supplied';
import type { VersionPolicy } from './fewest-variants';

/** What is made beside the kits of the roll: a batch finished before class, food to taste, the crew's, kits in reserve. */
export const EXTRA_KINDS = ['swap-in', 'tasters', 'crew', 'reserve'] as const;
export type ExtraKind = (typeof EXTRA_KINDS)[number];

export interface Extra {
  /** Stays the same from one calculation to the next. */
  readonly id: string;
  readonly kind: ExtraKind;
  /** Servings of each. */
  readonly servings: number;
  readonly count: number;
  /** Index of the one dish it is made of; left out: of all. */
  readonly dish?: number;
}

/** All extras of a session, with what the people of its roll avoid. Plain data. */
export interface Extras {
  readonly made: readonly Extra[];
  /** Avoidance codes, sorted, and needs that nobody has given a meaning to. */
  readonly avoided: readonly string[];
  readonly unknown: readonly string[];
  /** How a kit in reserve is filled: for somebody who had none before. */
  readonly reserveSupply?: Supply;
}

/** Extras for a roll. */
export function extrasFor(
  made: readonly Extra[],
  people: readonly { readonly needs: readonly Need[] }[],
  reserveSupply?: Supply,
): Extras {
  const needs = people.flatMap((person) => person.needs);
  return {
    made,
    avoided: [...new Set(needs.flatMap(({ codes }) => codes ?? []))].sort(),
    unknown: [...new Set(needs.flatMap(({ codes, asWritten }) => (codes ? [] : [asWritten])))].sort(),
    ...(reserveSupply ? { reserveSupply } : {}),
  };
}

/** What of a session is made beside its kits, as it is written down. */
export interface ExtrasWanted {
  /** Portions to taste, and portions for the crew. */
  readonly tasters?: number;
  readonly crew?: number;
  readonly reserve?: number;
  /** Servings of a reserve kit. */
  readonly reserveServings?: number;
  /** Whether those who avoid different things share a version. */
  readonly versions?: VersionPolicy;
}

/** The extras of a session, in the order they are made. @param dishes each with the servings of it made before class */
export function extrasOf(
  wanted: ExtrasWanted,
  dishes: readonly { readonly id: string; readonly swapIn: number }[],
): Extra[] {
  const { tasters = 0, crew = 0, reserve = 0, reserveServings = 1 } = wanted;
  return [
    // Known by its dish: it keeps its number when another dish comes before it.
    ...dishes.flatMap(({ id, swapIn: servings }, dish): Extra[] =>
      servings > 0 ? [{ id, kind: 'swap-in', servings, count: 1, dish }] : [],
    ),
    ...(tasters > 0 ? [{ id: 'tasters', kind: 'tasters', servings: tasters, count: 1 } as const] : []),
    ...(crew > 0 ? [{ id: 'crew', kind: 'crew', servings: crew, count: 1 } as const] : []),
    ...(reserve > 0 ? [{ id: 'reserve', kind: 'reserve', servings: reserveServings, count: reserve } as const] : []),
  ];
}

/** How the one is called that an extra stands for: "Swap-in: Harbour lentil pot", "Reserve 2". */
export function extraName({ kind, dish }: Extra, number: number, titles: readonly string[]): string {
  switch (kind) {
    case 'swap-in':
      return `Swap-in: ${titles[dish ?? 0] ?? 'dish'}`;
    case 'tasters':
      return 'Tasters';
    case 'crew':
      return 'Crew';
    case 'reserve':
      return `Reserve ${number}`;
  }
}

/** How an extra is made, and for whom it is not safe. */
export interface ExtraChoice {
  readonly avoids: readonly string[];
  readonly choice: Choice;
  /** Avoidances of the roll that it does not meet: those people do not eat of it. */
  readonly notFor: readonly string[];
}

/**
 * How an extra is made: without anything that anybody on the roll must avoid where the dishes allow it, since nobody knows
 * yet who eats of it; what cannot be met is given up, and told. The crew's is as it is written.
 */
export function chooseExtra(
  { kind, dish }: Extra,
  dishes: readonly Recipe[],
  { avoided, unknown }: Extras,
): ExtraChoice {
  const only = (choice: Choice): Choice =>
    dish === undefined
      ? choice
      : {
          ...choice,
          options: choice.options.map((lines, at) => (at === dish ? lines : lines.map(() => 'omit' as const))),
        };
  const made = dishes.filter((_, at) => dish === undefined || at === dish);
  const isSafe = (codes: readonly string[]) => choose(made, codes).options.every((lines) => !lines.includes('refused'));
  // What alone has no way out is given up first; if the others still stand in each other's way, all are.
  const possible = kind === 'crew' ? [] : avoided.filter((code) => isSafe([code]));
  const avoids = isSafe(possible) ? possible : [];
  const choice = only(choose(dishes, avoids));
  const items = chosenItems(choice, dishes);
  const held = (code: string) => items.some(({ holdings }) => blockersOf(holdings, [code]).length > 0);
  return { avoids, choice, notFor: [...avoided.filter(held), ...unknown] };
}
