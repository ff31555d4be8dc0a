'use client';

import type { KeyboardEvent, ReactNode } from 'react';

/** The link or button of a cell. */
const inCell = (cell: Element | undefined) => cell?.querySelector<HTMLElement>('a[href], button');

/**
 * The arrows lead from number to number of a table in which cells open something: along a row, and down a column past cells that
 * hold nothing. Home and End go to the ends of a row.
 */
export function GridKeys({ children, className }: { children: ReactNode; className?: string }) {
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return;
    const cell = (event.target as Element).closest('td, th');
    const row = cell?.closest('tr');
    const table = row?.closest('table');
    if (!cell || !row || !table) return;
    const column = [...row.cells].indexOf(cell as HTMLTableCellElement);
    const rows = [...table.rows];
    const at = rows.indexOf(row);
    const along = (cells: Element[]) => cells.map(inCell).find(Boolean);
    const before = [...row.cells].slice(0, column).reverse();
    const after = [...row.cells].slice(column + 1);
    const ways: Readonly<Record<string, () => HTMLElement | null | undefined>> = {
      ArrowLeft: () => along(before),
      ArrowRight: () => along(after),
      ArrowUp: () =>
        along(
          rows
            .slice(0, at)
            .reverse()
            .flatMap((each) => each.cells[column] ?? []),
        ),
      ArrowDown: () => along(rows.slice(at + 1).flatMap((each) => each.cells[column] ?? [])),
      Home: () => along([...row.cells]),
      End: () => along([...row.cells].reverse()),
    };
    const next = ways[event.key]?.();
    if (!next) return;
    event.preventDefault();
    next.focus();
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keys belong to the links inside
    <div className={className} onKeyDown={onKeyDown}>
      {children}
    </div>
  );
}
