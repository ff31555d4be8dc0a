import { TOLERANCE } from '../../quantity/measure';
import {
  divide,
  equals,
  multiply,
  ONE,
  type Rational,
  rational,
  subtract,
  toDecimal,
  toText,
} from '../../quantity/rational';
import { type MeasureSystem, sayAmount, sayCount, sayScoops } from '../../quantity/say';
import { findUnit } from '../../quantity/units';
import type { Item } from '../../recipes/recipe/recipe';
import { avoidanceLabel } from '../../safety/avoidances';
import type { Component } from '../component';
import { sayScaling, teaspoonsIn } from '../portion';
import { packOf, purchaseOf, sealedPacks, type Total } from '../purchase/totals';
import { itemName, sayPortion } from '../sheet/say-component';
import { FROM_BOX, FROM_HOME, FROM_JAR } from '../supply/supplied';

/** How a number came about: what it is, its value, the reason, and the numbers it was made from. */
export interface Working {
  readonly what: string;
  readonly value: string;
  readonly because?: string;
  readonly from: readonly Working[];
}

const percent = (part: Rational) => `${toDecimal(multiply(part, rational(100)), 1)} %`;

const sayExact = (amount: Rational, item: Item) => sayAmount(amount, item.unit);

function sayWhose({ option, beside, isTopUp }: Component): string {
  if (beside > 0 && !isTopUp) return `Alternative ${option} of the recipe brings along`;
  return option === 0 ? 'The recipe says' : `Alternative ${option} of the recipe says`;
}

/**
 * The working of one component of one variant: recipe amount → scaling → measure → weight.
 *
 * @param recipeServings servings the recipe is written for
 * @param servings servings of the kit
 */
export function componentWorking(
  component: Component,
  recipeServings: number,
  servings: number,
  system: MeasureSystem,
  chosenBecause?: readonly string[],
): Working {
  const { item, portion, insteadOfCut } = component;
  if (insteadOfCut) {
    return {
      what: `${itemName(item)}, in one kit`,
      value: `${sayPortion(component, system)} = ${toDecimal(portion.grams, 3)} g`,
      because: `whole pieces of ${toDecimal(item.weight.grams, 3)} g that give what is cut at class; a piece may fall a tenth short`,
      from: [componentWorking(insteadOfCut, recipeServings, servings, system, chosenBecause)],
    };
  }
  const written: Working = {
    what: sayWhose(component),
    value: `${sayExact(item.amount, item)} ${itemName(item)}, for ${sayCount(recipeServings, 'serving')}`,
    because: chosenBecause?.length
      ? `in place of what holds or may hold ${chosenBecause.map(avoidanceLabel).join(', ')}`
      : undefined,
    from: [],
  };
  const isPart = component.isTopUp || (component.from !== undefined && item.liquidPortion !== undefined);
  const scaled: Working = {
    what: `Scaled to ${sayCount(servings, 'serving')}`,
    value: sayExact(portion.exact, item),
    because: [
      sayScaling(item, recipeServings, servings),
      isPart && item.liquidPortion ? (component.from ? 'as far as the cans go' : 'what the cans do not give') : '',
      isPart && !item.liquidPortion ? 'what their own box does not hold' : '',
      item.within
        ? `${toText(item.within.least)} to ${toText(item.within.most)} would do: so packs come out whole`
        : '',
      component.from
        ? `${component.from === FROM_HOME || component.from === FROM_BOX ? 'is' : 'comes'} ${component.from}, not bought by itself`
        : '',
      component.isShared ? 'stands at the station for all' : '',
    ]
      .filter(Boolean)
      .join('; '),
    from: [written],
  };
  const measured = measuredStep(component, scaled, system);
  const weight = item.weight.from;
  return {
    what: `${itemName(item)} in one kit`,
    value: `${sayPortion(component, system)} = ${toDecimal(portion.grams, 3)} g`,
    because: item.sealedGrams
      ? `${sayCount(portion.sealedUnits ?? 0, 'unit')} × ${toDecimal(item.sealedGrams, 3)} g`
      : weight
        ? `1 ${weight.measure}${weight.preparation ? ` ${weight.preparation}` : ''} weighs ${weight.grams} g (${weight.source})${spoonSaid(weight.measure, system)}`
        : item.unit.key === 'g'
          ? undefined
          : `1 ${item.unit.key} is exactly ${toDecimal(item.weight.grams, 9)} g`,
    from: [measured],
  };
}

/** Which spoon or cup the table weighs, in US sizes, beside the one that a metric kitchen has: a teaspoon of 4.93 ml, and of 5 ml. */
function spoonSaid(measure: string, system: MeasureSystem): string {
  const unit = findUnit(measure);
  if (unit?.dimension !== 'volume') return '';
  const metric: Readonly<Record<string, number>> = { tsp: 5, Tbsp: 15, cup: 250 };
  const own = metric[unit.key];
  const beside = system === 'metric' && own ? `; the metric one of this programme holds ${own} ml` : '';
  return `; a US ${unit.name} of ${toDecimal(unit.size, 2)} ml${beside}`;
}

