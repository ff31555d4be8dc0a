import type { WrittenItem, WrittenLine } from '../../recipes/recipe/recipe';
import { findIngredient, type Ingredient, type Reference } from '../../reference/reference';
import { avoidanceLabel, blockersOf, type Holdings, holdingsOf, type Need } from '../../safety/avoidances';
import { foodOfKey } from '../component';
import { FROM_BOX, FROM_HOME, FROM_JAR, type JarState, jarHoldings, type Supply } from '../supply/supplied';
import type { LockedSheet } from './locked-sheet';
import type { SheetComponent, SheetContent, SheetKit } from './sheet-content';

/** What is known now of foods: the table, and the labels of the products in hand. */
export interface FactsNow {
  readonly reference: Reference;
  readonly labels: ReadonlyMap<string, readonly string[]>;
  /** What was taken off the shelves for kits of some letters, each with the label of its lot: whatever is written down, it is in them. */
  readonly taken?: readonly {
    readonly letters: readonly string[];
    readonly ingredient: string;
    readonly label: readonly string[] | null;
  }[];
}

/** Somebody with what they must avoid now. */
export interface PersonNow {
  readonly id: string;
  readonly needs: readonly Need[];
  /** Jars that they have, with what is known of them now. */
  readonly supply?: Pick<Supply, 'jars'>;
}

/**
 * Whether a locked kit may be eaten by somebody: what is in it, against what they must avoid now, by what was known of each
 * of its foods when it was locked and by what is known now, whichever is stricter. Today's recipe, roll or draft has no say:
 * what is in the kit is in it.
 *
 * @param person undefined when nobody is to get it any more
 * @param packed keys of the components that were ticked into it: what an earlier revision left in it is in it
 * @returns why not, in words; none when it is safe
 * @example judgeKit(locked, kit, { id, needs: [{ asWritten: 'egg', codes: ['EGG'] }] }, facts)
 * //=> ['egg, large, without shell: holds or may hold egg']
 */
export function judgeKit(
  locked: LockedSheet,
  kit: SheetKit,
  person: PersonNow | undefined,
  now: FactsNow,
  packed: ReadonlySet<string> = NOTHING_PACKED,
): readonly string[] {
  if (!person) return ['nobody is to get it any more'];
  const unknown = person.needs
    .filter(({ codes }) => !codes)
    .map(({ asWritten }) => `“${asWritten}” has no meaning yet`);
  const avoids = person.needs.flatMap(({ codes }) => codes ?? []);
  const { components, supply } = locked.content.variants.find(({ letter }) => letter === kit.variant) ?? {
    components: null,
  };
  const jars = [...(supply?.jars ?? []), ...(person.supply?.jars ?? [])];
  if (!components) return [...unknown, 'it could not be made safely'];
  if (avoids.length === 0) return unknown;
  const held = components.flatMap((component) => {
    const blocked = new Set(
      holdingsOfComponent(locked.content, component, now, jars, kit.variant)?.flatMap((holdings) =>
        blockersOf(holdings, avoids),
      ) ?? avoids,
    );
    return blocked.size === 0
      ? []
      : [`${component.name}: holds or may hold ${[...blocked].sort().map(avoidanceLabel).join(', ')}`];
  });
  const wanted = new Set(components.map(({ key }) => key));
  const left = [...packed].flatMap((key) => (wanted.has(key) ? [] : leftInside(key, locked, avoids, now)));
  return [...unknown, ...held, ...left];
}

const NOTHING_PACKED: ReadonlySet<string> = new Set();

/** What an earlier revision put into a kit and nobody has taken out, where it may not be eaten: no label is known of it. */
function leftInside(key: string, { content }: LockedSheet, avoids: readonly string[], now: FactsNow): string[] {
  const { ingredient, preparation } = foodOfKey(key);
  const foods = [findIngredient(content.input.reference, ingredient), findIngredient(now.reference, ingredient)];
  const label = now.labels.get(ingredient);
  const blocked = new Set(
    foods.flatMap((food) =>
      food
        ? [undefined, ...(label ? [label] : [])].flatMap((each) =>
            blockersOf(holdingsOf(food, each, preparation), avoids),
          )
        : [],
    ),
  );
  return blocked.size === 0
    ? []
    : [
        `${ingredient}, packed by an earlier version and not taken out: holds or may hold ${[...blocked].sort().map(avoidanceLabel).join(', ')}`,
      ];
}

