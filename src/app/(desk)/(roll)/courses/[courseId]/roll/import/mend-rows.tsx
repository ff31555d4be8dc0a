'use client';

import { useState } from 'react';
import type { CheckedRow, NumberedCells } from '@/core/roll/check-roll';
import { ROLL_COLUMNS, type RollColumn } from '@/core/roll/roll-row';

/** What is decided for many rows at once: who is on the roll already, and how many a kit feeds where nothing says. */
export function ForMany({
  checked,
  setRows,
}: {
  checked: readonly CheckedRow[];
  setRows: (change: (rows: readonly NumberedCells[]) => readonly NumberedCells[]) => void;
}) {
  const [feeds, setFeeds] = useState('1');
  const [age, setAge] = useState('');
  const waiting = checked.filter((row) => !row.leaveOut && !row.entry);
  const same = waiting.filter((row) => row.isNamedAlike && row.as !== 'update');
  const ageless = checked.filter((row) => !row.leaveOut && row.as !== 'update' && row.cells.age.trim() === '');
  const silent = waiting.filter((row) => row.cells.servings.trim() === '' && !row.isNamedAlike);
  const change = (which: readonly CheckedRow[], next: (row: NumberedCells) => NumberedCells) => {
    const lines = new Set(which.map(({ line }) => line));
    setRows((rows) => rows.map((row) => (lines.has(row.line) ? next(row) : row)));
  };
  if (same.length < 2 && silent.length < 2 && ageless.length === 0) return null;
  return (
    <div className="sheet flex flex-col gap-3 p-4">
      {same.length > 1 && (
        <p className="flex flex-wrap items-center gap-3">
          <span>
            <b>{same.length} rows</b> name somebody who is on the roll already. An update takes no avoidance away.
          </span>
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => change(same, (row) => ({ ...row, as: 'update' }))}
          >
            Update all {same.length}
          </button>
        </p>
      )}
      {ageless.length > 0 && (
        <p className="flex flex-wrap items-center gap-3">
          <label className="flex items-center gap-2">
            <span>
              <b>{ageless.length === 1 ? 'One row does' : `${ageless.length} rows do`}</b> not say an age. What is a
              danger to small children only (honey, whole nuts, grapes) is then not warned of. All are
            </span>
            <input
              className="input input-sm w-16"
              inputMode="numeric"
              value={age}
              onChange={(event) => setAge(event.target.value)}
            />
          </label>
          <button
            type="button"
            className="btn btn-sm"
            disabled={age.trim() === ''}
            onClick={() => change(ageless, (row) => ({ ...row, cells: { ...row.cells, age } }))}
          >
            Set this age for {ageless.length}
          </button>
        </p>
      )}
      {silent.length > 1 && (
        <p className="flex flex-wrap items-center gap-3">
          <label className="flex items-center gap-2">
            <span>
              <b>{silent.length} rows</b> do not say how many their kit feeds. Each feeds
            </span>
            <input
              className="input input-sm w-16"
              inputMode="numeric"
              value={feeds}
              onChange={(event) => setFeeds(event.target.value)}
            />
          </label>
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => change(silent, (row) => ({ ...row, cells: { ...row.cells, servings: feeds } }))}
          >
            Set for all {silent.length}
          </button>
        </p>
      )}
    </div>
  );
}

/** A row that is refused or was touched: typed anew, left out, or said to be somebody on the roll. */
export function MendRow({
  row,
  type,
  leaveOut,
  decide,
  atHome,
}: {
  row: CheckedRow;
  decide: (as: 'update' | 'new') => void;
  atHome: (home: 'same' | 'other') => void;
  type: (line: number, column: RollColumn, text: string) => void;
  leaveOut: (leave: boolean) => void;
}) {
  const { line, cells, problems } = row;
  return (
    <fieldset
      className={`sheet border-l-4 p-3 ${row.leaveOut ? 'border-l-base-300' : problems.length > 0 ? 'border-l-error' : 'border-l-success'}`}
    >
      <legend className="sr-only">Line {line}</legend>
      <div className="flex flex-wrap items-end gap-2">
        <b className="w-16 self-center">Line {line}</b>
        {ROLL_COLUMNS.filter((column) => cells[column] !== undefined).map((column) => (
          <label
            key={column}
            className={`flex flex-col gap-0.5 ${column === 'name' || column === 'avoids' ? 'min-w-40 flex-1' : 'w-24'}`}
          >
            <span className="text-xs font-semibold">{column}</span>
            <input
              className={`input input-sm w-full ${!row.leaveOut && problems.some((problem) => problem.column === column) ? 'input-error' : ''}`}
              value={cells[column]}
              disabled={row.leaveOut}
              onChange={(event) => type(line, column, event.target.value)}
            />
          </label>
        ))}
        <label className="flex items-center gap-2 py-1.5 text-sm">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={Boolean(row.leaveOut)}
            onChange={(event) => leaveOut(event.target.checked)}
          />{' '}
          Leave out
        </label>
      </div>
      {!row.leaveOut && (
        <ul className="mt-1 text-sm">
          {problems.map((problem) => (
            <li key={problem.column + problem.message}>
              <b>{problem.column}:</b> {problem.message}
            </li>
          ))}
          {problems.length === 0 && (
            <li>
              {row.as === 'update'
                ? `Updates ${row.onRoll?.name}: ${row.changes?.join('; ') || 'no kit changes'}.`
                : 'Mended.'}
            </li>
          )}
        </ul>
      )}
      {!row.leaveOut && !row.onRoll && (row.isNearAnother || row.as === 'new') && (
        <button
          type="button"
          className={`btn mt-2 w-fit btn-sm ${row.as === 'new' ? 'btn-primary' : ''}`}
          aria-pressed={row.as === 'new'}
          onClick={() => decide('new')}
        >
          It is somebody else
        </button>
      )}
      {!row.leaveOut && row.isOtherHome && (
        <div className="mt-2 flex gap-2">
          {(['same', 'other'] as const).map((home) => (
            <button
              key={home}
              type="button"
              className={`btn btn-sm ${row.home === home ? 'btn-primary' : ''}`}
              aria-pressed={row.home === home}
              onClick={() => atHome(home)}
            >
              {home === 'same' ? 'The same family' : 'Another family'}
            </button>
          ))}
        </div>
      )}
      {!row.leaveOut && row.onRoll && (
        <div className="mt-2 flex gap-2">
          <button
            type="button"
            className={`btn btn-sm ${row.as === 'update' ? 'btn-primary' : ''}`}
            aria-pressed={row.as === 'update'}
            onClick={() => decide('update')}
          >
            Update {row.onRoll.name}
          </button>
          <button
            type="button"
            className={`btn btn-sm ${row.as === 'new' ? 'btn-primary' : ''}`}
            aria-pressed={row.as === 'new'}
            onClick={() => decide('new')}
          >
            It is somebody else
          </button>
        </div>
      )}
    </fieldset>
  );
}
