import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, it } from 'vitest';

const SOURCES = path.join(import.meta.dirname, '..');

it('nothing that people send is kept on the disk of one server: pictures, receipts and pages are in the database', () => {
  const writing = readdirSync(SOURCES, { recursive: true, withFileTypes: true })
    .flatMap((file) => (file.isFile() ? [path.relative(SOURCES, path.join(file.parentPath, file.name))] : []))
    .filter((file) => /\.(ts|tsx|mjs|js)$/.test(file) && !/\.test\.ts$/.test(file))
    .filter((file) => /['"](?:node:)?fs(?:\/promises)?['"]/.test(readFileSync(path.join(SOURCES, file), 'utf8')));
  // It reads which migrations there are.
  expect(writing).toEqual([path.join('store', 'migrate.ts')]);
});
