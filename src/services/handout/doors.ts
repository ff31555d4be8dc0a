import { z } from 'zod';
import { HOLDS } from '@/core/crew/crew-standing';
import { readPoint } from '@/core/handout/doors/door';
import { KITCHEN, USUAL_ROADS } from '@/core/handout/doors/roads';
import { whatWouldHelp } from '@/core/handout/doors/round';
import { type RoutesCase, roadsOf, whyMissed } from '@/core/handout/routes/route-case';
import { timeOf } from '@/core/plan/civil';
import { nameKey } from '@/core/roll/name-key';
import { readDoors, writeDoors } from '@/formats/handout/doors-csv';
import { FileRefused } from '@/formats/text';
import { find, findOne, updateVersion } from '@/store/query';
import { crewNow } from '../crew/crew-sessions';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, service, todayIn } from '../gate/gate';
import { logLook } from '../gate/looks';
import { readSpan } from './door-fields';
import { caseOf, type DoorAt, judgedRound, loadDoors, usualSpan } from './door-stops';
import { roundStanding } from './round-standing';

const REASONS = {
  window: 'no driver is on duty early enough for the hours when somebody is there',
  cold: 'its food would be out of the fridge for more than two hours on the way',
  litres: 'no car holds so much',
  duty: 'no driver is on duty long enough to reach it',
  elsewhere: 'it could be reached, but not beside the doors that are',
} as const;

export const viewDoors = service({
  title: 'See the doors that kits go to, and the rounds there',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const found = await loadDoors(context, sessionId);
    const { doors, rounds, programme, roads, meetings, locked } = found;
    const crew = await crewNow(context, context.store.db);
    const names = new Map(crew.map(({ id, name }) => [id, name]));
    await logLook(context, 'doors', sessionId, doors.length);
    const now = nowOf(context);
    const { db } = context.store;
    const promises = await find(db, db.models.promise, { sessionId, state: [...HOLDS] });
    const driving = promises.filter(({ duty }) => duty.split('@')[0] === 'drive');
    const judged = rounds.map((round) => {
      const own = judgedRound(found, round, names);
      return { ...own, round, standing: roundStanding(own, round, now, programme.timeZone) };
    });
    const inRounds = new Set(rounds.flatMap(({ stops }) => stops.map(({ householdId }) => householdId)));
    const drivers = judged.map(({ driver }) => driver);
    const left = doors.filter(
      ({ householdId, bags }) => !inRounds.has(householdId) && bags.some(({ now: { state } }) => state === 'here'),
    );
    const span = rounds.flatMap(({ stops }) => stops).find((stop) => stop.span)?.span;
    const { given } = caseOf(found, doors, drivers, span);
    const missed = left.map((door) => missedDoor(door, found, drivers, judged, given));
    return {
      session: locked.session,
      today: todayIn(context, programme.timeZone),
      timeZone: programme.timeZone,
      programmeVersion: programme.version,
      roads: roads ?? null,
      usualRoads: USUAL_ROADS,
      meetings: meetings.map((meeting) => ({
        ...meeting,
        span: usualSpan(
          doors.filter(({ group }) => group === meeting.group),
          meeting,
        ),
        /** Who of the crew is to drive then, with the hours they were told. */
        drivers: driving
          .filter(({ told }) => told === null || told.date === meeting.date)
          .map(({ crewId, told }) => ({ crewId, from: told?.from, to: told?.to })),
      })),
      doors,
      missed,
      /** All doors and all drivers together: what an order made by hand is judged by. */
      given,
      rounds: judged.map(({ round, driver, doors: own, judged: order, standing, gone }) => ({
        id: round.id,
        version: round.version,
        date: round.date,
        crewId: round.crewId,
        driver,
        leftAt: round.leftAt?.toISOString() ?? null,
        endedAt: round.endedAt?.toISOString() ?? null,
        stops: own,
        gone: gone.length,
        ...order,
        standing,
      })),
      crew: crew.map(({ id, name }) => ({ id, name })),
    };
  },
});

function missedDoor(
  door: DoorAt,
  found: Parameters<typeof caseOf>[0],
  drivers: Parameters<typeof caseOf>[2],
  rounds: readonly { readonly driver: { readonly id: string }; readonly doors: readonly DoorAt[] }[],
  given: RoutesCase,
) {
  const { householdId, name, door: at } = door;
  if (!found.roads) return { householdId, name, why: 'Nobody has said yet where the kitchen is.', help: [] };
  if (!at.at) return { householdId, name, why: 'Its point on the map is not known.', help: [] };
  if (drivers.length === 0) return { householdId, name, why: 'No round is planned yet.', help: [] };
  const roads = roadsOf(given);
  const stop = roads.stops.findIndex((each) => each.at === householdId);
  const routes = rounds.map(({ driver, doors }) => ({
    driver: driver.id,
    stops: doors.map((each) => ({ at: each.householdId })),
  }));
  const nameOf = (id: string) => drivers.find((driver) => driver.id === id)?.name ?? '';
  return {
    householdId,
    name,
    why: `Not reached: ${REASONS[whyMissed(roads, stop)]}.`,
    help: whatWouldHelp(given, routes, householdId, nameOf, timeOf).map(({ say }) => say),
  };
}

