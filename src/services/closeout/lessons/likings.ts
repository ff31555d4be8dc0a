import { FACES, type Face } from '@/core/classday/tasting';
import { type Counted, type Estimate, estimateShare } from '@/core/closeout/estimates';
import type { answersByMode, votesByRecipe } from '@/store/lessons';

type Rows<Of extends (...args: never) => Promise<readonly unknown[]>> = Awaited<ReturnType<Of>>;

/** Before anybody tastes, half would have more; believed as firmly as four votes. */
const USUAL_LIKING = { mean: 0.5, pieces: 4 };
/** Before anything is seen, four of five come; as firmly as ten people. */
const USUAL_COMING = { mean: 0.8, pieces: 10 };
/** A child may need to meet a food so often before it likes it. */
export const MOST_TRIES = 15;

const BANDS = [
  ['under 9', 0, 8],
  ['9 to 12', 9, 12],
  ['13 and over', 13, 200],
] as const;

/** What was thought of a dish, by everybody and by age. */
export interface Liking {
  readonly recipeId: string;
  readonly title: string;
  readonly votes: Readonly<Record<Face, number>>;
  /** The share who would have more. */
  readonly liked: Estimate;
  readonly byAge: readonly { readonly ages: string; readonly liked: Estimate; readonly votes: number }[];
  /** What to do about it, in a sentence. */
  readonly proposes: string;
}

const counted = (rows: Rows<typeof votesByRecipe>): Counted => {
  const votes = (faces: readonly Face[]) =>
    rows.reduce((sum, row) => sum + (faces.includes(row.face) ? Number(row.votes) : 0), 0);
  return { count: votes(['more please']), of: votes(FACES) };
};

/** What children thought of the dishes, the best liked first. */
export function likingsOf(rows: Rows<typeof votesByRecipe>): Liking[] {
  const recipes = [...new Map(rows.map(({ recipeId, title }) => [recipeId, title]))];
  return recipes
    .map(([recipeId, title]): Liking => {
      const own = rows.filter((row) => row.recipeId === recipeId);
      const liked = estimateShare(USUAL_LIKING, [counted(own)]);
      const byAge = BANDS.flatMap(([ages, from, to]) => {
        const seen = counted(own.filter(({ age }) => age !== null && age >= from && age <= to));
        return seen.of > 0 ? [{ ages, liked: estimateShare(USUAL_LIKING, [seen]), votes: seen.of }] : [];
      });
      const votes = Object.fromEntries(
        FACES.map((face) => [face, own.reduce((sum, row) => sum + (row.face === face ? Number(row.votes) : 0), 0)]),
      ) as Record<Face, number>;
      const proposes =
        liked.low > 0.5
          ? 'Cook it again.'
          : votes['not yet'] > votes['more please']
            ? `Offer it again, in small bites and without pressing: it can take ${MOST_TRIES} tries.`
            : 'Too early to tell.';
      return { recipeId, title, votes, liked, byAge, proposes };
    })
    .sort((a, b) => b.liked.value - a.liked.value);
}

const ASKED = [
  ['came', 'absent', 'come'],
  ['collected', 'not collected', 'fetch their kit'],
  ['cooked', 'not cooked', 'cook it'],
] as const;

/** Of those on the roll, the share who come, fetch and cook, by the mode of the session. */
export function comingOf(rows: Rows<typeof answersByMode>) {
  const modes = [...new Set(rows.map(({ mode }) => mode))].sort();
  const count = (mode: string, state: string) =>
    Number(rows.find((row) => row.mode === mode && row.state === state)?.count ?? 0);
  return modes.flatMap((mode) =>
    ASKED.flatMap(([yes, no, say]) => {
      const seen = { count: count(mode, yes), of: count(mode, yes) + count(mode, no) };
      return seen.of > 0 ? [{ mode, say, ...seen, share: estimateShare(USUAL_COMING, [seen]) }] : [];
    }),
  );
}
