import { timeOf } from '../plan/civil';
import { isFree, lacks, type Place, type RosterCase } from './roster-case';

/** Skills that are asked for but are nobody's paper: an adult, who lifts, who goes there. */
const isWritten = (skill: string) => skill !== 'adult' && skill !== 'lifts' && !skill.startsWith('goes to ');

/**
 * Why somebody is at a duty, in a sentence: what of theirs it asks for, when they have time, and how many others could.
 *
 * @param untilOf the last day of a skill of theirs, in words; '' for one that does not end
 * @example
 * whyHere(given, { duty: 'lead', person: 'ada' }, () => '')
 * //=> 'Holds lead. Free 14:00 to 20:00. 2 others could.'
 */
export function whyHere(given: RosterCase, place: Place, untilOf: (skill: string) => string): string {
  const duty = (given.duties ?? []).find(({ id }) => id === place.duty);
  const person = (given.people ?? []).find(({ id }) => id === place.person);
  if (!duty || !person) return '';
  const skills = (duty.skills ?? []).filter(isWritten).map((skill) => `${skill}${untilOf(skill)}`);
  const span = (person.free ?? []).find(([day, from, to]) => day === duty.day && from <= duty.from && duty.to <= to);
  const wish = (person.wishes ?? []).find((each) => each.duty === duty.id)?.cost ?? 0;
  const others = (given.people ?? []).filter(
    (each) => each.id !== person.id && lacks(each, duty).length === 0 && isFree(each, duty),
  ).length;
  return [
    skills.length > 0 ? `Holds ${skills.join(', ')}.` : '',
    span ? `Free ${timeOf(span[1])} to ${timeOf(Math.min(span[2], 1439))}.` : '',
    wish > 0 ? 'Would rather not.' : wish < 0 ? 'Is glad of it.' : '',
    others === 0 ? 'Nobody else could.' : others === 1 ? '1 other could.' : `${others} others could.`,
  ]
    .filter(Boolean)
    .join(' ');
}
