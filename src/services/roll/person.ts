import { understandWish, type Wish } from '@/core/safety/avoidances';
import { avoidedByAge } from '@/core/safety/care';
import type { EnrolmentRow } from '@/store/rows';

/** One person of a roll as the coordinator sees them. */
export interface RollPerson extends Omit<EnrolmentRow, 'wishes'> {
  readonly wishes: readonly Wish[];
}

/** A row of the roll with its wishes understood, and what its age alone asks for. */
export function rollPerson(row: EnrolmentRow, meanings: ReadonlyMap<string, readonly string[]>): RollPerson {
  const wishes = JSON.parse(row.wishes) as string[];
  const byAge = avoidedByAge(row.age).map((code) => ({ asWritten: `${row.age} years old`, codes: [code] }));
  return { ...row, wishes: [...wishes.map((wish) => understandWish(wish, meanings)), ...byAge] };
}
