'use client';

import type { SortingState } from '@tanstack/react-table';
import { Columns3 } from 'lucide-react';
import { Fragment, useId } from 'react';

/** What of a column these need. */
interface Column {
  readonly id: string;
  readonly header: string;
  readonly isName?: true;
}

/** The field that finds rows: what is typed is there at once, the rows follow. */
export function Find({ label, value, onChange }: { label: string; value: string; onChange: (text: string) => void }) {
  const id = useId();
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-sm font-semibold">
        {label}
      </label>
      <input
        id={id}
        type="search"
        className="input w-64"
        defaultValue={value}
        onInput={(event) => onChange(event.currentTarget.value)}
      />
    </div>
  );
}

/** On a phone the headings are not shown: what it is sorted by is chosen. */
export function SortOnPhone({
  columns,
  sorting: [now],
  onChange,
}: {
  columns: readonly Column[];
  sorting: SortingState;
  onChange: (sort: string) => void;
}) {
  const id = useId();
  return (
    <div className="flex flex-col gap-1 sm:hidden">
      <label htmlFor={id} className="text-sm font-semibold">
        In order of
      </label>
      <select
        id={id}
        className="select w-40"
        value={now && `${now.id}${now.desc ? '.down' : ''}`}
        onChange={({ currentTarget: { value } }) => onChange(value)}
      >
        {columns.map(({ id: column, header }) => (
          <Fragment key={column}>
            <option value={column}>{header}</option>
            <option value={`${column}.down`}>{header}, last first</option>
          </Fragment>
        ))}
      </select>
    </div>
  );
}

/** Which columns are shown. */
export function ChooseColumns({
  columns,
  hidden,
  onChange,
}: {
  columns: readonly Column[];
  hidden: readonly string[];
  onChange: (hidden: readonly string[]) => void;
}) {
  return (
    <details className="dropdown">
      <summary className="btn">
        <Columns3 size={16} aria-hidden="true" /> Columns
      </summary>
      <ul className="menu dropdown-content z-10 w-52 rounded-box bg-base-100 p-2 shadow">
        {columns
          .filter(({ isName }) => !isName)
          .map(({ id, header }) => (
            <li key={id}>
              <label>
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm"
                  checked={!hidden.includes(id)}
                  onChange={({ currentTarget: { checked } }) =>
                    onChange(checked ? hidden.filter((each) => each !== id) : [...hidden, id])
                  }
                />
                {header}
              </label>
            </li>
          ))}
      </ul>
    </details>
  );
}
