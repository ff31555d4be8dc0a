import type { RecipeBody } from '@/contracts/recipe';
import type { LineWay } from '@/core/kits/supply/supplied';
import type { Filling } from '@/core/recipes/recipe/slots';
import type { OwnFood } from '@/core/reference/own-reference';
import { json, key, keyOf, maybe, moment, notes, plain, type RowOf, ref, table, whole } from './table';

export const recipe = table(
  'recipe',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    title: notes(),
    body: json<RecipeBody>('notes'),
    version: whole(),
    /** The recipe that it is a local variation of, and the version of it that it was made from. */
    parentId: maybe(ref()),
    parentVersion: maybe(whole()),
  },
);
export type RecipeRow = RowOf<typeof recipe>;

/** A recipe as it was saved once; append-only. */
export const recipeVersion = table(
  'recipe_version',
  { belongs: 'recipeId' },
  {
    recipeId: keyOf(ref()),
    version: keyOf(whole()),
    title: notes(),
    body: json<RecipeBody>('notes'),
    at: moment(),
    actorId: maybe(ref()),
  },
);
export type RecipeVersionRow = RowOf<typeof recipeVersion>;

/** A food that a programme added to the reference table. */
export const ownFood = table(
  'own_food',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    name: notes(),
    /** Its facts, weights and yields. */
    body: json<OwnFood>('notes'),
    version: whole(),
  },
);
export type OwnFoodRow = RowOf<typeof ownFood>;

/** A measure of a food put on the programme's own scale; the newest one counts. */
export const weighing = table(
  'weighing',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    ingredient: plain(),
    preparation: plain(),
    measure: plain(),
    grams: plain(),
    at: moment(),
    actorId: ref(),
  },
);
export type WeighingRow = RowOf<typeof weighing>;

/** What is left of a food when it is trimmed as here: a lesson that was taken; the newest counts. */
export const ownYield = table(
  'own_yield',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    ingredient: plain(),
    preparation: plain(),
    /** 0 to 1, as a decimal. */
    ediblePortion: plain(),
    at: moment(),
    actorId: ref(),
  },
);
export type OwnYieldRow = RowOf<typeof ownYield>;

/** A pack that a programme buys, with what is on its label. */
export const product = table(
  'product',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    ingredient: plain(),
    name: notes(),
    /** Exact decimal. */
    packGrams: plain(),
    /** Minor units of money. */
    price: maybe(whole()),
    /** Codes; null while nobody has read the label. */
    allergens: maybe(json<readonly string[]>()),
    /** For 100 g. */
    saltMg: maybe(whole()),
    energyKj: maybe(whole()),
    readAt: maybe(moment()),
    readBy: maybe(ref()),
    /** 1: it is what the programme buys, and kits take its label. At most one of a food. */
    inKits: whole(),
    version: whole(),
  },
);
export type ProductRow = RowOf<typeof product>;

/** Days that a food keeps here: fewer than the table says. */
export const keepingLimit = table(
  'keeping_limit',
  { belongs: 'programmeId' },
  {
    programmeId: keyOf(ref()),
    ingredient: keyOf(plain()),
    daysWhole: maybe(whole()),
    daysOpened: maybe(whole()),
  },
);
export type KeepingLimitRow = RowOf<typeof keepingLimit>;

/** A food's other name in a programme: what its coordinator answered when a line was read. */
export const foodWord = table(
  'food_word',
  { belongs: 'programmeId' },
  {
    programmeId: keyOf(ref()),
    /** Small letters, each word in its one form (see food-finder.ts). */
    word: keyOf(plain()),
    ingredient: plain(),
  },
);
export type FoodWordRow = RowOf<typeof foodWord>;

export const dish = table(
  'dish',
  { belongs: 'sessionId', joined: 'moves', copied: ['repeat'] },
  {
    id: key(),
    sessionId: ref(),
    recipeId: ref(),
    position: whole(),
    /** What fills its flexible slots. */
    fillings: json<readonly Filling[]>(),
    /** Servings made before class, to be shown or eaten; 0 for none. */
    swapIn: whole(),
    /** How its lines travel, where they are not measured. */
    ways: json<readonly LineWay[]>(),
    /** So many of this class’s servings the recipe gives; null: as it is written. */
    serves: maybe(whole()),
  },
);
export type DishRow = RowOf<typeof dish>;
