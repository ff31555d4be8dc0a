import type { Milp, MilpRow, SolveMilp } from '../solver/milp';
import {
  type Duty,
  FIGURES,
  type Figure,
  type Place,
  placeKey,
  type RosterAnswer,
  type RosterCase,
  type RosterPlan,
  suits,
} from './roster-case';
import { asMilp, modelOf, type Pair, placesIn, type RosterModel } from './roster-model';
import { whyEmpty } from './roster-why';

/** What a computation is given beside its case. */
export interface RosterHelp {
  readonly solve: SolveMilp;
  /** Seconds since some moment. */
  readonly clock: () => number;
}

const USUAL_SECONDS = 60;
/** Of the time there is, so much may go into what would fill the empty places. */
const PART_FOR_WHY = 0.3;

/** Promises that could be kept: that person is there, holds the skills and is free then. */
export function bindingPromises({ duties = [], people = [], now = [] }: RosterCase): Set<string> {
  const dutyOf = new Map(duties.map((duty) => [duty.id, duty]));
  const personOf = new Map(people.map((person) => [person.id, person]));
  return new Set(
    now.flatMap((place) => {
      const duty = dutyOf.get(place.duty);
      const person = personOf.get(place.person);
      return duty && person && suits(person, duty) ? [placeKey(place)] : [];
    }),
  );
}

/** The figures of a roster, whatever it is worth. */
export function figuresOf(given: RosterCase, places: readonly Place[]): Record<Figure, number> {
  const { duties = [], people = [] } = given;
  const kept = new Set(places.map(placeKey));
  const counts = new Map<string, number>();
  const byPerson = new Map<string, number>();
  for (const { duty, person } of places) {
    counts.set(duty, (counts.get(duty) ?? 0) + 1);
    byPerson.set(person, (byPerson.get(person) ?? 0) + 1);
  }
  const sum = (numbers: readonly number[]) => numbers.reduce((all, each) => all + each, 0);
  return {
    empty: sum(duties.map(({ id, people: wanted = 1, weight = 1 }) => weight * (wanted - (counts.get(id) ?? 0)))),
    broken: [...bindingPromises(given)].filter((key) => !kept.has(key)).length,
    wishes: sum(
      people.flatMap(({ id, wishes = [] }) =>
        wishes.flatMap(({ duty, cost }) => (kept.has(placeKey({ duty, person: id })) ? [cost] : [])),
      ),
    ),
    evenness: sum(people.map(({ id }) => (byPerson.get(id) ?? 0) ** 2)),
  };
}

/** One figure as the costs of a model. What it comes to with nobody anywhere is `none`. */
interface Aim {
  readonly figure: Figure;
  readonly none: number;
  readonly costOf: (pair: Pair) => number;
}

function aimsOf(given: RosterCase): Aim[] {
  const { duties = [], people = [] } = given;
  const promised = bindingPromises(given);
  const wishes = new Map<string, number>();
  for (const { id, wishes: own = [] } of people)
    for (const { duty, cost } of own) {
      const key = placeKey({ duty, person: id });
      wishes.set(key, (wishes.get(key) ?? 0) + cost);
    }
  const keyOf = ({ duty, person }: Pair) => placeKey({ duty: duty.id, person: person.id });
  return [
    {
      figure: 'empty',
      none: duties.reduce((sum, { people: wanted = 1, weight = 1 }) => sum + wanted * weight, 0),
      costOf: ({ duty: { weight = 1 } }) => -weight,
    },
    { figure: 'broken', none: promised.size, costOf: (pair) => (promised.has(keyOf(pair)) ? -1 : 0) },
    { figure: 'wishes', none: 0, costOf: (pair) => wishes.get(keyOf(pair)) ?? 0 },
  ];
}

/** The squares of how many duties each has, by steps of 1, 3, 5: columns behind the pairs, and the rows that tie them. */
function evenly({ pairs, ofPerson }: RosterModel): { columns: Milp['columns']; rows: MilpRow[] } {
  const columns: { cost: number; most: number }[] = [];
  const rows: MilpRow[] = [];
  for (const own of ofPerson.values()) {
    const steps = own.map((_, step) => pairs.length + columns.length + step);
    columns.push(...own.map((_, step) => ({ cost: 2 * step + 1, most: 1 })));
    rows.push({
      least: 0,
      most: 0,
      terms: [...own.map((column) => [column, 1] as const), ...steps.map((column) => [column, -1] as const)],
    });
  }
  return { columns, rows };
}

/** Sums beyond this are no longer told apart to the last unit by a solver that counts in fractions. */
const LARGEST_SUM = 1e7;

/**
 * Figures that are found at once: the first of them weighs so much more than the rest together that it is settled first.
 *
 * @returns groups of aims, each with the factor of every one of its own
 */
