import { factorLesson } from '@/core/closeout/lessons';
import { findIngredient, type Reference } from '@/core/reference/reference';
import { isRefused, MOST_TOLD, type OpenLesson, type SeenLessons, since } from './seen';

const WHOLE = 100;

/** What is known of how much is left of a food that is trimmed so, 0 to 1. */
const portionOf = (reference: Reference, food: string, how: string): number | undefined => {
  const found = reference.yields.find(({ ingredient, preparation }) => ingredient === food && preparation === how);
  return found && findIngredient(reference, food) ? Number(found.ediblePortion) : undefined;
};

/** What was trimmed off, against the edible share by which food is bought: for all recipes of the programme. */
export function trimmingLessons(
  { sessions, notesOf, wordsOf }: SeenLessons,
  reference: Reference,
  programme: { readonly id: string; readonly name: string },
): OpenLesson[] {
  const byId = new Map(sessions.map((session) => [session.id, session]));
  const notes = notesOf('trim');
  return [...new Set(notes.map(({ item }) => item))].flatMap((item): OpenLesson[] => {
    const [food = '', how = ''] = item.split(': ');
    const portion = portionOf(reference, food, how);
    if (!portion) return [];
    const words = wordsOf(`trimming  ${item}`);
    const open = new Set(since(sessions, words).map(({ id }) => id));
    const seen = notes.flatMap(({ sessionId, item: own, bad, pieces }) => {
      const session = byId.get(sessionId);
      if (own !== item || !session || !open.has(sessionId) || bad === null || !pieces) return [];
      return [{ session, off: bad, of: pieces, factor: (1 - bad / pieces) / portion }];
    });
    const lesson = factorLesson(seen.map(({ factor }) => factor));
    if (!lesson) return [];
    const proposed = Math.min(WHOLE, Math.round(portion * lesson.proposed * WHOLE));
    if (proposed === Math.round(portion * WHOLE) || isRefused(words, proposed)) return [];
    return [
      {
        kind: 'trimming',
        ofId: programme.id,
        of: food,
        version: 0,
        item,
        title: `${proposed > portion * WHOLE ? 'more' : 'less'} is left of it, ${how}`,
        lesson,
        proposed,
        would: [{ now: `${Math.round(portion * WHOLE)} % edible`, after: `${proposed} % edible` }],
        seen: seen.slice(-MOST_TOLD).map(({ session: { title, date }, off, of }) => ({
          title,
          date,
          say: `${off} g of ${of} g trimmed off`,
        })),
        sessions: seen.length,
      },
    ];
  });
}
