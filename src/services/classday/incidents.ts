import { z } from 'zod';
import { emergencyNumber, FIRST_STEPS, HURTS } from '@/core/classday/first-steps';
import { find, findOne, insert } from '@/store/query';
import { isDuplicate } from '@/store/store';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, ROLES, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { tellCoordinators } from '../messages/notices';
import { loadBundle } from '../plan/sessions';
import { loadProgramme } from '../sheet/load-programme';
import { openRoom } from './room';

export const viewFirstSteps = service({
  title: 'See what to do when somebody in the room is hurt or unwell, the family’s plan first',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { bundle, coming } = await openRoom(context, sessionId);
    const { programme } = await loadProgramme(context);
    await logLook(context, 'first steps', sessionId, coming.length);
    return {
      session: { id: sessionId, title: bundle.session.title },
      number: emergencyNumber(programme.classWords.emergency ?? '', programme.safetyProfile),
      steps: FIRST_STEPS,
      people: coming
        .map(({ id, name, actionPlan }) => ({ id, name, plan: actionPlan }))
        .sort((a, b) => a.name.localeCompare(b.name)),
    };
  },
});

export const noteIncident = service({
  title: 'Note that somebody was hurt or unwell, what was done, and who was told',
  roles: ROLES,
  input: z.object({
    /** Made by the page: sent twice, it is noted once. */
    id: z.uuid(),
    sessionId: z.uuid(),
    /** Empty: one of the crew, or somebody else. */
    enrolmentId: z.union([z.literal(''), z.uuid()]).default(''),
    hurt: z.enum(HURTS, 'Choose what happened.'),
    words: z.string().trim().min(3, 'Say what happened and what was done.').max(4000, 'At most 4,000 characters.'),
    told: z.string().trim().max(250, 'At most 250 characters.').default(''),
    hasCalled: z.preprocess((sent) => sent === true || sent === 'on', z.boolean()),
  }),
  run: async (context, { id, sessionId, enrolmentId, hurt, words, told, hasCalled }) => {
    const { coming, bundle } = await openRoom(context, sessionId);
    if (enrolmentId && !coming.some((row) => row.id === enrolmentId))
      throw new ServiceError('invalid', 'Nothing was saved yet.', [
        { where: 'enrolmentId', message: 'This person is not of this class: leave it empty, and name them below.' },
      ]);
    const row = {
      id,
      sessionId,
      aboutId: null,
      enrolmentId: enrolmentId || null,
      hurt,
      words,
      told,
      hasCalled: hasCalled ? 1 : 0,
      at: nowOf(context),
      actorId: context.actor.id,
    };
    try {
      await context.store.transaction(async (db) => {
        await insert(db, db.models.incident, [row]);
        // Neither who nor what stands in a message or a log: it is read in one place.
        await logChange(context, db, 'noted an incident', 'session', sessionId, {});
        await tellCoordinators(
          context,
          db,
          context.actor.programmeId,
          `something happened in “${bundle.session.title}”: read it under Incidents`,
        );
      });
    } catch (error) {
      if (!isDuplicate(error)) throw error;
    }
  },
});

export const addToIncident = service({
  title: 'Add to what was noted of an incident',
  roles: ['coordinator'],
  input: z.object({
    id: z.uuid(),
    incidentId: z.uuid(),
    words: z.string().trim().min(3, 'Say what is to be added.').max(4000, 'At most 4,000 characters.'),
    told: z.string().trim().max(250, 'At most 250 characters.').default(''),
  }),
  run: async (context, { id, incidentId, words, told }) => {
    const { db } = context.store;
    const first = await findOne(db, db.models.incident, { id: incidentId, aboutId: null });
    if (!first) throw notFound('entry');
    await loadBundle(context, first.sessionId);
    const { sessionId, enrolmentId, hurt } = first;
    const actorId = context.actor.id;
    try {
      await insert(db, db.models.incident, [
        {
          id,
          sessionId,
          aboutId: incidentId,
          enrolmentId,
          hurt,
          words,
          told,
          hasCalled: 0,
          at: nowOf(context),
          actorId,
        },
      ]);
    } catch (error) {
      if (!isDuplicate(error)) throw error;
    }
  },
});

export const listIncidents = service({
  title: 'See the incidents of a session',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { db } = context.store;
    const bundle = await loadBundle(context, sessionId);
    const rows = await find(db, db.models.incident, { sessionId }, [
      ['at', 'ASC'],
      ['id', 'ASC'],
    ]);
    const names = new Map(bundle.enrolments.map(({ id, name }) => [id, name]));
    const members = await find(db, db.models.member, { programmeId: context.actor.programmeId });
    const by = new Map(members.map(({ id, name }) => [id, name]));
    await logLook(context, 'incidents', sessionId, new Set(rows.map(({ enrolmentId }) => enrolmentId)).size);
    return {
      session: { id: sessionId, title: bundle.session.title, date: bundle.session.date },
      incidents: rows
        .filter(({ aboutId }) => aboutId === null)
        .map((row) => ({
          id: row.id,
          who: row.enrolmentId ? (names.get(row.enrolmentId) ?? '') : '',
          hurt: row.hurt,
          hasCalled: row.hasCalled === 1,
          entries: rows
            .filter(({ id, aboutId }) => id === row.id || aboutId === row.id)
            .map(({ words, told, at, actorId }) => ({ words, told, at: at.toISOString(), by: by.get(actorId) ?? '' })),
        })),
    };
  },
});
