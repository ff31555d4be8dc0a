import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { rational } from '@/core/quantity/rational';
import { sayCount, sayGrams } from '@/core/quantity/say';
import { viewLot } from '@/services/buying/take-out';

import { Caution, PageTitle } from '@/ui/page';

export const metadata = { title: 'Where it went' };

export default async function Lot({ params }: { params: Promise<{ lotId: string }> }) {
  const say = await saying();
  const { lotId } = await params;
  const { name, ingredient, lastDay, moves, sessions } = await orNotFound(call(viewLot, { lotId }));
  const kits = sessions.reduce((sum, session) => sum + session.kits.length, 0);
  return (
    <>
      <PageTitle title={name} over={`${ingredient}; last day ${say.longDate(lastDay)}`}>
        <a href={`/shelves/${lotId}/label.pdf`} className="btn" target="_blank" rel="noreferrer">
          Print its label
        </a>
        <Link href="/shelves" className="btn">
          Shelves
        </Link>
      </PageTitle>
      <section className="sheet mb-5 p-5" aria-labelledby="kits-of-it">
        <h2 id="kits-of-it" className="mb-2 text-xl font-bold">
          {kits === 0 ? 'It is in no kit' : `It is in ${sayCount(kits, 'kit')}`}
        </h2>
        {sessions.map((session) => (
          <div key={session.id} className="mb-3">
            <h3 className="font-bold">
              <Link href={`/sessions/${session.id}/kits`} className="link">
                {session.title}
              </Link>
              , {say.longDate(session.date)}
            </h3>
            <ul className="columns-2 text-sm sm:columns-3">
              {session.kits.map(({ number, name: who, variant }) => (
                <li key={number}>
                  {number} {who} ({variant})
                </li>
              ))}
            </ul>
          </div>
        ))}
        <Caution>When a maker calls a lot back, tell each of these families, and set what is left apart.</Caution>
      </section>
      <section className="sheet p-5" aria-labelledby="happened">
        <h2 id="happened" className="mb-2 text-xl font-bold">
          What happened to it
        </h2>
        <ul className="divide-y divide-base-300 text-sm">
          {moves.map(({ id, kind, packs, grams, day, reason, sessionId }) => (
            <li key={id} className="flex flex-wrap gap-x-4 py-1.5">
              <span className="w-52">{say.longDate(day)}</span>
              <b className="w-28">{kind}</b>
              <span className="tabular-nums">
                {[packs > 0 && sayCount(packs, 'pack'), grams > 0 && sayGrams(rational(grams))]
                  .filter(Boolean)
                  .join(' and ')}
              </span>
              {sessionId ? <span>for kits</span> : <span>{reason}</span>}
            </li>
          ))}
        </ul>
      </section>
    </>
  );
}
