import { type LocalRoads, USUAL_ROADS } from '@/core/handout/doors/roads';
import { type DoorDriver, type DoorStop, doorCase, judgeRound, type Span } from '@/core/handout/doors/round';
import { type HandedNow, handedNow, STILL_HERE } from '@/core/handout/handing';
import { leftKit } from '@/core/handout/not-fetched';
import type { RoutesCase } from '@/core/handout/routes/route-case';
import type { LockedSheet } from '@/core/kits/record/locked-sheet';
import { calledBackNow } from '@/core/packing/progress';
import { minutesOf, timeOf } from '@/core/plan/civil';
import { callBackEvents } from '@/store/bench';
import { handedSince } from '@/store/handout';
import { find, findOne } from '@/store/query';
import type { Db } from '@/store/store';
import type { DoorRoundRow } from '@/store/tables/handout';
import type { ProgrammeRow } from '@/store/tables/programme';
import type { EnrolmentRow, HouseholdRow } from '@/store/tables/roll';
import { notFound } from '../errors';
import type { Context } from '../gate/gate';
import { loadLocked } from '../packing/locked';

/** A kit that goes to a door. */
export interface DoorKit {
  readonly id: string;
  readonly number: number;
  readonly variant: string;
  readonly name: string;
  readonly now: HandedNow;
  readonly isCalledBack: boolean;
}

/** A family's door in a hand-out. */
export interface DoorAt extends DoorStop {
  readonly address: string;
  readonly contact: string;
  /** Version of the household, for who changes its door. */
  readonly version: number;
  readonly group: string;
  /** Somebody there cooks with the class on screen, and needs the kit before it. */
  readonly isOnScreen: boolean;
  readonly bags: readonly DoorKit[];
}

/** A group’s meeting, as far as its kits are brought before or after it. */
export interface DoorMeeting {
  readonly group: string;
  readonly date: string;
  readonly startsAt: string;
}

/** Ways to take part whose kits are brought to the door. */
const TO_DOOR: readonly string[] = ['live online', 'follow-later'];

/** Hours before an online class by which kits are in the homes; and how long before that they are brought, and afternoons, in minutes. */
const HOME_BEFORE = 120;
const BRINGING = 240;

/** When kits are brought to some doors where nobody says: before a class on screen, else in the hours after the hand-out began. */
export function usualSpan(
  doors: readonly Pick<DoorAt, 'isOnScreen'>[],
  { startsAt }: Pick<DoorMeeting, 'startsAt'>,
): Span {
  const start = minutesOf(startsAt);
  if (doors.some(({ isOnScreen }) => isOnScreen)) {
    const to = Math.max(60, start - HOME_BEFORE);
    return { from: Math.max(0, to - BRINGING), to };
  }
  return { from: start, to: Math.min(21 * 60, Math.max(start + 60, start + BRINGING)) };
}

/** Everything that rounds to the doors of a session are planned and driven from. */
export interface Doors {
  readonly locked: LockedSheet;
  readonly programme: ProgrammeRow;
  /** undefined while nobody has said where the kitchen is. */
  readonly roads: LocalRoads | undefined;
  readonly meetings: readonly DoorMeeting[];
  readonly doors: readonly DoorAt[];
  readonly rounds: readonly DoorRoundRow[];
  /** Whom the kits are for, their families, and what has been handed out of each kit. */
  readonly people: readonly EnrolmentRow[];
  readonly homes: readonly HouseholdRow[];
  readonly now: ReadonlyMap<string, HandedNow>;
}

/**
 * Loads the doors of a session.
 *
 * @param householdId of this family only: its people and its door
 * @throws ServiceError where nothing is locked
 */
