import type { SheetContent } from '../record/sheet-content';

/** A food that comes whole into kits which use only a part of it. */
export interface WholeUnits {
  readonly dishId: string;
  readonly dish: string;
  readonly ingredient: string;
  /** Kits that use only a part, and how much, the first of them. */
  readonly kits: number;
  readonly use: string;
}

/** Foods of which kits hold more than they use because they come whole: each can be shared out instead. */
export function wholeUnits({ variants, rows, input }: Pick<SheetContent, 'variants' | 'rows' | 'input'>): WholeUnits[] {
  const found = new Map<string, WholeUnits>();
  for (const { components, participants } of variants)
    for (const { row, ingredient, use } of components ?? []) {
      const dish = input.dishes[rows[row]?.dish ?? -1];
      if (!use || !dish || participants.length === 0) continue;
      const key = `${dish.id} ${ingredient}`;
      const same = found.get(key) ?? { dishId: dish.id, dish: dish.title, ingredient, kits: 0, use };
      found.set(key, { ...same, kits: same.kits + participants.length });
    }
  return [...found.values()];
}
