'use client';

import { useState } from 'react';
import { v7 } from 'uuid';
import type { ClassPlan } from '@/core/classday/live/class-plan';
import type { Standing } from '@/core/classday/live/standing';
import { sayCount } from '@/core/quantity/say';
import { ask, type Say } from './use-class';

interface Again {
  readonly minutes: number;
  readonly late: number;
  readonly ways: readonly { readonly dish: string; readonly minutes: number; readonly fits: boolean }[];
}

/** Behind: what is overdue is called done at one tap, or the rest is planned again. */
export function Behind({
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
