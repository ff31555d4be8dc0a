import { Temporal } from 'temporal-polyfill';
import { z } from 'zod';
import { sentHandings } from '@/contracts/handout';
import { lentNow } from '@/core/handout/handing';
import { leftKit } from '@/core/handout/not-fetched';
import type { LockedSheet } from '@/core/kits/record/locked-sheet';
import { benchSheet, calledBackNow, checkedNow, packedNow } from '@/core/packing/progress';
import { callBackEvents, eventsSince } from '@/store/bench';
import { handedSince, lentTo } from '@/store/handout';
import { find, findOne } from '@/store/query';
import { ServiceError } from '../errors';
import { type Context, ROLES, service, todayIn } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadLocked } from '../packing/locked';
import { timeZoneOf } from '../sheet/load-programme';
import { recordHandings } from './record';

/** The table is open to the crew from so many days before a session until so many after it. */
const DAYS_BEFORE = 2;
const DAYS_AFTER = 1;

/** The sheet of a session that is handed out now. @throws ServiceError where nothing is locked, or it is not this duty’s day */
export async function openTable(context: Context, sessionId: string) {
  const { db } = context.store;
  const { locked, revision } = await loadLocked(context, sessionId);
  if (context.actor.role === 'coordinator') return { locked, revision };
  const session = await findOne(db, db.models.session, { id: sessionId });
  const today = Temporal.PlainDate.from(todayIn(context, await timeZoneOf(context)));
  const days = [session?.date ?? locked.session.date, ...datesOf(locked), ...(session?.cookBy ? [session.cookBy] : [])];
  const until = (day: string) => today.until(Temporal.PlainDate.from(day)).days;
  if (Math.min(...days.map(until)) > DAYS_BEFORE || Math.max(...days.map(until)) < -DAYS_AFTER)
    throw new ServiceError(
      'forbidden',
      `Who fetches which kit is shown from ${DAYS_BEFORE} days before the hand-out until the day after.`,
    );
  return { locked, revision };
}

const datesOf = ({ session }: LockedSheet): string[] => (session.groups ?? []).map(({ date }) => date);

/** Kinds of things that are lent with a kit, where a course names none of its own. */
const LENT_USUALLY = ['cool bag', 'ice pack', 'measuring spoons', 'thermometer', 'cutting board'];

export const viewTable = service({
  title: 'See the kits that are handed out at a table, and to whom',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { db } = context.store;
    const { locked, revision } = await openTable(context, sessionId);
    const events = await handedSince(db, sessionId, 0);
    const benchEvents = await eventsSince(db, sessionId, 0);
    const packed = packedNow(benchEvents);
    const held = calledBackNow(benchEvents);
    const checked = checkedNow(benchEvents);
    const without = new Set(
      locked.content.variants.flatMap(({ letter, madeWithout }) => (madeWithout.length > 0 ? [letter] : [])),
    );
    const asked = new Map(benchSheet(locked, revision).kits.map(({ id, components }) => [id, components]));
    const people = new Map(
      (await find(db, db.models.enrolment, { id: locked.kits.map(({ enrolmentId }) => enrolmentId) })).map((row) => [
        row.id,
        row,
      ]),
    );
    const householdIds = [...new Set([...people.values()].map(({ householdId }) => householdId))];
    const homes = new Map((await find(db, db.models.household, { id: householdIds })).map((row) => [row.id, row]));
    const lent = await lentTo(db, { programmeId: context.actor.programmeId, householdIds });
    const words = new Map(
      (await find(db, db.models.kitWord, { sessionId }, [['at', 'ASC']]))
        .filter(({ word }) => word === 'confirmed' || word === 'later')
        .map((row) => [row.enrolmentId, row]),
    );
    const cold = new Map(
      locked.content.variants.map(({ letter }) => [
        letter,
        leftKit(locked.content, letter).cold.map(({ name }) => name),
      ]),
    );
    await logLook(context, 'hand-out', sessionId, locked.kits.length);
    return {
      session: {
        id: sessionId,
        title: locked.session.title,
        courseTitle: locked.session.courseTitle,
        date: locked.session.date,
        startsAt: locked.session.startsAt,
        place: locked.session.place,
      },
      seq: events.at(-1)?.seq ?? 0,
      events: events,
      lentUsually: LENT_USUALLY,
      kits: locked.kits.map(({ id, number, variant, enrolmentId, name, group = '' }) => {
        const person = people.get(enrolmentId);
        const home = homes.get(person?.householdId ?? '');
        const said = words.get(enrolmentId);
        return {
          id,
          number,
          variant,
          name,
          group,
          household: home && home.name !== name ? home.name : '',
          collectors: home?.home.collectors ?? [],
          /** What of it is fetched from the fridge last. */
          cold: cold.get(variant) ?? [],
          isPacked: (asked.get(id) ?? []).every((component) => packed.get(id)?.has(component)),
          isCalledBack: held.has(id),
          /** Made without something, and nobody has looked into it a second time. */
          isUnchecked: without.has(variant) && !checked.has(id),
          /** What the family has of earlier sessions. */
          has: [...lentNow(lent.filter(({ householdId }) => householdId === person?.householdId))].map(
            ([item]) => item,
          ),
          said: said ? { word: said.word, note: said.note } : null,
        };
      }),
    };
  },
});

export const tableSince = service({
  title: 'See what happened at a hand-out since',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid(), after: z.coerce.number().int().min(0) }),
  run: async (context, { sessionId, after }) => {
    const { revision } = await openTable(context, sessionId);
    const { db } = context.store;
    return {
      revision,
      held: [...calledBackNow(await callBackEvents(db, sessionId))],
      events: await handedSince(db, sessionId, after),
    };
  },
});

export const handOutKits = service({
  title: 'Hand kits out, or say that nobody came for them',
  roles: ROLES,
  input: sentHandings,
  run: async (context, { sessionId, events }) => {
    const { locked } = await openTable(context, sessionId);
    return context.store.transaction((db) => recordHandings(context, db, sessionId, locked, events));
  },
});
