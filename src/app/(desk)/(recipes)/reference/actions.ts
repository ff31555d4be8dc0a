'use server';

import { call } from '@/app/access';
import { attempt, fields, formOf, texts, ticked } from '@/app/form';
import { addProduct, removeProduct, setKitLabel, tightenKeeping } from '@/services/recipes/products';
import { addFood, forgetFoodWord, readScale, weighFood } from '@/services/recipes/reference-table';
import type { FormState } from '@/ui/form/form-state';
import { putBack } from '../../put-back';

/** Adds a food; the answer names it, so that a recipe being brought in can go on with it. */
export async function addOwnFood(_state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(addFood, async () => {
    const labelRead = ticked(data, 'labelRead');
    const lists = { contains: texts(data, 'allergens'), diet: texts(data, 'diet') };
    const name = await call(addFood, { ...formOf(addFood, data), ...lists, labelRead });
    return `${name} is in the table.`;
  });
}

export async function weigh(name: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(readScale, async () => {
    const sent = fields(data);
    const [measure = '', usual = ''] = (sent.what ?? '').split('|');
    const preparation = sent.otherwise || usual;
    const grams = sent.grams || String((await call(readScale, {})) ?? '');
    const { grams: each, before } = await call(weighFood, {
      name,
      measure,
      preparation,
      count: sent.count,
      grams,
    });
    return `One ${measure}${preparation ? `, ${preparation},` : ''} weighs ${each} g${before === null ? '' : `; it was ${before} g`}. Kits that are not locked are computed with it.`;
  });
}

export async function addPack(ingredient: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(addProduct, async () => {
    const sent = {
      ...formOf(addProduct, data),
      ingredient,
      allergens: texts(data, 'allergens'),
      labelRead: ticked(data, 'labelRead'),
    };
    await call(addProduct, sent);
    return 'Added.';
  });
}

export async function labelInKits(productId: string, use: boolean): Promise<void> {
  await attempt(setKitLabel, async () => {
    await call(setKitLabel, { productId, use });
    return undefined;
  });
}

export async function removePack(productId: string): Promise<FormState> {
  return attempt(removeProduct, async () => {
    const id = await call(removeProduct, { productId });
    return { message: 'The product is taken away.', undo: putBack.bind(null, id) };
  });
}

export async function keepFewerDays(ingredient: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(tightenKeeping, async () => {
    await call(tightenKeeping, { ...formOf(tightenKeeping, data), ingredient });
    return 'Saved. Labels of kits that are not locked carry it.';
  });
}

/** Words are no name of a food any more: the next recipe that has them is asked about them. */
export async function forgetWord(word: string): Promise<FormState> {
  return attempt(forgetFoodWord, async () => {
    await call(forgetFoodWord, { word });
    return `“${word}” is asked about again.`;
  });
}
