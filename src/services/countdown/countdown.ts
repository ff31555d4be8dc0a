import type { Temporal } from 'temporal-polyfill';
import { z } from 'zod';
import { doNext, type Knot, type SessionFacts, startOf, threadOf } from '@/core/countdown/thread';
import { benchSheet, packedNow, packProgress } from '@/core/packing/progress';
import type { Mode } from '@/core/plan/mode';
import type { ProgrammeRow } from '@/store/rows';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import { service } from '../access/gate';
import { isMarked } from '../buying/shopping';
import { type SessionSheet, sessionSheet } from '../kits/session-sheet';
import { loadProgramme } from '../programme/load';

/** A session as its thread shows it. */
export interface SessionThread {
  readonly id: string;
  readonly courseId: string;
  readonly courseTitle: string;
  readonly title: string;
  readonly number: number;
  readonly date: string;
  readonly startsAt: string;
  readonly place: string;
  readonly mode: string;
  /** Start as an ISO instant. */
  readonly start: string;
  readonly knots: readonly Knot[];
}

/** The thread of one session, from its bundle and its calculation. */
export function sessionThread(
  bundle: SessionBundle,
  sheet: SessionSheet,
  programme: ProgrammeRow,
  now: Temporal.Instant,
): SessionThread {
  const { session } = bundle;
  const bench = sheet.locked && benchSheet(sheet.locked, bundle.sheet?.revision ?? 0);
  const progress = packProgress(bench?.kits ?? [], packedNow(bundle.events));
  const facts: SessionFacts = {
    date: session.date,
    startsAt: session.startsAt,
    timeZone: programme.timeZone,
    mode: session.mode as Mode,
    dishes: bundle.dishes.length,
    participants: bundle.enrolments.filter((row) => row.status === 'enrolled').length,
    unknownWishes: new Set(
      sheet.participants.flatMap((p) => p.wishes.filter((wish) => !wish.codes).map((wish) => wish.asWritten)),
    ).size,
    revision: bundle.sheet?.revision ?? 0,
    differs: sheet.differences.length > 0,
    refusedKits: sheet.draft?.refusedKits ?? 0,
    shoppingDone: isMarked(bundle.marks, 'buying'),
    ...progress,
  };
  const { id, courseId, courseTitle, title, number, date, startsAt, place, mode } = session;
  const start = startOf(facts).toInstant().toString();
  return { id, courseId, courseTitle, title, number, date, startsAt, place, mode, start, knots: threadOf(facts, now) };
}

/** The countdown looks this far ahead, and back to yesterday. */
const DAYS_AHEAD = 14;

export const viewCountdown = service({
  title: 'See the countdown',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const now = context.clock();
    const { db } = context.store;
    const { programme, meanings } = await loadProgramme(context);
    const today = now.toZonedDateTimeISO(programme.timeZone).toPlainDate();
    const bundles = await loadSessionBundles(db, context.actor.programmeId, {
      from: today.toString(),
      to: today.add({ days: DAYS_AHEAD }).toString(),
    });
    const threads = bundles.map((bundle) =>
      sessionThread(bundle, sessionSheet(bundle, programme, meanings), programme, now),
    );
    const next = doNext(
      threads.map((session) => ({ session, knots: session.knots })),
      now,
    );
    return { threads, next, now: now.toString(), timeZone: programme.timeZone };
  },
});
