'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useRef, useState } from 'react';
import { v7 } from 'uuid';
import type { ClassEvent } from '@/core/classday/live/class-events';
import type { ClassPlan } from '@/core/classday/live/class-plan';
import { type Standing, standingOf } from '@/core/classday/live/standing';
import { minutesOf, timeOf } from '@/core/plan/civil';
import { type Manner, writeTime } from '@/core/plan/manner';
import { sayCount } from '@/core/quantity/say';
import { Waiting } from '../../buying/waiting';
import { KeptPage } from '../../crew/kept-page';
import { NowCards } from './now-cards';
import { OnScreenPanel } from './on-screen-panel';
import { ProbePanel } from './probe-panel';
import { RoutineList } from './routine-list';
import { Temperatures } from './temperatures';
import { Timers } from './timers';
import { ask, type Say, useClass } from './use-class';
import { WrongPanel } from './wrong-panel';

export interface LiveClassProps {
  readonly session: {
    readonly id: string;
    readonly sitting: string;
    readonly title: string;
    readonly group: string;
    readonly startsAt: string;
  };
  readonly timeZone: string;
  readonly manner: Pick<Manner, 'clock'>;
  readonly profile: 'us' | 'uk';
  readonly hygiene: number;
  readonly isOnScreen: boolean;
  readonly plan: ClassPlan | null;
  readonly routines: {
    readonly opening: readonly string[];
    readonly fire: readonly string[];
    readonly closing: readonly string[];
  };
  readonly people: readonly { readonly id: string; readonly name: string }[];
  /** Of the roll, the needs and the labels, as this page knows them. */
  readonly mark: string;
  /** What must be done otherwise than the tasks say, since somebody came or something became known. */
  readonly changed: readonly string[];
  /** What cannot be cooked safely for who is there. */
  readonly unsafe: readonly string[];
  readonly foods: readonly string[];
  readonly avoidances: readonly (readonly [code: string, label: string])[];
  readonly events: readonly ClassEvent[];
  readonly isWall: boolean;
}

const TABS = ['Opening', 'Now', 'Temperatures', 'On screen', 'Trouble', 'Closing'] as const;
type Tab = (typeof TABS)[number];

