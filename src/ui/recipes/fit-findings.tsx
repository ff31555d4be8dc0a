import { CircleCheck, CircleX, TriangleAlert } from 'lucide-react';
import type { Fit, FitVerdict } from '@/core/recipes/choosing/fit';

const SIGNS = {
  fits: { Icon: CircleCheck, colour: 'text-success' },
  'with care': { Icon: TriangleAlert, colour: '' },
  'does not fit': { Icon: CircleX, colour: 'text-error' },
} as const;

/** A verdict by sign and word. */
export function Verdict({ verdict }: { verdict: FitVerdict }) {
  const { Icon, colour } = SIGNS[verdict];
  return (
    <span className={`inline-flex items-center gap-1 text-sm font-semibold ${colour}`}>
      <Icon size={16} aria-hidden="true" /> {verdict}
    </span>
  );
}

/** Whether a dish suits a class: the verdict, and what was looked at, doubts first. */
export function FitFindings({ fit }: { fit: Fit }) {
  const doubts = fit.findings.filter(({ verdict }) => verdict !== 'fits');
  const rest = fit.findings.filter(({ verdict }) => verdict === 'fits');
  return (
    <div className="mt-1 text-sm">
      <Verdict verdict={fit.verdict} />
      {doubts.length > 0 && (
        <ul className="mt-1 flex flex-col gap-1">
          {doubts.map(({ say, verdict }) => (
            <li key={say}>
              <span className="sr-only">{verdict}: </span>
              {say}
            </li>
          ))}
        </ul>
      )}
      {rest.length > 0 && (
        <details className="mt-1">
          <summary className="cursor-pointer">
            {rest.length} {rest.length === 1 ? 'thing fits' : 'things fit'}
          </summary>
          <ul className="list-disc pl-5">
            {rest.map(({ say }) => (
              <li key={say}>{say}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
