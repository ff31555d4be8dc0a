import { z } from 'zod';
import { endCrewLinks } from '@/store/crew';
import { findOne } from '@/store/query';
import { openLink, validLink } from '../access/links';
import type { Visit } from '../access/sign-in';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, ROLES, service } from '../gate/gate';
import { crewNow } from './crew-sessions';
import { answerOf, answerOwn, awayOf, sayAway, takeOffer } from './own-answers';
import { type Own, ownCalendar, viewOwn } from './own-view';

const GONE = new ServiceError(
  'not-found',
  'This page has ended. Ask the coordinator of the programme for a new link to it.',
);

/** Whose page a link opens. @throws ServiceError where it opens none any more */
export async function ownByLink(visit: Visit, secret: string): Promise<Own> {
  // A page is looked at again and again, by many from one address: only guesses are counted.
  const link = (await validLink(visit, visit.store.db, 'crew', secret)) ?? (await openLink(visit, 'crew', secret));
  const { db } = visit.store;
  const person = link && (await findOne(db, db.models.crewMember, { id: link.crewId ?? '', erasedAt: null }));
  if (!person) throw GONE;
  const actor = { id: person.id, programmeId: person.programmeId, role: 'crew' as const, name: person.name };
  return { context: { ...visit, actor }, person };
}

/** The page of whoever is signed in, where a coordinator said who of the crew they are. */
async function ownBySignIn(context: Context): Promise<Own> {
  const { id: memberId, programmeId } = context.actor;
  const { db } = context.store;
  const person = await findOne(db, db.models.crewMember, { memberId, programmeId, erasedAt: null });
  if (!person)
    throw new ServiceError(
      'not-found',
      'Nobody has said yet who of the crew you are: ask a coordinator to link your sign-in.',
    );
  return { context, person };
}

/** What somebody can do on their page, however they came to it. */
export const OWN_PAGE = {
  view: viewOwn,
  answer: async (own: Own, sent: unknown) => answerOwn(own, read(answerOf, sent)),
  take: async (own: Own, sent: unknown) => takeOffer(own, read(z.object({ promiseId: z.uuid() }), sent).promiseId),
  away: async (own: Own, sent: unknown) => sayAway(own, read(awayOf, sent)),
  calendar: ownCalendar,
} as const;

export const viewMyPage = service({
  title: 'See one’s own duties',
  roles: ROLES,
  input: z.object({}),
  run: async (context) => viewOwn(await ownBySignIn(context)),
});

export const answerOnMyPage = service({
  title: 'Say yes or no to a duty of one’s own',
  roles: ROLES,
  input: answerOf,
  run: async (context, sent) => answerOwn(await ownBySignIn(context), sent),
});

export const endCrewLink = service({
  title: 'End the personal link of somebody of the crew',
  roles: ['coordinator'],
  input: z.object({ crewId: z.uuid() }),
  run: (context, { crewId }) =>
    context.store.transaction(async (db) => {
      if (!(await crewNow(context, db)).some(({ id }) => id === crewId)) throw notFound('person');
      const ended = await endCrewLinks(db, { crewId, now: nowOf(context) });
      await logChange(context, db, 'ended the personal link', 'crew', crewId, {});
      return ended;
    }),
});

function read<T extends z.ZodType>(schema: T, sent: unknown): z.output<T> {
  const reading = schema.safeParse(sent);
  if (reading.success) return reading.data;
  throw new ServiceError(
    'invalid',
    'Nothing was saved yet.',
    reading.error.issues.map(({ path, message }) => ({ where: String(path[0] ?? ''), message })),
  );
}
