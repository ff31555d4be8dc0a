import type { Migration } from './migration';

/** Which country a programme is in, and which money it counts in; who came is read in the index alone. */
export const money: Migration = {
  name: '0024-money',
  async up(run) {
    await run(
      "ALTER TABLE programme ADD country VARCHAR(2) NOT NULL DEFAULT '', ADD currency VARCHAR(3) NOT NULL DEFAULT ''",
    );
    await run('ALTER TABLE attendance ADD KEY by_person (session_id, enrolment_id, at, state, id)');
  },
  async down(run) {
    await run('ALTER TABLE attendance DROP KEY by_person');
    await run('ALTER TABLE programme DROP country, DROP currency');
  },
};
