import Link from 'next/link';
import { call } from '@/app/access';
import { saying } from '@/app/saying';
import type { WayToUse } from '@/core/buying/nothing-lost';

import { rational } from '@/core/quantity/rational';
import { sayCount, sayGrams } from '@/core/quantity/say';
import { viewLost } from '@/services/buying/lost';
import { LossChart } from '@/ui/buying/loss-chart';

import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Nothing lost' };

const grams = (amount: number) => sayGrams(rational(amount));

async function Way({ way, sessions }: { way: WayToUse; sessions: readonly { id: string; title: string }[] }) {
  const say = await saying();
  const title = (id: string) => sessions.find((session) => session.id === id)?.title ?? 'a session';
  switch (way.kind) {
    case 'planned':
      return (
        <>
          <b>{title(way.sessionId)}</b> uses {way.grams > 0 ? grams(way.grams) : 'it'} on {say.longDate(way.day)}
        </>
      );
    case 'wanted':
      return (
        <>
          {title(way.sessionId)} needs {way.grams > 0 ? grams(way.grams) : 'it'} on {say.longDate(way.day)}:{' '}
          <Link href="/buying" className="link">
            plan again
          </Link>
        </>
      );
    case 'recipe':
      return (
        <>
          <Link href={`/recipes/${way.recipeId}`} className="link">
            {way.title}
          </Link>{' '}
          takes it
        </>
      );
    case 'freeze':
      return (
        <>
          Freeze it:{' '}
          <Link href="/shelves" className="link">
            note it on the shelf
          </Link>
        </>
      );
    case 'give away':
      return <>Give it away while it is sealed</>;
    case 'write off':
      return (
        <>
          Throw it away and{' '}
          <Link href="/shelves" className="link">
            write it off
          </Link>
        </>
      );
  }
}

export default async function Lost() {
  const say = await saying();
  const { unused, losses, given, sessions } = await call(viewLost, {});
  return (
    <>
      <PageTitle title="Nothing lost" over="What is open or ends soon, and what uses it up: unclaimed food first">
        <Link href="/shelves" className="btn">
          Shelves
        </Link>
        <Link href="/buying" className="btn">
          Buying
        </Link>
      </PageTitle>
      {unused.length === 0 ? (
        <Empty title="Nothing is open, and nothing ends within a week">
          <p>What is opened, left over or close to its day appears here, with the dish that can use it.</p>
        </Empty>
      ) : (
        <ul className="mb-6 grid gap-4 md:grid-cols-2">
          {unused.map((each) => (
            <li
              key={each.lotId}
              className={`sheet p-4 ${each.unclaimed > 0 && each.days <= 3 ? 'border-l-4 border-l-warning' : ''}`}
            >
              <h2 className="text-lg font-bold">
                {each.name}, {grams(each.grams)}
                {each.loose > 0 && each.loose < each.grams && `, of it ${grams(each.loose)} open`}
              </h2>
              <p className="text-sm font-semibold">
                {each.days < 0
                  ? `Past its ${each.lastKind}`
                  : each.days === 0
                    ? `Ends today (${each.lastKind})`
                    : `Ends in ${sayCount(each.days, 'day')}, ${say.longDate(each.loose > 0 ? each.lastOpen : each.last)}`}
                {each.unclaimed > 0 ? ` · ${grams(each.unclaimed)} of it nothing uses yet` : ' · all of it is used'}
              </p>
              <ul className="mt-1 list-disc pl-5 text-sm">
                {each.ways.map((way, at) => (
                  <li key={at}>
                    <Way way={way} sessions={sessions} />
                  </li>
                ))}
              </ul>
            </li>
          ))}
        </ul>
      )}
      <div className="grid gap-6 md:grid-cols-2">
        <section className="sheet min-w-0 p-5" aria-labelledby="was-lost">
          <h2 id="was-lost" className="mb-2 text-xl font-bold">
            What was thrown away
          </h2>
          {losses.length === 0 ? (
            <p className="text-sm">Nothing was written off.</p>
          ) : (
            <LossChart losses={losses} say={say} />
          )}
        </section>
        <section className="sheet min-w-0 p-5" aria-labelledby="was-given">
          <h2 id="was-given" className="mb-2 text-xl font-bold">
            What was given
          </h2>
          {given.length === 0 ? (
            <p className="text-sm">No gift was taken.</p>
          ) : (
            <ul className="divide-y divide-base-300 text-sm">
              {given.map(({ id, name, grams: weight, saves, at }) => (
                <li key={id} className="flex justify-between gap-3 py-1.5">
                  <span>
                    {name}, {grams(weight)}, {say.longDate(at.slice(0, 10))}
                  </span>
                  <span className="tabular-nums">
                    {saves === null ? 'no price known' : `saves ${say.money(saves)}`}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
    </>
  );
}
