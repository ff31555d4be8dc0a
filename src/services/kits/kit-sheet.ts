import { z } from 'zod';
import { labelCodes } from '@/contracts/reference';
import { proposeVersions, versionFigures } from '@/core/kits/figures/compare-versions';
import {
  componentWorking,
  supplyWorking,
  totalWorking,
  type VariantShare,
  type Working,
} from '@/core/kits/figures/working';
import type { LockedSheet, SheetGroup } from '@/core/kits/record/locked-sheet';
import type { SheetContent, SheetKit } from '@/core/kits/record/sheet-content';
import { computeSheet, recomputeSheet } from '@/core/kits/record/snapshot';
import { VERSION_POLICIES } from '@/core/kits/sheet/fewest-variants';
import { handedOutWith } from '@/core/kits/supply/series';
import { calledBackNow } from '@/core/packing/progress';
import { toText } from '@/core/quantity/rational';
import { sayCount } from '@/core/quantity/say';
import { choose } from '@/core/recipes/recipe/choice';
import { findIngredient } from '@/core/reference/reference';
import { writeSheetCsv } from '@/formats/kits/sheet-csv';
import { makeBench } from '@/store/bench';
import { lockSessionRow } from '@/store/plan';
import { find, insert, remove } from '@/store/query';
import type { SessionBundle } from '@/store/session-bundles';
import { type Db, isDuplicate } from '@/store/store';
import type { KitRow } from '@/store/tables/kits';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { WORKED_OUT } from '../memory';
import { loadBundle } from '../plan/sessions';
import { syncCallBacks } from '../sheet/call-backs';
import { labelOf } from '../sheet/label-read';
import { loadProducts } from '../sheet/load-products';
import { type Hours, loadProgramme, type Meanings, type Programme } from '../sheet/load-programme';
import { dropLabel, writeLabel } from '../sheet/session-labels';
import { fingerprint, type SessionSheet, sessionSheet } from '../sheet/session-sheet';
import { pooled } from '../work/in-pool';
import { kitFigures } from './figures';

/** A session's bundle with its calculation. */
export async function loadSheet(
  context: Context,
  sessionId: string,
  db: Db = context.store.db,
): Promise<{
  bundle: SessionBundle;
  sheet: SessionSheet;
  hours: Hours;
  safetyProfile: 'us' | 'uk';
  timeZone: string;
  programme: Programme;
  meanings: Meanings;
}> {
  const { programme, meanings, hours } = await loadProgramme(context, db);
  const bundle = await loadBundle(context, sessionId, db);
  const { safetyProfile, timeZone } = programme;
  return {
    bundle,
    sheet: sessionSheet(bundle, programme, meanings),
    hours,
    safetyProfile,
    timeZone,
    programme,
    meanings,
  };
}

export const viewKitSheet = service({
  title: 'See a session’s kit sheet',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const loaded = await loadSheet(context, sessionId);
    await logLook(context, 'kit sheet', sessionId, loaded.sheet.participants.length);
    const { bundle, sheet, programme } = loaded;
    return { ...loaded, figures: await kitFigures(context, bundle, sheet, programme) };
  },
});

export const compareVersions = service({
  title: 'Compare one version for everybody with separate ones',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { sheet } = await loadSheet(context, sessionId);
    const products = await loadProducts(context);
    const ways = VERSION_POLICIES.flatMap((policy) => {
      const outcome = computeSheet({ ...sheet.input, versions: policy }, sheet.participants, undefined, WORKED_OUT);
      return 'problems' in outcome ? [] : [versionFigures(policy, outcome.sheet, products)];
    });
    return { now: sheet.input.versions ?? 'separate', ways, ...(ways.length > 0 ? proposeVersions(ways) : {}) };
  },
});

export const viewSession = service({
  title: 'See a session with its dishes and how far it is',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: (context, { sessionId }) => loadSheet(context, sessionId),
});

