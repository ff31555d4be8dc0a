import ExcelJS from 'exceljs';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import type { SheetInput } from '@/core/kits/record/sheet-content';
import { computeSheet, sheetContent } from '@/core/kits/record/snapshot';
import { TYPICAL } from '@/core/reference/reference';
import { writeSheetXlsx } from './kits/sheet-xlsx';
import { ColumnsUnclear } from './roll/roll-headings';
import { isWorkbook, readRollXlsx, writeRollXlsx } from './roll/roll-xlsx';

/** A workbook made cell by cell, as another program would have saved it. */
async function workbook(make: (sheet: ExcelJS.Worksheet, book: ExcelJS.Workbook) => void): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  make(book.addWorksheet('Autumn'), book);
  return new Uint8Array((await book.xlsx.writeBuffer()) as ArrayBuffer);
}

describe('a roll as a workbook', () => {
  it('is read from its first sheet: formulas by their results, rich text as text, dates as dates', async () => {
    const bytes = await workbook((sheet, book) => {
      sheet.addRow(['Name', 'Age', 'Servings', 'Allergies', 'Joined']);
      sheet.addRow([
        'Ada Finch',
        { formula: '3+5', result: 8 },
        2,
        { richText: [{ text: 'tree ' }, { text: 'nuts' }] },
        new Date(Date.UTC(2026, 8, 1)),
      ]);
      sheet.addRow(['Bo Finch', { formula: 'B9' }, 1, null, null]);
      book.addWorksheet('Spring').addRow(['Name', 'Servings']);
    });
    const { rows, ignored, notes, encoding } = await readRollXlsx(bytes);
    expect(encoding).toBe('XLSX');
    expect(rows.map(({ line, cells }) => [line, cells.name, cells.age, cells.servings, cells.avoids])).toEqual([
      [2, 'Ada Finch', '8', '2', 'tree nuts'],
      [3, 'Bo Finch', '', '1', ''],
    ]);
    expect(ignored).toEqual(['Joined']);
    expect(notes?.join(' ')).toMatch(/first sheet, “Autumn”.*“Spring”.*2 cells are formulas.*1 have none/);
  });

  it('says that merged cells are empty but for their first', async () => {
    const bytes = await workbook((sheet) => {
      sheet.addRow(['name', 'servings', 'household']);
      sheet.addRow(['Ada', 1, 'Finch']);
      sheet.addRow(['Bo', 1, '']);
      sheet.mergeCells('C2:C3');
    });
    const { rows, notes } = await readRollXlsx(bytes);
    expect(rows.map(({ cells }) => cells.household)).toEqual(['Finch', '']);
    expect(notes?.[0]).toMatch(/1 merged cell is empty/);
  });

  it('asks which column is which where the words are not known, and takes the programme’s own', async () => {
    const bytes = await workbook((sheet) => {
      sheet.addRow(['Kiddo', 'Plates', 'T-shirt']);
      sheet.addRow(['Ada', 2, 'M']);
    });
    await expect(readRollXlsx(bytes)).rejects.toBeInstanceOf(ColumnsUnclear);
    const { rows, headings } = await readRollXlsx(bytes, { kiddo: 'name', plates: 'servings' });
    expect(rows[0]?.cells).toMatchObject({ name: 'Ada', servings: '2' });
    expect(headings).toEqual([
      { heading: 'Kiddo', column: 'name' },
      { heading: 'Plates', column: 'servings' },
      { heading: 'T-shirt', column: null },
    ]);
  });

  it.each([
    [
      'with a password, or of the old format',
      new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 1, 2, 3]),
      /protected by a password/,
    ],
    ['that is broken', new Uint8Array([0x50, 0x4b, 0x03, 0x04, 9, 9, 9]), /broken, has a password/],
    [
      'of another office program',
      zipSync({ mimetype: [strToU8('application/vnd.oasis.opendocument.spreadsheet'), { level: 0 }] }),
      /OpenDocument/,
    ],
    ['that is another archive', zipSync({ 'notes.txt': strToU8('hello') }), /no sheet|cannot be read/],
    [
      'that unfolds into gigabytes',
      zipSync({ 'xl/sheet.xml': new Uint8Array(60 * 1024 * 1024) }),
      /unfolds into too much/,
    ],
  ])('%s is refused with what to do', async (_what, bytes, message) => {
    expect(isWorkbook(bytes)).toBe(true);
    await expect(readRollXlsx(bytes)).rejects.toThrow(message);
  });

  it.each([
    ['with something in its last column', (xml: string) => xml.replace('r="A1"', 'r="XFD1"'), /column 16384/],
    [
      'whose document type makes words that unfold',
      (xml: string) =>
        xml.replace(
          '<worksheet',
          `<!DOCTYPE w [${Array.from({ length: 20 }, (_, n) => `<!ENTITY e${n + 1} "&e${n};&e${n};">`).join('')}]><worksheet`,
        ),
      /cannot be read|can be read/,
    ],
  ])('%s is refused at once', async (_what, change, message) => {
    const files = unzipSync(await workbook((sheet) => sheet.addRow(['Name', 'Servings'])));
    const name = 'xl/worksheets/sheet1.xml';
    const changed = change(strFromU8(files[name] as Uint8Array));
    expect(changed).not.toBe(strFromU8(files[name] as Uint8Array));
    await expect(readRollXlsx(zipSync({ ...files, [name]: strToU8(changed) }))).rejects.toThrow(message);
  });

  it('goes out and comes back the same; nothing in it runs as a formula', async () => {
    const person = {
      name: '=cmd()',
      age: '9',
      servings: '3',
      avoids: 'egg; milk',
      mode: '',
      group: '',
      household: 'Finch',
      contact: '+44 20',
      address: '',
      plan: 'Call first.',
    };
    const bytes = await writeRollXlsx([person]);
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(bytes.buffer as ArrayBuffer);
    expect(book.worksheets[0]?.getCell('A2').type).toBe(ExcelJS.ValueType.String);
    expect((await readRollXlsx(bytes)).rows[0]?.cells).toEqual(person);
  });
});

