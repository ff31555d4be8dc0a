import { FORGETFUL, type Memory } from '../../memory';
import { METRIC_TOOLS, US_TOOLS } from '../../quantity/measure';
import type { MeasureSystem } from '../../quantity/say';
import { type Choice, choose } from '../../recipes/recipe/choice';
import type { Recipe } from '../../recipes/recipe/recipe';
import type { Need } from '../../safety/avoidances';
import type { Component } from '../component';
import { type Measurer, measurerOf } from '../portion';
import { type Total, totalsOf } from '../purchase/totals';
import { type Supply, supplyThatMatters, type Ways, waysOf } from '../supply/supplied';
import { type KitCalculator, kitCalculator, type Refusal } from './contents';
import { chooseExtra, type Extra, type ExtraKind, type Extras, extraName } from './extras';
import { fewestVersions, oneVersion, type VersionPolicy } from './fewest-variants';
import type { Group, Participant } from './participant';
import { withinRanges } from './within-ranges';

/** Kits that are alike: one size, one set of avoidances that matters for these dishes, filled the same way. */
export interface Variant {
  /** Identifies the variant from one calculation to the next, so that it keeps its letter. */
  readonly key: string;
  readonly letter: string;
  readonly servings: number;
  /** Avoidance codes that changed or blocked a line, sorted: what the kit is made without. */
  readonly avoids: readonly string[];
  readonly participants: readonly Participant[];
  /** Undefined when the kits are refused. */
  readonly components: readonly Component[] | undefined;
  readonly refusals: readonly Refusal[];
  /** Needs nobody has given a meaning to yet: they refuse the kit. */
  readonly unknownNeeds: readonly string[];
  /** What it is, when it is not for people of the roll; and which of their avoidances it does not meet. */
  readonly extra?: ExtraKind;
  readonly notFor?: readonly string[];
  /** How it is filled; undefined when everything is measured into it. */
  readonly supply?: Supply;
}

export interface KitSheet {
  readonly variants: readonly Variant[];
  readonly totals: readonly Total[];
  /** Kits that cannot be made yet. */
  readonly refusedKits: number;
}

/** The tools a programme measures with. */
export const toolsFor = (system: MeasureSystem) => (system === 'us' ? US_TOOLS : METRIC_TOOLS);

/**
 * A, B … Z, AA, AB …: the letter of the n-th variant, from 0.
 *
 * @example
 * variantLetter(0) //=> 'A'
 * variantLetter(27) //=> 'AB'
 */
export function variantLetter(index: number): string {
  const rest = Math.floor(index / 26);
  return (rest > 0 ? variantLetter(rest - 1) : '') + String.fromCharCode(65 + (index % 26));
}

const NO_EXTRAS: Extras = { made: [], avoided: [], unknown: [] };

/** An extra as kits that are made alike: each is somebody who is not on the roll. */
function extraGroup(extra: Extra, dishes: readonly Recipe[], { extras, titles, ways }: Settled): Group {
  const { avoids, choice, notFor } = chooseExtra(extra, dishes, extras);
  const { id, kind, servings, count } = extra;
  // Whoever gets a kit in reserve is new, had nothing before, and may be anybody of the roll.
  const supply =
    kind === 'reserve'
      ? supplyThatMatters(extras.reserveSupply, dishes, ways, choice, servings, extras.avoided)
      : undefined;
  return {
    key: keyOf(`${id}|${servings}|${choice.effective.join(' ')}`, supply),
    servings,
    avoids,
    choice,
    unknown: [],
    ...(supply ? { supply } : {}),
    participants: Array.from({ length: count }, (_, at) => ({
      // A dish's own id is as long as a person's.
      id: kind === 'swap-in' ? id : `${id}#${at + 1}`,
      name: extraName(extra, at + 1, titles),
      servings,
      needs: [],
    })),
    extra: kind,
    notFor,
  };
}

const keyOf = (key: string, supply: Supply | undefined) => (supply ? `${key}|${JSON.stringify(supply)}` : key);

/** What a sheet may be told beside dishes and people. */
export interface SheetOptions {
  /** Letters given before, by variant key; new variants get the next free letter. */
  readonly letters?: ReadonlyMap<string, string>;
  /** What is made beside the kits of the roll, and the titles of the dishes, for naming a swap-in. */
  readonly extras?: Extras;
  readonly titles?: readonly string[];
  /** Whether those who avoid different things share a version. */
  readonly policy?: VersionPolicy;
  /** How the lines of the dishes travel. */
  readonly ways?: Ways;
  /** What was worked out of these dishes and people before: one need changed then measures one kit anew, not all. */
  readonly memory?: Memory;
}

type Settled = Required<SheetOptions>;

/**
 * The kit sheet of a session: participants are gathered into variants, each variant is computed once, then counted.
 *
 * Two participants share a variant when their kits have the same servings, the same avoidances made a difference, and they
 * are filled the same way.
 *
 * @param dishes the session's recipes, in order
 * @param participants who gets a kit
 * @throws AmountError when an amount is beyond what can be measured or counted
 */
