import { type Lesson, spareLesson } from '@/core/closeout/lessons';
import { parseAmount } from '@/core/quantity/amount';
import { toNumber } from '@/core/quantity/rational';
import { isRefused, MOST_TOLD, type OpenLesson, type SeenLessons, since } from './seen';

/** Of food by the piece a twentieth is usually bad or breaks; ours, believed as firmly as forty pieces show it. */
const USUAL_BAD = { mean: 0.05, pieces: 40 };
/** Spares are written in twentieths. */
const STEP = 5;
/** Months on both sides that are of the same season. */
const SEASON = 2;

const partOf = (spare: string | undefined): number => (spare ? toNumber(parseAmount(spare)) : 0);

/** Of notes, those of the season in which somebody looks, where it has two or more; else all. */
function ofSeason<N extends { readonly date: string }>(notes: readonly N[], month: number): readonly N[] {
  const own = notes.filter(({ date }) => {
    const apart = Math.abs(Number(date.slice(5, 7)) - month);
    return Math.min(apart, 12 - apart) <= SEASON;
  });
  return own.length >= 2 ? own : notes;
}

const percentOf = ({ proposed }: Pick<Lesson, 'proposed'>, good: number): number =>
  Math.max(0, Math.ceil((100 * (proposed / good - 1)) / STEP) * STEP);

/** Bad and broken pieces of a food, in whatever dish they were, against the spare that recipes with it say. */
export function spareLessons({ recipes, sessions, notesOf, wordsOf }: SeenLessons, today: string): OpenLesson[] {
  const byId = new Map(sessions.map((session) => [session.id, session]));
  const noted = notesOf('bad').flatMap(({ sessionId, item, bad, pieces }) => {
    const session = byId.get(sessionId);
    return session && pieces ? [{ food: item, session, date: session.date, count: bad ?? 0, of: pieces }] : [];
  });
  return recipes.flatMap(({ id, title: recipe, version, body }) =>
    body.lines.flatMap((line, at): OpenLesson[] => {
      const food = line.ingredient;
      // A food that several lines have is changed in the first.
      if (body.lines.findIndex(({ ingredient }) => ingredient === food) !== at) return [];
      const words = wordsOf(`spare ${id} ${food}`);
      const open = new Set(since(sessions, words).map((session) => session.id));
      const own = noted.filter((note) => note.food === food && open.has(note.session.id));
      const seen = ofSeason(own, Number(today.slice(5, 7)));
      if (seen.length === 0) return [];
      const spare = partOf(line.spare);
      const had = Math.max(1, Math.round(seen.reduce((sum, note) => sum + note.of, 0) / seen.length));
      const good = Math.max(1, Math.round(had / (1 + spare)));
      const lesson = spareLesson(good, Math.ceil(good * (1 + spare)), USUAL_BAD, seen);
      if (!lesson) return [];
      const proposed = percentOf(lesson, good);
      if (proposed === Math.round(spare * 100) || isRefused(words, proposed)) return [];
      return [
        {
          kind: 'spare',
          ofId: id,
          of: recipe,
          version,
          item: food,
          title: `${proposed > spare * 100 ? 'more' : 'fewer'} spare ${food}`,
          lesson,
          proposed,
          would: [{ now: `${Math.round(spare * 100)} % spare`, after: `${proposed} % spare` }],
          seen: seen
            .slice(-MOST_TOLD)
            .map(({ session: { title, date }, count, of }) => ({ title, date, say: `${count} of ${of} were bad` })),
          sessions: seen.length,
        },
      ];
    }),
  );
}