/** A class while it runs: on a wall, a tablet or a phone; all of them alike, and each goes on without a network. */
export function LiveClass(props: LiveClassProps) {
  const { session, plan: planned, isWall, isOnScreen, people, routines, profile, hygiene, manner, timeZone } = props;
  const router = useRouter();
  const asked = useRef(props.mark);
  const { now, say, waiting, isCut, trouble, clock, base } = useClass(
    session.id,
    session.sitting,
    props.events,
    (mark) => {
      if (mark === asked.current) return;
      // Somebody joined, or a need or a label changed: whether it is still safe is worked out anew.
      asked.current = mark;
      router.refresh();
    },
  );
  const plan = now.plan ?? planned;
  const [tab, setTab] = useState<Tab>(now.begun || isWall ? 'Now' : 'Opening');
  const [probed, setProbed] = useState<string>();
  const from = now.begun ? Date.parse(now.begun.at) : undefined;
  const minute = from !== undefined && clock !== undefined ? Math.max(0, Math.floor((clock - from) / 60_000)) : 0;
  const done = useMemo(() => {
    if (from === undefined) return new Map<string, number>();
    return new Map(
      [...now.done].map(([id, { at }]) => [id, Math.max(0, Math.floor((Date.parse(at) - from) / 60_000))]),
    );
  }, [now.done, from]);
  const standing = useMemo(() => (plan ? standingOf(plan, done, minute) : undefined), [plan, done, minute]);
  const names = useMemo(() => new Map(people.map(({ id, name }) => [id, name])), [people]);
  const civil = (at: number) =>
    writeTime(
      new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(at),
      manner,
    );
  const timeAt = (at: number) =>
    from === undefined
      ? writeTime(timeOf((minutesOf(session.startsAt) + hygiene + at) % 1440), manner)
      : civil(from + at * 60_000);
  const namesAt = (station: number) =>
    (plan?.stations.find(({ number }) => number === station)?.people ?? [])
      .flatMap((id) => names.get(id) ?? [])
      .join(', ');
  const probedTask = plan?.tasks.find(({ id }) => id === probed);
  const tabs = TABS.filter(
    (each) =>
      (each !== 'On screen' || isOnScreen) && (each !== 'Temperatures' || plan?.tasks.some(({ inside }) => inside)),
  );
  const timeOfEvent = (at: string) => civil(Date.parse(at));
  return (
    <main className={`mx-auto p-3 ${isWall ? '' : 'max-w-[90rem]'}`}>
      <KeptPage scope="/live/" />
      <header className="mb-3 flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
        <div>
          <h1 className="text-2xl font-bold">
            {session.title}
            {session.group && `, ${session.group}`}
          </h1>
          <ClassClock
            standing={standing}
            plan={plan}
            minute={minute}
            isBegun={now.begun !== undefined}
            timeAt={timeAt}
            isWall={isWall}
          />
        </div>
        {!isWall && (
          <nav aria-label="Elsewhere" className="flex flex-wrap gap-2">
            <Link href={`/room/${session.id}`} className="btn h-11">
              In the room
            </Link>
            <Link href={`?${session.sitting ? `group=${session.sitting}&` : ''}wall=1`} className="btn h-11">
              For the wall
            </Link>
          </nav>
        )}
      </header>
      <Waiting count={waiting} isCut={isCut} message={trouble} />
      {props.changed.length > 0 && now.begun && <Changed lines={props.changed} base={base} isCut={isCut} />}
      {props.unsafe.map((line) => (
        <p
          key={line}
          role="alert"
          className="mb-3 rounded-box border-2 border-error bg-error/20 p-3 text-lg font-semibold"
        >
          {line}
        </p>
      ))}
      {clock !== undefined && <Timers timers={now.timers} clock={clock} say={say} isWall={isWall} />}
      {!isWall && (
        <div role="tablist" aria-label="Parts of the class" className="mb-3 flex flex-wrap gap-2">
          {tabs.map((each) => (
            <button
              key={each}
              type="button"
              role="tab"
              aria-selected={tab === each}
              className={`btn h-12 ${tab === each ? 'btn-primary' : ''}`}
              onClick={() => setTab(each)}
            >
              {each}
            </button>
          ))}
        </div>
      )}
      {probedTask && <ProbePanel task={probedTask} profile={profile} say={say} close={() => setProbed(undefined)} />}
      {tab === 'Opening' && (
        <>
          <RoutineList
            routine="opening"
            title="Before anybody cooks"
            lines={routines.opening}
            ticked={now.ticked}
            say={say}
            timeOf={timeOfEvent}
          />
          <RoutineList
            routine="fire"
            title="At the fire"
            lines={routines.fire}
            ticked={now.ticked}
            say={say}
            timeOf={timeOfEvent}
          />
        </>
      )}
      {(tab === 'Now' || tab === 'Opening') && plan && !now.begun && !isWall && (
        <button
          type="button"
          className="btn btn-primary mb-3 h-16 w-full text-2xl"
          onClick={() => {
            say('begun', { value: { plan } });
            setTab('Now');
          }}
        >
          The cooking begins now
        </button>
      )}
      {tab === 'Now' && !plan && (
        <p className="text-xl">
          This class has no run sheet: its dishes have no steps, or they cannot be done by who and what is there.
          Everything else on this screen works.
        </p>
      )}
      {tab === 'Now' && plan && standing && (
        <>
          {now.begun && !isWall && (
            <Behind
              standing={standing}
              plan={plan}
              base={base}
              minute={minute}
              isCut={isCut}
              say={say}
              timeAt={timeAt}
            />
          )}
          <NowCards
            standing={standing}
            now={now}
            minute={minute}
            profile={profile}
            namesAt={namesAt}
            timeAt={timeAt}
            isOnScreen={isOnScreen}
            isWall={isWall || !now.begun}
            say={say}
            probe={setProbed}
          />
          {now.begun && !isWall && <DoneList standing={standing} isBegun say={say} />}
        </>
      )}
      {tab === 'Temperatures' && plan && (
        <Temperatures plan={plan} now={now} profile={profile} timeOf={timeOfEvent} probe={setProbed} />
      )}
      {tab === 'On screen' && (
        <OnScreenPanel
          sessionId={session.id}
          people={people}
          now={now}
          say={say}
          current={standing?.tasks.flatMap(({ state, task }) => (state === 'now' ? [task.text] : [])) ?? []}
        />
      )}
      {tab === 'Trouble' && (
        <WrongPanel
          sessionId={session.id}
          base={base}
          foods={props.foods}
          avoidances={props.avoidances}
          stations={plan?.stations.map(({ number }) => number) ?? []}
          now={now}
          say={say}
          isCut={isCut}
        />
      )}
      {tab === 'Closing' && (
        <>
          <RoutineList
            routine="closing"
            title="Before anybody goes"
            lines={routines.closing}
            ticked={now.ticked}
            say={say}
            timeOf={timeOfEvent}
          />
          <div className="flex flex-wrap gap-3">
            <Link href={`/room/${session.id}/attendance`} className="btn h-12">
              Attendance, and who fetched whom
            </Link>
            <Link
              href={`/room/${session.id}/record${session.sitting ? `?group=${session.sitting}` : ''}`}
              className="btn h-12"
            >
              Record to print
            </Link>
            <Link href={`/room/${session.id}/close`} className="btn h-12">
              Close out, in three minutes
            </Link>
            <Link href={`/room/${session.id}/tasting`} className="btn h-12">
              What the children think
            </Link>
          </div>
        </>
      )}
    </main>
  );
}

