import { programmeHours } from '@/core/countdown/work-hours';
import type { Held } from '@/core/crew/may-do';
import { ownReference } from '@/core/reference/own-reference';
import { type MeasureFact, type Reference, typicalIn, type YieldFact } from '@/core/reference/reference';
import { type DecidedProgramme, programmeWithDecisions } from '@/store/programme';
import { findOne } from '@/store/query';
import type { Db } from '@/store/store';
import type { CrewMemberRow } from '@/store/tables/crew';
import type { ProgrammeRow } from '@/store/tables/programme';
import { notFound } from '../errors';
import type { Context } from '../gate/gate';
import { memoryOf } from '../memory';

/** Avoidance codes by what a family wrote, normalised. */
export type Meanings = ReadonlyMap<string, readonly string[]>;

/** A programme with the figures its kits are computed from: the typical ones, its own foods, its own weighings. */
export type Programme = ProgrammeRow & {
  readonly reference: Reference;
  /** Recorded labels of the products that the programme usually buys, by food. */
  readonly labels: ReadonlyMap<string, UsualLabel>;
};

/** A product whose label kits take wherever a session says nothing else. */
export interface UsualLabel {
  readonly product: string;
  readonly allergens: readonly string[];
}

/** When the programme's shops are open and its crew works; and what of each of the crew decides what they may do. */
export type Hours = ReturnType<typeof programmeHours> & {
  readonly helpers: ReadonlyMap<string, Held & { readonly name: string }>;
};

/**
 * The programme of the one who asks with its reference table, what it says that families' words mean, and its working
 * hours: one query.
 * The crew rests on public holidays and the programme's own closures of whole days.
 */
export async function loadProgramme(
  context: Context,
  db: Db = context.store.db,
): Promise<{ programme: Programme; meanings: Meanings; hours: Hours }> {
  const found = await programmeWithDecisions(db, context.actor.programmeId);
  if (!found) throw notFound('programme');
  const { programme } = found;
  return {
    programme: { ...programme, reference: referenceOf(found), labels: labelsOf(found) },
    meanings: new Map(found.of('meaning').map(({ word, codes }) => [word, codes])),
    hours: hoursOf(programme.workHours, found),
  };
}

/** Where the programme is, for who asks only which day it is there: one row. */
export async function timeZoneOf(context: Context, db: Db = context.store.db): Promise<string> {
  const programme = await findOne(db, db.models.programme, { id: context.actor.programmeId });
  if (!programme) throw notFound('programme');
  return programme.timeZone;
}

/** Labels made ready before: the same decisions give the same object. */
const usual = memoryOf<ReadonlyMap<string, UsualLabel>>(50);

const labelsOf = (found: DecidedProgramme): ReadonlyMap<string, UsualLabel> =>
  usual.of(
    found.mark('label'),
    () => new Map(found.of('label').map(({ ingredient, product, allergens }) => [ingredient, { product, allergens }])),
  );

/** Tables made ready before, by what they were made of. */
const tables = memoryOf<Reference>(20);

function referenceOf(found: DecidedProgramme): Reference {
  const typical = typicalIn(found.programme.safetyProfile);
  const mark = found.mark('food', 'weighing', 'limit', 'yield', 'foodWord');
  return mark === ''
    ? typical
    : tables.of(`${found.programme.safetyProfile}${mark}`, () => makeReference(found, typical));
}

function makeReference(found: DecidedProgramme, typical: Reference): Reference {
  const own = found.of('food').map(({ body }) => body);
  const weighed = found
    .of('weighing')
    .map(({ day, ...measure }): MeasureFact => ({ ...measure, source: `weighed here, ${day}` }));
  const trimmed = found.of('yield').map(
    ({ ingredient, preparation, ediblePortion, day }): YieldFact => ({
      ingredient,
      preparation,
      ediblePortion,
      source: `weighed here, ${day}`,
    }),
  );
  const words = Object.fromEntries(found.of('foodWord').map(({ word, ingredient }) => [word, ingredient]));
  return ownReference(typical, own, weighed, found.of('limit'), trimmed, words);
}

/** Hours made ready before, by what they were made of: the same hours are the same object. */
const made = memoryOf<Hours>(50);

function hoursOf(workHours: ProgrammeRow['workHours'], found: DecidedProgramme): Hours {
  const mark = `${JSON.stringify(workHours)}${found.mark('rest', 'crew')}`;
  return made.of(mark, () => ({
    ...programmeHours(workHours, found.of('rest')),
    helpers: new Map(
      found
        .of('crew')
        .flat()
        .map((row) => [row.id, { name: row.name, ...heldBy(row) }]),
    ),
  }));
}

/** What of somebody of the crew decides whether they may do a duty. */
export const heldBy = ({
  isAdult,
  skills,
  sickUntil,
}: Pick<CrewMemberRow, 'isAdult' | 'skills' | 'sickUntil'>): Held => ({
  isAdult: isAdult === 1,
  skills: Object.fromEntries(Object.entries(skills).map(([skill, { until }]) => [skill, until])),
  sickUntil,
});
