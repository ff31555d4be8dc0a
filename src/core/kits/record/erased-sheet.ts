import { ERASED } from '../../roll/erased-words';
import type { LockedSheet } from './locked-sheet';

/**
 * A locked sheet with people taken out of it: names and reasons gone, every count, kit and component as it was.
 *
 * @param enrolmentIds whose
 */
export function withoutPeople(sheet: LockedSheet, enrolmentIds: ReadonlySet<string>): LockedSheet {
  const blank = <T extends { readonly name: string }>(entry: T, id: string): T =>
    enrolmentIds.has(id) ? { ...entry, name: ERASED } : entry;
  return {
    ...sheet,
    content: {
      ...sheet.content,
      variants: sheet.content.variants.map((variant) => ({
        ...variant,
        participants: variant.participants.map((person) => blank(person, person.id)),
      })),
    },
    kits: sheet.kits.map((kit) => blank(kit, kit.enrolmentId)),
    leftOut: sheet.leftOut.map((entry) =>
      enrolmentIds.has(entry.enrolmentId) ? { ...blank(entry, entry.enrolmentId), reason: ERASED } : entry,
    ),
  };
}
