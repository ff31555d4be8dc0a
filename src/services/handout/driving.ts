import { z } from 'zod';
import { type SentHanding, sentHandings } from '@/contracts/handout';
import { LATE_MINUTES } from '@/core/handout/doors/on-the-road';
import { addDays } from '@/core/plan/civil';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { find, findOne, updateVersion } from '@/store/query';
import type { Db } from '@/store/store';
import type { CrewMemberRow } from '@/store/tables/crew';
import type { DoorRoundRow } from '@/store/tables/handout';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, ROLES, service, todayIn } from '../gate/gate';
import { logLook } from '../gate/looks';
import { timeZoneOf } from '../sheet/load-programme';
import { type Doors, judgedRound, loadDoors } from './door-stops';
import { type KitNews, NEWS, sayToldSpan, tellFamily } from './family-messages';
import { recordHandings } from './record';
import { isDone, type RoundStanding, roundStanding } from './round-standing';

/** What a driver's phone says: that they left or are done, or what happened to kits. Ids are made by the phone. */
export const sentRound = z.object({
  roundId: z.uuid(),
  events: z
    .array(
      z.union([
        sentHandings.shape.events.element,
        z.object({ id: z.uuid(), what: z.enum(['left', 'ended']), at: z.iso.datetime() }),
      ]),
    )
    .min(1)
    .max(200),
});
type Sent = z.output<typeof sentRound>;
type RoundWord = Extract<Sent['events'][number], { what: 'left' | 'ended' }>;
const isRoundWord = (event: Sent['events'][number]): event is RoundWord =>
  event.what === 'left' || event.what === 'ended';

/**
 * A round as whoever drives it may see it: on its day. What happened on it can be said a day longer, for a phone without a
 * network until after midnight.
 *
 * @throws ServiceError where it is not theirs, or its day is over
 */
async function openRound(
  context: Context,
  roundId: string,
  driver: CrewMemberRow | undefined,
  db: Db,
  daysAfter: 0 | 1 = 0,
) {
  const round = await findOne(db, db.models.doorRound, { id: roundId });
  const today = todayIn(context, await timeZoneOf(context, db));
  const isTheirs =
    context.actor.role === 'coordinator' ||
    (driver !== undefined &&
      round?.crewId === driver.id &&
      round.date <= today &&
      today <= addDays(round.date, daysAfter));
  if (!round || !isTheirs) throw notFound('round');
  return { round, doors: await loadDoors(context, round.sessionId, db) };
}

const NO_NAMES: ReadonlyMap<string, string> = new Map();

async function roundView(context: Context, round: DoorRoundRow, doors: Doors) {
  const { programme, locked } = doors;
  const own = judgedRound(doors, round, NO_NAMES);
  const standing = roundStanding(own, round, nowOf(context), programme.timeZone);
  await logLook(context, 'round', round.sessionId, own.doors.length);
  return {
    id: round.id,
    sessionId: round.sessionId,
    title: locked.session.title,
    date: round.date,
    timeZone: programme.timeZone,
    says: sayingFacts(programme),
    leaves: round.leaves,
    leftAt: round.leftAt?.toISOString() ?? null,
    endedAt: round.endedAt?.toISOString() ?? null,
    coldMinutes: 120,
    stops: own.doors.map(({ householdId, name, address, contact, door, isCold, bags }) => ({
      householdId,
      name,
      address,
      contact,
      door,
      isCold,
      begins: round.stops.find((stop) => stop.householdId === householdId)?.begins ?? round.leaves,
      bags: bags.map(({ id, number, variant, now, isCalledBack }) => ({
        id,
        number,
        variant,
        state: now.state,
        by: now.by?.id ?? '',
        isCalledBack,
      })),
    })),
    standing,
  };
}

/** The rounds of somebody of the crew today: theirs, on its day, and nothing else. */
export async function ownRounds(context: Context, person: CrewMemberRow) {
  const { db } = context.store;
  const today = todayIn(context, await timeZoneOf(context));
  const rounds = await find(db, db.models.doorRound, { crewId: person.id, date: today }, [['leaves', 'ASC']]);
  return Promise.all(rounds.map(async (round) => roundView(context, round, await loadDoors(context, round.sessionId))));
}

/** Ids of the rounds of somebody today: enough for a link there; of those of yesterday, what waits on a phone is still sent. */
export async function roundsToday(context: Context, crewId: string, daysAgo: 0 | 1 = 0): Promise<string[]> {
  const { db } = context.store;
  const date = addDays(todayIn(context, await timeZoneOf(context)), -daysAgo);
  return (await find(db, db.models.doorRound, { crewId, date })).map(({ id }) => id);
}

export const viewMyRounds = service({
  title: 'See whether one drives a round today',
  roles: ROLES,
  input: z.object({}),
  run: async (context) => {
    const person = await whoDrives(context);
    return person ? roundsToday(context, person.id) : [];
  },
});

