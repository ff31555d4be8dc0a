import type { SheetComponent } from '@/core/kits/record/sheet-content';

/** Which product a component is taken of, as it is asked about once at a screen; undefined where any will do. */
export const packOf = ({ ingredient, product }: SheetComponent): string | undefined =>
  product === undefined ? undefined : `${ingredient}|${product}`;