function together(model: RosterModel, aims: readonly Aim[]): { aim: Aim; factor: number }[][] {
  const spanOf = ({ costOf }: Aim) => model.pairs.reduce((sum, pair) => sum + Math.abs(costOf(pair)), 0);
  const groups: { aim: Aim; factor: number }[][] = [];
  for (const aim of aims) {
    const last = groups.at(-1);
    const step = spanOf(aim) + 1;
    const spread = last?.reduce((sum, each) => sum + spanOf(each.aim) * each.factor * step, step) ?? LARGEST_SUM;
    if (!last || spread >= LARGEST_SUM) groups.push([{ aim, factor: 1 }]);
    else {
      for (const each of last) each.factor *= step;
      last.push({ aim, factor: 1 });
    }
  }
  return groups;
}

/**
 * The best roster: fewest empty places by their weight, of those the one that breaks fewest promises, of those the one whose wishes
 * cost least, of those the most even.
 */
export function bestRoster(given: RosterCase, { solve, clock }: RosterHelp, seconds: number): RosterPlan {
  const end = clock() + seconds;
  const left = () => Math.max(0.05, end - clock());
  const model = modelOf(given);
  const proven: Record<Figure, boolean> = { empty: false, broken: false, wishes: false, evenness: false };
  const held: MilpRow[] = [];
  let values: readonly number[] = model.pairs.map((pair) => (model.fixed.has(pair) ? 1 : 0));
  /** @returns the least that the costs can come to, where that is not what was found */
  const settle = (milp: Milp): number | undefined => {
    if (model.pairs.length === 0) return undefined;
    const answer = solve(milp, left());
    if ('values' in answer) values = answer.values;
    return answer.status === 'optimal' ? undefined : 'values' in answer ? answer.bound : Number.NEGATIVE_INFINITY;
  };
  const reachedBy = (costOf: Aim['costOf']) => {
    const terms = model.pairs.flatMap((pair, column) => (costOf(pair) === 0 ? [] : [[column, costOf(pair)] as const]));
    return { terms, sum: terms.reduce((sum, [column, cost]) => sum + cost * Math.round(values[column] ?? 0), 0) };
  };
  for (const group of together(model, aimsOf(given))) {
    const costOf: Aim['costOf'] = (pair) => group.reduce((sum, { aim, factor }) => sum + factor * aim.costOf(pair), 0);
    const isAsked = model.pairs.some((pair) => costOf(pair) !== 0);
    const least = isAsked ? settle(asMilp(model, costOf, { rows: held })) : undefined;
    if (least !== undefined) {
      const [first] = group;
      const figure = first?.aim.figure ?? 'empty';
      // What the others of the group could come to at the most is what is not known of the first.
      const bound = (first?.aim.none ?? 0) + Math.ceil(least / (first?.factor ?? 1) - 1 - 1e-6);
      return planOf(given, model, values, proven, { [figure]: Math.max(0, Number.isFinite(bound) ? bound : 0) });
    }
    for (const { aim } of group) {
      proven[aim.figure] = true;
      const { terms, sum } = reachedBy(aim.costOf);
      if (terms.length > 0) held.push({ most: sum, terms });
    }
  }
  const even = evenly(model);
  const rows = [...held, ...even.rows];
  const least = settle(asMilp(model, () => 0, { columns: even.columns, rows }));
  proven.evenness = least === undefined;
  const bound = least === undefined ? undefined : { evenness: Math.max(0, Math.ceil(least - 1e-6)) };
  return planOf(given, model, values, proven, bound);
}

function planOf(
  given: RosterCase,
  model: RosterModel,
  values: readonly number[],
  proven: RosterPlan['proven'],
  bound: RosterPlan['bound'],
): RosterPlan {
  const places = placesIn(model, values);
  const figures = figuresOf(given, places);
  // What is not proven is no worse than it is.
  const first = FIGURES.find((figure) => !proven[figure]);
  const least = first && bound?.[first] !== undefined ? { [first]: Math.min(bound[first], figures[first]) } : undefined;
  return { ...figures, proven, ...(least ? { bound: least } : {}), places };
}

/** The best roster, with the reason of every empty place and what would fill it. */
export function planRoster(given: RosterCase, help: RosterHelp): RosterAnswer {
  const { clock } = help;
  const seconds = given.seconds ?? USUAL_SECONDS;
  const start = clock();
  const plan = bestRoster(given, help, seconds * (1 - PART_FOR_WHY));
  const end = start + seconds;
  return { ...plan, why: whyEmpty(given, plan, { ...help, end }) };
}

/** Places of a duty that nobody has. */
export const missingAt = ({ id, people = 1 }: Duty, places: readonly Place[]): number =>
  people - places.filter(({ duty }) => duty === id).length;
