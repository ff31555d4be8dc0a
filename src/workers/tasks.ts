import type { BuyingCase } from '@/core/buying/case';
import { cheapestBuying } from '@/core/buying/cheapest';
import type { BuyingSession, FoodNeed } from '@/core/buying/needs';
import { planBuying } from '@/core/buying/plan';
import type { BuyingWorld } from '@/core/buying/plan-case';
import { type Shortage, tryNeeds, waysOut } from '@/core/buying/trials';
import type { ClassPlan } from '@/core/classday/live/class-plan';
import { planAgain } from '@/core/classday/live/plan-again';
import { planRunSheet } from '@/core/classday/run-sheet/run-sheet';
import type { RunSheetCase } from '@/core/classday/run-sheet/sheet-case';
import { reportOf } from '@/core/closeout/report/report';
import type { ReportFacts } from '@/core/closeout/report/report-facts';
import { bestRoster, figuresOf, planRoster } from '@/core/crew/roster';
import type { Place, RosterCase } from '@/core/crew/roster-case';
import { whyEmpty } from '@/core/crew/roster-why';
import type { RoutesCase } from '@/core/handout/routes/route-case';
import { planRoutes } from '@/core/handout/routes/routes';
import type { SheetContent } from '@/core/kits/record/sheet-content';
import type { KitLabel } from '@/core/packing/label';
import { type CourseDishes, type DishRecipe, dishesForCourse } from '@/core/recipes/choosing/course-dishes';
import { recipeOverview } from '@/core/recipes/choosing/recipe-overview';
import type { Product } from '@/core/recipes/recipe/cost';
import { findIngredient, indexed, type Reference } from '@/core/reference/reference';
import { checkRoll, type NumberedCells } from '@/core/roll/check-roll';
import type { ColumnWords, RollCells } from '@/core/roll/roll-row';
import { readPriceCsv } from '@/formats/buying/price-csv';
import { reportPdf } from '@/formats/closeout/report-pdf';
import type { ReportOut } from '@/formats/closeout/report-rows';
import { writeReportXlsx } from '@/formats/closeout/report-xlsx';
import { certificatePdf } from '@/formats/crew/certificate-pdf';
import { readCrewCsv } from '@/formats/crew/crew-csv';
import type { HoursOf } from '@/formats/crew/hours-csv';
import { type HoursTitle, hoursPdf } from '@/formats/crew/hours-pdf';
import { type SheetTitle, sheetPdf } from '@/formats/kits/sheet-pdf';
import { writeSheetXlsx } from '@/formats/kits/sheet-xlsx';
import type { PaperName } from '@/formats/packing/label-layout';
import { labelsPdf } from '@/formats/packing/labels-pdf';
import { readCalendar } from '@/formats/plan/icalendar-in';
import { readMenuCsv } from '@/formats/recipes/menu-csv';
import { draftIncoming } from '@/formats/recipes/recipe-any';
import { readRecipeFile } from '@/formats/recipes/recipe-json-ld';
import { readRollCsv } from '@/formats/roll/roll-csv';
import type { HeadingsKnown } from '@/formats/roll/roll-headings';
import { isWorkbook, readRollXlsx, writeRollXlsx } from '@/formats/roll/roll-xlsx';
import { milpSolver } from './highs';

