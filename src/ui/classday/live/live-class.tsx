'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useRef, useState } from 'react';
import type { ClassEvent } from '@/core/classday/live/class-events';
import type { ClassPlan } from '@/core/classday/live/class-plan';
import { standingOf } from '@/core/classday/live/standing';
import { minutesOf } from '@/core/plan/civil';
import { useSaying } from '@/ui/saying';
import { Waiting } from '../../buying/waiting';
import { KeptPage } from '../../crew/kept-page';
import { Behind } from './behind';
import { Changed } from './changed';
import { ClassClock } from './class-clock';
import { DoneList } from './done-list';
import { NowCards } from './now-cards';
import { OnScreenPanel } from './on-screen-panel';
import { ProbePanel } from './probe-panel';
import { RoutineList } from './routine-list';
import { Temperatures } from './temperatures';
import { Timers } from './timers';
import { useClass } from './use-class';
import { WrongPanel } from './wrong-panel';

export interface LiveClassProps {
  readonly session: {
    readonly id: string;
    readonly sitting: string;
    readonly title: string;
    readonly group: string;
    readonly startsAt: string;
  };
  readonly profile: 'us' | 'uk';
  readonly before: number;
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
  const { session, plan: planned, isWall, isOnScreen, people, routines, profile, before } = props;
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
  const saying = useSaying();
  const timeAt = (at: number) =>
    from === undefined
      ? saying.time(minutesOf(session.startsAt) + before + at)
      : saying.timeAt(new Date(from + at * 60_000).toISOString());
  const namesAt = (station: number) =>
    (plan?.stations.find(({ number }) => number === station)?.people ?? [])
      .flatMap((id) => names.get(id) ?? [])
      .join(', ');
  const probedTask = plan?.tasks.find(({ id }) => id === probed);
  const tabs = TABS.filter(
    (each) =>
      (each !== 'On screen' || isOnScreen) && (each !== 'Temperatures' || plan?.tasks.some(({ inside }) => inside)),
  );
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
            timeOf={saying.timeAt}
          />
          <RoutineList
            routine="fire"
            title="At the fire"
            lines={routines.fire}
            ticked={now.ticked}
            say={say}
            timeOf={saying.timeAt}
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
          {now.begun && !isWall && <DoneList standing={standing} say={say} />}
        </>
      )}
      {tab === 'Temperatures' && plan && (
        <Temperatures plan={plan} now={now} profile={profile} timeOf={saying.timeAt} probe={setProbed} />
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
            timeOf={saying.timeAt}
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
