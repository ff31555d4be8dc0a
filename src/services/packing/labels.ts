import { Temporal } from 'temporal-polyfill';
import { z } from 'zod';
import type { LockedSheet } from '@/core/kits/record/locked-sheet';
import { changedLabels, kitLabels, labelSaid, madeLabels } from '@/core/packing/label';
import { calledBackNow } from '@/core/packing/progress';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { callBackEvents } from '@/store/bench';
import { findOne } from '@/store/query';
import { notFound } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadProgramme } from '../sheet/load-programme';
import { fingerprint, readSnapshot } from '../sheet/session-sheet';
import { pooled } from '../work/in-pool';
import { queueJob } from '../work/jobs';
import { loadLocked } from './locked';

const ofSession = z.object({
  sessionId: z.uuid(),
  paper: z.enum(['a4', 'letter'], 'Choose a4 or letter.'),
});

/** Of the kits, of those alone whose labels the last revision changed, or of what was made of them in class. */
const withKind = ofSession.extend({
  of: z.enum(['kits', 'changed', 'made'], 'Choose kits, changed or made.').default('kits'),
  /** One kit’s label alone: again, where it was spoilt. */
  kitId: z.uuid().optional(),
});

/** The sheet as it was locked before the last revision; undefined where that is the first. */
async function revisionBefore(context: Context, sessionId: string, revision: number): Promise<LockedSheet | undefined> {
  const { db } = context.store;
  const sheet = await findOne(db, db.models.kitSheet, { sessionId, revision: revision - 1 });
  return sheet && readSnapshot(sheet);
}

export const labelsToPrint = service({
  title: 'See the labels of a session',
  roles: ['coordinator'],
  input: withKind,
  run: async (context, { sessionId, paper, of, kitId }) => {
    const { locked, revision } = await loadLocked(context, sessionId);
    const { programme } = await loadProgramme(context);
    const { timeZone } = programme;
    // Kits are packed the day before; labels printed later than that are for kits packed today.
    const today = context.clock().toZonedDateTimeISO(timeZone).toPlainDate();
    const dayBefore = Temporal.PlainDate.from(locked.session.date).subtract({ days: 1 });
    const packedOn = Temporal.PlainDate.compare(today, dayBefore) > 0 ? today : dayBefore;
    const { date, number, title } = locked.session;
    const calledBack = calledBackNow(await callBackEvents(context.store.db, sessionId));
    const labelsFor = (sheet: LockedSheet) => kitLabels(sheet, packedOn.toString(), calledBack);
    const before = of === 'changed' ? await revisionBefore(context, sessionId, revision) : undefined;
    const all =
      of === 'made'
        ? madeLabels(locked, calledBack)
        : before
          ? changedLabels(labelsFor(before), labelsFor(locked))
          : labelsFor(locked);
    const say = sayingOf(sayingFacts(programme));
    const labels = (kitId ? all.filter((label) => label.kitId === kitId) : all).map((label) => labelSaid(label, say));
    if (kitId && labels.length === 0) throw notFound('kit');
    await logLook(context, 'labels', sessionId, labels.length);
    return {
      labels,
      name: `${kitId ? `kit-${labels[0]?.number}-` : of === 'kits' ? '' : `${of}-`}labels-${date}-${number}-${paper}`,
      title: `${title}, version ${revision}`,
      sheet: { revision, fingerprint: fingerprint(locked) },
    };
  },
});

export const printLabels = service({
  title: 'Print the labels of a session',
  roles: ['coordinator'],
  costly: true,
  input: withKind,
  run: async (context, asked) => {
    const { paper } = asked;
    const { labels, name } = await labelsToPrint(context, asked);
    return { pdf: await pooled('labelsPdf', { labels, paper }), name };
  },
});

export const sendToPrinter = service({
  title: 'Send the labels of a session to the label printer',
  roles: ['coordinator'],
  costly: true,
  input: ofSession,
  run: async (context, { sessionId, paper }) => {
    await loadLocked(context, sessionId);
    return context.store.transaction(async (db) => {
      const { programmeId, id } = context.actor;
      const jobId = await queueJob(context, db, programmeId, 'print labels', { sessionId, paper }, id);
      await logChange(context, db, 'sent labels to the printer', 'session', sessionId, { paper, jobId });
      return { jobId };
    });
  },
});
