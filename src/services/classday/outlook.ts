import type { ClassPlan } from '@/core/classday/live/class-plan';
import { settleBefore } from '@/core/classday/outlook';
import type { RunSheetAnswer } from '@/core/classday/run-sheet/sheet-case';
import { idleSpells, missingTools } from '@/core/classday/set-out';
import { saveOutlook } from '@/store/classday';
import { loadSessionBundles } from '@/store/session-bundles';
import { type Context, nowOf } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { loadClass, type OneClass, planClass } from './class-plan';

/** Run sheets are worked out so many days ahead: time enough to bring a grater, or to choose another dish. */
const DAYS_AHEAD = 10;

/** Keeps what the run sheet of a class asks to be settled before it, for every page that shows the session. */
export async function keepOutlook(
  context: Context,
  which: { readonly sessionId: string; readonly sitting: string },
  one: OneClass,
  { plan, answer, hasTasks }: { plan: ClassPlan | undefined; answer: RunSheetAnswer; hasTasks: boolean },
): Promise<void> {
  const settle = hasTasks
    ? settleBefore({
        minutes: 'minutes' in answer ? answer.minutes : undefined,
        cooking: one.room.cooking,
        missing: plan ? missingTools(plan, one.room.equipment) : [],
        idle: plan ? idleSpells(plan) : [],
      })
    : [];
  await saveOutlook(context.store.db, { ...which, settle, at: nowOf(context) });
}

/** Works out the run sheets of the coming days, and keeps what they ask to be settled. @returns how many there are */
export async function lookAtClasses(context: Context): Promise<number> {
  const { programme } = await loadProgramme(context);
  const today = context.clock().toZonedDateTimeISO(programme.timeZone).toPlainDate();
  const bundles = await loadSessionBundles(context.store.db, context.actor.programmeId, {
    notOverOn: today.toString(),
    to: today.add({ days: DAYS_AHEAD }).toString(),
  });
  let classes = 0;
  for (const bundle of bundles) {
    const groups = bundle.session.sittings.filter(({ status }) => status === 'planned');
    for (const sitting of ['', ...groups.map(({ groupId }) => groupId)]) {
      const one = await loadClass(context, bundle, sitting);
      const which = { sessionId: bundle.session.id, sitting };
      if (one.people.length === 0) {
        // Nobody comes any more: nothing of what was asked before holds.
        if (bundle.outlooks.some((each) => each.sitting === sitting && each.settle.length > 0))
          await saveOutlook(context.store.db, { ...which, settle: [], at: nowOf(context) });
        continue;
      }
      const { plan, answer, made } = await planClass(bundle, one);
      await keepOutlook(context, which, one, { plan, answer, hasTasks: made.tasks.length > 0 });
      classes++;
    }
  }
  return classes;
}
