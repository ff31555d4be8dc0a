import { Temporal } from 'temporal-polyfill';
import { keepingOf } from '../kits/figures/keeping';
import type { LockedSheet } from '../kits/record/locked-sheet';
import type { SheetComponent, SheetKit, SheetVariant } from '../kits/record/sheet-content';
import { byGroup } from '../kits/sheet/participant';
import type { Saying } from '../plan/saying';
import { sayNamed } from '../quantity/plain-words';
import { findIngredient, type Reference } from '../reference/reference';
import { productsNamed } from '../safety/products-named';

/** What one kit's label says. */
export interface KitLabel {
  readonly kitId: string;
  readonly number: number;
  readonly name: string;
  readonly variant: string;
  readonly servings: number;
  /** What is cooked of it: "Harbour lentil pot, Gangway green rice". */
  readonly dish: string;
  readonly session: string;
  /** The group it goes to; '' where there is only one. */
  readonly group: string;
  /** "1⅓ cups brown lentils, raw" … in the order of the sheet. */
  readonly inside: readonly string[];
  /** "Contains milk, wheat, gluten." and what brands may add; always in words. */
  readonly allergens: string;
  /** "Made without egg." or ''. Never "free from". */
  readonly madeWithout: string;
  readonly keep: string;
}

/** Highest fridge temperature printed: 41 °F in the US; 5 °C advised in the UK, where 8 °C is the legal limit. */
const FRIDGE = { us: '5 °C (41 °F)', uk: '5 °C' } as const;

/**
 * The labels of a locked sheet: in kit order, one group after the other where it is given to several.
 *
 * @param packedOn the civil date the kits are packed, YYYY-MM-DD; use-by dates count from it
 * @param calledBack ids of kits that are called back: their labels say so
 */
export function kitLabels(
  sheet: LockedSheet,
  packedOn: string,
  calledBack: ReadonlySet<string> = new Set(),
): KitLabel[] {
  const byLetter = new Map(sheet.content.variants.map((variant) => [variant.letter, variant]));
  const kits = [...byGroup(sheet.kits).values()].flat();
  return kits.map((kit) =>
    stopped(kitLabel(sheet, kit, byLetter.get(kit.variant) as SheetVariant, packedOn), calledBack),
  );
}

/** Labels that say something else than those of the revision before, or are for kits that it did not have: to be printed anew. */
export function changedLabels(before: readonly KitLabel[], now: readonly KitLabel[]): KitLabel[] {
  const printed = new Map(before.map((label) => [label.kitId, JSON.stringify(label)]));
  return now.filter((label) => printed.get(label.kitId) !== JSON.stringify(label));
}

/** Stands on a label in the place of what the kit was made without. */
const CALLED_BACK = 'CALLED BACK: do not hand out, do not eat. Ask the coordinator.';

const stopped = (label: KitLabel, calledBack: ReadonlySet<string>): KitLabel =>
  calledBack.has(label.kitId) ? { ...label, madeWithout: CALLED_BACK } : label;

/** Days that a dish made in class is eaten within, kept cold: the stricter of UK (2) and US (3 to 4) advice for leftovers. */
const MADE_DAYS = 2;

/** Days for a dish with cooked rice: spores survive cooking. 24 hours (FSA), the stricter figure for both profiles. */
const MADE_WITH_RICE_DAYS = 1;
const isRice = ({ ingredient }: Pick<SheetComponent, 'ingredient'>): boolean => /\brice$/.test(ingredient);

/**
 * Labels of what was made in class and goes home: one for each person of the roll, with the dishes and their allergens.
 * What is not known of a kit is not known of its dish either: it says the same.
 */
export function madeLabels(sheet: LockedSheet, calledBack: ReadonlySet<string> = new Set()): KitLabel[] {
  const { session, content } = sheet;
  const byLetter = new Map(content.variants.map((variant) => [variant.letter, variant]));
  return [...byGroup(sheet.kits).values()].flat().flatMap((kit) => {
    const variant = byLetter.get(kit.variant);
    if (!variant || variant.extra) return [];
    const meeting = session.groups?.find(({ name }) => name === kit.group);
    const made = meeting?.date ?? session.date;
    // Cooked rice is counted by the hour, in both profiles.
    const until = variant.components?.some(isRice)
      ? Temporal.PlainDate.from(made).add({ days: MADE_WITH_RICE_DAYS }).toString()
      : lastDay(made, MADE_DAYS, session.safetyProfile);
    return [
      {
        ...stopped(kitLabel(sheet, kit, variant, made), calledBack),
        dish: '',
        inside: content.input.dishes.map(({ title }) => title),
        keep: `Made in class on ${sayDate(made)}. Keep cold, at or below ${FRIDGE[session.safetyProfile]}. Eat by ${sayDate(until)}; reheat until steaming hot, once.`,
      },
    ];
  });
}

