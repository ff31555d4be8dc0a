import { createHash } from 'node:crypto';
import {
  canonicalJson,
  type LockedSheet,
  lockedFrom,
  type SheetDifference,
  sheetDifferences,
} from '@/core/kits/record/locked-sheet';
import type { SheetContent, SheetInput } from '@/core/kits/record/sheet-content';
import { type Computed, computeSheet, sheetContent } from '@/core/kits/record/snapshot';
import { extrasFor, extrasOf } from '@/core/kits/sheet/extras';
import type { Participant } from '@/core/kits/sheet/participant';
import { shareKits } from '@/core/kits/sheet/shared-kits';
import { AmountError } from '@/core/quantity/rational';
import type { Ahead } from '@/core/recipes/steps/ahead';
import { TYPICAL, typicalIn } from '@/core/reference/reference';
import type { SessionBundle } from '@/store/session-bundles';
import type { EnrolmentRow } from '@/store/tables/roll';
import type { Problem } from '../errors';
import { markOnce, memoryOf, WORKED_OUT } from '../memory';
import { comingOf } from './coming';
import { aheadFor, type MeetingForDuties, meetingsForDuties } from './duty-sessions';
import type { Programme } from './load-programme';
import { rollPerson } from './person';
import { labelsIn, productsIn, sheetDish, suppliesOf } from './supply';

/** The calculation of a session as things stand now, beside what is locked. */
export interface SessionSheet {
  readonly input: SheetInput;
  readonly participants: readonly Participant[];
  /** Undefined when a recipe cannot be computed; the problems say why. */
  readonly computed: Computed | undefined;
  readonly draft: SheetContent | undefined;
  readonly problems: readonly Problem[];
  readonly leftOut: LockedSheet['leftOut'];
  readonly locked: LockedSheet | undefined;
  /** What accepting the draft would change in the locked sheet. */
  readonly differences: readonly SheetDifference[];
  /** Identifies this very draft: locking names it, so that nobody locks what they have not seen. */
  readonly basis: string;
  /** Why the last revision was unlocked; undefined while it holds. */
  readonly unlocked: string | undefined;
  /** Why these very differences were refused; undefined when nobody has. */
  readonly refused: string | undefined;
  /** What its duties are counted from; worked out when it is asked for. */
  readonly meetings: () => readonly MeetingForDuties[];
  /** What its dishes ask to be made ahead; as well. */
  readonly ahead: () => Ahead | undefined;
}

/** What everybody who gets a kit must avoid, whether or not it makes a difference to the kit. */
export const avoidsIn = ({
  participants,
}: Pick<SessionSheet, 'participants'>): ReadonlyMap<string, readonly string[]> =>
  new Map(participants.map(({ id, needs }) => [id, needs.flatMap(({ codes }) => codes ?? [])]));

type Meanings = ReadonlyMap<string, readonly string[]>;

/**
 * Sheets computed before, by a mark of everything they were computed from: a countdown asks for the same two hundred
 * again and again. Nothing that another server would miss, since it computes the same.
 */
const computed = memoryOf<SessionSheet>(
  // Participants of all sheets together: what a sheet weighs goes with them.
  20_000,
  ({ participants }) => participants.length + 20,
);

/** A session's sheet from what is stored. */
export function sessionSheet(bundle: SessionBundle, programme: Programme, meanings: Meanings): SessionSheet {
  return computed.of(markOf(bundle, programme, meanings), () => computeSession(bundle, programme, meanings));
}

/**
 * Everything that a sheet can be computed from, as one short text: all of the bundle but what happened at the bench since, so
 * that nothing new can be forgotten here.
 */
function markOf(
  bundle: SessionBundle,
  { measureSystem, safetyProfile, adultRatios, reference, labels: usual }: Programme,
  meanings: Meanings,
): string {
  const { events: _, marks: __, oneOffs: ___, promises: ____, dutyChanges: _____, ...sheetBundle } = bundle;
  const { sheet, enrolments, before, dishes, ...rest } = sheetBundle;
  return JSON.stringify([
    measureSystem,
    safetyProfile,
    adultRatios,
    reference === TYPICAL
      ? ''
      : reference === typicalIn('us')
        ? 'us'
        : markOnce(reference, ({ ingredients, measures }) => [ingredients, measures]),
    markOnce(meanings, (all) => [...all]),
    markOnce(usual, (all) => [...all]),
    sheet?.fingerprint,
    sheet?.revision,
    rest,
    // A recipe's version rises with each change of it.
    dishes.map(({ body: ___, ...dish }) => dish),
    before.length > 0
      ? markOnce(before, (all) =>
          all.map(({ dishes: own, ...more }) => [more, own.map(({ body: ____, ...dish }) => dish)]),
        )
      : '',
    markOnce(enrolments, (rows) => rows.map(({ actionPlan: _, version: __, ...row }) => row)),
  ]);
}

/** What the group that somebody comes with is called; undefined where there is only one. */
export function groupNameOf(groupId: string | null, session: SessionBundle['session']): string | undefined {
  if (!session.sittings.some(({ status }) => status === 'planned')) return undefined;
  const own = session.sittings.find((sitting) => sitting.groupId === groupId);
  return own?.groupName ?? session.groupName ?? undefined;
}

/** Whoever joined after a session whose kits were locked has no part in it: nothing of it differs because of them. */
const joinedAfter = (
  { id, since }: SessionBundle['enrolments'][number],
  { session }: SessionBundle,
  last?: LockedSheet,
) =>
  last !== undefined &&
  since !== null &&
  since > session.date &&
  !last.kits.some(({ enrolmentId }) => enrolmentId === id) &&
  !last.leftOut.some(({ enrolmentId }) => enrolmentId === id);

