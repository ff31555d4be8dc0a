import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Context } from '@/services/gate/gate';
import { clearOut } from '@/services/privacy/retention';
import { cancelJob, JOB_KINDS, queueJob, viewJob } from '@/services/work/jobs';
import { takeJob } from '@/store/jobs';
import { find } from '@/store/query';
import { openStore, type Store } from '@/store/store';
import { newProgramme, testStore } from '../../tests/programme';
import { regularJobs } from './regular';
import { type Handler, JobRefused, workOnce } from './work';

let admin: Store;
let store: Store;
let context: Context;
beforeAll(async () => {
  // A database of its own: workers take whatever job waits.
  admin = await testStore();
  const name = `${admin.sequelize.getDatabaseName()}_jobs`;
  store = await testStore(name);
  context = (await newProgramme(store)).coordinator;
});
afterAll(async () => {
  await store.close();
  await admin.close();
});

let time = Date.UTC(2026, 10, 20, 12);
const clock = () => new Date(time);
const pass = (seconds: number) => {
  time += seconds * 1000;
};
const queue = () =>
  queueJob(
    { clock: () => ({ epochMilliseconds: time }) as never, ids: () => v7() },
    store.db,
    context.actor.programmeId,
    'print labels',
    { paper: 'a4' },
  );
const work = (handler: Handler, owner = 'one') => workOnce(store, owner, { 'print labels': handler }, clock, 15);
const state = async (jobId: string) => viewJob(context, { jobId });

describe('a job', () => {
  it('is done once however many workers there are', async () => {
    const ids = [await queue(), await queue(), await queue()];
    const done: string[] = [];
    const other = openStore(`${process.env.TEST_DATABASE_URL}_jobs`);
    const worker = async (owner: string, own: Store) => {
      while (await workOnce(own, owner, { 'print labels': async (job) => done.push(job.id) }, clock, 15));
    };
    await Promise.all([worker('a', store), worker('b', other), worker('c', store)]);
    expect(done.sort()).toEqual(ids.sort());
    expect(await state(ids[0] ?? '')).toMatchObject({ state: 'done', progress: 100, attempts: 1 });
    await other.close();
  });

  it('of a worker that died is taken up by another when its lease has run out, and the dead one changes nothing more', async () => {
    const id = await queue();
    let release = () => {};
    const stuck = work(async (_job, { progress }) => {
      await new Promise<void>((resolve) => {
        release = resolve;
      });
      await progress(50);
      return 'from the dead';
    }, 'dead');
    await expect.poll(async () => (await state(id)).state).toBe('running');
    expect(await work(async () => 'too early', 'two')).toBe(false);
    pass(16);
    expect(await work(async () => 'taken up', 'two')).toBe(true);
    release();
    await stuck;
    expect(await state(id)).toMatchObject({ state: 'done', result: 'taken up', attempts: 2 });
  });

  it('that fails is tried again later, at most five times; one that is refused is not', async () => {
    const id = await queue();
    for (let attempt = 1; attempt <= 5; attempt++) {
      expect(await work(async () => Promise.reject(new Error('no paper')))).toBe(true);
      expect(await work(async () => 'at once')).toBe(false);
      pass(60);
    }
    expect(await state(id)).toMatchObject({ state: 'failed', attempts: 5, result: { why: 'no paper' } });
    const refused = await queue();
    await work(async () => Promise.reject(new JobRefused('Nothing is locked.')));
    expect(await state(refused)).toMatchObject({ state: 'failed', attempts: 1, result: { why: 'Nothing is locked.' } });
  });

  it('that lost the database is not given up for that, and one that kills its workers is', async () => {
    const id = await queue();
    const lost = Object.assign(new Error('gone'), { code: 'PROTOCOL_CONNECTION_LOST' });
    for (let attempt = 1; attempt <= 8; attempt++) {
      await work(async () => Promise.reject(lost));
      pass(90);
    }
    expect(await state(id)).toMatchObject({ state: 'waiting', attempts: 8 });
    // Each of these begins it, and dies: its lease runs out.
    for (let death = 9; death <= 20; death++) {
      await takeJob(store, `dead ${death}`, clock(), 15);
      pass(16);
    }
    await work(async () => 'never');
    expect(await state(id)).toMatchObject({ state: 'failed', result: { why: expect.stringContaining('20 times') } });
  });

  it('keeps its lease however often it is renewed within one second, and is not lost for that', async () => {
    const id = await queue();
    await work(async (_job, { progress }) => {
      // The clock stands still: each renewal writes what stood there before.
      for (let n = 0; n < 20; n++) await progress(50);
      return 'done';
    });
    expect(await state(id)).toMatchObject({ state: 'done', attempts: 1 });
  });

  it('queued, or under way, before the clock was set back does not wait for the old hour', async () => {
    const queued = await queue();
    const begun = await queue();
    pass(-3 * 3600);
    const done: string[] = [];
    while (await work(async (job) => done.push(job.id)));
    expect(done.sort()).toEqual([queued, begun].sort());
    const left = await queue();
    await takeJob(store, 'dead', clock(), 15);
    pass(-3 * 3600);
    expect(await work(async () => 'taken up')).toBe(true);
    expect(await state(left)).toMatchObject({ state: 'done', result: 'taken up' });
    pass(6 * 3600);
  });

  it('is cancelled before it begins, or where it next tells its progress', async () => {
    const waiting = await queue();
    await cancelJob(context, { jobId: waiting });
    expect(await work(async () => 'never')).toBe(false);
    const running = await queue();
    await work(async (job, { progress }) => {
      await progress(10);
      await cancelJob(context, { jobId: job.id });
      await progress(20);
      return 'never';
    });
    expect(await state(waiting)).toMatchObject({ state: 'cancelled' });
    expect(await state(running)).toMatchObject({ state: 'cancelled', progress: 20, result: null });
  });
});

