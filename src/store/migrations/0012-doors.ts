import type { Migration } from './migration';
import { HASH, ID, NULL_ID, refuse, TABLE_END, to } from './sql';

/** Compared byte by byte, trailing spaces included: what looks alike is not the same. */
const EXACT = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin';
const ALIKE = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci';

/** Every text column that identifies something: what people sign in with, what requests and links name, what is there once. */
const IDENTIFYING: readonly (readonly [table: string, column: string, type: string])[] = [
  ['member', 'email', 'VARCHAR(190)'],
  ['access_link', 'email', 'VARCHAR(190)'],
  ['attempt', '`key`', 'VARCHAR(255)'],
  ['own_food', 'name', 'VARCHAR(80)'],
  ['keeping_limit', 'ingredient', 'VARCHAR(80)'],
  ['device_reading', 'device', 'VARCHAR(20)'],
  ['avoidance_meaning', 'wish', 'VARCHAR(190)'],
  ['product', 'ingredient', 'VARCHAR(80)'],
  ['product', 'name', 'VARCHAR(120)'],
  ['place', 'name', 'VARCHAR(120)'],
  ['product_label', 'ingredient', 'VARCHAR(120)'],
  ['issue', 'supply_id', 'VARCHAR(40)'],
  ['closure_calendar', 'name', 'VARCHAR(120)'],
  ['weighing', 'ingredient', 'VARCHAR(80)'],
];

const HASHES: readonly (readonly [table: string, column: string])[] = [
  ['api_token', 'token_hash'],
  ['kit_sheet', 'fingerprint'],
];

/** Only ever added to, and yet a family's name may stand in them: erasing may take it out. */
const NAMED = ['sheet_note', 'recipe_version'];
const ERASING = '@logistra_erasing IS NOT NULL';

