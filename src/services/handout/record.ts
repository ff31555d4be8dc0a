import type { SentHanding } from '@/contracts/handout';
import { type HandEvent, type HandedNow, handedNow, STILL_HERE } from '@/core/handout/handing';
import type { LockedSheet } from '@/core/kits/record/locked-sheet';
import { calledBackNow } from '@/core/packing/progress';
import type { Mode } from '@/core/plan/mode';
import { questionsOf } from '@/core/roll/attendance';
import { callBackEvents } from '@/store/bench';
import { handedSince, holdHandOut, plainHanding, raiseHandOut } from '@/store/handout';
import { find, insert } from '@/store/query';
import type { Db } from '@/store/store';
import type { HandOutRow } from '@/store/tables/handout';
import type { KitRow } from '@/store/tables/kits';
import { notFound, ServiceError } from '../errors';
import { type Context, nowOf } from '../gate/gate';
import { tellCoordinators } from '../messages/notices';

/** What the sender should look into: somebody else had said otherwise of this kit, or it had been called back. */
export interface HandWarning {
  readonly kitId: string;
  readonly say: string;
}

/**
 * Keeps what happened to kits, each once however often it is sent, in one order for all phones, and notes who fetched theirs. In the
 * transaction of whoever calls it.
 *
 * What a phone did while it had no network has happened: it is kept, and whoever must act is told. A phone that could know better is
 * refused.
 *
 * @throws ServiceError where a kit is not of this sheet, is called back, or an id was used for something else
 */
export async function recordHandings(
  context: Context,
  db: Db,
  sessionId: string,
  locked: LockedSheet,
  sent: readonly SentHanding[],
  roundId: string | null = null,
): Promise<{ readonly seq: number; readonly warnings: readonly HandWarning[] }> {
  let seq = await holdHandOut(db, sessionId);
  const before = await handedSince(db, sessionId, 0);
  const known = new Map(
    (await find(db, db.models.handOut, { id: sent.map(({ id }) => id) })).map((row) => [row.id, row]),
  );
  // A kit that left the sheet meanwhile was packed all the same: a phone without a network may have handed it out.
  const kits = new Map<string, Pick<KitRow, 'id' | 'number' | 'enrolmentId'>>([
    ...(await find(db, db.models.kit, { sessionId })).map((kit) => [kit.id, kit] as const),
    ...locked.kits.map((kit) => [kit.id, kit] as const),
  ]);
  const onSheet = new Set(locked.kits.map(({ id }) => id));
  const held = calledBackNow(await callBackEvents(db, sessionId));
  const warnings: HandWarning[] = [];
  const rows: HandOutRow[] = [];
  const now = nowOf(context);
  for (const { at, wasAway, ...each } of sent) {
    const kit = kits.get(each.kitId);
    if (!kit || (!onSheet.has(kit.id) && !wasAway))
      throw new ServiceError('stale', 'This kit is not on the kit sheet: load the page again.');
    const was = known.get(each.id) ?? rows.find(({ id }) => id === each.id);
    if (was) {
      if (was.sessionId === sessionId && was.kitId === each.kitId && was.what === each.what) continue;
      throw new ServiceError('stale', 'The id of this was used before, for something else. Nothing was saved.');
    }
    if (
      each.what === 'undone' &&
      ![...before, ...rows].some(({ id, kitId }) => id === each.item && kitId === each.kitId)
    )
      throw notFound('entry to take back');
    const isGoing = each.what === 'handed' && held.has(each.kitId);
    if (isGoing && !wasAway)
      throw new ServiceError(
        'invalid',
        `Kit ${kit.number} is called back: it is not handed out. Set it apart and ask the coordinator.`,
        [{ where: 'called back', message: String(kit.number) }],
      );
    if (isGoing) {
      warnings.push({
        kitId: kit.id,
        say: `Kit ${kit.number} is called back, and it has gone: nobody knew it there. Call the family at once: they must not eat it.`,
      });
      await tellCoordinators(
        context,
        db,
        context.actor.programmeId,
        `kit ${kit.number} of “${locked.session.title}” was handed out although it is called back: the family must be told at once`,
      );
    }
    const happened = new Date(at);
    rows.push({
      ...each,
      sessionId,
      enrolmentId: kit.enrolmentId,
      roundId,
      wasAway: wasAway ? 1 : 0,
      // A phone whose clock is wrong does not write the future.
      at: happened > now ? now : happened,
      seq: ++seq,
      actorId: context.actor.id,
    });
  }
  if (rows.length === 0) return { seq, warnings };
  await insert(db, db.models.handOut, rows);
  await raiseHandOut(db, { sessionId, seq });
  const after = handedNow([...before, ...rows.map(plainHanding)]);
  await noteFetched(context, db, sessionId, locked.session.mode, [...kits.values()], rows, after);
  for (const kitId of new Set(rows.map((row) => row.kitId))) {
    const { against, by } = after.get(kitId) ?? STILL_HERE;
    if (against.some(({ id }) => rows.some((row) => row.id === id)))
      warnings.push({ kitId, say: sayDouble(kits.get(kitId)?.number ?? 0, by) });
  }
  return { seq, warnings };
}

const sayDouble = (number: number, by: HandEvent | undefined) =>
  `Kit ${number} had gone already${by?.who ? `, to ${by.who}` : ''}: look which kit was given just now, and take back what is wrong.`;

/** Who fetched their kit, as the roll asks it: the newest of the table or the room counts. */
async function noteFetched(
  context: Context,
  db: Db,
  sessionId: string,
  usualMode: string,
  all: readonly Pick<KitRow, 'id' | 'enrolmentId'>[],
  rows: readonly HandOutRow[],
  after: ReadonlyMap<string, HandedNow>,
): Promise<void> {
  const touched = new Set(
    rows.filter(({ what }) => what !== 'lent' && what !== 'brought back').map(({ kitId }) => kitId),
  );
  const kits = all.filter(({ id }) => touched.has(id));
  const people = await find(db, db.models.enrolment, { id: kits.map(({ enrolmentId }) => enrolmentId) });
  const marks = kits.flatMap(({ id, enrolmentId }) => {
    const person = people.find((each) => each.id === enrolmentId);
    const mode = (person?.mode ?? usualMode) as Mode;
    if (!person || !questionsOf(mode).flat().includes('collected')) return [];
    const state = (after.get(id) ?? STILL_HERE).state === 'gone' ? ('collected' as const) : ('not collected' as const);
    return [{ id: context.ids(), sessionId, enrolmentId, state, at: nowOf(context), actorId: context.actor.id }];
  });
  await insert(db, db.models.attendance, marks);
}
