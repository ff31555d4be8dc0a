import type { SolveMilp } from '../solver/milp';
import {
  areApart,
  type Change,
  clash,
  type Duty,
  type EmptyDuty,
  isFree,
  lacks,
  minutesOf,
  type Person,
  type Place,
  placeKey,
  type RosterCase,
  type RosterPlan,
  type Rule,
  wayBetween,
} from './roster-case';
import { asMilp, modelOf } from './roster-model';

interface Tries {
  readonly solve: SolveMilp;
  readonly clock: () => number;
  /** When nothing more is tried. */
  readonly end: number;
}

/**
 * Why each empty place is empty, person by person, and what would fill it; each change was tried.
 *
 * @param only duties that are looked at; all where left out
 */
export function whyEmpty(
  given: RosterCase,
  plan: Pick<RosterPlan, 'places' | 'empty'>,
  tries: Tries,
  only?: readonly string[],
): EmptyDuty[] {
  const { duties = [], people = [] } = given;
  const rules = rulesAgainst(given, plan.places);
  return duties.flatMap((duty): EmptyDuty[] => {
    if (only && !only.includes(duty.id)) return [];
    const there = plan.places.filter((place) => place.duty === duty.id);
    const missing = (duty.people ?? 1) - there.length;
    if (missing <= 0) return [];
    const others = people.filter(({ id }) => !there.some(({ person }) => person === id));
    return [
      {
        duty: duty.id,
        missing,
        because: others.flatMap((person) => {
          const rule = rules(person, duty);
          return rule ? [{ person: person.id, rule }] : [];
        }),
        would: people.flatMap((person) =>
          changesFor(person, duty, people).filter(
            (change) => tries.clock() < tries.end && fills(given, plan, duty, change, tries),
          ),
        ),
      },
    ];
  });
}

/** The first rule that stands against somebody's taking a duty beside what they have in a plan; undefined where none does. */
export function rulesAgainst(
  { duties = [], people = [], travel, never = [] }: RosterCase,
  places: readonly Place[],
): (person: Person, duty: Duty) => Rule | undefined {
  const way = wayBetween(travel);
  const dutyOf = new Map(duties.map((duty) => [duty.id, duty]));
  const personOf = new Map(people.map((person) => [person.id, person]));
  const had = new Map<string, Duty[]>();
  const there = new Map<string, string[]>();
  for (const { duty, person } of places) {
    had.set(person, [...(had.get(person) ?? []), ...[dutyOf.get(duty) ?? []].flat()]);
    there.set(duty, [...(there.get(duty) ?? []), person]);
  }
  const isNever = new Set(never.map(placeKey));
  return (person, duty) => {
    if (isNever.has(placeKey({ duty: duty.id, person: person.id }))) return 'never';
    if (lacks(person, duty).length > 0) return 'skill';
    if (!isFree(person, duty)) return 'free';
    const own = (had.get(person.id) ?? []).filter(({ id }) => id !== duty.id);
    const inTheWay = own.filter((each) => clash(each, duty, way) !== undefined);
    if (inTheWay.some(({ weight = 1 }) => weight >= (duty.weight ?? 1))) return 'elsewhere';
    const [first] = inTheWay;
    if (first) return clash(first, duty, way);
    if (person.most_duties !== undefined && own.length + 1 > person.most_duties) return 'most_duties';
    const minutes = own.reduce((sum, each) => sum + minutesOf(each), minutesOf(duty));
    if (person.most_minutes !== undefined && minutes > person.most_minutes) return 'most_minutes';
    const others = (there.get(duty.id) ?? []).flatMap((id) => (id === person.id ? [] : (personOf.get(id) ?? [])));
    return others.some((other) => areApart(person, other)) ? 'apart' : undefined;
  };
}

/**
 * All single changes that could help a duty to somebody: a skill or a time for whom nothing else stands against it; a limit, or who is
 * kept apart, of anybody: one duty more for another may free a driver.
 */
function changesFor(person: Person, duty: Duty, people: readonly Person[]): Change[] {
  const { id } = person;
  const missing = lacks(person, duty);
  const [skill] = missing;
  const free = isFree(person, duty);
  return [
    ...(skill !== undefined && missing.length === 1 && free
      ? [{ person: id, rule: 'skill' as const, skill, to: duty.day }]
      : []),
    ...(missing.length === 0 && !free
      ? [{ person: id, rule: 'free' as const, to: [duty.day, duty.from, duty.to] as const }]
      : []),
    ...(person.most_duties === undefined
      ? []
      : [{ person: id, rule: 'most_duties' as const, to: person.most_duties + 1 }]),
    ...(person.most_minutes === undefined
      ? []
      : [{ person: id, rule: 'most_minutes' as const, to: person.most_minutes + minutesOf(duty) }]),
    ...people
      .filter((other) => areApart(person, other))
      .map((other) => ({ person: id, rule: 'apart' as const, with: other.id })),
  ];
}

/** A case in which one thing is otherwise. */
export function changed(given: RosterCase, change: Change): RosterCase {
  const { people = [] } = given;
  return {
    ...given,
    people: people.map((person) => {
      if (change.rule === 'apart') {
        const other = person.id === change.person ? change.with : person.id === change.with ? change.person : undefined;
        return other === undefined ? person : { ...person, apart: (person.apart ?? []).filter((id) => id !== other) };
      }
      if (person.id !== change.person) return person;
      switch (change.rule) {
        case 'skill':
          return { ...person, skills: { ...person.skills, [change.skill]: change.to } };
        case 'free':
          return { ...person, free: [...(person.free ?? []), change.to] };
        default:
          return { ...person, [change.rule]: change.to };
      }
    }),
  };
}

/** Whether after a change alone there is a plan with fewer empty places in all, by their weight, and at this duty. */
function fills(
  given: RosterCase,
  plan: Pick<RosterPlan, 'places' | 'empty'>,
  duty: Duty,
  change: Change,
  { solve, clock, end }: Tries,
): boolean {
  const after = changed(given, change);
  const { places } = plan;
  const person = after.people?.find(({ id }) => id === change.person);
  // Often nothing else has to move.
  if (person && !places.some((each) => each.duty === duty.id && each.person === person.id))
    if (rulesAgainst(after, places)(person, duty) === undefined) return true;
  const model = modelOf(after);
  const columns = model.ofDuty.get(duty) ?? [];
  const filled = places.filter((each) => each.duty === duty.id).length;
  const all = (given.duties ?? []).reduce((sum, { people = 1, weight = 1 }) => sum + people * weight, 0);
  const weights = model.pairs.map(({ duty: { weight = 1 } }, column) => [column, weight] as const);
  const answer = solve(
    asMilp(model, () => 0, {
      rows: [
        { least: filled + 1, terms: columns.map((column) => [column, 1]) },
        { least: all - plan.empty + 1, terms: weights },
      ],
    }),
    Math.max(0.05, end - clock()),
  );
  return 'values' in answer;
}