describe('what goes on by itself', () => {
  it('is queued once in its hour by however many workers, each programme at a minute of its own', async () => {
    await store.db.models.job.destroy({ where: {} });
    for (let n = 0; n < 19; n++) await newProgramme(store);
    const programmes = await store.db.models.programme.count();
    const other = openStore(`${process.env.TEST_DATABASE_URL}_jobs`);
    const [one, two] = [regularJobs(store), regularJobs(other)];
    /** Lets both look, from a minute of an hour to its end, every two seconds. */
    const through = async (hour: number, from: number, ...each: ReturnType<typeof regularJobs>[]) => {
      for (let at = from * 60; at < 3600; at += 2)
        await Promise.all(each.map((look) => look(new Date(Date.UTC(2026, 10, 21, hour, 0, at)))));
    };
    await through(9, 0, one, two);
    expect(await store.db.models.job.count()).toBe(4 * programmes);
    // They begin one after another, and no minute has more than its programmes.
    const begun = (await find(store.db, store.db.models.job, {})).map(({ notBefore }) => Number(notBefore));
    const mostOf = (ms: number) => {
      const spans = begun.map((at) => Math.floor(at / ms));
      return Math.max(...spans.map((span) => spans.filter((other) => other === span).length));
    };
    expect(mostOf(1_000)).toBe(1);
    expect(mostOf(60_000)).toBeLessThanOrEqual(4 * 5);
    // One that begins in the middle of an hour looks at all of it so far, and finds it done.
    await through(9, 40, regularJobs(store));
    expect(await store.db.models.job.count()).toBe(4 * programmes);
    // In the next hour they come again, but for what is done once a day; also where none was there for its first half.
    await through(10, 30, one);
    expect(await store.db.models.job.count()).toBe(7 * programmes);
    await other.close();
  });

  it('is not forgotten where the database was away, or the hour ended before it was reached', async () => {
    await store.db.models.job.destroy({ where: {} });
    const look = regularJobs(store);
    const away = vi.spyOn(store.db.models.job, 'bulkCreate').mockRejectedValueOnce(new Error('away'));
    const last = Date.UTC(2026, 10, 22, 11, 59, 50);
    await expect(look(new Date(last))).rejects.toThrow('away');
    away.mockRestore();
    for (let at = 4_000; at < 120_000; at += 4_000) await look(new Date(last + at));
    const queued = await find(store.db, store.db.models.job, { kind: 'ask the crew' });
    expect(new Set(queued.map(({ programmeId }) => programmeId)).size).toBe(await store.db.models.programme.count());
  });

  it('is forgotten after two days when it is done; what people asked for stays for a month', async () => {
    await store.db.models.job.destroy({ where: {} });
    const { programmeId } = context.actor;
    const look = regularJobs(store);
    for (let at = 0; at < 3600; at += 4) await look(new Date(Date.UTC(2026, 10, 21, 9, 0, at)));
    const asked = await queue();
    const handlers = Object.fromEntries(JOB_KINDS.map((kind) => [kind, async () => null]));
    while (await workOnce(store, 'all', handlers, () => new Date(Date.UTC(2026, 10, 21, 10)), 15));
    const left = () => store.db.models.job.count({ where: { programmeId } });
    expect(await left()).toBe(5);
    await clearOut(store, programmeId, Temporal.Instant.from('2026-11-23T09:00:00Z'));
    expect(await left()).toBe(5);
    await clearOut(store, programmeId, Temporal.Instant.from('2026-11-24T09:00:00Z'));
    expect(await left()).toBe(1);
    expect(await state(asked)).toMatchObject({ state: 'done' });
  });
});
