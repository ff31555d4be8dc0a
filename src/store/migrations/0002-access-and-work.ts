import type { Migration } from './migration';
import { HASH, ID, NULL_ID, refuse, TABLE_END, to } from './sql';

const MOMENT = 'DATETIME(3)';

const TABLES: readonly (readonly [name: string, columns: string])[] = [
  [
    'sign_in',
    `id ${ID} PRIMARY KEY, member_id ${ID}, device VARCHAR(200) NOT NULL, created_at ${MOMENT} NOT NULL,
     expires_at ${MOMENT} NOT NULL, ended_at ${MOMENT} NULL, ${to('member_id', 'member')}`,
  ],
  [
    'access_link',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, purpose VARCHAR(10) NOT NULL, email VARCHAR(190) NOT NULL,
     role VARCHAR(20) NULL, member_id ${NULL_ID}, token_hash ${HASH} UNIQUE, created_at ${MOMENT} NOT NULL,
     expires_at ${MOMENT} NOT NULL, used_at ${MOMENT} NULL, ${to('programme_id', 'programme')}, ${to('member_id', 'member')}`,
  ],
  // The shape that rate-limiter-flexible expects.
  ['attempt', '`key` VARCHAR(255) NOT NULL PRIMARY KEY, points INT(9) NOT NULL DEFAULT 0, expire BIGINT UNSIGNED'],
  [
    'household',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, name VARCHAR(120) NOT NULL, contact VARCHAR(190) NOT NULL,
     address VARCHAR(255) NOT NULL, created_at ${MOMENT} NOT NULL, erased_at ${MOMENT} NULL, version INT NOT NULL,
     ${to('programme_id', 'programme')}`,
  ],
  [
    'need_look',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, actor_id ${ID}, actor_name VARCHAR(120) NOT NULL, page VARCHAR(40) NOT NULL,
     entity_id ${ID}, people INT NOT NULL, at ${MOMENT} NOT NULL, KEY by_time (programme_id, at), ${to('programme_id', 'programme')}`,
  ],
  [
    'message',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, sent_to VARCHAR(190) NOT NULL, subject VARCHAR(190) NOT NULL,
     body LONGTEXT NOT NULL, created_at ${MOMENT} NOT NULL, sent_at ${MOMENT} NULL, KEY by_time (programme_id, created_at),
     ${to('programme_id', 'programme')}`,
  ],
  [
    'job',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, kind VARCHAR(40) NOT NULL, input LONGTEXT NOT NULL, state VARCHAR(10) NOT NULL,
     attempts INT NOT NULL, progress INT NOT NULL, result LONGTEXT NOT NULL, owner VARCHAR(80) NULL, lease_until ${MOMENT} NULL,
     cancel_asked INT NOT NULL, created_at ${MOMENT} NOT NULL, created_by ${NULL_ID}, not_before ${MOMENT} NOT NULL,
     finished_at ${MOMENT} NULL, KEY to_do (state, not_before), KEY by_time (programme_id, created_at),
     ${to('programme_id', 'programme')}`,
  ],
  [
    'print_out',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, session_id ${NULL_ID}, title VARCHAR(190) NOT NULL, pages INT NOT NULL,
     pdf LONGBLOB NOT NULL, at ${MOMENT} NOT NULL, KEY by_time (programme_id, at), ${to('programme_id', 'programme')}`,
  ],
  [
    'device_reading',
    `programme_id ${ID}, device VARCHAR(20) NOT NULL, reading VARCHAR(190) NOT NULL, at ${MOMENT} NOT NULL,
     PRIMARY KEY (programme_id, device), ${to('programme_id', 'programme')}`,
  ],
  [
    'idempotent_reply',
    `actor_id ${ID}, idempotency_key VARCHAR(120) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, request ${HASH},
     programme_id ${ID}, body LONGTEXT NOT NULL, created_at ${MOMENT} NOT NULL,
     PRIMARY KEY (actor_id, idempotency_key), KEY by_time (created_at), ${to('programme_id', 'programme')}`,
  ],
];

const COLUMNS: readonly (readonly [table: string, column: string, type: string])[] = [
  ['programme', 'retention_months', 'INT NOT NULL DEFAULT 24'],
  ['member', 'status', "VARCHAR(10) NOT NULL DEFAULT 'active'"],
  ['api_token', 'created_at', `${MOMENT} NOT NULL DEFAULT CURRENT_TIMESTAMP(3)`],
  ['api_token', 'revoked_at', `${MOMENT} NULL`],
  ['enrolment', 'household_id', NULL_ID],
  ['enrolment', 'action_plan', "LONGTEXT NOT NULL DEFAULT ''"],
];

/** Only the erasing of a household may change what is otherwise only added to: it says so for its own transaction. */
const ERASING = '@logistra_erasing IS NOT NULL';
const ERASABLE = ['change_log', 'kit_sheet'];

export const accessAndWork: Migration = {
  name: '0002-access-and-work',
  async up(run) {
    for (const [name, columns] of TABLES) await run(`CREATE TABLE ${name} (${columns}) ${TABLE_END}`);
    for (const [table, column, type] of COLUMNS) await run(`ALTER TABLE ${table} ADD COLUMN ${column} ${type}`);
    // Everyone enrolled before had no household: each becomes one, under the enrolment's own id.
    await run(`INSERT INTO household (id, programme_id, name, contact, address, created_at, version)
               SELECT e.id, c.programme_id, e.name, '', '', CURRENT_TIMESTAMP(3), 1 FROM enrolment e JOIN course c ON c.id = e.course_id`);
    await run('UPDATE enrolment SET household_id = id');
    await run(
      `ALTER TABLE enrolment MODIFY household_id ${ID}, ADD CONSTRAINT of_household ${to('household_id', 'household')}`,
    );
    await run('ALTER TABLE pack_event MODIFY action VARCHAR(20) NOT NULL');
    await run(refuse('need_look', 'UPDATE'));
    for (const table of ERASABLE) {
      await run(`DROP TRIGGER ${table}_no_update`);
      await run(refuse(table, 'UPDATE', ERASING));
    }
  },
  async down(run) {
    for (const table of ERASABLE) {
      await run(`DROP TRIGGER IF EXISTS ${table}_no_update`);
      await run(refuse(table, 'UPDATE'));
    }
    await run('ALTER TABLE enrolment DROP FOREIGN KEY of_household');
    for (const [table, column] of [...COLUMNS].reverse()) await run(`ALTER TABLE ${table} DROP COLUMN ${column}`);
    for (const [name] of [...TABLES].reverse()) await run(`DROP TABLE IF EXISTS ${name}`);
  },
};
