import { z } from 'zod';
import { addDays, DAY, minutesOf } from '@/core/plan/civil';
import { findOne, updateVersion } from '@/store/query';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { service, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';

/** A calendar is read so far ahead: what comes later is brought in again by then. */
const DAYS_AHEAD = 180;
const MOST_TIMES = 400;

interface Busy {
  readonly date: string;
  readonly from: number;
  readonly to: number;
  readonly isFree: false;
}

export const importBusy = service({
  title: 'Note from a calendar file when somebody of the crew is busy',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ crewId: z.uuid(), version: z.coerce.number().int(), bytes: z.instanceof(Uint8Array) }),
  run: async (context, { crewId, version, bytes }) => {
    const { timeZone } = (await loadProgramme(context)).programme;
    const today = todayIn(context, timeZone);
    const until = addDays(today, DAYS_AHEAD);
    const { closures, problems } = await pooled('readCalendar', {
      bytes,
      window: { from: today, to: until },
      timeZone,
    });
    if (problems.length > 0)
      throw new ServiceError('invalid', 'Nothing was saved: mend the file.', problems.slice(0, 20));
    // What they are busy with is nobody's business: only when.
    const busy = closures.flatMap(({ from, to, hours }): Busy[] => {
      const days: Busy[] = [];
      for (let date = from; date <= to; date = addDays(date, 1)) {
        const [start, end] = hours ? [minutesOf(hours.from), minutesOf(hours.to) || DAY] : [0, DAY];
        if (date >= today && date <= until && start < end) days.push({ date, from: start, to: end, isFree: false });
      }
      return days;
    });
    return context.store.transaction(async (db) => {
      const row = await findOne(db, db.models.crewMember, {
        id: crewId,
        programmeId: context.actor.programmeId,
        erasedAt: null,
      });
      if (!row) throw notFound('person');
      const known = new Set(
        row.free.exceptions.map((each) => JSON.stringify([each.date, each.from, each.to, each.isFree])),
      );
      const fresh = busy.filter((each) => !known.has(JSON.stringify([each.date, each.from, each.to, false])));
      // What is over needs no place any more.
      const exceptions = [...row.free.exceptions.filter(({ date }) => date >= today), ...fresh];
      if (exceptions.length > MOST_TIMES)
        throw new ServiceError(
          'invalid',
          `At most ${MOST_TIMES} times can be kept: export a shorter span of the calendar.`,
        );
      const free = { ...row.free, exceptions };
      if (!(await updateVersion(db, db.models.crewMember, crewId, version, { free }))) throw stale('person');
      await logChange(context, db, 'noted when they are busy', 'crew', crewId, {});
      return { times: fresh.length, until };
    });
  },
});
