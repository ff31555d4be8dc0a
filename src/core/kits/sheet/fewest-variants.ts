import { choose } from '../../recipes/recipe/choice';
import type { Recipe } from '../../recipes/recipe/recipe';

/** Whether those who avoid different things get kits of their own, share the fewest versions, or all get one. */
export const VERSION_POLICIES = ['separate', 'fewest', 'one'] as const;
export type VersionPolicy = (typeof VERSION_POLICIES)[number];

/** A way of sharing versions. */
export interface SharedVersions {
  /** For each set of avoidances, in the order they were given, the version that its people get: from 0. */
  readonly versionOf: readonly number[];
  /** What each version is made without: together, all that its people avoid. */
  readonly avoids: readonly (readonly string[])[];
  /** No fewer versions would do. Else there may be so many fewer at most. */
  readonly isFewest: boolean;
  readonly atMostFewer: number;
}

/** More ways of sharing than this are not tried: the best found by then is told with its gap. */
const MOST_TRIED = 200_000;

/**
 * The fewest versions that keep everybody safe: people share one where the dishes can be made without all that any of them
 * avoids. Every way of sharing that could need fewer is tried (branch and bound), up to a limit; a set of people of whom no
 * two can share says how few there can be at least. What cannot be made even by itself stays a version of its own.
 *
 * @param sets avoidance codes, one set for each kind of need
 */
export function fewestVersions(dishes: readonly Recipe[], sets: readonly (readonly string[])[]): SharedVersions {
  const known = new Map<string, boolean>();
  const canShare = (codes: readonly string[]): boolean => {
    const key = codes.join(' ');
    const before = known.get(key);
    if (before !== undefined) return before;
    const isSafe = choose(dishes, codes).options.every((lines) => !lines.includes('refused'));
    known.set(key, isSafe);
    return isSafe;
  };
  const union = (a: readonly string[], b: readonly string[]) => [...new Set([...a, ...b])].sort();
  const alone = sets.map((set) => !canShare([...set].sort()));
  // Those who avoid most are placed first: they leave the fewest ways open.
  const order = sets.map((_, at) => at).filter((at) => !alone[at]);
  order.sort((a, b) => (sets[b]?.length ?? 0) - (sets[a]?.length ?? 0) || a - b);
  const least = apart(order, (a, b) => canShare(union(sets[a] ?? [], sets[b] ?? [])));
  let best: { versions: (readonly string[])[]; of: Map<number, number> } | undefined;
  let tried = 0;
  const place = (at: number, versions: (readonly string[])[], of: ReadonlyMap<number, number>): void => {
    if (best && (versions.length >= best.versions.length || best.versions.length === least)) return;
    const person = order[at];
    if (person === undefined) {
      best = { versions: [...versions], of: new Map(of) };
      return;
    }
    if (tried++ > MOST_TRIED) return;
    const own = sets[person] ?? [];
    for (const [index, version] of versions.entries()) {
      const together = union(version, own);
      if (!canShare(together)) continue;
      place(
        at + 1,
        versions.map((each, other) => (other === index ? together : each)),
        new Map([...of, [person, index]]),
      );
    }
    place(at + 1, [...versions, [...own].sort()], new Map([...of, [person, versions.length]]));
  };
  place(0, [], new Map());
  const found = best ?? { versions: [], of: new Map<number, number>() };
  const avoids = [...found.versions];
  const versionOf = sets.map((set, at) => {
    const shared = found.of.get(at);
    if (shared !== undefined) return shared;
    avoids.push([...set].sort());
    return avoids.length - 1;
  });
  const isFewest = found.versions.length === least || tried <= MOST_TRIED;
  return { versionOf, avoids, isFewest, atMostFewer: isFewest ? 0 : found.versions.length - least };
}

/**
 * One version for all whose needs can be met at all; where no one version does for them, each keeps their own.
 *
 * @param sets avoidance codes, one set for each kind of need
 */
export function oneVersion(
  dishes: readonly Recipe[],
  sets: readonly (readonly string[])[],
): Pick<SharedVersions, 'versionOf' | 'avoids'> {
  const canMake = (codes: readonly string[]) =>
    choose(dishes, codes).options.every((lines) => !lines.includes('refused'));
  const able = sets.map(canMake);
  const all = [...new Set(sets.filter((_, at) => able[at]).flat())].sort();
  if (!canMake(all)) return { versionOf: sets.map((_, at) => at), avoids: sets };
  const apart = sets.filter((_, at) => !able[at]);
  return { versionOf: sets.map((set, at) => (able[at] ? 0 : 1 + apart.indexOf(set))), avoids: [all, ...apart] };
}

/** How many there are of whom no two can share, found greedily: at least so many versions are needed. */
function apart(order: readonly number[], canShare: (a: number, b: number) => boolean): number {
  const chosen: number[] = [];
  for (const at of order) if (chosen.every((other) => !canShare(other, at))) chosen.push(at);
  return order.length === 0 ? 0 : Math.max(1, chosen.length);
}
