import { AsyncLocalStorage } from 'node:async_hooks';
import { readdirSync, readFileSync } from 'node:fs';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { TYPICAL } from '@/core/reference/reference';
import { ColumnsUnclear } from '@/formats/roll/roll-headings';
import { FileRefused } from '@/formats/text';
import { closePool, inPool, SenderLeft, warmUp } from './pool';

afterAll(closePool);

const bytes = (text: string) => new TextEncoder().encode(text);
const readRoll = (text: string) => ({ bytes: bytes(text), remembered: {}, today: '2026-11-20' });
/** Takes some ten seconds and gigabytes, where nobody stops it. */
const ENDLESS = { text: '2026-11-20,beans\n'.repeat(3_000_000), reference: TYPICAL };

describe('what people send, read in a process of its own', () => {
  it('comes back as it was read, or as why it was not', async () => {
    const { rows } = await inPool('readRoll', readRoll('name,servings\nAda,2\n'));
    expect(rows[0]?.cells).toMatchObject({ name: 'Ada', servings: '2' });
    await expect(inPool('readRoll', readRoll('name,servings\n'))).rejects.toThrow(FileRefused);
    await expect(inPool('readRoll', readRoll('who,plates\nAda,2\n'))).rejects.toMatchObject({
      constructor: ColumnsUnclear,
      headings: [{ heading: 'who' }, { heading: 'plates' }],
    });
  });

  it('is stopped at its time, said so, and the next is read as ever', async () => {
    await expect(inPool('readMenu', ENDLESS, 0.3)).rejects.toThrow('stopped after 0.3 seconds');
    expect((await inPool('readRoll', readRoll('name,servings\nAda,2\n'))).rows).toHaveLength(1);
  });

  it('is stopped when it takes more memory than it may', async () => {
    const wide = { text: 'x,'.repeat(40_000_000), reference: TYPICAL };
    await expect(inPool('readMenu', wide, 60)).rejects.toThrow(/unfolds into more than 384 MB/);
    expect((await inPool('readRoll', readRoll('name,servings\nAda,2\n'))).rows).toHaveLength(1);
  }, 90_000);

  it('is stopped when its sender leaves', async () => {
    const leaving = new AsyncLocalStorage<AbortSignal>();
    Object.assign(globalThis, { logistraLeaving: leaving });
    const left = new AbortController();
    const reading = leaving.run(left.signal, () => inPool('readMenu', ENDLESS));
    setTimeout(() => left.abort(), 200);
    await expect(reading).rejects.toThrow(SenderLeft);
    Object.assign(globalThis, { logistraLeaving: undefined });
  });
});

/** How the system lets the processes that this one began run (proc(5)): 0 as usual, 5 only where nothing else wants to. */
const classes = () =>
  readdirSync('/proc').flatMap((pid) => {
    try {
      const fields = readFileSync(`/proc/${pid}/stat`, 'latin1')
        .replace(/^.*\) /s, '')
        .split(' ');
      const isOurs =
        Number(fields[1]) === process.pid && readFileSync(`/proc/${pid}/cmdline`, 'latin1').includes('tinypool');
      return isOurs ? [Number(fields[38])] : [];
    } catch {
      return [];
    }
  });

it('who works plans out takes only the time that nobody else wants; who reads files, its share', async () => {
  warmUp();
  await vi.waitFor(() => expect(new Set(classes())).toEqual(new Set([0, 5])), { timeout: 20_000, interval: 200 });
});
