import { figuresOf } from './roster';
import { FIGURES, type Place, placeKey, type RosterCase } from './roster-case';
import { rulesAgainst } from './roster-why';

/** Somebody who would like to be there with another. */
export interface WithWish {
  readonly person: string;
  readonly with: string;
}

/**
 * Meets wishes to be there with somebody, where that costs nothing: two people change places in a roster, or one moves to an empty
 * one, so that none of its figures is worse.
 *
 * @param sessionOf which session a duty belongs to: being together is being at the same one
 */
export function bringTogether(
  given: RosterCase,
  places: readonly Place[],
  wishes: readonly WithWish[],
  sessionOf: (duty: string) => string,
): readonly Place[] {
  const held = new Set((given.fixed ?? []).map(placeKey));
  const sessionsOf = (person: string, now: readonly Place[]) =>
    new Set(now.flatMap((place) => (place.person === person ? [sessionOf(place.duty)] : [])));
  const met = (now: readonly Place[]) =>
    wishes.reduce((sum, wish) => {
      const theirs = sessionsOf(wish.with, now);
      return sum + [...sessionsOf(wish.person, now)].filter((session) => theirs.has(session)).length;
    }, 0);
  let best = places;
  for (const wish of wishes) {
    const theirs = sessionsOf(wish.with, best);
    const own = best.filter((place) => place.person === wish.person && !theirs.has(sessionOf(place.duty)));
    for (const mine of own) {
      if (held.has(placeKey(mine))) continue;
      const others = best.filter((place) => theirs.has(sessionOf(place.duty)) && place.person !== wish.with);
      const better = others
        .filter((other) => other.person !== wish.person && !held.has(placeKey(other)))
        .map((other) => swapped(best, mine, other))
        .find((after) => isAllowed(given, after) && isNoWorse(given, best, after) && met(after) > met(best));
      if (better) best = better;
    }
  }
  return best;
}

const swapped = (places: readonly Place[], one: Place, other: Place): Place[] =>
  places.map((place) => {
    if (place === one) return { duty: one.duty, person: other.person };
    return place === other ? { duty: other.duty, person: one.person } : place;
  });

function isAllowed(given: RosterCase, places: readonly Place[]): boolean {
  const keys = new Set(places.map(placeKey));
  if (keys.size < places.length) return false;
  const personOf = new Map((given.people ?? []).map((person) => [person.id, person]));
  const dutyOf = new Map((given.duties ?? []).map((duty) => [duty.id, duty]));
  const against = rulesAgainst(given, places);
  return places.every((place) => {
    const person = personOf.get(place.person);
    const duty = dutyOf.get(place.duty);
    return person && duty && against(person, duty) === undefined;
  });
}

const isNoWorse = (given: RosterCase, before: readonly Place[], after: readonly Place[]): boolean => {
  const [was, is] = [figuresOf(given, before), figuresOf(given, after)];
  return FIGURES.every((figure) => is[figure] <= was[figure]);
};
