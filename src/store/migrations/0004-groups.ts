import type { Migration } from './migration';
import { ID, NULL_ID, TABLE_END, to } from './sql';

const TABLES: readonly (readonly [name: string, columns: string])[] = [
  [
    'course_group',
    `id ${ID} PRIMARY KEY, course_id ${ID}, name VARCHAR(60) NOT NULL, position INT NOT NULL, days_after INT NOT NULL,
     starts_at CHAR(5) NULL, place VARCHAR(120) NOT NULL, place_id ${NULL_ID}, instructor_id ${NULL_ID},
     ended INT NOT NULL, version INT NOT NULL, ${to('course_id', 'course')}, ${to('place_id', 'place')}`,
  ],
  [
    'sitting',
    `session_id ${ID}, group_id ${ID}, date DATE NOT NULL, starts_at CHAR(5) NOT NULL, place VARCHAR(120) NOT NULL,
     place_id ${NULL_ID}, instructor_id ${NULL_ID}, status VARCHAR(10) NOT NULL, PRIMARY KEY (session_id, group_id),
     KEY by_date (date), ${to('session_id', 'session')}, ${to('group_id', 'course_group')}, ${to('place_id', 'place')}`,
  ],
];

export const groups: Migration = {
  name: '0004-groups',
  async up(run) {
    for (const [name, columns] of TABLES) await run(`CREATE TABLE ${name} (${columns}) ${TABLE_END}`);
    await run(
      `ALTER TABLE enrolment ADD COLUMN group_id ${NULL_ID}, ADD CONSTRAINT in_group ${to('group_id', 'course_group')}`,
    );
  },
  async down(run) {
    await run('ALTER TABLE enrolment DROP FOREIGN KEY in_group');
    await run('ALTER TABLE enrolment DROP COLUMN group_id');
    for (const [name] of [...TABLES].reverse()) await run(`DROP TABLE IF EXISTS ${name}`);
  },
};
