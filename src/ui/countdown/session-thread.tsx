import Link from 'next/link';
import type { Knot } from '@/core/countdown/thread';
import type { Saying } from '@/core/plan/saying';
import { type StageKey, stageHref } from '@/core/stages/stages';

import { KnotShape } from './knot';

/** A session's thread across the top of its pages: the knots it needs, which are also the way through the stages. */
export function SessionThreadNav({
  session,
  knots,
  current,
  say,
}: {
  session: { id: string; courseId: string };
  knots: readonly Knot[];
  current: StageKey | undefined;
  say: Saying;
}) {
  return (
    <nav aria-label="Stages of this session" className="no-print sheet mb-6 overflow-x-auto px-2 py-3">
      <ol className="flex min-w-[60rem]">
        {knots
          .filter(({ state }) => state !== 'not needed')
          .map((knot) => {
            const here = knot.stage === current;
            const inside = (
              <>
                <span className="relative flex w-full items-center justify-center">
                  <span className="absolute inset-x-0 top-1/2 h-0.5 -translate-y-1/2 bg-base-300" aria-hidden="true" />
                  <span className="relative bg-base-100 px-1">
                    <KnotShape state={knot.state} size={22} />
                  </span>
                </span>
                <span className={`text-sm font-bold ${here ? 'underline decoration-2 underline-offset-4' : ''}`}>
                  {knot.title}
                </span>
                <span className="text-xs">{knot.state}</span>
                {knot.planned && <span className="text-xs font-semibold">planned {say.moment(knot.planned)}</span>}
                <span className="text-xs text-base-content/75">
                  {knot.planned && 'latest '}
                  {say.moment(knot.latest)}
                </span>
              </>
            );
            const look = 'flex flex-1 flex-col items-center gap-0.5 rounded-field px-1 py-1 text-center';
            return (
              <li key={knot.stage} className="flex flex-1">
                <Link
                  href={stageHref(knot.stage, session)}
                  aria-current={here ? 'page' : undefined}
                  title={say.text(knot.why)}
                  className={`${look} hover:bg-base-200`}
                >
                  {inside}
                </Link>
              </li>
            );
          })}
      </ol>
    </nav>
  );
}
