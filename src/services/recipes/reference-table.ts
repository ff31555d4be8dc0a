import { z } from 'zod';
import { newFood, newWeighing } from '@/contracts/reference';
import { parsePositiveAmount } from '@/core/quantity/amount';
import { divide, rational, toDecimal } from '@/core/quantity/rational';
import { sayNumber } from '@/core/quantity/say';
import { cookedFactor } from '@/core/reference/cooked';
import { wordKey } from '@/core/reference/food-finder';
import { nearFoods } from '@/core/reference/near-foods';
import { type OwnFood, weighingDoubt } from '@/core/reference/own-reference';
import { findIngredient, foodNames, type Ingredient, measuresOf, TYPICAL } from '@/core/reference/reference';
import { sayWeighedTogether, weighedTogether } from '@/core/reference/weighings';
import { AVOIDANCES, type Avoidance, EDITION } from '@/core/safety/avoidances';
import { SimulatedInstruments } from '@/devices/instruments';
import { insert, remove } from '@/store/query';
import { weighingsOf } from '@/store/recipes';
import { isDuplicate } from '@/store/store';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, service } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';

/** The table’s own order goes from what a kitchen uses most. */
const ORDERS = {
  table: () => 0,
  name: (a: Ingredient, b: Ingredient) => (a.name < b.name ? -1 : 1),
  keeps: (a: Ingredient, b: Ingredient) => a.daysOpened - b.daysOpened || (a.name < b.name ? -1 : 1),
};

export const viewReference = service({
  title: 'See the reference table',
  roles: ['coordinator', 'instructor'],
  input: z.object({
    search: z.string().max(200).default(''),
    /** Of one aisle alone; '' for all. */
    aisle: z.string().max(20).default(''),
    order: z.enum(['table', 'name', 'keeps'], 'Choose table, name or keeps.').default('table'),
  }),
  run: async (context, { search, aisle, order }) => {
    const { reference } = (await loadProgramme(context)).programme;
    const wanted = search.trim() === '' ? [] : search.trim().split(/\s+/).map(wordKey);
    const index = foodNames(reference);
    const found = new Set(
      index.entries
        .filter(({ words }) => wanted.every((word) => words.some((own) => own.startsWith(word))))
        .map(({ name }) => name),
    );
    const near = found.size === 0 ? new Set(nearFoods(search, index)) : found;
    return {
      all: reference.ingredients.length,
      foods: reference.ingredients
        .filter((food) => (wanted.length === 0 || near.has(food.name)) && (aisle === '' || food.aisle === aisle))
        .sort(ORDERS[order])
        .map((food) => ({
          ...food,
          isOwn: !findIngredient(TYPICAL, food.name),
          /** What the table says it keeps, in days, before a stricter limit of the programme. */
          keeps: keepingOf(findIngredient(TYPICAL, food.name) ?? food),
          measures: measuresOf(reference, food.name),
        })),
    };
  },
});

export const viewFood = service({
  title: 'See one food of the reference table, and how its weights came about',
  roles: ['coordinator', 'instructor'],
  input: z.object({ name: z.string().min(1).max(80) }),
  run: async (context, { name }) => {
    const { reference } = (await loadProgramme(context)).programme;
    const food = findIngredient(reference, name);
    if (!food) throw notFound('food');
    const history = await weighingsOf(context.store.db, { programmeId: context.actor.programmeId, name: food.name });
    return {
      food,
      isOwn: !findIngredient(TYPICAL, food.name),
      /** What the table says it keeps, in days, before a stricter limit of the programme. */
      keeps: keepingOf(findIngredient(TYPICAL, food.name) ?? food),
      measures: measuresOf(reference, food.name),
      typical: measuresOf(TYPICAL, food.name),
      yields: reference.yields.filter(({ ingredient }) => ingredient === food.name),
      /** What else this programme calls it. */
      words: Object.entries(reference.words ?? {}).flatMap(([word, of]) => (of === food.name ? [word] : [])),
      /** What it weighs cooked for each gram dry or raw, said; null where it is not known. */
      cooked: sayFactor(food.name),
      history: history.map(({ at, ...row }) => ({ ...row, at: at.toISOString() })),
      /** What the weighings of each measure say together, beside the table. */
      together: weighedTogether(history.toReversed(), measuresOf(TYPICAL, food.name)).map((row) => ({
        ...row,
        say: sayWeighedTogether(row),
      })),
    };
  },
});

