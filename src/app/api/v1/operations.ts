import { z } from 'zod';
import * as api from '@/contracts/api';
import { sentTicks } from '@/contracts/bench';
import { buyingAnswer, buyingCase } from '@/contracts/buying';
import { kitCaseRequest } from '@/contracts/kit-case';
import { editedSession, newCourse, newSession } from '@/contracts/plan';
import { rosterAnswer, rosterCase } from '@/contracts/roster';
import { routesAnswer, routesCase } from '@/contracts/routes';
import { runSheetAnswer, runSheetCase } from '@/contracts/run-sheet';
import { whyRefused } from '@/core/kits/record/sheet-content';
import { calledBackNow } from '@/core/packing/progress';
import { labelsOf, withoutLabels } from '@/core/recipes/reading/line-details';
import { viewShoppingList } from '@/services/buying/shopping';
import { viewReport } from '@/services/closeout/reports';
import { computeBuying } from '@/services/compute/buying';
import { computeKits } from '@/services/compute/kits';
import { computeRoster } from '@/services/compute/roster';
import { computeRoutes } from '@/services/compute/routes';
import { computeRunSheet } from '@/services/compute/run-sheet';
import { ServiceError } from '@/services/errors';
import type { Context } from '@/services/gate/gate';
import { exportSheet, lockKitSheet, viewKitSheet } from '@/services/kits/kit-sheet';
import { recordTicks, viewEvents } from '@/services/packing/bench';
import { printLabels, sendToPrinter } from '@/services/packing/labels';
import { addCourse, listCourses, viewCourse } from '@/services/plan/courses';
import { addDish, addSession, editSession, removeDish } from '@/services/plan/sessions';
import { exportRecipe, listRecipes, previewRecipeFile, saveRecipe } from '@/services/recipes/recipes';
import { viewRoll } from '@/services/roll/roll';
import { exportRoll, previewRollFile, saveRoll } from '@/services/roll/roll-file';
import { cancelJob, viewJob } from '@/services/work/jobs';
import { type Operation, operation, pageOfItems } from './operation';

const MB = 1024 * 1024;
const json = (schema: z.ZodType, most = MB) => ({ type: 'application/json', schema, most });
const ok = (schema: z.ZodType, types?: readonly string[]) => ({ status: 200, schema, ...(types ? { types } : {}) });
const made = { status: 201, schema: api.created };
const CSV = 'text/csv';

const lineNumbers = z
  .string()
  .regex(/^\d+(,\d+)*$/, 'Write line numbers with commas between, such as 3,7.')
  .optional();

/** A body together with the ids of the path; anything but an object is refused by the service's own schema. */
const together = (body: unknown, params: Readonly<Record<string, string>>): never =>
  (body && typeof body === 'object' && !Array.isArray(body) ? { ...body, ...params } : body) as never;

/**
 * Reads a recipe file and saves it.
 *
 * @param labels what becomes of product labels that the file states: whose products they are, only the sender knows
 * @throws ServiceError when the file states labels, and the sender has not said
 */
async function bringRecipe(context: Context, bytes: Uint8Array, labels?: 'keep' | 'leave'): Promise<string> {
  const preview = await previewRecipeFile(context, { bytes });
  if ('file' in preview) {
    const { file } = preview;
    const stated = file.body.lines.flatMap((line, at) =>
      labelsOf(line).map((label) => ({ where: `line ${at + 1}`, message: `It states a label: ${label}.` })),
    );
    if (stated.length > 0 && !labels)
      throw new ServiceError(
        'invalid',
        'The recipe states labels of products. Are they those that you use? Send labels=keep, or labels=leave to bring it in without them. Nothing was saved.',
        stated,
      );
    const lines = labels === 'leave' ? file.body.lines.map(withoutLabels) : file.body.lines;
    return saveRecipe(context, { ...file, body: { ...file.body, lines } });
  }
  const problems = preview.problems.map(({ path, message }) => ({ where: path, message }));
  throw new ServiceError('invalid', 'The recipe cannot be computed with yet. Nothing was saved.', problems);
}

