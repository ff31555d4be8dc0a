import { z } from 'zod';
import type { RecipeBody } from '@/contracts/recipe';
import { LESSON_KINDS } from '@/core/closeout/lessons';
import { scaledText } from '@/core/closeout/scaled-text';
import { rational, toText } from '@/core/quantity/rational';
import type { Reference } from '@/core/reference/reference';
import type { JobChanges } from '@/core/stages/facts';
import { JOBS } from '@/core/stages/stages';
import { answersByMode, lostPacks, votesByRecipe } from '@/store/lessons';
import { heldJobs } from '@/store/plan';
import { holdProgramme } from '@/store/programme';
import { find, insert, update } from '@/store/query';
import type { Db } from '@/store/store';
import { notFound, ServiceError } from '../../errors';
import { logChange } from '../../gate/change-log';
import { type Context, nowOf, service, todayIn } from '../../gate/gate';
import { loadCourse } from '../../plan/courses';
import { loadRecipe, saveVersion } from '../../recipes/saved';
import { loadProgramme } from '../../sheet/load-programme';
import { stepsOf } from '../../sheet/steps-of';
import { amountLessons } from './amounts';
import { comingOf, likingsOf } from './likings';
import { loadSeen, type OpenLesson, type SeenLessons } from './seen';
import { spareLessons } from './spares';
import { changedJob, jobLessons, scaledMinutes, stepLessons } from './times';
import { trimmingLessons } from './trimmings';

/** A lesson that was taken, with what was left or short of its food before and since. */
function takenLessons(seen: SeenLessons) {
  const left = new Map(
    seen.notesOf('left').map(({ sessionId, item, percent }) => [`${sessionId} ${item}`, percent ?? 0]),
  );
  const short = new Map(
    seen.short.map(({ sessionId, food, percent }) => [`${sessionId} ${food}`, Number(percent ?? 0)]),
  );
  const titles = new Map(seen.recipes.map(({ id, title }) => [id, title]));
  const courses = new Map(seen.sessions.map(({ courseId, course }) => [courseId, course]));
  return seen.words
    .filter(({ word }) => word === 'taken')
    .map(({ recipeId, kind, food, taken, at }) => {
      const cooked = seen.cookedBy.get(recipeId ?? '') ?? [];
      const mean = (sessions: typeof cooked, of: ReadonlyMap<string, number>) =>
        Math.round(
          sessions.reduce((sum, { id }) => sum + (of.get(`${id} ${food}`) ?? 0), 0) / Math.max(1, sessions.length),
        );
      const told = (sessions: typeof cooked) => ({
        sessions: sessions.length,
        left: mean(sessions, left),
        short: mean(sessions, short),
      });
      return {
        kind,
        of: recipeId
          ? (titles.get(recipeId) ?? '')
          : kind === 'trimming'
            ? (food.split(': ')[0] ?? '')
            : (courses.get(food.split(' ')[1] ?? '') ?? ''),
        item:
          kind === 'trimming'
            ? (food.split(': ')[1] ?? '')
            : kind === 'step'
              ? `step ${Number(food) + 1}`
              : kind === 'job'
                ? (JOBS.find(({ key }) => key === food.split(' ')[0])?.title ?? food)
                : food,
        percent: taken ?? 0,
        at: at.toISOString(),
        before: told(cooked.filter(({ closedAt }) => closedAt <= at)),
        since: told(cooked.filter(({ closedAt }) => closedAt > at)),
      };
    })
    .reverse();
}

/** Every lesson that waits for a person, what is most sure first. */
export const openLessons = async (context: Context): Promise<OpenLesson[]> =>
  lessonsFrom(context, await loadSeen(context));

