import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { minutesOfStay } from '@/core/crew/hours';
import { addDays, minutesOf } from '@/core/plan/civil';
import { civilIn } from '@/core/plan/clock';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { writeHoursCsv } from '@/formats/crew/hours-csv';
import { hoursBetween } from '@/store/crew';
import { holdSessions } from '@/store/plan';
import { find, insert, remove, updateVersion } from '@/store/query';
import type { Db } from '@/store/store';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, ROLES, service, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';
import { crewNow, crewSessions } from './crew-sessions';

/** The wall clock where the programme is. */
async function wallClock(context: Context): Promise<{ date: string; minute: number }> {
  const { timeZone } = (await loadProgramme(context)).programme;
  const { date, time } = civilIn(context.clock().toString(), timeZone);
  return { date, minute: minutesOf(time) };
}

export const viewDoor = service({
  title: 'See who of the crew is expected at a session, and who is there',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { db } = context.store;
    const crew = await crewNow(context, db);
    const [session] = await crewSessions(context, await loadProgramme(context), { ids: [sessionId] }, crew);
    if (!session) throw notFound('session');
    const { date } = await wallClock(context);
    const stays = await find(db, db.models.crewHours, { sessionId }, [['came', 'ASC']]);
    const isExpected = (id: string) =>
      session.promises.some(({ crewId, state }) => crewId === id && state === 'accepted');
    const people = crew
      .map(({ id, name }) => ({
        id,
        name,
        isExpected: isExpected(id),
        duties: session.duties.flatMap(({ key, title, from, date: on }) =>
          session.promises.some(({ crewId, duty, state }) => crewId === id && duty === key && state === 'accepted')
            ? [{ title, from, date: on }]
            : [],
        ),
        stays: stays
          .filter(({ crewId }) => crewId === id)
          .map(({ id: stayId, date: on, came, went, note, version }) => ({
            id: stayId,
            date: on,
            came,
            went,
            note,
            version,
          })),
      }))
      .sort((a, b) => Number(b.isExpected) - Number(a.isExpected) || a.name.localeCompare(b.name));
    return { session: { id: session.id, title: session.title, date: session.date }, today: date, people };
  },
});

/** Whether a session, or a duty of it that somebody promised, is on a day. */
async function isOn(db: Db, { id: sessionId, date }: { readonly id: string; readonly date: string }, today: string) {
  if (date === today) return true;
  const promised = await find(db, db.models.promise, { sessionId, state: 'accepted' });
  return promised.some(({ told }) => told?.date === today);
}

export const tapAtDoor = service({
  title: 'Note that somebody of the crew came, or went',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid(), crewId: z.uuid() }),
  run: async (context, { sessionId, crewId }) => {
    const { date, minute } = await wallClock(context);
    return context.store.transaction(async (db) => {
      const [session] = await holdSessions(db, context.actor.programmeId, [sessionId]);
      if (!session) throw notFound('session');
      if (context.actor.role !== 'coordinator' && !(await isOn(db, session, date)))
        throw new ServiceError(
          'forbidden',
          'Nobody has a duty of this session today: ask a coordinator to note the hours.',
        );
      if (!(await crewNow(context, db)).some(({ id }) => id === crewId)) throw notFound('person');
      const own = await find(db, db.models.crewHours, { sessionId, crewId, date });
      const open = own.find(({ went }) => went === null);
      if (!open) {
        const row = { id: context.ids(), sessionId, crewId, date, came: minute, went: null, note: '', version: 1 };
        await insert(db, db.models.crewHours, [row]);
        return 'came' as const;
      }
      // A second tap in the same minute is a slip, not a stay of no time.
      if (open.came === minute) {
        await remove(db, db.models.crewHours, { id: open.id });
        return 'not there' as const;
      }
      if (!(await updateVersion(db, db.models.crewHours, open.id, open.version, { went: minute }))) throw stale('This');
      return 'went' as const;
    });
  },
});

const minute = z.coerce.number('Write a time.').int().min(0).max(1440);

export const editStay = service({
  title: 'Change when somebody of the crew came and went, or take it out',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    stayId: z.uuid(),
    version: z.coerce.number().int(),
    came: minute,
    went: minute.nullable(),
    note: z.string().trim().max(200).default(''),
    isGone: z.boolean().default(false),
  }),
  run: (context, { sessionId, stayId, version, came, went, note, isGone }) =>
    context.store.transaction(async (db) => {
      if ((await holdSessions(db, context.actor.programmeId, [sessionId])).length === 0) throw notFound('session');
      if (went !== null && went <= came)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: 'went', message: 'They went before they came.' },
        ]);
      const [row] = await find(db, db.models.crewHours, { id: stayId, sessionId });
      if (!row) throw notFound('entry');
      if (isGone) await remove(db, db.models.crewHours, { id: stayId });
      else if (!(await updateVersion(db, db.models.crewHours, stayId, version, { came, went, note })))
        throw stale('This');
      await logChange(context, db, isGone ? 'took out hours' : 'changed hours', 'crew', row.crewId, {
        before: [row.came, row.went],
        after: [came, went],
      });
    }),
});

/** Hours are shown so many days back where nobody says since when. */
const USUAL_DAYS = 120;

const span = z.object({
  from: civilDate.optional(),
  to: civilDate.optional(),
  crewId: z.uuid().optional(),
});

async function hoursIn(context: Context, { from, to, crewId }: z.output<typeof span>) {
  const { programme } = await loadProgramme(context);
  const last = to ?? todayIn(context, programme.timeZone);
  const first = from ?? addDays(last, -USUAL_DAYS);
  if (first > last)
    throw new ServiceError('invalid', 'Nothing is shown yet.', [{ where: 'to', message: 'It ends before it begins.' }]);
  const { programmeId } = context.actor;
  const rows = await hoursBetween(context.store.db, { programmeId, from: first, to: last });
  const own = rows.filter((row) => !crewId || row.crewId === crewId);
  const names = [...new Map(own.map(({ crewId: id, name }) => [id, name]))];
  return {
    programme: programme.name,
    says: sayingFacts(programme),
    profile: programme.safetyProfile,
    from: first,
    to: last,
    people: names.map(([id, name]) => {
      const stays = own.filter((row) => row.crewId === id);
      return { id, name, stays, minutes: stays.reduce((sum, stay) => sum + minutesOfStay(stay), 0) };
    }),
  };
}

export const viewHours = service({
  title: 'See the hours of the crew',
  roles: ['coordinator'],
  input: span,
  run: hoursIn,
});

export const exportHours = service({
  title: 'Save the hours of the crew as a file, a statement or a certificate for each',
  roles: ['coordinator'],
  costly: true,
  input: span.extend({ as: z.enum(['csv', 'pdf', 'certificate']) }),
  run: async (context, { as, ...wanted }) => {
    const { people, programme, profile, says, from, to } = await hoursIn(context, wanted);
    if (as === 'csv') return writeHoursCsv(people);
    const paper = profile === 'us' ? ('LETTER' as const) : ('A4' as const);
    const { longDate } = sayingOf(says);
    const title = { programme, says, span: `${longDate(from)} to ${longDate(to)}` };
    return pooled(as === 'pdf' ? 'hoursPdf' : 'certificatePdf', { people, title, paper });
  },
});
