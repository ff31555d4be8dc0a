import type { Need } from '../../safety/avoidances';
import { choose } from '../recipe/choice';
import type { Recipe } from '../recipe/recipe';

/** People of a roll who avoid the same, and what a dish means for them. */
export interface DishNeed {
  readonly people: number;
  /** What of their avoidances the dish touches. */
  readonly avoids: readonly string[];
  /** "olive oil instead of butter", "without honey"; empty when refused. */
  readonly replaced: readonly string[];
  /** Foods for which nothing safe stands in; empty when it can be made. */
  readonly blocked: readonly string[];
  /** Needs that nobody has given a meaning to: nothing is safe before. */
  readonly unknown: readonly string[];
}

/** " (10 minutes longer)" where cooking takes longer with it, or shorter. */
const sayLonger = (minutes: number) =>
  minutes === 0 ? '' : ` (${Math.abs(minutes)} minutes ${minutes > 0 ? 'longer' : 'shorter'})`;

/** What a dish means for the avoidances of a roll: one entry for each kind of need that it touches. */
export function dishNeeds(recipe: Recipe, people: readonly { readonly needs: readonly Need[] }[]): DishNeed[] {
  const alike = new Map<string, { avoids: string[]; unknown: string[]; people: number }>();
  for (const { needs } of people) {
    const avoids = [...new Set(needs.flatMap(({ codes }) => codes ?? []))].sort();
    const unknown = [...new Set(needs.flatMap(({ codes, asWritten }) => (codes ? [] : [asWritten])))].sort();
    const key = JSON.stringify([avoids, unknown]);
    const own = alike.get(key) ?? { avoids, unknown, people: 0 };
    own.people += 1;
    alike.set(key, own);
  }
  const found = new Map<string, DishNeed>();
  for (const { avoids, unknown, people: count } of alike.values()) {
    if (avoids.length === 0 && unknown.length === 0) continue;
    const { options, effective } = choose([recipe], avoids);
    const told = (options[0] ?? []).map((option, at) => {
      const line = recipe.lines[at];
      const written = line?.written.ingredient.name ?? '';
      if (option === 'refused') return { blocked: written };
      if (option === 'omit') return { replaced: `without ${written}` };
      const other = option === 0 ? undefined : line?.alternatives[option - 1];
      return other
        ? {
            replaced: `${[other, ...other.also].map(({ ingredient }) => ingredient.name).join(' and ')} instead of ${written}${sayLonger(other.minutes)}`,
          }
        : {};
    });
    const replaced = told.flatMap((each) => ('replaced' in each && each.replaced ? [each.replaced] : []));
    const blocked = told.flatMap((each) => ('blocked' in each && each.blocked ? [each.blocked] : []));
    if (effective.length === 0 && unknown.length === 0) continue;
    const key = JSON.stringify([effective, unknown, replaced, blocked]);
    const same = found.get(key);
    found.set(key, {
      people: count + (same?.people ?? 0),
      avoids: effective,
      replaced: blocked.length > 0 ? [] : replaced,
      blocked,
      unknown,
    });
  }
  return [...found.values()].sort((a, b) => b.people - a.people);
}
