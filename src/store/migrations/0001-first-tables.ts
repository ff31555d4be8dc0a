import type { Migration } from './migration';
import { ID, NULL_ID, refuse, TABLE_END, to } from './sql';

const TABLES: readonly (readonly [name: string, columns: string])[] = [
  [
    'programme',
    `id ${ID} PRIMARY KEY, name VARCHAR(120) NOT NULL, measure_system VARCHAR(10) NOT NULL,
     safety_profile VARCHAR(10) NOT NULL, time_zone VARCHAR(60) NOT NULL, version INT NOT NULL`,
  ],
  [
    'member',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, email VARCHAR(190) NOT NULL UNIQUE, name VARCHAR(120) NOT NULL,
     role VARCHAR(20) NOT NULL, password_hash VARCHAR(255) NOT NULL, version INT NOT NULL, ${to('programme_id', 'programme')}`,
  ],
  [
    'api_token',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, name VARCHAR(120) NOT NULL, role VARCHAR(20) NOT NULL,
     token_hash CHAR(64) CHARACTER SET ascii NOT NULL UNIQUE, expires_at DATETIME(3) NOT NULL, ${to('programme_id', 'programme')}`,
  ],
  [
    'course',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, title VARCHAR(120) NOT NULL, audience VARCHAR(120) NOT NULL,
     version INT NOT NULL, ${to('programme_id', 'programme')}`,
  ],
  [
    'session',
    `id ${ID} PRIMARY KEY, course_id ${ID}, number INT NOT NULL, title VARCHAR(120) NOT NULL, date DATE NOT NULL,
     starts_at CHAR(5) NOT NULL, minutes INT NOT NULL, place VARCHAR(120) NOT NULL, mode VARCHAR(20) NOT NULL,
     version INT NOT NULL, ${to('course_id', 'course')}, KEY by_date (date)`,
  ],
  [
    'recipe',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, title VARCHAR(120) NOT NULL, body LONGTEXT NOT NULL,
     version INT NOT NULL, ${to('programme_id', 'programme')}`,
  ],
  [
    'dish',
    `id ${ID} PRIMARY KEY, session_id ${ID}, recipe_id ${ID}, position INT NOT NULL,
     UNIQUE KEY once (session_id, recipe_id), ${to('session_id', 'session')}, ${to('recipe_id', 'recipe')}`,
  ],
  [
    'enrolment',
    `id ${ID} PRIMARY KEY, course_id ${ID}, name VARCHAR(120) NOT NULL, age INT NULL, servings INT NOT NULL,
     wishes LONGTEXT NOT NULL, mode VARCHAR(20) NULL, status VARCHAR(20) NOT NULL, version INT NOT NULL,
     ${to('course_id', 'course')}`,
  ],
  [
    'avoidance_meaning',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, wish VARCHAR(190) NOT NULL, codes LONGTEXT NOT NULL,
     UNIQUE KEY one_meaning (programme_id, wish), ${to('programme_id', 'programme')}`,
  ],
  [
    'product_label',
    `id ${ID} PRIMARY KEY, session_id ${ID}, ingredient VARCHAR(120) NOT NULL, product VARCHAR(120) NOT NULL,
     allergens LONGTEXT NOT NULL, UNIQUE KEY one_label (session_id, ingredient), ${to('session_id', 'session')}`,
  ],
  [
    'kit_exclusion',
    `id ${ID} PRIMARY KEY, session_id ${ID}, enrolment_id ${ID}, reason VARCHAR(255) NOT NULL,
     UNIQUE KEY once (session_id, enrolment_id), ${to('session_id', 'session')}, ${to('enrolment_id', 'enrolment')}`,
  ],
  [
    'kit',
    `id ${ID} PRIMARY KEY, session_id ${ID}, enrolment_id ${ID}, number INT NOT NULL,
     UNIQUE KEY one_kit (session_id, enrolment_id), UNIQUE KEY one_number (session_id, number),
     ${to('session_id', 'session')}, ${to('enrolment_id', 'enrolment')}`,
  ],
  [
    'kit_sheet',
    `id ${ID} PRIMARY KEY, session_id ${ID}, revision INT NOT NULL, fingerprint CHAR(64) CHARACTER SET ascii NOT NULL,
     snapshot LONGTEXT NOT NULL, locked_at DATETIME(3) NOT NULL, locked_by ${ID},
     UNIQUE KEY one_revision (session_id, revision), ${to('session_id', 'session')}`,
  ],
  ['bench', `session_id ${ID} PRIMARY KEY, seq INT NOT NULL, ${to('session_id', 'session')}`],
  [
    'pack_event',
    `id ${ID} PRIMARY KEY, session_id ${ID}, kit_id ${ID}, component VARCHAR(255) NOT NULL, action VARCHAR(10) NOT NULL,
     seq INT NOT NULL, at DATETIME(3) NOT NULL, actor_id ${ID}, UNIQUE KEY in_order (session_id, seq),
     ${to('session_id', 'session')}, ${to('kit_id', 'kit')}`,
  ],
  [
    'stage_mark',
    `id ${ID} PRIMARY KEY, session_id ${ID}, stage VARCHAR(20) NOT NULL, done INT NOT NULL, at DATETIME(3) NOT NULL,
     actor_id ${ID}, ${to('session_id', 'session')}`,
  ],
  [
    'change_log',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, at DATETIME(3) NOT NULL, actor_id ${NULL_ID},
     action VARCHAR(60) NOT NULL, entity VARCHAR(40) NOT NULL, entity_id ${ID}, detail LONGTEXT NOT NULL,
     KEY by_entity (entity, entity_id), ${to('programme_id', 'programme')}`,
  ],
];

/** What is only ever added to: the database itself refuses anything else. */
const APPEND_ONLY = ['change_log', 'pack_event', 'stage_mark', 'kit_sheet'];

export const firstTables: Migration = {
  name: '0001-first-tables',
  async up(run) {
    for (const [name, columns] of TABLES) await run(`CREATE TABLE ${name} (${columns}) ${TABLE_END}`);
    for (const name of APPEND_ONLY) {
      for (const change of ['UPDATE', 'DELETE'] as const) await run(refuse(name, change));
    }
  },
  async down(run) {
    for (const [name] of [...TABLES].reverse()) await run(`DROP TABLE IF EXISTS ${name}`);
  },
};
