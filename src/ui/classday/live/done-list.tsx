'use client';

import type { Standing } from '@/core/classday/live/standing';
import type { Say } from './use-class';

/** What is done, to take back what was tapped by mistake; and the beginning itself. */
export function DoneList({ standing, say }: { standing: Standing; say: Say }) {
  const done = standing.tasks.filter(({ state }) => state === 'done');
  return (
    <details className="mt-4">
      <summary className="min-h-11 cursor-pointer">{done.length} done; something was tapped by mistake</summary>
      <ul className="flex flex-col gap-2">
        {done.map(({ task }) => (
          <li key={task.id} className="flex flex-wrap items-center gap-3 border-t border-base-300 py-1">
            <span className="grow">
              {task.station ? `Station ${task.station}: ` : ''}
              {task.text}
            </span>
            <button
              type="button"
              className="btn h-11"
              aria-label={`Not done: ${task.text}`}
              onClick={() => say('not done', { item: task.id })}
            >
              Not done
            </button>
          </li>
        ))}
      </ul>
      <button type="button" className="btn mt-3 h-11" onClick={() => say('not begun')}>
        The cooking has not begun after all
      </button>
    </details>
  );
}
