import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { whyNot } from '@/core/crew/may-do';
import type { Saying } from '@/core/plan/saying';
import { holdSessions } from '@/store/plan';
import { find, insert, update } from '@/store/query';
import type { Db } from '@/store/store';
import type { CrewMemberRow, PromiseRow, ToldDuty } from '@/store/tables/crew';
import { makeLink } from '../access/links';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { LINK_PLACE } from '../messages/link-place';
import { queueMessage } from '../messages/messages';
import { hasMoved } from '../sheet/duty-sessions';
import { heldBy } from '../sheet/load-programme';
import { sayingFor } from '../sheet/saying';
import { type CrewSession, type SessionDuty, toldOf } from './crew-sessions';
import { ableAt, freshPromise, loadRoster } from './roster';

/** A personal page works so long; every message carries one that works for a while yet. */
const LINK_DAYS = 180;
const FRESH_DAYS = 30;
const DAY = 86_400_000;

/** What a message to somebody of the crew is about. */
export type Telling = 'asked' | 'reminded' | 'moved' | 'no longer needed' | 'taken' | 'somebody dropped out';

const SUBJECTS: Readonly<Record<Telling, string>> = {
  asked: 'Can you help?',
  reminded: 'Can you help? We have no answer yet',
  moved: 'Something moved: can you still come?',
  'no longer needed': 'You are not needed after all',
  taken: 'The place is taken, thank you',
  'somebody dropped out': 'Somebody dropped out: can you step in?',
};

const FIRST: Readonly<Record<Telling, string>> = {
  asked: 'would you do this?',
  reminded: 'we asked you for this, and have no answer yet.',
  moved: 'this has another day, time or place than you were told. Can you still do it?',
  'no longer needed': 'thank you: this is done without you now.',
  taken: 'thank you: somebody was quicker, and this is taken.',
  'somebody dropped out': 'somebody cannot come. Would you step in? Whoever says yes first has the place.',
};

const ASKS: readonly Telling[] = ['asked', 'reminded', 'moved', 'somebody dropped out'];

/** The message to somebody, as it is drafted. Where their page is linked, the link stands in for itself. */
export function draftFor(
  telling: Telling,
  {
    name,
    duties,
    words = '',
    address,
    say,
  }: { name: string; duties: readonly ToldDuty[]; words?: string; address: string; say: Saying },
): { subject: string; body: string } {
  const lines = duties.map(
    ({ title, date, from, to, place }) =>
      `- ${title}: ${say.shortDate(date)}, ${say.time(from)} to ${say.time(to)}, ${place}`,
  );
  const page = ASKS.includes(telling)
    ? `Say yes or no on your own page, where it also says what to bring:\n${address}/my/${LINK_PLACE}`
    : '';
  return {
    subject: SUBJECTS[telling],
    body: [`Hello ${name},`, FIRST[telling], lines.join('\n'), words, page].filter(Boolean).join('\n\n'),
  };
}

/** The link to somebody's own page; the one they have, while it works for some weeks yet. @returns its id */
export async function linkOf(context: Context, db: Db, { id: crewId, programmeId }: CrewMemberRow): Promise<string> {
  const links = await find(db, db.models.accessLink, { crewId, purpose: 'crew', usedAt: null });
  const until = nowOf(context).getTime() + FRESH_DAYS * DAY;
  const fresh = links.find(({ expiresAt }) => expiresAt.getTime() > until);
  if (fresh) return fresh.id;
  const link = { programmeId, purpose: 'crew' as const, email: '', role: null, memberId: null, crewId };
  return (await makeLink(context, db, { ...link, createdBy: context.actor.id }, LINK_DAYS * 24)).id;
}

/**
 * Queues a message to somebody of the crew, in the transaction of what it tells about.
 *
 * @returns false where nobody wrote how they are reached: they are told another way
 */
export async function tellCrew(
  context: Context,
  db: Db,
  person: CrewMemberRow,
  telling: Telling,
  duties: readonly ToldDuty[],
  words = '',
): Promise<boolean> {
  const { id: crewId, contact, name, programmeId } = person;
  if (contact === '') return false;
  const draft = draftFor(telling, { name, duties, words, address: context.address, say: await sayingFor(context, db) });
  const linkId = ASKS.includes(telling) ? await linkOf(context, db, person) : null;
  await queueMessage(context, db, programmeId, { sentTo: contact, ...draft, crewId, ...(linkId ? { linkId } : {}) });
  return true;
}

/** What was asked of whom. */
export interface Asked {
  readonly people: number;
  readonly places: number;
  /** People whom no message reaches: nobody wrote how. */
  readonly unreached: readonly string[];
}

interface ToAsk {
  readonly row: PromiseRow;
  readonly duty: SessionDuty;
  readonly telling: Telling;
}

/** Asks people, each in one message with all that it is about. Who holds a place keeps it until they answer. */
async function ask(
  context: Context,
  db: Db,
  crew: readonly CrewMemberRow[],
  wanted: readonly ToAsk[],
  words = '',
): Promise<Asked> {
  const now = nowOf(context);
  // Nobody is asked for what they may not do any more.
  const all = wanted.filter(({ row, duty }) => {
    const person = crew.find(({ id }) => id === row.crewId);
    return person !== undefined && whyNot(heldBy(person), duty) === undefined;
  });
  const unreached: string[] = [];
  let people = 0;
  for (const person of crew) {
    const own = all.filter(({ row }) => row.crewId === person.id);
    if (own.length === 0) continue;
    people++;
    for (const telling of new Set(own.map((each) => each.telling))) {
      const duties = own.filter((each) => each.telling === telling).map(({ duty }) => toldOf(duty));
      if (!(await tellCrew(context, db, person, telling, duties, words)) && !unreached.includes(person.name))
        unreached.push(person.name);
    }
    for (const { row, duty, telling } of own) {
      const values =
        telling === 'reminded'
          ? { remindedAt: now }
          : {
              state: 'asked' as const,
              told: toldOf(duty),
              askedAt: now,
              remindedAt: null,
              answeredAt: null,
              isOffered: 0,
            };
      await update(db, db.models.promise, { id: row.id }, { ...values, version: row.version + 1 });
    }
  }
  for (const sessionId of new Set(all.map(({ row }) => row.sessionId)))
    await logChange(context, db, 'asked the crew', 'session', sessionId, {
      places: all.filter(({ row }) => row.sessionId === sessionId).length,
    });
  return { people, places: all.length, unreached };
}

