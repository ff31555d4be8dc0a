import type { Choice } from '../../recipes/recipe/choice';
import type { Need } from '../../safety/avoidances';
import type { Supply } from '../supply/supplied';
import type { ExtraKind } from './extras';

/** One person of the roll as kits see them. */
export interface Participant {
  readonly id: string;
  readonly name: string;
  readonly servings: number;
  readonly needs: readonly Need[];
  /** The group they come with, where a session is given to several. */
  readonly group?: string;
  /** How their kit is filled, beside size and needs; people alike share one object. */
  readonly supply?: Supply;
}

/** Kits that are made alike, before they are computed. */
export interface Group {
  readonly key: string;
  readonly servings: number;
  readonly avoids: readonly string[];
  readonly choice: Choice;
  readonly unknown: readonly string[];
  readonly participants: Participant[];
  readonly supply?: Supply;
  readonly extra?: ExtraKind;
  readonly notFor?: readonly string[];
}

/** People by the group they come with, in the order of the groups' first; one list under '' where there is only one. */
export function byGroup<P extends { readonly group?: string }>(
  people: readonly P[],
): ReadonlyMap<string, readonly P[]> {
  const groups = new Map<string, P[]>();
  for (const person of people) {
    const { group = '' } = person;
    const own = groups.get(group);
    if (own) own.push(person);
    else groups.set(group, [person]);
  }
  return groups;
}
