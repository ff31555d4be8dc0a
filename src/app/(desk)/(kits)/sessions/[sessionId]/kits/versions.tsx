import { call } from '@/app/access';
import { saying } from '@/app/saying';
import type { VersionPolicy } from '@/core/kits/sheet/fewest-variants';

import { compareVersions } from '@/services/kits/kit-sheet';
import { chooseVersions } from './actions';

const WORDS: Readonly<Record<VersionPolicy, string>> = {
  separate: 'A version for each need',
  fewest: 'The fewest that keep everybody safe',
  one: 'One for everybody of a size, where it can be made',
};

/** One version for everybody compared with separate ones: number, bench time, money, and what is proposed. */
export async function Versions({ sessionId }: { sessionId: string }) {
  const say = await saying();
  const { now, ways, best, why } = await call(compareVersions, { sessionId });
  if (!best) return null;
  return (
    <details className="sheet no-print p-4" open>
      <summary className="cursor-pointer text-xl font-bold">
        {best.policy === now ? 'How kinds of kit are shared' : `${best.variants} kinds of kit would do: share them?`}
      </summary>
      <p className="my-2">
        Proposed: <b>{WORDS[best.policy].toLowerCase()}</b>. {why}.
      </p>
      <table className="table">
        <thead>
          <tr>
            <th scope="col">Way</th>
            <th scope="col" className="text-right">
              Kinds of kit
            </th>
            <th scope="col" className="text-right">
              At the bench
            </th>
            <th scope="col" className="text-right">
              Food
            </th>
            <th scope="col">
              <span className="sr-only">Choose</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {ways.map(({ policy, variants, minutes, cost, priced, foods, refused }) => (
            <tr key={policy} className={policy === now ? 'bg-base-200' : ''}>
              <th scope="row">{WORDS[policy]}</th>
              <td className="text-right">{variants}</td>
              <td className="text-right">{minutes} min</td>
              <td className="text-right">
                {priced === 0
                  ? 'no prices'
                  : `${say.money(cost)}${priced < foods ? `, ${priced} of ${foods} foods` : ''}`}
              </td>
              <td className="text-right">
                {refused > 0 && <span className="mr-2 text-error">{refused} refused</span>}
                {policy === now ? (
                  'as it is now'
                ) : (
                  <form action={chooseVersions.bind(null, sessionId, policy)}>
                    <button type="submit" className="btn btn-sm" aria-label={`Use: ${WORDS[policy]}`}>
                      Use it
                    </button>
                  </form>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
