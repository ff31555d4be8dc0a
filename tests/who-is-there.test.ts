import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { whoIsThere } from '@/core/classday/on-screen/who-is-there';

type Labelled = readonly (readonly [line: string, ids: readonly string[]])[];
const set: {
  readonly roll: readonly { readonly id: string; readonly name: string }[];
  readonly work: Labelled;
  readonly once: Labelled;
} = JSON.parse(readFileSync('tests/chat/names.json', 'utf8'));

const wrongIn = (lines: Labelled) =>
  lines.flatMap(([line, ids]) => {
    const found = whoIsThere(line, set.roll)[0]?.ids ?? [];
    return [...found].sort().join() === [...ids].sort().join() ? [] : [`${line} → ${found.join()}`];
  });

describe('names pasted from a call', () => {
  it('are matched to the roll with their spellings; a stranger is nobody, and what could be two is asked', () => {
    const [work, once] = [wrongIn(set.work), wrongIn(set.once)];
    const share = (wrong: string[], of: Labelled) => `${of.length - wrong.length} of ${of.length}`;
    console.info(`names matched: worked on ${share(work, set.work)}; looked at once ${share(once, set.once)}`, once);
    expect(work).toEqual([]);
    // Looked at for the first time, 13 of 16 were right, and three were asked about. What must never be is somebody else.
    expect(once.length).toBeLessThanOrEqual(3);
    expect(once.filter((line) => !line.endsWith('→ '))).toEqual([]);
    expect(whoIsThere('Sam', set.roll)[0]?.perhaps).toEqual(['sam1', 'sam2']);
  });
});
