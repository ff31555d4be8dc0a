'use client';

import { Check, Search, Snowflake, Undo2 } from 'lucide-react';
import { useState } from 'react';
import type { HandEvent } from '@/core/handout/handing';
import { STILL_HERE } from '@/core/handout/handing';
import { nameKey } from '@/core/roll/name-key';
import { Waiting } from '../buying/waiting';
import { HandKit, type TableKit } from './hand-kit';
import { useTable } from './use-table';

interface Props {
  readonly sessionId: string;
  readonly kits: readonly TableKit[];
  readonly events: readonly HandEvent[];
  readonly lentUsually: readonly string[];
}

const CODE = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** Kits that fit what is typed: a number, a part of a name, or the code of a label. */
function found(kits: readonly TableKit[], text: string): readonly TableKit[] {
  const wanted = text.trim();
  if (wanted === '') return kits;
  const [code] = CODE.exec(wanted) ?? [];
  if (code) return kits.filter(({ id }) => id === code.toLowerCase());
  if (/^\d+$/.test(wanted)) return kits.filter(({ number }) => String(number).startsWith(wanted));
  const parts = nameKey(wanted).split(' ');
  return kits.filter(({ name, household, collectors }) => {
    const all = nameKey([name, household, ...collectors].join(' '));
    return parts.every((part) => all.includes(part));
  });
}

/** Kits go out in the order people come: found by name, number or code, on as many phones as there are. */
export function HandOutTable({ sessionId, kits, events, lentUsually }: Props) {
  const table = useTable(
    sessionId,
    events,
    kits.filter(({ isCalledBack }) => isCalledBack).map(({ id }) => id),
  );
  const [text, setText] = useState('');
  const [opened, setOpened] = useState('');
  const { now, held, warned, say } = table;
  const stateOf = ({ id }: TableKit) => now.get(id) ?? STILL_HERE;
  const open = kits.filter((kit) => stateOf(kit).state === 'here');
  const gone = kits.filter((kit) => stateOf(kit).state === 'gone').length;
  const missed = kits.filter((kit) => stateOf(kit).state === 'not there').length;
  const shown = found(kits, text);
  const inOrder = [...shown].sort(
    (a, b) => Number(stateOf(a).state !== 'here') - Number(stateOf(b).state !== 'here') || a.number - b.number,
  );
  const doubled = kits.filter((kit) => stateOf(kit).against.length > 0);
  return (
    <div className="max-w-3xl">
      <Waiting count={table.waiting} isCut={table.isCut} message={table.trouble} />
      {warned.map(({ kitId, say: words }, at) => (
        <p
          key={`${kitId} ${at}`}
          role="alert"
          className="mb-3 rounded-box border-l-4 border-l-error bg-error/10 p-3 font-semibold"
        >
          {words}
        </p>
      ))}
      {doubled.map((kit) => (
        <p key={kit.id} className="mb-3 rounded-box border-l-4 border-l-warning bg-warning/10 p-3 font-semibold">
          Kit {kit.number} was handed out twice: open it, look which kit the second got, and take back what is wrong.
        </p>
      ))}
      <p role="status" className="mb-3 text-xl font-bold tabular-nums">
        {gone} of {kits.length} handed out
        {missed > 0 && `, ${missed} not fetched`}
      </p>
      <label className="input input-lg mb-4 flex w-full items-center gap-2">
        <Search aria-hidden="true" size={20} />
        <span className="sr-only">Name, number or code</span>
        <input
          type="search"
          className="grow"
          placeholder="Name, number or code"
          value={text}
          autoComplete="off"
          onChange={(event) => {
            setText(event.target.value);
            const [only, ...others] = found(kits, event.target.value);
            if (only && others.length === 0) setOpened(only.id);
          }}
        />
        {text && (
          <button type="button" className="btn btn-sm" onClick={() => setText('')}>
            Clear
          </button>
        )}
      </label>
      {shown.length === 0 && (
        <p className="mb-4">No kit of this session fits. A label of last week is not of this one.</p>
      )}
      <ul className="flex flex-col gap-2">
        {inOrder.map((kit) => {
          const { state, by } = stateOf(kit);
          const isOpen = opened === kit.id;
          const isHeld = held.has(kit.id);
          return (
            <li key={kit.id} className={`sheet ${isHeld ? 'border-2 border-error' : ''}`}>
              <button
                type="button"
                aria-expanded={isOpen}
                className="flex w-full flex-wrap items-center gap-x-4 gap-y-1 p-3 text-left"
                onClick={() => setOpened(isOpen ? '' : kit.id)}
              >
                <span className="font-display w-20 text-2xl font-bold tabular-nums">
                  {kit.number} {kit.variant}
                </span>
                <span className="min-w-0 grow">
                  <span className="block text-lg font-semibold">{kit.name}</span>
                  <span className="text-sm">
                    {[kit.household, kit.group].filter(Boolean).join(', ')}
                    {kit.said?.word === 'confirmed' && ' Said they come.'}
                    {kit.said?.word === 'later' && ` Needs it later: ${kit.said.note}`}
                  </span>
                </span>
                {kit.cold.length > 0 && state === 'here' && (
                  <span className="badge badge-lg gap-1">
                    <Snowflake aria-hidden="true" size={16} /> cold part
                  </span>
                )}
                <State state={state} who={by?.who ?? ''} isHeld={isHeld} isPacked={kit.isPacked} />
              </button>
              {isOpen && (
                <HandKit
                  kit={kit}
                  now={stateOf(kit)}
                  isHeld={isHeld}
                  lentUsually={lentUsually}
                  events={table.events}
                  say={(what, more) => say([kit.id], what, more)}
                />
              )}
            </li>
          );
        })}
      </ul>
      {open.length > 0 && gone > 0 && (
        <button
          type="button"
          className="btn mt-5 h-12"
          onClick={() =>
            say(
              open.map(({ id }) => id),
              'not there',
            )
          }
        >
          Nobody came for the {open.length} that are left
        </button>
      )}
    </div>
  );
}

function State({ state, who, isHeld, isPacked }: { state: string; who: string; isHeld: boolean; isPacked: boolean }) {
  if (isHeld) return <span className="font-bold text-error">called back: does not go</span>;
  if (state === 'gone')
    return (
      <span className="flex items-center gap-1 font-semibold">
        <Check aria-hidden="true" size={20} /> {who ? `to ${who}` : 'handed out'}
      </span>
    );
  if (state === 'not there')
    return (
      <span className="flex items-center gap-1">
        <Undo2 aria-hidden="true" size={18} /> not fetched
      </span>
    );
  if (state === 'came back') return <span>came back</span>;
  return isPacked ? null : <span className="text-sm">not packed whole</span>;
}
