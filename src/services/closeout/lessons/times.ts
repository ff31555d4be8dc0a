import { factorLesson } from '@/core/closeout/lessons';
import type { Reference } from '@/core/reference/reference';
import type { JobChanges } from '@/core/stages/facts';
import { JOBS } from '@/core/stages/stages';
import { groupedBy } from '@/store/session-bundles';
import { stepsOf } from '../../sheet/steps-of';
import { isRefused, MOST_TOLD, type OpenLesson, type SeenLessons, since } from './seen';

const WHOLE = 100;
const LEAST_SESSIONS = 2;
/** In minutes. */
const LEAST_MOVED = 2;

/** What steps took in class, against what recipes plan for them. */
export function stepLessons({ recipes, cookedBy, notesOf, wordsOf }: SeenLessons, reference: Reference): OpenLesson[] {
  const took = new Map(
    notesOf('step').map(({ sessionId, item, percent, words }) => [
      `${sessionId} ${item.split(' ')[0]} ${words}`,
      percent ?? WHOLE,
    ]),
  );
  // Reading steps is the dear part of it: only those of recipes of which one was timed.
  const timed = new Set(notesOf('step').map(({ item }) => item.split(' ')[0]));
  const read = recipes.filter(({ id }) => timed.has(id));
  return read.flatMap(({ id, title: recipe, version, body }) =>
    stepsOf({ body }, reference).flatMap(({ text, handsOn, handsOff }, place): OpenLesson[] => {
      const item = String(place);
      const words = wordsOf(`step ${id} ${item}`);
      const seen = since(cookedBy.get(id) ?? [], words).flatMap((session) => {
        // By its words: in class the cutting of the ingredients stands before it, and what is written otherwise since is another step.
        const percent = took.get(`${session.id} ${id} ${text}`);
        return percent === undefined ? [] : [{ session, percent }];
      });
      const lesson = factorLesson(seen.map(({ percent }) => percent / WHOLE));
      if (!lesson) return [];
      const proposed = Math.round(lesson.proposed * WHOLE);
      const after = scaledMinutes({ handsOn, handsOff }, proposed);
      // A minute more or less, or one class, is no lesson: taps are loose.
      const moved = Math.abs(after.handsOn - handsOn) + Math.abs(after.handsOff - handsOff);
      if (seen.length < LEAST_SESSIONS || moved < LEAST_MOVED || isRefused(words, proposed)) return [];
      const say = (minutes: { handsOn: number; handsOff: number }) =>
        `${minutes.handsOn} min${minutes.handsOff > 0 ? ` and ${minutes.handsOff} by itself` : ''}`;
      return [
        {
          kind: 'step',
          ofId: id,
          of: recipe,
          version,
          item,
          title: `“${text.slice(0, 60)}${text.length > 60 ? '…' : ''}” takes ${proposed > WHOLE ? 'longer' : 'less time'}`,
          lesson,
          proposed,
          would: [{ now: say({ handsOn, handsOff }), after: say(after) }],
          seen: seen
            .slice(-MOST_TOLD)
            .map(({ session: { title, date }, percent }) => ({ title, date, say: `took ${percent} % of its minutes` })),
          sessions: seen.length,
        },
      ];
    }),
  );
}

/** Hands' minutes change with what was seen; what goes on alone takes as long as its words say. */
export const scaledMinutes = ({ handsOn, handsOff }: { handsOn: number; handsOff: number }, percent: number) =>
  handsOn > 0
    ? { handsOn: Math.max(1, Math.round(handsOn + ((handsOn + handsOff) * (percent - WHOLE)) / WHOLE)), handsOff }
    : { handsOn, handsOff: Math.max(1, Math.round((handsOff * percent) / WHOLE)) };

/** What a job takes where it is changed by a part. */
export function changedJob(jobs: JobChanges, key: string, percent: number): { fixed: number; perKit: number } {
  const template = JOBS.find((job) => job.key === key);
  const now = {
    fixed: jobs[key]?.fixed ?? template?.effort.fixed ?? 0,
    perKit: jobs[key]?.perKit ?? template?.effort.perKit ?? 0,
  };
  return { fixed: Math.round((now.fixed * percent) / WHOLE), perKit: Math.round((now.perKit * percent) / WHOLE) };
}

/** What jobs took, course by course, against what its countdown plans. */
export function jobLessons(
  { sessions, notesOf, wordsOf }: SeenLessons,
  jobsOf: ReadonlyMap<string, JobChanges>,
): OpenLesson[] {
  const took = new Map(
    notesOf('job').map(({ sessionId, item, percent }) => [`${sessionId} ${item}`, percent ?? WHOLE]),
  );
  if (took.size === 0) return [];
  const ofCourse = groupedBy(sessions, ({ courseId }) => courseId);
  const courses = new Map(sessions.map(({ courseId, course }) => [courseId, course]));
  const timed = [...courses].flatMap(([courseId, course]) => JOBS.map((job) => ({ courseId, course, job })));
  return timed.flatMap(({ courseId, course, job: { key, title } }): OpenLesson[] => {
    const item = `${key} ${courseId}`;
    const words = wordsOf(`job  ${item}`);
    const seen = since(ofCourse(courseId), words).flatMap((session) => {
      const percent = took.get(`${session.id} ${key}`);
      return percent === undefined ? [] : [{ session, percent }];
    });
    const lesson = factorLesson(seen.map(({ percent }) => percent / WHOLE));
    if (!lesson) return [];
    const proposed = Math.round(lesson.proposed * WHOLE);
    if (isRefused(words, proposed)) return [];
    const jobs = jobsOf.get(courseId) ?? {};
    const say = ({ fixed, perKit }: { fixed: number; perKit: number }) => `${fixed} min and ${perKit} a kit`;
    return [
      {
        kind: 'job',
        ofId: courseId,
        of: course,
        version: 0,
        item,
        title: `“${title}” takes ${proposed > WHOLE ? 'longer' : 'less time'}`,
        lesson,
        proposed,
        would: [{ now: say(changedJob(jobs, key, WHOLE)), after: say(changedJob(jobs, key, proposed)) }],
        seen: seen
          .slice(-MOST_TOLD)
          .map(({ session: { title, date }, percent }) => ({ title, date, say: `took ${percent} % of its minutes` })),
        sessions: seen.length,
      },
    ];
  });
}
