import type { RecipeBody } from '@/contracts/recipe';
import { find, findOne, insert, updateVersion } from '@/store/query';
import type { Db } from '@/store/store';
import type { RecipeRow } from '@/store/tables/recipes';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf } from '../gate/gate';

/** One recipe. @throws ServiceError when it is not the asker's */
export async function loadRecipe(context: Context, db: Db, recipeId: string): Promise<RecipeRow> {
  const row = await findOne(db, db.models.recipe, { id: recipeId, programmeId: context.actor.programmeId });
  if (!row) throw notFound('recipe');
  return row;
}

/** Adds a recipe with its first version. @returns its id */
export async function addRecipe(
  context: Context,
  db: Db,
  { title, body, parent }: { title: string; body: RecipeBody; parent?: Pick<RecipeRow, 'id' | 'version'> },
): Promise<string> {
  await refuseTaken(context, db, title);
  const { programmeId } = context.actor;
  const id = context.ids();
  const varies = { parentId: parent?.id ?? null, parentVersion: parent?.version ?? null };
  await insert(db, db.models.recipe, [{ id, programmeId, title, body, version: 1, ...varies }]);
  await keep(context, db, { id, version: 1, title, body });
  await logChange(context, db, 'added', 'recipe', id, { title, ...(parent ? { variationOf: parent.id } : {}) });
  return id;
}

/**
 * Saves the next version of a recipe; those before it stay in its history.
 *
 * @throws ServiceError when somebody changed it since it was read, or another recipe has its name
 */
export async function saveVersion(
  context: Context,
  db: Db,
  { id, version, title, body }: { id: string; version: number; title: string; body: RecipeBody },
): Promise<void> {
  await refuseTaken(context, db, title, id);
  if (!(await updateVersion(db, db.models.recipe, id, version, { title, body }))) throw stale('The recipe');
  await keep(context, db, { id, version: version + 1, title, body });
}

async function refuseTaken(context: Context, db: Db, title: string, except?: string): Promise<void> {
  const same = await find(db, db.models.recipe, { programmeId: context.actor.programmeId, title });
  if (same.some(({ id }) => id !== except))
    throw new ServiceError('invalid', `A recipe called "${title}" is there already. Give this one another name.`);
}

const keep = (
  context: Context,
  db: Db,
  { id, ...saved }: { id: string; version: number; title: string; body: RecipeBody },
): Promise<void> =>
  insert(db, db.models.recipeVersion, [{ recipeId: id, ...saved, at: nowOf(context), actorId: context.actor.id }]);