/** Who is to be asked: whoever is planned; whoever was told another time or place than holds now. */
function toAskIn(sessions: readonly CrewSession[], today: string): ToAsk[] {
  return sessions.flatMap(({ duties, promises }) =>
    duties
      .filter(({ date }) => date >= today)
      .flatMap((duty) =>
        promises
          .filter((row) => row.duty === duty.key)
          .flatMap((row): ToAsk[] => {
            if (row.state === 'planned') return [{ row, duty, telling: 'asked' }];
            const moved = (row.state === 'asked' || row.state === 'accepted') && hasMoved(row.told, duty);
            return moved ? [{ row, duty, telling: 'moved' }] : [];
          }),
      ),
  );
}

const span = z.object({
  toDay: civilDate.optional(),
  courseId: z.uuid().optional(),
  sessionId: z.uuid().optional(),
  words: z.string().trim().max(1000).default(''),
});

export const askCrew = service({
  title: 'Publish a roster: ask everybody who is planned',
  roles: ['coordinator'],
  input: span,
  run: (context, { words, ...wanted }) =>
    context.store.transaction(async (db) => {
      const { meant, crew, today } = await loadRoster(context, wanted, db);
      if (meant.length > 0)
        await holdSessions(
          db,
          context.actor.programmeId,
          meant.map(({ id }) => id),
        );
      return ask(context, db, crew, toAskIn(meant, today), words);
    }),
});

export const remindCrew = service({
  title: 'Remind those who were asked and have not answered',
  roles: ['coordinator'],
  input: span,
  run: (context, { words, ...wanted }) =>
    context.store.transaction(async (db) => {
      const { meant, crew, today } = await loadRoster(context, wanted, db);
      return ask(context, db, crew, silentIn(meant, today), words);
    }),
});

const silentIn = (sessions: readonly CrewSession[], today: string): ToAsk[] =>
  sessions.flatMap(({ duties, promises }) =>
    duties
      .filter(({ date }) => date >= today)
      .flatMap((duty) =>
        promises
          .filter((row) => row.duty === duty.key && row.state === 'asked')
          .map((row): ToAsk => ({ row, duty, telling: 'reminded' })),
      ),
  );

export const askToStepIn = service({
  title: 'Ask several people for one place: whoever says yes first has it',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    duty: z.string().min(1).max(90),
    crewIds: z.array(z.uuid()).min(1, 'Choose whom to ask.').max(50),
    words: z.string().trim().max(1000).default(''),
  }),
  run: (context, { sessionId, duty: key, crewIds, words }) =>
    context.store.transaction(async (db) => {
      await holdSessions(db, context.actor.programmeId, [sessionId]);
      const { meant, crew } = await loadRoster(context, { sessionId }, db);
      const session = meant[0];
      const duty = session?.duties.find((each) => each.key === key);
      const people = crew.filter(({ id }) => crewIds.includes(id));
      if (!session || !duty || people.length < crewIds.length) throw notFound('place');
      const own = session.promises.filter((each) => each.duty === key);
      if (ableAt(duty, own, crew).length >= duty.people)
        throw new ServiceError('invalid', `${duty.title} has all its people: nobody needs to be asked.`);
      const rows: PromiseRow[] = [];
      for (const { id: crewId } of people) {
        const row = own.find((each) => each.crewId === crewId);
        if (row?.state === 'accepted') continue;
        const fresh = row ?? freshPromise(context, { sessionId, duty: key, crewId });
        if (!row) await insert(db, db.models.promise, [fresh]);
        rows.push(fresh);
      }
      const all = rows.map((row): ToAsk => ({ row, duty, telling: 'somebody dropped out' }));
      return ask(context, db, people, all, words);
    }),
});

/** A reminder goes out by itself after so many days, once, and not for what is further off than so many. */
const REMIND_AFTER_DAYS = 3;
const REMIND_WITHIN_DAYS = 14;

/**
 * What goes out by itself: whoever was told another time or place is asked again, whoever is silent is reminded once.
 *
 * @returns how many places people were written to about
 */
export const askByItself = (context: Context): Promise<{ moved: number; reminded: number }> =>
  context.store.transaction(async (db) => {
    const { meant, crew, today } = await loadRoster(context, {}, db);
    const moved = toAskIn(meant, today).filter(({ telling }) => telling === 'moved');
    const since = nowOf(context).getTime() - REMIND_AFTER_DAYS * DAY;
    const until = new Date(nowOf(context).getTime() + REMIND_WITHIN_DAYS * DAY).toISOString().slice(0, 10);
    const silent = silentIn(meant, today).filter(
      ({ row, duty }) =>
        row.remindedAt === null &&
        (row.askedAt?.getTime() ?? 0) < since &&
        duty.date <= until &&
        !moved.some((each) => each.row.id === row.id),
    );
    await ask(context, db, crew, [...moved, ...silent]);
    return { moved: moved.length, reminded: silent.length };
  });
