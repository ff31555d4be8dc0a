import { type Font, openSync } from 'fontkit';
import type { KitLabel } from '@/core/packing/label';
import { FONT_FILES } from '../pdf';

/** A sheet of labels: page and label sizes in points (1/72 inch). */
export interface Paper {
  readonly page: { readonly width: number; readonly height: number };
  readonly columns: number;
  readonly rows: number;
  readonly label: { readonly width: number; readonly height: number };
  readonly margin: { readonly left: number; readonly top: number };
}

const MM = 72 / 25.4;

/** A4 with 3 × 8 labels edge to edge; US Letter with 2 × 5 labels of 4 × 2 inches. */
export const PAPERS = {
  a4: {
    page: { width: 210 * MM, height: 297 * MM },
    columns: 3,
    rows: 8,
    label: { width: 70 * MM, height: (297 * MM) / 8 },
    margin: { left: 0, top: 0 },
  },
  letter: {
    page: { width: 612, height: 792 },
    columns: 2,
    rows: 5,
    label: { width: 288, height: 144 },
    margin: { left: 18, top: 36 },
  },
} as const satisfies Record<string, Paper>;

export type PaperName = keyof typeof PAPERS;

/** One printed line of a label. */
export interface LabelLine {
  readonly text: string;
  readonly bold: boolean;
  readonly size: number;
}

/** One label as it is printed: a kit may need more than one when it holds much. */
export interface LabelPlace {
  readonly label: KitLabel;
  readonly lines: readonly LabelLine[];
  /** "1 of 2", or '' when one label holds everything. */
  readonly part: string;
}

/** A text that the label font cannot print rightly; the message names it and whose label it is on. */
export class GlyphMissing extends Error {
  override name = 'GlyphMissing';
}

/** Space kept free inside a label's edge, and beside the code. */
export const PADDING = 7;
const GAP = 5;

/** Side of the code, at least so large that a phone reads it, and with the label larger. */
export const codeSize = ({ label }: Paper): number => Math.max(46, Math.round(label.height * 0.43));

const LEADING = 1.17;
/** Sizes of the text as parts of its normal size, largest first: letters grow until the label is full. */
const SCALES = Array.from({ length: 37 }, (_, at) => (260 - at * 5) / 100);

/** A font, with the widths of the characters met so far: looking one up in the file takes long. */
interface Face {
  readonly font: Font;
  readonly advances: Map<string, number>;
}

let fonts: { regular: Face; bold: Face } | undefined;

function loadFonts() {
  const open = (file: string): Face => ({ font: openSync(file) as Font, advances: new Map() });
  fonts ??= { regular: open(FONT_FILES.regular), bold: open(FONT_FILES.bold) };
  return fonts;
}

/** Scripts whose letters change with their neighbours or run right to left: printed letter by letter they are wrong. */
const NEEDS_SHAPING =
  /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Devanagari}\p{Script=Bengali}\p{Script=Tamil}\p{Script=Thai}\p{Script=Khmer}\p{Script=Myanmar}]/u;

/**
 * @param whose names what holds the text: "The label of Ada"
 * @throws GlyphMissing when a character cannot be printed rightly
 */
export function refuseUnprintable(text: string, whose: string): void {
  const { regular, bold } = loadFonts();
  for (const character of text) {
    // Measured before, so it is in both fonts.
    if (regular.advances.has(character) && bold.advances.has(character)) continue;
    const code = character.codePointAt(0) as number;
    const known = regular.font.hasGlyphForCodePoint(code) && bold.font.hasGlyphForCodePoint(code);
    if (known && !NEEDS_SHAPING.test(character)) continue;
    throw new GlyphMissing(
      `${whose} holds "${character}" (U+${code.toString(16).toUpperCase().padStart(4, '0')}), which the printed font does not have. Write that name in Latin, Greek or Cyrillic letters on the roll, lock the sheet again, and print.`,
    );
  }
}

/** Width of a text in points. */
function widthOf(text: string, size: number, bold: boolean): number {
  const { font, advances } = bold ? loadFonts().bold : loadFonts().regular;
  let units = 0;
  for (const character of text) {
    let advance = advances.get(character);
    if (advance === undefined) {
      advance = font.glyphForCodePoint(character.codePointAt(0) as number).advanceWidth;
      advances.set(character, advance);
    }
    units += advance;
  }
  return (units * size) / font.unitsPerEm;
}

/** Breaks a text into lines at spaces; a word wider than the line is broken where it must be. */
function wrap(text: string, size: number, bold: boolean, width: number): string[] {
  const lines: string[] = [];
  let line = '';
  const push = (word: string) => {
    const longer = line ? `${line} ${word}` : word;
    if (widthOf(longer, size, bold) <= width) line = longer;
    else {
      if (line) lines.push(line);
      line = word;
    }
  };
  for (const word of text.split(' ')) {
    let rest = word;
    while (widthOf(rest, size, bold) > width) {
      let fits = rest.length - 1;
      while (fits > 1 && widthOf(rest.slice(0, fits), size, bold) > width) fits--;
      push(rest.slice(0, fits));
      rest = rest.slice(fits);
    }
    if (rest) push(rest);
  }
  if (line) lines.push(line);
  return lines;
}

interface Block {
  readonly text: string;
  readonly bold: boolean;
  readonly size: number;
}

/** What every label of a kit carries: who, which, and what could hurt. */
const head = (label: KitLabel): Block[] => [
  { text: label.name, bold: true, size: 9.5 },
  ...(label.dish ? [{ text: label.dish, bold: true, size: 6.6 }] : []),
  { text: [label.group, label.session].filter(Boolean).join(', '), bold: false, size: 5.6 },
  { text: [label.madeWithout, label.allergens].filter(Boolean).join(' '), bold: true, size: 6.2 },
];

const foot = (label: KitLabel): Block => ({ text: label.keep, bold: true, size: 6 });

/**
 * Lays a kit's label out: the largest text that fits; what does not fit even at the smallest size goes on further labels
 * that carry the name and the allergens again. Nothing is ever cut.
 *
 * @throws GlyphMissing when a character cannot be printed rightly
 */
export function layLabel(label: KitLabel, paper: Paper): LabelPlace[] {
  const blocks = [...head(label), ...label.inside.map((text) => ({ text })), foot(label)];
  for (const { text } of blocks) refuseUnprintable(text, `The label of ${label.name}`);
  const width = paper.label.width - 2 * PADDING - codeSize(paper) - GAP;
  const height = paper.label.height - 2 * PADDING;
  const linesOf = (inside: readonly string[], scale: number): LabelLine[] =>
    [...head(label), { text: inside.join('; '), bold: false, size: 6 }, foot(label)].flatMap(({ text, bold, size }) =>
      wrap(text, size * scale, bold, width).map((line) => ({ text: line, bold, size: size * scale })),
    );
  const fits = (lines: readonly LabelLine[]) => lines.reduce((sum, { size }) => sum + size * LEADING, 0) <= height;

  for (const scale of SCALES) {
    const lines = linesOf(label.inside, scale);
    if (fits(lines)) return [{ label, lines, part: '' }];
  }
  const smallest = SCALES.at(-1) as number;
  const parts: string[][] = [[]];
  for (const entry of label.inside) {
    const current = parts.at(-1) as string[];
    if (current.length === 0 || fits(linesOf([...current, entry], smallest))) current.push(entry);
    else parts.push([entry]);
  }
  return parts.map((inside, index) => ({
    label,
    lines: linesOf(inside, smallest),
    part: `${index + 1} of ${parts.length}`,
  }));
}

/** Height of one line of text. */
export const lineHeight = (size: number): number => size * LEADING;
