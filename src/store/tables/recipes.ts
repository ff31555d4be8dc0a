import { key, keyOf, long, maybe, moment, notes, plain, type RowOf, ref, table, whole } from './table';

export const recipe = table(
  'recipe',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    title: notes(),
    body: long(notes()),
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
    body: long(notes()),
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
    /** JSON: its facts, weights and yields. */
    body: long(notes()),
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
    /** JSON list of allergen codes; null while nobody has read the label. */
    allergens: maybe(long(plain())),
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

export const dish = table(
  'dish',
  { belongs: 'sessionId', joined: 'moves' },
  {
    id: key(),
    sessionId: ref(),
    recipeId: ref(),
    position: whole(),
    /** JSON list of what fills its flexible slots: { written, chosen } by food. */
    fillings: long(plain()),
    /** Servings made before class, to be shown or eaten; 0 for none. */
    swapIn: whole(),
    /** JSON list of how its lines travel, where they are not measured: { ingredient, way }. */
    ways: long(plain()),
    /** So many of this class’s servings the recipe gives; null: as it is written. */
    serves: maybe(whole()),
  },
);
export type DishRow = RowOf<typeof dish>;
