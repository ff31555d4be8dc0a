import { z } from 'zod';
import { LARGEST_PICTURE, pictureKind } from '@/contracts/picture';
import { addDays } from '@/core/plan/civil';
import type { Mode } from '@/core/plan/mode';
import { questionsOf } from '@/core/roll/attendance';
import { picturesOf } from '@/store/classday';
import { find, findOne, insert, remove } from '@/store/query';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, service, todayIn } from '../gate/gate';
import { logLook } from '../gate/looks';
import type { OwnKit } from '../handout/families';
import { loadBundle } from '../plan/sessions';
import { loadProgramme } from '../sheet/load-programme';

/** A picture is kept so long, unless the family ends it sooner: a school year. */
const PICTURE_DAYS = 365;

export const setLessonNote = service({
  title: 'Write what families who cook later are told of the lesson',
  roles: ['coordinator', 'instructor'],
  input: z.object({
    sessionId: z.uuid(),
    /** 0 where none was written yet. */
    version: z.coerce.number().int().min(0),
    words: z.string().trim().max(6000, 'At most 6,000 characters.'),
  }),
  run: (context, { sessionId, version, words }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      const found = await findOne(db, db.models.lessonNote, { sessionId });
      if ((found?.version ?? 0) !== version) throw stale('What families are told');
      if (found) {
        const [changed] = await db.models.lessonNote.update(
          { words, version: version + 1 },
          { where: { sessionId, version }, transaction: db.transaction },
        );
        if (changed !== 1) throw stale('What families are told');
      } else await insert(db, db.models.lessonNote, [{ sessionId, words, version: 1 }]);
      await logChange(context, db, 'wrote the lesson note of', 'session', sessionId, {});
    }),
});

export const viewLessonNote = service({
  title: 'See what families who cook later are told, what they said, and their pictures',
  roles: ['coordinator', 'instructor'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { db } = context.store;
    const bundle = await loadBundle(context, sessionId);
    const note = await findOne(db, db.models.lessonNote, { sessionId });
    const names = new Map(bundle.enrolments.map(({ id, name }) => [id, name]));
    const words = await find(db, db.models.kitWord, { sessionId, word: ['cooked', 'not cooked'] }, [['at', 'ASC']]);
    const today = todayIn(context, (await loadProgramme(context)).programme.timeZone);
    const pictures = (await picturesOf(db, sessionId)).filter(({ endsOn }) => endsOn >= today);
    await logLook(context, 'cooked at home', sessionId, words.length + pictures.length);
    const { title, date, cookBy } = bundle.session;
    return {
      session: { id: sessionId, title, date, cookBy },
      words: note?.words ?? '',
      version: note?.version ?? 0,
      said: words.map(({ enrolmentId, word, note: more, at }) => ({
        name: names.get(enrolmentId) ?? '',
        word,
        note: more,
        at: at.toISOString(),
      })),
      pictures: pictures.map(({ id, enrolmentId, consent, endsOn }) => ({
        id,
        name: names.get(enrolmentId) ?? '',
        consent,
        endsOn,
      })),
    };
  },
});

export const viewCookedPicture = service({
  title: 'See a picture that a family sent of what it cooked',
  roles: ['coordinator', 'instructor'],
  input: z.object({ pictureId: z.uuid() }),
  run: async (context, { pictureId }) => {
    const { db } = context.store;
    const found = await findOne(db, db.models.cookedPicture, { id: pictureId });
    if (!found) throw notFound('picture');
    await loadBundle(context, found.sessionId);
    const today = todayIn(context, (await loadProgramme(context)).programme.timeZone);
    // Nothing is shown past its end, whether or not it has been cleared away.
    if (found.endsOn < today || found.picture.length === 0) throw notFound('picture');
    return { kind: found.kind, picture: new Uint8Array(found.picture) };
  },
});

/** The people of a family who cook a session at home, as their link shows them. */
async function ownPeople({ context, householdId, sessionId }: OwnKit) {
  const { db } = context.store;
  const everywhere = await find(db, db.models.enrolment, { householdId }, [['id', 'ASC']]);
  const courseId = everywhere.map((row) => row.courseId);
  const session = await findOne(db, db.models.session, { id: sessionId, courseId });
  if (!session) throw notFound('session');
  return { session, people: everywhere.filter((row) => row.courseId === session.courseId) };
}

