import { z } from 'zod';
import { type Face, votesOf } from '@/core/classday/tasting';
import { reportOf } from '@/core/closeout/report/report';
import { sayFigure } from '@/core/closeout/report/say-figure';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { currencyOf } from '@/core/quantity/money';
import { recipeDifferences } from '@/core/recipes/recipe/versions';
import { dishesOfCourses, versionsAt } from '@/store/lessons';
import { find } from '@/store/query';
import { type Context, service, todayIn } from '../gate/gate';
import { loadCourse } from '../plan/courses';
import { loadProgramme } from '../sheet/load-programme';
import { openLessons } from './lessons/lessons';
import { loadReportFacts } from './report-facts';

/** Figures that say how a course went. */
const TOLD = [
  'sessions',
  'reached',
  'places',
  'attendance',
  'cooked',
  'tries',
  'volunteer hours',
  'kit cost',
  'incidents',
];
/** Attendance below this is something to change, in thousandths. */
const FEW = 700;

export const lookBack = service({
  title: 'Look back at a course: how it went, what to keep, what to change',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid() }),
  run: async (context, { courseId }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const course = await loadCourse(context, courseId);
    const { programme } = await loadProgramme(context);
    const today = todayIn(context, programme.timeZone);
    const scope = { programmeId, from: '2000-01-01', to: today, courseId, sessionId: '' };
    const [facts, lessons, dishes] = await Promise.all([
      loadReportFacts(context, programme, scope),
      openLessons(context),
      dishesOfCourses(db, { courseIds: [courseId] }),
    ]);
    const figures = reportOf(facts);
    const sessionIds = facts.sessions.map(({ id }) => id);
    const notes = await find(db, db.models.closeNote, { sessionId: sessionIds, what: ['note', 'broke', 'closed'] }, [
      ['at', 'ASC'],
      ['id', 'ASC'],
    ]);
    const tastings = await find(db, db.models.tasting, { sessionId: sessionIds }, [['at', 'ASC']]);
    const say = sayingOf(sayingFacts(programme));
    const titles = new Map(facts.sessions.map(({ id, title, date }) => [id, `${title}, ${say.shortDate(date)}`]));
    const closed = new Set(notes.filter(({ what }) => what === 'closed').map(({ sessionId }) => sessionId));
    const said = [...new Map(notes.map((note) => [`${note.sessionId} ${note.what}`, note])).values()]
      .filter(({ what, words }) => what !== 'closed' && words !== '')
      .map(({ sessionId, words }) => ({ session: titles.get(sessionId) ?? '', words }));
    const titlesOfDishes = [...new Set(dishes.map(({ title }) => title))];
    const liked = titlesOfDishes.map((title) => {
      const own = dishes.filter((dish) => dish.title === title).map(({ id }) => votesOf(tastings, id));
      const of = (face: Face) => own.reduce((sum, votes) => sum + votes[face], 0);
      return { title, votes: { 'more please': of('more please'), 'not yet': of('not yet') } };
    });
    const recipes = new Set(dishes.map(({ recipeId }) => recipeId));
    const own = lessons.filter(({ kind, ofId }) => (kind === 'job' ? ofId === courseId : recipes.has(ofId)));
    const attendance = figures.find(({ key }) => key === 'attendance');
    const weak = (attendance?.parts ?? []).filter(({ value, of = 0 }) => of > 0 && (1000 * value) / of < FEW);
    return {
      course: { id: courseId, title: course.title },
      figures: figures
        .filter(({ key }) => TOLD.includes(key))
        .map((figure) => ({ key: figure.key, label: figure.label, said: sayFigure(figure, currencyOf(programme)) })),
      keep: [
        ...liked
          .filter(({ votes }) => votes['more please'] > votes['not yet'] && votes['more please'] > 0)
          .map(({ title, votes }) => `${title}: ${votes['more please']} would have more`),
        ...(attendance?.value && attendance.value >= 900 ? [`its hours and place: ${sayFigure(attendance)} came`] : []),
      ],
      change: [
        ...own.map(({ of, title }) => `${of}: ${title}`),
        ...liked
          .filter(({ votes }) => votes['not yet'] > votes['more please'])
          .map(({ title, votes }) => `${title}: ${votes['not yet']} were not ready for it; offer it again, smaller`),
        ...weak.map(({ sessionId, value, of = 0 }) => `${titles.get(sessionId)}: ${value} of ${of} came`),
      ],
      lessons: own.length,
      said,
      notClosed: facts.sessions.filter(({ id }) => !closed.has(id)).map(({ id, title, date }) => ({ id, title, date })),
    };
  },
});

/** What differs between a course and the one it was repeated from. */
async function differences(context: Context, fromId: string, toId: string) {
  const { db } = context.store;
  const inOrder = [
    ['date', 'ASC'],
    ['startsAt', 'ASC'],
  ] as [string, string][];
  const [before, after] = await Promise.all(
    [fromId, toId].map((courseId) => find(db, db.models.session, { courseId, status: 'planned' }, inOrder)),
  );
  const dishes = await dishesOfCourses(db, { courseIds: [fromId] });
  const old = before ?? [];
  const fresh = after ?? [];
  const dates = old.map((session, at) => {
    const now = fresh[at];
    return {
      title: session.title,
      before: session.date,
      after: now?.date ?? null,
      because: now?.because ?? '',
      isOther: now !== undefined && (now.startsAt !== session.startsAt || now.place !== session.place),
      when: now ? `${now.startsAt}, ${now.place}` : '',
    };
  });
  const cookedOn = new Map<string, string>();
  for (const { recipeId, date } of dishes) cookedOn.set(recipeId, date);
  const versions = await versionsAt(db, { ids: [...cookedOn.keys()] });
  const recipes = [...cookedOn].flatMap(([recipeId, date]) => {
    const own = versions.filter((version) => version.recipeId === recipeId);
    const now = own.at(-1);
    const then = own.findLast(({ at }) => at.toISOString().slice(0, 10) <= date) ?? own[0];
    if (!now || !then || now.version === then.version) return [];
    return [
      {
        title: now.title,
        says: recipeDifferences({ ...then.body, title: then.title }, { ...now.body, title: now.title }),
      },
    ];
  });
  return { dates, recipes };
}

export const viewRepeated = service({
  title: 'See what differs between a course and the one it was repeated from',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid(), fromId: z.uuid() }),
  run: async (context, { courseId, fromId }) => {
    const [course, from] = [await loadCourse(context, courseId), await loadCourse(context, fromId)];
    const waiting = (await openLessons(context)).length;
    return {
      course: { id: course.id, title: course.title },
      from: { id: from.id, title: from.title },
      ...(await differences(context, fromId, courseId)),
      waiting,
    };
  },
});
