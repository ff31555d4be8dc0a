'use client';

import { Check, Thermometer, Timer } from 'lucide-react';
import { judgeInside } from '@/core/classday/doneness';
import type { ClassNow } from '@/core/classday/live/class-events';
import type { Standing, TaskNow } from '@/core/classday/live/standing';
import { sayTenths } from '@/core/packing/made/batch';
import type { Heat } from '@/core/recipes/steps/step-plan';
import type { Say } from './use-class';

interface Props {
  readonly standing: Standing;
  readonly now: ClassNow;
  readonly minute: number;
  readonly profile: 'us' | 'uk';
  /** Names of who stands at a station. */
  readonly namesAt: (station: number) => string;
  readonly timeAt: (minute: number) => string;
  readonly isOnScreen: boolean;
  /** On a wall: larger, and nothing to press. */
  readonly isWall: boolean;
  readonly say: Say;
  readonly probe: (taskId: string) => void;
}

/** Each station with what it does now and next, large. */
export function NowCards(props: Props) {
  const { standing, isOnScreen, isWall } = props;
  const late = (station: number | null) => (isWall ? (standing.stations.get(station) ?? 0) : 0);
  const hasWork = (station: number | null) =>
    standing.tasks.some(({ task, state }) => task.station === station && state !== 'done');
  // On a wall, where nothing scrolls, whoever is late stands first, and whoever is done makes room.
  const stations = [...standing.stations.keys()]
    .filter((station) => !isWall || hasWork(station))
    .sort((a, b) => late(b) - late(a) || (a ?? 99) - (b ?? 99));
  return (
    <div className={`grid gap-3 md:grid-cols-2 ${isWall ? 'lg:grid-cols-3 xl:grid-cols-4' : 'xl:grid-cols-3'}`}>
      {stations.map((station) => (
        <StationCard
          key={station ?? 'adults'}
          {...props}
          station={station}
          title={station === null ? 'Adults' : isOnScreen ? 'At home' : `Station ${station}`}
        />
      ))}
    </div>
  );
}

function StationCard({ station, title, ...props }: Props & { station: number | null; title: string }) {
  const { standing, namesAt, timeAt, isWall, minute } = props;
  const own = standing.tasks.filter(({ task }) => task.station === station);
  const current = own.filter(({ state }) => state === 'now');
  const next = own.filter(({ state }) => state === 'next').sort((a, b) => a.starts - b.starts);
  const late = standing.stations.get(station) ?? 0;
  const done = own.filter(({ state }) => state === 'done').length;
  // Where several pairs are at a station it is said whose task it is.
  const isShared = new Set(own.map(({ task }) => task.hands)).size > 1;
  return (
    <section aria-label={title} className={`rounded-box border-2 p-3 ${late > 1 ? 'border-error' : 'border-base-300'}`}>
      <h2 className="flex flex-wrap items-baseline justify-between gap-x-3 text-xl font-bold">
        <span>{title}</span>
        <span className={`text-base ${late > 1 ? 'text-error' : 'font-normal'}`}>
          {late > 1 ? `${late} minutes late` : `${done} of ${own.length} done`}
        </span>
      </h2>
      {station !== null && <p className={isWall ? 'text-xl' : 'text-sm'}>{namesAt(station)}</p>}
      {current.length === 0 && (
        <p className="mt-2 text-lg">
          {done === own.length ? 'All done. Wash up, then help another station.' : 'Nothing to do yet.'}
        </p>
      )}
      {current.map((each) => (
        <CurrentTask key={each.task.id} each={each} isShared={isShared} {...props} />
      ))}
      {next.slice(0, 2).map(({ task, starts }) => (
        <p key={task.id} className={`mt-2 border-t border-base-300 pt-2 ${isWall ? 'text-xl' : ''}`}>
          <b>Next, {starts <= minute ? 'as soon as it can' : `at ${timeAt(starts)}`}:</b> {task.text}{' '}
          {task.notes && <b>{task.notes}</b>}
        </p>
      ))}
    </section>
  );
}

