import { type FocusEvent, type KeyboardEvent, useRef, useState } from 'react';

/** One row of the table takes the focus; the arrows, Home and End lead it to others. */
export function useRowKeys({ open, select }: { open: (at: number) => void; select: (at: number) => void }) {
  const [active, setActive] = useState(0);
  const body = useRef<HTMLTableSectionElement>(null);
  const placeOf = (row: EventTarget) => [...(body.current?.rows ?? [])].indexOf(row as HTMLTableRowElement);
  const go = (to: number) => {
    const rows = body.current?.rows;
    if (!rows || rows.length === 0) return;
    const at = Math.max(0, Math.min(rows.length - 1, to));
    setActive(at);
    rows[at]?.focus();
  };
  return {
    active,
    body: {
      ref: body,
      onFocus: ({ target }: FocusEvent<HTMLTableSectionElement>) => {
        const row = target.closest('tr');
        if (row) setActive(Math.max(0, placeOf(row)));
      },
      onKeyDown: (event: KeyboardEvent<HTMLTableSectionElement>) => {
        // In a field or on a button of the row, keys do what they do there.
        const at = placeOf(event.target);
        if (at < 0) return;
        const moves: Readonly<Record<string, () => void>> = {
          ArrowDown: () => go(at + 1),
          ArrowUp: () => go(at - 1),
          Home: () => go(0),
          End: () => go(Number.POSITIVE_INFINITY),
          Enter: () => open(at),
          ' ': () => select(at),
        };
        const move = moves[event.key];
        if (!move) return;
        event.preventDefault();
        move();
      },
    },
  };
}
