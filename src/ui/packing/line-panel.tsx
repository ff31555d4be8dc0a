'use client';

import { useState } from 'react';
import type { BenchKit } from '@/core/packing/progress';
import { useSaying } from '@/ui/saying';
import type { LineNews } from './use-line';

interface Props {
  readonly news: LineNews | undefined;
  readonly setPackers: (packers: number) => void;
  /** Which station this screen stands at, from 0; undefined: the whole bench. */
  readonly station: number | undefined;
  readonly choose: (station: number | undefined) => void;
  /** Kits made without something that wait for a second pair of eyes. */
  readonly toCheck: readonly BenchKit[];
  readonly madeWithout: (letter: string) => readonly string[];
  readonly check: (kitId: string, who: string) => void;
  /** Foods that are filled out of a bowl. */
  readonly foods: readonly string[];
  /** Keeps what is left of a food in its bowl; without grams it is read off the scale. */
  readonly weighBowl: (food: string, grams: number | undefined) => Promise<string>;
}

/** How a bench goes: what runs out, who looks a second time, and, with several packers, who stands where. */
export function LinePanel({ news, setPackers, station, choose, toCheck, madeWithout, check, foods, weighBowl }: Props) {
  const [who, setWho] = useState('');
  const { timeAt } = useSaying();
  const { line, pace, runningOut = [] } = news ?? {};
  return (
    <>
      {runningOut.map(({ food, say, ways }) => (
        <p key={food} role="alert" className="border-b-2 border-warning bg-warning px-4 py-2 text-warning-content">
          <b className="text-xl">{say}.</b> {ways.join('; or ')}.
        </p>
      ))}
      {toCheck.length > 0 && (
        <section aria-label="A second pair of eyes" className="border-b-2 border-info bg-base-200 px-4 py-3">
          <h2 className="text-xl font-bold">A second pair of eyes</h2>
          <p className="mb-2">
            Somebody who did not pack it looks into each: is all of it in, and nothing it is made without? Then close it
            and set it apart.
          </p>
          <div className="flex flex-wrap items-center gap-2">
            <label className="flex items-center gap-2">
              Who looks
              <input
                className="input h-12 w-36"
                value={who}
                maxLength={40}
                onChange={(event) => setWho(event.target.value)}
              />
            </label>
            {toCheck.map(({ id, number, variant }) => (
              <button
                key={id}
                type="button"
                className="btn h-12"
                disabled={who.trim() === ''}
                onClick={() => check(id, who.trim())}
              >
                Kit {number} {variant}, without {madeWithout(variant).join(', ')}: looked into
              </button>
            ))}
          </div>
        </section>
      )}
      {line && pace && (
        <details className="border-b border-base-300 px-4 py-2">
          <summary className="cursor-pointer py-1 text-lg">
            <b>
              {line.packers === 1
                ? 'One packer'
                : station === undefined
                  ? `A line of ${line.packers}`
                  : `Station ${station + 1} of ${line.packers}`}
            </b>
            {pace.kitsAnHour !== undefined && `, ${pace.kitsAnHour} kits an hour`}
            {pace.doneAt !== null &&
              pace.minutesLeft !== 0 &&
              `, done at about ${timeAt(new Date(pace.doneAt).toISOString())}`}
            {pace.isLate && <b className="text-error"> after it begins: more hands, or fewer reserve kits</b>}
            {pace.heldUpBy && `. ${pace.heldUpBy.kits} kits wait for ${pace.heldUpBy.name}`}
          </summary>
          <div className="flex flex-wrap items-center gap-3 py-2">
            <label className="flex items-center gap-2">
              Packers side by side
              <select
                className="select h-12 w-20"
                value={line.packers}
                onChange={(event) => {
                  choose(undefined);
                  setPackers(Number(event.target.value));
                }}
              >
                {[1, 2, 3, 4, 5, 6, 7, 8].map((count) => (
                  <option key={count}>{count}</option>
                ))}
              </select>
            </label>
            <span>
              All in <b>{line.minutes} min</b> at best, {line.kitsAnHour} kits an hour.{' '}
              {line.proven ? 'No line of so many is quicker.' : 'There may be a quicker one.'} {line.because}
            </span>
          </div>
          {line.packers > 1 && (
            <ol className="grid gap-2 py-2 sm:grid-cols-2 lg:grid-cols-4">
              {line.stations.map((rows, at) => (
                <li
                  key={rows.map(({ row }) => row).join(' ') || `empty ${at}`}
                  className="rounded-box border border-base-300 p-3"
                >
                  <button
                    type="button"
                    aria-pressed={station === at}
                    className={`btn mb-2 h-12 w-full ${station === at ? 'btn-primary' : ''}`}
                    onClick={() => choose(station === at ? undefined : at)}
                  >
                    {station === at ? `This is station ${at + 1}` : `Stand at station ${at + 1}`}
                  </button>
                  <ul>
                    {rows.map(({ row, name, seconds }) => (
                      <li key={row} className="flex justify-between gap-2">
                        <span>{name}</span>
                        <span className="tabular-nums">{Math.ceil(seconds / 60)} min</span>
                      </li>
                    ))}
                  </ul>
                </li>
              ))}
            </ol>
          )}
          <WeighBowl foods={foods} weighBowl={weighBowl} />
          {line.setOut.length > 0 && (
            <p className="py-1">
              <b>Set out and count first:</b>{' '}
              {line.setOut.map(({ container, count }) => `${count} × ${container}`).join(', ')}. Kits made without
              something stand apart, and are filled first.
            </p>
          )}
        </details>
      )}
    </>
  );
}

/** What is left in a bowl, so that what runs out is seen coming. */
function WeighBowl({ foods, weighBowl }: Pick<Props, 'foods' | 'weighBowl'>) {
  const [food, setFood] = useState('');
  const [grams, setGrams] = useState('');
  const [said, setSaid] = useState('');
  const keep = async (weight: number | undefined) => setSaid(await weighBowl(food || (foods[0] ?? ''), weight));
  if (foods.length === 0) return null;
  return (
    <div className="flex flex-wrap items-center gap-2 py-2">
      <label className="flex items-center gap-2">
        Left in the bowl of
        <select className="select h-12 w-48" value={food || foods[0]} onChange={(event) => setFood(event.target.value)}>
          {foods.map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </label>
      <input
        className="input h-12 w-24"
        inputMode="numeric"
        aria-label="Grams left in the bowl"
        placeholder="grams"
        value={grams}
        onChange={(event) => setGrams(event.target.value)}
      />
      <button
        type="button"
        className="btn h-12"
        disabled={!/^\d+$/.test(grams)}
        onClick={() => void keep(Number(grams))}
      >
        Keep it
      </button>
      <button type="button" className="btn h-12" onClick={() => void keep(undefined)}>
        Off the scale
      </button>
      <span role="status">{said}</span>
    </div>
  );
}
