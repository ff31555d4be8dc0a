/**
 * What was worked out of objects before, as long as those objects are there. It is made and passed in by whoever computes again
 * and again; without one everything is worked out anew, and comes to the same.
 */
export interface Memory {
  /** What `make` gives for an object: made once, then the very same. @param about tells apart what is known of one object */
  of<Known extends object>(about: string, object: object, make: () => Known): Known;
}

/** Remembers nothing. */
export const FORGETFUL: Memory = { of: (_about, _object, make) => make() };

/**
 * A memory that lets go of an object's results when the object itself is let go.
 *
 * @example
 * const memory = newMemory();
 * memory.of('letters', roll, () => lettersOf(roll)) //=> the letters; a second time the very same, without counting
 */
export function newMemory(): Memory {
  const known = new Map<string, WeakMap<object, object>>();
  return {
    of<Known extends object>(about: string, object: object, make: () => Known): Known {
      let own = known.get(about);
      if (!own) {
        own = new WeakMap();
        known.set(about, own);
      }
      const before = own.get(object);
      if (before) return before as Known;
      const made = make();
      own.set(object, made);
      return made;
    },
  };
}
