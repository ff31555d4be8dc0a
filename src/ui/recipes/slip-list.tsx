import { TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import { SLIP_KINDS, type Slip } from '@/core/recipes/slips/slip';

/** What smells like a slip: each with why, and what can be done about it. */
export function SlipList({ slips, children }: { slips: readonly Slip[]; children: (slip: Slip) => ReactNode }) {
  return (
    <ul className="flex flex-col gap-2" aria-label="What smells like a slip">
      {slips.map((slip) => (
        <li
          key={slip.key}
          className={`flex flex-wrap items-start gap-x-4 gap-y-2 rounded-box border-l-4 p-3 text-sm ${slip.kind === 'unsafe' ? 'border-error bg-error/10' : 'border-warning bg-warning/15'}`}
        >
          <div className="min-w-64 flex-1">
            <p className="flex gap-1.5 font-semibold">
              <TriangleAlert size={16} className="mt-0.5 shrink-0" aria-hidden="true" />
              <span>
                {SLIP_KINDS[slip.kind]}
                {slip.line === undefined ? '' : `, line ${slip.line + 1}`}
                {slip.step === undefined ? '' : `, step ${slip.step + 1}`}: {slip.say}
              </span>
            </p>
            <p>{slip.why}</p>
          </div>
          <div className="flex flex-wrap gap-1.5">{children(slip)}</div>
        </li>
      ))}
    </ul>
  );
}
