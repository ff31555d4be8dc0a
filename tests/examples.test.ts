import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

const CORE = path.join(import.meta.dirname, '../src/core');
const MODULES = import.meta.glob<Record<string, unknown>>(['../src/core/**/*.ts', '!**/*.test.ts'], { eager: true });

/** Everything that the core has to offer, by name. */
const scope = Object.assign({}, ...Object.values(MODULES)) as Record<string, unknown>;

const run = (text: string): unknown =>
  new Function(...Object.keys(scope), `return (${text});`)(...Object.values(scope));

/** The examples in the comments of a file that say their whole result on one line: what is run, and what it comes to. */
function examplesIn(file: string): [code: string, result: string][] {
  return readFileSync(path.join(CORE, file), 'utf8')
    .split('\n')
    .flatMap((line) => {
      const found =
        /^\s*\* (?:@example )?([\w.[]+\(.*\).*?) \/\/=> (undefined|true|false|-?[\d.]+|'.*'|[[{].*[\]}])$/.exec(line);
      return found && !found[2]?.includes('…') ? [[found[1], found[2]] as [string, string]] : [];
    });
}

const FILES = (readdirSync(CORE, { recursive: true }) as string[]).filter((file) => /(?<!\.test)\.ts$/.test(file));

describe('the examples in the comments of the core', () => {
  const all = FILES.flatMap((file) => examplesIn(file).map(([code, result]) => [file, code, result] as const));

  it('are there', () => {
    expect(all.length).toBeGreaterThan(90);
  });

  it.each(all)('%s: %s', (_file, code, result) => {
    expect(run(code)).toEqual(run(result));
  });
});
