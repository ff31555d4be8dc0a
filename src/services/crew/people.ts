import { z } from 'zod';
import { type CrewFields, crewFields } from '@/contracts/crew';
import { civilDate } from '@/contracts/plan';
import type { Skill } from '@/core/crew/duties';
import { sayFree } from '@/core/crew/free-text';
import { nameKey } from '@/core/roll/name-key';
import { writeCrewCsv } from '@/formats/crew/crew-csv';
import { eraseCrewTraces } from '@/store/crew';
import { holdSessions } from '@/store/plan';
import { find, findOne, insert, update, updateVersion } from '@/store/query';
import type { Db } from '@/store/store';
import type { CrewLimits, CrewMemberRow, HeldSkill, PromiseRow } from '@/store/tables/crew';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';
import { crewNow } from './crew-sessions';
import { dropUntil, mend } from './dropping-out';
import { ableAt, loadRoster } from './roster';

export const listCrew = service({
  title: 'See the crew',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { programme } = await loadProgramme(context);
    const { db } = context.store;
    const { programmeId } = context.actor;
    const people = await crewNow(context, db);
    const places = await find(db, db.models.place, { programmeId }, [['name', 'ASC']]);
    const members = await find(db, db.models.member, { programmeId, status: 'active' }, [['name', 'ASC']]);
    return {
      today: todayIn(context, programme.timeZone),
      places: places.map(({ name }) => name),
      members: members.map(({ id, name }) => ({ id, name })),
      people: people.map(({ programmeId: _, erasedAt: __, free, ...person }) => ({ ...person, free: sayFree(free) })),
    };
  },
});

/** What is kept of what was written. */
function rowOf({ mostDuties, mostHours, noLifting, skills, isAdult, ...fields }: CrewFields) {
  const limits: CrewLimits = {
    ...(mostDuties === null ? {} : { mostDuties }),
    ...(mostHours === null ? {} : { mostHours }),
    ...(noLifting ? { noLifting } : {}),
  };
  const held = skills.map(({ skill, until, seen }): [Skill, HeldSkill] => [skill, { until, seen }]);
  return { ...fields, isAdult: isAdult ? 1 : 0, limits, skills: Object.fromEntries(held) };
}

/** @throws ServiceError when somebody is called so already: two of one name cannot be told apart on a list */
async function refuseTaken(context: Context, db: Db, { name, memberId }: CrewFields, own?: string): Promise<void> {
  const people = await crewNow(context, db);
  const { programmeId } = context.actor;
  if (memberId && !(await findOne(db, db.models.member, { id: memberId, programmeId }))) throw notFound('member');
  const other = people.find((person) => memberId && person.memberId === memberId && person.id !== own);
  if (other)
    throw new ServiceError('invalid', 'Nothing was saved yet.', [
      { where: 'memberId', message: `That sign-in is ${other.name}’s already.` },
    ]);
  if (people.some((person) => person.id !== own && nameKey(person.name) === nameKey(name)))
    throw new ServiceError('invalid', 'Nothing was saved yet.', [
      { where: 'name', message: `${name} is of the crew already. Add a letter, so that the two can be told apart.` },
    ]);
}

const fresh = (context: Context) => ({
  id: context.ids(),
  programmeId: context.actor.programmeId,
  sickUntil: null,
  erasedAt: null,
  version: 1,
});

export const addCrewMember = service({
  title: 'Add somebody to the crew',
  roles: ['coordinator'],
  input: crewFields,
  run: (context, fields) =>
    context.store.transaction(async (db) => {
      await refuseTaken(context, db, fields);
      const row = { ...fresh(context), ...rowOf(fields) };
      await insert(db, db.models.crewMember, [row]);
      await logChange(context, db, 'added', 'crew', row.id, {});
      return row.id;
    }),
});

export const editCrewMember = service({
  title: 'Change somebody of the crew',
  roles: ['coordinator'],
  input: crewFields.extend({ crewId: z.uuid(), version: z.coerce.number().int() }),
  run: (context, { crewId, version, ...fields }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      if (!(await findOne(db, db.models.crewMember, { id: crewId, programmeId, erasedAt: null })))
        throw notFound('person');
      await refuseTaken(context, db, fields, crewId);
      if (!(await updateVersion(db, db.models.crewMember, crewId, version, rowOf(fields)))) throw stale('person');
      await logChange(context, db, 'changed', 'crew', crewId, {});
    }),
});

