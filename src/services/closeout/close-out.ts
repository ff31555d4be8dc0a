import { z } from 'zod';
import { judgeInside } from '@/core/classday/doneness';
import { classNow } from '@/core/classday/live/class-events';
import { votesOf } from '@/core/classday/tasting';
import { lentNow } from '@/core/handout/handing';
import type { Mode } from '@/core/plan/mode';
import { sittingOf } from '@/core/plan/sitting';
import { packedLines } from '@/core/recipes/recipe/recipe';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import type { Heat } from '@/core/recipes/steps/step-plan';
import { attendanceNow, questionsOf } from '@/core/roll/attendance';
import { saidSince } from '@/store/classday';
import { closedNow, takenWorth } from '@/store/closeout';
import { lentTo } from '@/store/handout';
import { lockSessionRow } from '@/store/plan';
import { find, insert } from '@/store/query';
import type { CloseNoteRow } from '@/store/tables/closeout';
import { openRoom } from '../classday/room';
import { ServiceError } from '../errors';
import { nowOf, ROLES, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadProgramme } from '../sheet/load-programme';
import { refuseBefore } from './closing';
import { LIKELY_SHARE, plannedJobs } from './job-times';
import { leftoversOf } from './leftovers';

const IN_ORDER = [
  ['at', 'ASC'],
  ['id', 'ASC'],
] as [string, string][];

/** The newest note of each thing. */
const newest = (notes: readonly CloseNoteRow[]) =>
  new Map(notes.map((note) => [`${note.what} ${note.item}`, note] as const));

export const viewCloseOut = service({
  title: 'See what is known of a session after it, to close it out',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { bundle, coming } = await openRoom(context, sessionId);
    const { session } = bundle;
    const { db } = context.store;
    const { programme } = await loadProgramme(context);
    const notes = newest(await find(db, db.models.closeNote, { sessionId }, IN_ORDER));
    const sittings = ['', ...session.sittings.map(({ groupId }) => groupId)];
    const classes = await Promise.all(
      sittings.map(async (sitting) => classNow(await saidSince(db, { sessionId, sitting }, 0))),
    );
    const seen = attendanceNow(await find(db, db.models.attendance, { sessionId }, IN_ORDER));
    const isOpen = ({ id, mode, groupId }: (typeof coming)[number]) =>
      sittingOf(groupId, session.sittings) !== undefined &&
      questionsOf((mode ?? session.mode) as Mode).some((states) => !states.some((state) => seen.get(id)?.has(state)));
    const stays = await find(db, db.models.crewHours, { sessionId });
    const tastings = await find(db, db.models.tasting, { sessionId }, IN_ORDER);
    const households = [...new Set(coming.map(({ householdId }) => householdId))];
    const lent = lentNow(await lentTo(db, { programmeId: context.actor.programmeId, householdIds: households }));
    const incidents = await db.models.incident.count({ where: { sessionId, aboutId: null } });
    await logLook(context, 'close out', sessionId, coming.length);
    const probed = classes.flatMap(({ plan, readings }) =>
      (plan?.tasks ?? []).flatMap((task) => {
        const verdict =
          task.inside && judgeInside(task.inside, readings.get(task.id) ?? [], (task.heat || 'none') as Heat);
        return task.inside ? [{ task: task.text, state: verdict?.state ?? 'not taken' }] : [];
      }),
    );
    const foods = [
      ...new Set(
        bundle.dishes.flatMap(({ body }) =>
          packedLines(wholeRecipe(body).lines, programme.reference).map(({ ingredient }) => ingredient),
        ),
      ),
    ];
    const trims = [
      ...new Set(
        bundle.dishes.flatMap(({ body }) =>
          wholeRecipe(body).lines.flatMap(({ ingredient, yield_preparation: how }) =>
            how ? [`${ingredient}: ${how}`] : [],
          ),
        ),
      ),
    ];
    const closed = await closedNow(db, sessionId);
    const words = await find(db, db.models.kitWord, { sessionId, word: ['cooked', 'not cooked'] }, IN_ORDER);
    const { title, courseTitle, date, cookBy } = session;
    return {
      session: { id: sessionId, title, courseTitle, date, cookBy },
      /** What was trimmed off, in grams of grams, where somebody weighed it. */
      trims: trims.map((item) => {
        const own = notes.get(`trim ${item}`);
        return { item, off: own?.bad ?? null, of: own?.pieces ?? null };
      }),
      /** How long the work was planned to take, and took where somebody noted it, in minutes. */
      jobs: (await plannedJobs(context, bundle, db)).map(({ key, title, minutes }) => {
        const own = notes.get(`job ${key}`);
        return { key, title, planned: minutes, took: own?.bad ?? null };
      }),
      leftovers: await leftoversOf(context, sessionId, programme),
      /** What families who cooked at home said was missing, or too much. */
      said: [...new Map(words.map(({ enrolmentId, note }) => [enrolmentId, note])).values()].filter(Boolean),

      attendance: {
        /** What a mode asks of its people: how many of those asked are known to have. */
        asked: (['came', 'collected', 'cooked'] as const).flatMap((yes) => {
          const of = coming.filter(({ mode }) =>
            questionsOf((mode ?? session.mode) as Mode).some((states) => (states as readonly string[]).includes(yes)),
          );
          return of.length === 0
            ? []
            : [{ yes, count: of.filter(({ id }) => seen.get(id)?.has(yes)).length, of: of.length }];
        }),
        open: coming.filter(isOpen).length,
      },
      foods: foods.map((food) => {
        const left = notes.get(`left ${food}`);
        const bad = notes.get(`bad ${food}`);
        return { food, left: left?.percent ?? null, bad: bad?.bad ?? null, pieces: bad?.pieces ?? null };
      }),
      short: classes.flatMap(({ troubles }) =>
        troubles.map(({ what, item, value }) => ({
          what,
          food: item,
          percent: value.percent ?? null,
          text: value.text ?? '',
        })),
      ),
      lent: [...lent].map(([item, count]) => ({ item, count })),
      broke: notes.get('broke ')?.words ?? '',
      note: notes.get('note ')?.words ?? '',
      probed,
      hours: {
        minutes: stays.reduce((sum, { came, went }) => sum + (went === null ? 0 : went - came), 0),
        people: new Set(stays.map(({ crewId }) => crewId)).size,
        open: stays.filter(({ went }) => went === null).length,
      },
      votes: bundle.dishes.map(({ id, title: dish }) => ({ dish, votes: votesOf(tastings, id) })),
      money: await takenWorth(db, { programmeId: context.actor.programmeId, sessionId }),
      incidents,
      closedAt: closed ? closed.at.toISOString() : null,
      openedAgain: closed ? '' : (notes.get('opened again ')?.words ?? ''),
    };
  },
});

