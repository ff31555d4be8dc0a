import Link from 'next/link';
import type { Holder } from '@/core/crew/crew-standing';
import { timeOf } from '@/core/plan/civil';
import type { Saying } from '@/core/plan/saying';
import { sayCount } from '@/core/quantity/say';

import { HolderLine } from './holders';

/** A duty as a list shows it. */
export interface ListedDuty {
  readonly sessionId: string;
  readonly key: string;
  readonly title: string;
  readonly date: string;
  readonly from: number;
  readonly to: number;
  readonly place: string;
  readonly people: number;
  readonly skills: readonly string[];
  readonly isAdult: boolean;
  readonly because: readonly string[];
  readonly changed?: string;
  readonly nobodyCan?: string;
  readonly holders: readonly Holder[];
  readonly empty: number;
  readonly over: number;
}

export const placeHref = ({ sessionId, key }: Pick<ListedDuty, 'sessionId' | 'key'>): string =>
  `/sessions/${sessionId}/crew/place?duty=${encodeURIComponent(key)}`;

/** Until when somebody is at a duty, as a time of day. */
export const endOf = (to: number): string => timeOf(Math.min(to, 1439));

/** What is to be done about a duty that does not have as many people as it needs: too few, or too many. */
export function Fill({ duty }: { duty: Pick<ListedDuty, 'people' | 'empty' | 'over' | 'nobodyCan'> }) {
  const { people, empty, over, nobodyCan } = duty;
  return (
    <>
      {empty > 0 && (
        <p className="font-semibold text-error">
          {sayCount(empty, 'place')} empty{nobodyCan && `. ${nobodyCan}`}
        </p>
      )}
      {over > 0 && (
        <p className="font-semibold">
          {`${people + over} said yes and ${sayCount(people, 'is', 'are')} needed: keep them all, or take ${over === 1 ? 'one' : over} away. Whoever you take away is told.`}
        </p>
      )}
    </>
  );
}

/** A duty in a list: when, who, and how many it still needs. */
export function DutyLine({ duty, say }: { duty: ListedDuty; say: Saying }) {
  const { title, people, date, from, to, skills, isAdult, because, changed, holders } = duty;
  const wanted = [...skills, ...(isAdult ? ['an adult'] : [])];
  return (
    <li className="grid gap-x-4 gap-y-1 py-2 sm:grid-cols-[13rem_11rem_1fr]">
      <Link href={placeHref(duty)} prefetch={false} className="link font-bold">
        {title}
        {people > 1 && ` × ${people}`}
      </Link>
      <span className="tabular-nums">
        {say.shortDate(date)}, {say.time(from)}–{say.time(endOf(to))}
      </span>
      <div>
        <ul>
          {holders.map((holder) => (
            <li key={holder.promiseId}>
              <HolderLine holder={holder} />
            </li>
          ))}
        </ul>
        <Fill duty={duty} />
        <p className="text-sm text-base-content/80">
          {wanted.length > 0 && `For ${wanted.join(', ')}. `}
          {because.join(' ')}
          {changed && ` Changed by hand: ${changed}`}
        </p>
      </div>
    </li>
  );
}
