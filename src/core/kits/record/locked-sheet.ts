import { FORGETFUL, type Memory } from '../../memory';
import { indexed } from '../../reference/reference';
import type { SheetComponent, SheetContent, SheetKit, SheetVariant } from './sheet-content';

/** The session a sheet was locked for, as it was then. */
export interface SheetSession {
  readonly id: string;
  readonly courseTitle: string;
  readonly title: string;
  readonly number: number;
  readonly date: string;
  readonly startsAt: string;
  readonly place: string;
  readonly mode: string;
  readonly safetyProfile: 'us' | 'uk';
  /** When and where each group meets, where it is given to several. */
  readonly groups?: readonly SheetGroup[];
}

/** A group as a sheet was locked for it. */
export interface SheetGroup {
  readonly name: string;
  readonly date: string;
  readonly startsAt: string;
  readonly place: string;
}

/** An immutable revision of a kit sheet: what is bought, packed and labelled. */
export interface LockedSheet {
  readonly format: 1;
  readonly session: SheetSession;
  readonly content: SheetContent;
  readonly kits: readonly SheetKit[];
  /** Participants who get no kit, and why. */
  readonly leftOut: readonly { readonly enrolmentId: string; readonly name: string; readonly reason: string }[];
}

/**
 * One text for one value: keys sorted, no spaces. What fingerprints are taken of.
 *
 * @example
 * canonicalJson({ b: 1, a: [2, null] }) //=> '{"a":[2,null],"b":1}'
 */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map((entry) => canonicalJson(entry ?? null)).join(',')}]`;
  if (value && typeof value === 'object') {
    const entries = Object.entries(value).filter(([, entry]) => entry !== undefined);
    entries.sort(([a], [b]) => (a < b ? -1 : 1));
    return `{${entries.map(([key, entry]) => `${JSON.stringify(key)}:${canonicalJson(entry)}`).join(',')}}`;
  }
  return JSON.stringify(value);
}

/** Begins a difference that makes a printed label untrue. */
export const LABEL_SAYS_LESS = 'print its label anew: it does not say';

/** What moved since a sheet was locked, for one kit or for many alike. */
export interface SheetDifference {
  readonly kind: 'added' | 'removed' | 'changed';
  readonly names: readonly string[];
  /** In words: "4 servings, was 2", "olive oil 3 Tbsp instead of butter 1½ oz". */
  readonly what: readonly string[];
}

/** The locked sheet in its text, its table made ready to be looked up. */
export function lockedFrom(text: string): LockedSheet {
  const locked = JSON.parse(text) as LockedSheet;
  const { content } = locked;
  const input = { ...content.input, reference: indexed(content.input.reference) };
  return { ...locked, content: { ...content, input } };
}

interface LockedIndex {
  readonly kitOf: ReadonlyMap<string, SheetKit>;
  readonly variantOf: ReadonlyMap<string, SheetVariant>;
}

const indexOf = (locked: LockedSheet): LockedIndex => ({
  kitOf: new Map(locked.kits.map((kit) => [kit.enrolmentId, kit])),
  variantOf: new Map(locked.content.variants.map((variant) => [variant.letter, variant])),
});

/**
 * What accepting the present calculation would change in a locked sheet, person by person; kits that change alike are
 * told together. Empty when nothing moved.
 */
export function sheetDifferences(
  locked: LockedSheet,
  now: SheetContent,
  memory: Memory = FORGETFUL,
): SheetDifference[] {
  // A locked sheet never changes: its kits by enrolment and its variants by letter are looked up once.
  const { kitOf: before, variantOf: byLetter } = memory.of('index', locked, () => indexOf(locked));
  const differences: SheetDifference[] = [];
  const changed = new Map<string, { what: readonly string[]; names: string[] }>();
  let kept = 0;
  for (const variant of now.variants) {
    /** What differs from each of the variants that its people had: told once, however many they are. */
    const told = new Map<SheetVariant | undefined, string[]>();
    for (const person of variant.participants) {
      const kit = before.get(person.id);
      if (!kit) {
        differences.push({ kind: 'added', names: [person.name], what: [describeVariant(variant)] });
        continue;
      }
      kept += 1;
      const old = byLetter.get(kit.variant);
      const differs = told.get(old) ?? (old ? variantDifferences(old, variant) : [describeVariant(variant)]);
      told.set(old, differs);
      const isNamedAlike = kit.name === person.name;
      const isInGroup = kit.group === person.group;
      if (isNamedAlike && isInGroup && differs.length === 0) continue;
      const what = [
        ...(isNamedAlike ? [] : [`now called ${person.name}`]),
        ...(isInGroup ? [] : [`now in ${person.group ?? 'no group'}`]),
        ...differs,
      ];
      const key = JSON.stringify(what);
      const alike = changed.get(key) ?? { what, names: [] };
      alike.names.push(person.name);
      changed.set(key, alike);
    }
  }
  // Mostly nobody left: who is there is listed only when somebody did.
  if (kept < locked.kits.length) {
    const present = new Set(now.variants.flatMap(({ participants }) => participants.map(({ id }) => id)));
    for (const kit of locked.kits)
      if (!present.has(kit.enrolmentId))
        differences.push({ kind: 'removed', names: [kit.name], what: ['no longer gets a kit'] });
  }
  for (const { what, names } of changed.values()) differences.push({ kind: 'changed', names, what });
  return differences;
}

function describeVariant(variant: SheetVariant): string {
  const servings = `${variant.servings} ${variant.servings === 1 ? 'serving' : 'servings'}`;
  if (!variant.components) return `${servings}, cannot be made yet`;
  return variant.madeWithout.length > 0 ? `${servings}, made without ${variant.madeWithout.join(', ')}` : servings;
}

/** An amount, with where it comes from when it is not packed. */
const told = ({ say, from, isShared }: SheetComponent): string =>
  [say, from, isShared && 'at the station'].filter(Boolean).join(' ');

function variantDifferences(old: SheetVariant, now: SheetVariant): string[] {
  const what: string[] = [];
  if (old.servings !== now.servings) what.push(`${now.servings} servings, was ${old.servings}`);
  const without = now.madeWithout.filter((label) => !old.madeWithout.includes(label));
  const withAgain = old.madeWithout.filter((label) => !now.madeWithout.includes(label));
  if (without.length > 0) what.push(`now made without ${without.join(', ')}`);
  if (withAgain.length > 0) what.push(`no longer made without ${withAgain.join(', ')}`);
  if (!now.components) return [...what, 'cannot be made yet'];
  // What nobody here avoids is printed on the label all the same: its kit may be eaten by others.
  const said = new Set([...old.contains, ...old.mayContain]);
  const unsaid = [...now.contains, ...now.mayContain].filter((label) => !said.has(label));
  if (old.components && unsaid.length > 0) what.push(`${LABEL_SAYS_LESS} ${unsaid.join(', ')}`);
  if (old.servings !== now.servings) return what;
  const before = old.components ?? [];
  // Most kits hold what they held, in the same order.
  if (before.length === now.components.length && now.components.every(({ key }, at) => key === before[at]?.key))
    return what;
  const rest = new Map(before.map((component) => [component.key, component]));
  const added: SheetComponent[] = [];
  for (const component of now.components) {
    if (!rest.delete(component.key)) added.push(component);
  }
  for (const component of added) {
    const replaced = [...rest.values()].find((candidate) => candidate.row === component.row);
    if (replaced) rest.delete(replaced.key);
    what.push(
      replaced?.name === component.name && replaced.product !== component.product
        ? `${component.name} of ${component.product ?? 'any product'}, was of ${replaced.product ?? 'any product'}`
        : replaced?.name === component.name
          ? `${component.name} ${told(component)}, was ${told(replaced)}`
          : `${component.name} ${told(component)}${replaced ? ` instead of ${replaced.name} ${told(replaced)}` : ' added'}`,
    );
  }
  for (const component of rest.values()) what.push(`${component.name} ${told(component)} taken out`);
  return what;
}