export function kitSheet(
  dishes: readonly Recipe[],
  participants: readonly Participant[],
  system: MeasureSystem,
  options: SheetOptions = {},
): KitSheet {
  const settled: Settled = {
    letters: new Map(),
    extras: NO_EXTRAS,
    titles: [],
    policy: 'separate',
    ways: NO_WAYS,
    memory: FORGETFUL,
    ...options,
  };
  const { letters, extras, ways, memory } = settled;
  const known = memory.of('dishes', dishes, emptyDishes);
  const people = shareVersions(gather(dishes, participants, settled, known), dishes, settled.policy, known);
  const groups = [...people.sort(byNeedThenSize), ...extras.made.map((extra) => extraGroup(extra, dishes, settled))];
  const { measurer, calculatorFor } = benchFor(known, dishes, system, ways, memory);
  const calculator = calculatorFor(withinRanges(dishes, groups, measurer, ways));
  const given = new Map(letters);
  const taken = new Set(letters.values());
  const variants = groups.map((group): Variant => {
    const contents = calculator.contents(group.servings, group.avoids, group.choice, group.supply);
    return {
      key: group.key,
      letter: letterFor(group.key, given, taken),
      servings: group.servings,
      avoids: group.choice.effective,
      participants: group.participants,
      components: group.unknown.length > 0 ? undefined : contents.components,
      refusals: contents.refusals ?? [],
      unknownNeeds: group.unknown,
      ...(group.supply ? { supply: group.supply } : {}),
      ...(group.extra ? { extra: group.extra, notFor: group.notFor ?? [] } : {}),
    };
  });
  const packed = variants.flatMap(({ participants: people, components }) =>
    components ? [{ count: people.length, components }] : [],
  );
  const refusedKits = variants.reduce((sum, v) => sum + (v.components ? 0 : v.participants.length), 0);
  return { variants, totals: totalsOf(packed), refusedKits };
}

const NO_WAYS = waysOf([]);

/** A calculator over dishes whose ranges are settled, and what it measures with. */
interface Bench {
  readonly measurer: Measurer;
  readonly calculatorFor: (settled: readonly Recipe[]) => KitCalculator;
}

/** What was chosen and measured for these very dishes. */
interface KnownDishes {
  readonly choices: Map<string, Choice>;
  readonly benches: Map<string, Bench>;
}

const emptyDishes = (): KnownDishes => ({ choices: new Map(), benches: new Map() });

function benchFor(
  { benches }: KnownDishes,
  dishes: readonly Recipe[],
  system: MeasureSystem,
  ways: Ways,
  memory: Memory,
): Bench {
  const key = `${system}${ways.key}`;
  const before = benches.get(key);
  if (before) return before;
  const measurer = measurerOf(toolsFor(system), memory);
  const usual = kitCalculator(dishes, measurer, ways);
  const bench: Bench = {
    measurer,
    calculatorFor: (settled) => (settled === dishes ? usual : kitCalculator(settled, measurer, ways)),
  };
  benches.set(key, bench);
  return bench;
}

/** The choice for a set of avoidances, sorted. */
function choiceFor({ choices }: KnownDishes, dishes: readonly Recipe[], avoids: readonly string[]): Choice {
  const key = avoids.join('|');
  const choice = choices.get(key) ?? choose(dishes, avoids);
  choices.set(key, choice);
  return choice;
}

/** People of a roll who are alike before any dish is known: the same needs, size and supply. */
interface Alike {
  readonly needs: readonly Need[];
  readonly text: string;
  readonly servings: number;
  readonly supply: Supply | undefined;
  /** Their places on the roll, rising. */
  readonly places: number[];
}

/** People who are alike: the same people come to every session of a course. */
const alikeOn = (participants: readonly Participant[], memory: Memory): readonly Alike[] =>
  memory.of('alike', participants, () => findAlike(participants, memory));

function findAlike(participants: readonly Participant[], memory: Memory): Alike[] {
  const profiles = memory.about<readonly Need[], ReturnType<typeof profileOf>>('needs');
  const byText = new Map<string, Map<Supply | undefined, Alike[]>>();
  const all: Alike[] = [];
  for (let place = 0; place < participants.length; place++) {
    const { needs, servings, supply } = participants[place] as Participant;
    const { text } = profiles.of(needs, profileOf);
    let bySupply = byText.get(text);
    if (!bySupply) {
      bySupply = new Map();
      byText.set(text, bySupply);
    }
    let sizes = bySupply.get(supply);
    if (!sizes) {
      sizes = [];
      bySupply.set(supply, sizes);
    }
    // Kits come in a few sizes: a short list is looked through sooner than a table.
    let at = 0;
    while (at < sizes.length && (sizes[at] as Alike).servings !== servings) at++;
    let alike = sizes[at];
    if (!alike) {
      alike = { needs, text, servings, supply, places: [] };
      sizes.push(alike);
      all.push(alike);
    }
    alike.places.push(place);
  }
  return all;
}

