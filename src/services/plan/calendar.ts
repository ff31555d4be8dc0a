import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { sayClosure } from '@/core/plan/cadence';
import { addDays, dayOf, weekdayOf } from '@/core/plan/civil';
import { checkBooking } from '@/core/plan/conflicts';
import { mannerOf } from '@/core/plan/manner';
import { service } from '../gate/gate';
import { loadPlan, splitBookingId } from './world';

/** Weeks that the calendar shows at once. */
export const WEEKS_SHOWN = 5;

/** A session as the calendar draws it. */
export interface CalendarSession {
  readonly id: string;
  /** '' for the first group, or the only one. */
  readonly groupId: string;
  readonly courseId: string;
  readonly courseTitle: string;
  readonly title: string;
  readonly date: string;
  readonly startsAt: string;
  readonly minutes: number;
  readonly place: string;
  readonly mode: string;
  readonly version: number;
  readonly conflicts: readonly string[];
}

export const viewCalendar = service({
  title: 'See the calendar of all sessions',
  roles: ['coordinator'],
  input: z.object({ from: civilDate.optional() }),
  run: async (context, { from }) => {
    const today = context.clock().toString().slice(0, 10);
    const given = from ?? today;
    // Whichever day weeks begin with here, these days hold them.
    const plan = await loadPlan(context, { from: addDays(given, -6), to: addDays(given, WEEKS_SHOWN * 7 - 1) });
    const { firstWeekday } = mannerOf(plan.programme);
    const start = addDays(given, -((weekdayOf(dayOf(given)) - firstWeekday + 7) % 7));
    const end = addDays(start, WEEKS_SHOWN * 7 - 1);
    const byId = new Map(plan.sessions.map((session) => [session.id, session]));
    const sessions = plan.bookings
      .filter(({ date }) => date >= start && date <= end)
      .flatMap((booking): CalendarSession[] => {
        const { sessionId, groupId } = splitBookingId(booking.id);
        const session = byId.get(sessionId);
        if (!session) return [];
        const { courseId, courseTitle, minutes, mode, version, sittings } = session;
        const { place } = sittings.find((sitting) => sitting.groupId === groupId) ?? session;
        const { title, date, startsAt } = booking;
        const conflicts = date >= plan.today ? checkBooking(booking, plan.index, plan.world) : [];
        const what = {
          id: sessionId,
          groupId,
          courseId,
          courseTitle,
          title,
          date,
          startsAt,
          minutes,
          place,
          mode,
          version,
        };
        return [{ ...what, conflicts: conflicts.map(({ say }) => say) }];
      })
      .sort((a, b) => (`${a.date} ${a.startsAt}` < `${b.date} ${b.startsAt}` ? -1 : 1));
    const closures = plan.world.closures
      .filter((closure) => closure.from <= end && closure.to >= start)
      .map((closure) => ({
        from: closure.from,
        to: closure.to,
        say: `${sayClosure(closure)}${closure.placeId ? ` (${plan.world.places.get(closure.placeId)?.name ?? 'one place'})` : ''}${closure.hours ? `, ${closure.hours.from} to ${closure.hours.to}` : ''}`,
      }));
    return {
      start,
      end,
      today: plan.today,
      sessions,
      closures,
      places: [...plan.world.places.values()].map(({ name }) => name),
    };
  },
});
