/** One row of a linear model: `least ≤ Σ factor × column ≤ most`. */
export interface MilpRow {
  readonly least?: number;
  readonly most?: number;
  readonly terms: readonly (readonly [column: number, factor: number])[];
}

/** A linear model with whole-number columns: its costs are made as small as they can be. Columns are at least 0. */
export interface Milp {
  readonly columns: readonly {
    readonly cost: number;
    /** Without a limit where it is left out. */
    readonly most?: number;
    readonly isWhole?: true;
  }[];
  readonly rows: readonly MilpRow[];
}

/** What a solver found. */
export type MilpAnswer =
  | {
      readonly status: 'optimal' | 'time';
      readonly cost: number;
      /** No solution costs less; the cost itself where it is proven the least. */
      readonly bound: number;
      readonly values: readonly number[];
    }
  /** Nothing holds all rows; or, when the time was up, nothing was found that does. */
  | { readonly status: 'impossible' | 'nothing found' };

/** Solves a model. @param seconds the time it may take */
export type SolveMilp = (model: Milp, seconds: number) => MilpAnswer;
