import { programmeHours, type RestDays } from '@/core/countdown/work-hours';
import { type KeepingLimit, type OwnFood, ownReference } from '@/core/reference/own-reference';
import { type MeasureFact, type Reference, TYPICAL } from '@/core/reference/reference';
import { select } from '@/store/query';
import type { Db } from '@/store/store';
import type { ProgrammeRow } from '@/store/tables/programme';
import type { Context } from '../access/gate';
import { notFound } from '../errors';
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

/** When the programme's shops are open and its crew works. */
export type Hours = ReturnType<typeof programmeHours>;

/**
 * The programme of the one who asks with its reference table, what it says that families' words mean, and its working
 * hours: one query.
 * The crew rests on public holidays and the programme's own closures of whole days.
 */
export async function loadProgramme(
  context: Context,
  db: Db = context.store.db,
): Promise<{ programme: Programme; meanings: Meanings; hours: Hours }> {
  const rows = await select<ProgrammeRow & { kind: Kind | null; a: string; b: string }>(
    db,
    `SELECT p.id, p.name, p.measure_system AS measureSystem, p.safety_profile AS safetyProfile, p.time_zone AS timeZone,
            p.retention_months AS retentionMonths, p.work_hours AS workHours,
            p.reserve_costs AS reserveCosts, p.column_words AS columnWords, p.containers, p.version, x.kind, x.a, x.b
       FROM programme p LEFT JOIN (
         SELECT 'meaning' AS kind, wish AS a, codes AS b FROM avoidance_meaning WHERE programme_id = :programmeId
         UNION ALL SELECT 'rest', CAST(f.from_date AS CHAR), CAST(f.to_date AS CHAR)
           FROM closure f JOIN closure_calendar k ON k.id = f.calendar_id
          WHERE k.programme_id = :programmeId AND k.kind <> 'imported' AND k.place_id IS NULL AND f.from_time IS NULL
         UNION ALL SELECT 'food', name, body FROM own_food WHERE programme_id = :programmeId
         UNION ALL SELECT 'label', ingredient, JSON_ARRAY(name, JSON_COMPACT(allergens))
           FROM product WHERE programme_id = :programmeId AND in_kits = 1 AND allergens IS NOT NULL
         UNION ALL SELECT 'limit', ingredient, CONCAT_WS('|', COALESCE(days_whole, ''), COALESCE(days_opened, ''))
           FROM keeping_limit WHERE programme_id = :programmeId
         UNION ALL SELECT 'weighing', CONCAT_WS('|', ingredient, preparation, measure), CONCAT_WS('|', grams, DATE(at)) FROM (
           SELECT *, ROW_NUMBER() OVER (PARTITION BY ingredient, preparation, measure ORDER BY at DESC, id DESC) AS newest
             FROM weighing WHERE programme_id = :programmeId) AS w WHERE newest = 1) AS x ON TRUE
      WHERE p.id = :programmeId`,
    { programmeId: context.actor.programmeId },
  );
  const [first] = rows;
  if (!first) throw notFound('programme');
  const { kind: _kind, a: _a, b: _b, ...programme } = first;
  const of = (kind: Kind) => rows.filter((row) => row.kind === kind);
  return {
    programme: {
      ...programme,
      reference: referenceOf(of('food'), of('weighing'), of('limit')),
      labels: labelsOf(of('label')),
    },
    meanings: new Map(of('meaning').map(({ a, b }) => [a, JSON.parse(b) as string[]])),
    hours: hoursOf(
      programme.workHours,
      of('rest').map(({ a, b }) => ({ from: a, to: b })),
    ),
  };
}

type Kind = 'meaning' | 'rest' | 'food' | 'weighing' | 'limit' | 'label';

/** Labels made ready before: the same rows give the same object. */
const usual = memoryOf<ReadonlyMap<string, UsualLabel>>(50);

function labelsOf(rows: readonly Told[]): ReadonlyMap<string, UsualLabel> {
  const mark = JSON.stringify(rows.map(({ a, b }) => [a, b]));
  return usual.of(
    mark,
    () =>
      new Map(
        rows.map(({ a, b }) => {
          const [product, allergens] = JSON.parse(b) as [string, readonly string[] | string];
          return [
            a,
            { product, allergens: typeof allergens === 'string' ? JSON.parse(allergens) : allergens },
          ] as const;
        }),
      ),
  );
}

/** Tables made ready before, by what they were made of: the same rows give the same object. */
const tables = memoryOf<Reference>(20);

interface Told {
  readonly a: string;
  readonly b: string;
}

function referenceOf(foods: readonly Told[], weighings: readonly Told[], limits: readonly Told[]): Reference {
  if (foods.length === 0 && weighings.length === 0 && limits.length === 0) return TYPICAL;
  const mark = JSON.stringify([foods, weighings, limits].map((rows) => rows.map(({ a, b }) => [a, b])));
  return tables.of(mark, () => makeReference(foods, weighings, limits));
}

function makeReference(foods: readonly Told[], weighings: readonly Told[], limits: readonly Told[]): Reference {
  const own = foods.map(({ b }) => JSON.parse(b) as OwnFood);
  const weighed = weighings.map(({ a, b }): MeasureFact => {
    const [ingredient = '', preparation = '', measure = ''] = a.split('|');
    const [grams = '', day = ''] = b.split('|');
    return { ingredient, preparation, measure, grams, source: `weighed here, ${day}` };
  });
  const stricter = limits.map(({ a, b }): KeepingLimit => {
    const [whole = '', opened = ''] = b.split('|');
    const days = (text: string) => (text === '' ? null : Number(text));
    return { ingredient: a, daysWhole: days(whole), daysOpened: days(opened) };
  });
  return ownReference(TYPICAL, own, weighed, stricter);
}

/** Hours made ready before, by what they were made of: the same hours are the same object. */
const made = memoryOf<Hours>(50);

function hoursOf(workHours: string, rest: readonly RestDays[]): Hours {
  const mark = workHours + JSON.stringify(rest);
  return made.of(mark, () => programmeHours(JSON.parse(workHours), rest));
}
