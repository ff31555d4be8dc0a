// A throw-away MariaDB for the tests that need one; npm test hands its own over in TEST_DATABASE_URL.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { startDatabase } from '../scripts/database.mjs';

export async function setup(): Promise<() => Promise<void>> {
  if (process.env.TEST_DATABASE_URL) return async () => {};
  const folder = mkdtempSync(path.join(tmpdir(), 'logistra-unit-'));
  const database = await startDatabase({
    folder,
    keys: path.join(folder, 'keys'),
    databases: ['unit', 'unit_migrations', 'unit_jobs', 'unit_backup', 'unit_restored', 'unit_handlers', 'unit_moved'],
    durable: false,
    quiet: true,
  });
  process.env.TEST_DATABASE_URL = database.urls.unit;
  return async () => {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
