import { consumablesOf } from '@/core/kits/figures/consumables';
import { kitBulks } from '@/core/kits/figures/containers';
import { sheetCost } from '@/core/kits/figures/kit-cost';
import type { SheetContent } from '@/core/kits/record/sheet-content';
import { recomputeSheet } from '@/core/kits/record/snapshot';
import type { KitSheet } from '@/core/kits/sheet/sheet';
import { FROM_HOME, FROM_JAR } from '@/core/kits/supply/supplied';
import type { Mode } from '@/core/plan/mode';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { planSteps } from '@/core/recipes/steps/step-reader';
import type { SessionBundle } from '@/store/session-bundles';
import type { Context } from '../gate/gate';
import { WORKED_OUT } from '../memory';
import { loadProducts } from '../sheet/load-products';
import type { Programme } from '../sheet/load-programme';
import type { SessionSheet } from '../sheet/session-sheet';

/** The sheet that counts: what is locked, else as things stand. */
export function sheetThatCounts({ locked, draft, computed }: SessionSheet) {
  const content = locked?.content ?? draft;
  const again: KitSheet | undefined = locked ? recomputeSheet(locked.content, WORKED_OUT)?.sheet : computed?.sheet;
  return content && again ? { content, sheet: again } : undefined;
}

/** Who draws from a jar or their own shelf, and has told that there is nothing to measure with at home. */
function withoutSpoons({ enrolments }: SessionBundle, { variants }: SheetContent): string[] {
  const lacking = new Set(
    enrolments.flatMap(({ id, home }) => {
      const { tools } = home ?? {};
      return tools && !tools.includes('measuring spoons') && !tools.includes('scale') ? [id] : [];
    }),
  );
  return variants.flatMap(({ participants, components, supply }) => {
    const measures = components?.some(({ from }) => from === FROM_JAR || from === FROM_HOME);
    const getsSpoons = supply?.issues?.some(({ name }) => /spoon|cup|scale/.test(name));
    return measures && !getsSpoons ? participants.filter(({ id }) => lacking.has(id)).map(({ name }) => name) : [];
  });
}

/** What the kits of a session take up and use up. */
function takenUp(bundle: SessionBundle, content: SheetContent, programme: Programme) {
  const sizes = programme.containers;
  const { consumables = [], goesHome = false } = bundle.session.kitRules;
  const inSteps = bundle.dishes.map(({ body }) => {
    const { steps, planned } = wholeRecipe(body);
    const settled = planned ? { settled: planned } : {};
    return planSteps({ steps, ingredients: [], ...settled }, programme.reference).flatMap((step) => step.consumables);
  });
  const bulks = kitBulks(content, sizes);
  const around = { mode: bundle.session.mode as Mode, goesHome };
  return { bulks, consumables: consumablesOf(content, consumables, sizes, bulks, inSteps, around) };
}

/** What is used up by the kits of a session; nothing while a recipe cannot be computed. */
export function usedUpBy(bundle: SessionBundle, { locked, draft }: SessionSheet, programme: Programme) {
  const content = locked?.content ?? draft;
  return content ? takenUp(bundle, content, programme).consumables : [];
}

/** What the kits of a session take up, use up and cost; nothing while a recipe cannot be computed. */
export async function kitFigures(context: Context, bundle: SessionBundle, sheet: SessionSheet, programme: Programme) {
  const counts = sheetThatCounts(sheet);
  if (!counts) return undefined;
  return {
    ...takenUp(bundle, counts.content, programme),
    noSpoons: withoutSpoons(bundle, counts.content),
    cost: sheetCost(counts.sheet, await loadProducts(context)),
    budget: bundle.session.budgetCents,
  };
}
