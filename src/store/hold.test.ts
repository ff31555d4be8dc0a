import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, it } from 'vitest';

/** These write every row that they lock. */
const WRITE_WHAT_THEY_LOCK = ['erasing.ts', 'jobs.ts', 'sittings.ts'];

it('nothing is held by a lock that other nodes of a cluster do not see, or by a write that changes nothing', () => {
  const files = readdirSync(import.meta.dirname).filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'));
  const text = (file: string) => readFileSync(path.join(import.meta.dirname, file), 'utf8');
  expect(files.filter((file) => /FOR UPDATE|LOCK IN SHARE MODE|GET_LOCK/.test(text(file))).sort()).toEqual(
    WRITE_WHAT_THEY_LOCK,
  );
  expect(files.filter((file) => /\bSET (\w+) = \1\b(?! \+)/.test(text(file)))).toEqual([]);
});