/** Who gets in, by what, and until when. */
export const doors: Migration = {
  name: '0012-doors',
  async up(run) {
    for (const [table, column, type] of IDENTIFYING)
      await run(`ALTER TABLE ${table} MODIFY ${column} ${type} ${EXACT} NOT NULL`);
    for (const [table, column] of HASHES) await run(`ALTER TABLE ${table} MODIFY ${column} ${HASH}`);
    await run(`ALTER TABLE migration MODIFY name VARCHAR(190) ${EXACT} NOT NULL`);
    // Addresses are looked up in small letters. Until now no two could differ in that alone, so none collide.
    await run("UPDATE member SET email = LOWER(email) WHERE status = 'active'");
    await run('UPDATE access_link SET email = LOWER(email)');

    for (const table of ['api_token', 'access_link', 'calendar_feed'])
      await run(`ALTER TABLE ${table} ADD created_by ${NULL_ID}`);
    // Who made what is known from the log; what it does not tell stays without a maker, and is listed so.
    await run(`UPDATE api_token t JOIN change_log c ON c.entity = 'token' AND c.entity_id = t.id AND c.action = 'made a token'
                  SET t.created_by = c.actor_id`);
    await run(`UPDATE calendar_feed f JOIN change_log c ON c.entity = 'calendar address' AND c.entity_id = f.id AND c.action = 'made'
                  SET f.created_by = c.actor_id`);
    await run(`UPDATE access_link l JOIN change_log c ON l.purpose = 'invite' AND c.action = 'invited'
                  AND c.programme_id = l.programme_id AND c.at = l.created_at SET l.created_by = c.actor_id`);
    // What somebody made who was removed, or is no coordinator any more, ends now.
    for (const [table, ended] of [
      ['api_token', 'revoked_at'],
      ['calendar_feed', 'revoked_at'],
      ['access_link', 'used_at'],
    ])
      await run(`UPDATE ${table} t JOIN member m ON m.id = t.created_by SET t.${ended} = CURRENT_TIMESTAMP(3)
                  WHERE t.${ended} IS NULL AND (m.status <> 'active' OR m.role <> 'coordinator')`);
    // Links that stand in stored messages work no longer; the messages keep what they were about.
    await run("UPDATE access_link SET used_at = CURRENT_TIMESTAMP(3) WHERE used_at IS NULL AND email <> ''");
    await run(
      `UPDATE message SET body = REGEXP_REPLACE(body, 'https?://[^[:space:]]+/(invite|reset)/[A-Za-z0-9_-]+', '(a link that has ended)')`,
    );

    await run(
      `ALTER TABLE message ADD link_id ${NULL_ID}, ADD household_id ${NULL_ID}, ADD KEY of_household (household_id)`,
    );
    await run(`UPDATE message m JOIN household h ON h.programme_id = m.programme_id AND h.contact <> '' AND h.contact = m.sent_to
                  SET m.household_id = h.id`);
    for (const table of NAMED) {
      await run(`DROP TRIGGER ${table}_no_update`);
      await run(refuse(table, 'UPDATE', ERASING));
    }
    await run(
      `ALTER TABLE member ADD totp TEXT CHARACTER SET ascii COLLATE ascii_bin NULL, ADD totp_step BIGINT NOT NULL DEFAULT 0`,
    );
    await run('ALTER TABLE programme ADD second_step TINYINT NOT NULL DEFAULT 0');
    await run(
      `ALTER TABLE sign_in ADD seen_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
       ADD proven_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3), ADD awaits_code TINYINT NOT NULL DEFAULT 0,
       ADD KEY open_of (member_id, ended_at)`,
    );
    await run(
      `CREATE TABLE recovery_code (id ${ID} PRIMARY KEY, member_id ${ID}, code_hash ${HASH}, used_at DATETIME(3) NULL,
       UNIQUE KEY once (member_id, code_hash), ${to('member_id', 'member')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE known_device (id ${ID} PRIMARY KEY, member_id ${ID}, token_hash ${HASH} UNIQUE,
       created_at DATETIME(3) NOT NULL, seen_at DATETIME(3) NOT NULL, ${to('member_id', 'member')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE security_event (id ${ID} PRIMARY KEY, programme_id ${NULL_ID}, at DATETIME(3) NOT NULL,
       kind VARCHAR(40) NOT NULL, actor_id ${NULL_ID}, ip VARCHAR(64) NOT NULL, detail VARCHAR(190) NOT NULL,
       KEY by_time (programme_id, at), ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
    await run(refuse('security_event', 'UPDATE'));
    // Which kits are called back is asked at every tick.
    await run('ALTER TABLE pack_event ADD KEY by_action (session_id, action)');
  },
  async down(run) {
    for (const table of ['security_event', 'known_device', 'recovery_code']) await run(`DROP TABLE IF EXISTS ${table}`);
    await run('ALTER TABLE pack_event DROP KEY by_action');
    // The index serves the foreign key as well.
    await run('ALTER TABLE sign_in ADD KEY of_member (member_id)');
    await run(
      'ALTER TABLE sign_in DROP KEY open_of, DROP COLUMN seen_at, DROP COLUMN proven_at, DROP COLUMN awaits_code',
    );
    await run('ALTER TABLE programme DROP COLUMN second_step');
    await run('ALTER TABLE member DROP COLUMN totp, DROP COLUMN totp_step');
    await run('ALTER TABLE message DROP KEY of_household, DROP COLUMN link_id, DROP COLUMN household_id');
    for (const table of NAMED) {
      await run(`DROP TRIGGER IF EXISTS ${table}_no_update`);
      await run(refuse(table, 'UPDATE'));
    }
    for (const table of ['api_token', 'access_link', 'calendar_feed'])
      await run(`ALTER TABLE ${table} DROP COLUMN created_by`);
    for (const [table, column, type] of IDENTIFYING)
      await run(`ALTER TABLE ${table} MODIFY ${column} ${type} ${ALIKE} NOT NULL`);
  },
};
