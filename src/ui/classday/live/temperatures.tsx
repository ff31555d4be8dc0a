'use client';

import { judgeInside, PROBE_WAYS } from '@/core/classday/doneness';
import type { ClassNow } from '@/core/classday/live/class-events';
import type { ClassPlan } from '@/core/classday/live/class-plan';
import { sayTenths } from '@/core/packing/made/batch';
import type { Heat } from '@/core/recipes/steps/step-plan';

interface Props {
  readonly plan: ClassPlan;
  readonly now: ClassNow;
  readonly profile: 'us' | 'uk';
  readonly timeOf: (at: string) => string;
  readonly probe: (taskId: string) => void;
}

const SAY = { safe: 'safe', hold: 'held, then probed again', 'go on': 'too low: cooked on' } as const;

/** Every temperature that the class asks for, with what was read, by whom and when. */
export function Temperatures({ plan, now, profile, timeOf, probe }: Props) {
  const asked = plan.tasks.filter(({ inside }) => inside);
  return (
    <section aria-label="Temperatures">
      <p className="mb-3 text-lg">{PROBE_WAYS.join(' ')}</p>
      {asked.map((task) => {
        const readings = now.readings.get(task.id) ?? [];
        return (
          <div key={task.id} className="mb-3 rounded-box border-2 border-base-300 p-3">
            <p className="text-lg font-semibold">
              {task.station ? `Station ${task.station}, ` : ''}
              {task.dish}: {task.text}
            </p>
            <p>
              At least {task.inside?.said} inside for {task.inside?.kind}, {task.inside?.rule} ({task.inside?.source}).
            </p>
            <ul className="list-disc pl-5">
              {readings.map(({ tenths, at, by, source }, n) => {
                const verdict =
                  task.inside && judgeInside(task.inside, readings.slice(0, n + 1), (task.heat || 'none') as Heat);
                return (
                  <li key={`${at}${tenths}`} className={verdict?.state === 'go on' ? 'font-semibold text-error' : ''}>
                    {timeOf(at)} {sayTenths(tenths, profile)}, {source}, {by}: {verdict ? SAY[verdict.state] : ''}
                  </li>
                );
              })}
            </ul>
            {readings.length === 0 && <p>Nothing was read yet.</p>}
            <button
              type="button"
              className="btn mt-2 h-12"
              aria-label={`Take a temperature: ${task.text}`}
              onClick={() => probe(task.id)}
            >
              Take a temperature
            </button>
          </div>
        );
      })}
    </section>
  );
}
