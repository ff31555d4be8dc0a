import { readdirSync } from 'node:fs';
import path from 'node:path';
import { SequelizeStorage, Umzug } from 'umzug';
import type { Migration } from './migrations/migration';
import type { Store } from './store';

const FOLDER = path.join(import.meta.dirname, 'migrations');

/** The migration that a file holds. */
async function migrationIn(file: string): Promise<Migration> {
  const held: Record<string, Migration> = await import(path.join(FOLDER, file));
  const [migration] = Object.values(held);
  if (!migration || migration.name !== path.parse(file).name)
    throw new Error(`${file} holds no migration of its name.`);
  return migration;
}

/** The migrations of a database, by their numbers: `up()` brings it up to date, `down({ to: 0 })` takes everything back. */
export function migrationsOf(store: Store) {
  const files = readdirSync(FOLDER).filter((file) => /^\d{4}-.*\.ts$/.test(file));
  return new Umzug({
    migrations: async () => {
      const all = await Promise.all(files.sort().map(migrationIn));
      return all.map(({ name, up, down }) => ({
        name,
        up: () => up((sql) => store.sequelize.query(sql)),
        down: () => down((sql) => store.sequelize.query(sql)),
      }));
    },
    storage: new SequelizeStorage({ sequelize: store.sequelize, tableName: 'migration' }),
    logger: undefined,
  });
}