/** Hours off food after the last symptom: usual (FDA Food Code, FSA); the local code decides. */
const SICK_HOURS = 48;

export const noteSick = service({
  title: 'Note that somebody of the crew is sick, or well again',
  roles: ['coordinator'],
  input: z.object({
    crewId: z.uuid(),
    version: z.coerce.number().int(),
    /** The day of the last symptom; null: well again. */
    lastSymptom: civilDate.nullable(),
  }),
  run: async (context, { crewId, version, lastSymptom }) => {
    const { sickUntil, before, dropped } = await context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const person = await findOne(db, db.models.crewMember, { id: crewId, programmeId, erasedAt: null });
      if (!person) throw notFound('person');
      const today = todayIn(context, (await loadProgramme(context, db)).programme.timeZone);
      if (lastSymptom !== null && lastSymptom > today)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: 'lastSymptom', message: 'That day is still to come: write the day of the last symptom so far.' },
        ]);
      const sickUntil =
        lastSymptom === null
          ? null
          : new Date(Date.parse(lastSymptom) + SICK_HOURS * 3_600_000).toISOString().slice(0, 10);
      if (!(await updateVersion(db, db.models.crewMember, crewId, version, { sickUntil }))) throw stale('person');
      await logChange(context, db, sickUntil ? 'noted as sick' : 'noted as well', 'crew', crewId, {});
      const dropped = sickUntil ? await dropUntil(context, db, crewId, sickUntil, 'sick') : [];
      return { sickUntil, before: person.sickUntil, dropped };
    });
    const theirs = dropped.flatMap(({ id: promiseId, state, version: was, isPinned }) =>
      state === 'asked' || state === 'accepted' ? [{ promiseId, state, version: was + 1, isPinned }] : [],
    );
    return {
      sickUntil,
      places: dropped.length,
      /** What takes it back. */
      before: { sickUntil: before, theirs },
      ...(await mend(context, sessionsOf(dropped))),
    };
  },
});

const sessionsOf = (rows: readonly PromiseRow[]) => [...new Set(rows.map(({ sessionId }) => sessionId))];

export const takeSickBack = service({
  title: 'Take back that somebody of the crew was noted as sick: what they had promised is theirs again',
  roles: ['coordinator'],
  input: z.object({
    crewId: z.uuid(),
    version: z.coerce.number().int(),
    sickUntil: civilDate.nullable(),
    theirs: z
      .array(
        z.object({
          promiseId: z.uuid(),
          version: z.number().int(),
          state: z.enum(['asked', 'accepted']),
          isPinned: z.number().int().min(0).max(1),
        }),
      )
      .max(500),
  }),
  /** @returns how many places are theirs again, and how many are not, where somebody else said yes or something changed since */
  run: async (context, { crewId, version, sickUntil, theirs }) => {
    const back = await context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      if (!(await findOne(db, db.models.crewMember, { id: crewId, programmeId, erasedAt: null })))
        throw notFound('person');
      if (!(await updateVersion(db, db.models.crewMember, crewId, version, { sickUntil }))) throw stale('person');
      await logChange(context, db, 'taken back: noted as sick', 'crew', crewId, {});
      const rows = await find(db, db.models.promise, { crewId, id: theirs.map(({ promiseId }) => promiseId) });
      await holdSessions(db, programmeId, sessionsOf(rows));
      const given: PromiseRow[] = [];
      for (const row of rows) {
        const was = theirs.find(({ promiseId }) => promiseId === row.id);
        const { meant, crew } = await loadRoster(context, { sessionId: row.sessionId }, db);
        const duty = meant[0]?.duties.find(({ key }) => key === row.duty);
        if (!was || !duty || row.version !== was.version || row.state !== 'declined') continue;
        if (ableAt(duty, meant[0]?.promises ?? [], crew).length >= duty.people) continue;
        const values = { state: was.state, isPinned: was.isPinned, note: '', version: row.version + 1 };
        await update(db, db.models.promise, { id: row.id }, values);
        await logChange(context, db, 'theirs again', 'session', row.sessionId, { duty: row.duty, crewId });
        given.push(row);
      }
      return given;
    });
    await mend(context, sessionsOf(back));
    return { places: back.length, lost: theirs.length - back.length };
  },
});

