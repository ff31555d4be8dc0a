import { type Rational, toText } from '../quantity/rational';
import type { Item } from '../recipes/recipe/recipe';
import type { Portion } from './portion';

/** One component of a kit: which item of which line, and how much. */
export interface Component {
  /** Index of the dish among the session's dishes, and of the line in its recipe. */
  readonly dish: number;
  readonly line: number;
  /** 0 for the item as written, n for its n-th alternative. */
  readonly option: number;
  /** 0 for the item itself; above it what the item brings along, and at last what tops up a can's liquid. */
  readonly beside: number;
  readonly item: Item;
  readonly portion: Portion;
  /** Where it comes from when it is not bought by itself: out of a can, or of the same lemon. */
  readonly from?: string;
  /** It comes into the kit inside something else: a sealed can, a whole lemon. Nothing is packed for it. */
  readonly isInside?: boolean;
  /** What a can's liquid or a family's own box lacks: a share of it, or of what stands in. */
  readonly isTopUp?: boolean;
  /** It stands at the station for all: bought, but not packed. */
  readonly isShared?: boolean;
  /** What it would be if it came cut, where it comes whole. */
  readonly insteadOfCut?: Component;
  /** It is for the whole course: a jar, or equipment. */
  readonly isOfCourse?: boolean;
  /** Others have had it with an earlier kit. */
  readonly isCatchUp?: boolean;
}

/** The food and preparation in a component's key. */
export function foodOfKey(key: string): { ingredient: string; preparation: string } {
  const [, ingredient = '', preparation = ''] = key.split('|');
  return { ingredient, preparation };
}

/**
 * Identifies what is packed, so that a tick stays valid exactly while the component stays the same: the same amount of the same
 * product, where one is named.
 */
export function componentKey(component: Component, dishKey: string, product?: string): string {
  const { item, portion, line, beside, from = component.isShared ? 'station' : undefined } = component;
  const amount: Rational = portion.packed;
  const kind = portion.sealedUnits === undefined ? item.unit.key : `sealed ${portion.sealedUnits}`;
  const place = beside === 0 ? line : `${line}+${beside}`;
  return `${dishKey}#${place}|${item.ingredient.name}|${item.preparation}|${toText(amount)}|${kind}${from ? `|${from}` : ''}${product ? `|of ${product.slice(0, 40)}` : ''}`;
}
