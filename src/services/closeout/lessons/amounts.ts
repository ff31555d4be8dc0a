import { factorLesson, neededFactor } from '@/core/closeout/lessons';
import { scaledText } from '@/core/closeout/scaled-text';
import { isRefused, MOST_TOLD, type OpenLesson, type SeenLessons, since } from './seen';

const WHOLE = 100;

/** What was left and what ran short, against what recipes say. */
export function amountLessons({ recipes, cookedBy, notesOf, short, wordsOf }: SeenLessons): OpenLesson[] {
  const left = new Map(notesOf('left').map(({ sessionId, item, percent }) => [`${sessionId} ${item}`, percent ?? 0]));
  const lacked = new Map(short.map(({ sessionId, food, percent }) => [`${sessionId} ${food}`, Number(percent ?? 0)]));
  return recipes.flatMap(({ id, title: recipe, version, body }) =>
    [...new Set(body.lines.map(({ ingredient }) => ingredient))].flatMap((food): OpenLesson[] => {
      const words = wordsOf(`amount ${id} ${food}`);
      const seen = since(cookedBy.get(id) ?? [], words).map((session) => {
        const [over, under] = [left.get(`${session.id} ${food}`) ?? 0, lacked.get(`${session.id} ${food}`) ?? 0];
        return { session, over, under, factor: neededFactor(WHOLE, over, under) };
      });
      const lesson = factorLesson(seen.map(({ factor }) => factor));
      if (!lesson) return [];
      const proposed = Math.round(lesson.proposed * WHOLE);
      if (isRefused(words, proposed)) return [];
      const lines = body.lines.filter(({ ingredient }) => ingredient === food);
      return [
        {
          kind: 'amount',
          ofId: id,
          of: recipe,
          version,
          item: food,
          title: `${proposed > WHOLE ? 'more' : 'less'} ${food}`,
          lesson,
          proposed,
          would: lines.map(({ amount, unit }) => ({
            now: `${amount} ${unit}`,
            after: `${scaledText(amount, proposed) ?? amount} ${unit}`,
          })),
          seen: seen
            .filter(({ factor }) => factor !== 1)
            .slice(-MOST_TOLD)
            .map(({ session: { title, date }, over, under }) => ({
              title,
              date,
              say: [over > 0 && `${over} % left`, under > 0 && `${under} % more needed`].filter(Boolean).join(', '),
            })),
          sessions: seen.length,
        },
      ];
    }),
  );
}
