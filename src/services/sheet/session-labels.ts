import { eitherHolds } from '@/core/safety/avoidances';
import { eitherProduct } from '@/core/safety/products-named';
import { find, findOne, insert, remove } from '@/store/query';
import type { Db } from '@/store/store';
import type { ProductLabelRow } from '@/store/tables/kits';
import { logChange } from '../gate/change-log';
import type { Context } from '../gate/gate';

/** The product that a session's kits are made with, and what its label says. */
export type SessionLabel = Pick<ProductLabelRow, 'ingredient' | 'product' | 'allergens'>;

const isSame = (one: SessionLabel, other: SessionLabel): boolean =>
  one.product === other.product && one.allergens.join() === other.allergens.join();

/** Products of which any may be in a kit, as one. */
export const either = (labels: readonly SessionLabel[]): SessionLabel =>
  labels.reduce((one, other) => ({
    ingredient: one.ingredient,
    product: eitherProduct([one.product, other.product]),
    allergens: eitherHolds(one.allergens, other.allergens),
  }));

/** Writes down the label of what a session's kits are made with, in place of what was known before; calls nothing back. */
export async function writeLabel(context: Context, db: Db, sessionId: string, label: SessionLabel): Promise<void> {
  const { ingredient, product, allergens } = label;
  const before = await findOne(db, db.models.productLabel, { sessionId, ingredient });
  if (before && isSame(before, label)) return;
  await remove(db, db.models.productLabel, { sessionId, ingredient });
  await insert(db, db.models.productLabel, [{ id: context.ids(), sessionId, ingredient, product, allergens }]);
  await logChange(context, db, 'recorded a label', 'session', sessionId, { ingredient, product, allergens });
}

/** Takes a label back. @returns false where there is none */
export async function dropLabel(context: Context, db: Db, sessionId: string, ingredient: string): Promise<boolean> {
  const label = await findOne(db, db.models.productLabel, { sessionId, ingredient });
  if (!label) return false;
  await remove(db, db.models.productLabel, { id: label.id });
  await logChange(context, db, 'took back a label', 'session', sessionId, { ingredient, product: label.product });
  return true;
}

/** What is recorded of a session's foods. */
export const labelsOf = (db: Db, sessionId: string): Promise<ProductLabelRow[]> =>
  find(db, db.models.productLabel, { sessionId });
