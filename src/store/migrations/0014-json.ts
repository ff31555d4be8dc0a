import type { Migration } from './migration';

/** Columns that hold JSON, with what a row has that says nothing. */
const COLUMNS: readonly (readonly [table: string, column: string, rest: string, now?: string])[] = [
  ['course', 'cadence', 'NULL'],
  ['course', 'uses', "NOT NULL DEFAULT '{}'"],
  ['course', 'jobs', "NOT NULL DEFAULT '{}'"],
  ['course', 'kit_rules', "NOT NULL DEFAULT '{}'"],
  ['course', 'mode_places', "NOT NULL DEFAULT '{}'"],
  ['session', 'jobs', "NOT NULL DEFAULT '{}'"],
  ['session', 'extras', "NOT NULL DEFAULT '{}'"],
  ['plan_change', 'sessions', 'NOT NULL'],
  ['place', 'hours', 'NOT NULL'],
  ['place', 'equipment', 'NOT NULL'],
  ['place', 'outdoor', 'NULL'],
  ['programme', 'work_hours', "NOT NULL DEFAULT '{}'"],
  ['programme', 'reserve_costs', "NOT NULL DEFAULT '{}'"],
  ['programme', 'column_words', "NOT NULL DEFAULT '{}'"],
  ['programme', 'containers', "NOT NULL DEFAULT '[]'"],
  ['avoidance_meaning', 'codes', 'NOT NULL'],
  ['recipe', 'body', 'NOT NULL'],
  ['recipe_version', 'body', 'NOT NULL'],
  ['own_food', 'body', 'NOT NULL'],
  ['product', 'allergens', 'NULL'],
  ['dish', 'fillings', "NOT NULL DEFAULT '[]'"],
  ['dish', 'ways', "NOT NULL DEFAULT '[]'"],
  ['product_label', 'allergens', 'NOT NULL'],
  ['issue', 'label', 'NULL'],
  ['household', 'home', "NOT NULL DEFAULT '{}'"],
  ['enrolment', 'wishes', 'NOT NULL', 'needs'],
  ['change_log', 'detail', 'NOT NULL'],
  ['job', 'input', 'NOT NULL'],
  ['job', 'result', 'NULL'],
  ['idempotent_reply', 'body', 'NOT NULL'],
];

/** As all other text is compared: the type JSON would come with a collation of its own. */
const TEXT = 'LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci';

/** What the program keeps as JSON is said to be so: the database refuses what is none, and its driver reads it. */
export const json: Migration = {
  name: '0014-json',
  async up(run) {
    await run("UPDATE job SET result = IF(result = '', 'null', JSON_QUOTE(result)) WHERE NOT JSON_VALID(result)");
    for (const [table, column, rest, now = column] of COLUMNS)
      await run(`ALTER TABLE ${table} CHANGE ${column} ${now} ${TEXT} ${rest} CHECK (JSON_VALID(${now}))`);
    // What families write is a need, and a meaning is given to a word of theirs.
    await run('ALTER TABLE avoidance_meaning RENAME COLUMN wish TO word');
    // A session as it was before a change had its own JSON as text.
    const [[longest]] = (await run('SELECT MAX(JSON_LENGTH(sessions)) AS steps FROM plan_change')) as [
      [{ steps: number | null }],
    ];
    for (let step = 0; step < (longest.steps ?? 0); step++) {
      for (const column of ['jobs', 'extras']) {
        const value = `JSON_EXTRACT(sessions, '$[${step}].before.${column}')`;
        await run(
          `UPDATE plan_change SET sessions = JSON_SET(sessions, '$[${step}].before.${column}', JSON_EXTRACT(JSON_UNQUOTE(${value}), '$'))
            WHERE JSON_TYPE(${value}) = 'STRING'`,
        );
      }
    }
  },
  async down(run) {
    await run("UPDATE job SET result = 'null' WHERE result IS NULL");
    await run('ALTER TABLE avoidance_meaning RENAME COLUMN word TO wish');
    for (const [table, column, rest, now = column] of COLUMNS) {
      const before = table === 'job' ? 'NOT NULL' : rest;
      await run(`ALTER TABLE ${table} CHANGE ${now} ${column} ${TEXT} ${before}`);
    }
  },
};
