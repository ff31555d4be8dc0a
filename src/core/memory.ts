/** What is known of objects in one respect. */
export interface Known<Of extends object, Result extends object> {
  /** What `make` gives for an object: made once, then the very same. */
  of(object: Of, make: (object: Of) => Result): Result;
}

/**
 * What was worked out of objects before, as long as those objects are there. It is made and passed in by whoever computes again
 * and again; without one everything is worked out anew, and comes to the same.
 */
export interface Memory {
  /** What is known in one respect: for those who ask of many objects. */
  about<Of extends object, Result extends object>(what: string): Known<Of, Result>;
  /** What is known of one object in one respect. */
  of<Result extends object>(what: string, object: object, make: () => Result): Result;
}

/** Remembers nothing. */
export const FORGETFUL: Memory = {
  about: () => ({ of: (object, make) => make(object) }),
  of: (_what, _object, make) => make(),
};

/**
 * A memory that lets go of an object's results when the object itself is let go.
 *
 * @example
 * const memory = newMemory();
 * memory.of('letters', roll, () => lettersOf(roll)) //=> the letters; a second time the very same, without counting
 */
export function newMemory(): Memory {
  const known = new Map<string, WeakMap<object, object>>();
  const about = <Of extends object, Result extends object>(what: string): Known<Of, Result> => {
    const own = known.get(what) ?? new WeakMap<object, object>();
    known.set(what, own);
    return {
      of(object, make) {
        const before = own.get(object);
        if (before) return before as Result;
        const made = make(object);
        own.set(object, made);
        return made;
      },
    };
  };
  return {
    about,
    of: <Result extends object>(what: string, object: object, make: () => Result) =>
      about<object, Result>(what).of(object, make),
  };
}
