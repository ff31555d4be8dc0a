import { add, multiply, type Rational, toNumber, ZERO } from '../../quantity/rational';
import { bestOf, type Product, priceOfGram } from '../../recipes/recipe/cost';
import type { VersionPolicy } from '../sheet/fewest-variants';
import type { KitSheet } from '../sheet/sheet';

/** What a way of sharing versions comes to. */
export interface VersionFigures {
  readonly policy: VersionPolicy;
  readonly variants: number;
  /** Kits that cannot be made this way. */
  readonly refused: number;
  /** Minor units of money for all kits, of the foods whose price is known; and how many of all are. */
  readonly cost: number;
  readonly priced: number;
  readonly foods: number;
  /** Minutes at the bench. */
  readonly minutes: number;
}

/**
 * Seconds at the bench: to turn to the next component of a variant (fetch, read, measure once), and to fill one kit with
 * it; and to clean and fetch other tools where a variant is made without something. Ours, coarse: what counts is the
 * difference between two ways.
 */
const SECONDS = { turn: 25, fill: 7, clean: 180 } as const;

/** What a sheet costs and takes, for comparing one way of sharing versions with another. */
export function versionFigures(policy: VersionPolicy, sheet: KitSheet, products: readonly Product[]): VersionFigures {
  let seconds = 0;
  let refused = 0;
  for (const { components, participants, avoids, extra } of sheet.variants) {
    if (!components) {
      refused += participants.length;
      continue;
    }
    if (extra) continue;
    seconds += components.length * (SECONDS.turn + SECONDS.fill * participants.length);
    if (avoids.length > 0) seconds += SECONDS.clean;
  }
  let cost: Rational = ZERO;
  let priced = 0;
  for (const { ingredient, edible, purchase } of sheet.totals) {
    const product = bestOf(products.filter((each) => each.ingredient === ingredient));
    const cheapest = product && priceOfGram(product);
    if (!cheapest) continue;
    priced++;
    cost = add(cost, multiply(purchase ?? edible, cheapest));
  }
  return {
    policy,
    variants: sheet.variants.filter(({ extra }) => !extra).length,
    refused,
    cost: Math.round(toNumber(cost)),
    priced,
    foods: sheet.totals.length,
    minutes: Math.round(seconds / 60),
  };
}

/**
 * Which way is proposed, and why: never one that refuses kits another can make; then the shortest at the bench, unless it
 * costs more than a twentieth more.
 */
export function proposeVersions(ways: readonly VersionFigures[]): { best: VersionFigures; why: string } {
  const fewest = Math.min(...ways.map(({ refused }) => refused));
  const safe = ways.filter(({ refused }) => refused === fewest);
  const cheapest = Math.min(...safe.map(({ cost }) => cost));
  const fair = safe.filter(({ cost }) => cost <= cheapest * 1.05);
  const best = fair.reduce((least, next) =>
    next.minutes < least.minutes || (next.minutes === least.minutes && next.variants < least.variants) ? next : least,
  );
  const others = ways.filter((way) => way !== best);
  const why = [
    `${best.minutes} minutes at the bench`,
    ...others.map(({ policy, minutes, cost, refused }) =>
      refused > fewest
        ? `${policy} would refuse ${refused}`
        : `${policy}: ${minutes} minutes${best.priced > 0 && cost !== best.cost ? `, ${cost > best.cost ? 'dearer' : 'cheaper'} by ${(Math.abs(cost - best.cost) / 100).toFixed(2)}` : ''}`,
    ),
  ].join('; ');
  return { best, why };
}
