'use server';

import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { addProduct, removeProduct, setKitLabel, tightenKeeping } from '@/services/recipes/products';
import { addFood, readScale, weighFood } from '@/services/recipes/reference-table';
import type { FormState } from '@/ui/action-form';

/** Adds a food; the answer names it, so that a recipe being brought in can go on with it. */
export async function addOwnFood(_state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(addFood, async () => {
    const labelRead = data.get('labelRead') === 'on';
    const lists = { contains: data.getAll('allergens'), diet: data.getAll('diet') };
    const name = await call(addFood, { ...fields(data), ...lists, labelRead } as never);
    return `${name} is in the table.`;
  });
}

export async function weigh(name: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(readScale, async () => {
    const sent = fields(data);
    const [measure = '', preparation = ''] = (sent.what ?? '').split('|');
    const grams = sent.grams || String((await call(readScale, {})) ?? '');
    const { grams: each, before } = await call(weighFood, {
      name,
      measure,
      preparation,
      count: sent.count,
      grams,
    } as never);
    return `One ${measure} weighs ${each} g${before === null ? '' : `; it was ${before} g`}. Kits that are not locked are computed with it.`;
  });
}

export async function addPack(ingredient: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(addProduct, async () => {
    const sent = {
      ...fields(data),
      ingredient,
      allergens: data.getAll('allergens'),
      labelRead: data.get('labelRead') === 'on',
    };
    await call(addProduct, sent as never);
    return 'Added.';
  });
}

export async function labelInKits(productId: string, use: boolean): Promise<void> {
  await attempt(setKitLabel, async () => {
    await call(setKitLabel, { productId, use });
    return undefined;
  });
}

export async function removePack(productId: string): Promise<void> {
  await attempt(removeProduct, async () => {
    await call(removeProduct, { productId });
    return undefined;
  });
}

export async function keepFewerDays(ingredient: string, _state: FormState | null, data: FormData): Promise<FormState> {
  return attempt(tightenKeeping, async () => {
    await call(tightenKeeping, { ...fields(data), ingredient } as never);
    return 'Saved. Labels of kits that are not locked carry it.';
  });
}
