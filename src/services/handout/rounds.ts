import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import type { DoorDriver } from '@/core/handout/doors/round';
import { judgeRound } from '@/core/handout/doors/round';
import type { RoutesAnswer } from '@/core/handout/routes/route-case';
import { minutesOf, timeOf } from '@/core/plan/civil';
import { readTime } from '@/core/plan/manner';
import { lockSessionRow } from '@/store/plan';
import { find, findOne, insert, remove, updateVersion } from '@/store/query';
import type { DoorRoundRow } from '@/store/tables/handout';
import { inPool } from '@/workers/pool';
import { crewNow } from '../crew/crew-sessions';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';
import { caseOf, driverOf, loadDoors } from './door-stops';
import { isDone } from './round-standing';

/** Rounds are looked for so long, at most. */
export const PLAN_SECONDS = 8;

const time = (say: string) =>
  z.string().transform((text, context) => {
    const read = readTime(text.trim());
    if (read !== undefined) return minutesOf(read);
    context.addIssue({ code: 'custom', message: say });
    return z.NEVER;
  });

const driver = z
  .object({
    /** Who of the crew; empty where they are not of it. */
    crewId: z.uuid().or(z.literal('')).default(''),
    name: z.string().trim().max(120).default(''),
    from: time('Write from when they drive, such as 15:00.'),
    to: time('Write until when they drive, such as 18:00.'),
    /** Empty: without a limit. */
    litres: z.preprocess(
      (value) => (value === '' ? undefined : value),
      z.coerce.number().int().min(1).max(5000).optional(),
    ),
    home: z.coerce.boolean().default(true),
  })
  .refine(({ from, to }) => from < to, { path: ['to'], message: 'It ends before it begins.' })
  .refine(({ crewId, name }) => crewId !== '' || name !== '', { path: ['name'], message: 'Who drives?' });

export const planDoorRounds = service({
  title: 'Plan the rounds to the doors',
  roles: ['coordinator'],
  costly: true,
  input: z.object({
    sessionId: z.uuid(),
    /** '' for the first, or only, group. */
    group: z.string().max(120).default(''),
    date: civilDate,
    from: time('Write from when kits are brought, such as 15:00.'),
    to: time('Write until when kits are brought, such as 18:00.'),
    drivers: z.array(driver).min(1, 'At least one driver.').max(6, 'At most 6 drivers.'),
  }),
  run: async (context, { sessionId, group, date, from, to, drivers }): Promise<RoutesAnswer> => {
    if (from >= to)
      throw new ServiceError('invalid', 'Nothing was planned yet.', [
        { where: 'to', message: 'It ends before it begins.' },
      ]);
    const { db } = context.store;
    const loaded = await loadDoors(context, sessionId);
    if (!loaded.roads)
      throw new ServiceError('invalid', 'Say first where the kitchen is: below, under “How one drives here”.');
    const crew = await crewNow(context, db);
    if (drivers.some(({ crewId }) => crewId !== '' && !crew.some(({ id }) => id === crewId))) throw notFound('driver');
    const ids = drivers.flatMap(({ crewId }) => (crewId ? [crewId] : []));
    if (new Set(ids).size < ids.length)
      throw new ServiceError('invalid', 'Nothing was planned yet: somebody drives two rounds at once.');
    const out = new Set(
      loaded.rounds
        .filter(({ leftAt }) => leftAt !== null)
        .flatMap(({ stops }) => stops.map((stop) => stop.householdId)),
    );
    const wanted = loaded.doors.filter((door) => door.group === group && !out.has(door.householdId) && !isDone(door));
    const rounds = drivers.map(
      ({ crewId, name, litres, home, ...hours }): DoorRoundRow => ({
        id: context.ids(),
        sessionId,
        date,
        crewId: crewId || null,
        driver: crewId ? '' : name,
        fromMinute: hours.from,
        toMinute: hours.to,
        litres: litres ?? null,
        isHome: home ? 1 : 0,
        leaves: hours.from,
        stops: [],
        leftAt: null,
        endedAt: null,
        toldLateAt: null,
        version: 1,
      }),
    );
    const names = new Map(crew.map(({ id, name }) => [id, name]));
    const asDrivers = rounds.map((round): DoorDriver => driverOf(round, names));
    const { given } = caseOf(loaded, wanted, asDrivers, { from, to });
    const answer = await inPool('planRoutes', { ...given, seconds: PLAN_SECONDS }, PLAN_SECONDS + 15);
    await context.store.transaction(async (own) => {
      await lockSessionRow(own, { sessionId });
      // A round that left meanwhile goes on; those that stand at home are made anew.
      const before = await find(own, own.models.doorRound, { sessionId });
      const gone = new Set(
        before.filter(({ leftAt }) => leftAt !== null).flatMap(({ stops }) => stops.map((s) => s.householdId)),
      );
      const mine = new Set(wanted.map(({ householdId }) => householdId));
      const old = before.filter(
        ({ leftAt, stops }) =>
          leftAt === null && (stops.length === 0 || stops.some((stop) => mine.has(stop.householdId))),
      );
      if (old.length > 0) await remove(own, own.models.doorRound, { id: old.map(({ id }) => id) });
      const planned = rounds.flatMap((round) => {
        const route = answer.routes.find((each) => each.driver === round.id);
        const stops = (route?.stops ?? [])
          .filter(({ at }) => !gone.has(at))
          .map(({ at, begins }) => ({ householdId: at, begins, span: { from, to } }));
        return stops.length > 0 ? [{ ...round, stops, leaves: route?.leaves ?? round.fromMinute }] : [];
      });
      await insert(own, own.models.doorRound, planned);
      await logChange(context, own, 'planned rounds', 'session', sessionId, {
        rounds: planned.length,
        missed: answer.missed,
      });
    });
    return answer;
  },
});

