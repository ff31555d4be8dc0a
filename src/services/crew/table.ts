import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { service } from '../gate/gate';
import { rosterOf } from './crew-sessions';
import { loadRoster } from './roster';

export const viewRosterTable = service({
  title: 'See people against duties, to change by hand',
  roles: ['coordinator'],
  input: z.object({ toDay: civilDate.optional() }),
  run: async (context, wanted) => {
    const { today, toDay, crew, sessions } = await loadRoster(context, wanted);
    const { given } = await rosterOf(context, sessions, crew, today);
    const known = new Set((given.duties ?? []).map(({ id }) => id));
    return {
      today,
      toDay,
      // Whoever looks at the table checks a change at once: with the same rules, on what is known here.
      given: { duties: given.duties ?? [], people: given.people ?? [], travel: given.travel ?? [] },
      people: crew.map(({ id, name, skills }) => ({ id, name, skills })),
      duties: sessions.flatMap((session) =>
        session.duties
          .filter(({ id }) => known.has(id))
          .map(({ id, key, title, date, from, to, people }) => ({
            id,
            key,
            sessionId: session.id,
            title,
            session: session.title,
            date,
            from,
            to,
            people,
          })),
      ),
      places: sessions.flatMap((session) =>
        session.promises.map(({ duty, crewId, state, isPinned }) => ({
          duty: `${session.id} ${duty}`,
          person: crewId,
          state,
          isPinned: isPinned === 1,
        })),
      ),
    };
  },
});
