'use client';

import { DataTable, type TableColumn } from '@/ui/table/data-table';

interface Way {
  readonly from: string;
  readonly to: string;
  readonly minutes: number;
}

const COLUMNS: readonly TableColumn<Way>[] = [
  { id: 'from', header: 'Between', isName: true, value: ({ from }) => from },
  { id: 'to', header: 'And', value: ({ to }) => to },
  { id: 'minutes', header: 'Minutes', isNumber: true, value: ({ minutes }) => minutes },
];

/** How long it takes from place to place. */
export function Ways({ ways }: { ways: readonly Way[] }) {
  return (
    <div className="mb-3">
      <DataTable label="Ways between places" rows={ways} idOf={({ from, to }) => `${from}|${to}`} columns={COLUMNS} />
    </div>
  );
}