/** The class is no longer safe as its tasks say: loudly, and taken over at one tap. */
function Changed({ lines, base, isCut }: { lines: readonly string[]; base: string; isCut: boolean }) {
  const router = useRouter();
  const [refused, setRefused] = useState('');
  return (
    <section role="alert" className="mb-3 rounded-box border-2 border-error bg-error/20 p-3 text-lg font-semibold">
      <p>Since it began, somebody came or something became known. From now on:</p>
      <ul className="list-disc pl-6">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-error mt-2 h-12"
        disabled={isCut}
        onClick={async () => {
          const answer = await ask<object>(`${base}/swap`, { id: v7(), way: 'who came since', station: 'all' });
          setRefused('refused' in answer ? String(answer.refused) : '');
          router.refresh();
        }}
      >
        Everybody knows: write it into the tasks
      </button>
      {refused && <p>{refused}</p>}
    </section>
  );
}

/** How far the class is, in large figures. */
function ClassClock({
  standing,
  plan,
  minute,
  isBegun,
  timeAt,
  isWall,
}: {
  standing: Standing | undefined;
  plan: ClassPlan | null;
  minute: number;
  isBegun: boolean;
  timeAt: (minute: number) => string;
  isWall: boolean;
}) {
  if (!plan || !standing) return null;
  if (!isBegun)
    return (
      <p className="text-lg">
        {plan.minutes} minutes of cooking, planned from {timeAt(0)} to {timeAt(plan.minutes)}.
      </p>
    );
  const left = standing.ends - minute;
  const isOver = standing.tasks.every(({ state }) => state === 'done');
  return (
    <p role="timer" className={isWall ? 'text-5xl' : 'text-xl'}>
      {isOver ? (
        <b>All dishes are done.</b>
      ) : (
        <>
          <b className="tabular-nums">{left} min left</b>, until {timeAt(standing.ends)}
        </>
      )}
      {!isOver && standing.behind > 0 && (
        <>
          , <b className="text-error">{sayCount(standing.behind, 'minute')} behind</b>
        </>
      )}
      {!isOver && standing.behind === 0 && ', on time'}
    </p>
  );
}

interface Again {
  readonly minutes: number;
  readonly late: number;
  readonly ways: readonly { readonly dish: string; readonly minutes: number; readonly fits: boolean }[];
}

