// The demo's hand-out of today: a table half done, a round on the road, a marinade under way and a swap-in that cools.
import type { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { minutesOf } from '@/core/plan/civil';
import { civilIn } from '@/core/plan/clock';
import type { Context } from '@/services/gate/gate';
import { importDoors, setRoads, viewDoors } from '@/services/handout/doors';
import { driveRound } from '@/services/handout/driving';
import { planDoorRounds } from '@/services/handout/rounds';
import { handOutKits, viewTable } from '@/services/handout/table';
import { setPackers } from '@/services/packing/line';
import { beginBatch, takeTemperature } from '@/services/packing/made/made';
import { find, findOne } from '@/store/query';

export interface DemoHandOut {
  readonly kitchen: string;
  /** Titles of sessions: handed out at a table, brought to doors, made ahead for, packed by several. */
  readonly table: string;
  readonly doors: string;
  readonly made: string;
  readonly line: string;
  readonly packers: number;
}

/** The same context, so many minutes ago. */
const ago = (context: Context, minutes: number): Context => ({
  ...context,
  clock: () => context.clock().subtract({ minutes }),
});

/** @param file the doors as CSV */
export async function loadHandOut(
  context: Context,
  demo: DemoHandOut,
  file: Uint8Array,
  today: Temporal.PlainDate,
  timeZone: string,
): Promise<void> {
  const { db } = context.store;
  const { programmeId } = context.actor;
  const courses = (await find(db, db.models.course, { programmeId })).map(({ id }) => id);
  const sessionOf = async (title: string) => {
    const found = await findOne(db, db.models.session, { title, courseId: courses });
    if (!found) throw new Error(`The demo has no session “${title}”.`);
    return found.id;
  };
  const programme = await findOne(db, db.models.programme, { id: programmeId });
  await setRoads(context, {
    version: programme?.version ?? 1,
    kitchen: demo.kitchen,
    speed: '',
    factor: '',
    handing: '',
    kitLitres: '',
    known: 'kitchen; Household Grindley; 4',
  });
  await importDoors(context, { bytes: file });
  await handOutTable(context, await sessionOf(demo.table));
  await sendRounds(context, await sessionOf(demo.doors), today, timeZone);
  await makeAhead(context, await sessionOf(demo.made));
  await setPackers(context, { sessionId: await sessionOf(demo.line), packers: demo.packers });
}

/** Five have theirs, one by a neighbour; for one nobody came. */
async function handOutTable(context: Context, sessionId: string): Promise<void> {
  const { kits } = await viewTable(context, { sessionId });
  const at = (minutes: number) => context.clock().subtract({ minutes }).toString();
  const kitOf = (household: string) => kits.find(({ name }) => name === `Household ${household}`)?.id ?? '';
  const said = (
    household: string,
    what: 'handed' | 'not there' | 'lent',
    minutes: number,
    more: { who?: string; item?: string } = {},
  ) => ({
    id: v7(),
    kitId: kitOf(household),
    what,
    who: '',
    item: '',
    at: at(minutes),
    wasAway: false,
    ...more,
  });
  await handOutKits(context, {
    sessionId,
    events: [
      said('Aldous-Fenn', 'handed', 25),
      said('Carradine', 'handed', 22, { who: 'Nan Carradine' }),
      said('Carradine', 'lent', 22, { item: 'cool bag' }),
      said('Estherby', 'handed', 15, { who: 'Oskar next door' }),
      said('Hartnoll', 'handed', 12),
      said('Inchbold', 'not there', 3),
    ],
  });
}

/** One driver left forty minutes ago and has been at two doors; the other waits for hers. */
async function sendRounds(
  context: Context,
  sessionId: string,
  today: Temporal.PlainDate,
  timeZone: string,
): Promise<void> {
  const now = minutesOf(civilIn(context.clock().toString(), timeZone).time);
  const begins = Math.max(0, now - 45);
  const ends = Math.min(1439, begins + 200);
  const time = (minutes: number) =>
    `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
  const { crew } = await viewDoors(context, { sessionId });
  const [first, second] = ['Edda Rowan', 'Wilf Sandar'].map(
    (name) => crew.find((each) => each.name === name)?.id ?? '',
  );
  await planDoorRounds(context, {
    sessionId,
    group: '',
    date: today.toString(),
    from: time(begins),
    to: time(ends),
    drivers: [
      { crewId: first, name: first ? '' : 'Edda Rowan', from: time(begins), to: time(ends), litres: 40, home: true },
      { crewId: second, name: second ? '' : 'Wilf Sandar', from: time(begins), to: time(ends), litres: 40, home: true },
    ],
  });
  const { rounds } = await viewDoors(context, { sessionId });
  const [round] = rounds;
  if (!round) return;
  const left = ago(context, 40);
  const roundId = round.id;
  await driveRound(left, { roundId, events: [{ id: v7(), what: 'left', at: left.clock().toString() }] });
  for (const [at, stop] of round.stops.slice(0, 2).entries()) {
    const then = ago(context, 30 - at * 12);
    const events = stop.bags.map(({ id: kitId }) => ({
      id: v7(),
      kitId,
      what: at === 0 ? ('handed' as const) : ('not there' as const),
      who: '',
      item: '',
      at: then.clock().toString(),
      wasAway: false,
    }));
    await driveRound(then, { roundId, events });
  }
}

async function makeAhead(context: Context, sessionId: string): Promise<void> {
  const begun = ago(context, 95);
  await beginBatch(begun, {
    sessionId,
    id: v7(),
    name: 'Ropewalk tofu parcels: the marinade',
    food: 'room',
    kind: 'stand',
    grams: 1200,
    least: 240,
    most: 1440,
  });
  const batchId = v7();
  await beginBatch(ago(context, 70), {
    sessionId,
    id: batchId,
    name: 'Rice for the swap-in',
    food: 'rice',
    kind: 'cool',
    grams: 900,
    least: '',
    most: '',
  });
  for (const [minutes, degrees] of [
    [68, '162'],
    [40, '104'],
    [12, '72'],
  ] as const)
    await takeTemperature(ago(context, minutes), { sessionId, batchId, id: v7(), degrees });
}
