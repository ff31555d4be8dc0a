import type { Model, ModelStatic, Sequelize } from 'sequelize';
import { TABLES } from './tables/all';
import type { Column, Columns, Ownership, RowOf, TableOf } from './tables/table';

export type TableKey = keyof typeof TABLES;

const DEFINED = Object.entries<TableOf<Columns>>(TABLES) as (readonly [TableKey, TableOf<Columns>])[];

export type Table<Row extends object> = ModelStatic<Model<Row, Row>>;

/** The tables, each a Sequelize model over plain rows. */
export type Models = { readonly [Key in TableKey]: Table<RowOf<(typeof TABLES)[Key]>> };

/** Tables whose rows come along when a session is loaded. */
export type LoadedKey = {
  [Key in TableKey]: (typeof TABLES)[Key]['ownership'] extends { readonly loads: true } ? Key : never;
}[TableKey];

export type LoadedRow<Key extends LoadedKey> = RowOf<(typeof TABLES)[Key]>;

/** Defines every model; the tables themselves are made by the migrations. */
export function defineModels(sequelize: Sequelize): Models {
  return Object.fromEntries(
    DEFINED.map(([key, { name, columns }]) => [
      key,
      sequelize.define(
        name,
        Object.fromEntries(
          Object.entries(columns).map(([column, { type, isKey }]) => [column, { type, primaryKey: isKey === true }]),
        ),
      ),
    ]),
  ) as unknown as Models;
}

/** A table with whose its rows are, and the columns in which somebody may have written about a family. */
export interface OwnedTable {
  readonly key: TableKey;
  readonly table: Table<Record<string, unknown>>;
  readonly ownership: Ownership;
  /** Its columns, each with its name in the database. */
  readonly columns: Readonly<Record<string, Column<unknown> & { readonly field: string }>>;
  readonly log: readonly string[];
  readonly notes: readonly string[];
}

/** Every table, for what goes through all of them: export, erasing, retention, split and undo. */
export const ownedTables = (models: Models): OwnedTable[] =>
  DEFINED.map(([key, { ownership, columns }]) => {
    const table = models[key] as unknown as Table<Record<string, unknown>>;
    const fieldOf = (name: string) => table.getAttributes()[name]?.field ?? name;
    const withWords = (words: string) => Object.keys(columns).filter((name) => columns[name]?.words === words);
    return {
      key,
      table,
      ownership,
      columns: Object.fromEntries(
        Object.entries(columns).map(([name, column]) => [name, { ...column, field: fieldOf(name) }]),
      ),
      log: withWords('log'),
      notes: withWords('notes'),
    };
  });

/** Days that the rows of a table are retention; 0 where they stay until a person removes them. */
export const daysKept = (key: TableKey): number => {
  const { retention }: Ownership = TABLES[key].ownership;
  return retention?.days ?? 0;
};
