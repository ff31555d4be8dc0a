/** What a child may say of a dish: no word for bad, as a food may need many tries. */
export const FACES = ['more please', 'it is fine', 'not yet'] as const;
export type Face = (typeof FACES)[number];

export interface Tasted {
  readonly dishId: string;
  readonly face: Face;
  /** Null where it was tapped without a name. */
  readonly enrolmentId: string | null;
}

/** Votes on a dish: a child who taps twice counts once, as they said last. */
export function votesOf(tastings: readonly Tasted[], dishId: string): Readonly<Record<Face, number>> {
  const votes = { 'more please': 0, 'it is fine': 0, 'not yet': 0 };
  const named = new Map<string, Face>();
  for (const tasted of tastings) {
    if (tasted.dishId !== dishId) continue;
    if (tasted.enrolmentId === null) votes[tasted.face] += 1;
    else named.set(tasted.enrolmentId, tasted.face);
  }
  for (const face of named.values()) votes[face] += 1;
  return votes;
}

/**
 * How often each child has tried each food: once a session, whatever they thought of it. It can take fifteen tries.
 *
 * @param foodsOf the foods of a dish
 * @returns by child, then by food
 */
export function triesOf(
  tastings: readonly (Tasted & { readonly sessionId: string })[],
  foodsOf: (dishId: string) => readonly string[],
): ReadonlyMap<string, ReadonlyMap<string, number>> {
  const sessions = new Map<string, Map<string, Set<string>>>();
  for (const { enrolmentId, dishId, sessionId } of tastings) {
    if (enrolmentId === null) continue;
    const own = sessions.get(enrolmentId) ?? new Map<string, Set<string>>();
    sessions.set(enrolmentId, own);
    for (const food of foodsOf(dishId)) own.set(food, (own.get(food) ?? new Set()).add(sessionId));
  }
  return new Map(
    [...sessions].map(([child, foods]) => [child, new Map([...foods].map(([food, tried]) => [food, tried.size]))]),
  );
}
