import { type Duty, minutesOf, type Person, type Place, type RosterCase } from './roster-case';
import { rulesAgainst } from './roster-why';
import { BY_WORD } from './say-rule';

/**
 * A case in which some places stand already: those people have time then, and limits that allow it, whatever else is written of
 * them. A place that breaks another rule is let go: nobody is held to a duty that their check no longer covers.
 *
 * @returns the case, and the places that could not be held, in order
 */
export function holding(given: RosterCase, fixed: readonly Place[]): { given: RosterCase; letGo: readonly Place[] } {
  const dutyOf = new Map((given.duties ?? []).map((duty) => [duty.id, duty]));
  const held: Place[] = [];
  const letGo: Place[] = [];
  for (const place of fixed) {
    const duty = dutyOf.get(place.duty);
    const person = (given.people ?? []).find(({ id }) => id === place.person);
    if (!duty || !person) {
      letGo.push(place);
      continue;
    }
    const isFull = held.filter((each) => each.duty === duty.id).length >= (duty.people ?? 1);
    const rule = rulesAgainst(given, held)(allowing(person, [duty]), { ...duty, weight: Number.POSITIVE_INFINITY });
    if (rule !== undefined && !BY_WORD.includes(rule)) letGo.push(place);
    // Of several who are asked for one place, any may get it: none of them is held to it.
    else if (!isFull) held.push(place);
  }
  const dutiesFor = (id: string) => held.flatMap(({ duty, person }) => (person === id ? (dutyOf.get(duty) ?? []) : []));
  const people = (given.people ?? []).map((person) => allowing(person, dutiesFor(person.id)));
  return { given: { ...given, people, fixed: held }, letGo };
}

/** Somebody with time, and limits, for these duties. */
function allowing(person: Person, duties: readonly Duty[]): Person {
  if (duties.length === 0) return person;
  const minutes = duties.reduce((sum, duty) => sum + minutesOf(duty), 0);
  return {
    ...person,
    free: [...(person.free ?? []), ...duties.map(({ day, from, to }) => [day, from, to] as const)],
    ...(person.most_duties === undefined ? {} : { most_duties: Math.max(person.most_duties, duties.length) }),
    ...(person.most_minutes === undefined ? {} : { most_minutes: Math.max(person.most_minutes, minutes) }),
  };
}
