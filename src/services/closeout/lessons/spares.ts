import { type Lesson, spareLesson } from '@/core/closeout/lessons';
import { parseAmount } from '@/core/quantity/amount';
import { toNumber } from '@/core/quantity/rational';
import { groupedBy } from '@/store/session-bundles';
import { isRefused, MOST_TOLD, type OpenLesson, type SeenLessons, since } from './seen';

/** Of food by the piece a twentieth is usually bad or breaks; ours, believed as firmly as forty pieces show it. */
const USUAL_BAD = { mean: 0.05, pieces: 40 };
/** Spares are written in twentieths. */
const STEP = 5;
/** Months on both sides that are of the same season. */
const SEASON = 2;

/** Of notes, those of food from the shop where it was bought last, where there are two or more; else all. */
function ofShop<N extends { readonly shop: string }>(notes: readonly N[], lastShop: string): readonly N[] {
  const own = lastShop === '' ? [] : notes.filter(({ shop }) => shop === lastShop);
  return own.length >= 2 ? own : notes;
}

/** "Market Hall: 9 of 40 bad; Corner shop: 1 of 38 bad": where to buy it, as far as it is known of two shops. */
function byShop(notes: readonly { readonly shop: string; readonly count: number; readonly of: number }[]): string {
  const shops = [...new Set(notes.map(({ shop }) => shop))].filter(Boolean).sort();
  if (shops.length < 2) return '';
  return shops
    .map((shop) => {
      const own = notes.filter((note) => note.shop === shop);
      const sum = (of: (note: (typeof own)[number]) => number) => own.reduce((all, note) => all + of(note), 0);
      return `${shop}: ${sum(({ count }) => count)} of ${sum(({ of }) => of)} bad`;
    })
    .join('; ');
}

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
export function spareLessons({ recipes, sessions, notesOf, wordsOf, shops }: SeenLessons, today: string): OpenLesson[] {
  const byId = new Map(sessions.map((session) => [session.id, session]));
  const shopsOf = groupedBy(shops, ({ sessionId, food }) => `${sessionId ?? 'last'} ${food}`);
  // What came from two shops says nothing of either.
  const shopOf = (key: string) => (shopsOf(key).length === 1 ? (shopsOf(key)[0]?.shop ?? '') : '');
  const noted = notesOf('bad').flatMap(({ sessionId, item, bad, pieces }) => {
    const session = byId.get(sessionId);
    return session && pieces
      ? [{ food: item, session, date: session.date, count: bad ?? 0, of: pieces, shop: shopOf(`${sessionId} ${item}`) }]
      : [];
  });
  const notedOf = groupedBy(noted, ({ food }) => food);
  return recipes.flatMap(({ id, title: recipe, version, body }) =>
    body.lines.flatMap((line, at): OpenLesson[] => {
      const food = line.ingredient;
      // A food that several lines have is changed in the first.
      if (body.lines.findIndex(({ ingredient }) => ingredient === food) !== at) return [];
      const words = wordsOf(`spare ${id} ${food}`);
      const open = since(
        notedOf(food).map(({ session }) => session),
        words,
      );
      const own = notedOf(food).filter(({ session }) => open.includes(session));
      const seen = ofSeason(ofShop(own, shopOf(`last ${food}`)), Number(today.slice(5, 7)));
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
          seen: seen.slice(-MOST_TOLD).map(({ session: { title, date }, count, of, shop }) => ({
            title,
            date,
            say: `${count} of ${of} were bad${shop && `, from ${shop}`}`,
          })),
          note: byShop(own),
          sessions: seen.length,
        },
      ];
    }),
  );
}
