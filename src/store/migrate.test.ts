import { describe, expect, it } from 'vitest';
import { migrationsOf } from './migrate';
import { ownedTables } from './models';
import { openStore } from './store';

describe('the tables', () => {
  it('are made, taken back, and made again', async () => {
    const admin = openStore(process.env.TEST_DATABASE_URL ?? '');
    const name = `${admin.sequelize.getDatabaseName()}_migrations`;
    const url = (process.env.TEST_DATABASE_URL ?? '').replace(/\/[^/]+$/, `/${name}`);
    const store = openStore(url);
    const tables = async () =>
      (await store.sequelize.getQueryInterface().showAllTables()).filter((table) => String(table) !== 'migration');
    const migrations = migrationsOf(store);
    await migrations.up();
    const made = await tables();
    expect(made.length).toBeGreaterThanOrEqual(17);
    const [rows] = await store.sequelize.query(
      `SELECT table_name AS name, engine, table_collation AS collation,
              (SELECT COUNT(*) FROM information_schema.table_constraints c
                WHERE c.table_schema = t.table_schema AND c.table_name = t.table_name AND c.constraint_type = 'PRIMARY KEY') AS primary_keys
         FROM information_schema.tables t WHERE table_schema = DATABASE() AND table_name <> 'migration'`,
    );
    for (const row of rows as { name: string; engine: string; collation: string; primary_keys: number }[]) {
      expect(row).toMatchObject({ engine: 'InnoDB', collation: 'utf8mb4_unicode_ci', primary_keys: 1 });
    }
    const [columns] = await store.sequelize.query(
      `SELECT CONCAT(table_name, '.', column_name) AS name FROM information_schema.columns
        WHERE table_schema = DATABASE() AND table_name NOT IN ('migration', 'attempt')`,
    );
    const defined = ownedTables(store.db.models).flatMap(({ table }) =>
      Object.values(table.getAttributes() as Record<string, { field: string }>).map(
        ({ field }) => `${table.getTableName()}.${field}`,
      ),
    );
    const [guards] = await store.sequelize.query(
      `SELECT trigger_name AS name, action_statement AS body FROM information_schema.triggers WHERE trigger_schema = DATABASE()`,
    );
    expect(guards.length).toBeGreaterThan(40);
    for (const { name, body } of guards as { name: string; body: string }[]) {
      // With nothing set, as it always is but while somebody is erased: each guard holds.
      const [[{ holds } = { holds: 0 }]] = (await store.sequelize.query(
        `SELECT ${/IF (NOT .*) THEN/.exec(body)?.[1]} AS holds`,
      )) as unknown as [[{ holds: number }]];
      expect([name, holds]).toEqual([name, 1]);
    }
    // What a definition forgets is exported, erased and read by nobody.
    expect((columns as { name: string }[]).map(({ name }) => name).sort()).toEqual(defined.sort());
    await migrations.down({ to: 0 });
    expect(await tables()).toEqual([]);
    await migrations.up();
    expect((await tables()).sort()).toEqual(made.sort());
    await migrations.down({ to: 0 });
    await store.close();
    await admin.close();
  });
});
