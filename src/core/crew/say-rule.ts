import type { Rule } from './roster-case';

/** Rules that somebody's word sets aside: they were asked, and said yes. */
export const BY_WORD: readonly Rule[] = ['free', 'most_duties', 'most_minutes'];

/** Rules as one says them of somebody. */
export const RULES: Readonly<Record<Rule, string>> = {
  never: 'was ruled out for it by hand, or said no',
  skill: 'lacks a skill, or it has ended by then',
  free: 'has no time then',
  overlap: 'has another duty then',
  travel: 'could not get there in time',
  most_duties: 'has as many duties as they take',
  most_minutes: 'has as many hours as they take',
  apart: 'is kept apart from somebody there',
  elsewhere: 'is needed at another duty then',
};

/** A rule against somebody, with the day where it is a check that ends. */
export function sayRule(
  rule: Rule,
  wanted: readonly string[],
  held: Readonly<Record<string, number>>,
  { skills }: { readonly skills: Readonly<Partial<Record<string, { readonly until: string | null }>>> },
): string {
  if (rule !== 'skill') return RULES[rule];
  const missing = wanted.filter((skill) => !Object.hasOwn(held, skill));
  const ended = wanted.find((skill) => skills[skill]?.until);
  if (missing.includes('adult')) return 'is a minor: this duty is for adults';
  if (missing.includes('lifts')) return 'lifts nothing heavy';
  const far = missing.find((skill) => skill.startsWith('goes to '));
  if (far) return `does not go to ${far.slice('goes to '.length)}`;
  const [first] = missing;
  if (first && !skills[first]) return `lacks: ${missing.join(', ')}`;
  return ended ? `cannot: ${ended} ends on ${skills[ended]?.until}` : RULES.skill;
}