describe('a kit sheet as a workbook', () => {
  it('adds up with live formulas what the sheet says, whatever stands in for what', async () => {
    const input: SheetInput = {
      system: 'metric',
      dishes: [
        {
          id: 'dish',
          title: 'Bread',
          recipe: {
            servings: 4,
            lines: [
              { ingredient: 'plain wheat flour', amount: '400', unit: 'g', pack_grams: '1000' },
              {
                ingredient: 'butter',
                amount: '50',
                unit: 'g',
                alternatives: [{ ingredient: 'olive oil', amount: '40', unit: 'g' }],
              },
              { ingredient: 'olive oil', amount: '10', unit: 'g' },
            ],
          },
        },
      ],
      labels: {},
      reference: TYPICAL,
    };
    const needs = [{ asWritten: 'milk', codes: ['MILK'] }];
    const roll = [0, 1, 2, 3].map((at) => ({
      id: String(at),
      name: `P${at}`,
      servings: 4,
      needs: at === 2 ? needs : at === 3 ? [{ asWritten: 'E120', codes: undefined }] : [],
      // One family takes oil from its own shelf: nothing is bought for it.
      ...(at === 1 ? { supply: { staples: ['olive oil'] } } : {}),
    }));
    const outcome = computeSheet(input, roll);
    if ('problems' in outcome) throw new Error('problems');
    const content = sheetContent(input, outcome);
    const book = new ExcelJS.Workbook();
    await book.xlsx.load((await writeSheetXlsx(content, 'Breads')).buffer as ArrayBuffer);
    const kits = book.getWorksheet('Kits');
    expect(kits?.getCell('F6').formula).toBe('SUMPRODUCT($C$6:$E$6,$C$3:$E$3)');
    expect(kits?.getCell('B9').value).toBe('olive oil');
    expect(kits?.getCell('B10').value).toBe('olive oil (at home already)');
    expect(kits?.getCell('C11').formula).toBe('SUM(C6:C9)');
    // What stands at home already weighs nothing in the bag.
    expect([kits?.getCell('C11').result, kits?.getCell('D11').result]).toEqual([460, 450]);
    const [contains, , people] = [12, 13, 14].map((row) => kits?.getRow(row).values as string[]);
    expect(contains?.[1]).toBe('Contains');
    expect(contains?.slice(3)).toEqual(['milk, wheat, gluten', 'milk, wheat, gluten', 'wheat, gluten']);
    expect([...(people?.slice(3) ?? [])].sort()).toEqual(['P0', 'P1', 'P2']);
    // Who gets no kit is said, not left out.
    expect(kits?.getCell('B15').value).toBe('P3: “E120” has no meaning yet');
    const buy = book.getWorksheet('To buy');
    for (const [at, total] of content.totals.entries()) {
      const row = buy?.getRow(at + 2);
      expect(row?.getCell(1).value).toBe(total.ingredient);
      // What the formula comes to when it is worked out by hand from the cells it names.
      const formula = String(row?.getCell(3).formula);
      const sum = formula.split('+').reduce((all, place) => {
        const line = Number(place.replace(/\D+/g, ''));
        const of = (column: number) =>
          Number(kits?.getRow(line).getCell(column).value) * Number(kits?.getRow(3).getCell(column).value);
        return all + of(3) + of(4) + of(5);
      }, 0);
      expect(sum).toBeCloseTo(Number(total.edibleGrams), 6);
      expect(row?.getCell(3).result).toBeCloseTo(sum, 6);
    }
    // 1,200 g of flour in packs of 1,000 g are two; the number follows when another number of kits is tried.
    expect(buy?.getRow(2).getCell(5).value).toEqual({ formula: 'ROUNDUP(ROUND(C2*0.001,6),0)', result: 2 });
    expect(buy?.getRow(2).getCell(4).value).toEqual({ formula: 'C2*1', result: 1200 });
  });
});
