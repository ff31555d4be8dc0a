import { parseAmount } from '../../quantity/amount';
import { add, multiply, type Rational, rational, subtract, toText, ZERO } from '../../quantity/rational';
import type { Choice } from '../../recipes/recipe/choice';
import type { Recipe } from '../../recipes/recipe/recipe';
import { drawnFrom, type Supply } from './supplied';

/** Issued once and kept by the family, or a jar of food that goes out with the first kit and is drawn down after. */
export const SUPPLY_KINDS = ['issue once', 'jar'] as const;

/** Something that goes home with the kits of a course, not of one session. */
export interface CourseSupply {
  readonly id: string;
  readonly kind: (typeof SUPPLY_KINDS)[number];
  /** The equipment as it is called, or the food in the jar. */
  readonly name: string;
  /** Net grams of a jar, as an exact decimal. */
  readonly grams?: string;
  /** Pieces in a kit, for equipment. */
  readonly count?: number;
  /** Numbers of the first and the last session that need it; the last left out: to the end. */
  readonly from: number;
  readonly until?: number;
}

/** Whoever is this old cuts at class, unless the course says otherwise: with a child-safe knife, shown the claw grip. */
export const USUAL_CUTS_FROM = 8;

/** The label that was recorded for what is in a jar; null where nobody had read one. */
export type JarLabel = readonly string[] | null;

/** What a family keeps of one supply: units it has had, grams it has drawn, and what its jars hold, each by its own label. */
interface Kept {
  readonly units: number;
  readonly drawn: Rational;
  readonly labels: readonly JarLabel[];
}

/** What a family keeps of the supplies of a course, by supply. */
export type Held = ReadonlyMap<string, Kept>;

export const NOTHING_HELD: Held = new Map();

/**
 * What goes with somebody's kit beside its food: equipment that they have not had, and their jars as far as they are drawn
 * down. A late joiner gets what others had with earlier kits, as far as sessions from this one on need it.
 *
 * @param number of the session in its course
 * @param handedOut ids of supplies that earlier sessions have handed out to anybody
 */
export function supplyFromCourse(
  supplies: readonly CourseSupply[],
  number: number,
  held: Held,
  handedOut: ReadonlySet<string>,
): Pick<Supply, 'jars' | 'issues'> {
  const due = supplies.flatMap((supply, at) =>
    supply.from <= number && number <= (supply.until ?? number) ? [{ ...supply, at }] : [],
  );
  const lacks = ({ id }: CourseSupply) => (held.get(id)?.units ?? 0) === 0;
  const catchUp = (supply: CourseSupply) => (lacks(supply) && handedOut.has(supply.id) ? { isCatchUp: true } : {});
  const issues = due
    .filter((supply) => supply.kind === 'issue once' && lacks(supply))
    .map((supply) => {
      const { id, at, name, count = 1 } = supply;
      return { id, at, name, count, ...catchUp(supply) };
    });
  const jars = due
    .filter(({ kind }) => kind === 'jar')
    .map((supply) => {
      const { id, at, name: ingredient, grams = '0' } = supply;
      const own = held.get(id);
      const left =
        own && own.units > 0 ? subtract(multiply(parseAmount(grams), rational(own.units)), own.drawn) : undefined;
      const inHand = left ? { left: toText(left), labels: own?.labels ?? [] } : {};
      return { id, at, ingredient, grams, ...inHand, ...catchUp(supply) };
    });
  return { ...(jars.length > 0 ? { jars } : {}), ...(issues.length > 0 ? { issues } : {}) };
}

/** What one kit hands out and draws, by supply. */
export interface HandedOut {
  readonly supplyId: string;
  readonly units: number;
  /** Exact grams drawn from jars. */
  readonly drawn: Rational;
  /** What is in the jars that go out now, as it is known: when they went out, and today. */
  readonly labels?: readonly JarLabel[];
}

/** What a kit filled this way hands out of the supplies of its course, and draws from their jars. */
export function handedOutWith(
  supply: Supply | undefined,
  dishes: readonly Recipe[],
  choice: Choice,
  servings: number,
): HandedOut[] {
  const jars = (supply?.jars ?? []).map(({ id, ingredient, fresh = 0 }) => ({
    supplyId: id,
    units: fresh,
    drawn: drawnFrom(ingredient, dishes, choice, servings),
  }));
  const issues = (supply?.issues ?? []).map(({ id, count }) => ({ supplyId: id, units: count, drawn: ZERO }));
  return [...jars, ...issues];
}

const sameOnce = (labels: readonly JarLabel[]): JarLabel[] => [
  ...new Map(labels.map((label) => [JSON.stringify(label), label])).values(),
];

/** What a family keeps after another kit. */
export function afterKit(held: Held, handedOut: readonly HandedOut[]): Held {
  if (handedOut.length === 0) return held;
  const next = new Map(held);
  for (const { supplyId, units, drawn, labels = [] } of handedOut) {
    const own = next.get(supplyId) ?? { units: 0, drawn: ZERO, labels: [] };
    next.set(supplyId, {
      units: own.units + units,
      drawn: add(own.drawn, drawn),
      labels: units > 0 ? sameOnce([...own.labels, ...labels]) : own.labels,
    });
  }
  return next;
}