/** Leaves nothing of somebody but that there was one. @returns the places that are open now; undefined where they changed meanwhile */
async function eraseRow(context: Context, db: Db, crewId: string, version: number): Promise<number | undefined> {
  const places = await dropUntil(context, db, crewId, '9999-12-31', '');
  await eraseCrewTraces(db, { crewId, now: nowOf(context) });
  const nothing = {
    memberId: null,
    name: 'erased',
    contact: '',
    languages: '',
    skills: {},
    free: { weekly: [], exceptions: [] },
    limits: {},
    likes: [],
    ratherNot: [],
    withWhom: [],
    apart: [],
    goesTo: [],
    sickUntil: null,
    erasedAt: nowOf(context),
  };
  return (await updateVersion(db, db.models.crewMember, crewId, version, nothing)) ? places.length : undefined;
}

/** Erases those whose data was to be kept until yesterday or before. @returns how many */
export const eraseEnded = (context: Context): Promise<number> =>
  context.store.transaction(async (db) => {
    const today = todayIn(context, (await loadProgramme(context, db)).programme.timeZone);
    const ended = (await crewNow(context, db)).filter(({ endsOn }) => endsOn !== null && endsOn < today);
    for (const { id, version } of ended) {
      await eraseRow(context, db, id, version);
      await logChange(context, db, 'erased', 'crew', id, {});
    }
    return ended.length;
  });

export const eraseCrewMember = service({
  title: 'Erase somebody of the crew',
  roles: ['coordinator'],
  proof: true,
  input: z.object({ crewId: z.uuid(), version: z.coerce.number().int() }),
  run: (context, { crewId, version }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      if (!(await findOne(db, db.models.crewMember, { id: crewId, programmeId, erasedAt: null })))
        throw notFound('person');
      const places = await eraseRow(context, db, crewId, version);
      if (places === undefined) throw stale('person');
      await logChange(context, db, 'erased', 'crew', crewId, {});
      return { places };
    }),
});

export const exportCrew = service({
  title: 'Take the crew out as CSV',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) =>
    writeCrewCsv(
      (await crewNow(context, context.store.db)).map(({ skills, free, limits, isAdult, endsOn, ...person }) => ({
        ...person,
        isAdult: isAdult === 1,
        skills: Object.entries(skills).map(([skill, held]) => ({ skill: skill as Skill, ...held })),
        free: sayFree(free),
        mostDuties: String(limits.mostDuties ?? ''),
        mostHours: String(limits.mostHours ?? ''),
        noLifting: limits.noLifting ?? false,
        endsOn: endsOn ?? '',
      })),
    ),
});

export const importCrew = service({
  title: 'Bring a crew in from a file',
  roles: ['coordinator'],
  costly: true,
  input: z.object({
    bytes: z.instanceof(Uint8Array),
    /** Lines that cannot be used are left out, and named; otherwise nothing is saved where there are any. */
    skip: z.boolean().default(false),
  }),
  run: async (context, { bytes, skip }) => {
    const { lines, problems: unread } = await pooled('readCrew', { bytes });
    return context.store.transaction(async (db) => {
      const taken = new Map((await crewNow(context, db)).map(({ name }) => [nameKey(name), 'is of the crew already']));
      const problems = unread.map(({ line, message }) => ({ where: `line ${line}`, message }));
      const rows: CrewMemberRow[] = [];
      for (const { line, ...written } of lines) {
        const read = crewFields.safeParse(written);
        const why = read.success
          ? taken.get(nameKey(read.data.name))
          : (read.error.issues[0]?.message ?? 'It cannot be read.');
        if (!read.success || why) {
          problems.push({ where: `line ${line}`, message: read.success ? `${read.data.name} ${why}.` : (why ?? '') });
          continue;
        }
        taken.set(nameKey(read.data.name), `stands in line ${line} as well`);
        rows.push({ ...fresh(context), ...rowOf(read.data) });
      }
      if (problems.length > 0 && !skip)
        throw new ServiceError(
          'invalid',
          `${problems.length} of ${lines.length + unread.length} lines cannot be used. Nothing was saved: mend them, or bring in the others.`,
          problems.slice(0, 100),
        );
      await insert(db, db.models.crewMember, rows);
      await logChange(context, db, 'brought in', 'crew', context.actor.programmeId, { people: rows.length });
      return { people: rows.length, left: problems.length };
    });
  },
});