/**
 * Kits of a locked sheet that must not be packed on, handed out or eaten.
 *
 * @param people who is to get a kit now, each with what they must avoid
 * @param packed what is in each kit, by its id
 * @param takers who took over a kit of somebody else, by the kit's id
 * @returns for each such kit, by id, why
 */
export function kitsToHold(
  locked: LockedSheet,
  people: readonly PersonNow[],
  now: FactsNow,
  packed: ReadonlyMap<string, ReadonlySet<string>> = new Map(),
  takers: ReadonlyMap<string, PersonNow | undefined> = new Map(),
): ReadonlyMap<string, readonly string[]> {
  const byId = new Map(people.map((person) => [person.id, person]));
  return new Map(
    locked.kits.flatMap((kit) => {
      const person = takers.has(kit.id) ? takers.get(kit.id) : byId.get(kit.enrolmentId);
      const reasons = judgeKit(locked, kit, person, now, packed.get(kit.id));
      return reasons.length > 0 ? [[kit.id, reasons] as const] : [];
    }),
  );
}

/**
 * What a component holds: as it was known at the lock, and as it is known now; undefined for a food that no table knows, which
 * may hold anything.
 */
function holdingsOfComponent(
  content: SheetContent,
  component: SheetComponent,
  now: FactsNow,
  jars: readonly JarState[],
  letter: string,
): Holdings[] | undefined {
  const name = component.ingredient;
  const then = findIngredient(content.input.reference, name);
  const present = findIngredient(now.reference, name);
  // Equipment is no food.
  if (!then && !present) return content.rows[component.row]?.aisle === 'equipment' ? [] : undefined;
  const preparation = preparationOf(component);
  // What stands on the family's own shelf has another label: nobody has read it.
  const isTheirs = component.from === FROM_HOME || component.from === FROM_BOX;
  if (isTheirs && (present ?? then)?.isOwn) return undefined;
  const line = writtenItem(content, component);
  const read = (food: Ingredient, label: readonly string[] | undefined) =>
    holdingsOf(food, isTheirs ? undefined : (label ?? line?.label), preparation);
  const before = then ?? (present as Ingredient);
  const taken = (now.taken ?? []).flatMap(({ letters, ingredient, label }) =>
    ingredient === name && label && letters.includes(letter) && !isTheirs
      ? [holdingsOf(present ?? before, label, preparation)]
      : [],
  );
  if (component.from === FROM_JAR) {
    const own = jars.filter(({ ingredient }) => ingredient === name);
    const inHand = own.flatMap((jar) => jarHoldings(jar, present ?? before, preparation));
    // A jar that they have is judged by its own label; one that comes with the kit, by what goes into the kit.
    if (inHand.length > 0 && !own.some(({ fresh = 0 }) => fresh > 0)) return inHand;
    return [
      ...inHand,
      read(before, content.input.labels[name]),
      read(present ?? before, now.labels.get(name)),
      ...taken,
    ];
  }
  return [read(before, content.input.labels[name]), read(present ?? before, now.labels.get(name)), ...taken];
}

/** How a component comes: "grated". Sheets that were locked before it was kept say it in its name. */
const preparationOf = ({ preparation, ingredient, name }: SheetComponent): string =>
  preparation ?? (name.startsWith(`${ingredient}, `) ? name.slice(ingredient.length + 2) : '');

/** The item of the recipe that a component was made of; undefined for what goes with the kit. */
function writtenItem(content: SheetContent, { row, option }: SheetComponent): WrittenItem | undefined {
  const place = content.rows[row];
  const line: WrittenLine | undefined = place && content.input.dishes[place.dish]?.recipe.lines[place.line];
  if (!place || !line) return undefined;
  const alternative = option === 0 ? undefined : line.alternatives?.[option - 1];
  // The last option of all is the written food, cut for small children.
  const item = alternative && !('omit' in alternative) ? alternative : line;
  const { beside = 0 } = place;
  return beside > 0 && 'also' in item ? (item.also?.[beside - 1] ?? item) : item;
}