function gather(
  dishes: readonly Recipe[],
  participants: readonly Participant[],
  { ways, memory }: Pick<Settled, 'ways' | 'memory'>,
  known: KnownDishes,
): Group[] {
  type Profile = Pick<Group, 'avoids' | 'choice' | 'unknown'> & { readonly tail: string };
  const profiles = new Map<string, Profile>();
  const groups = new Map<string, { group: Group; places: readonly number[] }>();
  for (const { needs, text, servings, supply: whole, places } of alikeOn(participants, memory)) {
    let profile = profiles.get(text);
    if (!profile) {
      const avoids = [...new Set(needs.flatMap((need) => need.codes ?? []))].sort();
      const unknown = needs.flatMap((need) => (need.codes ? [] : [need.asWritten])).sort();
      const choice = choiceFor(known, dishes, avoids);
      // The effective avoidances decide every choice, so they alone tell kits apart.
      profile = { avoids, unknown, choice, tail: [choice.effective.join(' '), ...unknown].join('|') };
      profiles.set(text, profile);
    }
    const { avoids, choice, unknown, tail } = profile;
    const supply = supplyThatMatters(whole, dishes, ways, choice, servings, avoids);
    const key = keyOf(`${servings}|${tail}`, supply);
    const same = groups.get(key);
    // In the order of the roll, whatever brought them together.
    if (same) groups.set(key, { group: same.group, places: [...same.places, ...places].sort((a, b) => a - b) });
    else {
      const group: Group = { key, servings, avoids, choice, unknown, participants: [], ...(supply ? { supply } : {}) };
      groups.set(key, { group, places });
    }
  }
  return [...groups.values()].map(({ group, places }) => {
    for (const place of places) group.participants.push(participants[place] as Participant);
    return group;
  });
}

/**
 * Groups of one size, filled the same way, that share a version: the fewest that keep everybody safe, or one for all where that can be made.
 * Whose needs have no meaning yet share with nobody.
 */
function shareVersions(groups: Group[], dishes: readonly Recipe[], policy: VersionPolicy, known: KnownDishes): Group[] {
  if (policy === 'separate') return groups;
  const open = groups.filter(({ unknown }) => unknown.length > 0);
  const alike = new Map<string, Group[]>();
  for (const group of groups) {
    if (group.unknown.length > 0) continue;
    const key = keyOf(String(group.servings), group.supply);
    alike.set(key, [...(alike.get(key) ?? []), group]);
  }
  const shared = [...alike.values()].flatMap((own) => {
    const [{ servings, supply } = { servings: 1, supply: undefined }] = own;
    // All that anybody of a group avoids, not only what mattered for its own kits: another's swap may hold it.
    const sets = own.map(({ participants }) => [
      ...new Set(participants.flatMap(({ needs }) => needs.flatMap((need) => need.codes ?? []))),
    ]);
    const { versionOf, avoids } = policy === 'one' ? oneVersion(dishes, sets) : fewestVersions(dishes, sets);
    return avoids.map((codes, version): Group => {
      const choice = choiceFor(known, dishes, codes);
      return {
        key: keyOf(`${servings}|${choice.effective.join(' ')}`, supply),
        servings,
        avoids: codes,
        choice,
        unknown: [],
        ...(supply ? { supply } : {}),
        participants: own.flatMap(({ participants }, at) => (versionOf[at] === version ? participants : [])),
      };
    });
  });
  // Two versions may come to the same after all.
  const byKey = new Map<string, Group>();
  for (const group of shared) {
    const same = byKey.get(group.key);
    if (same) same.participants.push(...group.participants);
    else byKey.set(group.key, group);
  }
  return [...byKey.values(), ...open];
}

/** One text for each set of needs: cheap to compare for thousands of participants. */
function profileOf(needs: readonly Need[]): { readonly text: string } {
  let text = '';
  for (let at = 0; at < needs.length; at++) {
    const need = needs[at] as Need;
    text += at === 0 ? needText(need) : `;${needText(need)}`;
  }
  return { text };
}

function needText({ codes, asWritten }: Need): string {
  if (!codes) return `?${asWritten}`;
  return codes.length === 1 ? (codes[0] as string) : codes.join(',');
}

const hasNeeds = ({ choice, unknown }: Group) => choice.effective.length + unknown.length > 0;

/** Kits without needs first, then by how many kits, then by size: A is what most people get. */
function byNeedThenSize(a: Group, b: Group): number {
  return (
    Number(hasNeeds(a)) - Number(hasNeeds(b)) ||
    b.participants.length - a.participants.length ||
    b.servings - a.servings ||
    (a.key < b.key ? -1 : 1)
  );
}

function letterFor(key: string, given: Map<string, string>, taken: Set<string>): string {
  const before = given.get(key);
  if (before) return before;
  let index = 0;
  while (taken.has(variantLetter(index))) index++;
  const letter = variantLetter(index);
  given.set(key, letter);
  taken.add(letter);
  return letter;
}