export const roundOf = async (context: Context, person: CrewMemberRow | undefined, roundId: string) => {
  const { round, doors } = await openRound(context, roundId, person, context.store.db);
  return roundView(context, round, doors);
};

/** Takes in what a driver's phone says, each once however often it is sent. */
export const sayOnRound = (context: Context, person: CrewMemberRow | undefined, { roundId, events }: Sent) =>
  context.store.transaction(async (db) => {
    const { round, doors } = await openRound(context, roundId, person, db, 1);
    const allowed = new Set(
      doors.doors
        .filter(({ householdId }) => round.stops.some((stop) => stop.householdId === householdId))
        .flatMap(({ bags }) => bags.map(({ id }) => id)),
    );
    const handings = events.filter((event): event is SentHanding => !isRoundWord(event));
    if (handings.some(({ kitId }) => !allowed.has(kitId))) throw notFound('kit of this round');
    const words = events.filter(isRoundWord);
    await note(context, db, round, doors, words);
    const { warnings } =
      handings.length > 0
        ? await recordHandings(context, db, round.sessionId, doors.locked, handings, round.id)
        : { warnings: [] };
    await tellWhoIsLate(context, db, roundId, round.sessionId);
    return { warnings };
  });

async function note(context: Context, db: Db, round: DoorRoundRow, doors: Doors, words: readonly RoundWord[]) {
  const now = nowOf(context);
  const left = words.find(({ what }) => what === 'left');
  const ended = words.find(({ what }) => what === 'ended');
  const values: Partial<DoorRoundRow> = {};
  const at = ({ at: said }: RoundWord) => (new Date(said) > now ? now : new Date(said));
  if (left && !round.leftAt) values.leftAt = at(left);
  if (ended && !round.endedAt) values.endedAt = at(ended);
  if (Object.keys(values).length === 0) return;
  if (!(await updateVersion(db, db.models.doorRound, round.id, round.version, values)))
    throw new ServiceError(
      'unavailable',
      'Somebody else says something of this round at this moment: it is sent again.',
    );
  await logChange(context, db, left ? 'left for the doors' : 'ended a round', 'session', round.sessionId, {});
  if (!values.leftAt) return;
  const { doors: own, standing } = standingOf(context, { ...round, ...values }, doors);
  for (const { at: householdId, begins } of standing.ahead) {
    const door = own.find((each) => each.householdId === householdId);
    if (!door) continue;
    const news = newsOf(doors);
    await tellFamily(context, db, door, news, 'On its way', NEWS.onTheWay(sayToldSpan(begins, news.say)));
  }
}

const newsOf = ({ locked, programme }: Doors): KitNews => ({
  sessionId: locked.session.id,
  title: locked.session.title,
  programme: programme.name,
  say: sayingOf(sayingFacts(programme)),
});

function standingOf(context: Context, round: DoorRoundRow, doors: Doors) {
  const own = judgedRound(doors, round, NO_NAMES);
  return { ...own, standing: roundStanding(own, round, nowOf(context), doors.programme.timeZone) as RoundStanding };
}

/** Once a round: families that wait, and are reached much later than they were told, hear of it. */
async function tellWhoIsLate(context: Context, db: Db, roundId: string, sessionId: string): Promise<void> {
  const round = await findOne(db, db.models.doorRound, { id: roundId });
  if (!round?.leftAt || round.toldLateAt || round.endedAt) return;
  const doors = await loadDoors(context, sessionId, db);
  const { doors: own, standing } = standingOf(context, round, doors);
  const late = standing.ahead.filter((each) => each.late >= LATE_MINUTES);
  if (late.length === 0) return;
  if (!(await updateVersion(db, db.models.doorRound, roundId, round.version, { toldLateAt: nowOf(context) }))) return;
  for (const { at, begins } of late) {
    const door = own.find((each) => each.householdId === at && !isDone(each));
    if (!door) continue;
    const news = newsOf(doors);
    await tellFamily(context, db, door, news, 'A little later', NEWS.late(sayToldSpan(begins, news.say)));
  }
}

/** Who of the crew is signed in; coordinators need not be of it. */
async function whoDrives(context: Context): Promise<CrewMemberRow | undefined> {
  const { id: memberId, programmeId } = context.actor;
  const { db } = context.store;
  return findOne(db, db.models.crewMember, { memberId, programmeId, erasedAt: null });
}

export const viewRound = service({
  title: 'See a round to the doors, on its day',
  roles: ROLES,
  input: z.object({ roundId: z.uuid() }),
  run: async (context, { roundId }) => roundOf(context, await whoDrives(context), roundId),
});

export const driveRound = service({
  title: 'Say from the road what happened at the doors',
  roles: ROLES,
  input: sentRound,
  run: async (context, sent) => sayOnRound(context, await whoDrives(context), sent),
});
