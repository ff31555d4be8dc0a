import type { Milp, MilpRow } from '../solver/milp';
import {
  areApart,
  clash,
  type Duty,
  minutesOf,
  type Person,
  type Place,
  placeKey,
  type RosterCase,
  suits,
  wayBetween,
} from './roster-case';

/** Somebody and a duty that could be theirs. */
export interface Pair {
  readonly person: Person;
  readonly duty: Duty;
}

/** A roster as a linear model: a yes or no for each pair that skill and time allow. */
export interface RosterModel {
  readonly pairs: readonly Pair[];
  readonly rows: readonly MilpRow[];
  /** Pairs that stand already. */
  readonly fixed: ReadonlySet<Pair>;
  /** Columns of the pairs of a duty, and of a person. */
  readonly ofDuty: ReadonlyMap<Duty, readonly number[]>;
  readonly ofPerson: ReadonlyMap<Person, readonly number[]>;
}

export function modelOf({ duties = [], people = [], travel, fixed = [], never = [] }: RosterCase): RosterModel {
  const isNever = new Set(never.map(placeKey));
  const pairs = people.flatMap((person) =>
    duties
      .filter((duty) => suits(person, duty) && !isNever.has(placeKey({ duty: duty.id, person: person.id })))
      .map((duty) => ({ person, duty })),
  );
  const ofDuty = columnsBy(pairs, ({ duty }) => duty);
  const ofPerson = columnsBy(pairs, ({ person }) => person);
  const way = wayBetween(travel);
  const one = (column: number) => [column, 1] as const;
  const rows: MilpRow[] = [];
  for (const [duty, columns] of ofDuty) {
    const { people: places = 1 } = duty;
    if (columns.length > places) rows.push({ most: places, terms: columns.map(one) });
    for (const clique of cliques(columns, (a, b) => areApart((pairs[a] as Pair).person, (pairs[b] as Pair).person)))
      rows.push({ most: 1, terms: clique.map(one) });
  }
  for (const [{ most_duties, most_minutes }, columns] of ofPerson) {
    if (most_duties !== undefined && columns.length > most_duties)
      rows.push({ most: most_duties, terms: columns.map(one) });
    if (most_minutes !== undefined)
      rows.push({
        most: most_minutes,
        terms: columns.map((column) => [column, minutesOf((pairs[column] as Pair).duty)]),
      });
    const clashes = (a: number, b: number) =>
      clash((pairs[a] as Pair).duty, (pairs[b] as Pair).duty, way) !== undefined;
    for (const clique of cliques(columns, clashes)) rows.push({ most: 1, terms: clique.map(one) });
  }
  const stands = new Set(fixed.map(placeKey));
  const isFixed = new Set(
    pairs.filter(({ person, duty }) => stands.has(placeKey({ duty: duty.id, person: person.id }))),
  );
  for (const [column, pair] of pairs.entries())
    if (isFixed.has(pair)) rows.push({ least: 1, most: 1, terms: [one(column)] });
  return { pairs, rows, fixed: isFixed, ofDuty, ofPerson };
}

function columnsBy<Key>(pairs: readonly Pair[], keyOf: (pair: Pair) => Key): Map<Key, number[]> {
  const columns = new Map<Key, number[]>();
  for (const [column, pair] of pairs.entries()) {
    const own = columns.get(keyOf(pair));
    if (own) own.push(column);
    else columns.set(keyOf(pair), [column]);
  }
  return columns;
}

/** Groups of which at most one may be chosen, so that every two that stand in each other's way are in one. */
function cliques(columns: readonly number[], clashes: (a: number, b: number) => boolean): number[][] {
  const open = new Map<number, Set<number>>();
  const next = new Map<number, Set<number>>(columns.map((column) => [column, new Set<number>()]));
  for (const [at, a] of columns.entries())
    for (const b of columns.slice(at + 1)) {
      if (!clashes(a, b)) continue;
      next.get(a)?.add(b);
      next.get(b)?.add(a);
      open.set(a, (open.get(a) ?? new Set<number>()).add(b));
    }
  const found: number[][] = [];
  for (const [a, others] of open)
    for (const b of [...others]) {
      if (!others.has(b)) continue;
      const clique = [a, b];
      for (const c of columns) if (c !== a && c !== b && clique.every((each) => next.get(each)?.has(c))) clique.push(c);
      for (const one of clique) for (const other of clique) open.get(one)?.delete(other);
      found.push(clique);
    }
  return found;
}

/** A model with costs for its pairs, more columns behind them, and more rows. */
export const asMilp = (
  { pairs, rows }: RosterModel,
  costOf: (pair: Pair, column: number) => number,
  more: { readonly columns?: Milp['columns']; readonly rows?: readonly MilpRow[] } = {},
): Milp => ({
  columns: [
    ...pairs.map((pair, column) => ({ cost: costOf(pair, column), most: 1, isWhole: true as const })),
    ...(more.columns ?? []),
  ],
  rows: [...rows, ...(more.rows ?? [])],
});

/** The places of a roster that a solver found. */
export const placesIn = ({ pairs }: RosterModel, values: readonly number[]): Place[] =>
  pairs.flatMap(({ person, duty }, column) =>
    Math.round(values[column] ?? 0) === 1 ? [{ duty: duty.id, person: person.id }] : [],
  );
