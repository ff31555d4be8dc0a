'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { v7 } from 'uuid';
import { type BenchSheet, type PackEvent, packProgress, sayComponentKey, toCheck } from '@/core/packing/progress';
import { ByComponent } from './by-component';
import { ByKit } from './by-kit';
import { Instruments } from './instruments';
import { LinePanel } from './line-panel';
import { useLine } from './use-line';
import { type Connection as Standing, useTicks } from './use-ticks';

/** The pack bench: one component through all kits, or one kit at a time; ticks shared with every other screen. */
export function PackBench({
  sheet: whole,
  events,
  leave,
}: {
  sheet: BenchSheet;
  events: readonly PackEvent[];
  leave: string;
}) {
  const router = useRouter();
  const ticks = useTicks(whole.session.id, whole.revision, events);
  const [group, setGroup] = useState('');
  // What is packed for one group does not stand in the way of another's.
  const sheet = useMemo(
    () => (group === '' ? whole : { ...whole, kits: whole.kits.filter((kit) => kit.group === group) }),
    [whole, group],
  );
  const progress = packProgress(sheet.kits, ticks.packed);
  // What is to come out again is told whichever group is packed for.
  const { toTakeOut } = sheet === whole ? progress : packProgress(whole.kits, ticks.packed);
  const [way, setWay] = useState<'component' | 'kit'>('component');
  const [at, setAt] = useState(() => firstOpen(sheet, ticks.packed));
  const [kit, setKit] = useState(0);
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set());
  const see = (pack: string) => setSeen((before) => new Set([...before, pack]));
  const { news, setPackers } = useLine(whole.session.id);
  const [station, setStation] = useState<number>();
  const own = station === undefined ? undefined : news?.line.stations[station];
  // At a station of a line one has its components alone, in the order in which a kit comes by.
  const atStation = useMemo(() => {
    if (!own) return sheet;
    const rows = own.flatMap(({ row }) => sheet.rows.filter((each) => each.row === row));
    return rows.length > 0 ? { ...sheet, rows } : sheet;
  }, [sheet, own]);
  const [here, go] = way === 'component' ? [at, setAt] : [kit, setKit];
  // Its kits made without something come first: the next step begins at its top.
  useEffect(() => {
    // Some browsers answer with a promise: it is nothing to clean up with.
    window.scrollTo({ top: 0 });
  }, [here, way]);
  const count = way === 'component' ? atStation.rows.length : sheet.kits.length;

  useEffect(() => {
    const turn = (event: KeyboardEvent) => {
      if (event.key === 'ArrowRight') go((now) => Math.min(count - 1, now + 1));
      if (event.key === 'ArrowLeft') go((now) => Math.max(0, now - 1));
    };
    window.addEventListener('keydown', turn);
    return () => window.removeEventListener('keydown', turn);
  }, [count, go]);

  const openKit = useCallback(
    (kitId: string) => {
      const place = whole.kits.findIndex((candidate) => candidate.id === kitId);
      if (place < 0) return false;
      setGroup('');
      setWay('kit');
      setKit(place);
      return true;
    },
    [whole],
  );

  const unchecked = toCheck(whole, ticks.packed, ticks.checked);
  const post = async (what: 'weights' | 'lots', body: object) => {
    const response = await fetch(`/api/bench/${whole.session.id}/${what}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ id: v7(), ...body }),
    }).catch(() => null);
    const answer = await response?.json().catch(() => null);
    return { ok: response?.ok ?? false, answer };
  };
  /** What is on the scale, beside what the next open kit gets of the component that is shown. */
  const weigh = async (grams: number): Promise<string> => {
    const shown = atStation.rows[Math.min(at, atStation.rows.length - 1)];
    const keyOf = (each: (typeof sheet.kits)[number]) =>
      sheet.variants
        .find(({ letter }) => letter === each.variant)
        ?.components.find(
          (component) =>
            (way === 'kit' || component.row === shown?.row) && !ticks.packed.get(each.id)?.has(component.key),
        )?.key;
    const open = way === 'kit' ? sheet.kits[kit] : sheet.kits.find((each) => keyOf(each) !== undefined);
    const component = open && keyOf(open);
    if (!open || !component) return `On the scale: ${grams} g`;
    const { ok, answer } = await post('weights', { kitId: open.id, component, grams });
    return ok && answer
      ? `${grams} g, aim ${answer.aim} for kit ${open.number}: ${answer.verdict}`
      : `On the scale: ${grams} g`;
  };
  const foods = useMemo(
    () => [
      ...new Set(
        whole.variants.flatMap(({ components }) =>
          components.flatMap(({ ingredient, sealedUnits }) => (sealedUnits === undefined ? [ingredient] : [])),
        ),
      ),
    ],
    [whole],
  );
  const weighBowl = async (food: string, typed: number | undefined): Promise<string> => {
    const readings =
      typed === undefined
        ? await fetch('/api/devices').then(
            (answer) => answer.json(),
            () => null,
          )
        : { grams: typed };
    const grams: number | null | undefined = readings?.grams;
    if (grams === null || grams === undefined) return 'The scale is off.';
    const { ok } = await post('weights', { food, grams });
    return ok ? `${grams} g of ${food} left.` : 'The server does not answer: weigh it again.';
  };
  const scanLot = async (lotId: string): Promise<string> => {
    const { ok, answer } = await post('lots', { lotId });
    if (!ok) return answer?.title ?? 'This code is of no kit on this sheet, and of no lot.';
    const notFor: readonly string[] = answer.notFor ?? [];
    return notFor.length > 0
      ? `“${answer.name}” is not safe for ${notFor.join(', ')}: not into these.`
      : `${answer.food} from “${answer.name}” from now on.`;
  };
  const left = progress.ticksNeeded - progress.ticks;
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-base-300 bg-base-200 px-4 py-3">
        <div className="min-w-0">
          <h1 className="truncate text-xl font-bold">{sheet.session.title}</h1>
          <p className="text-sm">
            {sheet.session.courseTitle}, version {sheet.revision}
          </p>
        </div>
        <p className="text-lg" role="status">
          <b className="text-3xl tabular-nums">{left}</b> to go · {progress.kitsDone} of {progress.kits} kits done
        </p>
        <Connection standing={ticks.connection} waiting={ticks.waiting} />
        <div className="ml-auto flex flex-wrap items-center gap-2">
          {whole.groups.length > 0 && (
            <select
              aria-label="Pack for"
              className="select h-12 w-48"
              value={group}
              onChange={(event) => {
                setGroup(event.target.value);
                setKit(0);
              }}
            >
              <option value="">all groups</option>
              {whole.groups.map((name) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          )}
          <fieldset className="join">
            <legend className="sr-only">How to pack</legend>
            {(['component', 'kit'] as const).map((choice) => (
              <button
                key={choice}
                type="button"
                aria-pressed={way === choice}
                className={`btn join-item h-12 ${way === choice ? 'btn-primary' : ''}`}
                onClick={() => setWay(choice)}
              >
                {choice === 'component' ? 'By ingredient' : 'By kit'}
              </button>
            ))}
          </fieldset>
          <button type="button" className="btn h-12" disabled={!ticks.undo} onClick={ticks.undo}>
            Undo
          </button>
          <Link href={leave} className="btn h-12">
            Leave
          </Link>
        </div>
      </header>
      {(ticks.trouble || ticks.waiting > 0) && (
        <p
          role="alert"
          className={`flex flex-wrap items-center gap-3 px-4 py-2 font-semibold ${ticks.trouble ? 'bg-warning text-warning-content' : 'sr-only'}`}
        >
          {ticks.trouble?.message} {ticks.waiting > 0 && `${ticks.waiting} not saved yet.`}
          {ticks.trouble?.kind === 'moved on' && (
            <button type="button" className="btn h-11" onClick={() => router.refresh()}>
              Open the new version
            </button>
          )}
        </p>
      )}
      {ticks.calledBack.size > 0 && <CalledBack sheet={whole} kits={ticks.calledBack} />}
      {toTakeOut.length > 0 && <TakeOut sheet={whole} items={toTakeOut} tick={ticks.tick} />}
      <LinePanel
        news={news}
        setPackers={setPackers}
        station={station}
        choose={(next) => {
          setStation(next);
          setWay('component');
          setAt(0);
        }}
        toCheck={unchecked}
        madeWithout={(letter) => whole.variants.find((variant) => variant.letter === letter)?.madeWithout ?? []}
        foods={foods}
        weighBowl={weighBowl}
        check={(kitId, who) => ticks.tick([{ kitId, component: who, action: 'checked' }])}
      />
      <main className="flex flex-1 flex-col p-4">
        {way === 'component' ? (
          <ByComponent
            seen={seen}
            see={see}
            sheet={atStation}
            index={Math.min(at, count - 1)}
            go={setAt}
            packed={ticks.packed}
            calledBack={ticks.calledBack}
            tick={ticks.tick}
          />
        ) : (
          <ByKit
            seen={seen}
            see={see}
            sheet={sheet}
            index={Math.min(kit, count - 1)}
            go={setKit}
            packed={ticks.packed}
            calledBack={ticks.calledBack}
            tick={ticks.tick}
          />
        )}
        <div className="mt-auto pt-6">
          <Instruments openKit={openKit} weigh={weigh} scanLot={scanLot} />
        </div>
        <nav aria-label="Steps" className="flex items-center justify-between gap-3 pt-3">
          <button type="button" className="btn btn-lg h-16 min-w-28" disabled={here === 0} onClick={() => go(here - 1)}>
            ← Back
          </button>
          <span className="text-lg tabular-nums">
            {here + 1} of {count}
          </span>
          <button
            type="button"
            className="btn btn-primary btn-lg h-16 min-w-28"
            disabled={here >= count - 1}
            onClick={() => go(here + 1)}
          >
            Next →
          </button>
        </nav>
      </main>
    </div>
  );
}

/** Whether other screens are heard, in words. */
function Connection({ standing, waiting }: { standing: Standing; waiting: number }) {
  const isBroken = standing === 'offline';
  return (
    <span
      role="status"
      aria-label="Connection"
      className={`rounded-field border px-2 py-1 text-sm ${isBroken ? 'border-warning font-bold text-primary' : 'border-base-content/40'}`}
    >
      {standing}
      {isBroken && waiting > 0 && `, ${waiting} kept here`}
    </span>
  );
}

/** The first component that is not in every kit yet. */
function firstOpen(sheet: BenchSheet, packed: ReadonlyMap<string, ReadonlySet<string>>): number {
  const open = sheet.rows.findIndex(({ row }) =>
    sheet.kits.some((kit) => {
      const variant = sheet.variants.find(({ letter }) => letter === kit.variant);
      const component = variant?.components.find((candidate) => candidate.row === row);
      return component && !packed.get(kit.id)?.has(component.key);
    }),
  );
  return Math.max(0, open);
}

/** Kits nobody may go on with: loud, at the top, on every screen of the bench, until a coordinator has decided. */
function CalledBack({ sheet, kits }: { sheet: BenchSheet; kits: ReadonlySet<string> }) {
  const numbers = sheet.kits.filter((kit) => kits.has(kit.id)).map((kit) => kit.number);
  if (numbers.length === 0) return null;
  return (
    <section role="alert" className="border-y-4 border-error bg-error px-4 py-3 text-error-content">
      <h2 className="text-2xl font-bold">
        Stop: kit {numbers.join(', ')} {numbers.length === 1 ? 'is' : 'are'} called back
      </h2>
      <p className="text-lg">
        Something changed after it was locked. Set {numbers.length === 1 ? 'it' : 'them'} apart, closed. Do not pack on,
        do not hand out: the coordinator decides.
      </p>
    </section>
  );
}

/** What an earlier revision put into a kit and this one does not: loud, and done with one press each. */
function TakeOut({
  sheet,
  items,
  tick,
}: {
  sheet: BenchSheet;
  items: readonly { kitId: string; component: string }[];
  tick: (changes: readonly { kitId: string; component: string; action: 'undone' }[]) => void;
}) {
  const number = (kitId: string) => sheet.kits.find((kit) => kit.id === kitId)?.number;
  return (
    <section aria-label="Take out again" className="border-b-4 border-error bg-base-200 px-4 py-3">
      <h2 className="text-xl font-bold text-error">Stop: take these out again</h2>
      <ul className="mt-2 flex flex-wrap gap-2">
        {items.map(({ kitId, component }) => (
          <li key={kitId + component}>
            <button type="button" className="btn h-14" onClick={() => tick([{ kitId, component, action: 'undone' }])}>
              {number(kitId) ? `Kit ${number(kitId)}` : 'A kit no longer wanted'}: {sayComponentKey(component)} · taken
              out
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
