import { z } from 'zod';
import { container, type KitRules, kitRules, lineWays } from '@/contracts/kits';
import { packedLines } from '@/core/recipes/recipe/recipe';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { findIngredient } from '@/core/reference/reference';
import { update, updateVersion } from '@/store/query';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';
import { loadCourse } from '../plan/courses';
import { loadBundle } from '../plan/sessions';
import { syncCallBacks } from '../sheet/call-backs';
import { loadProgramme } from '../sheet/load-programme';

export const viewKitRules = service({
  title: 'See what goes with the kits of a course beside measured food',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid() }),
  run: async (context, { courseId }) => {
    const course = await loadCourse(context, courseId);
    const { programme } = await loadProgramme(context);
    const { supplies = [], consumables = [], ...rules } = course.kitRules;
    return {
      course,
      rules: { ...rules, supplies, consumables } satisfies KitRules,
      foods: programme.reference.ingredients.map(({ name }) => name),
    };
  },
});

export const setKitRules = service({
  title: 'Say what goes with the kits of a course beside measured food',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid(), version: z.coerce.number().int(), rules: kitRules }),
  run: (context, { courseId, version, rules }) =>
    context.store.transaction(async (db) => {
      const course = await loadCourse(context, courseId, db);
      const { programme } = await loadProgramme(context, db);
      const supplies = rules.supplies.map((supply) => {
        if (supply.kind !== 'jar') return supply;
        const food = findIngredient(programme.reference, supply.name);
        if (!food)
          throw new ServiceError('invalid', 'Nothing was saved yet.', [
            {
              where: supply.name,
              message: 'A jar holds a food of the reference table: choose its name from the list.',
            },
          ]);
        return { ...supply, name: food.name };
      });
      const names = supplies.map(({ kind, name }) => `${kind} ${name}`);
      const twice = names.find((name, at) => names.indexOf(name) !== at);
      if (twice)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: twice, message: 'It is on the list twice: keep one, with all it needs.' },
        ]);
      const values = { kitRules: { ...rules, supplies } };
      if (!(await updateVersion(db, db.models.course, courseId, version, values))) throw stale(course.title);
      await logChange(context, db, 'changed what goes with kits', 'course', courseId, { ...rules, supplies });
      await syncCallBacks(context, db, { courseId });
    }),
});

export const setLineWays = service({
  title: 'Say how the lines of a dish travel, and how many it serves here',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    dishId: z.uuid(),
    ways: lineWays,
    /** Servings of this class that the recipe gives; null: as it is written. */
    serves: z.coerce.number().int('Use a whole number.').min(1, 'At least 1.').max(500, 'At most 500.').nullable(),
  }),
  run: (context, { sessionId, dishId, ways, serves }) =>
    context.store.transaction(async (db) => {
      const bundle = await loadBundle(context, sessionId, db);
      const { programme } = await loadProgramme(context, db);
      const dish = bundle.dishes.find(({ id }) => id === dishId);
      if (!dish) throw notFound('dish');
      const lines = packedLines(wholeRecipe(dish.body).lines, programme.reference);
      const written = new Set(
        lines.flatMap(({ ingredient, alternatives = [] }) => [
          ingredient,
          ...alternatives.flatMap((each) => ('omit' in each ? [] : [each.ingredient])),
        ]),
      );
      const strange = ways.find(({ ingredient }) => !written.has(ingredient));
      if (strange) throw new ServiceError('invalid', `${strange.ingredient} is not among what ${dish.title} needs.`);
      const notMeasured = ways.filter(({ way }) => way !== 'measured');
      await update(db, db.models.dish, { id: dishId }, { ways: notMeasured, serves });
      await logChange(context, db, 'changed how a dish travels', 'session', sessionId, {
        dish: dish.title,
        ways,
        serves,
      });
      await syncCallBacks(context, db, { sessionId });
    }),
});

export const setContainers = service({
  title: 'Say which containers kits are packed in',
  roles: ['coordinator'],
  input: z.object({
    version: z.coerce.number().int(),
    containers: z.array(container).max(20, 'At most 20 sizes.'),
  }),
  run: (context, { version, containers }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const sorted = [...containers].sort((a, b) => a.ml - b.ml);
      const values = { containers: sorted };
      if (!(await updateVersion(db, db.models.programme, programmeId, version, values))) throw stale('The programme');
      await logChange(context, db, 'changed containers', 'programme', programmeId, { containers: sorted });
    }),
});