function CurrentTask({
  each,
  isShared,
  now,
  minute,
  profile,
  timeAt,
  isWall,
  say,
  probe,
}: Props & { each: TaskNow; isShared: boolean }) {
  const { task, ends, late } = each;
  const { id, text, part, off, on, start, inside, heat } = task;
  const readings = now.readings.get(id) ?? [];
  const verdict = inside ? judgeInside(inside, readings, (heat || 'none') as Heat) : undefined;
  const last = readings.at(-1);
  const mustProbe = inside !== null && verdict?.state !== 'safe';
  const isTimed = now.timers.some(({ item }) => item === id);
  const alone = off > 0 && minute >= start + on;
  return (
    <div className="mt-2 border-t border-base-300 pt-2">
      <p className={`font-semibold ${isWall ? 'text-3xl leading-tight' : 'text-2xl leading-snug'}`}>{text}</p>
      {task.notes && (
        <p className={`mt-1 border-l-4 border-warning pl-2 font-bold ${isWall ? 'text-xl' : 'text-lg'}`}>
          {task.notes}
        </p>
      )}
      <p className={`mt-1 ${isWall ? 'text-xl' : ''}`}>
        {late > 0 ? (
          <b className="text-error">should have been done at {timeAt(start + on + off)}</b>
        ) : (
          <b>
            {Math.max(0, ends - minute)} min left, until {timeAt(ends)}
          </b>
        )}
        {alone && ' · goes on by itself, hands are free'}
        {part && ` · part ${part[0]} of ${part[1]}`}
        {task.hands && !alone && isShared && ` · ${task.hands}`}
        {task.tools.length > 0 && ` · ${task.tools.join(', ')}`}
      </p>
      {task.wash && (
        <p className={`mt-1 font-semibold ${isWall ? 'text-xl' : ''}`}>Then hands with soap: {task.wash}.</p>
      )}
      {inside && (
        <p
          className={`mt-1 font-semibold ${isWall ? 'text-xl' : ''} ${verdict?.state === 'go on' ? 'text-error' : ''}`}
          role={verdict ? 'status' : undefined}
        >
          {!last || !verdict
            ? `Done at ${inside.said} inside (${inside.kind}): probe it first.`
            : verdict.state === 'safe'
              ? `${sayTenths(last.tenths, profile)} inside: safe${inside.seconds > 0 ? `, once held ${inside.seconds} seconds` : ''}${/rest/.test(inside.rule) ? `, ${inside.rule}` : ''}.`
              : verdict.state === 'hold'
                ? `${sayTenths(last.tenths, profile)} inside: keep it there for ${verdict.minutes} minutes, then probe again.`
                : `${sayTenths(last.tenths, profile)} inside is too low for ${inside.kind}: cook on, usually about ${verdict.minutes} minutes more. Not to be eaten yet.`}
        </p>
      )}
      {!isWall && (
        <div className="mt-2 flex flex-wrap gap-3">
          {inside && (
            <button
              type="button"
              className={`btn h-12 ${mustProbe ? 'btn-primary' : ''}`}
              aria-label={`Probe: ${text}`}
              onClick={() => probe(id)}
            >
              <Thermometer aria-hidden="true" size={18} /> Probe it
            </button>
          )}
          <button
            type="button"
            className={`btn h-12 ${mustProbe ? '' : 'btn-primary'}`}
            disabled={mustProbe}
            aria-label={`Done: ${text}${part ? `, part ${part[0]}` : ''}`}
            onClick={() => say('done', { item: id })}
          >
            <Check aria-hidden="true" size={18} /> {mustProbe ? 'Done once it is hot enough' : 'Done'}
          </button>
          {off > 0 && !isTimed && (
            <button
              type="button"
              className="btn h-12"
              onClick={() => say('timer', { item: id, value: { minutes: Math.max(1, off), text: text.slice(0, 80) } })}
            >
              <Timer aria-hidden="true" size={18} /> Timer {Math.max(1, off)} min
            </button>
          )}
        </div>
      )}
    </div>
  );
}
