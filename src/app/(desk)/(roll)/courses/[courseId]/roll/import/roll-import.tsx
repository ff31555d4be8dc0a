'use client';

import Link from 'next/link';
import { useMemo, useRef, useState, useTransition } from 'react';
import { LARGEST_FILE } from '@/contracts/files';
import { type CheckedRow, checkRoll, type NumberedCells, type OnRoll } from '@/core/roll/check-roll';
import type { KnownHome } from '@/core/roll/families';
import { ROLL_COLUMNS, type RollColumn } from '@/core/roll/roll-row';
import { FormMessage } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { Progress } from '@/ui/progress';
import { sendForReading } from '@/ui/read-file';
import { saveImport } from '../actions';
import { type Columns, type Heading, MatchColumns } from './match-columns';
import { ForMany, MendRow } from './mend-rows';
import { Understood } from './understood';

interface Preview {
  readonly rows: readonly NumberedCells[];
  readonly encoding: string;
  readonly delimiter: string;
  readonly ignored: readonly string[];
  readonly enrolled: readonly OnRoll[];
  readonly meanings: readonly (readonly [string, readonly string[]])[];
  readonly groups: readonly string[];
  readonly homes: readonly KnownHome[];
  readonly headings: readonly Heading[];
  readonly notes: readonly string[];
}

/** A roll file: chosen, read, mended where needed, then saved all at once. */
export function RollImport({ courseId }: { courseId: string }) {
  const [file, setFile] = useState<File | null>(null);
  /** What headings mean, as somebody said here: sent with the file, and kept when it is saved. */
  const [columns, setColumns] = useState<Columns>({});
  const [unclear, setUnclear] = useState<readonly Heading[]>([]);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [rows, setRows] = useState<readonly NumberedCells[]>([]);
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [busy, start] = useTransition();
  const reading = useRef<AbortController>(null);
  // The same rules as on the server, run as one types.
  const checked = useMemo(
    () => (preview ? checkRoll(rows, preview.enrolled, preview.groups, preview.homes) : []),
    [preview, rows],
  );
  const refused = checked.filter((row) => !row.leaveOut && !row.entry);
  const unchanged = checked.filter(isAsItWas);
  const good = checked.filter((row) => !row.leaveOut && row.entry);

  function read(file: File, words: Columns = {}) {
    setFile(file);
    setColumns(words);
    start(async () => {
      reading.current = new AbortController();
      setPreview(null);
      setAnswer(null);
      setUnclear([]);
      if (file.size > LARGEST_FILE) {
        setAnswer({
          ok: false,
          message: `${file.name} has ${(file.size / 1024 / 1024).toFixed(0)} MB; a roll has at most 2 MB. Save only the sheet with the roll, as CSV, and choose that.`,
        });
        return;
      }
      const answered = await sendForReading<Preview>(
        `/api/roll/preview?course=${courseId}&columns=${encodeURIComponent(JSON.stringify(words))}`,
        file,
        reading.current.signal,
      );
      if ('refused' in answered) {
        setAnswer({ ok: false, message: answered.refused.message ?? '' });
        setUnclear(
          (answered.refused.problems ?? []).map(({ where, message }) =>
            message === 'choose'
              ? { heading: where, column: null, mayMatter: true }
              : { heading: where, column: message || null },
          ),
        );
        return;
      }
      const { found } = answered;
      setPreview(found);
      setRows(found.rows);
    });
  }

  const change = (line: number, next: (row: NumberedCells) => NumberedCells) =>
    setRows((all) => all.map((row) => (row.line === line ? next(row) : row)));
  const type = (line: number, column: RollColumn, text: string) =>
    change(line, (row) => ({ ...row, cells: { ...row.cells, [column]: text } }));

  if (answer?.ok) {
    return (
      <div className="sheet p-6">
        <FormMessage state={answer} />
        <Link href={`/courses/${courseId}/roll`} className="btn btn-primary mt-4">
          Open the roll
        </Link>
      </div>
    );
  }
  return (
    <div className="flex flex-col gap-5">
      <div className="sheet flex flex-col gap-2 p-5">
        <ChooseFile busy={busy} read={read} />
        {busy && <Progress says="Reading" cancel={() => reading.current?.abort()} />}
        <FormMessage state={answer} />
        {file && unclear.length > 0 && (
          <MatchColumns headings={unclear} read={(words) => read(file, { ...columns, ...words })} />
        )}
      </div>
      {preview && (
        <>
          <p role="status" className="text-lg">
            <b>{checked.length} rows</b> read
            {preview.delimiter === 'workbook'
              ? ' from a workbook'
              : ` as ${preview.encoding}, separated by ${preview.delimiter}`}
            : {good.length} ready, <b className={refused.length > 0 ? 'text-error' : ''}>{refused.length} refused</b>,{' '}
            {checked.length - good.length - refused.length} left out.
            {preview.ignored.length > 0 && ` Not used: ${preview.ignored.join(', ')}.`}
          </p>
          {preview.notes.length > 0 && (
            <ul className="text-sm">
              {preview.notes.map((note) => (
                <li key={note}>{note}</li>
              ))}
            </ul>
          )}
          {file && (
            <details>
              <summary className="cursor-pointer font-semibold">Which column is which</summary>
              <MatchColumns headings={preview.headings} read={(words) => read(file, { ...columns, ...words })} />
            </details>
          )}
          <ForMany checked={checked} setRows={setRows} />
          {unchanged.length > 0 && (
            <p className="text-sm">
              Updates that change no kit: {unchanged.length}, {unchanged.map(({ onRoll }) => onRoll?.name).join(', ')}.
            </p>
          )}
          {checked.some(
            (row) => row.problems.length > 0 || row.leaveOut || row.home || (row.as && !isAsItWas(row)),
          ) && (
            <section aria-labelledby="refused" className="flex flex-col gap-3">
              <h2 id="refused" className="text-xl font-bold">
                Mend these, or leave them out
              </h2>
              {checked
                .filter((row) => !isAsItWas(row))
                .filter(
                  (row) => row.problems.length > 0 || row.leaveOut || row.as || row.home || isMended(row, preview.rows),
                )
                .map((row) => (
                  <MendRow
                    key={row.line}
                    row={row}
                    type={type}
                    leaveOut={(leave) => change(row.line, (r) => ({ ...r, leaveOut: leave }))}
                    decide={(as) => change(row.line, (r) => ({ ...r, as }))}
                    atHome={(home) => change(row.line, (r) => ({ ...r, home }))}
                  />
                ))}
            </section>
          )}
          <Understood rows={good} meanings={preview.meanings} />
          <div className="flex flex-wrap items-center gap-3">
            <button
              type="button"
              className="btn btn-primary"
              disabled={busy || refused.length > 0 || good.length === 0}
              onClick={() =>
                start(async () => {
                  setAnswer(
                    await saveImport(courseId, rows, columns).catch(() => ({
                      ok: false,
                      message: 'The server did not answer. Nothing was saved; try again.',
                    })),
                  );
                })
              }
            >
              Save {good.length} to the roll
            </button>
            {refused.length > 0 && (
              <span>
                Saving waits for {refused.length} refused {refused.length === 1 ? 'row' : 'rows'}.
              </span>
            )}
          </div>
        </>
      )}
    </div>
  );
}

