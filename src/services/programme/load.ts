import { select } from '@/store/query';
import type { ProgrammeRow } from '@/store/rows';
import type { Db } from '@/store/store';
import type { Context } from '../access/gate';
import { notFound } from '../errors';

/** Avoidance codes by what a family wrote, normalised. */
export type Meanings = ReadonlyMap<string, readonly string[]>;

/** The programme of the one who asks, with what it says that families' words mean: one query. */
export async function loadProgramme(
  context: Context,
  db: Db = context.store.db,
): Promise<{ programme: ProgrammeRow; meanings: Meanings }> {
  const rows = await select<ProgrammeRow & { wish: string | null; codes: string }>(
    db,
    `SELECT p.id, p.name, p.measure_system AS measureSystem, p.safety_profile AS safetyProfile, p.time_zone AS timeZone,
            p.retention_months AS retentionMonths, p.version, a.wish, a.codes
       FROM programme p LEFT JOIN avoidance_meaning a ON a.programme_id = p.id WHERE p.id = :programmeId`,
    { programmeId: context.actor.programmeId },
  );
  const [first] = rows;
  if (!first) throw notFound('programme');
  const { wish: _wish, codes: _codes, ...programme } = first;
  const known = rows.flatMap(({ wish, codes }) => (wish === null ? [] : [[wish, JSON.parse(codes)] as const]));
  return { programme, meanings: new Map<string, readonly string[]>(known) };
}