/** Whether two of a household eat of one kit. */
const sharesWith = (one: EnrolmentRow, other: EnrolmentRow, session: SessionBundle['session']): boolean =>
  one.sharedKit === 1 &&
  other.sharedKit === 1 &&
  one.householdId === other.householdId &&
  groupNameOf(one.groupId, session) === groupNameOf(other.groupId, session);

/** Those of which something holds, and the others. */
const partition = <Each>(all: readonly Each[], holds: (each: Each) => boolean): [Each[], Each[]] => [
  all.filter(holds),
  all.filter((each) => !holds(each)),
];

function computeSession(bundle: SessionBundle, programme: Programme, meanings: Meanings): SessionSheet {
  const last = bundle.sheet ? readSnapshot(bundle.sheet) : undefined;
  const revision = bundle.sheet?.revision ?? 0;
  const unlocked = bundle.sheetNotes.findLast((note) => note.kind === 'unlocked' && note.revision === revision);
  const locked = unlocked ? undefined : last;
  const [enrolled, newcomers] = partition(comingOf(bundle), (row) => !joinedAfter(row, bundle, last));
  const reasons = new Map(bundle.exclusions.map((row) => [row.enrolmentId, row.reason]));
  const supplies = suppliesOf(bundle, programme, meanings);
  const participants = shareKits(
    enrolled
      .filter((row) => !reasons.has(row.id))
      .map((row) => {
        const { id, name, servings, needs, householdId } = rollPerson(row, meanings);
        // What is not yet eaten is eaten with a sibling who joined since.
        const siblings = newcomers.filter((each) => sharesWith(each, row, bundle.session));
        const group = groupNameOf(row.groupId, bundle.session);
        const supply = supplies.of(row);
        return {
          id,
          name,
          servings,
          needs: [...needs, ...siblings.flatMap((each) => rollPerson(each, meanings).needs)],
          householdId,
          sharesKit: row.sharedKit === 1,
          ...(group ? { group } : {}),
          ...(supply ? { supply } : {}),
        };
      }),
  );
  const leftOut = enrolled.flatMap(({ id, name }) => {
    const reason = reasons.get(id);
    return reason === undefined ? [] : [{ enrolmentId: id, name, reason }];
  });
  // Who gets no kit is in the room all the same.
  const present = [
    ...participants,
    ...enrolled.filter((row) => reasons.has(row.id)).map((row) => rollPerson(row, meanings)),
  ];
  const wanted = bundle.session.extras;
  const made = extrasOf(wanted, bundle.dishes);
  const input: SheetInput = {
    system: programme.measureSystem,
    dishes: bundle.dishes.map((dish) => sheetDish(dish, programme)),
    labels: Object.fromEntries(
      labelsIn(
        programme,
        bundle.labels.map(({ ingredient, allergens }) => [ingredient, allergens]),
      ),
    ),
    ...productsIn(programme, bundle.labels),
    reference: programme.reference,
    ...(made.length > 0 ? { extras: extrasFor(made, present, supplies.forNew) } : {}),
    ...(wanted.versions && wanted.versions !== 'separate' ? { versions: wanted.versions } : {}),
  };
  const letters = new Map(last?.content.variants.map((variant) => [variant.key, variant.letter]));
  const outcome = compute(input, participants, letters);
  const result = 'problems' in outcome ? undefined : outcome;
  const draft = result && sheetContent(input, result, WORKED_OUT);
  const basis = draft ? fingerprint({ draft, leftOut }) : '';
  const sheet = {
    input,
    participants,
    computed: result,
    draft,
    problems: 'problems' in outcome ? outcome.problems : [],
    leftOut,
    locked,
    differences: locked && draft ? sheetDifferences(locked, draft, WORKED_OUT) : [],
    basis,
    unlocked: unlocked?.reason,
    refused: bundle.sheetNotes.findLast(
      (note) => note.kind === 'refused' && note.revision === revision && note.basis === basis,
    )?.reason,
  };
  return {
    ...sheet,
    ahead: () => WORKED_OUT.of('ahead', sheet, () => ({ ahead: aheadFor(bundle, programme) })).ahead,
    meetings: () => WORKED_OUT.of('meetings', sheet, () => meetingsForDuties(bundle, sheet, programme)),
  };
}

function compute(
  input: SheetInput,
  participants: readonly Participant[],
  letters: ReadonlyMap<string, string>,
): Computed | { problems: Problem[] } {
  try {
    const outcome = computeSheet(input, participants, letters, WORKED_OUT);
    if (!('problems' in outcome)) return outcome;
    return { problems: outcome.problems.map(({ dish, path, message }) => ({ where: `${dish}, ${path}`, message })) };
  } catch (error) {
    if (error instanceof AmountError) return { problems: [{ where: 'amounts', message: error.message }] };
    throw error;
  }
}

/** Locked sheets read before, by fingerprint. */
const read = memoryOf<LockedSheet>(50);

/** A locked sheet that this process has read before. */
export const knownSnapshot = (mark: string): LockedSheet | undefined => read.known(mark);

/** The locked sheet in a stored record. */
export function readSnapshot(record: { readonly fingerprint: string; readonly snapshot: string }): LockedSheet {
  return read.of(record.fingerprint, () => lockedFrom(record.snapshot));
}

/** SHA-256 over the canonical form. */
export const fingerprint = (value: unknown): string => createHash('sha256').update(canonicalJson(value)).digest('hex');
