import type { SheetContent } from '@/core/kits/record/sheet-content';
import type { KitLabel } from '@/core/packing/label';
import { type CourseDishes, dishesForCourse } from '@/core/recipes/choosing/course-dishes';
import type { Reference } from '@/core/reference/reference';
import { checkRoll, type NumberedCells } from '@/core/roll/check-roll';
import type { RollCells } from '@/core/roll/roll-row';
import { readCalendar } from '@/formats/icalendar-in';
import type { PaperName } from '@/formats/label-layout';
import { labelsPdf } from '@/formats/labels-pdf';
import { readMenuCsv } from '@/formats/menu-csv';
import { draftIncoming } from '@/formats/recipe-any';
import { readRecipeFile } from '@/formats/recipe-json-ld';
import { readRollCsv } from '@/formats/roll-csv';
import type { ColumnWords, HeadingsKnown } from '@/formats/roll-headings';
import { isWorkbook, readRollXlsx, writeRollXlsx } from '@/formats/roll-xlsx';
import { type SheetTitle, sheetPdf } from '@/formats/sheet-pdf';
import { writeSheetXlsx } from '@/formats/sheet-xlsx';

/** Everything that is done in a process of the pool: reading what people send, and what takes long to make. */
export const TASKS = {
  readRoll: ({ bytes, remembered, ...known }: { bytes: Uint8Array; remembered: ColumnWords } & HeadingsKnown) =>
    isWorkbook(bytes) ? readRollXlsx(bytes, remembered, known) : readRollCsv(bytes, remembered, known),

  checkRows: ({
    rows,
    enrolled,
    groups,
  }: {
    rows: readonly NumberedCells[];
    enrolled: Parameters<typeof checkRoll>[1];
    groups: readonly string[];
  }) => checkRoll(rows, enrolled, groups),

  readRecipes: ({ bytes, reference }: { bytes: Uint8Array; reference: Reference }) => draftIncoming(bytes, reference),

  readRecipeFile: ({ bytes, reference }: { bytes: Uint8Array; reference: Reference }) =>
    readRecipeFile(bytes, reference),

  readCalendar: ({
    bytes,
    window,
    timeZone,
  }: {
    bytes: Uint8Array;
    window: { readonly from: string; readonly to: string };
    timeZone: string;
  }) => readCalendar(bytes, window, timeZone),

  readMenu: ({ text, reference }: { text: string; reference: Reference }) => readMenuCsv(text, reference),

  chooseDishes: (task: CourseDishes) => dishesForCourse(task),

  labelsPdf: ({ labels, paper }: { labels: readonly KitLabel[]; paper: PaperName }) => labelsPdf(labels, paper),

  sheetPdf: ({ content, title, paper }: { content: SheetContent; title: SheetTitle; paper: 'A4' | 'LETTER' }) =>
    sheetPdf(content, title, paper),

  sheetXlsx: ({ content, title }: { content: SheetContent; title: string }) => writeSheetXlsx(content, title),

  rollXlsx: ({ people }: { people: readonly Required<RollCells>[] }) => writeRollXlsx(people),
};

type Tasks = typeof TASKS;
export type TaskName = keyof Tasks;
export type TaskInput<Name extends TaskName> = Parameters<Tasks[Name]>[0];
export type TaskAnswer<Name extends TaskName> = Awaited<ReturnType<Tasks[Name]>>;
