import {
  clash,
  type Duty,
  minutesOf,
  type Person,
  type Place,
  type RosterCase,
  suits,
  wayBetween,
} from './roster-case';
import { rulesAgainst } from './roster-why';

/** Somebody takes a duty, and gives up another for it where something stands in the way. */
export interface Step {
  readonly person: string;
  readonly takes: string;
  readonly gives?: string;
}

/** A way to fill a place: who steps in, and who then steps in for them. */
export interface StepIn {
  readonly steps: readonly Step[];
  /** A duty that is empty in its place: only one that weighs less. */
  readonly leaves?: string;
  /** What the wishes of those who take something cost, less of those who give it up. */
  readonly wishes: number;
}

/** Chains are no longer than this: nobody telephones four people for one place. */
const MOST_STEPS = 3;

/**
 * Who could fill a place that became empty, with the fewest changes to others: those first who need nothing changed, then chains of
 * swaps, last those for whom something lighter stays empty; of ways alike the one that costs the fewest wishes.
 *
 * @param places of the roster as it stands, without whoever dropped out
 * @param without people who are not asked: whoever dropped out, and who said no
 */
export function whoCanStepIn(
  given: RosterCase,
  places: readonly Place[],
  dutyId: string,
  without: readonly string[] = [],
): StepIn[] {
  const { duties = [], people = [], travel } = given;
  const way = wayBetween(travel);
  const dutyOf = new Map(duties.map((duty) => [duty.id, duty]));
  const costOf = (person: string, duty: string) =>
    (people.find(({ id }) => id === person)?.wishes ?? []).reduce(
      (sum, wish) => sum + (wish.duty === duty ? wish.cost : 0),
      0,
    );
  /** Duties of which somebody would have to give up one, and only one, to take another. */
  const givesFor = (person: Person, duty: Duty, now: readonly Place[]): readonly Duty[] => {
    const own = now.flatMap((place) => (place.person === person.id ? (dutyOf.get(place.duty) ?? []) : []));
    const inTheWay = own.filter((each) => clash(each, duty, way) !== undefined);
    if (inTheWay.length > 1) return [];
    const could = inTheWay.length === 1 ? inTheWay : own;
    return could.filter((each) => {
      const rest = own.filter((other) => other !== each);
      const minutes = rest.reduce((sum, other) => sum + minutesOf(other), minutesOf(duty));
      return rest.length + 1 <= (person.most_duties ?? Infinity) && minutes <= (person.most_minutes ?? Infinity);
    });
  };
  const found: StepIn[] = [];
  const look = (duty: Duty, now: readonly Place[], steps: readonly Step[], asked: readonly string[]) => {
    for (const person of people) {
      if (asked.includes(person.id) || !suits(person, duty)) continue;
      if (now.some((place) => place.duty === duty.id && place.person === person.id)) continue;
      const wish = (own: readonly Step[]) =>
        own.reduce(
          (sum, step) => sum + costOf(step.person, step.takes) - (step.gives ? costOf(step.person, step.gives) : 0),
          0,
        );
      if (rulesAgainst(given, now)(person, duty) === undefined) {
        const all = [...steps, { person: person.id, takes: duty.id }];
        found.push({ steps: all, wishes: wish(all) });
        continue;
      }
      for (const gone of givesFor(person, duty, now)) {
        const after = [
          ...now.filter((place) => place.duty !== gone.id || place.person !== person.id),
          { duty: duty.id, person: person.id },
        ];
        // Who is kept apart from somebody there cannot come, whatever they give up.
        const before = after.slice(0, -1);
        if (rulesAgainst(given, before)(person, duty) !== undefined) continue;
        const all = [...steps, { person: person.id, takes: duty.id, gives: gone.id }];
        if ((gone.weight ?? 1) < (dutyOf.get(dutyId)?.weight ?? 1))
          found.push({ steps: all, leaves: gone.id, wishes: wish(all) });
        if (all.length < MOST_STEPS) look(gone, after, all, [...asked, person.id]);
      }
    }
  };
  const duty = dutyOf.get(dutyId);
  if (duty) look(duty, places, [], without);
  const rank = ({ steps, leaves }: StepIn) => steps.length + (leaves === undefined ? 0 : MOST_STEPS);
  const sorted = found.sort((a, b) => rank(a) - rank(b) || a.wishes - b.wishes);
  // Of each who could take it, the way that changes least.
  return sorted.filter(
    (each, at) => sorted.findIndex((other) => other.steps[0]?.person === each.steps[0]?.person) === at,
  );
}
