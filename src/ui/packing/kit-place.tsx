interface Props {
  readonly number: number;
  readonly state: 'open' | 'in' | 'without' | 'held';
  readonly what: string;
  readonly onPress: (() => void) | undefined;
}

/** One kit's place on the tray: its number, and whether the component is in. */
export function KitPlace({ number, state, what, onPress }: Props) {
  const look = {
    open: 'border-base-content/70 bg-base-100',
    in: 'border-success bg-success text-success-content',
    without: 'border-dashed border-base-content/50 bg-transparent',
    held: 'border-4 border-error bg-transparent text-error',
  }[state];
  const words = { open: 'not in yet', in: 'in', without: 'goes without', held: 'is called back' }[state];
  return (
    <button
      type="button"
      disabled={!onPress}
      aria-pressed={state === 'open' || state === 'in' ? state === 'in' : undefined}
      aria-label={`Kit ${number}: ${what} ${words}`}
      onClick={onPress}
      className={`flex size-20 cursor-pointer flex-col items-center justify-center rounded-box border-2 disabled:cursor-default ${look}`}
    >
      <span className="text-3xl font-bold leading-none tabular-nums">{number}</span>
      <span className="text-sm font-semibold" aria-hidden="true">
        {{ open: '', in: '✓ in', without: 'without', held: 'stop' }[state]}
      </span>
    </button>
  );
}
