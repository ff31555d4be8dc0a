import { nameKey } from './name-key';
import type { RollEntry } from './roll-row';

/** A family that is known, as rows are held against it. */
export interface KnownHome {
  readonly name: string;
  readonly contact: string;
  readonly address: string;
}

/** Characters of a contact. */
export const LONGEST_CONTACT = 190;

/** The families of a roll by their names, with those that the programme knows: two may share a name, and be reached elsewhere. */
export class Families {
  private readonly known = new Map<string, (KnownHome & { readonly where: string })[]>();

  constructor(homes: readonly KnownHome[]) {
    for (const home of homes) this.add(home, 'known already');
  }

  private add(home: KnownHome, where: string): void {
    const key = nameKey(home.name);
    this.known.set(key, [...(this.known.get(key) ?? []), { ...home, where }]);
  }

  /** The entry with the family that it belongs to, or what has to be asked. */
  of(
    entry: RollEntry,
    { line, home: decided }: { readonly line: number; readonly home?: 'same' | 'other' },
  ): { entry: RollEntry; problem?: string; isOther?: true } | undefined {
    const { household: name, contact, address } = entry;
    if (name === '') return undefined;
    const alike = this.known.get(nameKey(name)) ?? [];
    const same = alike.find((home) => isReachedAlike(home, entry));
    if (same) return { entry: { ...entry, household: same.name } };
    const [first] = alike;
    if (!first) {
      this.add({ name, contact, address }, `in line ${line}`);
      return { entry };
    }
    if (decided === 'same') {
      // Both homes of a child: neither contact takes the other away.
      const both = `${first.contact}; ${contact}`;
      this.add({ ...first, contact, address }, `in line ${line}`);
      return {
        entry: { ...entry, household: first.name, contact: both.length <= LONGEST_CONTACT ? both : contact },
        isOther: true,
      };
    }
    if (decided === 'other') {
      const own = { ...entry, household: `${name} (${entry.name})` };
      const apart = { name: own.household, contact, address, where: `in line ${line}` };
      this.known.set(nameKey(name), [...alike, apart]);
      return { entry: own, isOther: true };
    }
    const reached = contact ? `${first.contact}, here ${contact}` : `${first.address}, here ${address}`;
    return {
      entry,
      isOther: true,
      problem: `A family called ${first.name} is ${first.where}, reached at ${reached}. Is it the same family, or another of that name?`,
    };
  }
}

/** Whether two may be one family: something of how they are reached is the same, or one of them does not say it. */
function isReachedAlike(home: KnownHome, { contact, address }: Pick<RollEntry, 'contact' | 'address'>): boolean {
  const [own, theirs] = [contact, home.contact].map((text) =>
    text
      .toLowerCase()
      .split(/[;,\s]+/)
      .filter(Boolean),
  );
  if (own?.some((piece) => theirs?.includes(piece))) return true;
  if (address !== '' && address.trim().toLowerCase() === home.address.trim().toLowerCase()) return true;
  return (own?.length === 0 || theirs?.length === 0) && (address === '' || home.address === '');
}
