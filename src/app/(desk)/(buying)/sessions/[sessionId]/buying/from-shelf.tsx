import Link from 'next/link';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { saying } from '@/app/saying';
import type { Lacking, Take } from '@/core/buying/take-out';

import { rational } from '@/core/quantity/rational';
import { sayCount, sayGrams } from '@/core/quantity/say';
import { takeForSession, viewFromShelf } from '@/services/buying/take-out';

import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';

async function take(sessionId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(takeForSession, async () => {
    const { taken, lacking } = await call(takeForSession, { sessionId });
    if (taken === 0) return 'The shelves have nothing more for it.';
    return lacking === 0
      ? 'It is all taken out, and noted.'
      : 'What is there is taken out, and noted; the rest is still to come.';
  });
}

const amount = ({ packs, grams }: Pick<Take, 'packs' | 'grams'>) =>
  [packs > 0 && sayCount(packs, 'pack'), grams > 0 && sayGrams(rational(grams))].filter(Boolean).join(' and ');

const lacks = ({ grams, units }: Lacking) =>
  [units > 0 && sayCount(units, 'whole pack'), grams > 0 && sayGrams(rational(grams))].filter(Boolean).join(' and ');

/** What the shelves have for a session: which lot for which kits, taken out with one tap, and what they lack. */
export async function FromShelf({
  sessionId,
  kits,
  budget,
}: {
  sessionId: string;
  kits: number;
  budget: number | null;
}) {
  const say = await saying();
  const { takes, taken, lacking, worth, unpriced } = await call(viewFromShelf, { sessionId });
  if (takes.length + taken.length === 0) return null;
  return (
    <section className="sheet my-5 p-5" aria-labelledby="take-out">
      <div className="mb-2 flex flex-wrap items-end justify-between gap-3">
        <h2 id="take-out" className="text-xl font-bold">
          From the shelves into these kits
        </h2>
        {takes.length > 0 && (
          <ActionForm action={take.bind(null, sessionId)} label="Take it off the shelves" className="no-print">
            <button type="submit" className="btn">
              Taken off the shelves
            </button>
          </ActionForm>
        )}
      </div>
      <ul className="divide-y divide-base-300 text-sm">
        {takes.map((each) => (
          <li key={`${each.lotId} ${each.letters.join('')} ${each.packs}`} className="flex flex-wrap gap-x-4 py-1.5">
            <b className="w-64">{each.name}</b>
            <span className="w-36 tabular-nums">{amount(each)}</span>
            <span>
              kits {each.letters.join(', ')}
              {each.last && `; good until ${say.longDate(each.last)}`}
            </span>
          </li>
        ))}
      </ul>
      {taken.length > 0 && (
        <details className="mt-2 text-sm">
          <summary className="cursor-pointer font-semibold">Taken out before: {sayCount(taken.length, 'line')}</summary>
          <ul className="mt-1 list-disc pl-5">
            {taken.map((each, at) => (
              <li key={`${each.lotId} ${at}`}>
                <Link href={`/shelves/${each.lotId}`} className="link">
                  {each.name}
                </Link>
                , {amount(each)}, kits {each.letters.join(', ')}
              </li>
            ))}
          </ul>
        </details>
      )}
      {taken.length > unpriced && kits > 0 && (
        <p className="mt-2 text-sm">
          <b>
            {say.money(worth)} so far, {say.money(Math.round(worth / kits))} a kit
          </b>
          {budget !== null && ` of a budget of ${say.money(budget)}`}
          {unpriced > 0 && `; ${sayCount(unpriced, 'line')} without a price come on top`}.
        </p>
      )}
      {lacking.length > 0 && (
        <p className="mt-2 text-sm">
          <b>Not on a shelf, or not with a label that suits:</b>{' '}
          {lacking.map((each) => `${each.ingredient} ${lacks(each)} (${each.letters.join(', ')})`).join('; ')}.
        </p>
      )}
    </section>
  );
}
