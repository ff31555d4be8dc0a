import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import { newMemory, type Memory as ObjectMemory } from '@/core/memory';

/** What the core has worked out here of objects that are still there: it keeps nothing itself. */
export const WORKED_OUT: ObjectMemory = newMemory();

/**
 * A short text for an object that is shared by many, such as the roll of a course: equal texts mean equal content.
 *
 * @param write what counts of it; called once for the very same object
 */
export function markOnce<Shared extends object>(shared: Shared, write: (shared: Shared) => unknown): string {
  const made = WORKED_OUT.of('mark', shared, () => ({
    text: createHash('sha256')
      .update(JSON.stringify(write(shared)))
      .digest('base64'),
  }));
  return made.text;
}

/** A short text for a small object: equal texts mean equal content. */
export const markOf = (content: unknown): string =>
  createHash('sha256').update(JSON.stringify(content)).digest('base64');

/** What this process has worked out before; another server works out the same, and misses nothing. */
export interface Memory<Value extends object> {
  /** What was worked out for a mark of everything it depends on; made now, and remembered, where it is not known. */
  of(mark: string, make: () => Value): Value;
  /** The same where it is known, else undefined. */
  known(mark: string): Value | undefined;
}

/**
 * A memory with a limit: what was asked for longest ago is forgotten first.
 *
 * @param most the weight of all that it keeps: so many values, or what their weights say together
 * @param weightOf the weight of one value, a whole number from 1
 * @example const sheets = memoryOf<Sheet>(50);
 * sheets.of('abc', () => readSheet()) //=> the sheet; a second time the very same object, without reading
 */
export function memoryOf<Value extends object>(
  most: number,
  weightOf: (value: Value) => number = () => 1,
): Memory<Value> {
  const values = new LRUCache<string, Value>({ maxSize: most, sizeCalculation: weightOf });
  return {
    of(mark, make) {
      const known = values.get(mark);
      if (known !== undefined) return known;
      const made = make();
      values.set(mark, made);
      return made;
    },
    known: (mark) => values.get(mark),
  };
}
