import { nameKey, type RollEntry } from '@/core/roll/roll-row';
import { change, find, insert } from '@/store/query';
import type { HouseholdRow } from '@/store/rows';
import type { Db } from '@/store/store';
import { type Context, nowOf } from '../access/gate';

type FamilyCells = Pick<RollEntry, 'name' | 'household' | 'contact' | 'address'>;

/**
 * Finds the household of each entry, or makes it. A household is known by its name within the programme; somebody who
 * names none is one of their own.
 *
 * @returns the household's id for each entry, in order
 */
export async function householdsFor(context: Context, db: Db, entries: readonly FamilyCells[]): Promise<string[]> {
  const { programmeId } = context.actor;
  const named = entries.some((entry) => entry.household !== '');
  const known = named ? await find(db, db.models.household, { programmeId, erasedAt: null }) : [];
  const byName = new Map(known.map((household) => [nameKey(household.name), household]));
  const fresh: HouseholdRow[] = [];
  const ids: string[] = [];
  for (const entry of entries) {
    const key = nameKey(entry.household);
    let household = key ? byName.get(key) : undefined;
    if (household) {
      await completeHousehold(db, household, entry);
    } else {
      const { contact, address } = entry;
      const name = entry.household || entry.name;
      const blank = { id: context.ids(), programmeId, createdAt: nowOf(context), erasedAt: null, version: 1 };
      household = { ...blank, name, contact, address, home: '{}' };
      fresh.push(household);
      if (key) byName.set(key, household);
    }
    ids.push(household.id);
  }
  await insert(db, db.models.household, fresh);
  return ids;
}

/**
 * What a row says of a family, for the household that its child is in already. A child of two homes has one place on the
 * roll: the other home's contact is kept beside the first, and takes nothing away.
 */
export function withBothHomes(
  { name, contact, address }: HouseholdRow,
  entry: FamilyCells,
): Pick<FamilyCells, 'contact' | 'address'> {
  if (entry.household === '' || nameKey(entry.household) === nameKey(name)) return entry;
  const isNew = entry.contact !== '' && !contact.split('; ').includes(entry.contact);
  const both = [contact, ...(isNew ? [entry.contact] : [])].filter(Boolean).join('; ');
  return { contact: both.length <= LONGEST_CONTACT ? both : contact, address };
}

/** Characters of a contact. */
const LONGEST_CONTACT = 190;

/** Keeps the newest contact and address that were written; an empty cell takes nothing away. */
export async function completeHousehold(
  db: Db,
  household: HouseholdRow,
  { contact, address }: Pick<FamilyCells, 'contact' | 'address'>,
): Promise<void> {
  const next = { contact: contact || household.contact, address: address || household.address };
  if (next.contact === household.contact && next.address === household.address) return;
  Object.assign(household, next);
  await change(
    db,
    'UPDATE household SET contact = :contact, address = :address, version = version + 1 WHERE id = :id',
    { id: household.id, ...next },
  );
}
