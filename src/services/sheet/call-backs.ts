import { kitsToHold, type PersonNow } from '@/core/kits/record/judgement';
import { calledBackNow, packedNow } from '@/core/packing/progress';
import { appendEvents } from '@/store/bench';
import { find } from '@/store/query';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import { lockUneaten, type Touched } from '@/store/sittings';
import type { Db } from '@/store/store';
import type { KitFateRow } from '@/store/tables/handout';
import { type Context, nowOf } from '../gate/gate';
import { loadProgramme, type Meanings } from './load-programme';
import { rollPerson } from './person';
import { readSnapshot, sessionSheet } from './session-sheet';
import { takenFor } from './taken';

/** Who took over a kit of somebody else, by the kit: it is eaten by them. */
function takersIn(
  fates: readonly KitFateRow[],
  { session, enrolments }: SessionBundle,
  meanings: Meanings,
): ReadonlyMap<string, PersonNow | undefined> {
  const newest = new Map(fates.filter(({ sessionId }) => sessionId === session.id).map((row) => [row.kitId, row]));
  return new Map(
    [...newest.values()].flatMap(({ kitId, fate, toId }) => {
      if (fate !== 'given away') return [];
      const row = enrolments.find(({ id }) => id === toId);
      return [[kitId, row && rollPerson(row, meanings)] as const];
    }),
  );
}

/**
 * Calls kits back where what is in them is no longer safe for whom they are, and lets go on those where it is again. Belongs
 * into every transaction that may change a need, a meaning, a label, a product, a food's facts, who gets a kit, or when.
 */
export async function syncCallBacks(context: Context, db: Db, touched: Touched): Promise<void> {
  // A day more, wherever the programme is: what was to be eaten yesterday may stand in a fridge.
  const from = context.clock().subtract({ hours: 48 }).toString().slice(0, 10);
  // Whoever locks the sheet at this moment holds these rows: what is read below is what they leave.
  const sessions = await lockUneaten(db, touched, { programmeId: context.actor.programmeId, from });
  if (sessions.length === 0) return;
  const { programme, meanings } = await loadProgramme(context, db);
  const ids = sessions.map(({ id }) => id);
  const fates = await find(db, db.models.kitFate, { sessionId: ids }, [
    ['at', 'ASC'],
    ['id', 'ASC'],
  ]);
  const taken = await takenFor(context, db, ids);
  for (const bundle of await loadSessionBundles(db, context.actor.programmeId, { ids })) {
    if (!bundle.sheet) continue;
    const { participants, input } = sessionSheet(bundle, programme, meanings);
    // What was unlocked to be changed is packed all the same.
    const locked = readSnapshot(bundle.sheet);
    const labels = new Map(Object.entries(input.labels));
    const hold = kitsToHold(
      locked,
      participants,
      {
        reference: programme.reference,
        labels,
        taken: taken.filter(({ sessionId }) => sessionId === bundle.session.id),
      },
      packedNow(bundle.events),
      takersIn(fates, bundle, meanings),
    );
    const held = calledBackNow(bundle.events);
    const changes = [
      ...[...hold.keys()]
        .filter((kitId) => !held.has(kitId))
        .map((kitId) => ({ kitId, action: 'called back' as const })),
      ...[...held].filter((kitId) => !hold.has(kitId)).map((kitId) => ({ kitId, action: 'let go on' as const })),
    ];
    if (changes.length === 0) continue;
    await appendEvents(
      db,
      bundle.session.id,
      changes.map(({ kitId, action }) => ({
        id: context.ids(),
        sessionId: bundle.session.id,
        kitId,
        component: '',
        action,
        at: nowOf(context),
        actorId: context.actor.id,
      })),
    );
  }
}
