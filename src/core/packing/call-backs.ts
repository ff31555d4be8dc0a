import type { LockedSheet } from '../kits/locked-sheet';
import type { SheetContent } from '../kits/sheet-content';

/**
 * Kits that must not be packed on or handed out: what their person must avoid has changed since the sheet was locked, it
 * cannot be made safely any more, or the person has left. A dish or an amount that changed holds nothing: that waits
 * for the next revision.
 *
 * @returns ids of kits of the locked sheet
 */
export function kitsToHold(locked: LockedSheet, now: SheetContent): ReadonlySet<string> {
  const before = new Map(locked.content.variants.map((variant) => [variant.letter, variant]));
  const present = new Map(
    now.variants.flatMap((variant) => variant.participants.map((person) => [person.id, variant] as const)),
  );
  const held = locked.kits.filter((kit) => {
    const variant = present.get(kit.enrolmentId);
    if (!variant?.components) return true;
    return variant.avoids.join(' ') !== (before.get(kit.variant)?.avoids ?? []).join(' ');
  });
  return new Set(held.map((kit) => kit.id));
}
