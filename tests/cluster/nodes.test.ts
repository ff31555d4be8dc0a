// Three nodes that each hold everything, and servers that each write to another of them: what must hold on one database holds here.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { workOnce } from '@/jobs/work';
import { removeMember } from '@/services/access/members';
import { findActor } from '@/services/access/sign-in';
import { addLot, moveLot } from '@/services/buying/stock';
import type { Context } from '@/services/gate/gate';
import { lockKitSheet } from '@/services/kits/kit-sheet';
import { recordTicks, viewBench } from '@/services/packing/bench';
import { watchBench } from '@/services/packing/live';
import { addCourse } from '@/services/plan/courses';
import { addPerson } from '@/services/roll/roll';
import { onceOnly } from '@/services/work/idempotency';
import { queueJob } from '@/services/work/jobs';
import { addMember } from '@/store/accounts';
import { countAttempt } from '@/store/attempts';
import { migrationsOf } from '@/store/migrate';
import { find, insert } from '@/store/query';
import { isDuplicate, openStore, type Store } from '@/store/store';
import { type RunningGalera, startGalera } from '../../scripts/galera.mjs';
import { cells, newProgramme, newSession, select } from '../programme';

let folder: string;
let galera: RunningGalera;
let stores: Store[];
let coordinators: Context[];

beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'logistra-nodes-'));
  galera = await startGalera({ folder, keys: path.join(folder, 'keys'), databases: ['nodes'], quiet: true });
  stores = galera.nodes.map((node) => openStore(node.url('nodes')));
  await migrationsOf(stores[0] as Store).up();
  const { coordinator } = await newProgramme(stores[0] as Store);
  coordinators = stores.map((store) => ({ ...coordinator, store }));
}, 180_000);

afterAll(async () => {
  await Promise.all(stores.map((store) => store.close()));
  await galera.stop();
  rmSync(folder, { recursive: true, force: true });
}, 60_000);

const on = (node: number) => coordinators[node % 3] as Context;
const settled = async (work: readonly Promise<unknown>[]) =>
  (await Promise.allSettled(work)).map((each) =>
    each.status === 'fulfilled' ? 'saved' : String(each.reason?.message),
  );

/** The same rows on every node, once all are level: what one of them says. */
async function everywhere<Row extends object>(sql: string, values: Record<string, unknown>): Promise<Row[]> {
  const each = await Promise.all(
    galera.nodes.map(async (node) => {
      const fresh = openStore(node.url('nodes'));
      const rows = await select<Row>(fresh.db, sql, values);
      await fresh.close();
      return rows;
    }),
  );
  expect(each[1]).toEqual(each[0]);
  expect(each[2]).toEqual(each[0]);
  return each[0] as Row[];
}