const doorFields = {
  /** As it is typed or pasted; empty: not known. */
  point: z.string().trim().max(120).default(''),
  from: z.string().trim().max(12).default(''),
  to: z.string().trim().max(12).default(''),
  note: z.string().trim().max(120, 'At most 120 characters.').default(''),
};

export const setDoor = service({
  title: 'Say where a family’s door is, and when somebody is there',
  roles: ['coordinator'],
  input: z.object({ householdId: z.uuid(), version: z.coerce.number().int(), ...doorFields }),
  run: (context, { householdId, version, point, note, ...hours }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const home = await findOne(db, db.models.household, { id: householdId, programmeId, erasedAt: null });
      if (!home) throw notFound('household');
      const at = point === '' ? undefined : readPoint(point);
      if (point !== '' && !at)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: 'point', message: 'Write it as 44.1032, -68.3341: the latitude first, then the longitude.' },
        ]);
      const door = { ...(at ? { at } : {}), ...readSpan(hours), ...(note ? { note } : {}) };
      if (!(await updateVersion(db, db.models.household, householdId, version, { door }))) throw stale(home.name);
      await logChange(context, db, 'said where the door is', 'household', householdId, {});
    }),
});

export const exportDoors = service({
  title: 'Take the doors of a session out as CSV',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { doors } = await loadDoors(context, sessionId);
    await logLook(context, 'doors', sessionId, doors.length);
    return writeDoors(doors);
  },
});

export const importDoors = service({
  title: 'Bring points, addresses and hours of doors in as CSV',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ bytes: z.instanceof(Uint8Array).refine(({ length }) => length <= 1_000_000, 'At most 1 MB.') }),
  run: (context, { bytes }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const { lines, problems } = read(bytes);
      const homes = await find(db, db.models.household, { programmeId, erasedAt: null });
      const byName = new Map(homes.map((home) => [nameKey(home.name), home]));
      const unknown = lines
        .filter(({ name }) => !byName.has(nameKey(name)))
        .map(({ line, name }) => ({
          line,
          message: `No family is called “${name}”. Write its name as the roll has it.`,
        }));
      const all = [...problems, ...unknown].sort((a, b) => a.line - b.line);
      if (all.length > 0)
        throw new ServiceError(
          'invalid',
          'Nothing was brought in: mend these lines, then try again.',
          all.map(({ line, message }) => ({ where: `line ${line}`, message })),
        );
      for (const { name, address, door } of lines) {
        const home = byName.get(nameKey(name));
        if (!home) continue;
        const values = { door: { ...home.door, ...door }, ...(address ? { address } : {}) };
        if (!(await updateVersion(db, db.models.household, home.id, home.version, values))) throw stale(home.name);
      }
      await logChange(context, db, 'brought in doors', 'programme', programmeId, { doors: lines.length });
      return lines.length;
    }),
});

function read(bytes: Uint8Array) {
  try {
    return readDoors(bytes);
  } catch (error) {
    if (error instanceof FileRefused) throw new ServiceError('invalid', error.message);
    throw error;
  }
}

const orUsual = (usual: number) => (value: unknown) => (value === '' || value === undefined ? usual : value);
const { speed, factor, handing, kitLitres } = USUAL_ROADS;

export const setRoads = service({
  title: 'Say where the kitchen is, and how quickly one drives from there',
  roles: ['coordinator'],
  input: z.object({
    version: z.coerce.number().int(),
    kitchen: z.string().trim().max(120),
    speed: z.preprocess(orUsual(speed), z.coerce.number().min(3, 'At least 3.').max(110, 'At most 110.')),
    factor: z.preprocess(orUsual(factor), z.coerce.number().min(1, 'No road is shorter than a straight line.').max(4)),
    handing: z.preprocess(orUsual(handing), z.coerce.number().int('Whole minutes.').min(1).max(60)),
    kitLitres: z.preprocess(orUsual(kitLitres), z.coerce.number().int('Whole litres.').min(1).max(200)),
    /** Ways that were driven once, one a line: "kitchen; Household Bracken; 12". */
    known: z.string().max(20_000).default(''),
  }),
  run: (context, { version, kitchen, known, ...numbers }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const at = readPoint(kitchen);
      if (!at)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: 'kitchen', message: 'Write it as 44.1032, -68.3341: the latitude first, then the longitude.' },
        ]);
      const homes = await find(db, db.models.household, { programmeId, erasedAt: null });
      const byName = new Map([...homes.map(({ name }) => [nameKey(name), name] as const), [KITCHEN, KITCHEN] as const]);
      const ways = known
        .split('\n')
        .map((line) => line.trim())
        .filter(Boolean)
        .map((line) => {
          const [from = '', to = '', minutes = ''] = line.split(/[;\t]/).map((part) => part.trim());
          const [a, b] = [byName.get(nameKey(from)), byName.get(nameKey(to))];
          if (!a || !b || !/^\d{1,3}$/.test(minutes))
            throw new ServiceError('invalid', 'Nothing was saved yet.', [
              {
                where: 'known',
                message: `“${line}” is no way: write two families (or “kitchen”) and whole minutes, with semicolons between.`,
              },
            ]);
          return { from: a, to: b, minutes: Number(minutes) };
        });
      const roads = { ...numbers, kitchen: at, known: ways };
      if (!(await updateVersion(db, db.models.programme, programmeId, version, { roads })))
        throw stale('The programme');
      await logChange(context, db, 'said how one drives', 'programme', programmeId, {});
    }),
});
