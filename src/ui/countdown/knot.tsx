import type { ReactNode } from 'react';
import type { KnotState } from '@/core/countdown/thread';

const COLOUR: Readonly<Record<KnotState, string>> = {
  'due later': 'text-base-content/60',
  'can start': 'text-primary',
  doing: 'text-info',
  done: 'text-success',
  late: 'text-error',
  'cannot be met': 'text-error',
  'not needed': 'text-base-content/50',
};

/** A knot's shape: each state has its own, so that no state is told by colour alone. Drawn from the symbols below. */
export function KnotShape({ state, size = 20 }: { state: KnotState; size?: number }) {
  return (
    <svg aria-hidden="true" width={size} height={size} className={`${COLOUR[state]} shrink-0`}>
      <use href={`#${symbolId(state)}`} />
    </svg>
  );
}

const symbolId = (state: KnotState) => `knot-${state.replaceAll(' ', '-')}`;

/** The shapes themselves, once a page: a countdown shows hundreds of knots. */
export function KnotSymbols() {
  return (
    <svg aria-hidden="true" width="0" height="0" className="absolute">
      <Shape state="due later">
        <circle cx="10" cy="10" r="4.5" fill="var(--color-base-100)" strokeDasharray="2.4 2" />
      </Shape>
      <Shape state="can start">
        <path d="M10 2.5 17.5 10 10 17.5 2.5 10Z" fill="var(--color-base-100)" />
      </Shape>
      <Shape state="doing">
        <circle cx="10" cy="10" r="7" fill="var(--color-base-100)" />
        <path d="M10 3a7 7 0 0 1 0 14Z" fill="currentColor" stroke="none" />
      </Shape>
      <Shape state="done">
        <circle cx="10" cy="10" r="7.5" fill="currentColor" />
        <path d="m6.5 10.3 2.4 2.4 4.6-5" stroke="var(--color-base-100)" />
      </Shape>
      <Shape state="late">
        <path d="M10 2.2 18.4 17H1.6Z" fill="currentColor" strokeLinejoin="round" />
        <path d="M10 7.4v4.4M10 14.2v.6" stroke="var(--color-base-100)" />
      </Shape>
      <Shape state="cannot be met">
        <path d="M10 2.2 18.4 17H1.6Z" fill="var(--color-base-100)" strokeLinejoin="round" />
        <path d="M10 7.4v4.4M10 14.2v.6" />
      </Shape>
      <Shape state="not needed">
        <path d="M5 10h10" strokeWidth="2.5" />
      </Shape>
    </svg>
  );
}

function Shape({ state, children }: { state: KnotState; children: ReactNode }) {
  return (
    <symbol id={symbolId(state)} viewBox="0 0 20 20" fill="none" stroke="currentColor" strokeWidth="2">
      {children}
    </symbol>
  );
}

/** What each shape says, for the foot of a page. */
export function KnotLegend() {
  const states: KnotState[] = ['due later', 'can start', 'doing', 'done', 'late', 'cannot be met', 'not needed'];
  return (
    <ul
      className="no-print flex flex-wrap gap-x-5 gap-y-1 text-sm text-base-content/80"
      aria-label="What the knots mean"
    >
      {states.map((state) => (
        <li key={state} className="flex items-center gap-1.5">
          <KnotShape state={state} size={16} /> {state}
        </li>
      ))}
    </ul>
  );
}
