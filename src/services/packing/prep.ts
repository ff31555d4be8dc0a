import { z } from 'zod';
import { sentPrep } from '@/contracts/prep';
import { HOLDS } from '@/core/crew/crew-standing';
import { motionsOf, rateOf, timedFrom } from '@/core/packing/prep/motion';
import { type Hand, planPrep } from '@/core/packing/prep/plan';
import { holdPrepDay, preparedSince } from '@/store/prep';
import { find, insert } from '@/store/query';
import { loadSessionBundles } from '@/store/session-bundles';
import type { PrepEventRow } from '@/store/tables/packing';
import { crewNow } from '../crew/crew-sessions';
import { type Context, nowOf, ROLES, service } from '../gate/gate';
import { sheetThatCounts } from '../kits/figures';
import { loadProgramme } from '../sheet/load-programme';
import { sessionSheet } from '../sheet/session-sheet';

const MOST_HANDS = 8;
const date = z.iso.date('There is no such day in the calendar.');

const plainEvent = ({ id, motion, action, seq, at }: PrepEventRow) => ({
  id,
  motion,
  action,
  seq,
  at: at.toISOString(),
});

const eventsOf = (context: Context, day: string, after = 0) =>
  preparedSince(context.store.db, { programmeId: context.actor.programmeId, day }, after);

export const viewPrepPlan = service({
  title: 'See the plan of a prep day for the hands there are',
  roles: ROLES,
  input: z.object({
    date,
    hands: z.coerce.number().int().min(1).max(MOST_HANDS, 'At most 8 pairs of hands.').optional(),
    /** How many of them may handle raw meat. */
    raw: z.coerce.number().int().min(0).max(MOST_HANDS).optional(),
    boards: z.coerce.number().int().min(1).max(40).optional(),
  }),
  run: async (context, { date: day, hands, raw, boards = MOST_HANDS }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const { programme, meanings } = await loadProgramme(context);
    const bundles = await loadSessionBundles(db, programmeId, { from: day, to: day });
    const sheets = bundles.flatMap((bundle) => {
      const counts = sheetThatCounts(sessionSheet(bundle, programme, meanings));
      return counts ? [{ session: bundle.session.title, content: counts.content }] : [];
    });
    const past = await find(db, db.models.prepEvent, { programmeId }, [
      ['day', 'ASC'],
      ['seq', 'ASC'],
    ]);
    const timed = timedFrom(past.filter((event) => event.day < day));
    const motions = motionsOf(sheets, timed);
    const crew = await crewNow(context, db);
    const packers = [
      ...new Set(
        bundles.flatMap(({ promises }) =>
          promises
            .filter(({ duty, state }) => ['pack', 'cook'].includes(duty.split('@')[0] ?? '') && HOLDS.includes(state))
            .map(({ crewId }) => crewId),
        ),
      ),
    ].flatMap((id) => crew.filter((person) => person.id === id));
    const count = hands ?? Math.min(MOST_HANDS, Math.max(2, packers.length));
    const mayRaw = raw ?? count;
    const people = Array.from({ length: count }, (_, at): Hand => {
      const person = packers[at];
      return { id: String(at), name: person?.name ?? `Hands ${at + 1}`, raw: at < mayRaw };
    });
    const plan = planPrep(motions, people, boards);
    return {
      date: day,
      sessions: bundles.map(({ session }) => ({ id: session.id, title: session.title, startsAt: session.startsAt })),
      motions: motions.map((motion) => ({ ...motion, timed: rateOf(motion.food, motion.cut, timed).timed })),
      hands: people,
      plan: plan ?? null,
      /** Minutes for one pair of hands, two, three: what one more would gain. */
      curve: Array.from({ length: 6 }, (_, at) => {
        const some = Array.from({ length: at + 1 }, (_, n): Hand => ({ id: String(n), name: '', raw: n < mayRaw }));
        return planPrep(motions, some, boards)?.minutes ?? null;
      }),
      events: (await eventsOf(context, day)).map(plainEvent),
    };
  },
});

export const prepSince = service({
  title: 'See what was done of a prep day since',
  roles: ROLES,
  input: z.object({ date, after: z.coerce.number().int().min(0) }),
  run: async (context, { date: day, after }) => ({ events: (await eventsOf(context, day, after)).map(plainEvent) }),
});

export const tickPrep = service({
  title: 'Say which motions of a prep day are begun or done',
  roles: ROLES,
  input: sentPrep,
  run: (context, { day, events }) =>
    context.store.transaction(async (db) => {
      const { programmeId, id: actorId } = context.actor;
      let seq = await holdPrepDay(db, { programmeId, day });
      const known = new Set(
        (await find(db, db.models.prepEvent, { id: events.map(({ id }) => id) })).map(({ id }) => id),
      );
      const fresh = events.filter(({ id }) => !known.has(id));
      const at = nowOf(context);
      await insert(
        db,
        db.models.prepEvent,
        fresh.map((event) => ({ ...event, programmeId, day, seq: ++seq, at, actorId })),
      );
      return { seq };
    }),
});
