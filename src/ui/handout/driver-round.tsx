'use client';

import { Phone, Snowflake } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { coldLeft } from '@/core/handout/doors/on-the-road';
import { type SayingFacts, sayingOf } from '@/core/plan/saying';
import { Waiting } from '../buying/waiting';
import { useRoundWords } from './use-round';

export interface RoundDoor {
  readonly householdId: string;
  readonly name: string;
  readonly address: string;
  readonly contact: string;
  readonly note: string;
  readonly isCold: boolean;
  readonly begins: number;
  readonly bags: readonly {
    readonly id: string;
    readonly number: number;
    readonly variant: string;
    readonly state: string;
    /** The word that brought it there. */
    readonly by: string;
    readonly isCalledBack: boolean;
  }[];
}

interface Props {
  readonly roundId: string;
  readonly address: string;
  readonly title: string;
  readonly says: SayingFacts;
  readonly leaves: number;
  readonly leftAt: string | null;
  readonly endedAt: string | null;
  readonly stops: readonly RoundDoor[];
  /** When each is reached, as the server reckoned when the page was loaded. */
  readonly ahead: readonly {
    readonly at: string;
    readonly begins: number;
    readonly late: number;
    readonly isAfterWindow: boolean;
    readonly isTooWarm: boolean;
  }[];
}

/** A driver’s round: the next door first, large; everything is kept on the phone until the server has it. */
export function DriverRound({ roundId, address, title, says, leaves, leftAt, endedAt, stops, ahead }: Props) {
  const { said, waiting, isCut, trouble, warned, say, sayRound } = useRoundWords(roundId, address);
  const left = said.find(({ what }) => what === 'left')?.at ?? leftAt;
  const isEnded = Boolean(endedAt) || said.some(({ what }) => what === 'ended');
  const [now, setNow] = useState<number>();
  useEffect(() => {
    const look = () => setNow(Date.now());
    look();
    const timer = setInterval(look, 15_000);
    return () => clearInterval(timer);
  }, []);
  const states = useMemo(() => {
    const undone = new Set(said.flatMap((event) => (event.what === 'undone' ? [event.item] : [])));
    return new Map(
      stops.map((stop) => {
        const bags = stop.bags.map((bag) => {
          const own = said.filter(
            (event) => 'kitId' in event && event.kitId === bag.id && event.what !== 'undone' && !undone.has(event.id),
          );
          const last = own.at(-1);
          if (last) return { ...bag, state: last.what === 'handed' ? 'gone' : last.what, by: last.id };
          return undone.has(bag.by) ? { ...bag, state: 'here', by: '' } : bag;
        });
        return [stop.householdId, bags] as const;
      }),
    );
  }, [said, stops]);
  const bagsOf = (stop: RoundDoor) => states.get(stop.householdId) ?? stop.bags;
  const isOpen = (stop: RoundDoor) => bagsOf(stop).some(({ state, isCalledBack }) => state === 'here' && !isCalledBack);
  const open = stops.filter(isOpen);
  const [next, ...later] = open;
  // Nothing is said of the cold before this phone's own clock is read: a page that was kept may be hours old.
  const cold =
    left && now && open.some(({ isCold }) => isCold)
      ? coldLeft(Math.floor((now - Date.parse(left)) / 60_000), 0)
      : undefined;
  const { time } = useMemo(() => sayingOf(says), [says]);
  const timeAt = (stop: RoundDoor) => ahead.find(({ at }) => at === stop.householdId)?.begins ?? stop.begins;
  return (
    <div className="flex flex-col gap-4">
      <Waiting count={waiting} isCut={isCut} message={trouble} />
      {warned.map((words, at) => (
        <p
          key={`${words}${at}`}
          role="alert"
          className="rounded-box border-l-4 border-error bg-error/10 p-3 font-semibold"
        >
          {words}
        </p>
      ))}
      <p className="text-lg" role="status">
        <b>
          {stops.length - open.length} of {stops.length} doors
        </b>
        , {title}
      </p>
      {cold !== undefined && (
        <p
          className={`flex items-center gap-2 rounded-box border-l-4 p-3 text-lg font-semibold ${cold < 20 ? 'border-error bg-error/10' : 'border-info bg-info/10'}`}
        >
          <Snowflake aria-hidden="true" size={20} />
          {cold >= 0
            ? `${cold} minutes left for what is cold`
            : 'The cold part is out of the fridge for too long: do not hand it out. Call the coordinator.'}
        </p>
      )}
      {!left && (
        <div>
          <p className="mb-2">
            Planned to leave at <b>{time(leaves)}</b>. Take what is cold out of the fridge last, with ice; then press:
            the families are told when you come.
          </p>
          {ahead.some((each) => each.isAfterWindow || each.isTooWarm) && (
            <p role="alert" className="mb-2 rounded-box border-l-4 border-error bg-error/10 p-3 font-semibold">
              Leaving now is too late for{' '}
              {ahead
                .filter((each) => each.isAfterWindow || each.isTooWarm)
                .map(({ at }) => stops.find(({ householdId }) => householdId === at)?.name)
                .join(', ')}
              : call the coordinator.
            </p>
          )}
          <button type="button" className="btn btn-primary h-14 w-full text-lg" onClick={() => sayRound('left')}>
            I leave now
          </button>
        </div>
      )}
      {next && (
        <section className="rounded-box border-2 border-primary p-4" aria-label="Next door">
          <p className="text-sm">Next, at about {time(timeAt(next))}</p>
          <h2 className="text-3xl font-bold">{next.name}</h2>
          <p className="text-xl">{next.address || 'No address is written: call them.'}</p>
          {next.note && <p className="mt-1 font-semibold">{next.note}</p>}
          <p className="mt-2 text-2xl">
            {bagsOf(next)
              .filter(({ isCalledBack }) => !isCalledBack)
              .map(({ number, variant }) => `Kit ${number} ${variant}`)
              .join(', ')}
            {next.isCold && ' with its cold part'}
          </p>
          {bagsOf(next).some(({ isCalledBack }) => isCalledBack) && (
            <p className="font-bold text-error">
              Kit{' '}
              {bagsOf(next)
                .filter(({ isCalledBack }) => isCalledBack)
                .map(({ number }) => number)
                .join(', ')}{' '}
              is called back: it does not go.
            </p>
          )}
          {left && <AtDoor stop={next} say={(what, who) => say(bagsToGo(bagsOf(next)), what, who)} />}
        </section>
      )}
      {!next && left && !isEnded && (
        <div>
          <p className="mb-2">
            All doors are done. Bring back what nobody took: cold parts are not restocked, hand them to the coordinator.
          </p>
          <button type="button" className="btn btn-primary h-14 w-full text-lg" onClick={() => sayRound('ended')}>
            I am back
          </button>
        </div>
      )}
      {isEnded && <p className="text-lg font-semibold">The round is over. Thank you.</p>}
      {later.length > 0 && (
        <section aria-label="Then">
          <h2 className="text-lg font-bold">Then</h2>
          <ol>
            {later.map((stop) => (
              <li key={stop.householdId} className="flex gap-3 border-t border-base-300 py-2">
                <span className="w-16 shrink-0 tabular-nums">{time(timeAt(stop))}</span>
                <span>
                  <b>{stop.name}</b>
                  <span className="block text-sm">{stop.address}</span>
                </span>
              </li>
            ))}
          </ol>
        </section>
      )}
      <section aria-label="Done">
        {stops
          .filter((stop) => !isOpen(stop))
          .map((stop) => {
            const bags = bagsOf(stop);
            const state = bags[0]?.state ?? '';
            return (
              <p key={stop.householdId} className="flex flex-wrap items-center gap-2 border-t border-base-300 py-2">
                <b>{stop.name}</b> {state === 'gone' ? 'handed out' : state === 'not there' ? 'nobody there' : state}
                {bags.some(({ by }) => by) && (
                  <button
                    type="button"
                    className="btn btn-sm"
                    onClick={() => {
                      for (const { id, by } of bags) if (by) say([id], 'undone', '', by);
                    }}
                  >
                    Take back: {stop.name}
                  </button>
                )}
              </p>
            );
          })}
      </section>
    </div>
  );
}