describe('through three nodes at once', () => {
  it('the last places of a course are given once, and everybody else waits', async () => {
    const courseId = await addCourse(on(0), { title: 'Few places', audience: '' });
    await on(0).store.sequelize.query('UPDATE course SET capacity = 4 WHERE id = ?', { replacements: [courseId] });
    const people = Array.from({ length: 12 }, (_, n) =>
      addPerson(on(n), { courseId, cells: cells({ name: `Child ${n}` }) }),
    );
    expect(new Set(await settled(people))).toEqual(new Set(['saved']));
    const rows = await everywhere<{ status: string; n: number }>(
      'SELECT status, COUNT(*) AS n FROM enrolment WHERE course_id = :courseId GROUP BY status ORDER BY status',
      { courseId },
    );
    expect(rows).toEqual([
      { status: 'enrolled', n: 4 },
      { status: 'waitlisted', n: 8 },
    ]);
  });

  it('ticks of one bench stand in one order without a gap, each once, and screens at every server are told', async () => {
    const { sessionId, basis } = await newSession(
      on(0),
      Array.from({ length: 6 }, (_, n) => ({ name: `Kit ${n}` })),
    );
    await lockKitSheet(on(1), { sessionId, basis: await basis() });
    // The other nodes have it too: a screen that comes later finds it there.
    await everywhere('SELECT id FROM kit_sheet WHERE session_id = :sessionId', { sessionId });
    const told = new Set<string>();
    const stop = watchBench(stores[2] as Store, sessionId, 0, ({ events }) => {
      for (const { id } of events) told.add(id);
    });
    const { kits } = (await viewBench(on(2), { sessionId })).sheet;
    const sent: string[] = [];
    const all = kits.flatMap(({ id: kitId, components }, k) =>
      components.map((component, at) => {
        const id = v7();
        sent.push(id);
        const tick = { id, kitId, component, action: 'packed' as const };
        // Sent twice, as by a screen that has lost the answer, the second time to another server.
        return recordTicks(on(k + at), { sessionId, ticks: [tick] }).then(() =>
          recordTicks(on(k + at + 1), { sessionId, ticks: [tick] }),
        );
      }),
    );
    expect(new Set(await settled(all))).toEqual(new Set(['saved']));
    const rows = await everywhere<{ id: string; seq: number }>(
      'SELECT id, seq FROM pack_event WHERE session_id = :sessionId ORDER BY seq',
      { sessionId },
    );
    expect(rows.map(({ seq }) => seq)).toEqual(rows.map((_, at) => at + 1));
    expect(rows.map(({ id }) => id).sort()).toEqual(sent.sort());
    await expect.poll(() => told.size, { timeout: 20_000 }).toBe(sent.length);
    stop();
  });

  it('a request that is sent to two servers with one key is done once', async () => {
    const key = v7();
    const courses = await Promise.all(
      [0, 1, 2].map((node) => addCourse(onceOnly(on(node), key, 'the same'), { title: `Once ${key}`, audience: '' })),
    );
    expect(new Set(courses).size).toBe(1);
    expect(await everywhere('SELECT id FROM course WHERE title = :title', { title: `Once ${key}` })).toHaveLength(1);
  });

  it('no more is taken from a shelf than lies there', async () => {
    const id = v7();
    await addLot(on(0), {
      id,
      packGrams: 500,
      ingredient: 'plain wheat flour',
      name: 'Flour',
      packs: 6,
      storage: 'shelf',
      lastDay: '2027-06-01',
      lastKind: 'best before',
      origin: 'bought',
    });
    const taken = await settled(
      Array.from({ length: 10 }, (_, n) =>
        moveLot(on(n), {
          id: v7(),
          lotId: id,
          kind: 'given away',
          packs: 1,
          grams: 0,
          day: '2026-11-20',
          storage: null,
          placeId: null,
          reason: '',
        }),
      ),
    );
    const [row] = await everywhere<{ packs: number }>(
      "SELECT CAST(SUM(packs) AS UNSIGNED) AS packs FROM stock_move WHERE lot_id = :id AND kind = 'given away'",
      { id },
    );
    expect([taken.filter((said) => said === 'saved').length, row?.packs]).toEqual([6, 6]);
  });

  it('two coordinators who remove each other do not both succeed', async () => {
    for (let n = 0; n < 12; n++) {
      const one = (await newProgramme(stores[0] as Store)).coordinator;
      const id = v7();
      const row = {
        id,
        programmeId: one.actor.programmeId,
        email: `${id}@example.test`,
        name: 'Two',
      };
      await addMember(one.store.db, { ...row, role: 'coordinator' });
      const two = { ...one, actor: { ...one.actor, id }, store: stores[1] as Store };
      const left = () =>
        find(two.store.db, two.store.db.models.member, {
          programmeId: row.programmeId,
          role: 'coordinator',
          status: 'active',
        });
      await expect.poll(async () => (await left()).length).toBe(2);
      await settled([
        removeMember(one, { memberId: id, version: 1 }),
        removeMember(two, { memberId: one.actor.id, version: 1 }),
      ]);
      await everywhere('SELECT id, status FROM member WHERE programme_id = :programmeId ORDER BY id', row);
      expect(await left()).toHaveLength(1);
    }
  });

  it('jobs are each done once, and one queued by two servers for one hour is there once', async () => {
    const { programmeId } = on(0).actor;
    const once = v7();
    const queue = (node: number, id: string) =>
      queueJob(on(node), on(node).store.db, programmeId, 'print labels', {}, null, id).catch((error) => {
        if (!isDuplicate(error)) throw error;
      });
    const ids = [once, ...Array.from({ length: 12 }, () => v7())];
    await Promise.all([...ids, once, once].map((id, n) => queue(n, id)));
    const done: string[] = [];
    const clock = () => new Date(Date.UTC(2026, 10, 20, 12, 1));
    const worker = async (node: number) => {
      const handlers = { 'print labels': async ({ id }: { id: string }) => done.push(id) };
      while (await workOnce(stores[node] as Store, `worker ${node}`, handlers, clock));
    };
    await Promise.all([0, 1, 2].map(worker));
    await Promise.all([0, 1, 2].map(worker));
    const states = await everywhere(
      'SELECT state, COUNT(*) AS n FROM job WHERE programme_id = :programmeId GROUP BY state',
      {
        programmeId,
      },
    );
    expect(states).toEqual([{ state: 'done', n: 13 }]);
    // A worker whose claim was refused by the others begins nothing: none was done twice.
    expect(done.sort()).toEqual(ids.sort());
  });

  it('tries at the door are counted together, and a sign-in made at one server holds at the next', async () => {
    const limit = { name: 'nodes', points: 5, seconds: 60 };
    const key = v7();
    const waits = await Promise.all(
      Array.from({ length: 9 }, (_, n) => countAttempt(stores[n % 3] as Store, limit, key)),
    );
    expect(waits.filter((seconds) => seconds === 0).length).toBeLessThanOrEqual(5);
    const id = v7();
    const { id: memberId } = on(0).actor;
    const now = new Date();
    await insert(stores[0]!.db, stores[0]!.db.models.signIn, [
      {
        id,
        accountId: memberId,
        memberId,
        device: '',
        createdAt: now,
        expiresAt: new Date(now.getTime() + 3_600_000),
        endedAt: null,
        seenAt: now,
        provenAt: now,
        awaitsCode: 0,
      },
    ]);
    const other = openStore((galera.nodes[1] as (typeof galera.nodes)[number]).url('nodes'));
    expect((await findActor(other, id, now))?.actor.id).toBe(memberId);
    await other.close();
  });

  it('a new connection begins only when its node has all that was saved before', async () => {
    for (let n = 0; n < 20; n++) {
      const courseId = await addCourse(on(n), { title: `Seen at once ${n}`, audience: '' });
      const other = openStore((galera.nodes[(n + 1) % 3] as (typeof galera.nodes)[number]).url('nodes'));
      expect(await find(other.db, other.db.models.course, { id: courseId })).toHaveLength(1);
      await other.close();
    }
  });
});