async function lessonsFrom(context: Context, seen: SeenLessons): Promise<OpenLesson[]> {
  const { programme } = await loadProgramme(context);
  const { db } = context.store;
  const timed = new Set(seen.notesOf('job').map(({ sessionId }) => sessionId));
  const ofTimed = seen.sessions.flatMap(({ id, courseId }) => (timed.has(id) ? [courseId] : []));
  const courses = await find(db, db.models.course, { id: [...new Set(ofTimed)] });
  const lessons = [
    ...amountLessons(seen),
    ...spareLessons(seen, todayIn(context, programme.timeZone)),
    ...trimmingLessons(seen, programme.reference, programme),
    ...stepLessons(seen, programme.reference),
    ...jobLessons(seen, new Map(courses.map(({ id, jobs }) => [id, jobs]))),
  ];
  const rank = ['nearly sure', 'likely', 'a first hint'];
  return lessons.sort((a, b) => rank.indexOf(a.lesson.sure) - rank.indexOf(b.lesson.sure) || a.of.localeCompare(b.of));
}

export const viewLessons = service({
  title: 'See what sessions teach, how sure it is, and what it would change',
  roles: ['coordinator', 'instructor'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const [seen, votes, answers, packs] = await Promise.all([
      loadSeen(context),
      votesByRecipe(db, { programmeId }),
      answersByMode(db, { programmeId }),
      lostPacks(db, { programmeId }),
    ]);
    return {
      lessons: await lessonsFrom(context, seen),
      taken: takenLessons(seen),
      likings: likingsOf(votes),
      coming: comingOf(answers),
      /** Packs of which food is thrown away: a smaller one would do, or two dishes that share it. */
      packs: packs.map(({ ingredient, name, packGrams, lots, lost, came }) => ({
        ingredient,
        name,
        packGrams,
        lots: Number(lots),
        share: Number(came) > 0 ? Math.round((100 * Number(lost)) / Number(came)) : null,
        grams: Number(lost),
      })),
    };
  },
});

/** A recipe with a lesson in it. @throws ServiceError where it cannot be changed by a part */
function taught(
  body: RecipeBody,
  { kind, item, percent }: { kind: OpenLesson['kind']; item: string; percent: number },
  reference: Reference,
): RecipeBody {
  if (kind === 'step') {
    const step = stepsOf({ body }, reference)[Number(item)];
    const { steps } = body;
    if (!step || !steps.includes(step.text))
      throw new ServiceError('invalid', 'This step belongs to another recipe: settle it there.');
    const all = stepsOf({ body }, reference);
    const { isRead: _, estimated: __, uses: ___, after, tools, consumables, ...plan } = step;
    const kept = { ...plan, tools: [...tools], consumables: [...consumables] };
    const settled = { ...kept, ...scaledMinutes(step, percent), after: after.flatMap((at) => all[at]?.text ?? []) };
    return { ...body, planned: [...(body.planned ?? []).filter(({ text }) => text !== step.text), settled] };
  }
  let isFirst = true;
  const lines = body.lines.map((line) => {
    if (line.ingredient !== item) return line;
    if (kind === 'spare') {
      if (!isFirst) return line;
      isFirst = false;
      const { spare: _, ...rest } = line;
      return percent > 0 ? { ...rest, spare: toText(rational(percent, 100)) } : rest;
    }
    const amount = scaledText(line.amount, percent);
    if (amount === undefined)
      throw new ServiceError('invalid', `“${line.amount} ${line.unit}” cannot be changed by a part: edit the recipe.`);
    return { ...line, amount };
  });
  return { ...body, lines };
}

interface Taken {
  readonly kind: OpenLesson['kind'];
  readonly ofId: string;
  readonly item: string;
  readonly version: number;
  readonly percent: number;
}

