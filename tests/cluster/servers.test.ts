import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openStore, type Store } from '@/store/store';
import { startCluster } from '../../scripts/cluster.mjs';
import { ensureBuild } from '../../scripts/system.mjs';
import { select } from '../programme';

/** What scripts/city.ts says of each programme that it made. */
interface Programme {
  readonly token: string;
  readonly cookie: string;
  readonly courseId: string;
  readonly sessionIds: readonly string[];
  readonly ticks: readonly (readonly [kitId: string, component: string])[];
}

let folder: string;
let cluster: Awaited<ReturnType<typeof startCluster>>;
let city: Programme[];
/** The nodes one after the other, as a program sees them. */
let stores: Store[];

beforeAll(async () => {
  ensureBuild();
  folder = mkdtempSync(path.join(tmpdir(), 'logistra-servers-'));
  chmodSync(folder, 0o711);
  cluster = await startCluster({ folder, keys: path.join(folder, 'keys'), empty: true, port: 0, quiet: true });
  const args = ['--import', 'tsx', 'scripts/city.ts', '2', '20', '4', '2'];
  const said = execFileSync(process.execPath, args, { env: { ...process.env, ...cluster.env }, encoding: 'utf8' });
  city = JSON.parse(said.split('\n').find((line) => line.startsWith('[{')) ?? '[]');
  stores = cluster.galera.nodes.map((node) => openStore(node.url('logistra')));
}, 400_000);

afterAll(async () => {
  await Promise.all((stores ?? []).map((store) => store.close()));
  await cluster?.stop();
  if (folder) rmSync(folder, { recursive: true, force: true });
}, 60_000);

const first = () => city[0] as Programme;

/** Asks one of the two web servers, as the balancer would. */
const ask = (server: number, address: string, init: RequestInit = {}, headers: Record<string, string> = {}) =>
  fetch(`http://127.0.0.1:${cluster.webs[server]?.port}${address}`, {
    redirect: 'manual',
    ...init,
    headers: { authorization: `Bearer ${first().token}`, 'content-type': 'application/json', ...headers },
  });
const read = async <T>(server: number, address: string): Promise<T> =>
  (await ask(server, `/api/v1${address}`)).json() as Promise<T>;
const send = (server: number, address: string, body: unknown, headers: Record<string, string> = {}) =>
  ask(server, `/api/v1${address}`, { method: 'POST', body: JSON.stringify(body) }, headers);

