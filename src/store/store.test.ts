import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newProgramme, testStore } from '../../tests/programme';
import { countAttempt, forgiveAttempt } from './attempts';
import { whileErasing } from './erasing';
import { freshCourse } from './fresh';
import { findOne, insert, updateVersion } from './query';
import { change, execute, select } from './sql';
import { type Db, openStore, type Store } from './store';
import { troubleOf } from './trouble';

let store: Store;
let programmeId: string;
beforeAll(async () => {
  store = await testStore();
  programmeId = (await newProgramme(store)).coordinator.actor.programmeId;
});
afterAll(() => store.close());

async function course(title = 'A') {
  const id = v7();
  await insert(store.db, store.db.models.course, [freshCourse({ id, programmeId, title })]);
  return id;
}
const titleOf = async (id: string) => (await findOne(store.db, store.db.models.course, { id }))?.title;

describe('a transaction', () => {
  it('saves all or nothing', async () => {
    const id = await course();
    await expect(
      store.transaction(async (db) => {
        await change(db, "UPDATE course SET title = 'B' WHERE id = :id", { id });
        throw new Error('the power went');
      }),
    ).rejects.toThrow('the power went');
    expect(await titleOf(id)).toBe('A');
  });

  it('that meets a deadlock is run again, and both come through', async () => {
    const [one, two] = [await course(), await course()];
    let runs = 0;
    const both = (first: string, second: string, title: string) =>
      store.transaction(async (db) => {
        runs++;
        await change(db, 'UPDATE course SET title = :title WHERE id = :id', { title, id: first });
        await new Promise((resolve) => setTimeout(resolve, 80));
        await change(db, 'UPDATE course SET title = :title WHERE id = :id', { title, id: second });
        return title;
      });
    const done = await Promise.all([both(one, two, 'X'), both(two, one, 'Y')]);
    expect(done).toEqual(['X', 'Y']);
    expect(runs).toBeGreaterThan(2);
    expect(await titleOf(one)).toBe(await titleOf(two));
  });

  it('that a deadlock takes back says and saves nothing more, whoever caught the error', async () => {
    const id = await course();
    let runs = 0;
    await store.transaction(async (db) => {
      if (++runs === 1) await deadlock(db).catch(() => undefined);
      await change(db, 'UPDATE course SET title = :title WHERE id = :id', { title: `${runs}`, id });
    });
    expect([runs, await titleOf(id)]).toEqual([2, '2']);
  });

  it('that loses its connection while it erases says so, and the next finds another without the leave', async () => {
    const cut = () =>
      store
        .transaction((db) => whileErasing(db, () => execute(db, 'KILL CONNECTION_ID()', {})))
        .then(
          () => 'saved',
          ({ name }) => name,
        );
    // More often than the pool has connections: none is held by whoever lost it.
    for (let n = 0; n < 14; n++) expect(await cut()).not.toMatch(/saved|AcquireTimeout/);
    expect(await select(store.db, 'SELECT @logistra_erasing AS it', {})).toEqual([{ it: null }]);
  });

  it('that a deadlock takes back while it erases is run again, and leaves nobody the leave to erase', async () => {
    let runs = 0;
    await store.transaction((db) => whileErasing(db, async () => (++runs === 1 ? deadlock(db) : undefined)));
    expect(runs).toBe(2);
    // As many at once as the pool has connections.
    const all = await Promise.all(
      Array.from({ length: 12 }, () => select(store.db, 'SELECT @logistra_erasing AS it, SLEEP(0.05)', {})),
    );
    expect(all.flat()).toEqual(Array(12).fill(expect.objectContaining({ it: null })));
  });
});

/** The database's own answer to whoever loses. */
const deadlock = (db: Db) =>
  execute(db, "SIGNAL SQLSTATE '40001' SET MYSQL_ERRNO = 1213, MESSAGE_TEXT = 'Deadlock'", {});

describe('a version', () => {
  it('lets one of two editors through, and tells the other', async () => {
    const id = await course();
    const { course: table } = store.db.models;
    const both = await Promise.all(['B', 'C'].map((title) => updateVersion(store.db, table, id, 1, { title })));
    expect(both.sort()).toEqual([false, true]);
    expect(await updateVersion(store.db, table, v7(), 1, { title: 'nobody' })).toBe(false);
    expect(await findOne(store.db, table, { id })).toMatchObject({ version: 2 });
  });
});

describe('what the matter is with the database', () => {
  it('is told apart: away, takes nothing in, or something else', async () => {
    const away = openStore('mysql://nobody:x@127.0.0.1:1/none');
    expect(troubleOf(await away.db.models.course.count().catch((error) => error))).toBe('away');
    expect(await away.ping()).toBe(false);
    await away.close();
    const failed = (code: string) => ({ name: 'SequelizeDatabaseError', parent: { code } });
    for (const code of ['ER_RECORD_FILE_FULL', 'ER_DISK_FULL', 'ER_OPTION_PREVENTS_STATEMENT']) {
      expect(troubleOf(failed(code))).toBe('takes nothing in');
    }
    expect(troubleOf(failed('PROTOCOL_CONNECTION_LOST'))).toBe('away');
    const wrong = await store.sequelize.query('SELECT nothing FROM nowhere').catch((error) => error);
    expect(troubleOf(wrong)).toBeUndefined();
    expect(troubleOf(new TypeError('x is undefined'))).toBeUndefined();
    expect(troubleOf(null)).toBeUndefined();
  });
});

describe('attempts', () => {
  const limit = { name: `tries-${v7()}`, points: 3, seconds: 600 };

  it('are counted by key for all servers, and good ones are taken back', async () => {
    const other = openStore(process.env.TEST_DATABASE_URL ?? '');
    const counted = [];
    for (let n = 0; n < 5; n++) counted.push(await countAttempt(n % 2 ? other : store, limit, 'ada'));
    expect(counted.slice(0, 3)).toEqual([0, 0, 0]);
    expect(counted[4]).toBeGreaterThan(500);
    expect(await countAttempt(store, limit, 'bram')).toBe(0);
    for (let n = 0; n < 9; n++) {
      expect(await countAttempt(store, limit, 'cleo')).toBe(0);
      await forgiveAttempt(store, limit, 'cleo');
    }
    await other.close();
  });

  it('at the same moment are each counted', async () => {
    const all = await Promise.all(Array.from({ length: 12 }, () => countAttempt(store, limit, 'dario')));
    expect(all.filter((wait) => wait === 0)).toHaveLength(3);
  });
});
