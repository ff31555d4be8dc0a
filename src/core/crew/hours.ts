/** Somebody's time at a session; minutes of the day. */
export interface Stay {
  readonly came: number;
  /** null while they are there. */
  readonly went: number | null;
}

/** Minutes of a stay; one that nobody ended has none yet. */
export const minutesOfStay = ({ came, went }: Stay): number => (went === null ? 0 : went - came);

/**
 * Hours as a statement says them, to the quarter of an hour below.
 *
 * @example
 * quarterHours(100) //=> '1.5'
 */
export const quarterHours = (minutes: number): string => {
  const quarters = Math.floor(minutes / 15);
  const text = (quarters / 4).toFixed(2).replace(/0$/, '');
  return text.endsWith('.0') ? text.slice(0, -2) : text;
};