export const lockKitSheet = service({
  title: 'Lock a kit sheet, or accept its differences',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), basis: z.string().length(64) }),
  run: async (context, { sessionId, basis }) => {
    try {
      return await context.store.transaction(async (db) => {
        // Two people locking at once wait for each other here.
        await lockSessionRow(db, { sessionId });
        const { bundle, sheet, safetyProfile } = await loadSheet(context, sessionId, db);
        refuseUnlockable(sheet, basis);
        refuseEstimated(bundle);
        const kits = await kitsOf(context, db, sessionId, sheet.draft as SheetContent);
        const { session } = bundle;
        const snapshot: LockedSheet = {
          format: 1,
          session: {
            id: session.id,
            courseTitle: session.courseTitle,
            title: session.title,
            number: session.number,
            date: session.date,
            startsAt: session.startsAt,
            place: session.place,
            mode: session.mode,
            safetyProfile,
            ...groupsAt(session),
          },
          content: sheet.draft as SheetContent,
          kits,
          leftOut: sheet.leftOut,
        };
        const revision = (bundle.sheet?.revision ?? 0) + 1;
        const id = context.ids();
        const mark = fingerprint(snapshot);
        await insert(db, db.models.kitSheet, [
          {
            id,
            sessionId,
            revision,
            fingerprint: mark,
            snapshot: JSON.stringify(snapshot),
            lockedAt: new Date(context.clock().epochMilliseconds),
            lockedBy: context.actor.id,
          },
        ]);
        await writeIssues(db, bundle, sheet);
        await makeBench(db, { sessionId });
        await logChange(context, db, 'locked', 'kit sheet', id, {
          sessionId,
          revision,
          fingerprint: mark,
          kits: kits.length,
        });
        await syncCallBacks(context, db, { sessionId });
        return { revision, fingerprint: mark };
      });
    } catch (error) {
      if (isDuplicate(error))
        throw new ServiceError('stale', 'Someone else locked this sheet a moment ago. Look at their version first.');
      throw error;
    }
  },
});

/** When and where each group meets, as a sheet keeps it; nothing where there is only one. */
function groupsAt(session: SessionBundle['session']): { groups?: readonly SheetGroup[] } {
  const meeting = session.sittings.filter(({ status }) => status === 'planned');
  if (meeting.length === 0) return {};
  const own = { ...session, groupName: session.groupName ?? '' };
  return {
    groups: [own, ...meeting].map(({ groupName: name, date, startsAt, place }) => ({ name, date, startsAt, place })),
  };
}

function refuseUnlockable(sheet: SessionSheet, basis: string): void {
  if (!sheet.draft) throw new ServiceError('invalid', 'A recipe cannot be computed yet.', sheet.problems);
  if (sheet.basis !== basis) {
    throw new ServiceError(
      'stale',
      'The roll, a dish or a label changed while you were looking. Look at the new sheet, then lock it.',
    );
  }
  if (sheet.input.dishes.length === 0)
    throw new ServiceError('invalid', 'Choose a dish first: there is nothing to lock.');
  if (sheet.participants.length === 0)
    throw new ServiceError('invalid', 'Nobody gets a kit yet: bring in the roll first.');
  if (sheet.draft.refusedKits > 0) {
    throw new ServiceError(
      'invalid',
      `${sayCount(sheet.draft.refusedKits, 'kit')} cannot be made safely. Give each blocked line an alternative or a recorded label, say what unknown words mean, or leave the kit out with a reason.`,
    );
  }
  if (
    sheet.locked &&
    sheet.differences.length === 0 &&
    fingerprint(sheet.locked.content) === fingerprint(sheet.draft)
  ) {
    throw new ServiceError('invalid', 'Nothing has changed since the last lock.');
  }
}

/** @throws ServiceError when a dish's servings are only an estimate: every kit would be off by the same part */
function refuseEstimated({ dishes }: SessionBundle): void {
  const open = dishes.filter(({ body }) => body.estimated);
  if (open.length === 0) return;
  throw new ServiceError(
    'invalid',
    'The servings of a dish are only an estimate. Confirm them on the recipe’s page before kits are made of it.',
    open.map(({ title }) => ({ where: title, message: 'Servings are estimated.' })),
  );
}

/** The kits of a draft: people keep their kit's id and number, new people get the next numbers. */
async function kitsOf(context: Context, db: Db, sessionId: string, draft: SheetContent): Promise<SheetKit[]> {
  const known = new Map((await find(db, db.models.kit, { sessionId })).map((kit) => [kit.enrolmentId, kit]));
  let number = Math.max(0, ...[...known.values()].map((kit) => kit.number));
  const fresh: KitRow[] = [];
  const kits = draft.variants.flatMap((variant) =>
    variant.participants.map((person): SheetKit => {
      let kit = known.get(person.id);
      if (!kit) {
        number += 1;
        kit = { id: context.ids(), sessionId, enrolmentId: person.id, number };
        fresh.push(kit);
      }
      const { id: enrolmentId, name, group } = person;
      const made = { id: kit.id, number: kit.number, enrolmentId, name, variant: variant.letter };
      return group === undefined ? made : { ...made, group };
    }),
  );
  await insert(db, db.models.kit, fresh);
  return kits.sort((a, b) => a.number - b.number);
}