/** Whether somebody who takes part in this way is asked if they cooked. */
const isAskedToCook = (mode: string) =>
  questionsOf(mode as Mode)
    .flat()
    .includes('cooked');

/** What a family is told of the lesson, and what it said and sent. */
export async function viewOwnCooking(own: OwnKit) {
  const { sessionId } = own;
  const { db } = own.context.store;
  const [{ session, people }, note, pictures] = await Promise.all([
    ownPeople(own),
    findOne(db, db.models.lessonNote, { sessionId }),
    picturesOf(db, sessionId),
  ]);
  const ids = people.map(({ id }) => id);
  const words = await find(db, db.models.kitWord, { sessionId, enrolmentId: ids, word: ['cooked', 'not cooked'] }, [
    ['at', 'ASC'],
  ]);
  const last = words.at(-1);
  return {
    lesson: note?.words ?? '',
    cookBy: session.cookBy,
    cooked: last ? { word: last.word, note: last.note } : null,
    pictures: pictures
      .filter(({ enrolmentId }) => ids.includes(enrolmentId))
      .map(({ id, endsOn, consent }) => ({ id, endsOn, consent })),
    mayCook: people.some(({ mode }) => isAskedToCook(mode ?? session.mode)),
  };
}

const cookedWord = z.object({
  word: z.enum(['cooked', 'not cooked']),
  note: z.string().trim().max(200, 'At most 200 characters.').default(''),
});

/** Keeps whether a family cooked, and what was missing. */
export async function sayCooked(own: OwnKit, sent: unknown): Promise<string> {
  const { context, sessionId } = own;
  const reading = cookedWord.safeParse(sent);
  if (!reading.success)
    throw new ServiceError('invalid', 'Nothing was saved yet.', [
      { where: 'note', message: reading.error.issues[0]?.message ?? '' },
    ]);
  const { word, note } = reading.data;
  const { session, people } = await ownPeople(own);
  const asked = people.filter(({ mode }) => isAskedToCook(mode ?? session.mode));
  if (asked.length === 0) throw notFound('kit');
  const at = nowOf(context);
  await context.store.transaction(async (db) => {
    await insert(
      db,
      db.models.kitWord,
      asked.map(({ id }) => ({ id: context.ids(), sessionId, enrolmentId: id, word, note, at })),
    );
    const mark = { sessionId, state: word, at, actorId: context.actor.id };
    await insert(
      db,
      db.models.attendance,
      asked.map(({ id }) => ({ ...mark, id: context.ids(), enrolmentId: id })),
    );
  });
  return word === 'cooked' ? 'Thank you for telling us.' : 'Thank you. Next time, then.';
}

/** Keeps a picture of what a family cooked, for what it agreed to and no longer than said. */
export async function sendPicture(own: OwnKit, bytes: Uint8Array, consent: string): Promise<void> {
  const { context, sessionId } = own;
  const kind = pictureKind(bytes);
  if (!kind || bytes.length > LARGEST_PICTURE)
    throw new ServiceError('invalid', 'This is no picture that can be kept. Send a photograph as JPEG, PNG or WebP.');
  if (consent !== 'programme' && consent !== 'public')
    throw new ServiceError('invalid', 'Say first what the picture may be used for.');
  const { people } = await ownPeople(own);
  const [first] = people;
  if (!first) throw notFound('kit');
  const today = todayIn(context, (await loadProgramme(context)).programme.timeZone);
  await context.store.transaction(async (db) => {
    // One picture a family and session: a newer one takes its place.
    await remove(db, db.models.cookedPicture, { sessionId, enrolmentId: people.map(({ id }) => id) });
    await insert(db, db.models.cookedPicture, [
      {
        id: context.ids(),
        sessionId,
        enrolmentId: first.id,
        kind,
        picture: Buffer.from(bytes),
        consent,
        at: nowOf(context),
        endsOn: addDays(today, PICTURE_DAYS),
      },
    ]);
    await logChange(context, db, 'family: sent a picture', 'session', sessionId, { consent });
  });
}

/** Takes a family's picture back: it is gone at once. */
export async function takePictureBack(own: OwnKit): Promise<string> {
  const { context, sessionId } = own;
  const { people } = await ownPeople(own);
  await context.store.transaction(async (db) => {
    await remove(db, db.models.cookedPicture, { sessionId, enrolmentId: people.map(({ id }) => id) });
    await logChange(context, db, 'family: took its picture back', 'session', sessionId, {});
  });
  return 'It is gone.';
}
