/** Longer than anything a page of ours puts into its address. */
const LONGEST = 200;

/**
 * What an address asks for, each thing once: of a parameter given twice the first counts, and what is longer than any of
 * ours is cut.
 *
 * @param lists what may be given several times
 */
export async function readQuery<Query extends object>(
  asked: Promise<Query>,
  lists: readonly (keyof Query)[] = [],
): Promise<Query> {
  const entries = Object.entries(await asked).flatMap(([name, value]: [string, unknown]): [string, unknown][] => {
    if (Array.isArray(value) && lists.includes(name as keyof Query)) return [[name, value.slice(0, 20)]];
    const first = Array.isArray(value) ? value[0] : value;
    return typeof first === 'string' ? [[name, first.slice(0, LONGEST)]] : [];
  });
  return Object.fromEntries(entries) as Query;
}
