import type { Participant } from './participant';

/** Somebody who gets a kit, and with whom they may share it. */
export interface Sharing extends Participant {
  readonly householdId: string;
  readonly sharesKit: boolean;
}

/**
 * Participants as kits are made for them: those of a household who share one kit are one, with all their servings and
 * everything that any of them avoids. Those of other groups keep their own: they are handed out elsewhere.
 */
export function shareKits(people: readonly Sharing[]): Participant[] {
  const shared = new Map<string, Sharing[]>();
  for (const person of people) {
    if (!person.sharesKit) continue;
    const key = `${person.householdId}|${person.group ?? ''}`;
    shared.set(key, [...(shared.get(key) ?? []), person]);
  }
  return people.flatMap((person): Participant[] => {
    const { householdId, sharesKit, ...own } = person;
    const together = sharesKit ? (shared.get(`${householdId}|${person.group ?? ''}`) ?? []) : [];
    if (together.length < 2) return [own];
    if (together[0] !== person) return [];
    return [
      {
        ...own,
        name: sayNames(together.map(({ name }) => name)),
        servings: together.reduce((sum, { servings }) => sum + servings, 0),
        needs: together.flatMap(({ needs }) => needs),
      },
    ];
  });
}

/** "Ada and Bo Finch": a name that all share is said once. */
function sayNames(names: readonly string[]): string {
  const last = names.map((name) => name.split(' ').slice(1).join(' '));
  const isShared = last[0] !== '' && last.every((each) => each === last[0]);
  const said = isShared ? names.map((name) => name.split(' ')[0] ?? name) : names;
  const all = `${said.slice(0, -1).join(', ')} and ${said.at(-1)}`;
  return isShared ? `${all} ${last[0]}` : all;
}
