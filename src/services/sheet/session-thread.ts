import type { Temporal } from 'temporal-polyfill';
import { groupJobKey } from '@/core/countdown/jobs';
import { startOf, type Thread, threadOf } from '@/core/countdown/thread';
import { belowAdults } from '@/core/crew/crew-standing';
import { jobOfDuty } from '@/core/crew/duties';
import { handedNow } from '@/core/handout/handing';
import { benchSheet, packedNow, packProgress } from '@/core/packing/progress';
import { civilOf, DAY, dayOf, timeOf } from '@/core/plan/civil';
import { clockOf } from '@/core/plan/clock';
import type { Mode } from '@/core/plan/mode';
import { sittingOf } from '@/core/plan/sitting';
import { waitingIn } from '@/core/reference/waiting';
import type { SessionFacts } from '@/core/stages/facts';
import type { SessionBundle } from '@/store/session-bundles';
import { WORKED_OUT } from '../memory';
import { comingOf } from './coming';
import { crewOf } from './duty-sessions';
import type { Hours } from './load-programme';
import type { SessionSheet } from './session-sheet';

/** A session as its thread shows it. */
export interface SessionThread extends Thread {
  readonly id: string;
  readonly courseId: string;
  readonly courseTitle: string;
  readonly title: string;
  readonly number: number;
  readonly date: string;
  readonly startsAt: string;
  readonly place: string;
  readonly mode: string;
  /** Start as an ISO instant. */
  readonly start: string;
  /** Why the class cannot be held with the adults there are. */
  readonly below?: string;
  /** What its run sheets ask to be settled before it. */
  readonly settle: readonly string[];
}

/** Keys of the jobs whose last mark says done. Marks are in order of time. */
export function markedDone(marks: SessionBundle['marks']): ReadonlySet<string> {
  const done = new Set<string>();
  for (const mark of marks) {
    if (mark.done === 1) done.add(mark.stage);
    else done.delete(mark.stage);
  }
  return done;
}

/** What is known of a session when its thread is drawn. */
export function sessionFacts(
  bundle: SessionBundle,
  sheet: SessionSheet,
  { timeZone }: { readonly timeZone: string },
  hours: Hours,
): SessionFacts {
  const { session } = bundle;
  const enrolled = comingOf(bundle);
  const bench = sheet.locked && benchSheet(sheet.locked, bundle.sheet?.revision ?? 0);
  const packed = packedNow(bundle.events);
  const progress = packProgress(bench?.kits ?? [], packed);
  const kitsOf = (name: string) =>
    (bench?.kits ?? sheet.participants).reduce((sum, { group }) => sum + (group === name ? 1 : 0), 0);
  const modes = new Set<Mode>([session.mode as Mode]);
  for (const { mode } of enrolled) if (mode) modes.add(mode as Mode);
  const groups = session.sittings.filter(({ status }) => status === 'planned');
  const isPacked = (name: string | null) => {
    const own = (bench?.kits ?? []).filter(({ group }) => group === name);
    return own.length > 0 && packProgress(own, packed).kitsDone === own.length;
  };
  const handed = handedOut(bundle, sheet);
  const facts: SessionFacts = {
    ...hours,
    plannedAt: plannedJobs(bundle),
    date: session.date,
    startsAt: session.startsAt,
    minutes: session.minutes,
    timeZone,
    modes: [...modes],
    dishes: bundle.dishes.length,
    waiting: waitingIn(((sheet.locked?.content ?? sheet.draft)?.totals ?? []).map(({ ingredient }) => ingredient)),
    ahead: sheet.ahead(),
    swapIns: bundle.dishes.filter(({ swapIn }) => swapIn > 0).length,
    participants: enrolled.length,
    rollClosesDays: session.rollClosesDays,
    cookBy: session.cookBy,
    course: session.courseJobs,
    session: session.jobs,
    oneOffs: bundle.oneOffs,
    outdoor: session.outdoor,
    ...(groups.length > 0
      ? {
          groupName: session.groupName ?? '',
          groups: groups.map(({ groupId, groupName, date, startsAt, outdoor }) => {
            return { groupId, groupName, date, startsAt, kits: kitsOf(groupName), outdoor };
          }),
          packedGroups: [{ groupId: '', groupName: session.groupName }, ...groups].flatMap((each) =>
            isPacked(each.groupName) ? [each.groupId] : [],
          ),
        }
      : {}),
    marked: new Set([...markedDone(bundle.marks), ...handed.over]),
    handed: handed.gone,
    begun: handed.begun,
    unknownNeeds: new Set(
      sheet.participants.flatMap((p) => p.needs.filter((need) => !need.codes).map((need) => need.asWritten)),
    ).size,
    revision: sheet.locked ? (bundle.sheet?.revision ?? 0) : 0,
    differs: sheet.differences.length > 0 && sheet.refused === undefined,
    refusedKits: sheet.draft?.refusedKits ?? 0,
    ...progress,
    // Before anything is locked, everyone who comes is counted.
    kits: bench ? progress.kits : sheet.participants.length,
  };
  const crew = bundle.promises.length > 0 ? crewOf(bundle, sheet.meetings(), facts, hours.helpers) : undefined;
  if (!crew) return facts;
  // Somebody who marked the crew as confirmed did not know who would drop out.
  const marked =
    crew.accepted < crew.places ? new Set([...facts.marked].filter((key) => key !== 'crew')) : facts.marked;
  return { ...facts, crewPlaces: crew, marked };
}