const bagsToGo = (bags: RoundDoor['bags']) =>
  bags.flatMap(({ id, state, isCalledBack }) => (state === 'here' && !isCalledBack ? [id] : []));

function AtDoor({ stop, say }: { stop: RoundDoor; say: (what: 'handed' | 'not there', who?: string) => void }) {
  const [who, setWho] = useState('');
  const phone = stop.contact.match(/\+?[\d][\d ()-]{5,}/)?.[0];
  return (
    <div className="mt-3 flex flex-col gap-2">
      <button
        type="button"
        className="btn btn-primary h-14 text-lg"
        onClick={() => {
          say('handed', who.trim());
          setWho('');
        }}
      >
        Handed to {who.trim() || stop.name}
      </button>
      <label className="flex flex-col gap-1 text-sm">
        To somebody else, by name
        <input
          className="input h-12 w-full"
          value={who}
          maxLength={120}
          onChange={(event) => setWho(event.target.value)}
        />
      </label>
      <div className="grid grid-cols-2 gap-2">
        {phone ? (
          <a className="btn h-12" href={`tel:${phone.replace(/[^\d+]/g, '')}`}>
            <Phone aria-hidden="true" size={18} /> Call
          </a>
        ) : (
          <span className="self-center text-sm break-all">
            {stop.contact ? `Reached at ${stop.contact}` : 'No number is written'}
          </span>
        )}
        <button type="button" className="btn h-12" onClick={() => say('not there')}>
          Nobody there
        </button>
      </div>
    </div>
  );
}
