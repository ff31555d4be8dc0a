'use client';

import type { ClassPlan } from '@/core/classday/live/class-plan';
import type { Standing } from '@/core/classday/live/standing';
import { sayCount } from '@/core/quantity/say';

/** How far the class is, in large figures. */
export function ClassClock({
  standing,
  plan,
  minute,
  isBegun,
  timeAt,
  isWall,
}: {
  standing: Standing | undefined;
  plan: ClassPlan | null;
  minute: number;
  isBegun: boolean;
  timeAt: (minute: number) => string;
  isWall: boolean;
}) {
  if (!plan || !standing) return null;
  if (!isBegun)
    return (
      <p className="text-lg">
        {plan.minutes} minutes of cooking, planned from {timeAt(0)} to {timeAt(plan.minutes)}.
      </p>
    );
  const left = standing.ends - minute;
  const isOver = standing.tasks.every(({ state }) => state === 'done');
  return (
    <p role="timer" className={isWall ? 'text-5xl' : 'text-xl'}>
      {isOver ? (
        <b>All dishes are done.</b>
      ) : (
        <>
          <b className="tabular-nums">{left} min left</b>, until {timeAt(standing.ends)}
        </>
      )}
      {!isOver && standing.behind > 0 && (
        <>
          , <b className="text-error">{sayCount(standing.behind, 'minute')} behind</b>
        </>
      )}
      {!isOver && standing.behind === 0 && ', on time'}
    </p>
  );
}
