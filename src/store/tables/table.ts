import { type DataType, DataTypes } from 'sequelize';

/** How a row belongs to its programme: by a column of its own, or through what it is part of. */
export type Belonging =
  | 'id'
  | 'programmeId'
  | 'courseId'
  | 'sessionId'
  | 'recipeId'
  | 'calendarId'
  | 'memberId'
  | 'accountId'
  | 'account'
  | 'city'
  | 'fromId';

/**
 * What a column of text may hold of families. `plain`: nothing, or what goes with its row (codes, sizes, names of foods). In
 * `notes` people write freely: only whole names, and what a family is reached by, are sure to be theirs. In a `log` the words
 * are the program's own copies. Whoever is erased is taken out of notes and logs.
 */
type Words = 'plain' | 'notes' | 'log';

/** One column: how the database keeps it, and what a row holds. */
export interface Column<Value> {
  readonly type: DataType;
  readonly isKey?: true;
  readonly words?: Words;
  /** What is left of it when the family is erased; a column without it stays as it is. */
  readonly blank?: unknown;
  /** Only for the type. */
  readonly value?: Value;
}

/** The id of a row. */
export const key = (): Column<string> => ({ type: DataTypes.CHAR(36), isKey: true });
/** A key that is not an id, or is one of several. */
export const keyOf = <Value extends string | number>(column: Column<Value>): Column<Value> => ({
  ...column,
  isKey: true,
});
/** The id of another row. */
export const ref = (): Column<string> => ({ type: DataTypes.CHAR(36) });
export const maybe = <Value>(column: Column<Value>): Column<Value | null> => column as Column<Value | null>;
export const whole = (): Column<number> => ({ type: DataTypes.INTEGER });
export const big = (): Column<number> => ({ type: DataTypes.BIGINT });
/** A civil date, YYYY-MM-DD. */
export const day = (): Column<string> => ({ type: DataTypes.DATEONLY });
export const moment = (): Column<Date> => ({ type: DataTypes.DATE(3) });
export const bytes = (): Column<Buffer> => ({ type: DataTypes.BLOB('long') });

const text =
  (words: Words) =>
  <Value extends string = string>(): Column<Value> => ({ type: DataTypes.STRING(255), words });
export const plain = text('plain');
export const notes = text('notes');
export const log = text('log');

/** A text of any length. */
export const long = <Value>(column: Column<Value>): Column<Value> => ({ ...column, type: DataTypes.TEXT('long') });

/** What a family said of itself: erased, nothing of it stays but `blank`. */
export const said = <Value>(column: Column<Value>, blank: Value): Column<Value> => ({ ...column, blank });

/** A value kept as JSON, checked by the database and read by its driver: a row holds the value itself. */
export const json = <Value>(words: Words = 'plain'): Column<Value> => ({ type: DataTypes.JSON, words });

/** What becomes of the rows of a session that was made by a split, when it is joined again. */
type Joined = 'goes' | 'moves' | { readonly keeps: string };

/** What belongs to a session says what joining it with another does to it. */
type Belongs =
  | { readonly belongs: Exclude<Belonging, 'sessionId'> }
  | {
      readonly belongs: 'sessionId';
      /**
       * Work done on it keeps the session from being joined, in these words; what was said of its day goes with it; the rest
       * moves over.
       */
      readonly joined: Joined;
      /** What becomes of its rows when a session is split, or its course is repeated: the new session gets them too. */
      readonly copied?: readonly ('split' | 'repeat')[];
      /** Its rows come along when a session is loaded. */
      readonly loads?: true;
    };

/** How the rows of a table belong to a programme, a session and people: export, erasing, retention, split and undo go by it. */
export type Ownership = Belongs & {
  /** Rows of one person, or of a household: they are taken out with it. */
  readonly of?: 'person' | 'household';
  /** The column that names the person or household; `enrolmentId` and `householdId` where it is not said. */
  readonly by?: string;
  /** Days that rows are kept from a moment of theirs; others stay until a person removes them. */
  readonly retention?: { readonly days: number; readonly from: string };
};

export type Columns = Readonly<Record<string, Column<unknown>>>;

/** One table, whole: its name in the database, whose its rows are, and its columns. The migrations make it. */
export interface TableOf<All extends Columns, Own extends Ownership = Ownership> {
  readonly name: string;
  readonly ownership: Own;
  readonly columns: All;
}

/** A row of a table, as plain data. */
export type RowOf<Defined> =
  Defined extends TableOf<infer All>
    ? { -readonly [Name in keyof All]: All[Name] extends Column<infer Value> ? Value : never }
    : never;

/** Defines a table. */
export const table = <const Own extends Ownership, All extends Columns>(
  name: string,
  ownership: Own,
  columns: All,
): TableOf<All, Own> => ({ name, ownership, columns });
