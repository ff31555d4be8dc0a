'use client';

import { useState } from 'react';
import { ROLL_COLUMNS } from '@/core/roll/roll-row';

export interface Heading {
  readonly heading: string;
  readonly column: string | null;
  /** It may say what somebody must not eat: nothing is chosen for it. */
  readonly mayMatter?: boolean;
}

/** What headings mean, as somebody said here. */
export type Columns = Readonly<Record<string, string | null>>;

/** Which heading of the file names what: chosen by hand where the words are not known, and remembered. */
export function MatchColumns({ headings, read }: { headings: readonly Heading[]; read: (words: Columns) => void }) {
  const [chosen, setChosen] = useState<Columns>({});
  // What is left at "not used" is said as well: it is not asked again.
  const named = headings.filter(({ heading }) => heading !== '');
  const unused = named.flatMap(({ heading, column, mayMatter }): [string, null][] =>
    column || mayMatter ? [] : [[heading, null]],
  );
  const open = named.filter(({ heading, mayMatter }) => mayMatter && !(heading in chosen));
  const said = { ...Object.fromEntries(unused), ...chosen };
  return (
    <div className="mt-2 flex flex-col gap-2">
      <ul className="grid gap-2 sm:grid-cols-3">
        {named.map(({ heading, column, mayMatter }) => (
          <li key={heading}>
            <label className="flex flex-col gap-0.5">
              <span className="text-sm font-semibold">“{heading}” is</span>
              <select
                className="select select-sm w-full"
                value={heading in chosen ? (chosen[heading] ?? '') : mayMatter ? 'choose' : (column ?? '')}
                onChange={(event) => setChosen((now) => ({ ...now, [heading]: event.target.value || null }))}
              >
                {mayMatter && (
                  <option value="choose" disabled>
                    choose …
                  </option>
                )}
                <option value="">not used</option>
                {ROLL_COLUMNS.map((each) => (
                  <option key={each}>{each}</option>
                ))}
              </select>
            </label>
          </li>
        ))}
      </ul>
      <button type="button" className="btn btn-sm w-fit" disabled={open.length > 0} onClick={() => read(said)}>
        Read it so
      </button>
      {open.length > 0 && (
        <p className="text-sm">Choose for {open.map(({ heading }) => `“${heading}”`).join(', ')} first.</p>
      )}
    </div>
  );
}
