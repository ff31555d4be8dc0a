import type { SafetyProfile } from '../recipes/steps/safe-temperatures';
import { ADULT } from '../recipes/steps/step-plan';
import facts from '../reference/facts/adults.json';

/** What makes a class ask for more adults than its ages do. */
export const RISKS = ['knives', 'heat', 'fire'] as const;
export type Risk = (typeof RISKS)[number];

/**
 * Children that one adult has an eye on where something can cut or burn, at the most. Ours, on the safe side: tables for cooking with
 * children name ages, seldom stoves. Local codes decide.
 */
const AT_RISK: Readonly<Record<Risk, number>> = { knives: 8, heat: 6, fire: 4 };

/** However few children there are: one is never alone with them (safeguarding guidance of both countries). */
const FEWEST_ADULTS = 2;

/** Of whom nobody wrote the age, this is taken: the youngest who usually come to a cooking class. */
const UNKNOWN_AGE = 5;

/** What a programme asks for beyond the table: never less. */
export interface StricterRatios {
  /** Children to one adult at the most, whatever their age. */
  readonly children?: number;
  readonly adults?: number;
}

export interface AdultsNeeded {
  readonly adults: number;
  /** The working, a sentence for each number. */
  readonly because: readonly string[];
}

/**
 * How many adults a class needs, by the age of the children and by what they do: a typical table, made stricter by the programme.
 *
 * @param ages of who comes, null where nobody wrote it; who is 18 needs no adult
 * @example
 * adultsFor([6, 7, 7, 8, 9, 10, 10], ['heat'], 'us')
 * //=> { adults: 2, because: ['4 of 6 to 8: one adult for 8', …] }
 */
export function adultsFor(
  ages: readonly (number | null)[],
  risks: readonly Risk[],
  profile: SafetyProfile,
  stricter: StricterRatios = {},
): AdultsNeeded {
  const children = ages.map((age) => age ?? UNKNOWN_AGE).filter((age) => age < ADULT);
  if (children.length === 0) return { adults: 0, because: ['No children come.'] };
  const risk = [...risks].sort((a, b) => AT_RISK[a] - AT_RISK[b])[0];
  const most = Math.min(risk ? AT_RISK[risk] : Number.POSITIVE_INFINITY, stricter.children ?? Number.POSITIVE_INFINITY);
  const because: string[] = [];
  let share = 0;
  for (const { profile: own, from, to, children: usual } of facts) {
    if (own !== profile) continue;
    const count = children.filter((age) => age >= from && age < to).length;
    if (count === 0) continue;
    const each = Math.min(usual, most);
    share += count / each;
    const why = each === usual ? '' : each === stricter.children ? ', as the programme asks' : `, because of ${risk}`;
    because.push(`${count} of ${from} to ${to - 1} years: one adult for ${each}${why}.`);
  }
  const unknown = ages.filter((age) => age === null).length;
  if (unknown > 0) because.push(`${unknown} of unknown age count as ${UNKNOWN_AGE}.`);
  const byAge = Math.ceil(share - 1e-9);
  const adults = Math.max(byAge, FEWEST_ADULTS, stricter.adults ?? 0);
  if (adults > byAge)
    because.push(
      adults === stricter.adults
        ? `The programme asks for ${adults} at least.`
        : `Never fewer than ${FEWEST_ADULTS}: nobody is alone with children.`,
    );
  return { adults, because };
}
