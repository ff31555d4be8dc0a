import {
  COURSE_SUPPLIES,
  type SheetComponent,
  type SheetContent,
  type SheetVariant,
  whyRefused,
} from '@/core/kits/record/sheet-content';
import { WHOLE } from '@/core/kits/supply/supplied';
import { plainSay } from '@/core/quantity/plain-words';
import { refuseUnprintable } from '../packing/label-layout';
import { makePdf, type Pdf } from '../pdf';

/** What a kit sheet in print begins with. */
export interface SheetTitle {
  readonly title: string;
  /** "Revision 2, locked by Marit Solway", or that it is a draft. */
  readonly state: string;
}

/** Variants side by side on a page; more go on further pages. */
const ACROSS = 6;
const MARGIN = 36;

/** What stands in a cell: the amount, what stands in, and where it comes from. */
function sayCell(variant: SheetVariant, row: number): string {
  if (!variant.components) return 'refused';
  const component = variant.components.find((each) => each.row === row);
  if (!component) return '–';
  const { name, say, sayGrams, option, from, isShared, isCatchUp, product, use } = component as SheetComponent;
  return [
    option > 0 ? `instead: ${name}` : '',
    name.endsWith(WHOLE) ? WHOLE : '',
    product ? `only “${product}”` : '',
    plainSay(say),
    sayGrams && !say.includes(sayGrams) ? sayGrams : '',
    use ?? '',
    from ?? '',
    isShared ? 'at the station' : '',
    isCatchUp ? 'catch-up' : '',
  ]
    .filter(Boolean)
    .join('\n');
}

/**
 * A kit sheet as a PDF to print in black and white: landscape, six variants a page, then the totals to buy.
 *
 * @param paper 'A4' or 'LETTER'
 * @throws GlyphMissing when a name holds a character that cannot be printed rightly
 */
export function sheetPdf(
  content: SheetContent,
  { title, state }: SheetTitle,
  paper: 'A4' | 'LETTER',
): Promise<Uint8Array> {
  return makePdf(title, { size: paper, layout: 'landscape', margin: MARGIN }, (pdf) => {
    const write = (text: string, size: number, bold = false) => {
      refuseUnprintable(text.replaceAll('\n', ' '), 'The kit sheet');
      pdf.font(bold ? 'bold' : 'regular', size).text(text);
    };
    for (let from = 0; from < Math.max(1, content.variants.length); from += ACROSS) {
      if (from > 0) pdf.addPage();
      write(title, 15, true);
      write(state, 9);
      pdf.moveDown(0.6);
      const variants = content.variants.slice(from, from + ACROSS);
      const rows = kitRows(content, variants);
      for (const text of rows.flat()) refuseUnprintable(text.replaceAll('\n', ' '), 'The kit sheet');
      table(pdf, rows, [130, ...variants.map(() => '*' as const)]);
    }
    pdf.addPage();
    write(`${title}: to buy`, 15, true);
    pdf.moveDown(0.6);
    const totals = content.totals.map(({ ingredient, sayEdible, sayPurchase, packs, packGrams, sealedGrams }) => [
      ingredient,
      sayEdible,
      sayPurchase ?? 'whole packs',
      packs === undefined ? '' : `${packs} × ${packGrams ?? sealedGrams} g`,
    ]);
    table(
      pdf,
      [['Ingredient', 'In all kits', 'To buy, with trimming and spare', 'Packs'], ...totals],
      ['*', 110, 170, 110],
    );
    pdf.moveDown();
    write('“Made without” is never “free from”. Follow your local code and your venue’s rules.', 8);
  });
}

/** Ingredients down, variants across, people under each. */
function kitRows(content: SheetContent, variants: readonly SheetVariant[]): string[][] {
  const head = [
    'In one kit',
    ...variants.map(({ letter, participants, servings, madeWithout, refusals, unknownWishes, extra }) =>
      [
        `${letter}: ${participants.length} × ${extra ?? 'kit'}, feeding ${servings}`,
        madeWithout.length > 0 ? `made without ${madeWithout.join(', ')}` : '',
        ...whyRefused({ refusals, unknownWishes }).map((why) => `no kit yet: ${why}`),
      ]
        .filter(Boolean)
        .join('\n'),
    ),
  ];
  const body = content.rows.map((row, place) => {
    const first = content.rows[place - 1]?.dish !== row.dish;
    const dish = content.input.dishes[row.dish]?.title ?? COURSE_SUPPLIES;
    return [first ? `${dish}:\n${row.name}` : row.name, ...variants.map((variant) => sayCell(variant, place))];
  });
  const under: [string, (variant: SheetVariant) => string][] = [
    ['Weight of one kit', ({ components, sayGrams }) => (components ? sayGrams : '')],
    ['Contains', ({ components, contains }) => (components ? contains.join(', ') : '')],
    ['May contain', ({ components, mayContain }) => (components ? mayContain.join(', ') : '')],
    ['People', ({ participants }) => participants.map(({ name }) => name).join(', ')],
  ];
  return [head, ...body, ...under.map(([label, of]) => [label, ...variants.map(of)])];
}

/** A ruled table whose head is bold. */
function table(pdf: Pdf, rows: readonly string[][], widths: (number | '*')[]): void {
  pdf.font('regular', 8);
  pdf.table({
    columnStyles: widths,
    rowStyles: (at: number) => ({
      border: [at === 0 ? 1 : 0.25, 0, 0.25, 0],
      padding: 2,
      ...(at === 0 ? { font: { src: 'bold', size: 8 } } : {}),
    }),
    data: rows.map((row) => [...row]),
  });
}
