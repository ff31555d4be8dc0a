import ExcelJS from 'exceljs';
import { type ItemTotal, packOf, type Total } from '@/core/kits/purchase/totals';
import {
  COURSE_SUPPLIES,
  type SheetComponent,
  type SheetContent,
  type SheetVariant,
  whyRefused,
} from '@/core/kits/record/sheet-content';
import { recomputeSheet } from '@/core/kits/record/snapshot';
import { isElsewhere } from '@/core/kits/supply/supplied';
import { plainSay } from '@/core/quantity/plain-words';
import {
  add,
  divide,
  fromText,
  multiply,
  ONE,
  type Rational,
  rational,
  sign,
  toNumber,
  ZERO,
} from '@/core/quantity/rational';
import { lettersOf } from '../columns';

const numberOf = (exact: string): number => toNumber(fromText(exact));

/** "olive oil", "olive oil (from the jar)". */
function nameOf({ name, from, isShared }: SheetComponent): string {
  const where = from ?? (isShared ? 'at the station' : undefined);
  return where === undefined ? name : `${name} (${where})`;
}

const HEAD = 5;
/** Rows above the first component: title, letters, counts, servings, made without. */
const FIRST = HEAD + 1;

/**
 * A kit sheet as a workbook. On "Kits": components down, variants across, grams in one kit; the grams in all kits are live
 * formulas over the number of kits, so that somebody can try another number. On "To buy": the totals by food, formulas over
 * the first sheet, and what is bought with trimming and spare, in whole packs, formulas over those. Where one food is trimmed in
 * several ways, its grams to buy keep the share that they have now.
 */
export async function writeSheetXlsx(content: SheetContent, title: string): Promise<Uint8Array<ArrayBuffer>> {
  const book = new ExcelJS.Workbook();
  const kits = book.addWorksheet('Kits', { views: [{ state: 'frozen', xSplit: 2, ySplit: HEAD }] });
  const made = content.variants.filter((variant): variant is Made => variant.components !== null);
  const last = 2 + made.length;
  const all = last + 1;
  kits.getCell(1, 1).value = title;
  kits.getCell(1, 1).font = { bold: true, size: 14 };
  const head = (row: number, label: string, of: (variant: Made) => string | number) => {
    kits.getCell(row, 1).value = label;
    for (const [at, variant] of made.entries()) kits.getCell(row, 3 + at).value = of(variant);
    kits.getRow(row).font = { bold: true };
  };
  head(2, 'Variant', ({ letter }) => letter);
  head(3, 'Kits', ({ participants }) => participants.length);
  head(4, 'Servings', ({ servings }) => servings);
  head(5, 'Made without', ({ madeWithout }) => madeWithout.join(', '));
  kits.getCell(2, all).value = 'Grams in all kits';
  const places = new Map<string, string[]>();
  /** Rows of what a kit holds itself. */
  const carried: number[] = [];
  let row = FIRST;
  for (const [place, each] of content.rows.entries()) {
    const items = new Map<string, { name: string; ingredient: string; isBought: boolean; isHeld: boolean }>();
    for (const { components } of made)
      for (const component of components)
        if (component.row === place) {
          const { ingredient, from } = component;
          const name = nameOf(component);
          items.set(name, { name, ingredient, isBought: from === undefined, isHeld: !isElsewhere(component) });
        }
    // What stands in for the written food has a row of its own, another food is bought for it; so has what is not bought.
    for (const { name, ingredient, isBought, isHeld } of items.values()) {
      kits.getCell(row, 1).value = content.input.dishes[each.dish]?.title ?? COURSE_SUPPLIES;
      kits.getCell(row, 2).value = name;
      for (const [at, { components }] of made.entries()) {
        const own = components.find((component) => component.row === place && nameOf(component) === name);
        const cell = kits.getCell(row, 3 + at);
        cell.value = own ? numberOf(own.grams) : 0;
        cell.numFmt = '0.###';
        if (own) cell.note = plainSay(own.say);
      }
      const span = (line: number) => `$C$${line}:$${lettersOf(last)}$${line}`;
      const total = made.reduce((sum, { components, participants }) => {
        const own = components.find((component) => component.row === place && nameOf(component) === name);
        return sum + (own ? numberOf(own.grams) * participants.length : 0);
      }, 0);
      const cell = kits.getCell(row, all);
      cell.value = {
        formula: `SUMPRODUCT(${span(row)},$C$3:$${lettersOf(last)}$3)`,
        result: total,
      };
      cell.numFmt = '0.###';
      if (isBought) places.set(ingredient, [...(places.get(ingredient) ?? []), `Kits!${lettersOf(all)}${row}`]);
      if (isHeld) carried.push(row);
      row++;
    }
  }
  below(kits, row, made, carried);
  const refused = content.variants.filter(({ components }) => components === null);
  for (const [at, variant] of refused.entries()) {
    const people = variant.participants.map(({ name }) => name).join(', ');
    kits.getCell(row + 4 + at, 1).value = 'No kit yet';
    kits.getCell(row + 4 + at, 2).value = `${people}: ${whyRefused(variant).join('; ')}`;
    kits.getRow(row + 4 + at).font = { bold: true };
  }
  kits.getColumn(1).width = 26;
  kits.getColumn(2).width = 30;
  kits.getColumn(all).width = 18;
  const buy = book.addWorksheet('To buy', { views: [{ state: 'frozen', ySplit: 1 }] });
  buy.addRow(['Ingredient', 'Aisle', 'Grams in all kits', 'Grams to buy', 'Packs', 'Grams in a pack', 'Pieces']);
  buy.getRow(1).font = { bold: true };
  const exact = new Map(recomputeSheet(content)?.sheet.totals.map((total) => [total.ingredient, total]));
  for (const [at, total] of content.totals.entries()) {
    const line = at + 2;
    const from = places.get(total.ingredient) ?? [];
    const edible = numberOf(total.edibleGrams);
    const known = exact.get(total.ingredient);
    const ratios = known && from.length > 0 ? perGram(known) : {};
    const purchase = total.purchaseGrams ? numberOf(total.purchaseGrams) : null;
    const pack = total.packGrams ?? total.sealedGrams;
    buy
      .addRow([
        total.ingredient,
        total.aisle,
        from.length > 0 ? { formula: from.join('+'), result: edible } : edible,
        ratios.purchase === undefined ? purchase : { formula: `C${line}*${ratios.purchase}`, result: purchase },
        roundedUp(`C${line}`, ratios.packs, edible, total.packs),
        pack ? Number(pack) : null,
        roundedUp(`C${line}`, ratios.pieces, edible, total.pieces),
      ])
      .eachCell((cell, column) => {
        if (column > 2) cell.numFmt = '0.###';
      });
  }
  buy.getColumn(1).width = 28;
  for (const column of [2, 3, 4, 5, 6, 7]) buy.getColumn(column).width = 16;
  return new Uint8Array((await book.xlsx.writeBuffer()) as ArrayBuffer);
}

