import { z } from 'zod';
import { factorLesson, neededFactor } from '@/core/closeout/lessons';
import { scaledText } from '@/core/closeout/scaled-text';
import { closedDishes, shortBySession } from '@/store/closeout';
import { find, insert } from '@/store/query';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { loadRecipe, saveVersion } from '../recipes/saved';

const WHOLE = 100;

/** What sessions say of the amounts of each recipe, since a lesson of them was taken last. */
async function amountLessons(context: Context) {
  const { db } = context.store;
  const { programmeId } = context.actor;
  const dishes = await closedDishes(db, { programmeId });
  const ids = [...new Set(dishes.map(({ sessionId }) => sessionId))];
  const left = new Map(
    (
      await find(db, db.models.closeNote, { sessionId: ids, what: 'left' }, [
        ['at', 'ASC'],
        ['id', 'ASC'],
      ])
    ).map((note) => [`${note.sessionId} ${note.item}`, note.percent ?? 0]),
  );
  const short = new Map(
    (await shortBySession(db, { programmeId })).map((row) => [`${row.sessionId} ${row.food}`, row.percent ?? 0]),
  );
  const words = await find(db, db.models.lessonWord, { programmeId }, [
    ['at', 'ASC'],
    ['id', 'ASC'],
  ]);
  const recipes = new Map(dishes.map((dish) => [dish.recipeId, dish]));
  return [...recipes.values()].flatMap(({ recipeId, recipe, version, body }) =>
    [...new Set(body.lines.map(({ ingredient }) => ingredient))].flatMap((food) => {
      const own = words.filter((word) => word.recipeId === recipeId && word.food === food);
      const taken = own.findLast(({ word }) => word === 'taken')?.at;
      const seen = dishes
        .filter((dish) => dish.recipeId === recipeId && (!taken || dish.closedAt > taken))
        .map(({ sessionId, title, date }) => {
          const [over, under] = [left.get(`${sessionId} ${food}`) ?? 0, short.get(`${sessionId} ${food}`) ?? 0];
          return { title, date, over, under, factor: neededFactor(WHOLE, over, under) };
        });
      const lesson = factorLesson(seen.map(({ factor }) => factor));
      if (!lesson) return [];
      const proposed = Math.round(lesson.proposed * WHOLE);
      // Refused once, it is shown again when it has become another.
      const refused = own.findLast(({ word }) => word === 'refused');
      if (refused && Math.abs(refused.proposed - proposed) < 5) return [];
      const lines = body.lines.filter(({ ingredient }) => ingredient === food);
      return [
        {
          recipeId,
          recipe,
          version,
          food,
          lesson,
          proposed,
          seen: seen.filter(({ factor }) => factor !== 1),
          sessions: seen.length,
          lines,
        },
      ];
    }),
  );
}

export const viewLessons = service({
  title: 'See what sessions teach about the amounts of recipes, and how sure it is',
  roles: ['coordinator', 'instructor'],
  input: z.object({}),
  run: async (context) =>
    (await amountLessons(context)).map(({ lines, ...lesson }) => ({
      ...lesson,
      would: lines.map(({ amount, unit }) => ({
        now: `${amount} ${unit}`,
        after: `${scaledText(amount, lesson.proposed) ?? amount} ${unit}`,
      })),
    })),
});

export const decideLesson = service({
  title: 'Take, change or refuse what sessions teach about an amount',
  roles: ['coordinator'],
  input: z.object({
    recipeId: z.uuid(),
    food: z.string().min(1).max(190),
    version: z.coerce.number().int(),
    word: z.enum(['taken', 'refused']),
    /** Per cent of what is planned now, where it is changed. */
    percent: z.coerce.number().int().min(10, 'At least a tenth.').max(400, 'At most four times as much.'),
  }),
  run: async (context, { recipeId, food, version, word, percent }) => {
    // A recipe of another programme is as if it were not there.
    await loadRecipe(context, context.store.db, recipeId);
    const lesson = (await amountLessons(context)).find((each) => each.recipeId === recipeId && each.food === food);
    if (!lesson)
      throw new ServiceError('stale', 'This lesson is no longer open: somebody has decided it, or more was seen.');
    await context.store.transaction(async (db) => {
      const { programmeId, id: actorId } = context.actor;
      if (word === 'taken') {
        const recipe = await loadRecipe(context, db, recipeId);
        if (recipe.version !== version)
          throw new ServiceError('stale', 'The recipe was changed meanwhile. Look at the lesson again.');
        const lines = recipe.body.lines.map((line) => {
          const amount = line.ingredient === food ? scaledText(line.amount, percent) : line.amount;
          if (amount === undefined)
            throw new ServiceError(
              'invalid',
              `“${line.amount} ${line.unit}” cannot be changed by a part: edit the recipe.`,
            );
          return { ...line, amount };
        });
        await saveVersion(context, db, { id: recipeId, version, title: recipe.title, body: { ...recipe.body, lines } });
      }
      await insert(db, db.models.lessonWord, [
        {
          id: context.ids(),
          programmeId,
          recipeId,
          kind: 'amount',
          food,
          word,
          proposed: lesson.proposed,
          taken: word === 'taken' ? percent : null,
          at: nowOf(context),
          actorId,
        },
      ]);
      await logChange(context, db, word === 'taken' ? 'took a lesson of' : 'refused a lesson of', 'recipe', recipeId, {
        food,
        percent,
      });
    });
  },
});
