import { type KnownHome, LONGEST_CONTACT } from '@/core/roll/families';
import { nameKey } from '@/core/roll/name-key';
import type { RollEntry } from '@/core/roll/roll-row';
import { find, insert, updateVersion } from '@/store/query';
import type { Db } from '@/store/store';
import type { HouseholdRow } from '@/store/tables/roll';
import { stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf } from '../gate/gate';

/** The families of the programme that rows name, as rows are held against them. */
export async function homesNamed(
  context: Context,
  db: Db,
  names: readonly (string | undefined)[],
): Promise<KnownHome[]> {
  const named = new Set(names.map((name) => nameKey(name ?? '')).filter(Boolean));
  if (named.size === 0) return [];
  const homes = await find(db, db.models.household, { programmeId: context.actor.programmeId, erasedAt: null });
  return homes
    .filter(({ name }) => named.has(nameKey(name)))
    .map(({ name, contact, address }) => ({ name, contact, address }));
}

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
      // One that is made with this very file is not there yet: it is written once, as it ends up.
      if (fresh.includes(household)) Object.assign(household, reachOf(household, entry));
      else await completeHousehold(context, db, household, entry);
    } else {
      const { contact, address } = entry;
      const name = entry.household || entry.name;
      const blank = { id: context.ids(), programmeId, createdAt: nowOf(context), erasedAt: null, version: 1 };
      household = { ...blank, name, contact, address, home: {}, door: {} };
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

/** Keeps the newest contact and address that were written; an empty cell takes nothing away. */
export async function completeHousehold(
  context: Context,
  db: Db,
  household: HouseholdRow,
  { contact, address }: Pick<FamilyCells, 'contact' | 'address'>,
): Promise<void> {
  await setReach(context, db, household, reachOf(household, { contact, address }));
}

/** The newest contact and address that were written. */
const reachOf = (household: Reach, { contact, address }: Reach): Reach => ({
  contact: contact || household.contact,
  address: address || household.address,
});

/** How a family is reached. */
export type Reach = Pick<HouseholdRow, 'contact' | 'address'>;

/**
 * What somebody wrote into a form, as a change of what it showed them: what they left as it was is not theirs, so two
 * siblings edited at once each keep what was changed; what they emptied is cleared.
 *
 * @throws ServiceError kind "stale" when somebody else changed the same in the meantime
 */
export async function editReach(
  context: Context,
  db: Db,
  household: HouseholdRow,
  shown: Reach,
  written: Reach,
): Promise<void> {
  const next = (['contact', 'address'] as const).map((key) => {
    if (written[key] === shown[key] || written[key] === household[key]) return household[key];
    if (household[key] !== shown[key]) throw stale(`How ${household.name} is reached`);
    return written[key];
  });
  await setReach(context, db, household, { contact: next[0] ?? '', address: next[1] ?? '' });
}

/** Kept in the log with what it was: whoever erases the family later finds where it was written to before. */
async function setReach(context: Context, db: Db, household: HouseholdRow, next: Reach): Promise<void> {
  if (next.contact === household.contact && next.address === household.address) return;
  if (!(await updateVersion(db, db.models.household, household.id, household.version, next)))
    throw stale(`How ${household.name} is reached`);
  const { contact, address } = household;
  await logChange(context, db, 'changed how to reach them', 'household', household.id, {
    before: { contact, address },
    after: next,
  });
  Object.assign(household, next, { version: household.version + 1 });
}