/** Every operation of the API, in working order. */
export const OPERATIONS: readonly Operation[] = [
  operation({
    method: 'POST',
    path: '/compute/kits',
    summary: 'Calculate kits from a recipe, without saving',
    query: z.object({
      working: z.enum(['0', '1']).optional().meta({ description: '1: also the working of each number' }),
    }),
    body: json(kitCaseRequest),
    answer: ok(api.caseResult),
    run: async (context, { query, json }) => ({
      json: await computeKits(
        context,
        query.working === '1' ? together(json(), { working: true } as never) : (json() as never),
      ),
    }),
  }),
  operation({
    method: 'POST',
    path: '/compute/buying',
    summary: 'Plan the cheapest buying for a whole plan, without saving',
    body: json(buyingCase, 2 * MB),
    answer: ok(buyingAnswer),
    run: async (context, { json }) => ({ json: await computeBuying(context, json()) }),
  }),
  operation({
    method: 'POST',
    path: '/compute/roster',
    summary: 'Work out the best roster, without saving',
    body: json(rosterCase, 2 * MB),
    answer: ok(rosterAnswer),
    run: async (context, { json }) => ({ json: await computeRoster(context, json()) }),
  }),
  operation({
    method: 'POST',
    path: '/compute/routes',
    summary: 'Work out the best rounds to the doors, without saving',
    body: json(routesCase, 1 * MB),
    answer: ok(routesAnswer),
    run: async (context, { json }) => ({ json: await computeRoutes(context, json()) }),
  }),
  operation({
    method: 'POST',
    path: '/compute/run-sheet',
    summary: 'Work out the best run sheet of a class, without saving',
    body: json(runSheetCase, 1 * MB),
    answer: ok(runSheetAnswer),
    run: async (context, { json }) => ({ json: await computeRunSheet(context, json()) }),
  }),
  operation({
    method: 'GET',
    path: '/recipes',
    summary: 'Recipes, a page at a time',
    query: api.paging,
    answer: ok(api.pageOf(api.recipeEntry)),
    run: async (context, call) => ({ json: pageOfItems(await listRecipes(context, {}), call) }),
  }),
  operation({
    method: 'POST',
    path: '/recipes',
    summary: 'Bring in a recipe',
    body: { type: 'application/ld+json', what: 'A schema.org Recipe, see docs/formats.md', most: 2 * MB },
    query: z.object({
      labels: z.enum(['keep', 'leave']).optional().meta({
        description:
          'What becomes of product labels that the recipe states; it is refused where they are not spoken of',
      }),
    }),
    answer: made,
    once: true,
    run: async (context, { bytes, query }) => ({
      json: { id: await bringRecipe(context, bytes, query.labels) },
      status: 201,
    }),
  }),
  operation({
    method: 'GET',
    path: '/recipes/{recipeId}',
    summary: 'Take out a recipe as schema.org JSON-LD',
    answer: { status: 200, types: ['application/ld+json'] },
    run: async (context, { params: { recipeId = '' } }) => {
      const { title, text } = await exportRecipe(context, { recipeId });
      return { file: text, type: 'application/ld+json', name: `${title}.json` };
    },
  }),
  operation({
    method: 'GET',
    path: '/courses',
    summary: 'Courses, a page at a time',
    query: api.paging,
    answer: ok(api.pageOf(api.courseEntry)),
    run: async (context, call) => {
      const courses = await listCourses(context, {});
      return {
        json: pageOfItems(
          courses.map(({ id, title, audience }) => ({ id, title, audience })),
          call,
        ),
      };
    },
  }),
  operation({
    method: 'POST',
    path: '/courses',
    summary: 'Add a course',
    body: json(newCourse),
    answer: made,
    once: true,
    run: async (context, { json }) => ({ json: { id: await addCourse(context, json() as never) }, status: 201 }),
  }),
  operation({
    method: 'GET',
    path: '/reports',
    summary: 'A report of past sessions: of a span, a course, or one session',
    query: z.object({
      from: z.string().optional().meta({ description: 'Civil date; a year ago where left out' }),
      to: z.string().optional().meta({ description: 'Civil date; today where left out' }),
      course: z.string().optional().meta({ description: 'Id of a course' }),
      session: z.string().optional().meta({ description: 'Id of a session' }),
    }),
    answer: ok(api.report),
    run: async (context, { query: { course = '', session = '', from = '', to = '' } }) => {
      const found = await viewReport(context, { from, to, courseId: course, sessionId: session });
      const figures = found.figures.map(({ hidden: _, ...figure }) => figure);
      return { json: { title: found.title, from: found.from, to: found.to, figures, sessions: found.sessions } };
    },
  }),
  operation({
    method: 'GET',
    path: '/courses/{courseId}',
    summary: 'A course',
    answer: ok(api.courseEntry),
    run: async (context, { params: { courseId = '' } }) => {
      const { course } = await viewCourse(context, { courseId });
      return { json: { id: course.id, title: course.title, audience: course.audience } };
    },
  }),
  operation({
    method: 'GET',
    path: '/courses/{courseId}/sessions',
    summary: 'Sessions of a course, a page at a time',
    query: api.paging,
    answer: ok(api.pageOf(api.sessionEntry)),
    run: async (context, call) => {
      const { sessions } = await viewCourse(context, { courseId: call.params.courseId ?? '' });
      return { json: pageOfItems(sessions, call) };
    },
  }),
  operation({
    method: 'POST',
    path: '/courses/{courseId}/sessions',
    summary: 'Add a session',
    body: json(newSession.omit({ courseId: true })),
    answer: made,
    once: true,
    run: async (context, { params, json }) => ({
      json: { id: await addSession(context, together(json(), params)) },
      status: 201,
    }),
  }),
  operation({
    method: 'GET',
    path: '/courses/{courseId}/roll',
    summary: 'The roll, a page at a time; whole as CSV',
    query: api.paging,
    answer: ok(api.pageOf(api.rollPerson), ['application/json', CSV]),
    run: async (context, call) => {
      const courseId = call.params.courseId ?? '';
      if (call.accepts(CSV))
        return { file: (await exportRoll(context, { courseId })).text, type: CSV, name: 'roll.csv' };
      const { people } = await viewRoll(context, { courseId });
      const plain = people.map(({ id, name, age, servings, needs, mode, status, version }) => ({
        id,
        name,
        age,
        servings,
        avoids: needs.map(({ asWritten, codes }) => ({ asWritten, codes: codes ?? null })),
        mode,
        status,
        version,
      }));
      return { json: pageOfItems(plain, call) };
    },
  }),
  operation({
    method: 'POST',
    path: '/courses/{courseId}/roll',
    summary: 'Bring in a roll: all rows, or none',
    query: z.object({
      'leave-out': lineNumbers.meta({ description: 'Lines of the file that are expressly left out', example: '3,7' }),
      'same-family': lineNumbers.meta({
        description: 'Lines whose household is the one of that name that is known, though it is reached elsewhere',
        example: '4',
      }),
      'other-family': lineNumbers.meta({
        description: 'Lines whose household only shares its name with the one that is known',
        example: '5',
      }),
    }),
    body: { type: CSV, what: 'A roll, see docs/formats.md', most: 2 * MB },
    answer: { status: 201, schema: api.broughtIn },
    once: true,
    run: async (context, { params: { courseId = '' }, query, bytes }) => {
      const { rows } = await previewRollFile(context, { courseId, bytes });
      const linesOf = (name: string) => new Set(query[name as 'leave-out']?.split(',').map(Number));
      const [leftOut, same, other] = ['leave-out', 'same-family', 'other-family'].map(linesOf);
      const marked = rows.map((row) => ({
        ...row,
        leaveOut: leftOut?.has(row.line),
        ...(same?.has(row.line) ? { home: 'same' } : other?.has(row.line) ? { home: 'other' } : {}),
      }));
      return { json: await saveRoll(context, { courseId, rows: marked as never }), status: 201 };
    },
  }),
  operation({
    method: 'PUT',
    path: '/sessions/{sessionId}',
    summary: 'Change a session’s date, place or mode',
    body: json(editedSession.omit({ sessionId: true })),
    answer: ok(api.done),
    once: true,
    run: async (context, { params, json }) => {
      await editSession(context, together(json(), params));
      return { json: { done: true } };
    },
  }),
  operation({
    method: 'POST',
    path: '/sessions/{sessionId}/dishes',
    summary: 'Choose a dish for a session',
    body: json(z.object({ recipeId: z.uuid() })),
    answer: { status: 201, schema: api.done },
    once: true,
    run: async (context, { params, json }) => {
      await addDish(context, together(json(), params));
      return { json: { done: true }, status: 201 };
    },
  }),
  operation({
    method: 'DELETE',
    path: '/sessions/{sessionId}/dishes/{dishId}',
    summary: 'Take a dish off a session',
    answer: ok(api.done),
    once: true,
    run: async (context, { params: { sessionId = '', dishId = '' } }) => {
      await removeDish(context, { sessionId, dishId });
      return { json: { done: true } };
    },
  }),
  operation({
    method: 'GET',
    path: '/sessions/{sessionId}/kit-sheet',
    summary: 'The kit sheet',
    answer: ok(api.kitSheetDocument, ['application/json', CSV]),
    run: async (context, { params: { sessionId = '' }, accepts }) => {
      if (accepts(CSV)) {
        const { text, name } = await exportSheet(context, { sessionId });
        return { file: text, type: CSV, name: `${name}.csv` };
      }
      return { json: await kitSheetOf(context, sessionId) };
    },
  }),
  operation({
    method: 'POST',
    path: '/sessions/{sessionId}/kit-sheet/lock',
    summary: 'Lock the kit sheet that was looked at, or accept its differences',
    body: json(z.object({ basis: z.string().meta({ description: 'From the kit sheet' }) })),
    answer: { status: 201, schema: api.lockedSheet },
    once: true,
    run: async (context, { params, json }) => ({
      json: await lockKitSheet(context, together(json(), params)),
      status: 201,
    }),
  }),
  operation({
    method: 'GET',
    path: '/sessions/{sessionId}/shopping-list',
    summary: 'The shopping list, by aisle',
    answer: ok(api.shoppingListDocument),
    run: async (context, { params: { sessionId = '' } }) => {
      const { aisles, done } = await viewShoppingList(context, { sessionId });
      return { json: { aisles, done } };
    },
  }),
  operation({
    method: 'GET',
    path: '/sessions/{sessionId}/labels',
    summary: 'Labels as PDF',
    query: z.object({ paper: z.enum(['a4', 'letter'], 'Choose a4 or letter.').default('a4') }),
    answer: { status: 200, types: ['application/pdf'] },
    run: async (context, { params: { sessionId = '' }, query: { paper } }) => {
      const { pdf, name } = await printLabels(context, { sessionId, paper });
      return { file: pdf as Uint8Array<ArrayBuffer>, type: 'application/pdf', name: `${name}.pdf` };
    },
  }),
  operation({
    method: 'POST',
    path: '/sessions/{sessionId}/labels/print',
    summary: 'Send the labels to the label printer: a job',
    body: json(z.object({ paper: z.enum(['a4', 'letter']) })),
    answer: { status: 201, schema: z.object({ jobId: z.uuid() }) },
    once: true,
    run: async (context, { params, json }) => ({
      json: await sendToPrinter(context, together(json(), params)),
      status: 201,
    }),
  }),
  operation({
    method: 'GET',
    path: '/jobs/{jobId}',
    summary: 'How far a job is',
    answer: ok(api.jobDocument),
    run: async (context, { params: { jobId = '' } }) => ({ json: await viewJob(context, { jobId }) }),
  }),
  operation({
    method: 'DELETE',
    path: '/jobs/{jobId}',
    summary: 'Ask a job to stop',
    answer: ok(api.done),
    run: async (context, { params: { jobId = '' } }) => {
      await cancelJob(context, { jobId });
      return { json: { done: true } };
    },
  }),
  operation({
    method: 'GET',
    path: '/sessions/{sessionId}/ticks',
    summary: 'What happened at the bench since an event',
    query: z.object({
      since: z
        .string()
        .regex(/^\d{1,9}$/, 'A whole number from 0.')
        .default('0'),
    }),
    answer: ok(api.packEvents),
    run: async (context, { params: { sessionId = '' }, query }) => ({
      json: await viewEvents(context, { sessionId, since: Number(query.since) }),
    }),
  }),
  operation({
    method: 'POST',
    path: '/sessions/{sessionId}/ticks',
    summary: 'Tick components, or take ticks back; a tick sent twice counts once by its id',
    body: json(sentTicks.omit({ sessionId: true }), MB / 2),
    answer: ok(api.takenIn),
    run: async (context, { params, json }) => ({ json: await recordTicks(context, together(json(), params)) }),
  }),
];