it('a node that is killed takes nothing with it that was acknowledged, and the others go on', async () => {
  const saved: string[] = [];
  let going = true;
  const writing = (async () => {
    for (let n = 0; going; n++) {
      // To the two that stay.
      const title = `Through a fall ${n}`;
      await addCourse(on(1 + (n % 2)), { title, audience: '' });
      saved.push(title);
    }
  })();
  await expect.poll(() => saved.length, { timeout: 30_000 }).toBeGreaterThan(10);
  const before = await addCourse(on(0), { title: 'The last at the node that falls', audience: '' });
  process.kill((galera.nodes[0] as (typeof galera.nodes)[number]).pid, 'SIGKILL');
  const told = await addCourse(on(0), { title: 'To nobody', audience: '' }).catch((error) => error);
  expect(told).toBeInstanceOf(Error);
  const at = saved.length;
  await expect.poll(() => saved.length, { timeout: 60_000 }).toBeGreaterThan(at + 10);
  going = false;
  await writing;
  await galera.nodes[0]?.untilLevel();
  const rows = await everywhere<{ id: string; title: string }>('SELECT id, title FROM course ORDER BY id', {});
  expect(rows.some(({ id }) => id === before)).toBe(true);
  const titles = rows.map(({ title }) => title);
  for (const title of saved) expect(titles.filter((each) => each === title)).toHaveLength(1);
}, 150_000);