/** Where the file is chosen or its text pasted, and what it may look like. */
function ChooseFile({ busy, read }: { busy: boolean; read: (file: File) => void }) {
  const [pasted, setPasted] = useState('');
  return (
    <>
      <label className="flex flex-col gap-1">
        <span className="font-semibold">File with the roll: .xlsx or .csv</span>
        <input
          type="file"
          accept=".xlsx,.csv,.txt,.tsv,text/csv,text/plain,application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
          className="file-input w-full max-w-md"
          disabled={busy}
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            if (file) read(file);
          }}
        />
      </label>
      <label className="flex flex-col gap-1">
        <span className="font-semibold">Or paste it, as copied from a table or a message</span>
        <textarea
          className="textarea w-full max-w-2xl"
          rows={4}
          value={pasted}
          onChange={({ target }) => setPasted(target.value)}
        />
      </label>
      <button
        type="button"
        className="btn w-fit"
        disabled={busy || pasted.trim() === ''}
        onClick={() => read(new File([pasted], 'What was pasted', { type: 'text/plain' }))}
      >
        Read what I pasted
      </button>
      <p className="text-sm">
        Headings name the columns: <b>name</b>, age, servings, avoids, mode; and if you like group, household, contact,
        address, plan, in your own words. Several avoidances in one cell are separated by semicolons. Nothing is saved
        before you say so.
      </p>
    </>
  );
}

/** An update that changes no kit needs no look. */
const isAsItWas = ({ as, leaveOut, entry, changes }: CheckedRow): boolean =>
  as === 'update' && !leaveOut && entry !== undefined && changes?.length === 0;

/** A row stays in view once it has been touched. */
const isMended = (row: CheckedRow, before: readonly NumberedCells[]) => {
  const was = before.find((candidate) => candidate.line === row.line);
  return ROLL_COLUMNS.some((column) => was?.cells[column] !== row.cells[column]);
};
