import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import jsqr from 'jsqr';
import { PNG } from 'pngjs';
import { afterAll, describe, expect, it } from 'vitest';
import type { KitLabel } from '@/core/packing/label';
import { codeSize, layLabel, PADDING, PAPERS, type PaperName } from './label-layout';
import { labelsPdf } from './labels-pdf';

const folder = mkdtempSync(path.join(tmpdir(), 'labels-'));
afterAll(() => rmSync(folder, { recursive: true }));

const label = (change: Partial<KitLabel> = {}): KitLabel => ({
  kitId: '01936f00-0000-7000-8000-000000000001',
  number: 7,
  name: 'Łucja Wren',
  variant: 'C',
  servings: 2,
  dish: 'Griddle flatbreads',
  session: 'Small Hands Kitchen 3: Breads, Thu 26 Nov 2026',
  group: 'Thursday group',
  inside: ['½ cup plain wheat flour', '1⅓ cups milk', '¾ tsp baking powder', 'about ⅝ onion'],
  allergens: 'Contains milk, wheat, gluten. May contain mustard: check the packs used.',
  madeWithout: 'Made without egg.',
  keep: 'Keep cold, at or below 5 °C (41 °F). Use by Sat 28 Nov 2026.',
  ...change,
});

/** Text and picture of a PDF, as readers other than the writer see them. */
async function readBack(labels: KitLabel[], paper: PaperName) {
  const file = path.join(folder, 'labels.pdf');
  writeFileSync(file, await labelsPdf(labels, paper));
  const text = execFileSync('pdftotext', ['-raw', file, '-'], { encoding: 'utf8' });
  const pages = Number(/Pages:\s+(\d+)/.exec(execFileSync('pdfinfo', [file], { encoding: 'utf8' }))?.[1]);
  const size = /Page size:\s+([\d.]+) x ([\d.]+)/.exec(execFileSync('pdfinfo', [file], { encoding: 'utf8' }));
  execFileSync('pdftoppm', ['-r', '200', '-png', '-f', '1', '-l', '1', file, path.join(folder, 'page')]);
  const picture = PNG.sync.read(readFileSync(path.join(folder, pages > 9 ? 'page-01.png' : 'page-1.png')));
  return { text, flat: text.replace(/\s+/g, ' '), pages, size: [Number(size?.[1]), Number(size?.[2])], picture };
}

/** The QR codes in the places of the first row, read one by one. */
function codes(picture: PNG, paper: PaperName): (string | undefined)[] {
  const { columns, label: size, margin } = PAPERS[paper];
  const scale = 200 / 72;
  const code = codeSize(PAPERS[paper]);
  return Array.from({ length: columns }, (_, column) => {
    const left = Math.round((margin.left + column * size.width + size.width - PADDING - code - 9) * scale);
    const top = Math.round(margin.top * scale);
    const side = Math.round((code + 14) * scale);
    const part = new PNG({ width: side, height: side });
    PNG.bitblt(picture, part, left, top, side, side, 0, 0);
    return jsqr(new Uint8ClampedArray(part.data), side, side)?.data;
  });
}

describe.each(['a4', 'letter'] as const)('labels on %s', (paper) => {
  it('carry every character of every name, fraction and caution, as another reader reads them', async () => {
    const names = [
      'Łucja Wren',
      'Zoë O’Malley-Ångström',
      'Jürgen Groß',
      'Đặng Thị Hoa',
      'Ірина Ковальчук',
      'Ελένη',
      'Ñandú & <b>"Kó"</b>',
      'Şükrü Çağlayan',
    ];
    const { flat, pages } = await readBack(
      names.map((name, n) => label({ name, kitId: `01936f00-0000-7000-8000-00000000000${n}` })),
      paper,
    );
    for (const name of names) expect(flat).toContain(name);
    for (const part of ['½ cup plain wheat flour', '1⅓ cups milk', '¾ tsp baking powder', 'about ⅝ onion'])
      expect(flat).toContain(part);
    expect(flat).toContain(
      'Made without egg. Contains milk, wheat, gluten. May contain mustard: check the packs used.',
    );
    expect(flat).toContain('Keep cold, at or below 5 °C (41 °F). Use by Sat 28 Nov 2026.');
    expect(flat).toContain('kit 7, feeds 2');
    expect(pages).toBe(1);
  });

  it('carry a code that reads as the kit’s id', async () => {
    const ids = Array.from({ length: PAPERS[paper].columns }, (_, n) => `01936f00-abcd-7000-8000-00000000000${n}`);
    const { picture, size } = await readBack(
      ids.map((kitId) => label({ kitId })),
      paper,
    );
    expect(codes(picture, paper)).toEqual(ids);
    expect(size[0]).toBeCloseTo(PAPERS[paper].page.width, 0);
    expect(size[1]).toBeCloseTo(PAPERS[paper].page.height, 0);
  });

  it('go on on a further page when one is full', async () => {
    const count = PAPERS[paper].columns * PAPERS[paper].rows + 1;
    const { text, pages } = await readBack(
      Array.from({ length: count }, (_, n) => label({ number: n + 1, kitId: `id ${n}` })),
      paper,
    );
    expect(pages).toBe(2);
    expect(text.match(/Łucja Wren/g)).toHaveLength(count);
  });

  it('never cut anything: what does not fit goes on a further label that repeats name and allergens', () => {
    const inside = Array.from({ length: 60 }, (_, n) => `${n + 1} cups of component number ${n + 1}`);
    const places = layLabel(label({ inside }), PAPERS[paper]);
    expect(places.length).toBeGreaterThan(1);
    const printed = places.map((place) => place.lines.map((line) => line.text).join(' '));
    for (const entry of inside) expect(printed.filter((text) => text.includes(entry)).length).toBeGreaterThan(0);
    for (const text of printed) expect(text).toContain('Made without egg. Contains milk, wheat, gluten.');
    expect(places.map((place) => place.part)).toEqual(places.map((_, n) => `${n + 1} of ${places.length}`));
    const room = PAPERS[paper].label.height - 14;
    for (const place of places)
      expect(place.lines.reduce((sum, line) => sum + line.size * 1.17, 0)).toBeLessThanOrEqual(room);
  });
});

describe('a name that the label font cannot print rightly', () => {
  it.each([
    ['明', 'U+660E'],
    ['Ada 🍕', 'U+1F355'],
    ['ليلى', 'U+0644'],
    ['דנה', 'U+05D3'],
  ])('%s is refused by name, not printed as something else', async (name, code) => {
    await expect(labelsPdf([label({ name })], 'a4')).rejects.toThrow(code);
    await expect(labelsPdf([label({ name })], 'a4')).rejects.toThrow(
      'Write that name in Latin, Greek or Cyrillic letters',
    );
  });
});
