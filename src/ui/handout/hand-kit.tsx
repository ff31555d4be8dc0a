'use client';

import { useState } from 'react';
import { type HandEvent, type HandedNow, type Handing, lentNow } from '@/core/handout/handing';
import type { Saying } from '@/core/plan/saying';
import { useSaying } from '@/ui/saying';

export interface TableKit {
  readonly id: string;
  readonly number: number;
  readonly variant: string;
  readonly name: string;
  readonly group: string;
  /** Where it is not the name on the kit. */
  readonly household: string;
  readonly collectors: readonly string[];
  /** What of it is fetched from the fridge last. */
  readonly cold: readonly string[];
  readonly isPacked: boolean;
  readonly isCalledBack: boolean;
  /** Made without something, and nobody has looked into it a second time. */
  readonly isUnchecked: boolean;
  /** What the family has of earlier sessions. */
  readonly has: readonly string[];
  readonly said: { readonly word: string; readonly note: string } | null;
}

interface Props {
  readonly kit: TableKit;
  readonly now: HandedNow;
  readonly isHeld: boolean;
  readonly lentUsually: readonly string[];
  readonly events: readonly HandEvent[];
  readonly say: (what: Handing, more?: { readonly who?: string; readonly item?: string }) => void;
}

/** One kit at the table: is it theirs, who takes it, what goes along and what came back. */
export function HandKit({ kit, now, isHeld, lentUsually, events, say }: Props) {
  const [other, setOther] = useState('');
  const saying = useSaying();
  const isHere = now.state !== 'gone';
  const lentHere = [...lentNow(events.filter(({ kitId }) => kitId === kit.id)).keys()];
  const broughtHere = events
    .filter(({ kitId, what }) => kitId === kit.id && what === 'brought back')
    .map((e) => e.item);
  const owes = kit.has.filter((item) => !broughtHere.includes(item));
  return (
    <div className="border-t border-base-300 p-3">
      {isHeld ? (
        <p className="font-bold text-error">
          This kit is called back: set it apart, hand nothing out of it, and ask the coordinator.
        </p>
      ) : (
        isHere && (
          <>
            <p className="mb-2">
              Look at the label: <b>kit {kit.number}</b>, letter <b>{kit.variant}</b>, <b>{kit.name}</b>. Say the name,
              nothing else.
              {kit.cold.length > 0 && (
                <>
                  {' '}
                  Now fetch its cold part: <b>{kit.cold.join('; ')}</b>.
                </>
              )}
            </p>
            {kit.isUnchecked && (
              <p className="mb-2 rounded-box border-l-4 border-warning bg-warning/15 p-2 font-semibold">
                It is made without something, and nobody has looked into it a second time: have it looked into at the
                bench first.
              </p>
            )}
            <p className="mb-1 font-semibold">Who takes it?</p>
            <div className="flex flex-wrap gap-2">
              <button type="button" className="btn btn-primary h-12" onClick={() => say('handed')}>
                {kit.household || kit.name}
              </button>
              {kit.collectors.map((name) => (
                <button key={name} type="button" className="btn h-12" onClick={() => say('handed', { who: name })}>
                  {name}
                </button>
              ))}
              <span className="join">
                <input
                  className="input join-item h-12 w-44"
                  aria-label={`Somebody else takes kit ${kit.number}`}
                  placeholder="Somebody else"
                  value={other}
                  maxLength={120}
                  onChange={(event) => setOther(event.target.value)}
                />
                <button
                  type="button"
                  className="btn join-item h-12"
                  disabled={other.trim() === ''}
                  onClick={() => {
                    say('handed', { who: other.trim() });
                    setOther('');
                  }}
                >
                  took it
                </button>
              </span>
              {now.state === 'here' && (
                <button type="button" className="btn btn-ghost h-12" onClick={() => say('not there')}>
                  Nobody came
                </button>
              )}
            </div>
          </>
        )
      )}
      {now.by && (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          {saySaid(now.by, saying)}
          <button type="button" className="btn btn-sm" onClick={() => say('undone', { item: now.by?.id ?? '' })}>
            Take back: {saySaid(now.by, saying)}
          </button>
        </p>
      )}
      {now.against.map((event) => (
        <p key={event.id} className="mt-2 flex flex-wrap items-center gap-2 text-warning-content">
          <b>And again:</b> {saySaid(event, saying)}
          <button type="button" className="btn btn-sm" onClick={() => say('undone', { item: event.id })}>
            That was a slip
          </button>
        </p>
      ))}
      {now.state === 'gone' && (
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <span className="font-semibold">Lent with it:</span>
          {[...new Set([...lentHere, ...lentUsually])].map((item) => {
            const isLent = lentHere.includes(item);
            return (
              <button
                key={item}
                type="button"
                aria-pressed={isLent}
                className={`btn btn-sm ${isLent ? 'btn-primary' : ''}`}
                onClick={() => say(isLent ? 'brought back' : 'lent', { item })}
              >
                {item}
              </button>
            );
          })}
        </div>
      )}
      {owes.length > 0 && (
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <span className="font-semibold">They still have:</span>
          {owes.map((item) => (
            <button key={item} type="button" className="btn btn-sm" onClick={() => say('brought back', { item })}>
              {item} came back
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

const saySaid = ({ what, who, at }: HandEvent, { timeAt }: Saying): string => {
  const time = timeAt(new Date(at).toISOString());
  if (what === 'handed') return `${who ? `to ${who}` : 'handed out'} at ${time}`;
  return what === 'not there' ? `nobody came, ${time}` : `came back at ${time}`;
};
