import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { attempt } from '@/app/form';
import { sayCount } from '@/core/quantity/say';
import { ServiceError } from '@/services/errors';
import { clearAfterFailure, viewColdFailure } from '@/services/packing/made/cold-failure';
import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { Caution, PageTitle } from '@/ui/page';

export const metadata = { title: 'A fridge or freezer failed' };

interface Asked {
  readonly storage?: 'fridge' | 'freezer';
  readonly placeId?: string;
  readonly hours?: string;
  readonly degrees?: string;
}

async function clear(asked: Asked, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(clearAfterFailure, async () => {
    const { storage = 'fridge', placeId, hours = '', degrees = '' } = asked;
    const { lots, kits } = await call(clearAfterFailure, { storage, placeId, hours, degrees });
    return `${sayCount(lots, 'lot is', 'lots are')} thrown away; the bench asks for the cold parts of ${sayCount(kits, 'kit')} again.`;
  });
}

const WORDS = { keep: 'keep', 'use today': 'use at once', look: 'look at it', 'throw away': 'throw away' } as const;

/** Which lots and kits a failed fridge or freezer touches, and what becomes of each. */
export default async function ColdFailed({ searchParams }: { searchParams: Promise<Asked> }) {
  const asked = await searchParams;
  const { storage = 'fridge', placeId = '', hours, degrees } = asked;
  const { actor } = await requireMember();
  const isAsked = hours !== undefined && degrees !== undefined;
  const answer = isAsked
    ? await call(viewColdFailure, { storage, placeId, hours, degrees }).catch((error: unknown) => {
        if (error instanceof ServiceError && error.kind === 'invalid') return error;
        throw error;
      })
    : undefined;
  const bad = answer instanceof ServiceError ? answer : undefined;
  const { profile, places, found } =
    answer instanceof ServiceError || !answer ? await call(viewColdFailure, {}) : answer;
  const spoilt = found ? [...found.lots, ...found.kits].filter(({ verdict }) => verdict === 'throw away') : [];
  return (
    <>
      <PageTitle title="A fridge or freezer failed" over="Which food and which kits, and what now">
        <Link href="/shelves" className="btn">
          Shelves
        </Link>
      </PageTitle>
      <form className="sheet mb-5 flex flex-wrap items-end gap-3 p-5" aria-label="What happened">
        <label className="flex flex-col gap-1 text-sm font-semibold">
          What failed
          <select name="storage" className="select w-36" defaultValue={storage}>
            <option>fridge</option>
            <option>freezer</option>
          </select>
        </label>
        {places.length > 1 && (
          <label className="flex flex-col gap-1 text-sm font-semibold">
            Where
            <select name="placeId" className="select w-44" defaultValue={placeId}>
              <option value="">every place</option>
              {places.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        )}
        <label className="flex flex-col gap-1 text-sm font-semibold">
          Hours since it was last seen cold
          <input name="hours" className="input w-36" inputMode="decimal" defaultValue={hours ?? ''} required />
        </label>
        <label className="flex flex-col gap-1 text-sm font-semibold">
          What food in it reads now, {profile === 'us' ? '°F' : '°C'}
          <input name="degrees" className="input w-36" defaultValue={degrees ?? ''} required />
        </label>
        <button type="submit" className="btn btn-primary">
          What now?
        </button>
      </form>
      {bad && (
        <p role="alert" className="mb-4 font-semibold text-error">
          {bad.problems.map(({ message }) => message).join(' ') || bad.message}
        </p>
      )}
      {found && (
        <div className="flex flex-col gap-5">
          <section className="sheet p-5" aria-labelledby="lots">
            <h2 id="lots" className="mb-2 text-xl font-bold">
              On the shelves, at {found.say}
            </h2>
            {found.lots.length === 0 && <p>Nothing stands in a {storage}.</p>}
            <ul className="divide-y divide-base-300">
              {found.lots.map(({ id, name, verdict, say }) => (
                <li key={id} className="py-1">
                  <b>{name}:</b> <b className={verdict === 'throw away' ? 'text-error' : ''}>{WORDS[verdict]}.</b> {say}
                </li>
              ))}
            </ul>
          </section>
          {storage === 'fridge' && (
            <section className="sheet p-5" aria-labelledby="kits">
              <h2 id="kits" className="mb-2 text-xl font-bold">
                In packed kits
              </h2>
              {found.kits.length === 0 && <p>No kit of these days has a cold part in it.</p>}
              <ul className="divide-y divide-base-300">
                {found.kits.map(({ id, number, session, cold, verdict }) => (
                  <li key={id} className="py-1">
                    {session}, kit {number}:{' '}
                    <b className={verdict === 'throw away' ? 'text-error' : ''}>{WORDS[verdict]}</b>,{' '}
                    {cold.map(({ name }) => name).join(', ')}
                  </li>
                ))}
              </ul>
            </section>
          )}
          {spoilt.length > 0 && actor.role === 'coordinator' && (
            <ActionForm action={clear.bind(null, asked)} label="Throw it away">
              <button type="submit" className="btn btn-primary">
                Throw away {sayCount(spoilt.length, 'thing')}, and pack the cold parts anew
              </button>
            </ActionForm>
          )}
        </div>
      )}
      <div className="mt-5">
        <Caution>
          In doubt, throw it away; never taste to find out. What came on again by itself may be cold now and was not:
          write the warmest it can have been. The figures are the usual ones. What is thrown away is noted under
          “Nothing lost”.
        </Caution>
      </div>
    </>
  );
}