function kitLabel(sheet: LockedSheet, kit: SheetKit, variant: SheetVariant, packedOn: string): KitLabel {
  const { session, content } = sheet;
  const components = variant.components ?? [];
  const meeting = session.groups?.find(({ name }) => name === kit.group);
  return {
    kitId: kit.id,
    number: kit.number,
    name: kit.name,
    variant: variant.letter,
    servings: variant.servings,
    dish: dishesOf(content, components),
    session: `${session.courseTitle} ${session.number}: ${session.title}, ${sayDate(meeting?.date ?? session.date)}`,
    group: kit.group ?? '',
    inside: components
      .filter(({ isInside }) => !isInside)
      .map(({ say, name, product, use }) => {
        const said = [use, product && productsNamed(product).join(' or ')].filter(Boolean).join('; ');
        return `${sayNamed(say, name)}${said ? ` (${said})` : ''}`;
      }),
    allergens: sayAllergens(variant),
    madeWithout: variant.madeWithout.length > 0 ? `Made without ${variant.madeWithout.join(', ')}.` : '',
    keep: sayKeeping(components, content.input.reference, session.safetyProfile, packedOn),
  };
}

/** Dishes that something in a kit is for, in their order. */
function dishesOf({ rows, input }: LockedSheet['content'], components: readonly SheetComponent[]): string {
  const used = new Set(components.map(({ row }) => rows[row]?.dish));
  return input.dishes.flatMap(({ title }, at) => (used.has(at) ? [title] : [])).join(', ');
}

/**
 * The label of something on the shelf: what it is, until when it is eaten, what its label says, and its code for who packs from it.
 *
 * @param allergens in words; undefined where nobody has read them
 */
export function lotLabel(
  lot: { readonly id: string; readonly name: string; readonly lastDay: string; readonly lastKind: string },
  storage: string,
  allergens: readonly string[] | undefined,
): KitLabel {
  return {
    kitId: lot.id,
    number: 0,
    name: lot.name,
    variant: '',
    servings: 0,
    dish: '',
    session: `In the ${storage}`,
    group: '',
    inside: [],
    allergens:
      allergens === undefined
        ? 'Allergens not read: ask before anybody eats of it.'
        : allergens.length > 0
          ? `Contains ${allergens.join(', ')}.`
          : 'No listed allergen on its label.',
    madeWithout: '',
    keep: `${lot.lastKind === 'use by' ? 'Use by' : 'Best before'} ${sayDate(lot.lastDay)}.`,
  };
}

/** A label with its dates as the programme says them. */
export const labelSaid = (label: KitLabel, say: Saying): KitLabel => ({
  ...label,
  session: say.text(label.session),
  keep: say.text(label.keep),
});

function sayAllergens({ contains, mayContain }: SheetVariant): string {
  const held = contains.length > 0 ? `Contains ${contains.join(', ')}.` : 'No listed allergen among the ingredients.';
  return mayContain.length > 0 ? `${held} May contain ${mayContain.join(', ')}: check the packs used.` : held;
}

/** The last of so many days: in the US the day on which it is made is the first of them (FDA Food Code); in the UK the next is. */
const lastDay = (made: string, days: number, profile: 'us' | 'uk'): string =>
  Temporal.PlainDate.from(made)
    .add({ days: Math.max(0, profile === 'us' ? days - 1 : days) })
    .toString();

/**
 * Weekday, day and month: "Thu 26 Nov 2026".
 *
 * @example
 * sayDate('2026-11-26') //=> 'Thu 26 Nov 2026'
 */
export function sayDate(date: string): string {
  return Temporal.PlainDate.from(date)
    .toLocaleString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })
    .replace(',', '');
}

function sayKeeping(
  components: readonly SheetComponent[],
  reference: Reference,
  profile: 'us' | 'uk',
  packedOn: string,
): string {
  const keepings = components.flatMap((component) => {
    const food = findIngredient(reference, component.ingredient);
    return food ? [keepingOf(component, food)] : [];
  });
  const days = Math.min(...keepings.map((keeping) => keeping.days), 365);
  const cold = keepings.some((keeping) => keeping.cold);
  const useBy = sayDate(
    cold ? lastDay(packedOn, days, profile) : Temporal.PlainDate.from(packedOn).add({ days }).toString(),
  );
  return cold ? `Keep cold, at or below ${FRIDGE[profile]}. Use by ${useBy}.` : `Keep cool and dry. Use by ${useBy}.`;
}
