import { createWriteStream, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createGzip } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson } from '@/services/roll/roll';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../tests/programme';
import { dump, fingerprintOf, load } from './dump.mjs';

const folder = mkdtempSync(path.join(tmpdir(), 'logistra-backup-'));
const file = path.join(folder, 'backup.sql.gz');
const url = (name: string) => (process.env.TEST_DATABASE_URL ?? '').replace(/[^/]+$/, name);
let admin: Store;
let store: Store;
beforeAll(async () => {
  admin = await testStore();
  store = await testStore('unit_backup');
});
afterAll(async () => {
  await store.close();
  await admin.close();
  rmSync(folder, { recursive: true });
});

describe('a backup', () => {
  it('put back is the same to the last byte: names, locked sheets, triggers', async () => {
    const { coordinator } = await newProgramme(store);
    const { courseId } = await newSession(coordinator, [{ name: 'Łucja “Lu” O’Wren ½ 🍞', plan: 'Pen; then\ncall' }]);
    const fingerprint = await dump(url('unit_backup'), createGzip(), createWriteStream(file));
    expect(await fingerprintOf(file)).toBe(fingerprint);
    await load(url('unit_restored'), { file });
    expect(await dump(url('unit_restored'))).toBe(fingerprint);
    // Another person is another fingerprint; the copy refuses what the original refuses.
    await addPerson(coordinator, { courseId, cells: cells({ name: 'Bram' }) });
    expect(await dump(url('unit_backup'))).not.toBe(fingerprint);
    await expect(load(url('unit_restored'), { sql: "UPDATE change_log SET action = 'x'" })).rejects.toThrow(
      'append-only',
    );
  });

  it('that is damaged is told so, wherever the damage is', async () => {
    const bytes = readFileSync(file);
    const damaged = path.join(folder, 'damaged.sql.gz');
    for (const at of [200, Math.floor(bytes.length / 2), bytes.length - 6]) {
      const copy = Buffer.from(bytes);
      copy[at] = (copy[at] ?? 0) ^ 0xff;
      writeFileSync(damaged, copy);
      await expect(fingerprintOf(damaged)).rejects.toThrow('cannot be read to its end');
    }
    writeFileSync(damaged, bytes.subarray(0, bytes.length - 100));
    await expect(fingerprintOf(damaged)).rejects.toThrow('use another copy');
  });
});
