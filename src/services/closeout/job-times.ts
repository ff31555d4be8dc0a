import { minutesAtWork } from '@/core/closeout/timings';
import { jobChoices, minutesOfJob } from '@/core/countdown/jobs';
import { handedTimes, tickTimes } from '@/store/closeout';
import type { SessionBundle } from '@/store/session-bundles';
import type { Db } from '@/store/store';
import type { CloseNoteRow } from '@/store/tables/closeout';
import type { Context } from '../gate/gate';
import { loadSheet } from '../kits/kit-sheet';
import { sessionFacts } from '../sheet/session-thread';

/** A job of a session, and the minutes that its countdown planned for it. */
export interface PlannedJob {
  readonly key: string;
  readonly title: string;
  readonly minutes: number;
}

/** Outside these parts of what was planned, something else was measured, or mistyped, in per cent. */
export const LIKELY_SHARE = { least: 20, most: 500 } as const;

/** The jobs of a session whose minutes are a matter of experience: what the food or the clock settles is none. */
export async function plannedJobs(context: Context, bundle: SessionBundle, db: Db): Promise<PlannedJob[]> {
  const { sheet, hours, timeZone } = await loadSheet(context, bundle.session.id, db);
  const facts = sessionFacts(bundle, sheet, { timeZone }, hours);
  return jobChoices(facts).flatMap(({ template, on }) => {
    const isSettled = template.asked || template.byItself || template.byTheClock || template.effort.perDish;
    const minutes = on && !isSettled && template.key !== 'closeout' ? minutesOfJob(template, facts) : 0;
    return minutes > 0 ? [{ key: template.key, title: template.title, minutes: Math.round(minutes) }] : [];
  });
}

/** What packing and delivering took by their ticks, as parts of what was planned: ticked all at once, or over days, they say nothing. */
export async function measuredJobs(
  db: Db,
  sessionId: string,
  planned: readonly PlannedJob[],
): Promise<Pick<CloseNoteRow, 'what' | 'item' | 'percent' | 'bad' | 'pieces'>[]> {
  const [packed, handed] = await Promise.all([tickTimes(db, sessionId), handedTimes(db, sessionId)]);
  const measured = new Map([
    ['packing', packed],
    ['deliver', handed],
  ]);
  return planned.flatMap(({ key, minutes }) => {
    const took = minutesAtWork((measured.get(key) ?? []).map(({ at }) => at.getTime() / 60_000));
    const percent = Math.round((100 * took) / minutes);
    const isLikely = percent >= LIKELY_SHARE.least && percent <= LIKELY_SHARE.most;
    return isLikely ? [{ what: 'job' as const, item: key, percent, bad: null, pieces: minutes }] : [];
  });
}
