/** Fewer than this and a number may tell of one child: as is usual for statistics of small groups. */
export const SMALL = 5;

/** A count that may be shown, or is hidden: "fewer than 5", or not shown so that no other can be worked out. */
export type Shown = number | 'small' | 'withheld';

/**
 * Parts of a whole of which small ones are hidden, and as many others as it takes that a hidden one cannot be worked out from the
 * total that stands beside them. 0 tells of nobody and is shown; where nothing helps, no part is.
 *
 * @param parts whole numbers from 0
 * @example hideSmall([2, 9, 30]) //=> ['small', 'withheld', 30]
 * hideSmall([0, 9, 30]) //=> [0, 9, 30]
 */
export function hideSmall(parts: readonly number[]): Shown[] {
  const shown: Shown[] = parts.map(hideOne);
  while (isTold(parts, shown)) {
    const next = parts
      .map((part, at) => ({ part, at }))
      .filter(({ part, at }) => part > 0 && typeof shown[at] === 'number')
      .sort((a, b) => a.part - b.part || a.at - b.at)[0];
    if (!next) return parts.map(() => 'withheld');
    shown[next.at] = 'withheld';
  }
  return shown;
}

/** Whether somebody who knows the total, and that a small one is 1 to 4 and one withheld beside it more, can tell a small one. */
function isTold(parts: readonly number[], shown: readonly Shown[]): boolean {
  const small = shown.filter((each) => each === 'small').length;
  if (small === 0) return false;
  const withheld = shown.filter((each) => each === 'withheld').length;
  const missing = parts.reduce((sum, part, at) => sum + (typeof shown[at] === 'number' ? 0 : part), 0);
  const most = Math.min(SMALL - 1, missing - (small - 1) - SMALL * withheld);
  const least = withheld > 0 ? 1 : Math.max(1, missing - (SMALL - 1) * (small - 1));
  return most === least;
}

/** A count of what may tell of a child, alone: hidden where it is small. */
export const hideOne = (count: number): Shown => (count > 0 && count < SMALL ? 'small' : count);

/**
 * "fewer than 5"
 *
 * @example
 * sayShown('small') //=> 'fewer than 5'
 */
export const sayShown = (shown: Shown): string =>
  shown === 'small' ? `fewer than ${SMALL}` : shown === 'withheld' ? 'not shown' : String(shown);
