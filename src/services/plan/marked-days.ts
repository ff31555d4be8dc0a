import { z } from 'zod';
import { addDays, dateOf, dayOf } from '@/core/plan/civil';
import { closedDays, sessionDays } from '@/store/plan';
import { service, todayIn } from '../gate/gate';
import { timeZoneOf } from '../sheet/load-programme';

/** How far a calendar to choose from looks back and ahead, in days. */
const [BACK, AHEAD] = [31, 400];
/** A closure that is longer is marked so far. */
const LONGEST = 120;

export const markedDays = service({
  title: 'See which days are closed, and which have sessions',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context): Promise<{ date: string; say: string }[]> => {
    const { db } = context.store;
    const today = todayIn(context, await timeZoneOf(context));
    const span = { programmeId: context.actor.programmeId, from: addDays(today, -BACK), to: addDays(today, AHEAD) };
    const [closures, sessions] = await Promise.all([closedDays(db, span), sessionDays(db, span)]);
    const said = new Map<string, string[]>();
    const mark = (date: string, say: string) => said.set(date, [...(said.get(date) ?? []), say]);
    for (const { from, to, title, calendar } of closures) {
      const first = Math.max(dayOf(from), dayOf(span.from));
      const last = Math.min(dayOf(to), dayOf(span.to), first + LONGEST);
      for (let day = first; day <= last; day++) mark(dateOf(day), `closed, ${title || calendar}`);
    }
    for (const { date, title } of sessions) mark(date, title);
    return [...said].map(([date, all]) => ({ date, say: all.slice(0, 4).join('; ') }));
  },
});
