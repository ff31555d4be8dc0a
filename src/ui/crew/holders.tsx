import type { Holder } from '@/core/crew/crew-standing';

/** How somebody stands with a duty: told by word and shape, not by colour alone. */
const STATES: Readonly<Record<Holder['state'], readonly [sign: string, words: string]>> = {
  accepted: ['●', 'said yes'],
  asked: ['◐', 'asked, no answer yet'],
  planned: ['○', 'planned, not asked yet'],
  declined: ['✕', 'cannot'],
  taken: ['–', 'asked; it is taken'],
  'ruled out': ['✕', 'ruled out by hand'],
};

/** Somebody at a duty, with how they stand to it. */
export function HolderLine({ holder }: { holder: Holder }) {
  const { name, state, note, moved, lapsed, isPinned, isOffered } = holder;
  const [sign, words] = STATES[state];
  const isGone = state === 'declined' || state === 'ruled out' || state === 'taken';
  return (
    <span className={isGone ? 'text-base-content/70' : ''}>
      <span aria-hidden="true">{sign}</span> <b className={isGone ? 'font-normal line-through' : ''}>{name}</b>{' '}
      <span className="text-sm">
        {words}
        {note && `: “${note}”`}
        {isPinned && state === 'planned' && ', by hand'}
        {isOffered && ', would give it away'}
        {lapsed && <span className="font-semibold text-error">, but may not: {lapsed}</span>}
        {moved && <span className="font-semibold text-error">, told another time or place</span>}
      </span>
    </span>
  );
}

/** The signs that stand before names, said once. */
export function StateKey() {
  const shown = ['accepted', 'asked', 'planned', 'declined'] as const;
  return (
    <p className="flex flex-wrap gap-x-4 text-sm">
      {shown.map((state) => (
        <span key={state} className="whitespace-nowrap">
          <span aria-hidden="true">{STATES[state][0]}</span> {STATES[state][1]}
        </span>
      ))}
    </p>
  );
}