export const forgetFoodWord = service({
  title: 'Forget that some words are a name of a food',
  roles: ['coordinator'],
  input: z.object({ word: z.string().min(1).max(255) }),
  run: (context, { word }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      if ((await remove(db, db.models.foodWord, { programmeId, word })) === 0) throw notFound('name');
      await logChange(context, db, 'forgot the name of a food', 'programme', programmeId, { word });
    }),
});

const keepingOf = ({ daysWhole, daysOpened }: Ingredient) => ({ whole: daysWhole, opened: daysOpened });

function sayFactor(name: string): string | null {
  const factor = cookedFactor(name);
  return factor ? sayNumber(factor) : null;
}

export const readScale = service({
  title: 'Read the scale for a weighing',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) =>
    (await new SimulatedInstruments(context.store).grams(context.actor.programmeId))?.value ?? null,
});

export const weighFood = service({
  title: 'Put a measure of a food on the scale',
  roles: ['coordinator'],
  input: newWeighing,
  run: (context, { name, preparation, measure, count, grams }) =>
    context.store.transaction(async (db) => {
      const { programme } = await loadProgramme(context, db);
      const food = findIngredient(programme.reference, name);
      if (!food) throw notFound('food');
      // Several at once are nearer the truth than one: "4 eggs, 210 g".
      const each = toDecimal(divide(parsePositiveAmount(grams), rational(count)), 2);
      const before = measuresOf(programme.reference, food.name).find(
        (row) => row.preparation === preparation && row.measure === measure,
      );
      const doubt = weighingDoubt(each, before?.grams);
      if (doubt) throw new ServiceError('invalid', doubt, [{ where: 'grams', message: doubt }]);
      const id = context.ids();
      const { programmeId, id: actorId } = context.actor;
      const row = {
        id,
        programmeId,
        ingredient: food.name,
        preparation,
        measure,
        grams: each,
        at: nowOf(context),
        actorId,
      };
      await insert(db, db.models.weighing, [row]);
      await logChange(context, db, 'weighed', 'food', id, {
        name: food.name,
        preparation,
        measure,
        grams: each,
        before: before?.grams,
      });
      return { grams: each, before: before?.grams ?? null };
    }),
});

const codesOf = (wanted: Avoidance['kind']) => AVOIDANCES.filter(({ kind }) => kind === wanted).map(({ code }) => code);
const ALLERGENS = codesOf('allergen');
const DIETS = codesOf('diet');

export const addFood = service({
  title: 'Add a food to the reference table',
  roles: ['coordinator'],
  input: newFood,
  run: async (context, { name, contains, diet, labelRead, measure, preparation, grams, ...facts }) => {
    const { programmeId } = context.actor;
    const { reference } = (await loadProgramme(context)).programme;
    const taken = foodNames(reference).byKey.get(name.split(' ').map(wordKey).join(' '));
    if (taken) {
      const message =
        taken === name ? `${name} is in the table already.` : `${name} is known as ${taken}. Choose that.`;
      throw new ServiceError('invalid', message, [{ where: 'name', message }]);
    }
    const source = `added by ${context.actor.name}, ${context.clock().toString().slice(0, 10)}`;
    const food: OwnFood = {
      ingredient: {
        ...facts,
        name,
        contains,
        // Until somebody has read a label, nothing about it is known: all else may be in it, and blocks.
        mayContain: labelRead ? [] : ALLERGENS.filter((code) => !contains.includes(code)),
        diet,
        dietCheck: labelRead ? [] : DIETS.filter((code) => !diet.includes(code)),
        source,
        edition: EDITION,
      },
      measures: grams === null ? [] : [{ ingredient: name, preparation, measure, grams, source }],
      yields: [],
    };
    try {
      await context.store.transaction(async (db) => {
        const id = context.ids();
        await insert(db, db.models.ownFood, [{ id, programmeId, name, body: food, version: 1 }]);
        await logChange(context, db, 'added', 'food', id, { ...food });
      });
    } catch (error) {
      if (isDuplicate(error)) throw new ServiceError('invalid', `${name} was added by someone else a moment ago.`);
      throw error;
    }
    return name;
  },
});
