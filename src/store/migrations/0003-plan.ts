import type { Migration } from './migration';
import { HASH, ID, NULL_ID, TABLE_END, to } from './sql';

const MOMENT = 'DATETIME(3)';

const TABLES: readonly (readonly [name: string, columns: string])[] = [
  [
    'place',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, name VARCHAR(120) NOT NULL, seats INT NULL, hours LONGTEXT NOT NULL,
     equipment LONGTEXT NOT NULL, minutes_before INT NOT NULL, minutes_after INT NOT NULL, shared INT NOT NULL,
     outdoor LONGTEXT NULL, version INT NOT NULL, UNIQUE KEY one_name (programme_id, name), ${to('programme_id', 'programme')}`,
  ],
  [
    'travel',
    `from_id ${ID}, to_id ${ID}, minutes INT NOT NULL, PRIMARY KEY (from_id, to_id), ${to('from_id', 'place')},
     ${to('to_id', 'place')}`,
  ],
  [
    'closure_calendar',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, name VARCHAR(120) NOT NULL, kind VARCHAR(20) NOT NULL,
     region VARCHAR(40) NOT NULL, place_id ${NULL_ID}, UNIQUE KEY one_name (programme_id, name),
     ${to('programme_id', 'programme')}, ${to('place_id', 'place')}`,
  ],
  [
    'closure',
    `id ${ID} PRIMARY KEY, calendar_id ${ID}, title VARCHAR(190) NOT NULL, from_date DATE NOT NULL, to_date DATE NOT NULL,
     from_time CHAR(5) NULL, to_time CHAR(5) NULL, KEY by_date (calendar_id, from_date), ${to('calendar_id', 'closure_calendar')}`,
  ],
  [
    'session_job',
    `id ${ID} PRIMARY KEY, session_id ${ID}, title VARCHAR(120) NOT NULL, stage VARCHAR(20) NOT NULL, minutes INT NOT NULL,
     hours VARCHAR(10) NOT NULL, before_key VARCHAR(60) NOT NULL, ${to('session_id', 'session')}`,
  ],
  [
    'plan_change',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, at ${MOMENT} NOT NULL, actor_id ${ID}, said VARCHAR(255) NOT NULL,
     sessions LONGTEXT NOT NULL, undone_at ${MOMENT} NULL, KEY by_time (programme_id, at), ${to('programme_id', 'programme')}`,
  ],
  [
    'calendar_feed',
    `id ${ID} PRIMARY KEY, programme_id ${ID}, scope VARCHAR(12) NOT NULL, scope_id ${NULL_ID}, with_jobs INT NOT NULL,
     token_hash ${HASH} UNIQUE, created_at ${MOMENT} NOT NULL, revoked_at ${MOMENT} NULL, ${to('programme_id', 'programme')}`,
  ],
];

const COLUMNS: readonly (readonly [table: string, column: string, type: string])[] = [
  ['programme', 'work_hours', "LONGTEXT NOT NULL DEFAULT '{}'"],
  ['course', 'season_from', 'DATE NULL'],
  ['course', 'season_to', 'DATE NULL'],
  ['course', 'cadence', 'LONGTEXT NULL'],
  ['course', 'on_closure', "VARCHAR(10) NOT NULL DEFAULT 'move'"],
  ['course', 'capacity', 'INT NULL'],
  ['course', 'budget_cents', 'INT NULL'],
  ['course', 'instructor_id', NULL_ID],
  ['course', 'roll_closes_days', 'INT NOT NULL DEFAULT 5'],
  ['course', 'uses', "LONGTEXT NOT NULL DEFAULT '{}'"],
  ['course', 'jobs', "LONGTEXT NOT NULL DEFAULT '{}'"],
  ['course', 'notes', "LONGTEXT NOT NULL DEFAULT ''"],
  ['session', 'place_id', NULL_ID],
  ['session', 'instructor_id', NULL_ID],
  ['session', 'status', "VARCHAR(10) NOT NULL DEFAULT 'planned'"],
  // Counts the changes that a calendar must hear of (RFC 5545, SEQUENCE).
  ['session', 'sequence', 'INT NOT NULL DEFAULT 0'],
  ['session', 'cook_by', 'DATE NULL'],
  ['session', 'because', "VARCHAR(255) NOT NULL DEFAULT ''"],
  ['session', 'jobs', "LONGTEXT NOT NULL DEFAULT '{}'"],
];

export const plan: Migration = {
  name: '0003-plan',
  async up(run) {
    for (const [name, columns] of TABLES) await run(`CREATE TABLE ${name} (${columns}) ${TABLE_END}`);
    for (const [table, column, type] of COLUMNS) await run(`ALTER TABLE ${table} ADD COLUMN ${column} ${type}`);
    await run(
      `ALTER TABLE session ADD CONSTRAINT at_place ${to('place_id', 'place')}, ADD KEY by_place (place_id, date)`,
    );
    // A job that only one session has is marked under its own id.
    await run('ALTER TABLE stage_mark MODIFY stage VARCHAR(60) NOT NULL');
  },
  async down(run) {
    await run('ALTER TABLE session DROP FOREIGN KEY at_place, DROP KEY by_place');
    for (const [table, column] of [...COLUMNS].reverse()) await run(`ALTER TABLE ${table} DROP COLUMN ${column}`);
    for (const [name] of [...TABLES].reverse()) await run(`DROP TABLE IF EXISTS ${name}`);
  },
};
