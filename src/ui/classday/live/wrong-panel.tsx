'use client';

import Link from 'next/link';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { ClassNow } from '@/core/classday/live/class-events';
import { ask, type Say } from './use-class';

interface Props {
  readonly sessionId: string;
  readonly base: string;
  readonly foods: readonly string[];
  /** Codes with their names. */
  readonly avoidances: readonly (readonly [code: string, label: string])[];
  readonly stations: readonly number[];
  readonly now: ClassNow;
  readonly say: Say;
  readonly isCut: boolean;
}

/** How much more was needed, at one tap. */
const PARTS = [
  [10, '10 % more'],
  [25, 'a quarter more'],
  [50, 'half as much again'],
  [100, 'twice as much'],
] as const;
const BOX = 'rounded-box border-2 border-base-300 p-4';

/** What ran short or was wrong, something else instead, and who is hurt: each at a tap or two. */
export function WrongPanel({ sessionId, base, foods, avoidances, stations, now, say, isCut }: Props) {
  const [food, setFood] = useState('');
  const [text, setText] = useState('');
  const [told, setTold] = useState('');
  const tell = (what: 'short' | 'wrong', percent?: number) => {
    if (!food && !text.trim()) {
      setTold('Choose the food, or say what was wrong.');
      return;
    }
    say(what, {
      item: food,
      value: { ...(percent ? { percent } : {}), ...(text.trim() ? { text: text.trim() } : {}) },
    });
    setTold(
      `Kept: ${food || text} ${what === 'short' ? `was short, ${percent} % more was needed` : 'was wrong'}. Kits that have not gone can still be put right.`,
    );
    setText('');
  };
  return (
    <div className="grid gap-4 lg:grid-cols-2">
      <Link href={`/room/${sessionId}/hurt`} className="btn btn-error h-16 text-xl lg:col-span-2">
        Somebody is hurt or unwell
      </Link>
      <section aria-label="Ran short, or was wrong" className={BOX}>
        <h2 className="mb-2 text-2xl font-bold">Ran short, or was wrong</h2>
        <Foods label="Which food" foods={foods} value={food} change={setFood} none="choose" />
        <p className="mt-3 mb-1">It ran short: we needed</p>
        <div className="flex flex-wrap gap-3">
          {PARTS.map(([percent, label]) => (
            <button key={percent} type="button" className="btn h-12" onClick={() => tell('short', percent)}>
              {label}
            </button>
          ))}
        </div>
        <label className="mt-3 flex flex-col gap-1">
          What was wrong
          <input
            className="input h-12 w-full"
            value={text}
            maxLength={300}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <button type="button" className="btn mt-3 h-12" onClick={() => tell('wrong')}>
          It was wrong
        </button>
        <p role="status" className="mt-2 font-semibold">
          {told}
        </p>
        {now.troubles.length > 0 && (
          <ul className="mt-2 list-disc pl-5">
            {now.troubles.map(({ id, what, item, value }) => (
              <li key={id}>
                {item || 'Something'}
                {what === 'short' ? ` ran short, ${value.percent ?? 0} % more was needed` : ' was wrong'}
                {value.text && `: “${value.text}”`}
                {now.settled.has(id) && ' (settled)'}
              </li>
            ))}
          </ul>
        )}
        <Link href={`/room/${sessionId}/troubles`} className="link mt-3 inline-block">
          Which kits can still be put right
        </Link>
      </section>
      <SwapForm base={base} foods={foods} avoidances={avoidances} stations={stations} isCut={isCut} />
    </div>
  );
}

interface FoodsProps {
  readonly label: string;
  readonly foods: readonly string[];
  readonly value: string;
  readonly change: (food: string) => void;
  readonly none: string;
}

function Foods({ label, foods, value, change, none }: FoodsProps) {
  return (
    <label className="flex flex-col gap-1">
      {label}
      <select className="select h-12 w-full" value={value} onChange={(event) => change(event.target.value)}>
        <option value="">{none}</option>
        {foods.map((each) => (
          <option key={each}>{each}</option>
        ))}
      </select>
    </label>
  );
}

const BLANK = { food: '', station: 'all', way: 'recipe', instead: '', amount: '', unit: '', avoid: '' };

function SwapForm({
  base,
  foods,
  avoidances,
  stations,
  isCut,
}: Pick<Props, 'base' | 'foods' | 'avoidances' | 'stations' | 'isCut'>) {
  const [sent, setSent] = useState(BLANK);
  const [answer, setAnswer] = useState<readonly string[]>([]);
  const [isRefused, setRefused] = useState(false);
  const [isBusy, setBusy] = useState(false);
  const set = (part: Partial<typeof BLANK>) => setSent((before) => ({ ...before, ...part }));
  const text = (name: 'instead' | 'amount' | 'unit', label: string, className: string) => (
    <label className={`flex flex-col gap-1 ${className}`}>
      {label}
      <input
        className="input h-12 w-full"
        value={sent[name]}
        maxLength={120}
        onChange={(event) => set({ [name]: event.target.value })}
      />
    </label>
  );
  return (
    <section aria-label="Something else today" className={BOX}>
      <h2 className="text-2xl font-bold">Something else today</h2>
      <p className="mb-2 text-sm">
        Not there, spilt, or somebody new must avoid it: everybody who eats of it is looked at again before anything
        changes.
      </p>
      <form
        className="flex flex-col gap-3"
        onSubmit={async (event) => {
          event.preventDefault();
          setBusy(true);
          const said = await ask<{ changed: readonly string[] }>(`${base}/swap`, { ...sent, id: v7() });
          setBusy(false);
          setRefused('refused' in said);
          setAnswer('refused' in said ? [said.refused] : said.changed);
          if (!('refused' in said)) setSent(BLANK);
        }}
      >
        <Foods
          label="What is not there"
          foods={foods}
          value={sent.food}
          change={(food) => set({ food })}
          none="nothing is missing"
        />
        <label className="flex flex-col gap-1">
          Where
          <select
            className="select h-12 w-full"
            value={sent.station}
            onChange={(event) => set({ station: event.target.value })}
          >
            <option value="all">everywhere</option>
            {stations.map((station) => (
              <option key={station} value={station}>
                station {station}
              </option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-1">
          Instead
          <select
            className="select h-12 w-full"
            value={sent.way}
            onChange={(event) => set({ way: event.target.value })}
          >
            <option value="recipe">what the recipe has for it</option>
            <option value="leave out">leave it out</option>
            <option value="other">another food</option>
          </select>
        </label>
        {sent.way === 'other' && (
          <div className="grid grid-cols-4 gap-3">
            {text('instead', 'Which food', 'col-span-2')}
            {text('amount', 'How much', '')}
            {text('unit', 'of', '')}
          </div>
        )}
        <label className="flex flex-col gap-1">
          Somebody new must avoid
          <select
            className="select h-12 w-full"
            value={sent.avoid}
            onChange={(event) => set({ avoid: event.target.value })}
          >
            <option value="">nobody new</option>
            {avoidances.map(([code, label]) => (
              <option key={code} value={code}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn btn-primary h-12" disabled={isBusy || isCut}>
          {isCut ? 'Needs a network' : isBusy ? 'Looking at everybody …' : 'Look at everybody, and change it'}
        </button>
      </form>
      <div role={isRefused ? 'alert' : 'status'} className={`mt-2 font-semibold ${isRefused ? 'text-error' : ''}`}>
        {answer.map((line) => (
          <p key={line}>{line}</p>
        ))}
      </div>
    </section>
  );
}
