import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import type { SheetInput } from '@/core/kits/record/sheet-content';
import { computeSheet, sheetContent } from '@/core/kits/record/snapshot';
import { TYPICAL } from '@/core/reference/reference';
import { sheetPdf } from './sheet-pdf';

const folder = mkdtempSync(path.join(tmpdir(), 'sheet-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** A sheet of so many sizes of kit, each for one person. */
function contentFor(sizes: number, name = 'Łucja Wren') {
  const input: SheetInput = {
    system: 'metric',
    dishes: [
      {
        id: 'dish',
        title: 'Harbour bread',
        recipe: {
          servings: 4,
          lines: [{ ingredient: 'plain wheat flour', amount: '400', unit: 'g', pack_grams: '1000' }],
        },
      },
    ],
    labels: {},
    reference: TYPICAL,
  };
  const issues = [{ id: 'spoons', at: 0, name: 'measuring spoons', count: 1, isCatchUp: true }];
  const people = Array.from({ length: sizes }, (_, at) => ({
    id: String(at),
    name: `${name} ${at}`,
    servings: at + 1,
    needs: [],
    ...(at === 0 ? { supply: { issues } } : {}),
  }));
  const outcome = computeSheet(input, people);
  if ('problems' in outcome) throw new Error('problems');
  return sheetContent(input, outcome);
}

/** A PDF as another reader sees it. */
function readBack(bytes: Uint8Array) {
  const file = path.join(folder, 'sheet.pdf');
  writeFileSync(file, bytes);
  const info = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
  return {
    text: execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).replace(/\s+/g, ' '),
    pages: Number(/Pages:\s+(\d+)/.exec(info)?.[1]),
    isWide: /Page size:\s+([\d.]+) x ([\d.]+)/.exec(info)?.slice(1).map(Number),
  };
}

describe('a kit sheet as a PDF', () => {
  const title = { title: 'Breads, 2026-11-26', state: 'Draft: not locked, amounts may still move.' };

  it('holds every amount, name and total, landscape, the totals on a page of their own', async () => {
    const { text, pages, isWide } = readBack(await sheetPdf(contentFor(2), title, 'A4'));
    expect(pages).toBe(2);
    expect(isWide?.map(Math.round)).toEqual([842, 595]);
    for (const part of [
      'Breads, 2026-11-26',
      'Draft: not locked',
      'Harbour bread',
      '200 g',
      'Łucja Wren 1',
      'catch-up',
    ])
      expect(text).toContain(part);
    expect(text).toMatch(/plain wheat flour 300 g 300 g 1 × 1000 g/);
  });

  it('goes on another page where there are more than six variants', async () => {
    expect(readBack(await sheetPdf(contentFor(7), title, 'LETTER')).pages).toBe(3);
  });

  it('is refused when a name would be printed wrongly', async () => {
    await expect(sheetPdf(contentFor(1, 'نور'), title, 'A4')).rejects.toThrow('The kit sheet holds');
  });
});
