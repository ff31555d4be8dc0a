import { z } from 'zod';
import { HOLDS } from '@/core/crew/crew-standing';
import { findOne } from '@/store/query';
import { notFound } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';
import { linkSecret } from '../gate/keys';
import { loadSheet } from '../kits/kit-sheet';
import { linkOf } from './asking';
import { crewNow, crewSessions } from './crew-sessions';
import { fillOf, holdersOf, namesOf } from './roster';

export const viewSessionCrew = service({
  title: 'See the crew of a session',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const loaded = await loadSheet(context, sessionId);
    const crew = await crewNow(context, context.store.db);
    const [session] = await crewSessions(context, loaded, { ids: [sessionId] }, crew);
    if (!session) throw notFound('session');
    const names = namesOf(crew);
    const duties = session.duties.map((duty) => {
      const holders = holdersOf(duty, session.promises, crew);
      return { ...duty, holders, ...fillOf(duty, holders) };
    });
    const keys = new Set(duties.map(({ key }) => key));
    return {
      ...loaded,
      below: session.below,
      rooms: session.rooms,
      duties: duties.toSorted((a, b) => (a.date === b.date ? a.from - b.from : a.date < b.date ? -1 : 1)),
      // The plan moved: people are at duties that are no longer there.
      left: session.promises
        .filter(({ duty, state }) => !keys.has(duty) && HOLDS.includes(state))
        .map(({ id, duty, crewId, told }) => ({
          id,
          duty,
          crewId,
          name: names.get(crewId) ?? '',
          title: told?.title ?? duty,
        })),
      crewSize: crew.length,
    };
  },
});

export const showCrewLink = service({
  title: 'Make or see the personal link of somebody of the crew',
  roles: ['coordinator'],
  proof: true,
  input: z.object({ crewId: z.uuid() }),
  run: (context, { crewId }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const person = await findOne(db, db.models.crewMember, { id: crewId, programmeId, erasedAt: null });
      if (!person) throw notFound('person');
      const linkId = await linkOf(context, db, person);
      await logChange(context, db, 'saw the personal link', 'crew', crewId, {});
      return `${context.address}/my/${linkSecret(context, linkId)}`;
    }),
});
