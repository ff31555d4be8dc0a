import type { Migration } from './migration';
import { ID, NULL_ID, TABLE_END, to } from './sql';

const EXACT = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin';

/** What belongs to who signs in, and belonged to a member of one programme before. */
const OF_ACCOUNT = ['sign_in', 'known_device', 'recovery_code'];

/**
 * Who signs in has an account, with memberships of one or several programmes; a city looks over its programmes.
 *
 * The version before still serves while this is run: it goes on writing a member's password and second step where they stood, and
 * triggers carry them over. What they and `member_id` are for goes with a migration of the version after.
 */
export const accounts: Migration = {
  name: '0027-accounts',
  async up(run) {
    await run(
      `CREATE TABLE account (id ${ID} PRIMARY KEY, email VARCHAR(190) ${EXACT} NOT NULL UNIQUE, password_hash VARCHAR(255) NOT NULL,
       totp TEXT CHARACTER SET ascii COLLATE ascii_bin NULL, totp_step BIGINT NOT NULL DEFAULT 0, version INT NOT NULL DEFAULT 1) ${TABLE_END}`,
    );
    // The first membership gives the account its id: recovery codes are salted with it.
    await run(`INSERT INTO account (id, email, password_hash, totp, totp_step)
                 SELECT id, email, password_hash, totp, totp_step FROM member`);
    await run(
      `ALTER TABLE member ADD account_id ${NULL_ID}, MODIFY password_hash VARCHAR(255) NOT NULL DEFAULT '-',
       ADD UNIQUE KEY once_each (programme_id, email), DROP KEY email,
       ADD CONSTRAINT member_of_account ${to('account_id', 'account')}`,
    );
    await run('UPDATE member SET account_id = id');
    await run(`CREATE TRIGGER member_account BEFORE INSERT ON member FOR EACH ROW
      BEGIN
        IF NEW.account_id IS NULL THEN
          INSERT INTO account (id, email, password_hash) VALUES (NEW.id, NEW.email, NEW.password_hash);
          SET NEW.account_id = NEW.id;
        END IF;
      END`);
    await run(`CREATE TRIGGER member_way_in AFTER UPDATE ON member FOR EACH ROW
      BEGIN
        IF NEW.password_hash <> OLD.password_hash OR NOT NEW.totp <=> OLD.totp OR NEW.totp_step <> OLD.totp_step THEN
          UPDATE account SET email = IF(NEW.status = 'removed', NEW.email, email), password_hash = NEW.password_hash,
                 totp = NEW.totp, totp_step = NEW.totp_step, version = version + 1 WHERE id = NEW.account_id;
        END IF;
      END`);
    for (const table of OF_ACCOUNT) {
      await run(
        `ALTER TABLE ${table} ADD account_id ${NULL_ID}, MODIFY member_id ${NULL_ID},
         ADD CONSTRAINT ${table}_of_account ${to('account_id', 'account')}`,
      );
      await run(`UPDATE ${table} SET account_id = member_id`);
      await run(`CREATE TRIGGER ${table}_account BEFORE INSERT ON ${table} FOR EACH ROW
        SET NEW.account_id = COALESCE(NEW.account_id, (SELECT account_id FROM member WHERE id = NEW.member_id))`);
    }
    await run('ALTER TABLE recovery_code ADD UNIQUE KEY once_of (account_id, code_hash)');
    await run(`ALTER TABLE access_link MODIFY programme_id ${NULL_ID}`);
    await run(`CREATE TABLE city (id ${ID} PRIMARY KEY, name VARCHAR(120) ${EXACT} NOT NULL UNIQUE) ${TABLE_END}`);
    await run(`ALTER TABLE programme ADD city_id ${NULL_ID}, ADD CONSTRAINT of_city ${to('city_id', 'city')}`);
    await run(
      `CREATE TABLE overseer (id ${ID} PRIMARY KEY, account_id ${ID}, city_id ${NULL_ID}, name VARCHAR(120) NOT NULL,
       created_at DATETIME(3) NOT NULL, KEY of_account (account_id), ${to('account_id', 'account')}, ${to('city_id', 'city')}) ${TABLE_END}`,
    );
  },
  async down(run) {
    for (const trigger of ['member_account', 'member_way_in', ...OF_ACCOUNT.map((table) => `${table}_account`)])
      await run(`DROP TRIGGER IF EXISTS ${trigger}`);
    await run('DROP TABLE overseer');
    await run('ALTER TABLE programme DROP FOREIGN KEY of_city, DROP COLUMN city_id');
    await run('DROP TABLE city');
    await run('DELETE FROM access_link WHERE programme_id IS NULL');
    await run(`ALTER TABLE access_link MODIFY programme_id ${ID}`);
    // Whoever looks over a city, and belongs to no programme, has no place in the version before.
    for (const table of OF_ACCOUNT) await run(`DELETE FROM ${table} WHERE member_id IS NULL`);
    for (const table of OF_ACCOUNT)
      await run(
        `ALTER TABLE ${table} DROP FOREIGN KEY ${table}_of_account, DROP KEY IF EXISTS once_of, DROP COLUMN account_id,
         MODIFY member_id ${ID}`,
      );
    // Somebody's second programme becomes one that they cannot sign in to.
    await run("UPDATE member SET email = CONCAT('elsewhere-', id), password_hash = '-' WHERE account_id <> id");
    await run(`UPDATE member m JOIN account a ON a.id = m.id
                  SET m.password_hash = a.password_hash, m.totp = a.totp, m.totp_step = a.totp_step`);
    await run(
      `ALTER TABLE member DROP FOREIGN KEY member_of_account, DROP COLUMN account_id, ADD KEY IF NOT EXISTS of_programme (programme_id), DROP KEY once_each,
       ADD UNIQUE KEY email (email), MODIFY password_hash VARCHAR(255) NOT NULL`,
    );
    await run('DROP TABLE account');
  },
};
