import { v7 } from 'uuid';
import { describe, expect, it } from 'vitest';
import { newProgramme, testStore } from '../../tests/programme';
import { migrationsOf } from './migrate';
import { NEWEST } from './migrations/newest';
import { ownedTables } from './models';
import { findOne } from './query';
import { openStore } from './store';

/** What the version before reads and writes, while servers are brought up to date one after the other. */
const OF_VERSION_BEFORE = `'member.password_hash', 'member.totp', 'member.totp_step', 'known_device.member_id', 'recovery_code.member_id'`;

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
    // What a server waits for before it serves.
    expect((await migrations.executed()).at(-1)?.name).toBe(NEWEST);
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
        WHERE table_schema = DATABASE() AND table_name NOT IN ('migration', 'attempt', 'background') AND column_name <> 'held'
          AND CONCAT(table_name, '.', column_name) NOT IN (${OF_VERSION_BEFORE})`,
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
    for (const { name, body } of (guards as { name: string; body: string }[]).filter(({ name }) => /_no_/.test(name))) {
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
    // Every table there is, twice: a busy machine takes its time.
  }, 120_000);

  it('take in what the version before writes, while servers are brought up to date one after the other', async () => {
    const store = await testStore();
    const { actor } = (await newProgramme(store)).coordinator;
    const run = (sql: string, values: Record<string, unknown>) => store.sequelize.query(sql, { replacements: values });
    const id = v7();
    const email = `${id}@example.test`;
    const row = { id, email, programmeId: actor.programmeId, device: v7() };
    await run(
      `INSERT INTO member (id, programme_id, email, name, role, password_hash, status, version)
       VALUES (:id, :programmeId, :email, 'Joined there', 'crew', 'one', 'active', 1)`,
      row,
    );
    const account = () => findOne(store.db, store.db.models.account, { email });
    expect(await account()).toMatchObject({ id, passwordHash: 'one' });
    await run("UPDATE member SET password_hash = 'two', totp = 'sealed', totp_step = 7 WHERE id = :id", row);
    expect(await account()).toMatchObject({ passwordHash: 'two', totp: 'sealed', totpStep: 7 });
    await run(
      `INSERT INTO known_device (id, member_id, token_hash, created_at, seen_at) VALUES (:device, :id, SHA2(:device, 256), NOW(3), NOW(3))`,
      row,
    );
    expect(await findOne(store.db, store.db.models.knownDevice, { id: row.device })).toMatchObject({ accountId: id });
    await run(
      "UPDATE member SET status = 'removed', email = CONCAT('removed-', id), password_hash = '-', totp = NULL WHERE id = :id",
      row,
    );
    expect(await account()).toBeUndefined();
    await store.close();
  });
});