/** Writes down what these kits hand out of the supplies of the course: what later kits no longer need to hold. */
async function writeIssues(db: Db, { session }: SessionBundle, { computed, input }: SessionSheet): Promise<void> {
  const { id: sessionId } = session;
  await remove(db, db.models.issue, { sessionId });
  const jars = (session.kitRules.supplies ?? []).filter(({ kind }) => kind === 'jar');
  const labels = new Map(
    jars.flatMap(({ id, name }) => {
      const label = input.labels[name];
      return label ? [[id, label] as const] : [];
    }),
  );
  const rows = (computed?.sheet.variants ?? []).flatMap(({ supply, avoids, servings, participants, extra }) =>
    extra
      ? []
      : handedOutWith(supply, computed?.dishes ?? [], choose(computed?.dishes ?? [], avoids), servings).flatMap(
          ({ supplyId, units, drawn }) =>
            participants.map(({ id }) => ({
              sessionId,
              enrolmentId: id,
              supplyId,
              units,
              drawn: toText(drawn),
              label: units > 0 ? (labels.get(supplyId) ?? null) : null,
            })),
        ),
  );
  await insert(db, db.models.issue, rows);
}

export const leaveOut = service({
  title: 'Leave a kit out of a session, with a reason',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    enrolmentId: z.uuid(),
    reason: z.string().trim().min(3, 'Say in a few words why, and what was arranged instead.').max(255),
  }),
  run: (context, { sessionId, enrolmentId, reason }) =>
    context.store.transaction(async (db) => {
      const bundle = await loadBundle(context, sessionId, db);
      if (!bundle.enrolments.some((row) => row.id === enrolmentId)) throw notFound('person');
      await remove(db, db.models.kitExclusion, { sessionId, enrolmentId });
      await insert(db, db.models.kitExclusion, [{ id: context.ids(), sessionId, enrolmentId, reason }]);
      await logChange(context, db, 'left out a kit', 'session', sessionId, { enrolmentId, reason });
      await syncCallBacks(context, db, { sessionId });
    }),
});

export const putBack = service({
  title: 'Put a kit that was left out back in',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), enrolmentId: z.uuid() }),
  run: (context, { sessionId, enrolmentId }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      await remove(db, db.models.kitExclusion, { sessionId, enrolmentId });
      await logChange(context, db, 'put back a kit', 'session', sessionId, { enrolmentId });
      await syncCallBacks(context, db, { sessionId });
    }),
});

/** The label that the screen showed when somebody pressed: '' for none; left out where nothing was shown. */
const shownLabel = z.string().max(2000).optional();

/** A recorded label as a screen keeps it, to say what it showed. */
export const labelMark = ({
  product,
  allergens,
}: {
  readonly product: string;
  readonly allergens: readonly string[];
}): string => `${product}|${allergens.join()}`;

/** @throws ServiceError when somebody else recorded another label since the screen was drawn */
function refuseUnseen({ labels }: SessionBundle, ingredient: string, shown: string | undefined): void {
  if (shown === undefined) return;
  const now = labels.find((label) => label.ingredient === ingredient);
  if ((now ? labelMark(now) : '') === shown) return;
  throw new ServiceError(
    'stale',
    `Somebody else ${now ? `recorded the label of “${now.product}”` : 'took the label back'} while you were looking. Nothing was changed: look at it again.`,
  );
}

export const recordLabel = service({
  title: 'Record the label of the product used',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    ingredient: z.string().min(1).max(80),
    product: z.string().trim().min(1, 'Name the product as its pack does.').max(120),
    allergens: labelCodes,
    shown: shownLabel,
  }),
  run: (context, { sessionId, ingredient, product, allergens: ticked, shown }) =>
    context.store.transaction(async (db) => {
      const { sheet, bundle } = await loadSheet(context, sessionId, db);
      const food = sheet.draft && findIngredient(sheet.draft.input.reference, ingredient);
      if (!food) throw notFound('ingredient');
      const allergens = labelOf(food, ticked);
      refuseUnseen(bundle, ingredient, shown);
      await writeLabel(context, db, sessionId, { ingredient, product, allergens });
      // Kits of later sessions may be eaten with a jar that came with these.
      await syncCallBacks(context, db, { courseId: bundle.session.courseId });
    }),
});

