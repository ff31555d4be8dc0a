import type { Pair } from './sheet-case';

/** Where nobody knows an age: as the younger of a primary school. */
export const USUAL_AGE = 7;
const ADULT_AGE = 18;
/** Where the adults are: at whatever needs one. */
const WITH_ADULTS = 'with the adults';

/** A station as a case names it. */
export const nameOfStation = (station: number | null): string =>
  station === null ? WITH_ADULTS : `station ${station}`;

/** A group that works at one table. */
export interface Station {
  /** From 1. */
  readonly number: number;
  readonly pairs: readonly ChildPair[];
}

/** Children who work together. */
export interface ChildPair extends Pair {
  /** Places of its children in the list of ages. */
  readonly children: readonly number[];
}

/** Children in twos, next to each other in age, each pair as old as its younger; who tells no age counts as the youngest. */
export function pairsOf(ages: readonly (number | null)[]): ChildPair[] {
  const known = ages.filter((age): age is number => age !== null);
  const youngest = known.length > 0 ? Math.min(...known) : USUAL_AGE;
  const sorted = ages.map((age, at) => ({ age: age ?? youngest, at })).sort((a, b) => a.age - b.age);
  const pairs: ChildPair[] = [];
  for (let at = 0; at < sorted.length; at += 2) {
    const own = sorted.slice(at, at + 2);
    const [age = youngest, older = age] = own.map((child) => child.age);
    const years = own.length === 1 ? `age ${age}` : age === older ? `both ${age}` : `${age} and ${older}`;
    const id = `${own.length === 1 ? 'child' : 'pair'} ${pairs.length + 1} (${years})`;
    pairs.push({ id, age, children: own.map((child) => child.at) });
  }
  return pairs;
}

/** Each adult by themselves. */
export const adultsOf = (count: number): Pair[] =>
  Array.from({ length: count }, (_, at) => ({ id: `adult ${at + 1}`, age: ADULT_AGE, at: WITH_ADULTS }));

/**
 * Pairs dealt to stations, the eldest first, so that there is somebody older at each.
 *
 * @param count stations that the place has; never more than pairs
 */
export function stationsOf(pairs: readonly ChildPair[], count: number): Station[] {
  const stations = Math.max(1, Math.min(count, pairs.length));
  const eldestFirst = [...pairs].sort((a, b) => b.age - a.age);
  return Array.from({ length: stations }, (_, at) => ({
    number: at + 1,
    pairs: eldestFirst.filter((_pair, n) => n % stations === at),
  }));
}
