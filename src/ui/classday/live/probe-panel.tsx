'use client';

import { useEffect, useRef, useState } from 'react';
import { PROBE_WAYS } from '@/core/classday/doneness';
import type { LiveTask } from '@/core/classday/live/class-plan';
import { readDegrees } from '@/core/packing/made/batch';
import type { Say } from './use-class';

interface Props {
  readonly task: LiveTask;
  readonly profile: 'us' | 'uk';
  readonly say: Say;
  readonly close: () => void;
}

/** Takes a temperature from the probe, or as it is typed; what it means stands at the task. */
export function ProbePanel({ task, profile, say, close }: Props) {
  const [typed, setTyped] = useState('');
  const [wrong, setWrong] = useState('');
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  const keep = (tenths: number, source: 'typed' | 'probe') => {
    say('temperature', { item: task.id, value: { tenths, source } });
    close();
  };
  const read = async () => {
    const response = await fetch('/api/devices').catch(() => null);
    const celsius = response?.ok ? ((await response.json()) as { celsius: number | null }).celsius : null;
    if (celsius === null) setWrong('The probe is off, or does not answer: type what a thermometer shows.');
    else keep(Math.round(celsius * 10), 'probe');
  };
  return (
    <section aria-label="Temperature" className="mb-3 rounded-box border-2 border-primary p-4">
      <h2 className="text-xl font-bold">How hot is it inside? {task.text}</h2>
      <p className="mb-3">
        At least {task.inside?.said} for {task.inside?.kind}. {PROBE_WAYS.join(' ')}
      </p>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          const tenths = readDegrees(typed, profile);
          if (tenths === undefined)
            setWrong(`Write what the thermometer shows, such as ${profile === 'us' ? '165 (°F), or 74C' : '75 (°C)'}.`);
          else keep(tenths, 'typed');
        }}
      >
        <label className="flex flex-col gap-1">
          Typed, in {profile === 'us' ? '°F' : '°C'}
          <input
            ref={field}
            className="input h-12 w-32 text-xl"
            inputMode="decimal"
            value={typed}
            aria-invalid={wrong !== ''}
            aria-describedby={wrong ? 'probe-wrong' : undefined}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-primary h-12">
          Keep it
        </button>
        <button type="button" className="btn h-12" onClick={read}>
          Read the probe
        </button>
        <button
          type="button"
          className="btn h-12"
          onClick={() => {
            say('wrong', { item: task.dish, value: { text: `no temperature was taken: ${task.text}`.slice(0, 300) } });
            say('done', { item: task.id });
            close();
          }}
        >
          Done without a temperature
        </button>
        <button type="button" className="btn h-12" onClick={close}>
          Not now
        </button>
      </form>
      {wrong && (
        <p id="probe-wrong" role="alert" className="mt-2 font-semibold text-error">
          {wrong}
        </p>
      )}
    </section>
  );
}
