'use client';

import Link from 'next/link';
import { useState } from 'react';
import { Dialog } from './dialog';
import { keysAreOn, turnKeys } from './keys';

const KEYS = [
  ['/', 'find anything by its name, and go there'],
  ['?', 'this list'],
  ['Esc', 'close what is open; leave a field or a table without a change'],
  ['↑ ↓ ← →', 'go through a table, a list, a calendar'],
  ['Enter', 'open, or do, what is marked'],
  ['Space', 'tick what is marked: at the bench, in a list'],
  ['Tab', 'on to the next field or button; Shift Tab back'],
] as const;

/** The keys of the desk, and a way to turn those off that are single letters. */
export function KeyList({ onClose }: { onClose: () => void }) {
  const [on, setOn] = useState(keysAreOn);
  return (
    <Dialog label="Keys" onClose={onClose}>
      <div className="p-5">
        <h2 className="mb-3 text-xl font-bold">Keys</h2>
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
          {KEYS.map(([key, does]) => (
            <div key={key} className="contents">
              <dt>
                <kbd className="kbd">{key}</kbd>
              </dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
        <label className="mt-4 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={on}
            onChange={(event) => {
              turnKeys(event.target.checked);
              setOn(event.target.checked);
            }}
          />
          / and ? do something on this device
        </label>
        <p className="mt-3 text-sm">
          <Link href="/words" className="link" onClick={onClose}>
            What the words mean
          </Link>
        </p>
        <button type="button" className="btn mt-4" onClick={onClose}>
          Close
        </button>
      </div>
    </Dialog>
  );
}