async function take(context: Context, db: Db, { ofId, version, ...lesson }: Taken): Promise<void> {
  if (lesson.kind === 'job') {
    await loadCourse(context, ofId, db);
    const [{ jobs } = { jobs: {} as JobChanges }] = await heldJobs(db, { courseId: ofId });
    const [key = ''] = lesson.item.split(' ');
    const change = { ...jobs[key], ...changedJob(jobs, key, lesson.percent) };
    await update(db, db.models.course, { id: ofId }, { jobs: { ...jobs, [key]: change } });
    return;
  }
  if (lesson.kind === 'trimming') {
    const [ingredient = '', preparation = ''] = lesson.item.split(': ');
    const { programmeId, id: actorId } = context.actor;
    const made = { id: context.ids(), programmeId, at: nowOf(context), actorId };
    // Two who take it at once wait for each other at their programme.
    await holdProgramme(db, { programmeId });
    await insert(db, db.models.ownYield, [
      { ...made, ingredient, preparation, ediblePortion: String(lesson.percent / 100) },
    ]);
    return;
  }
  const recipe = await loadRecipe(context, db, ofId);
  if (recipe.version !== version)
    throw new ServiceError('stale', 'The recipe was changed meanwhile. Look at the lesson again.');
  const { reference } = (await loadProgramme(context, db)).programme;
  await saveVersion(context, db, {
    id: ofId,
    version,
    title: recipe.title,
    body: taught(recipe.body, lesson, reference),
  });
}

export const decideLesson = service({
  title: 'Take, change or refuse what sessions teach',
  roles: ['coordinator'],
  input: z
    .object({
      kind: z.enum(LESSON_KINDS),
      ofId: z.uuid(),
      item: z.string().min(1).max(190),
      version: z.coerce.number().int(),
      word: z.enum(['taken', 'refused']),
      /** Per cent of what is planned now, where it is changed; of a spare, of what is used. */
      percent: z.coerce
        .number('Write a number.')
        .int('Whole per cents.')
        .min(0, 'Not less than nothing.')
        .max(400, 'At most four times as much.'),
    })
    .refine(
      ({ kind, percent }) =>
        kind === 'spare' ? percent <= 100 : percent >= 10 && (kind !== 'trimming' || percent <= 100),
      {
        path: ['percent'],
        message: 'At least a tenth; a spare is at most as much again, and what is left at most all of it.',
      },
    ),
  run: async (context, { kind, ofId, item, version, word, percent }) => {
    // A recipe, or a course, of another programme is as if it were not there.
    if (kind === 'job') await loadCourse(context, ofId);
    else if (kind === 'trimming') {
      if (ofId !== context.actor.programmeId) throw notFound('food');
    } else await loadRecipe(context, context.store.db, ofId);
    const words = (db: Db) =>
      find(db, db.models.lessonWord, { programmeId: context.actor.programmeId, kind, food: item });
    const before = (await words(context.store.db)).length;
    const isIt = (each: OpenLesson) => each.kind === kind && each.ofId === ofId && each.item === item;
    const lesson = (await openLessons(context)).find(isIt);
    const gone = new ServiceError('stale', 'This lesson is no longer open: somebody has decided it, or more was seen.');
    if (!lesson) throw gone;
    await context.store.transaction(async (db) => {
      const { programmeId, id: actorId } = context.actor;
      if (word === 'taken') await take(context, db, { kind, ofId, item, version, percent });
      // Whoever took it at the same moment was held up by the recipe or the course, and is seen here.
      if ((await words(db)).length !== before) throw gone;
      const decided = {
        proposed: lesson.proposed,
        taken: word === 'taken' ? percent : null,
        at: nowOf(context),
        actorId,
      };
      const recipeId = kind === 'job' || kind === 'trimming' ? null : ofId;
      await insert(db, db.models.lessonWord, [
        { id: context.ids(), programmeId, recipeId, kind, food: item, word, ...decided },
      ]);
      const said = word === 'taken' ? 'took a lesson of' : 'refused a lesson of';
      await logChange(
        context,
        db,
        said,
        kind === 'job' ? 'course' : kind === 'trimming' ? 'programme' : 'recipe',
        ofId,
        { kind, item, percent },
      );
    });
  },
});
