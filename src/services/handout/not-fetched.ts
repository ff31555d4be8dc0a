import { z } from 'zod';
import { handedNow } from '@/core/handout/handing';
import { fateOffers, KIT_FATES, leftKit, takersOf } from '@/core/handout/not-fetched';
import { judgeKit } from '@/core/kits/record/judgement';
import { packedNow } from '@/core/packing/progress';
import { attendanceNow } from '@/core/roll/attendance';
import { holdBench } from '@/store/bench';
import { handedSince } from '@/store/handout';
import { lockSessionRow } from '@/store/plan';
import { find, insert } from '@/store/query';
import { type Db, isDuplicate } from '@/store/store';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadSheet } from '../kits/kit-sheet';
import { syncCallBacks } from '../sheet/call-backs';
import { rollPerson } from '../sheet/person';
import { readSnapshot } from '../sheet/session-sheet';
import { takenFor } from '../sheet/taken';

/** The kits of a session that were noted as not collected, with who could take each over. */
async function notFetched(context: Context, sessionId: string, db: Db = context.store.db) {
  const { bundle, sheet, hours, programme, meanings } = await loadSheet(context, sessionId, db);
  const locked = bundle.sheet && readSnapshot(bundle.sheet);
  if (!locked) return { bundle, sheet, hours, kits: [] };
  const order: [string, string][] = [
    ['at', 'ASC'],
    ['id', 'ASC'],
  ];
  const seen = attendanceNow(await find(db, db.models.attendance, { sessionId }, order));
  const fates = new Map((await find(db, db.models.kitFate, { sessionId }, order)).map((row) => [row.kitId, row]));
  const waiting = bundle.enrolments
    .filter(({ status }) => status === 'waitlisted' || status === 'applied')
    .map((row) => rollPerson(row, meanings));
  const start = `${bundle.session.date}T${bundle.session.startsAt}`;
  const since = context.clock().toZonedDateTimeISO(programme.timeZone).toPlainDateTime().since(start).total('hours');
  const packed = packedNow(bundle.events);
  const now = handedNow(await handedSince(db, sessionId, 0));
  const facts = {
    reference: programme.reference,
    labels: new Map(Object.entries(sheet.input.labels)),
    taken: await takenFor(context, db, [sessionId]),
  };
  const kits = locked.kits
    .filter(({ id, enrolmentId }) => {
      const state = now.get(id)?.state;
      return state === 'not there' || state === 'came back' || (!state && seen.get(enrolmentId)?.has('not collected'));
    })
    .map((kit) => {
      const { id, number, name, variant } = kit;
      const takers = takersOf(locked, kit, waiting, facts, packed.get(kit.id)).map((taker) => ({
        id: taker.id,
        name: taker.name,
      }));
      const left = leftKit(locked.content, variant);
      const fate = fates.get(id);
      return {
        id,
        number,
        name,
        variant,
        takers,
        /** Why it is called back; none when it may go to whom it is for. */
        heldBecause: judgeKit(
          locked,
          kit,
          sheet.participants.find((person) => person.id === kit.enrolmentId),
          facts,
          packed.get(kit.id),
        ),
        offers: fateOffers(
          left,
          since,
          takers.map((taker) => taker.name),
          now.get(id)?.state === 'came back',
        ),
        fate: fate && { kind: fate.fate, to: bundle.enrolments.find((row) => row.id === fate.toId)?.name ?? '' },
      };
    });
  return { bundle, sheet, hours, kits };
}

export const viewNotFetched = service({
  title: 'See the kits that nobody fetched, and what may become of them',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const found = await notFetched(context, sessionId);
    await logLook(context, 'kits not fetched', sessionId, found.kits.length);
    return found;
  },
});

export const decideKit = service({
  title: 'Say what became of a kit that nobody fetched',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    /** Made by whoever sends it: sent twice, it is noted once. */
    id: z.uuid(),
    kitId: z.uuid(),
    fate: z.enum(KIT_FATES),
    /** Who took it over. */
    toId: z.uuid().optional(),
  }),
  run: async (context, { sessionId, id, kitId, fate, toId }) => {
    try {
      await context.store.transaction(async (db) => {
        // Who tells a need at this moment waits for this, or is seen by it.
        await lockSessionRow(db, { sessionId });
        await holdBench(db, sessionId);
        const { kits } = await notFetched(context, sessionId, db);
        const kit = kits.find((each) => each.id === kitId);
        if (!kit) throw new ServiceError('not-found', 'This kit is not noted as left: see who fetched theirs.');
        if ((fate === 'held' || fate === 'delivered') && kit.heldBecause.length > 0)
          throw new ServiceError(
            'invalid',
            `This kit is called back: ${kit.heldBecause.join('; ')}. It is not kept or brought for them: take it apart, or give it to somebody who can eat all of it.`,
          );
        const taker = kit.takers.find((each) => each.id === toId);
        if (fate === 'given away' && !taker)
          throw new ServiceError(
            'invalid',
            'Choose somebody who waits and can eat all of it. Nobody else can be shown to be safe with this kit.',
          );
        const offer = kit.offers.find((each) => each.fate === fate);
        if (offer && !offer.isOpen) throw new ServiceError('invalid', offer.say);
        await insert(db, db.models.kitFate, [
          {
            id,
            sessionId,
            kitId,
            fate,
            toId: fate === 'given away' ? (toId ?? null) : null,
            at: nowOf(context),
            actorId: context.actor.id,
          },
        ]);
        await logChange(context, db, 'decided what becomes of a kit', 'session', sessionId, { kit: kit.number, fate });
        // It is somebody else's now, or nobody's.
        await syncCallBacks(context, db, { sessionId });
      });
    } catch (error) {
      if (!isDuplicate(error)) throw error;
    }
  },
});
