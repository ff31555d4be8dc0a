import { limitsFor } from './batch';

/** What becomes of food after a fridge or a freezer failed. */
export const COLD_VERDICTS = ['keep', 'use today', 'look', 'throw away'] as const;
export type ColdVerdict = (typeof COLD_VERDICTS)[number];

export interface ColdFailure {
  readonly storage: 'fridge' | 'freezer';
  /** Hours since it was last known to be cold. */
  readonly hours: number;
  /** What its food reads now, in tenths of a degree Celsius. */
  readonly tenths: number;
}

/** A food of the reference table, as it stood there. */
export interface Stored {
  readonly name: string;
  /** What makes it perishable, as the reference table says it. */
  readonly perishable: string;
  /** Some of it is out of its pack. */
  readonly isOpened: boolean;
}

/** Leaves that are cut when they are sold: perishable from the first (FDA Food Code, cut leafy greens). */
const SOLD_CUT: readonly string[] = ['mixed salad leaves'];

/** Whole fruit and vegetables, sealed packs, and what stood in a fridge without needing it. */
const bearsWarmth = ({ name, perishable, isOpened }: Stored): boolean =>
  (perishable === 'when cut' && !SOLD_CUT.includes(name)) ||
  (perishable === 'when opened' && !isOpened) ||
  ['never', 'when cooked'].includes(perishable);

/**
 * What becomes of a food after its fridge or freezer failed, by the profile’s cold limit: still cold, it is kept; warmer, for longer
 * than the limit allows, it is thrown away (USDA FSIS: two hours; FSA: once, up to four). From a freezer, still as cold as a fridge,
 * it may be frozen again or used at once, not as good as before. Nobody looked in between: all of the time counts.
 *
 * @param food undefined for what was made or packed here, and for what the table does not know
 * @example
 * afterColdFailure('us', { storage: 'fridge', hours: 5, tenths: 150 }, undefined).verdict //=> 'throw away'
 */
export function afterColdFailure(
  profile: 'us' | 'uk',
  { storage, hours, tenths }: ColdFailure,
  food: Stored | undefined,
): { readonly verdict: ColdVerdict; readonly say: string } {
  const { targets, spell = 120 } = limitsFor(profile, 'cold', 'cooked');
  const limit = targets[0]?.tenths ?? 50;
  if (storage === 'freezer' && tenths <= -10) return { verdict: 'keep', say: 'Still frozen: into another freezer.' };
  if (tenths <= limit)
    return storage === 'freezer'
      ? {
          verdict: 'use today',
          say: 'Thawed and still cold: into a fridge, used by tomorrow; frozen again only if it is cooked first.',
        }
      : { verdict: 'keep', say: 'Still cold: into another fridge.' };
  if (storage === 'fridge' && food && bearsWarmth(food))
    return {
      verdict: 'look',
      say: 'Whole or sealed it bears that: look at it, and throw away what is cut, peeled, opened, soft, or leaves washed in a bag.',
    };
  if (hours * 60 <= spell)
    return {
      verdict: 'use today',
      say: `Too warm, for ${spell / 60} hours at most so far: chill it at once, or cook it now.`,
    };
  return {
    verdict: 'throw away',
    say: `Too warm for more than ${spell / 60} hours: it cannot be shown to be safe. Never taste it to find out.`,
  };
}
