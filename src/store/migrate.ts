import { SequelizeStorage, Umzug } from 'umzug';
import { firstTables } from './migrations/0001-first-tables';
import { accessAndWork } from './migrations/0002-access-and-work';
import { plan } from './migrations/0003-plan';
import { groups } from './migrations/0004-groups';
import { reference } from './migrations/0005-reference';
import { recipeVersions } from './migrations/0006-recipe-versions';
import { products } from './migrations/0007-products';
import { dishes } from './migrations/0008-dishes';
import { extras } from './migrations/0009-extras';
import { roll } from './migrations/0010-roll';
import { supplies } from './migrations/0011-supplies';
import { doors } from './migrations/0012-doors';
import { whatWasSaid } from './migrations/0013-what-was-said';
import { json } from './migrations/0014-json';
import { manner } from './migrations/0015-manner';
import type { Migration } from './migrations/migration';
import type { Store } from './store';

const MIGRATIONS: readonly Migration[] = [
  firstTables,
  accessAndWork,
  plan,
  groups,
  reference,
  recipeVersions,
  products,
  dishes,
  extras,
  roll,
  supplies,
  doors,
  whatWasSaid,
  json,
  manner,
];

/** The migrations of a database: `up()` brings it up to date, `down({ to: 0 })` takes everything back. */
export function migrationsOf(store: Store) {
  return new Umzug({
    migrations: MIGRATIONS.map(({ name, up, down }) => ({
      name,
      up: () => up((sql) => store.sequelize.query(sql)),
      down: () => down((sql) => store.sequelize.query(sql)),
    })),
    storage: new SequelizeStorage({ sequelize: store.sequelize, tableName: 'migration' }),
    logger: undefined,
  });
}