export const forgetLabel = service({
  title: 'Take back a recorded label',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), ingredient: z.string().max(80), shown: shownLabel }),
  run: (context, { sessionId, ingredient, shown }) =>
    context.store.transaction(async (db) => {
      const bundle = await loadBundle(context, sessionId, db);
      refuseUnseen(bundle, ingredient, shown);
      if (!(await dropLabel(context, db, sessionId, ingredient))) return;
      // Kits of later sessions may be eaten with a jar that came with these.
      await syncCallBacks(context, db, { courseId: bundle.session.courseId });
    }),
});

export const viewWorking = service({
  title: 'See how a number came about',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    /** Of the draft, or of the locked revision. */
    of: z.enum(['draft', 'locked']),
    variant: z.string().max(4).optional(),
    row: z.number().int().min(0).max(5000).optional(),
    ingredient: z.string().max(80).optional(),
  }),
  run: async (context, { sessionId, of, variant, row, ingredient }): Promise<Working> => {
    const { sheet } = await loadSheet(context, sessionId);
    const content = of === 'locked' ? sheet.locked?.content : sheet.draft;
    const computed = of === 'locked' ? content && recomputeSheet(content, WORKED_OUT) : sheet.computed;
    if (!content || !computed) throw notFound('number');
    if (ingredient !== undefined) {
      const total = computed.sheet.totals.find((candidate) => candidate.ingredient === ingredient);
      if (!total) throw notFound('number');
      const shares = computed.sheet.variants.flatMap((v): VariantShare[] =>
        (v.components ?? [])
          .filter((component) => component.item.ingredient.name === ingredient && !component.from)
          .map((component) => ({ name: `Kit ${v.letter}`, count: v.participants.length, component })),
      );
      return totalWorking(total, shares);
    }
    const found = computed.sheet.variants.find((candidate) => candidate.letter === variant);
    const place = content.rows[row ?? -1];
    const component = found?.components?.find(
      (c) =>
        c.dish === place?.dish &&
        c.line === place?.line &&
        c.beside === (place?.beside ?? 0) &&
        (c.beside === 0 || c.option === place?.option),
    );
    if (component?.isOfCourse) return supplyWorking(component, found?.components ?? [], content.input.system);
    const recipe = computed.dishes[component?.dish ?? -1];
    if (!found || !component || !recipe) throw notFound('number');
    const because = component.option > 0 ? found.avoids : undefined;
    return componentWorking(component, recipe.servings, found.servings, content.input.system, because);
  },
});

export const exportSheet = service({
  title: 'Take out a kit sheet as CSV',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { content, name, calledBack } = await sheetToTakeOut(context, sessionId, 'kit sheet, CSV');
    return { text: writeSheetCsv(content, calledBack), name };
  },
});

export const exportSheetBook = service({
  title: 'Take out a kit sheet as XLSX',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { content, name, title, stopped } = await sheetToTakeOut(context, sessionId, 'kit sheet, XLSX');
    return { bytes: await pooled('sheetXlsx', { content, title: `${title}.${stopped}` }), name };
  },
});

export const exportSheetPdf = service({
  title: 'Take out a kit sheet as PDF',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { content, name, title, state, system } = await sheetToTakeOut(context, sessionId, 'kit sheet, PDF');
    const paper = system === 'us' ? 'LETTER' : 'A4';
    return { bytes: await pooled('sheetPdf', { content, title: { title, state }, paper }), name };
  },
});

/** What is locked, else the sheet as it stands. @param page what is kept of the look */
async function sheetToTakeOut(context: Context, sessionId: string, page: string) {
  const { bundle, sheet } = await loadSheet(context, sessionId);
  const content = sheet.locked?.content ?? sheet.draft;
  if (!content) throw new ServiceError('invalid', 'A recipe cannot be computed yet.', sheet.problems);
  await logLook(context, page, sessionId, sheet.participants.length);
  const { title, date, number } = bundle.session;
  const record = sheet.locked && bundle.sheet;
  const held = calledBackNow(bundle.events);
  const calledBack = (sheet.locked?.kits ?? [])
    .filter(({ id }) => held.has(id))
    .map(({ number, name }) => `${number} ${name}`);
  const stopped = calledBack.length > 0 ? ` CALLED BACK, do not hand out: ${calledBack.join(', ')}.` : '';
  const state = record
    ? `Version ${record.revision}, locked by ${record.lockedByName}. Code ${record.fingerprint.slice(0, 12)}.${stopped}`
    : 'Draft: not locked, amounts may still move.';
  const system = content.input.system;
  return { content, title: `${title}, ${date}`, name: `kits-${date}-${number}`, state, system, calledBack, stopped };
}