describe('between two web servers', () => {
  it('nobody goes on believing what the other has changed: a roll, a lock, a tick', async () => {
    const sessionId = first().sessionIds[1] ?? '';
    const sheet = (server: number) => read<{ basis: string }>(server, `/sessions/${sessionId}/kit-sheet`);
    for (let n = 0; n < 4; n++) {
      const [one, two] = await Promise.all([sheet(0), sheet(1)]);
      expect(two).toEqual(one);
      const roll = `/api/v1/courses/${first().courseId}/roll`;
      const row = `name,servings,avoids\nJoined ${n},2,\n`;
      const added = await ask(n % 2, roll, { method: 'POST', body: row }, { 'content-type': 'text/csv' });
      expect(added.status).toBeLessThan(300);
      // The other one knows at once.
      const other = await sheet((n + 1) % 2);
      expect(other.basis).not.toBe(one.basis);
      expect(await sheet(n % 2)).toEqual(other);
    }
    // What was looked at here is locked there, and what is locked there is packed here.
    const { basis } = await sheet(0);
    expect((await send(1, `/sessions/${sessionId}/kit-sheet/lock`, { basis })).status).toBe(201);
    const locked = await read<{ kits: unknown[] }>(0, `/sessions/${sessionId}/kit-sheet`);
    expect(locked.kits).toHaveLength(14);
    expect(await read(1, `/sessions/${sessionId}/kit-sheet`)).toEqual(locked);
  });

  it('a screen at one is told what is ticked at the other', async () => {
    const { sessionIds, ticks } = first();
    const [sessionId] = sessionIds;
    const left = new AbortController();
    const stream = await ask(0, `/api/bench/${sessionId}/stream`, { signal: left.signal });
    const told = stream.body?.pipeThrough(new TextDecoderStream()).getReader();
    const [kitId, component] = ticks[0] ?? [];
    const id = randomUUID();
    const body = JSON.stringify({ ticks: [{ id, kitId, component, action: 'packed' }] });
    expect((await ask(1, `/api/bench/${sessionId}/ticks`, { method: 'POST', body })).status).toBe(200);
    let heard = '';
    const until = Date.now() + 10_000;
    while (!heard.includes(id) && Date.now() < until) heard += (await told?.read())?.value ?? '';
    expect(heard).toContain(id);
    left.abort();
  });

  it('what is sent to both with one key is done once, and answered the same', async () => {
    const key = randomUUID();
    const body = { title: `Once ${key}` };
    const answers = await Promise.all(
      [0, 1, 0, 1].map((server) => send(server, '/courses', body, { 'idempotency-key': key })),
    );
    const ids = new Set<string>();
    for (const answer of answers) {
      // Whoever comes while the first is still at work is told to come again.
      const again = answer.ok ? answer : await send(1, '/courses', body, { 'idempotency-key': key });
      ids.add(((await again.json()) as { id: string }).id);
    }
    expect(ids.size).toBe(1);
    for (const store of stores)
      expect(await select(store.db, 'SELECT id FROM course WHERE title = :title', body)).toHaveLength(1);
  });

  it('a sign-in holds at both, and ended anywhere it has ended at both', async () => {
    const { cookie } = first();
    const page = (server: number) => ask(server, '/courses', {}, { cookie, authorization: '', accept: 'text/html' });
    expect([(await page(0)).status, (await page(1)).status]).toEqual([200, 200]);
    await stores[2]?.sequelize.query('UPDATE sign_in SET ended_at = NOW(3)');
    await expect.poll(async () => [(await page(0)).status, (await page(1)).status]).toEqual([307, 307]);
  });

  it('a person’s limit is one, however many servers they ask', async () => {
    const answers: number[] = [];
    for (let n = 0; n < 140 && !answers.includes(429); n += 10)
      answers.push(
        ...(await Promise.all(
          Array.from({ length: 10 }, async (_, at) => (await send(at % 2, '/compute/kits', CASE)).status),
        )),
      );
    expect(answers.filter((status) => status === 200).length).toBeLessThanOrEqual(120);
    expect(answers).toContain(429);
    expect([(await send(0, '/compute/kits', CASE)).status, (await send(1, '/compute/kits', CASE)).status]).toEqual([
      429, 429,
    ]);
  });

  it('a job that is asked for at one is done once, and what goes on by itself is queued once', async () => {
    const other = city[1] as Programme;
    const own = { authorization: `Bearer ${other.token}` };
    const asked = await send(0, `/sessions/${other.sessionIds[0]}/labels/print`, { paper: 'a4' }, own);
    const { jobId } = (await asked.json()) as { jobId: string };
    const state = async () =>
      (await (await ask(1, `/api/v1/jobs/${jobId}`, {}, own)).json()) as { state: string; attempts: number };
    await expect.poll(state, { timeout: 30_000 }).toMatchObject({ state: 'done', attempts: 1 });
    const rows = await select<{ n: number }>(
      (stores[0] as Store).db,
      `SELECT COUNT(*) AS n FROM job WHERE created_by IS NULL AND request = '' GROUP BY programme_id, kind, DATE_FORMAT(created_at, '%Y-%m-%d %H')`,
      {},
    );
    expect(rows.length).toBeGreaterThan(0);
    for (const { n } of rows) expect(Number(n)).toBe(1);
  });
});

/** A small case of the arithmetic: it is counted as much as a large one. */
const CASE = {
  recipe: { servings: 4, lines: [{ ingredient: 'garlic', amount: '1', unit: 'clove', scaling: 'whole' }] },
  kits: [{ count: 1, servings: 2 }],
};
