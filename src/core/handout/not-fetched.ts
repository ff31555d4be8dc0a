import { isSentCold } from '../kits/figures/keeping';
import { type FactsNow, judgeKit } from '../kits/record/judgement';
import type { LockedSheet } from '../kits/record/locked-sheet';
import type { SheetComponent, SheetContent, SheetKit } from '../kits/record/sheet-content';
import { sayNamed } from '../quantity/plain-words';
import type { Need } from '../safety/avoidances';

/** What becomes of a kit that nobody fetched. */
export const KIT_FATES = ['held', 'delivered', 'given away', 'taken apart'] as const;
export type KitFate = (typeof KIT_FATES)[number];

/**
 * Hours that cold food may be out of the fridge in all: after that it is thrown away. The two hours of the USDA’s rule, for
 * both profiles; one hour above 32 °C (90 °F).
 */
export const COLD_HOURS = 2;

/** A kit that was not fetched, as far as what becomes of it. */
export interface LeftKit {
  readonly components: readonly SheetComponent[];
  readonly cold: readonly SheetComponent[];
}

/** The components of a kit with what of them travels cold. */
export function leftKit(content: SheetContent, letter: string): LeftKit {
  const components = (content.variants.find((variant) => variant.letter === letter)?.components ?? []).filter(
    ({ isInside }) => !isInside,
  );
  return { components, cold: components.filter((component) => isSentCold(component, content.input.reference)) };
}

/** One way out, and whether it is open now. */
export interface FateOffer {
  readonly fate: KitFate;
  readonly isOpen: boolean;
  readonly say: string;
}

/**
 * What may become of a kit now. Nobody knows where the cold part was but who handed out: the clock since hand-out decides
 * only while they do not say that it never left the fridge.
 *
 * @param hours since hand-out began
 * @param takers who could eat it, by name
 * @param cameBack it was out of the house: what is cold in it is not kept for anybody
 */
export function fateOffers(
  { components, cold }: LeftKit,
  hours: number,
  takers: readonly string[],
  cameBack = false,
): FateOffer[] {
  const isCold = cold.length > 0;
  const isSpent = cameBack && isCold;
  const spent = `It came back, and nobody knows how warm it was: ${cold.map(({ name }) => name).join(', ')} is thrown away, not kept or given on.`;
  const isLate = hours > COLD_HOURS;
  const clock = isCold
    ? isLate
      ? `The cold part must have been in the fridge all the time: it is more than ${COLD_HOURS} hours since hand-out began. If not, take the kit apart.`
      : `Put the cold part back into the fridge now; out of it for more than ${COLD_HOURS} hours, it is thrown away.`
    : 'Nothing in it needs the fridge.';
  const sealed = components.filter((component) => component.sealedUnits !== undefined && !cold.includes(component));
  return [
    { fate: 'held', isOpen: !isSpent, say: isSpent ? spent : `Held for them until tomorrow. ${clock}` },
    { fate: 'delivered', isOpen: !isSpent, say: isSpent ? spent : `Brought to their door today. ${clock}` },
    {
      fate: 'given away',
      isOpen: takers.length > 0 && !isSpent,
      say: isSpent
        ? spent
        : takers.length > 0
          ? `To somebody who waits and can eat all of it: ${takers.join(', ')}. ${clock}`
          : 'Nobody who waits can be shown to be able to eat all of it.',
    },
    {
      fate: 'taken apart',
      isOpen: true,
      say: `${sealed.length > 0 ? `Back to stock, unopened: ${sealed.map(({ name, say }) => sayNamed(say, name)).join(', ')}. ` : ''}${
        isCold ? `Never restocked: ${cold.map(({ name }) => name).join(', ')}. ` : ''
      }What was measured out is used today or thrown away: its label is gone.`,
    },
  ];
}

/** Somebody who could take a kit over. */
export interface Taker {
  readonly id: string;
  readonly name: string;
  readonly needs: readonly Need[];
}

/** Who of these can eat everything in a kit, by what was known of it at the lock and by what is known now. */
export const takersOf = <T extends Taker>(
  locked: LockedSheet,
  kit: SheetKit,
  people: readonly T[],
  now: FactsNow,
  packed?: ReadonlySet<string>,
): T[] => people.filter((person) => judgeKit(locked, kit, person, now, packed).length === 0);
