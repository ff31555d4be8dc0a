import type { Knot } from '@/core/countdown/thread';
import type { Saying } from '@/core/plan/saying';
import { type StageKey, stageHref } from '@/core/stages/stages';

import { KnotShape } from './knot';

interface Thread {
  readonly id: string;
  readonly courseId: string;
  readonly courseTitle: string;
  readonly title: string;
  readonly number: number;
  readonly date: string;
  readonly startsAt: string;
  readonly mode: string;
  readonly start: string;
  readonly knots: readonly Knot[];
}

const DAY = 86_400_000;
/** Days before now that stay in view, so that what is late can be seen. */
const BEFORE = 2;
const DAYS = 16.6;

/** How days are said over their places on the lanes: weekday above, number below. */
function daySayer(timeZone: string): (instant: string) => string[] {
  const formats = [{ weekday: 'short' }, { day: 'numeric' }].map(
    (format) => new Intl.DateTimeFormat('en-GB', { ...(format as Intl.DateTimeFormatOptions), timeZone }),
  );
  return (instant) => formats.map((format) => format.format(new Date(instant)));
}

/**
 * One lane a session: its thread ends at the class, its knots hang at their latest times, one line marks now. Links are plain
 * ones: hundreds of them are on the page, and each of the framework's own costs several times as much to draw.
 */
export function CountdownLanes({
  threads,
  now,
  timeZone,
  say,
}: {
  threads: readonly Thread[];
  now: string;
  timeZone: string;
  say: Saying;
}) {
  const from = Date.parse(now) - BEFORE * DAY;
  const at = (instant: string) => Math.min(100, Math.max(0, ((Date.parse(instant) - from) / (DAYS * DAY)) * 100));
  const days = Array.from({ length: Math.floor(DAYS) }, (_, index) =>
    new Date(Date.parse(now) + (index - BEFORE) * DAY).toISOString(),
  );
  const nowAt = at(now);
  const sayDay = daySayer(timeZone);
  return (
    <div className="sheet overflow-hidden">
      <div className="hidden border-b border-base-300 md:grid md:grid-cols-[15rem_minmax(0,1fr)]" aria-hidden="true">
        <span className="px-4 py-2 text-sm font-semibold">Session</span>
        <div className="relative mr-6 h-10">
          {days.map((day, index) => (
            <span
              key={day}
              className={`absolute top-1 w-9 -translate-x-1/2 text-center text-xs leading-4 ${index === BEFORE ? 'font-bold' : 'text-base-content/75'}`}
              style={{ left: `${at(day)}%` }}
            >
              {sayDay(day).map((part) => (
                <span key={part} className="block">
                  {part}
                </span>
              ))}
            </span>
          ))}
        </div>
      </div>
      <ol>
        {threads.map((thread) => (
          <li
            key={thread.id}
            className="grid border-b border-base-300 last:border-0 md:grid-cols-[15rem_minmax(0,1fr)]"
          >
            <a href={`/sessions/${thread.id}`} className="block px-4 py-3 hover:bg-base-200">
              <span className="block text-sm text-base-content/80">
                {thread.courseTitle} {thread.number} · {thread.mode}
              </span>
              <span className="block font-bold leading-tight">{thread.title}</span>
              <span className="block text-sm">
                {say.shortDate(thread.date)}, {say.time(thread.startsAt)}
              </span>
              <NextKnot knots={thread.knots} />
            </a>
            <Lane thread={thread} at={at} nowAt={nowAt} say={say} />
          </li>
        ))}
      </ol>
    </div>
  );
}

/** On a narrow screen there is no room for the lane: the first open knot stands in for it. */
function NextKnot({ knots }: { knots: readonly Knot[] }) {
  const next = knots.find((knot) => knot.state !== 'done' && knot.state !== 'not needed');
  if (!next) return null;
  return (
    <span className="mt-1 flex items-center gap-1.5 text-sm md:hidden">
      <KnotShape state={next.state} size={16} /> {next.title}: {next.state}
    </span>
  );
}

