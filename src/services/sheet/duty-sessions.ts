import { groupJobKey, jobChoices, minutesOfJob } from '@/core/countdown/jobs';
import { crewStanding } from '@/core/crew/crew-standing';
import { adultsOf, type DutySession, JOB_OF, type PlannedJob } from '@/core/crew/duties';
import { countsAsAdult, type DutyChange, type StandingDuty, standingDuties } from '@/core/crew/hand-changes';
import { whyNot } from '@/core/crew/may-do';
import type { SheetContent } from '@/core/kits/record/sheet-content';
import { minutesOf } from '@/core/plan/civil';
import type { Mode } from '@/core/plan/mode';
import { sittingOf } from '@/core/plan/sitting';
import { type Ahead, aheadOf, aheadTasks } from '@/core/recipes/steps/ahead';
import { inBatches } from '@/core/recipes/steps/step-plan';
import { findIngredient } from '@/core/reference/reference';
import type { CrewStanding, SessionFacts } from '@/core/stages/facts';
import { STAGE_KEYS, stageOf } from '@/core/stages/stages';
import type { SessionBundle } from '@/store/session-bundles';
import type { ToldDuty } from '@/store/tables/crew';
import { comingOf } from './coming';
import type { Hours, Programme } from './load-programme';
import { stepsOf } from './steps-of';

/** A session, and each further group's meeting, as its duties are counted from; its jobs come with the thread. */
export type MeetingForDuties = Omit<DutySession, 'jobs'>;

/** What a session's duties are counted from, a meeting each. */
export function meetingsForDuties(
  bundle: SessionBundle,
  { locked, draft }: { readonly locked?: { readonly content: SheetContent }; readonly draft?: SheetContent },
  { reference, safetyProfile, adultRatios }: Programme,
): MeetingForDuties[] {
  const { session } = bundle;
  const all = comingOf(bundle);
  const modeOf = ({ mode }: { readonly mode: string | null }) => (mode ?? session.mode) as Mode;
  const steps = bundle.dishes.flatMap((dish) => stepsOf(dish, reference)).filter(({ ahead }) => !ahead);
  const foods = (locked?.content ?? draft)?.totals.map(({ ingredient }) => ingredient) ?? [];
  const hasRawMeat = foods.some((food) => findIngredient(reference, food)?.aisle === 'meat');
  const groups = session.sittings.filter(({ status }) => status === 'planned');
  const own = {
    groupId: '',
    groupName: groups.length > 0 ? (session.groupName ?? '') : '',
    date: session.date,
    startsAt: session.startsAt,
    place: session.place,
    outdoor: session.outdoor,
  };
  return [own, ...groups].map(({ groupId, groupName, date, startsAt, place, outdoor }) => {
    const coming = all.filter((row) => (sittingOf(row.groupId, session.sittings) ?? '') === groupId);
    const inRoom = coming.filter((row) => modeOf(row) === 'in person' || modeOf(row) === 'demonstration');
    const atHome = coming.filter((row) => modeOf(row) === 'live online');
    return {
      date,
      startsAt: minutesOf(startsAt),
      minutes: session.minutes,
      place,
      modes: [...new Set([session.mode as Mode, ...coming.map(modeOf)])],
      ages: inRoom.map(({ age }) => age),
      agesOnScreen: atHome.map(({ age }) => age),
      steps,
      hasRawMeat,
      isOutdoor: outdoor !== null,
      stops: new Set(atHome.map(({ householdId }) => householdId)).size,
      profile: safetyProfile,
      stricter: adultRatios,
      groupId,
      groupName,
    };
  });
}

/** What was changed by hand, as the core takes it. */
export const handChanges = ({ dutyChanges }: Pick<SessionBundle, 'dutyChanges'>): DutyChange[] =>
  dutyChanges.map(({ duty, isLeftOut, changedTo, reason }) => ({
    key: duty,
    isLeftOut: isLeftOut === 1,
    change: changedTo,
    reason,
  }));

