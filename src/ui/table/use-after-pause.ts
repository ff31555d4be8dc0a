import { useCallback, useEffect, useRef } from 'react';

/** After so long without a letter the address says what is sought, in milliseconds. */
const PAUSE = 250;

/**
 * Tells something after a pause, and before anything is pressed meanwhile: an address that is written while another page is on its way
 * would call that page off.
 */
export function useAfterPause<Told>(tell: (told: Told) => void): (told: Told) => void {
  const waiting = useRef<{ readonly timer: ReturnType<typeof setTimeout>; readonly told: Told }>(undefined);
  const settle = useCallback(() => {
    const { current } = waiting;
    waiting.current = undefined;
    clearTimeout(current?.timer);
    if (current) tell(current.told);
  }, [tell]);
  useEffect(() => {
    const pressed = (event: Event) => {
      if (!(event instanceof KeyboardEvent) || event.key === 'Enter') settle();
    };
    const kinds = ['click', 'keydown'] as const;
    for (const kind of kinds) document.addEventListener(kind, pressed, true);
    return () => {
      for (const kind of kinds) document.removeEventListener(kind, pressed, true);
      // Its own page is gone: nothing is written over the next one's address.
      clearTimeout(waiting.current?.timer);
    };
  }, [settle]);
  return (told) => {
    clearTimeout(waiting.current?.timer);
    waiting.current = { timer: setTimeout(settle, PAUSE), told };
  };
}
