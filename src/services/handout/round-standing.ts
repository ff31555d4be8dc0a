import { type Ahead, aheadOf, coldLeft } from '@/core/handout/doors/on-the-road';
import type { RoutesCase } from '@/core/handout/routes/route-case';
import { civilOf, dayOf } from '@/core/plan/civil';
import { civilIn } from '@/core/plan/clock';
import type { DoorRoundRow } from '@/store/tables/handout';
import type { DoorAt } from './door-stops';

/** How a round goes now. */
export interface RoundStanding {
  readonly state: 'planned' | 'on the road' | 'over';
  /** Doors that something was said of, whatever it was. */
  readonly done: number;
  readonly ahead: readonly Ahead[];
  /** Minutes that cold food may still be out of the fridge; undefined while nothing cold is on the road. */
  readonly coldLeft?: number;
}

/** A moment as minutes of a day, which may lie on another day. */
export function minuteOn(date: string, at: Date, timeZone: string): number {
  const civil = civilIn(at.toISOString(), timeZone);
  return civilOf(civil.date, civil.time) - dayOf(date) * 1440;
}

/** Whether something was said of all kits of a door. */
export const isDone = ({ bags }: Pick<DoorAt, 'bags'>): boolean => bags.every(({ now }) => now.state !== 'here');

/**
 * Where a round is, from what its driver said: the doors ahead with when they are reached now. A driver who has not left yet is
 * reckoned to leave now, or as planned, whichever is later.
 */
export function roundStanding(
  { doors, given }: { readonly doors: readonly DoorAt[]; readonly given: RoutesCase },
  round: DoorRoundRow,
  now: Date,
  timeZone: string,
): RoundStanding {
  const done = doors.filter(isDone);
  const planned = round.stops.map(({ householdId, begins }) => ({ at: householdId, begins }));
  const open = planned.filter(({ at }) => doors.some((door) => door.householdId === at && !isDone(door)));
  const minute = minuteOn(round.date, now, timeZone);
  if (round.endedAt) return { state: 'over', done: done.length, ahead: [] };
  if (!round.leftAt) {
    const leaves = minute > round.leaves && minute < 1440 ? minute : round.leaves;
    return { state: 'planned', done: done.length, ahead: aheadOf(given, open, given.places[0] ?? '', leaves, leaves) };
  }
  const left = minuteOn(round.date, round.leftAt, timeZone);
  const last = lastDone(done);
  // From the last word said: a driver on the way says nothing. The next door is not reached before now.
  const since = last ? minuteOn(round.date, new Date(saidAt(last)), timeZone) : left;
  const [next] = aheadOf(given, open, last?.householdId ?? given.places[0] ?? '', since, left);
  const behind = next ? Math.max(0, minute - next.begins) : 0;
  const ahead = aheadOf(given, open, last?.householdId ?? given.places[0] ?? '', since + behind, left);
  const isCold = doors.some((door) => door.isCold && !isDone(door));
  return {
    state: open.length > 0 ? 'on the road' : 'over',
    done: done.length,
    ahead,
    ...(isCold ? { coldLeft: coldLeft(minute, left) } : {}),
  };
}

/** The door of which something was said last. */
const lastDone = (done: readonly DoorAt[]) => [...done].sort((a, b) => saidAt(b).localeCompare(saidAt(a)))[0];
const saidAt = ({ bags }: DoorAt): string =>
  bags
    .map(({ now }) => now.by?.at ?? '')
    .sort()
    .at(-1) ?? '';
