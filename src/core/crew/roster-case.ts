// Who does what, said exactly. Whole numbers throughout: days from 0, minutes of a day, spans that end before they touch.

/** Something that needs people, on a day from a minute to another. */
export interface Duty {
  readonly id: string;
  readonly day: number;
  readonly from: number;
  readonly to: number;
  readonly place?: string;
  /** Places to fill, 1 where left out, each by somebody who holds all skills. */
  readonly people?: number;
  readonly skills?: readonly string[];
  /** What a place left empty weighs, 1 where left out. */
  readonly weight?: number;
}

/** A span in which somebody is free; a duty lies within one of them. */
export type Free = readonly [day: number, from: number, to: number];

export interface Person {
  readonly id: string;
  /** The last day on which each skill holds. */
  readonly skills?: Readonly<Record<string, number>>;
  readonly free?: readonly Free[];
  readonly most_duties?: number;
  readonly most_minutes?: number;
  /** What it costs to give them a duty. */
  readonly wishes?: readonly { readonly duty: string; readonly cost: number }[];
  /** People who are never given the same duty; it holds both ways. */
  readonly apart?: readonly string[];
}

export interface Place {
  readonly duty: string;
  readonly person: string;
}

export interface RosterCase {
  readonly duties?: readonly Duty[];
  readonly people?: readonly Person[];
  /** Minutes between two places, either way; left out: none within one place, 30 between two. */
  readonly travel?: readonly { readonly between: readonly [string, string]; readonly minutes: number }[];
  /** What was promised. */
  readonly now?: readonly Place[];
  /** Places that stand, and that are never given: by hand. */
  readonly fixed?: readonly Place[];
  readonly never?: readonly Place[];
  readonly seconds?: number;
}

export const FIGURES = ['empty', 'broken', 'wishes', 'evenness'] as const;
export type Figure = (typeof FIGURES)[number];

/** Why somebody does not have a duty. `elsewhere`: they hold one of at least its weight that stands in the way; `never`: by hand. */
export type Rule =
  | 'never'
  | 'skill'
  | 'free'
  | 'overlap'
  | 'travel'
  | 'most_duties'
  | 'most_minutes'
  | 'apart'
  | 'elsewhere';

/** One thing that would be otherwise. */
export type Change =
  | { readonly person: string; readonly rule: 'skill'; readonly skill: string; readonly to: number }
  | { readonly person: string; readonly rule: 'free'; readonly to: Free }
  | { readonly person: string; readonly rule: 'most_duties' | 'most_minutes'; readonly to: number }
  | { readonly person: string; readonly rule: 'apart'; readonly with: string };

/** Why places of a duty are empty, and the single changes that would fill one. */
export interface EmptyDuty {
  readonly duty: string;
  readonly missing: number;
  readonly because: readonly { readonly person: string; readonly rule: Rule }[];
  readonly would: readonly Change[];
}

export interface RosterPlan extends Readonly<Record<Figure, number>> {
  readonly proven: Readonly<Record<Figure, boolean>>;
  /** Below what the first figure that is not proven cannot be. */
  readonly bound?: Readonly<Partial<Record<Figure, number>>>;
  readonly places: readonly Place[];
}

export interface RosterAnswer extends RosterPlan {
  readonly why: readonly EmptyDuty[];
}

const USUAL_WAY = 30;

/** Minutes from one place to another. */
export function wayBetween(travel: RosterCase['travel'] = []): (from: string, to: string) => number {
  const key = (one: string, other: string) => [one, other].sort().join('\n');
  const ways = new Map(travel.map(({ between: [one, other], minutes }) => [key(one, other), minutes]));
  return (from, to) => ways.get(key(from, to)) ?? (from === to ? 0 : USUAL_WAY);
}

/** Why nobody can do both: their times overlap, or the way between them is longer than the time; undefined where one can. */
export function clash(one: Duty, other: Duty, way: ReturnType<typeof wayBetween>): 'overlap' | 'travel' | undefined {
  if (one.day !== other.day) return undefined;
  if (one.from < other.to && other.from < one.to) return 'overlap';
  const between = one.to <= other.from ? other.from - one.to : one.from - other.to;
  return between < way(one.place ?? '', other.place ?? '') ? 'travel' : undefined;
}

/** Skills of a duty that somebody does not hold on its day. */
export const lacks = ({ skills = {} }: Person, duty: Duty): string[] =>
  (duty.skills ?? []).filter((skill) => !Object.hasOwn(skills, skill) || (skills[skill] as number) < duty.day);

export const isFree = ({ free = [] }: Person, { day, from, to }: Duty): boolean =>
  free.some(([on, start, end]) => on === day && start <= from && to <= end);

/** Whether somebody could be given a duty, whatever else they have. */
export const suits = (person: Person, duty: Duty): boolean => isFree(person, duty) && lacks(person, duty).length === 0;

export const minutesOf = ({ from, to }: Pick<Duty, 'from' | 'to'>): number => to - from;

/** A place, as a key. */
export const placeKey = ({ duty, person }: Place): string => `${duty}\n${person}`;

/** Whether two are never given the same duty. */
export const areApart = (one: Person, other: Person): boolean =>
  (one.apart ?? []).includes(other.id) || (other.apart ?? []).includes(one.id);