/** The duties of all meetings of a session, with its jobs as they are planned. */
export function dutiesOfMeetings(
  meetings: readonly MeetingForDuties[],
  jobs: readonly (PlannedJob & { readonly groupId: string })[],
  changes: readonly DutyChange[],
): StandingDuty[] {
  const [first] = meetings;
  return meetings.flatMap((meeting) => {
    const own = jobs.filter(({ groupId }) => groupId === meeting.groupId);
    const isOf = ({ key }: DutyChange) => (key.split('@')[1] ?? '') === meeting.groupId;
    // What somebody added is the session's own: it stands once.
    const mine = changes.filter((change) => isOf(change) || (meeting === first && !change.key.includes('@')));
    return standingDuties({ ...meeting, jobs: own }, mine);
  });
}

/** Rooms of a session: how many adults each needs, and the duties whose adults count. */
export const roomsOf = (meetings: readonly MeetingForDuties[], duties: readonly StandingDuty[]) =>
  meetings.map((meeting) => ({
    meeting,
    needed: adultsOf({ ...meeting, jobs: [] }),
    keys: new Set(
      duties
        .filter((duty) => (duty.key.split('@')[1] ?? '') === meeting.groupId && countsAsAdult(duty, meeting))
        .map(({ key }) => key),
    ),
  }));

/**
 * How the crew of a session stands by who is planned, asked and has promised; undefined while nobody was planned.
 *
 * @param facts with what is done already; when the rest is done makes no difference here
 */
export function crewOf(
  bundle: SessionBundle,
  meetings: readonly MeetingForDuties[],
  facts: SessionFacts,
  helpers: Hours['helpers'],
): CrewStanding | undefined {
  if (bundle.promises.length === 0) return undefined;
  const isDone = (key: string, groupId = '') =>
    facts.marked.has(groupJobKey(key, groupId)) ||
    (STAGE_KEYS.some((stage) => stage === key) && stageOf(key).standing?.(facts).state === 'done');
  const some = jobChoices(facts)
    .filter(({ on }) => on)
    .flatMap(({ template }) =>
      meetings
        .filter(({ groupId }) => template.perGroup || groupId === '')
        .filter(({ groupId }) => !isDone(template.key, groupId))
        .map(({ groupId = '', date }) => ({
          key: template.key,
          groupId,
          date,
          from: 0,
          minutes: minutesOfJob(template, facts),
        })),
    );
  const duties = dutiesOfMeetings(meetings, some, handChanges(bundle));
  const dutyOf = new Map(duties.map((duty) => [duty.key, duty]));
  // Whoever may not do it any more, and whoever was told another day or time, is not counted on: whatever was written since.
  const counted = bundle.promises.flatMap((promise) => {
    const duty = dutyOf.get(promise.duty);
    const person = helpers.get(promise.crewId);
    if (!duty || !person || whyNot(person, duty) !== undefined) return [];
    const isOfJob = JOB_OF.has(duty.kind);
    const moved = promise.state === 'accepted' && !isOfJob && hasMoved(promise.told, duty);
    return [moved ? { ...promise, state: 'asked' as const } : promise];
  });
  return crewStanding(duties, counted, roomsOf(meetings, duties));
}

/** Nobody is asked again for so many minutes more or less: one kit more makes packing longer. */
const ABOUT = 15;

/** Whether a duty is elsewhere, or at another time, than it was told. */
export const hasMoved = (told: ToldDuty | null, duty: ToldDuty): boolean =>
  told !== null &&
  (told.date !== duty.date ||
    told.from !== duty.from ||
    told.place !== duty.place ||
    Math.abs(told.to - duty.to) > ABOUT);

/** What a session's dishes ask to be made ahead, for everybody who eats of them. */
export function aheadFor(bundle: SessionBundle, { reference }: Programme): Ahead | undefined {
  const servings = comingOf(bundle).reduce((sum, row) => sum + row.servings, 0);
  return aheadOf(
    bundle.dishes.map((dish) => ({
      dish: dish.title,
      // What thaws is known by its food.
      tasks: aheadTasks(inBatches(stepsOf(dish, reference), Math.max(1, servings))).filter(
        ({ kind }) => kind !== 'thaw',
      ),
    })),
  );
}
