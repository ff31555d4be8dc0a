import { z } from 'zod';
import { canonicalJson, type LockedSheet } from '@/core/kits/record/locked-sheet';
import { packedLines } from '@/core/recipes/recipe/recipe';
import { withFillings } from '@/core/recipes/recipe/slots';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { recipeDifferences } from '@/core/recipes/recipe/versions';
import { find } from '@/store/query';
import { lockedDishesOf, variationsOf, versionsOf } from '@/store/recipes';
import { service, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { figuresOf } from './products';
import { recipeView } from './recipes';
import { loadRecipe } from './saved';

export const viewHistory = service({
  title: 'See a recipe with its versions, and what a serving costs',
  roles: ['coordinator', 'instructor'],
  input: z.object({ recipeId: z.uuid() }),
  run: async (context, { recipeId }) => {
    const { db } = context.store;
    const recipe = await loadRecipe(context, db, recipeId);
    const { programme } = await loadProgramme(context);
    const rows = await versionsOf(db, { recipeId });
    const states = rows.map(({ title, body }) => ({ title, ...body }));
    const versions = rows.map(({ version, at, byName }, index) => {
      const [now, before] = [states[index], states[index + 1]];
      return { version, at, byName, what: now && before ? recipeDifferences(before, now) : [] };
    });
    const variations = await variationsOf(db, { recipeId });
    const inside = recipe.body.subRecipes ?? [];
    const newest = inside.length > 0 ? await find(db, db.models.recipe, { id: inside.map((sub) => sub.recipeId) }) : [];
    return {
      ...(await recipeView(context, recipe, programme)),
      figures: await figuresOf(context, recipe, programme),
      versions,
      variations,
      /** Of each recipe in it, the version that is the newest now. */
      madeOf: inside.map(({ recipeId: id, title, version, servings }) => ({
        id,
        title,
        version,
        servings,
        newest: newest.find((row) => row.id === id)?.version ?? version,
      })),
      behind: await sheetsBehind(),
    };

    /** Sheets of sessions still to come that were locked with another version: they keep it until it is accepted there. */
    async function sheetsBehind() {
      const today = todayIn(context, programme.timeZone);
      const sheets = await lockedDishesOf(db, { recipeId, today });
      const { servings, lines } = wholeRecipe(recipe.body);
      return sheets
        .filter(({ dishId, fillings, snapshot }) => {
          const filled = withFillings(lines, fillings);
          const now = canonicalJson({ servings, lines: packedLines(filled, programme.reference) });
          const { input } = (JSON.parse(snapshot) as LockedSheet).content;
          const dish = input.dishes.find(({ id }) => id === dishId);
          return dish && canonicalJson({ servings: dish.recipe.servings, lines: dish.recipe.lines }) !== now;
        })
        .map(({ id, title, date }) => ({ id, title, date }))
        .sort((a, b) => (a.date < b.date ? -1 : 1));
    }
  },
});