export const moveDoors = service({
  title: 'Change by hand which doors a round goes to, and in which order',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    rounds: z
      .array(z.object({ id: z.uuid(), version: z.coerce.number().int(), stops: z.array(z.uuid()).max(120) }))
      .min(1)
      .max(12),
  }),
  run: (context, { sessionId, rounds }) =>
    context.store.transaction(async (db) => {
      await lockSessionRow(db, { sessionId });
      const loaded = await loadDoors(context, sessionId, db);
      const crew = await crewNow(context, db);
      const names = new Map(crew.map(({ id, name }) => [id, name]));
      const touched = new Set(rounds.map(({ id }) => id));
      const elsewhere = loaded.rounds
        .filter(({ id }) => !touched.has(id))
        .flatMap(({ stops }) => stops.map(({ householdId }) => householdId));
      const all = [...rounds.flatMap(({ stops }) => stops), ...elsewhere];
      if (new Set(all).size < all.length)
        throw new ServiceError('stale', 'A door would stand in two rounds: load the page again.');
      for (const { id, version, stops } of rounds) {
        const round = loaded.rounds.find((each) => each.id === id);
        if (!round) throw notFound('round');
        if (round.leftAt) throw new ServiceError('stale', 'This round has left the kitchen: call its driver instead.');
        const own = stops.map((householdId) => {
          const door = loaded.doors.find((each) => each.householdId === householdId);
          if (!door) throw notFound('door');
          return door;
        });
        const driverNow = driverOf(round, names);
        const span = loaded.rounds.flatMap((each) => each.stops).find((stop) => stop.span)?.span;
        const { given } = caseOf(loaded, own, [driverNow], span);
        const { leaves, begins } = judgeRound(given, driverNow, stops, timeOf);
        const values = {
          leaves,
          stops: stops.map((householdId, at) => ({
            householdId,
            begins: begins[at] ?? leaves,
            ...(span ? { span } : {}),
          })),
        };
        if (!(await updateVersion(db, db.models.doorRound, id, version, values))) throw stale('This round');
      }
      await logChange(context, db, 'changed rounds by hand', 'session', sessionId, {});
    }),
});

export const dropRound = service({
  title: 'Take a round away',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), roundId: z.uuid() }),
  run: (context, { sessionId, roundId }) =>
    context.store.transaction(async (db) => {
      await lockSessionRow(db, { sessionId });
      await loadDoors(context, sessionId, db);
      const round = await findOne(db, db.models.doorRound, { id: roundId, sessionId });
      if (!round) throw notFound('round');
      if (round.leftAt) throw new ServiceError('stale', 'This round has left the kitchen: it stays.');
      await remove(db, db.models.doorRound, { id: roundId });
      await logChange(context, db, 'took a round away', 'session', sessionId, {});
    }),
});
