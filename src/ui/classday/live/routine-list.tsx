'use client';

import type { SaidBy } from '@/core/classday/live/class-events';
import { type Routine, tickOf } from '@/core/classday/routines';
import type { Say } from './use-class';

interface Props {
  readonly routine: Routine;
  readonly title: string;
  readonly lines: readonly string[];
  readonly ticked: ReadonlyMap<string, SaidBy>;
  readonly say: Say;
  readonly timeOf: (at: string) => string;
}

/** The programme's own lines, each ticked by somebody at some time. */
export function RoutineList({ routine, title, lines, ticked, say, timeOf }: Props) {
  if (lines.length === 0) return null;
  const done = lines.filter((line) => ticked.has(tickOf(routine, line))).length;
  return (
    <section aria-label={title} className="mb-5">
      <h2 className="mb-2 text-2xl font-bold">
        {title}{' '}
        <span className="text-base font-normal">
          {done} of {lines.length}
        </span>
      </h2>
      <ul className="flex flex-col gap-2">
        {lines.map((line) => {
          const item = tickOf(routine, line);
          const by = ticked.get(item);
          return (
            <li key={line}>
              <label
                className={`flex min-h-14 items-center gap-4 rounded-box border-2 p-3 text-lg ${by ? 'border-success' : 'border-base-300'}`}
              >
                <input
                  type="checkbox"
                  className="checkbox checkbox-lg"
                  checked={by !== undefined}
                  onChange={() => say(by ? 'not ticked' : 'ticked', { item })}
                />
                <span className="grow">{line}</span>
                {by && (
                  <span className="text-sm whitespace-nowrap">
                    {by.by}, {timeOf(by.at)}
                  </span>
                )}
              </label>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
