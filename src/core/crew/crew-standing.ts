import type { CrewStanding } from '../stages/facts';
import type { AdultsNeeded } from './adults';

/**
 * Where somebody stands with a duty. `planned`: in the roster, not asked yet. `asked`: no answer so far. `taken`: asked, and others
 * were quicker. `ruled out`: not this one, by hand.
 */
export const PROMISE_STATES = ['planned', 'asked', 'accepted', 'declined', 'taken', 'ruled out'] as const;
export type PromiseState = (typeof PROMISE_STATES)[number];

/** States in which somebody holds a place, or may come to hold it. */
export const HOLDS: readonly PromiseState[] = ['planned', 'asked', 'accepted'];

/** What somebody was asked for, or has promised. */
export interface Promised {
  readonly duty: string;
  readonly state: PromiseState;
}

/**
 * Counts who holds the places of a session's duties.
 *
 * @param rooms duties of each of its rooms whose adults count, with how many it needs
 */
export function crewStanding(
  duties: readonly { readonly key: string; readonly people: number }[],
  promised: readonly Promised[],
  rooms: readonly { readonly needed: AdultsNeeded | undefined; readonly keys: ReadonlySet<string> }[],
): CrewStanding {
  const placesOf = new Map(duties.map(({ key, people }) => [key, people]));
  const count = (key: string, states: readonly PromiseState[]) =>
    promised.filter(({ duty, state }) => duty === key && states.includes(state)).length;
  const sum = (of: (key: string, people: number) => number) =>
    [...placesOf].reduce((all, [key, people]) => all + of(key, people), 0);
  // Of several who are asked for one place, one can have it.
  const upTo = (states: readonly PromiseState[]) => sum((key, people) => Math.min(people, count(key, states)));
  const accepted = upTo(['accepted']);
  const withAsked = upTo(['accepted', 'asked']);
  const held = upTo(HOLDS);
  const places = sum((_, people) => people);
  const adults = (states: readonly PromiseState[], { keys, needed }: (typeof rooms)[number]) =>
    Math.min(
      needed?.adults ?? 0,
      [...keys].reduce((all, key) => all + Math.min(placesOf.get(key) ?? 0, count(key, states)), 0),
    );
  const inAll = (of: (room: (typeof rooms)[number]) => number) => rooms.reduce((all, room) => all + of(room), 0);
  return {
    places,
    accepted,
    asked: withAsked - accepted,
    planned: held - withAsked,
    empty: places - held,
    adultsNeeded: inAll(({ needed }) => needed?.adults ?? 0),
    adultsSure: inAll((room) => adults(['accepted'], room)),
    adultsPossible: inAll((room) => adults(HOLDS, room)),
  };
}

/** From so many days before a class, whoever has not said yes does not count. */
const SURE_DAYS = 3;

/**
 * Why a class cannot be held as it stands; undefined where it can. Before the last days those count who may still say yes.
 *
 * @param days until the class
 * @example
 * belowAdults({ …, adultsNeeded: 4, adultsSure: 2, adultsPossible: 4 }, 1)
 * //=> 'Below its adults: 2 of 4 have said yes. The class cannot be held like this.'
 */
export function belowAdults(
  { adultsNeeded, adultsSure, adultsPossible }: Pick<CrewStanding, 'adultsNeeded' | 'adultsSure' | 'adultsPossible'>,
  days: number,
): string | undefined {
  if (days <= SURE_DAYS && adultsSure < adultsNeeded)
    return `Below its adults: ${adultsSure} of ${adultsNeeded} have said yes. The class cannot be held like this.`;
  return adultsPossible < adultsNeeded
    ? `Below its adults: ${adultsPossible} of ${adultsNeeded} can come. The class cannot be held like this.`
    : undefined;
}

/** Somebody at a duty, as it stands. */
export interface Holder {
  readonly promiseId: string;
  readonly crewId: string;
  readonly name: string;
  readonly state: PromiseState;
  readonly isPinned: boolean;
  readonly isOffered: boolean;
  readonly note: string;
  /** They were told another time or place. */
  readonly moved: boolean;
  /** Why they may not do it, whatever was promised: a check that ends before. */
  readonly lapsed?: string;
  readonly askedAt: Date | null;
}
