'use client';

import { Check, Minus, Plus } from 'lucide-react';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { v7 } from 'uuid';
import { deviceStorage } from '../offline/device-storage';
import { offlineQueue } from '../offline/queue';
import { sendingTo } from '../offline/send';
import { Waiting } from './waiting';

interface Lot {
  readonly id: string;
  readonly name: string;
  readonly ingredient: string;
  readonly packGrams: number | null;
  readonly packs: number;
  readonly loose: number;
  readonly where: string;
}

interface Counted {
  readonly id: string;
  readonly lotId: string;
  readonly packs: number;
  readonly grams: number;
}

const AGAIN = 1500;

const send = sendingTo<Counted>('/api/shelves/count', (moves) => ({ moves }), {
  noAnswer: 'The server does not answer. Go on counting: it is kept here and sent again.',
  signedOut: 'You are signed out. Sign in again on this device: what you counted is kept here.',
  refused: 'This count was refused.',
});

/** What is on the scale now; undefined where there is none. */
async function onScale(): Promise<number | undefined> {
  const response = await fetch('/api/devices').catch(() => null);
  const { grams } = (await response?.json().catch(() => null)) ?? {};
  return typeof grams === 'number' ? Math.round(grams) : undefined;
}

/** A shelf counted lot by lot, as it stands: by tapping, by the scale, without a network too. */
export function CountShelf({ lots }: { lots: readonly Lot[] }) {
  const [queue] = useState(() => offlineQueue(deviceStorage<Counted>('shelf counts'), send));
  const { waiting, trouble, isCut } = useSyncExternalStore(queue.subscribe, queue.state, queue.state);
  const [counts, setCounts] = useState<Readonly<Record<string, { packs: number; grams: number; done: boolean }>>>({});
  useEffect(() => {
    const timer = setInterval(() => void queue.send(), AGAIN);
    return () => clearInterval(timer);
  }, [queue]);
  const of = (lot: Lot) => counts[lot.id] ?? { packs: lot.packs, grams: lot.loose, done: false };
  const set = (lot: Lot, change: Partial<ReturnType<typeof of>>) =>
    setCounts((before) => ({ ...before, [lot.id]: { ...of(lot), done: false, ...change } }));
  const note = (lot: Lot) => {
    const { packs, grams } = of(lot);
    queue.add([{ id: v7(), lotId: lot.id, packs, grams }]);
    set(lot, { done: true });
  };
  const places = [...new Set(lots.map(({ where }) => where))].sort();
  const done = Object.values(counts).filter((count) => count.done).length;
  return (
    <div className="max-w-xl">
      <Waiting count={waiting.length} isCut={isCut} message={trouble?.message} />
      <p className="mb-3 font-semibold" role="status">
        {done} of {lots.length} counted
      </p>
      {places.map((where) => (
        <section key={where} className="mb-5" aria-label={where}>
          <h2 className="mb-2 text-xl font-bold">{where}</h2>
          <ul className="flex flex-col gap-3">
            {lots
              .filter((lot) => lot.where === where)
              .map((lot) => {
                const { packs, grams, done: isDone } = of(lot);
                return (
                  <li key={lot.id} className="sheet p-4">
                    <p className="text-lg font-bold">{lot.name}</p>
                    {lot.packGrams !== null && (
                      <div className="mt-2 flex items-center gap-2">
                        <button
                          type="button"
                          className="btn btn-square btn-lg"
                          aria-label={`One pack less of ${lot.name}`}
                          disabled={packs === 0}
                          onClick={() => set(lot, { packs: packs - 1 })}
                        >
                          <Minus aria-hidden="true" />
                        </button>
                        <span className="w-28 text-center text-xl font-bold tabular-nums">
                          {packs} × {lot.packGrams} g
                        </span>
                        <button
                          type="button"
                          className="btn btn-square btn-lg"
                          aria-label={`One pack more of ${lot.name}`}
                          onClick={() => set(lot, { packs: packs + 1 })}
                        >
                          <Plus aria-hidden="true" />
                        </button>
                      </div>
                    )}
                    <div className="mt-2 flex flex-wrap items-end gap-2">
                      <label className="flex flex-col gap-1">
                        <span className="text-sm font-semibold">
                          {lot.packGrams === null ? 'Grams' : 'Open, grams'}
                        </span>
                        <input
                          className="input input-lg w-32"
                          inputMode="numeric"
                          value={grams}
                          onChange={({ target }) => set(lot, { grams: Number(target.value.replace(/\D/g, '')) })}
                        />
                      </label>
                      <button
                        type="button"
                        className="btn btn-lg"
                        onClick={() =>
                          void onScale().then((read) => {
                            if (read !== undefined) set(lot, { grams: read });
                          })
                        }
                      >
                        Read scale
                      </button>
                      <button
                        type="button"
                        className={`btn btn-lg ml-auto ${isDone ? 'btn-success' : 'btn-primary'}`}
                        onClick={() => note(lot)}
                        aria-label={`${isDone ? 'Counted' : 'That is it'}: ${lot.name}`}
                      >
                        <Check aria-hidden="true" /> {isDone ? 'Counted' : 'That is it'}
                      </button>
                    </div>
                  </li>
                );
              })}
          </ul>
        </section>
      ))}
    </div>
  );
}