/** Behind: what is overdue is called done at one tap, or the rest is planned again. */
function Behind({
  standing,
  plan,
  base,
  minute,
  isCut,
  say,
  timeAt,
}: {
  standing: Standing;
  plan: ClassPlan;
  base: string;
  minute: number;
  isCut: boolean;
  say: Say;
  timeAt: (minute: number) => string;
}) {
  const [answer, setAnswer] = useState<Again | { refused: string }>();
  const [isBusy, setBusy] = useState(false);
  const overdue = standing.tasks.filter(({ state, late, task }) => state === 'now' && late > 0 && !task.inside);
  const isOver = standing.ends > plan.cooking;
  const isCalm = standing.behind === 0 && overdue.length === 0 && !isOver;
  const again = async (without: readonly string[]) => {
    setBusy(true);
    setAnswer(await ask<Again>(`${base}/plan`, { id: v7(), without }));
    setBusy(false);
  };
  const refused = answer && 'refused' in answer ? answer.refused : '';
  const found = answer && !('refused' in answer) ? answer : undefined;
  return (
    <section
      aria-label="Behind"
      className={`mb-3 rounded-box p-3 ${isCalm ? 'border border-base-300' : 'border-2 border-warning'}`}
    >
      <p className={isCalm ? 'sr-only' : 'text-lg font-semibold'}>
        {standing.behind > 0
          ? `We are ${sayCount(standing.behind, 'minute')} behind: the last dish is ready at ${timeAt(standing.ends)}.`
          : isOver
            ? `The last dish is ready at ${timeAt(standing.ends)}, ${sayCount(standing.ends - plan.cooking, 'minute')} after the cooking should be over.`
            : overdue.length > 0
              ? 'Something should have been done by now.'
              : 'On time.'}
      </p>
      <div className={`flex flex-wrap gap-3 ${isCalm ? '' : 'mt-2'}`}>
        {overdue.length > 0 && (
          <button
            type="button"
            className="btn h-12"
            onClick={() => {
              for (const { task } of overdue) say('done', { item: task.id });
            }}
          >
            {overdue.length === 1 ? 'It is done' : `All ${overdue.length} that should be done are done`}
          </button>
        )}
        <button
          type="button"
          className={`btn h-12 ${standing.behind > 0 || isOver ? 'btn-primary' : ''}`}
          disabled={isCut || isBusy}
          onClick={() => again([])}
        >
          {isCut ? 'Planning again needs a network' : isBusy ? 'Planning …' : 'Plan the rest again'}
        </button>
      </div>
      <div role="status" className="mt-2">
        {refused && <p className="font-semibold text-error">{refused}</p>}
        {found && (
          <p>
            Planned again at minute {minute}: ready at {timeAt(found.minutes)}
            {found.late > 0 ? `, ${sayCount(found.late, 'minute')} later than there is time for.` : ', in time.'}
          </p>
        )}
        {found?.ways.map(({ dish, minutes, fits }) => (
          <button
            key={dish}
            type="button"
            className="btn mt-2 mr-3 h-12"
            disabled={isBusy || isCut}
            onClick={() => again([dish])}
          >
            Leave out {dish}: ready at {timeAt(minutes)}
            {fits && ', in time'}
          </button>
        ))}
      </div>
    </section>
  );
}

/** What is done, to take back what was tapped by mistake; and the beginning itself. */
function DoneList({ standing, say }: { standing: Standing; isBegun: true; say: Say }) {
  const done = standing.tasks.filter(({ state }) => state === 'done');
  return (
    <details className="mt-4">
      <summary className="min-h-11 cursor-pointer">{done.length} done; something was tapped by mistake</summary>
      <ul className="flex flex-col gap-2">
        {done.map(({ task }) => (
          <li key={task.id} className="flex flex-wrap items-center gap-3 border-t border-base-300 py-1">
            <span className="grow">
              {task.station ? `Station ${task.station}: ` : ''}
              {task.text}
            </span>
            <button
              type="button"
              className="btn h-11"
              aria-label={`Not done: ${task.text}`}
              onClick={() => say('not done', { item: task.id })}
            >
              Not done
            </button>
          </li>
        ))}
      </ul>
      <button type="button" className="btn mt-3 h-11" onClick={() => say('not begun')}>
        The cooking has not begun after all
      </button>
    </details>
  );
}