/** The kit sheet as the API tells it: the locked one, else the present calculation. */
async function kitSheetOf(context: Context, sessionId: string): Promise<z.input<typeof api.kitSheetDocument>> {
  const { bundle, sheet } = await viewKitSheet(context, { sessionId });
  const calledBack = calledBackNow(bundle.events);
  const content = sheet.locked?.content ?? sheet.draft;
  if (!content) throw new ServiceError('invalid', 'A recipe cannot be computed yet.', sheet.problems);
  return {
    sessionId,
    revision: bundle.sheet?.revision ?? 0,
    fingerprint: bundle.sheet?.fingerprint ?? null,
    basis: sheet.basis,
    refusedKits: content.refusedKits,
    differences: sheet.differences.map(({ kind, names, what }) => ({ kind, names: [...names], what: [...what] })),
    variants: content.variants.map((variant) => ({
      letter: variant.letter,
      servings: variant.servings,
      madeWithout: [...variant.madeWithout],
      kits: variant.participants.length,
      refused: whyRefused(variant),
      components: (variant.components ?? []).map(({ key, name, say, packed, unit, grams, product }) => ({
        key,
        name,
        say,
        packed,
        unit,
        grams,
        ...(product ? { product } : {}),
      })),
    })),
    kits: (sheet.locked?.kits ?? []).map(({ id, number, variant }) => ({
      id,
      number,
      variant,
      calledBack: calledBack.has(id),
    })),
  };
}