/** What one edible gram of a food comes to: grams to buy, packs and pieces before they are rounded up; where one ratio says it. */
function perGram({ edible, purchase, items }: Total): { purchase?: number; packs?: number; pieces?: number } {
  if (sign(edible) <= 0) return {};
  const ratio = (amount: Rational) => toNumber(divide(amount, edible));
  const withSpare = (amount: Rational, { item }: ItemTotal) => multiply(amount, add(ONE, item.spare));
  const pack = packOf(items);
  const [only] = items;
  const sealed = items.length === 1 && only?.item.sealedGrams ? withSpare(rational(only.units), only) : undefined;
  const packs =
    sealed ?? (purchase && pack && items.every(({ item }) => !item.sealedGrams) ? divide(purchase, pack) : undefined);
  const pieces = items.map((each) => withSpare(each.pieces, each)).reduce(add, ZERO);
  return {
    ...(purchase ? { purchase: ratio(purchase) } : {}),
    ...(packs ? { packs: ratio(packs) } : {}),
    ...(sign(pieces) > 0 ? { pieces: ratio(pieces) } : {}),
  };
}

/** Whole packs or pieces as a live formula, where that comes to what the sheet says; else as they are. */
function roundedUp(grams: string, each: number | undefined, edible: number, said: number | undefined) {
  if (said === undefined || each === undefined || Math.ceil(Number((edible * each).toFixed(6))) !== said)
    return said ?? null;
  return { formula: `ROUNDUP(ROUND(${grams}*${each},6),0)`, result: said };
}

/** Rising numbers as spans without gaps: 3, 4, 6 are 3 to 4 and 6 to 6. */
function spans(rows: readonly number[]): (readonly [number, number])[] {
  const all: [number, number][] = [];
  for (const row of rows) {
    const last = all.at(-1);
    if (last?.[1] === row - 1) last[1] = row;
    else all.push([row, row]);
  }
  return all;
}

/** Under the components: what a kit weighs, as a live formula, what it holds, and who gets it. */
function below(kits: ExcelJS.Worksheet, row: number, made: readonly Made[], carried: readonly number[]): void {
  const weight = (at: number, { components }: Made) => ({
    formula: `SUM(${spans(carried).map(([from, to]) => `${lettersOf(3 + at)}${from}:${lettersOf(3 + at)}${to}`)})`,
    result: components.reduce((sum, each) => sum + (isElsewhere(each) ? 0 : numberOf(each.grams)), 0),
  });
  const lines: [string, (variant: Made, at: number) => ExcelJS.CellValue][] = [
    ['Weight of one kit', (variant, at) => weight(at, variant)],
    ['Contains', ({ contains }) => contains.join(', ')],
    ['May contain', ({ mayContain }) => mayContain.join(', ')],
    ['People', ({ participants }) => participants.map(({ name }) => name).join(', ')],
  ];
  for (const [under, [label, of]] of lines.entries()) {
    kits.getCell(row + under, 1).value = label;
    for (const [at, variant] of made.entries()) {
      const cell = kits.getCell(row + under, 3 + at);
      cell.value = of(variant, at);
      cell.numFmt = '0.###';
      cell.alignment = { wrapText: true, vertical: 'top' };
    }
  }
}

type Made = SheetVariant & { readonly components: NonNullable<SheetVariant['components']> };
