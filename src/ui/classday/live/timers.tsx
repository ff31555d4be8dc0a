'use client';

import { useEffect, useRef } from 'react';
import type { ClassTimer } from '@/core/classday/live/class-events';
import type { Say } from './use-class';

const two = (value: number) => String(Math.floor(value)).padStart(2, '0');

/** Timers that run, the next to ring first; one that is over says so until somebody stops it. */
export function Timers({
  timers,
  clock,
  say,
  isWall,
}: {
  timers: readonly ClassTimer[];
  clock: number;
  say: Say;
  isWall: boolean;
}) {
  const left = timers
    .map((timer) => ({ timer, seconds: Math.round((Date.parse(timer.at) + timer.minutes * 60_000 - clock) / 1000) }))
    .sort((a, b) => a.seconds - b.seconds);
  const over = left.filter(({ seconds }) => seconds <= 0).map(({ timer }) => timer.id);
  useRing(over);
  if (left.length === 0) return null;
  return (
    <section aria-label="Timers" className="mb-3 flex flex-wrap gap-3">
      {left.map(({ timer, seconds }) => (
        <div
          key={timer.id}
          role={seconds <= 0 ? 'alert' : undefined}
          className={`flex items-center gap-3 rounded-box border-2 px-3 py-2 ${seconds <= 0 ? 'border-error bg-error/20' : 'border-base-300'}`}
        >
          <b className={`tabular-nums ${isWall ? 'text-5xl' : 'text-3xl'}`}>
            {seconds <= 0 ? 'Time!' : `${two(seconds / 60)}:${two(seconds % 60)}`}
          </b>
          <span className="max-w-56 text-sm">{timer.text}</span>
          {!isWall && (
            <button
              type="button"
              className="btn h-11"
              aria-label={`Stop the timer: ${timer.text}`}
              onClick={() => say('timer off', { item: timer.id })}
            >
              Stop
            </button>
          )}
        </div>
      ))}
    </section>
  );
}

/** Three short tones when a timer ends; silent where a browser lets nothing sound. */
function useRing(over: readonly string[]): void {
  const rung = useRef(new Set<string>());
  useEffect(() => {
    const fresh = over.filter((id) => !rung.current.has(id));
    for (const id of fresh) rung.current.add(id);
    if (fresh.length === 0 || !('AudioContext' in window)) return;
    const audio = new AudioContext();
    for (const at of [0, 0.4, 0.8]) {
      const tone = audio.createOscillator();
      tone.frequency.value = 880;
      tone.connect(audio.destination);
      tone.start(audio.currentTime + at);
      tone.stop(audio.currentTime + at + 0.2);
    }
    setTimeout(() => void audio.close(), 2000);
  }, [over]);
}
