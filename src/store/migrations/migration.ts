/** One step of the database's structure, forward and back. */
export interface Migration {
  readonly name: string;
  up(run: (sql: string) => Promise<unknown>): Promise<void>;
  down(run: (sql: string) => Promise<unknown>): Promise<void>;
}