/** Jobs of handing out, by how people take part. */
const HAND_JOBS: Readonly<Record<string, string>> = { 'live online': 'deliver', 'follow-later': 'send-later' };

/** How many kits have gone, and the jobs of handing out that are over: something was said of each of their kits. */
function handedOut({ session, enrolments, handOuts }: SessionBundle, { locked }: SessionSheet) {
  if (!locked || handOuts.length === 0) return { gone: 0, over: [], begun: new Map<string, number>() };
  const now = handedNow(handOuts);
  const people = new Map(enrolments.map((row) => [row.id, row]));
  const jobs = new Map<string, { said: number; all: number }>();
  for (const { id, enrolmentId } of locked.kits) {
    const person = people.get(enrolmentId);
    const job = HAND_JOBS[person?.mode ?? session.mode] ?? 'handout';
    const key = groupJobKey(job, sittingOf(person?.groupId ?? null, session.sittings) ?? '');
    const { said, all } = jobs.get(key) ?? { said: 0, all: 0 };
    jobs.set(key, { said: said + ((now.get(id)?.state ?? 'here') === 'here' ? 0 : 1), all: all + 1 });
  }
  return {
    gone: locked.kits.filter(({ id }) => now.get(id)?.state === 'gone').length,
    over: [...jobs].flatMap(([key, { said, all }]) => (said === all ? [key] : [])),
    begun: new Map(
      [...jobs].flatMap(([key, { said, all }]) => (said > 0 && said < all ? [[key, 1 - said / all]] : [])),
    ),
  };
}

/** When the jobs begin that people of the crew were asked for, or promised. */
const plannedJobs = ({ promises }: SessionBundle): Readonly<Record<string, number>> =>
  Object.fromEntries(
    promises.flatMap(({ duty, state, told }) => {
      const job = jobOfDuty(duty);
      return job && told && (state === 'asked' || state === 'accepted')
        ? [[job, civilOf(told.date, timeOf(told.from))] as const]
        : [];
    }),
  );

/** What the run sheets of its groups ask to be settled, with the group where there are several. */
function outlookOf({ session, outlooks }: SessionBundle): readonly string[] {
  const names = new Map(session.sittings.map(({ groupId, groupName }) => [groupId, groupName]));
  return outlooks.flatMap(({ sitting, settle }) => {
    // A group that does not meet has nothing to settle.
    if (session.sittings.some(({ groupId, status }) => groupId === sitting && status === 'cancelled')) return [];
    const group = sitting === '' ? session.groupName : names.get(sitting);
    return settle.map((each) => (names.size > 0 && group ? `${group}: ${each}` : each));
  });
}

/** A thread that was drawn before, and what it was drawn from. */
interface Drawn {
  mark?: string;
  hours?: Hours;
  thread?: SessionThread;
}

/** The thread of one session, from its bundle and its calculation. */
export function sessionThread(
  bundle: SessionBundle,
  sheet: SessionSheet,
  programme: { readonly timeZone: string },
  hours: Hours,
  now: Temporal.Instant,
): SessionThread {
  const { session, marks, events, oneOffs, dishes } = bundle;
  const minute = Math.floor(now.epochMilliseconds / 60_000);
  const mark = JSON.stringify([
    minute,
    programme.timeZone,
    session,
    marks,
    bundle.promises,
    bundle.dutyChanges,
    bundle.outlooks,
    events.length,
    events.at(-1)?.seq,
    bundle.handOuts.at(-1)?.seq,
    oneOffs,
    dishes.length,
  ]);
  // It changes with what is saved and with the minute: between two looks at a countdown most change with neither.
  const last = WORKED_OUT.of<Drawn>('thread', sheet, () => ({}));
  if (last.thread && last.mark === mark && last.hours === hours) return last.thread;
  const facts = sessionFacts(bundle, sheet, programme, hours);
  const { id, courseId, courseTitle, title, number, date, startsAt, place, mode } = session;
  const start = startOf(facts).toString();
  const { crewPlaces: crew } = facts;
  const days = dayOf(date) - Math.floor(clockOf(programme.timeZone).toCivil(minute) / DAY);
  const below = crew && days >= 0 ? belowAdults(crew, days) : undefined;
  const thread = {
    id,
    courseId,
    courseTitle,
    title,
    number,
    date,
    startsAt,
    place,
    mode,
    start,
    ...(below ? { below } : {}),
    settle: days >= 0 ? outlookOf(bundle) : [],
    ...threadOf(facts, now),
  };
  Object.assign(last, { mark, hours, thread });
  return thread;
}