/**
 * The working of what goes with a kit for the whole course: equipment, or a jar.
 *
 * @param components of the same kit: what is drawn from the jar is among them
 */
export function supplyWorking(
  { item, portion, isCatchUp }: Component,
  components: readonly Component[],
  system: MeasureSystem,
): Working {
  const when = isCatchUp ? 'others had it with an earlier kit: a late joiner catches up' : 'it has not been had before';
  const drawn = components.filter(
    (each) => each.from === FROM_JAR && each.item.ingredient.name === item.ingredient.name,
  );
  return {
    what: itemName(item),
    value: sayPortion({ item, portion }, system),
    because: item.sealedGrams ? `what is left of jars had before does not suffice; ${when}` : `issued once; ${when}`,
    from: drawn.map((each) => ({
      what: `Drawn by this kit: ${itemName(each.item)}`,
      value: `${toDecimal(each.portion.grams, 3)} g`,
      from: [],
    })),
  };
}

function measuredStep({ item, portion }: Component, scaled: Working, system: MeasureSystem): Working {
  if (item.sealedGrams) {
    return {
      what: 'Sealed units per kit',
      value: String(portion.sealedUnits),
      because: `the fewest of ${toDecimal(item.sealedGrams, 3)} g that hold at least 10⁄11 of ${toDecimal(multiply(portion.exact, item.weight.grams), 3)} g`,
      from: [scaled],
    };
  }
  if (!portion.scoops) {
    return {
      what: 'Packed',
      value: sayExact(portion.packed, item),
      because: item.unit.dimension === 'mass' ? 'weights stay as they are' : 'pieces are counted',
      from: [scaled],
    };
  }
  const error = divide(subtract(portion.packed, portion.exact), portion.exact);
  const distance = equals(portion.packed, portion.exact)
    ? 'exactly'
    : `${percent(error.n < 0 ? subtract(rational(0), error) : error)} ${error.n < 0 ? 'below' : 'above'}`;
  return {
    what: 'Measured with the tools at hand',
    value: sayScoops(portion.scoops, system),
    because: `${sayCount(portion.scoops.length, 'scoop')}, ${distance}; ${item.precision} precision allows ${percent(TOLERANCE[item.precision])}. Exact would be ${toDecimal(multiply(portion.exact, teaspoonsIn(item)), 3)} tsp`,
    from: [scaled],
  };
}

/** One variant's part of a total: how many kits, and what each holds. */
export interface VariantShare {
  readonly name: string;
  readonly count: number;
  readonly component: Component;
}

/** The working of a food's total: per variant × count → edible → as purchased → spare → packs. */
export function totalWorking(total: Total, shares: readonly VariantShare[]): Working {
  const edible: Working = {
    what: 'Edible weight in all kits',
    value: `${toDecimal(total.edible, 3)} g`,
    because: 'what is measured into the kits, added up',
    from: shares.map(({ name, count, component }) => ({
      what: `${name}: ${sayCount(count, 'kit')}`,
      value: `${toDecimal(multiply(component.portion.grams, rational(count)), 3)} g`,
      because: `${count} × ${toDecimal(component.portion.grams, 3)} g ${itemName(component.item)}`,
      from: [],
    })),
  };
  const purchases = total.items
    .filter(({ item }) => !item.sealedGrams)
    .map((itemTotal): Working => {
      const { item, grams } = itemTotal;
      return {
        what: `To buy: ${itemName(item)}`,
        value: `${toDecimal(purchaseOf(itemTotal), 3)} g`,
        because: [
          `${toDecimal(grams, 3)} g`,
          item.yieldFrom
            ? `÷ ${item.yieldFrom.ediblePortion} edible when ${item.yieldFrom.preparation} (${item.yieldFrom.source})`
            : '÷ 1 (nothing trimmed)',
          `× ${toText(add1(item.spare))} with spare`,
        ].join(' '),
        from: [],
      };
    });
  const units = total.items
    .filter(({ item }) => item.sealedGrams)
    .map(
      (itemTotal): Working => ({
        what: `Sealed units: ${itemName(itemTotal.item)}`,
        value: String(sealedPacks(itemTotal)),
        because: `${itemTotal.units} packed × ${toText(add1(itemTotal.item.spare))} with spare, rounded up`,
        from: [],
      }),
    );
  const packGrams = packOf(total.items);
  return {
    what: `${total.ingredient} to buy`,
    value: [
      total.purchase && `${toDecimal(total.purchase, 3)} g`,
      total.packs !== undefined && sayCount(total.packs, 'pack'),
    ]
      .filter(Boolean)
      .join(' = '),
    because:
      packGrams && total.purchase ? `packs of ${toDecimal(packGrams, 3)} g, rounded up to whole packs` : undefined,
    from: [...purchases, ...units, edible],
  };
}

const add1 = (part: Rational): Rational => rational(BigInt(part.n) + BigInt(part.d) * BigInt(ONE.n), part.d);