const percent = z.coerce.number().int().min(0).max(100);

/** What is noted of a session after it; each thing once, the newest counts. */
const sentNote = z.object({
  /** Made by the page: sent twice, it is noted once. */
  id: z.uuid(),
  what: z.enum(['left', 'bad', 'trim', 'job', 'broke', 'note']),
  item: z.string().max(190).default(''),
  percent: percent.nullable().default(null),
  bad: z.number().int().min(0).max(1_000_000).nullable().default(null),
  pieces: z.number().int().min(1, 'At least one.').max(1_000_000).nullable().default(null),
  words: z.string().trim().max(2000, 'At most 2,000 characters.').default(''),
});

export const noteCloseOut = service({
  title: 'Note what was left, bad or broken after a session, and how long its work took',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid(), notes: z.array(sentNote).min(1).max(200) }),
  run: async (context, { sessionId, notes }) => {
    const { bundle } = await openRoom(context, sessionId);
    await refuseBefore(context, bundle.session);
    for (const { what, percent: left, bad, pieces, item } of notes) {
      if (what === 'left' && (left === null || item === ''))
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: item, message: 'Say how much of it was left.' },
        ]);
      if (what === 'trim' && (bad === null || pieces === null || bad >= pieces || !item.includes(': ')))
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: item, message: 'Say how many grams were trimmed off, and of how many.' },
        ]);
      if (what === 'bad' && (bad === null || pieces === null || bad > pieces))
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: item, message: 'Say how many pieces were bad, and of how many.' },
        ]);
    }
    const timed = notes.some(({ what }) => what === 'job') ? await plannedJobs(context, bundle, context.store.db) : [];
    const meant = notes.map((note) => {
      if (note.what !== 'job') return note;
      const job = timed.find(({ key }) => key === note.item);
      const share = Math.round((100 * (note.bad ?? 0)) / (job?.minutes ?? 1));
      if (!job || share < LIKELY_SHARE.least || share > LIKELY_SHARE.most)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          {
            where: note.item,
            message: job
              ? `It was planned for ${job.minutes} minutes: between a fifth and five times as long can be noted.`
              : 'This session has no such work.',
          },
        ]);
      return { ...note, percent: share, pieces: job.minutes };
    });
    const made = { sessionId, at: nowOf(context), actorId: context.actor.id };
    await context.store.transaction(async (db) => {
      // Two phones at one session wait for each other here; what was sent before is left out.
      await lockSessionRow(db, { sessionId });
      const known = new Set(
        (await find(db, db.models.closeNote, { id: notes.map(({ id }) => id) })).map(({ id }) => id),
      );
      await insert(
        db,
        db.models.closeNote,
        meant.filter(({ id }) => !known.has(id)).map((note) => ({ ...note, ...made })),
      );
    });
  },
});