function Lane({
  thread,
  at,
  nowAt,
  say,
}: {
  thread: Thread;
  at: (instant: string) => number;
  nowAt: number;
  say: Saying;
}) {
  const end = endOf(thread, at);
  // What is done and behind us needs no place; what is late is pulled to the edge, so that it cannot be missed.
  const shown = thread.knots
    .filter(
      (knot) =>
        knot.state !== 'not needed' &&
        knot.stage !== end.stage &&
        (at(knot.latest) > 0 ||
          knot.state === 'late' ||
          knot.state === 'cannot be met' ||
          knot.state === 'doing' ||
          knot.state === 'can start'),
    )
    .sort((a, b) => (a.latest < b.latest ? -1 : 1));
  const places = spread(
    shown.map((knot) => at(knot.latest)),
    end.at,
  );
  // Before the event its knots; where they had to be squeezed at the left edge, it gives way to them.
  const before = shown.filter((knot) => at(knot.latest) <= end.at).length;
  const endAt = Math.max(end.at, before > 0 ? (places[before - 1] as number) + GAP : 0);
  const first = Math.min(...places, endAt);
  // Titles stand above and below in turn, counted from the event, whose own stands below.
  const isAbove = (index: number) => Math.abs(before - index - (index < before ? 0 : 1)) % 2 === 1;
  return (
    <div className="relative mr-6 hidden h-full min-h-20 md:block">
      <span className="absolute inset-y-0 w-px bg-secondary" style={{ left: `${nowAt}%` }} aria-hidden="true" />
      <span
        className="absolute top-1/2 h-0.5 -translate-y-3 bg-base-content/45"
        style={{ left: `${first}%`, width: `${Math.max(0, Math.max(endAt, ...places) - first)}%` }}
        aria-hidden="true"
      />
      <ol aria-label={`Thread of ${thread.title}`} className="absolute inset-0">
        {shown.map((knot, index) => (
          <li
            key={knot.stage}
            className={isAbove(index) ? 'lane-knot lane-knot-above' : 'lane-knot'}
            style={{ left: `${places[index]}%` }}
          >
            <a
              href={stageHref(knot.stage, thread)}
              title={say.text(knot.why)}
              aria-label={`${knot.title}, ${knot.state}, latest ${say.moment(knot.latest)}`}
            >
              <KnotShape state={knot.state} />
              {knot.title}
            </a>
          </li>
        ))}
        <li className="lane-knot" style={{ left: `${endAt}%` }}>
          <span>
            <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
              <rect x="3" y="3" width="14" height="14" rx="2" className="fill-base-content" />
            </svg>
            {end.title}
          </span>
        </li>
      </ol>
    </div>
  );
}

/** The event that the thread serves: the class, or the hand-out where none is taught. */
function endOf(thread: Thread, at: (instant: string) => number): { stage: StageKey; title: string; at: number } {
  const taught = thread.knots.some((knot) => knot.stage === 'classday' && knot.state !== 'not needed');
  return taught
    ? { stage: 'classday', title: 'Class', at: at(thread.start) }
    : { stage: 'handout', title: 'Hand out', at: at(thread.start) };
}

/**
 * Knots that would hide each other are moved apart: away from the event that they serve, and from each other.
 *
 * @param end where the event is; those before it are pushed to the left, those after it to the right
 */
function spread(places: readonly number[], end: number): number[] {
  const apart = [...places];
  let limit = end;
  for (let index = places.length - 1; index >= 0; index--) {
    const place = places[index] as number;
    if (place > end) continue;
    limit = Math.min(place, limit - GAP);
    apart[index] = limit;
  }
  let after = end;
  for (let index = 0; index < places.length; index++) {
    if ((places[index] as number) <= end) continue;
    after = Math.max(places[index] as number, after + GAP);
    apart[index] = after;
  }
  // Those pushed past the left edge come back in, in order.
  let least = 0;
  for (let index = 0; index < apart.length && (apart[index] as number) < least; index++) {
    apart[index] = least;
    least += GAP;
  }
  return apart;
}

/** Least distance of two knots, in percent of the lane. */
const GAP = 6.2;
