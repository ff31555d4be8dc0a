/** A day that a calendar shows as taken, and by what. */
export interface MarkedDay {
  /** YYYY-MM-DD */
  readonly date: string;
  readonly say: string;
}