/** Everything that is done in a process of the pool: reading what people send, and what takes long to make. */
export const TASKS = {
  readRoll: ({ bytes, remembered, ...known }: { bytes: Uint8Array; remembered: ColumnWords } & HeadingsKnown) =>
    isWorkbook(bytes) ? readRollXlsx(bytes, remembered, known) : readRollCsv(bytes, remembered, known),

  checkRows: ({
    rows,
    enrolled,
    groups,
    homes,
  }: {
    rows: readonly NumberedCells[];
    enrolled: Parameters<typeof checkRoll>[1];
    groups: readonly string[];
    homes: Parameters<typeof checkRoll>[3];
  }) => checkRoll(rows, enrolled, groups, homes),

  readRecipes: ({ bytes, reference }: { bytes: Uint8Array; reference: Reference }) =>
    draftIncoming(bytes, indexed(reference)),

  readRecipeFile: ({ bytes, reference }: { bytes: Uint8Array; reference: Reference }) =>
    readRecipeFile(bytes, indexed(reference)),

  readCalendar: ({
    bytes,
    window,
    timeZone,
  }: {
    bytes: Uint8Array;
    window: { readonly from: string; readonly to: string };
    timeZone: string;
  }) => readCalendar(bytes, window, timeZone),

  readPrices: ({ bytes }: { bytes: Uint8Array }) => readPriceCsv(bytes),

  hoursPdf: ({ people, title, paper }: { people: readonly HoursOf[]; title: HoursTitle; paper: 'A4' | 'LETTER' }) =>
    hoursPdf(people, title, paper),

  certificatePdf: ({
    people,
    title,
    paper,
  }: {
    people: readonly HoursOf[];
    title: HoursTitle;
    paper: 'A4' | 'LETTER';
  }) => certificatePdf(people, title, paper),

  readCrew: ({ bytes }: { bytes: Uint8Array }) => readCrewCsv(bytes),

  readMenu: ({ text, reference }: { text: string; reference: Reference }) => readMenuCsv(text, indexed(reference)),

  makeReport: (facts: ReportFacts) => reportOf(facts),
  reportXlsx: (report: ReportOut) => writeReportXlsx(report),
  reportPdf: ({ report, paper }: { report: ReportOut; paper: 'A4' | 'LETTER' }) => reportPdf(report, paper),

  planBuying: async (task: BuyingCase) =>
    cheapestBuying(task, { solve: await milpSolver(), clock: () => performance.now() / 1000 }),

  planCourseBuying: async ({
    world,
    sessions,
    reference,
    seconds,
  }: {
    world: Omit<BuyingWorld, 'foodOf'>;
    sessions: readonly BuyingSession[];
    reference: Reference;
    seconds: number;
  }) => {
    const table = indexed(reference);
    const help = { solve: await milpSolver(), clock: () => performance.now() / 1000 };
    return planBuying({ ...world, foodOf: (name) => findIngredient(table, name) }, sessions, help, seconds);
  },

  planRoster: async (task: RosterCase) =>
    planRoster(task, { solve: await milpSolver(), clock: () => performance.now() / 1000 }),

  planClassAgain: async (task: {
    readonly plan: ClassPlan;
    readonly done: readonly (readonly [string, number])[];
    readonly minute: number;
    readonly without: readonly string[];
    readonly seconds: number;
  }) => {
    const clock = () => performance.now() / 1000;
    return planAgain(task.plan, new Map(task.done), task.minute, new Set(task.without), task.seconds, clock);
  },
  planRunSheet: async (task: RunSheetCase) => planRunSheet(task, () => performance.now() / 1000),

  planRoutes: async (task: RoutesCase) =>
    planRoutes(task, { solve: await milpSolver(), clock: () => performance.now() / 1000 }),

  bestRoster: async (task: RosterCase) =>
    bestRoster(task, { solve: await milpSolver(), clock: () => performance.now() / 1000 }, task.seconds ?? 5),

  /** What would fill a place; or that planning anew would, with nothing else changed. */
  whyEmpty: async ({ given, places, duty }: { given: RosterCase; places: readonly Place[]; duty: string }) => {
    const clock = () => performance.now() / 1000;
    const help = { solve: await milpSolver(), clock };
    const end = clock() + (given.seconds ?? 2);
    const { empty } = figuresOf(given, places);
    const best = bestRoster(given, help, (given.seconds ?? 2) / 2);
    if (best.empty < empty) return { isBetter: true, would: [] };
    return { isBetter: false, would: whyEmpty(given, { places, empty }, { ...help, end }, [duty])[0]?.would ?? [] };
  },

  tryBuying: async ({
    world,
    trials,
    shortages,
    reference,
  }: {
    world: Omit<BuyingWorld, 'foodOf'>;
    trials: readonly (readonly FoodNeed[])[];
    shortages: readonly Shortage[];
    reference: Reference;
  }) => {
    const table = indexed(reference);
    const help = { solve: await milpSolver(), clock: () => performance.now() / 1000 };
    const known = { ...world, foodOf: (name: string) => findIngredient(table, name) };
    return {
      trials: trials.map((needs) => tryNeeds(known, needs, help, 2)),
      ways: shortages.map((shortage) => waysOut(shortage, known, help)),
    };
  },

  recipeOverviews: ({
    dishes,
    reference,
    products,
    month,
  }: {
    dishes: readonly DishRecipe[];
    reference: Reference;
    products: readonly Product[];
    month: number;
  }) => {
    const table = indexed(reference);
    return dishes.map((dish) => recipeOverview(dish, table, products, month) ?? null);
  },

  chooseDishes: (task: CourseDishes) => dishesForCourse({ ...task, reference: indexed(task.reference) }),

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
