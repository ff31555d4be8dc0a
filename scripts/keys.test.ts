import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import mysql from 'mysql2/promise';
import { afterAll, describe, expect, it } from 'vitest';
import { startDatabase } from './database.mjs';
import { dumpTo, fingerprintOf } from './dump.mjs';
import { rotateKeys } from './rotate-keys.mjs';

const folder = mkdtempSync(path.join(tmpdir(), 'logistra-keys-'));
const keys = path.join(folder, 'keys');
const data = path.join(folder, 'data');
const databases = ['house'];
afterAll(() => rmSync(folder, { recursive: true }));

/** Files under a folder that hold a text. */
function holding(text: string, under: string): string[] {
  return readdirSync(under, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => path.join(entry.parentPath, entry.name))
    .filter((file) => readFileSync(file).includes(text));
}

/** A name that stands nowhere else. */
const RARE = 'Quillonwether of the Seventh Mooring';

async function within<T>(work: (connection: mysql.Connection, url: string) => Promise<T>): Promise<T> {
  const database = await startDatabase({ folder: data, keys, databases, quiet: true });
  const url = database.urls.house ?? '';
  const connection = await mysql.createConnection(url);
  try {
    return await work(connection, url);
  } finally {
    await connection.end();
    await database.stop();
  }
}

describe('what families told', () => {
  const backup = path.join(folder, 'backup.sql.gz.age');

  it('cannot be read on the disk: neither in tables nor in logs, nor in a backup', async () => {
    const fingerprint = await within(async (connection, url) => {
      await connection.query('CREATE TABLE person (id INT PRIMARY KEY, name VARCHAR(100) NOT NULL) ENGINE=InnoDB');
      for (let id = 0; id < 50; id++) await connection.query('INSERT INTO person VALUES (?, ?)', [id, `${RARE} ${id}`]);
      await connection.query('UPDATE person SET name = CONCAT(name, " again")');
      const [rows] = await connection.query('SELECT COUNT(DISTINCT name, id) AS n FROM person ORDER BY name');
      expect(rows).toEqual([{ n: 50 }]);
      expect(holding(RARE, data)).toEqual([]);
      return dumpTo(url, backup, keys);
    });
    expect(holding(RARE, data)).toEqual([]);
    expect(readFileSync(backup).includes(RARE)).toBe(false);
    expect(await fingerprintOf(backup, keys)).toBe(fingerprint);
  });

  it('is opened by keys that lie apart from it, and are their owner’s alone', async () => {
    expect(holding(readFileSync(path.join(keys, 'database.key'), 'utf8').trim(), data)).toEqual([]);
    for (const name of readdirSync(keys)) expect(statSync(path.join(keys, name)).mode & 0o077).toBe(0);
    expect(existsSync(path.join(data, 'secrets.json'))).toBe(false);
    await expect(fingerprintOf(backup, path.join(folder, 'other keys'))).rejects.toThrow('keys of backups');
  });

  it('gets new keys without changing, and earlier backups still open', async () => {
    const before = readFileSync(path.join(keys, 'database.key'), 'utf8');
    const fingerprint = await fingerprintOf(backup, keys);
    expect(await rotateKeys({ folder: data, keys, databases })).toBe(1);
    expect(readFileSync(path.join(keys, 'database.key'), 'utf8')).not.toBe(before);
    expect(await fingerprintOf(backup, keys)).toBe(fingerprint);
    const later = path.join(folder, 'later.sql.gz.age');
    expect(await within((_, url) => dumpTo(url, later, keys))).toBe(fingerprint);
    expect(holding(RARE, folder)).toEqual([]);
    expect(readdirSync(data).filter((name) => /before|rotating/.test(name))).toEqual([]);
  }, 60_000);
});
