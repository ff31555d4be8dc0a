import type { Lesson, LessonKind } from '@/core/closeout/lessons';
import { closedSessions, cookedRecipes, shopsOfFoods, shortBySession, tellingNotes } from '@/store/lessons';
import { find } from '@/store/query';
import { groupedBy } from '@/store/session-bundles';
import type { LessonWordRow } from '@/store/tables/closeout';
import type { Context } from '../../gate/gate';

/** A lesson that waits for a person. */
export interface OpenLesson {
  readonly kind: LessonKind;
  /** The recipe it would change, or the course. */
  readonly ofId: string;
  /** "Slipway slaw", "Small Hands Kitchen". */
  readonly of: string;
  /** Of the recipe: a lesson is taken into the version it was looked at with. */
  readonly version: number;
  /** A food, the place of a step, a job. */
  readonly item: string;
  readonly title: string;
  readonly lesson: Lesson;
  /** Per cent of what is planned; of a spare, of what is used. */
  readonly proposed: number;
  readonly would: readonly { readonly now: string; readonly after: string }[];
  readonly seen: readonly { readonly title: string; readonly date: string; readonly say: string }[];
  readonly sessions: number;
  /** What it says besides: of spares, how shops differ. */
  readonly note?: string;
}

/** What was seen in all closed sessions, and what people decided about lessons: seven queries, eight where pieces were bad, however many there are. */
export async function loadSeen(context: Context) {
  const { db } = context.store;
  const { programmeId } = context.actor;
  const [sessions, notes, short, recipes, words] = await Promise.all([
    closedSessions(db, { programmeId }),
    tellingNotes(db, { programmeId }),
    shortBySession(db, { programmeId }),
    cookedRecipes(db, { programmeId }),
    find(db, db.models.lessonWord, { programmeId }, [
      ['at', 'ASC'],
      ['id', 'ASC'],
    ]),
  ]);
  const closed = new Set(sessions.map(({ id }) => id));
  const told = notes.filter(({ sessionId }) => closed.has(sessionId));
  const badFoods = [...new Set(told.flatMap(({ what, item }) => (what === 'bad' ? [item] : [])))];
  const cookedBy = new Map<string, (typeof sessions)[number][]>();
  for (const session of sessions)
    for (const recipeId of session.recipeIds) {
      const own = cookedBy.get(recipeId);
      if (own) own.push(session);
      else cookedBy.set(recipeId, [session]);
    }
  return {
    sessions,
    recipes,
    cookedBy,
    shops: await shopsOfFoods(db, { programmeId, foods: badFoods }),
    notesOf: groupedBy(told, ({ what }) => what),
    short,
    words,
    wordsOf: groupedBy(words, ({ kind, recipeId, food }) => `${kind} ${recipeId ?? ''} ${food}`),
  };
}

export type SeenLessons = Awaited<ReturnType<typeof loadSeen>>;
export type ClosedSession = SeenLessons['sessions'][number];

/** Sessions that say something of a lesson: those closed since it was taken last. */
export const since = (
  sessions: readonly ClosedSession[],
  words: readonly LessonWordRow[],
): readonly ClosedSession[] => {
  const taken = words.findLast(({ word }) => word === 'taken')?.at;
  return taken ? sessions.filter(({ closedAt }) => closedAt > taken) : sessions;
};

/** Refused once, a lesson is shown again when it has become another. */
export const isRefused = (words: readonly LessonWordRow[], proposed: number): boolean => {
  const refused = words.findLast(({ word }) => word === 'refused');
  return refused !== undefined && Math.abs(refused.proposed - proposed) < 5;
};

/** So many sessions are told as evidence, the newest. */
export const MOST_TOLD = 12;
