'use client';

import {
  columnFilteringFeature,
  columnVisibilityFeature,
  createColumnHelper,
  createFilteredRowModel,
  createSortedRowModel,
  globalFilteringFeature,
  type RowSelectionState,
  rowSelectionFeature,
  rowSortingFeature,
  type SortingState,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import {
  memo,
  type ReactNode,
  startTransition,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useState,
} from 'react';
import { flushSync } from 'react-dom';
import { nameKey } from '@/core/roll/name-key';
import { AS } from './stacked';
import { ChooseColumns, Find, SortOnPhone } from './table-tools';
import { useAddress } from './use-address';
import { useAfterPause } from './use-after-pause';
import { useRemembered } from './use-remembered';
import { useRowKeys } from './use-row-keys';

/** One column of a table. */
export interface TableColumn<Row> {
  readonly id: string;
  readonly header: string;
  /** What it is sorted by, and found by. */
  readonly value: (row: Row) => string | number;
  /** What is shown; the value where it is left out. */
  readonly show?: (row: Row) => ReactNode;
  readonly isNumber?: true;
  /** A word or two: it stays on one line. */
  readonly isShort?: true;
  /** It names the row, and cannot be put away. */
  readonly isName?: true;
}

interface Props<Row> {
  readonly label: string;
  readonly rows: readonly Row[];
  readonly idOf: (row: Row) => string;
  readonly columns: readonly TableColumn<Row>[];
  /** The field above it that finds rows by what stands in them; left out, there is none. */
  readonly find?: string;
  /** Beside that field: a choice of which rows are shown. */
  readonly choices?: ReactNode;
  /** What can be done with a row: its own cell at the end. */
  readonly actions?: (row: Row) => ReactNode;
  /** What can be done with those that are selected; left out, none can be. */
  readonly forSelected?: (rows: readonly Row[], clear: () => void) => ReactNode;
  /** What Enter on a row does. */
  readonly open?: (row: Row) => void;
  /** How many rows there are in all, where a choice leaves some out. */
  readonly of?: number;
  /** The row that is being changed. */
  readonly current?: string | undefined;
}

const features = tableFeatures({
  columnFilteringFeature,
  columnVisibilityFeature,
  globalFilteringFeature,
  rowSelectionFeature,
  rowSortingFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
});

/** Everything that is written in a row, in one form however it is capitalised or accented. */
const wordsIn = <Row,>(row: Row, columns: readonly TableColumn<Row>[]) =>
  nameKey(columns.map(({ value }) => value(row)).join(' '));

/**
 * A table of rows: sorted by its headings, filtered as one types, its columns chosen, several of its rows selected and
 * changed at once. The arrows go from row to row, Enter opens one, the space bar selects it. What it shows is in the address,
 * so that it can be sent to somebody.
 */
export function DataTable<Row>(props: Props<Row>) {
  const { label, rows, idOf, columns, find, choices, actions, forSelected, open, of = rows.length, current } = props;
  const [address, setAddress] = useAddress();
  const remember = useRemembered(label, address, setAddress);
  const [selection, setSelection] = useState<RowSelectionState>({});
  const sorting = useMemo<SortingState>(() => {
    const [id, way] = (address.sort ?? '').split('.');
    return [{ id: id || (columns[0]?.id ?? ''), desc: way === 'down' }];
  }, [address.sort, columns]);
  const without = address.without ?? '';
  const hidden = useMemo(() => without.split(','), [without]);
  const [typed, setTyped] = useState(address.q ?? '');
  const sought = useDeferredValue(nameKey(typed));
  const toAddress = useAfterPause(setAddress);
  /** The rows follow each letter; the address, which the whole page follows, a pause. */
  const seek = (q: string) => {
    setTyped(q);
    toAddress({ q });
  };
  const definitions = useMemo(() => {
    const helper = createColumnHelper<typeof features, { readonly row: Row; readonly words: string }>();
    return helper.columns(
      columns.map(({ id, value }) =>
        helper.accessor(({ row }) => value(row), {
          id,
          sortFn: (a, b) => compare(a.getValue(id), b.getValue(id)) || compare(a.id, b.id),
        }),
      ),
    );
  }, [columns]);
  const data = useMemo(() => rows.map((row) => ({ row, words: wordsIn(row, columns) })), [rows, columns]);
  const table = useTable({
    features,
    columns: definitions,
    data,
    getRowId: ({ row }) => idOf(row),
    enableSortingRemoval: false,
    globalFilterFn: (line, _column, words: string) => line.original.words.includes(words),
    getColumnCanGlobalFilter: () => true,
    state: {
      sorting,
      globalFilter: sought,
      rowSelection: selection,
      columnVisibility: Object.fromEntries(hidden.map((id) => [id, false])),
    },
    onRowSelectionChange: setSelection,
  });
  const lines = table.getRowModel().rows;
  const shown = useMemo(() => columns.filter(({ id, isName }) => isName || !hidden.includes(id)), [columns, hidden]);
  const selected = rows.filter((row) => selection[idOf(row)]);
  const sortBy = (id: string) => {
    const [now] = sorting;
    remember({ sort: now?.id === id && !now.desc ? `${id}.down` : id });
  };
  const select = useCallback(
    (id: string) => setSelection(({ [id]: was = false, ...rest }) => ({ ...rest, ...(was ? {} : { [id]: true }) })),
    [],
  );
  const [most, drawAll] = useRowsDrawn();
  const keys = useRowKeys({
    open: (at) => {
      const line = lines[at];
      if (line) open?.(line.original.row);
    },
    select: (at) => {
      const line = lines[at];
      if (line && forSelected) select(line.id);
    },
  });
  return (
    <div className="flex min-w-0 flex-col gap-3">
      <div className="no-print flex flex-wrap items-end gap-2">
        {find !== undefined && <Find label={find} value={typed} onChange={seek} />}
        {choices}
        <SortOnPhone columns={shown} sorting={sorting} onChange={(sort) => remember({ sort })} />
        <ChooseColumns columns={columns} hidden={hidden} onChange={(ids) => remember({ without: ids.join(',') })} />
        <span className="mb-2 text-sm" role="status">
          {lines.length === of ? `${of} in all` : `${lines.length} of ${of} found`}
        </span>
      </div>
      {forSelected && selected.length > 0 && (
        <div className="no-print flex flex-wrap items-center gap-2 rounded-box bg-base-200 p-2 text-sm">
          <b>{selected.length} selected</b>
          {forSelected(selected, () => setSelection({}))}
          <button type="button" className="btn btn-sm" onClick={() => setSelection({})}>
            Select none
          </button>
        </div>
      )}
      <div className="sheet overflow-x-auto">
        <table {...AS.table} className="table stacked" aria-label={label}>
          <thead {...AS.rowgroup}>
            <tr {...AS.row}>
              {forSelected && (
                <th scope="col" className="no-print w-8">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-sm"
                    aria-label="Select all that are found"
                    checked={lines.length > 0 && lines.every((line) => line.getIsSelected())}
                    onChange={(event) => table.toggleAllRowsSelected(event.currentTarget.checked)}
                  />
                </th>
              )}
              {shown.map(({ id, header, isNumber }) => {
                const [now] = sorting;
                const way = now?.id !== id ? undefined : now.desc ? 'descending' : 'ascending';
                return (
                  <th key={id} scope="col" aria-sort={way} className={isNumber ? 'text-right' : ''}>
                    <button type="button" className="link inline-flex items-center gap-1" onClick={() => sortBy(id)}>
                      {header}
                      {way === 'ascending' && <ArrowUp size={14} aria-hidden="true" />}
                      {way === 'descending' && <ArrowDown size={14} aria-hidden="true" />}
                    </button>
                  </th>
                );
              })}
              {actions && (
                <th scope="col">
                  <span className="sr-only">Change</span>
                </th>
              )}
            </tr>
          </thead>
          <tbody {...AS.rowgroup} {...keys.body}>
            {lines.slice(0, most).map((line, at) => (
              <Line
                key={line.id}
                id={line.id}
                row={line.original.row}
                shown={shown}
                isActive={at === keys.active}
                isSelected={forSelected ? line.getIsSelected() : undefined}
                isCurrent={line.id === current}
                actions={actions}
                select={select}
              />
            ))}
          </tbody>
        </table>
        {lines.length > most && (
          <p className="p-3">
            <button type="button" className="btn" onClick={drawAll}>
              Show all {lines.length}
            </button>
          </p>
        )}
      </div>
    </div>
  );
}

interface LineProps<Row> {
  readonly id: string;
  readonly row: Row;
  readonly shown: readonly TableColumn<Row>[];
  readonly isActive: boolean;
  /** Undefined where none can be. */
  readonly isSelected: boolean | undefined;
  readonly isCurrent: boolean;
  readonly actions: ((row: Row) => ReactNode) | undefined;
  readonly select: (id: string) => void;
}

function LineOf<Row>({ id, row, shown, isActive, isSelected, isCurrent, actions, select }: LineProps<Row>) {
  return (
    <tr {...AS.row} tabIndex={isActive ? 0 : -1} aria-selected={isSelected} className={isCurrent ? 'bg-base-200' : ''}>
      {isSelected !== undefined && (
        <td {...AS.cell} className="no-print">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            tabIndex={-1}
            aria-label={`Select ${shown[0]?.value(row)}`}
            checked={isSelected}
            onChange={() => select(id)}
          />
        </td>
      )}
      {shown.map(({ id: column, header, value, show, isNumber, isShort, isName }) => {
        const content = show ? show(row) : value(row);
        return isName ? (
          <th key={column} {...AS.rowheader} scope="row" className="font-semibold">
            {content}
          </th>
        ) : (
          <td
            key={column}
            {...AS.cell}
            data-label={header}
            className={`${isNumber ? 'text-right' : isShort ? 'whitespace-nowrap' : ''} ${value(row) === '' ? 'max-sm:hidden' : ''}`}
          >
            {content}
          </td>
        );
      })}
      {actions && <td {...AS.cell}>{actions(row)}</td>}
    </tr>
  );
}

/** A row is drawn again when something of it changes: of five hundred, a letter in the search changes few. What it can do follows its row alone. */
const Line = memo(
  LineOf,
  (before, after) =>
    before.row === after.row &&
    before.shown === after.shown &&
    before.isActive === after.isActive &&
    before.isSelected === after.isSelected &&
    before.isCurrent === after.isCurrent,
) as typeof LineOf;

/** Rows of the first picture; the others follow when the page is alive. */
const FIRST_ROWS = 40;
/** Rows that are drawn where nobody asks for all: further down one searches, and does not read. */
const USUAL_ROWS = 150;

/** How many rows are drawn, and what draws all of them; on paper they all are. */
function useRowsDrawn(): [number, () => void] {
  const [most, setMost] = useState(FIRST_ROWS);
  const all = useCallback(() => setMost(Number.POSITIVE_INFINITY), []);
  useEffect(() => {
    startTransition(() => setMost((now) => Math.max(now, USUAL_ROWS)));
    const print = () => flushSync(all);
    window.addEventListener('beforeprint', print);
    return () => window.removeEventListener('beforeprint', print);
  }, [all]);
  return [most, all];
}

const compare = (a: unknown, b: unknown): number =>
  typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b));