export async function loadDoors(
  context: Context,
  sessionId: string,
  db: Db = context.store.db,
  householdId?: string,
): Promise<Doors> {
  const { locked } = await loadLocked(context, sessionId, db);
  const { programmeId } = context.actor;
  const [programme, events, held, rounds, fates, people] = await Promise.all([
    findOne(db, db.models.programme, { id: programmeId }),
    handedSince(db, sessionId, 0),
    callBackEvents(db, sessionId),
    find(db, db.models.doorRound, { sessionId }, [
      ['date', 'ASC'],
      ['leaves', 'ASC'],
      ['id', 'ASC'],
    ]),
    find(db, db.models.kitFate, { sessionId }, [
      ['at', 'ASC'],
      ['id', 'ASC'],
    ]),
    find(db, db.models.enrolment, {
      id: locked.kits.map(({ enrolmentId }) => enrolmentId),
      ...(householdId && { householdId }),
    }),
  ]);
  if (!programme) throw notFound('programme');
  const byId = new Map(people.map((row) => [row.id, row]));
  const homes = await find(db, db.models.household, {
    id: [...new Set(people.map(({ householdId }) => householdId))],
    programmeId,
    erasedAt: null,
  });
  const now = handedNow(events);
  const called = calledBackNow(held);
  const brought = new Set(
    [...new Map(fates.map((row) => [row.kitId, row.fate]))].flatMap(([kitId, fate]) =>
      fate === 'delivered' ? [kitId] : [],
    ),
  );
  const cold = new Map(
    locked.content.variants.map(({ letter }) => [letter, leftKit(locked.content, letter).cold.length > 0]),
  );
  const doors = homes.flatMap((home): DoorAt[] => {
    const kits = locked.kits.filter(({ id, enrolmentId }) => {
      const person = byId.get(enrolmentId);
      if (person?.householdId !== home.id) return false;
      return TO_DOOR.includes(person.mode ?? locked.session.mode) || brought.has(id);
    });
    if (kits.length === 0) return [];
    return [
      {
        householdId: home.id,
        name: home.name,
        door: home.door,
        address: home.address,
        contact: home.contact,
        version: home.version,
        group: kits[0]?.group ?? '',
        isOnScreen: kits.some(
          ({ enrolmentId }) => (byId.get(enrolmentId)?.mode ?? locked.session.mode) === 'live online',
        ),
        kits: kits.length,
        isCold: kits.some(({ variant }) => cold.get(variant)),
        bags: kits.map(({ id, number, variant, name }) => ({
          id,
          number,
          variant,
          name,
          now: now.get(id) ?? STILL_HERE,
          isCalledBack: called.has(id),
        })),
      },
    ];
  });
  const { kitchen } = programme.roads;
  const { session } = locked;
  return {
    locked,
    programme,
    roads: kitchen && { ...USUAL_ROADS, ...programme.roads, kitchen },
    meetings: session.groups?.map(({ name, date, startsAt }) => ({ group: name, date, startsAt })) ?? [
      { group: '', date: session.date, startsAt: session.startsAt },
    ],
    doors: doors.sort((a, b) => a.name.localeCompare(b.name)),
    rounds,
    people,
    homes,
    now,
  };
}

/** A round as who drives it. */
export const driverOf = (round: DoorRoundRow, nameOf: ReadonlyMap<string, string>): DoorDriver => ({
  id: round.id,
  name: round.crewId ? (nameOf.get(round.crewId) ?? 'somebody') : round.driver,
  from: round.fromMinute,
  to: round.toMinute,
  ...(round.litres === null ? {} : { litres: round.litres }),
  home: round.isHome === 1,
});

/** The case of some doors for the rounds that there are. @throws ServiceError where nobody has said where the kitchen is */
export function caseOf(
  { roads, meetings }: Doors,
  doors: readonly DoorAt[],
  drivers: readonly DoorDriver[],
  span?: Span,
): { readonly given: RoutesCase; readonly withoutPoint: readonly DoorStop[] } {
  if (!roads) return { given: { places: ['kitchen'], minutes: [[0]] }, withoutPoint: doors };
  const meeting = meetings.find(({ group }) => group === doors[0]?.group) ?? (meetings[0] as DoorMeeting);
  return doorCase(roads, doors, drivers, span ?? usualSpan(doors, meeting));
}

/** A saved round, judged by what is known now: a family may have other hours than when it was planned. */
export function judgedRound(doors: Doors, round: DoorRoundRow, nameOf: ReadonlyMap<string, string>) {
  const own = round.stops.flatMap(({ householdId }) => doors.doors.filter((door) => door.householdId === householdId));
  const driver = driverOf(round, nameOf);
  const { given } = caseOf(doors, own, [driver], round.stops[0]?.span);
  const gone = round.stops.filter(({ householdId }) => !own.some((door) => door.householdId === householdId));
  const judged = judgeRound(
    given,
    driver,
    own.map(({ householdId }) => householdId),
    timeOf,
  );
  return { driver, doors: own, given, judged, gone };
}
