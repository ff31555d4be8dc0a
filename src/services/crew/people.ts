import { z } from 'zod';
import { type CrewFields, crewFields } from '@/contracts/crew';
import { civilDate } from '@/contracts/plan';
import type { Skill } from '@/core/crew/duties';
import { sayFree } from '@/core/crew/free-text';
import { nameKey } from '@/core/roll/name-key';
import { writeCrewCsv } from '@/formats/crew/crew-csv';
import { find, findOne, insert, updateVersion } from '@/store/query';
import type { Db } from '@/store/store';
import type { CrewLimits, CrewMemberRow, HeldSkill } from '@/store/tables/crew';

import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';

/** People of the crew who are there, by name. */
export const crewNow = async (context: Context, db: Db): Promise<CrewMemberRow[]> =>
  find(db, db.models.crewMember, { programmeId: context.actor.programmeId, erasedAt: null }, [['name', 'ASC']]);

export const listCrew = service({
  title: 'See the crew',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { programme } = await loadProgramme(context);
    const people = await crewNow(context, context.store.db);
    return {
      today: todayIn(context, programme.timeZone),
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
async function refuseTaken(context: Context, db: Db, name: string, own?: string): Promise<void> {
  const people = await crewNow(context, db);
  if (people.some((person) => person.id !== own && nameKey(person.name) === nameKey(name)))
    throw new ServiceError('invalid', 'Nothing was saved yet.', [
      { where: 'name', message: `${name} is of the crew already. Add a letter, so that the two can be told apart.` },
    ]);
}

const fresh = (context: Context) => ({
  id: context.ids(),
  programmeId: context.actor.programmeId,
  memberId: null,
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
      await refuseTaken(context, db, fields.name);
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
      await refuseTaken(context, db, fields.name, crewId);
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
  run: (context, { crewId, version, lastSymptom }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      if (!(await findOne(db, db.models.crewMember, { id: crewId, programmeId, erasedAt: null })))
        throw notFound('person');
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
      return sickUntil;
    }),
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
      const nothing = {
        memberId: null,
        name: 'erased',
        contact: '',
        languages: '',
        skills: {},
        free: { weekly: [], exceptions: [] },
        limits: {},
        ratherNot: [],
        apart: [],
        sickUntil: null,
        erasedAt: nowOf(context),
      };
      if (!(await updateVersion(db, db.models.crewMember, crewId, version, nothing))) throw stale('person');
      await logChange(context, db, 'erased', 'crew', crewId, {});
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
