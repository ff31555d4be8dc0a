import { writeCsv } from '../csv';

interface LoggedBatch {
  readonly session: string;
  readonly name: string;
  readonly kind: string;
  readonly begunAt: string;
  readonly endedAt: string | null;
  readonly outcome: string;
  readonly by: string;
  readonly readings: readonly {
    readonly at: string;
    readonly tenths: number;
    readonly source: string;
    readonly by: string;
  }[];
}

/** Temperatures as CSV: a line for each that was taken, in degrees Celsius; times as instants (ISO 8601, UTC). */
export const writeTemperatures = (batches: readonly LoggedBatch[]): string =>
  writeCsv([
    ['session', 'food', 'what', 'begun', 'taken at', 'celsius', 'from', 'taken by', 'over', 'outcome'],
    ...batches.flatMap(({ session, name, kind, begunAt, endedAt, outcome, readings }) =>
      readings.map(({ at, tenths, source, by }) => [
        session,
        name,
        kind,
        begunAt,
        at,
        (tenths / 10).toFixed(1),
        source,
        by,
        endedAt ?? '',
        outcome,
      ]),
    ),
  ]);
