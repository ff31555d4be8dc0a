import type { BuyingHelp } from './cheapest';
import type { FoodNeed } from './needs';
import { type Planned, planBuying } from './plan';
import type { BuyingWorld } from './plan-case';

/** What a way to buy comes to that was tried. */
export type Trial = Pick<Planned, 'cost' | 'waste' | 'trips' | 'shelf' | 'proven'> & {
  /** Needs that cannot be met in time with a label that suits, and foods that nobody has; none where it is enough. */
  readonly lacking: readonly string[];
};

/**
 * Plans the buying of these needs, and of nothing else: what an idea comes to is found by trying it, never by an estimate.
 *
 * @param seconds the longest that one of them may take
 */
export const tryNeeds = (world: BuyingWorld, needs: readonly FoodNeed[], help: BuyingHelp, seconds: number): Trial => {
  const { cost, waste, trips, shelf, proven, short, holes } = planBuying({ ...world, needs }, [], help, seconds);
  return { cost, waste, trips, shelf, proven, lacking: [...short.map(({ needId }) => needId), ...holes] };
};

const isEnough = ({ lacking }: Trial) => lacking.length === 0;

/** Something that would mend what came short. */
export type WayOut =
  | { readonly kind: 'shelf'; readonly trial: Trial }
  | { readonly kind: 'visit'; readonly trial: Trial }
  | { readonly kind: 'fewer in reserve'; readonly trial: Trial }
  | {
      readonly kind: 'another food';
      readonly trial: Trial;
      readonly food: string;
      readonly sessionId: string;
      readonly dishId: string;
    };

/** What to try for a food of which too little came. */
export interface Shortage {
  readonly ingredient: string;
  /** What all sessions still need of it, and of that what the trip was not for: that is bought anyhow. */
  readonly needs: readonly FoodNeed[];
  readonly anyhow: readonly FoodNeed[];
  /** The same without the kits in reserve, where there are any. */
  readonly lean?: readonly FoodNeed[];
  /** The same where a dish takes another food in its place: that food is among them. */
  readonly others: readonly {
    readonly food: string;
    readonly sessionId: string;
    readonly dishId: string;
    readonly needs: readonly FoodNeed[];
    readonly anyhow: readonly FoodNeed[];
  }[];
}

/**
 * Ways out of a short delivery, cheapest first; each was planned to its end, so that amount, day, label and keeping hold. What
 * does not suffice is left out; an empty list says that nothing known does.
 */
export function waysOut(shortage: Shortage, world: BuyingWorld, help: BuyingHelp): WayOut[] {
  const attempt = (needs: readonly FoodNeed[], of: Partial<BuyingWorld> = {}) =>
    tryNeeds({ ...world, ...of }, needs, help, SECONDS);
  /** What it costs beside what is bought anyhow. */
  const beyond = (trial: Trial, anyhow: readonly FoodNeed[]): Trial => ({
    ...trial,
    cost: Math.max(0, trial.cost - attempt(anyhow).cost),
  });
  const { needs, anyhow, lean, others } = shortage;
  // Nothing is bought: later sessions may have theirs bought later.
  const last = needs.reduce((day, need) => (anyhow.includes(need) || need.day < day ? day : need.day), '');
  const there = (all: readonly FoodNeed[]) =>
    attempt(
      all.filter(({ day }) => day <= last),
      { prices: [] },
    );
  const shelf = there(needs);
  const shops = [...new Set(world.visits.map(({ shopId }) => shopId))];
  const ways: WayOut[] = [
    { kind: 'shelf', trial: shelf },
    ...(isEnough(shelf) ? [] : shops).map((shopId): WayOut => {
      const visits = world.visits.filter((visit) => visit.shopId === shopId);
      return { kind: 'visit', trial: beyond(attempt(needs, { visits }), anyhow) };
    }),
    ...(lean ? [{ kind: 'fewer in reserve' as const, trial: there(lean) }] : []),
    ...others.map(
      ({ needs: all, anyhow: same, ...other }): WayOut => ({
        kind: 'another food',
        ...other,
        trial: beyond(attempt(all), same),
      }),
    ),
  ];
  return ways.filter(({ trial }) => isEnough(trial)).sort((a, b) => a.trial.cost - b.trial.cost);
}

/** One food is planned in no time: more than that is a slip. */
const SECONDS = 1;
