import { type Need, understandNeed } from '@/core/safety/avoidances';
import { avoidedByAge } from '@/core/safety/care';
import type { EnrolmentRow } from '@/store/tables/roll';

/** One person of a roll as the coordinator sees them. */
export interface RollPerson extends Omit<EnrolmentRow, 'needs'> {
  readonly needs: readonly Need[];
  /** The same as the family wrote them, without what their age alone asks for. */
  readonly written: readonly string[];
}

/** A row of the roll with its needs understood, and what its age alone asks for. */
export function rollPerson(row: EnrolmentRow, meanings: ReadonlyMap<string, readonly string[]>): RollPerson {
  const needs = row.needs;
  const old = row.age === 1 ? '1 year old' : `${row.age} years old`;
  const byAge = avoidedByAge(row.age).map((code) => ({ asWritten: old, codes: [code] }));
  return { ...row, written: needs, needs: [...needs.map((need) => understandNeed(need, meanings)), ...byAge] };
}
