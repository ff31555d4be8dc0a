import type { Migration } from './migration';
import { refuse } from './sql';

/** What is only added to, and goes with a sample that is taken away whole. */
const WITH_A_SAMPLE = ['pack_event', 'stage_mark', 'kit_sheet', 'attendance', 'sheet_note', 'kit_fate', 'stock_move'];
const ERASING = '@logistra_erasing IS NOT NULL';

/** Logs whose triggers asked for what nobody had set, and so refused nothing: they are made anew. */
const MADE_ANEW = [
  'hand_out',
  'temperature',
  'prep_event',
  'weighing_in',
  'bench_lot',
  'class_event',
  'incident',
  'tasting',
  'coming_note',
  'close_note',
  'lesson_word',
];

/** Which country a programme is in, which money it counts in, and how far its first run has come; who came is read in the index alone. */
export const money: Migration = {
  name: '0024-money',
  async up(run) {
    await run(
      `ALTER TABLE programme ADD country VARCHAR(2) NOT NULL DEFAULT '', ADD currency VARCHAR(3) NOT NULL DEFAULT '',
       ADD first_run LONGTEXT NOT NULL DEFAULT '{}' CHECK (JSON_VALID(first_run))`,
    );
    await run('ALTER TABLE attendance ADD KEY by_person (session_id, enrolment_id, at, state, id)');
    for (const table of MADE_ANEW)
      for (const change of ['UPDATE', 'DELETE'] as const) {
        await run(`DROP TRIGGER ${table}_no_${change.toLowerCase()}`);
        await run(refuse(table, change, ERASING));
      }
    for (const table of WITH_A_SAMPLE) {
      await run(`DROP TRIGGER ${table}_no_delete`);
      await run(refuse(table, 'DELETE', ERASING));
    }
  },
  async down(run) {
    for (const table of WITH_A_SAMPLE) {
      await run(`DROP TRIGGER IF EXISTS ${table}_no_delete`);
      await run(refuse(table, 'DELETE'));
    }
    await run('ALTER TABLE attendance DROP KEY by_person');
    await run('ALTER TABLE programme DROP country, DROP currency, DROP first_run');
  },
};
