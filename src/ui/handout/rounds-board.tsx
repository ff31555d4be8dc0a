'use client';

import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo, useState, useTransition } from 'react';
import { judgeRound } from '@/core/handout/doors/round';
import type { Driver, RoutesCase } from '@/core/handout/routes/route-case';
import { useSaying } from '@/ui/saying';
import { notify } from '../notices';

export interface BoardRound {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly driver: Driver;
  /** undefined while it stands at home. */
  readonly leftAt: string | null;
  readonly stops: readonly string[];
  /** How it goes, where it is on the road. */
  readonly going: string;
}

export interface BoardDoor {
  readonly householdId: string;
  readonly name: string;
  readonly address: string;
  readonly kits: string;
  readonly isCold: boolean;
  /** What was said of its kits: "handed out", "nobody there"; '' while they are on the way. */
  readonly said: string;
}

interface Props {
  readonly given: RoutesCase;
  readonly rounds: readonly BoardRound[];
  readonly doors: readonly BoardDoor[];
  readonly left: readonly string[];
  readonly save: (
    rounds: readonly { readonly id: string; readonly version: number; readonly stops: readonly string[] }[],
  ) => Promise<{ readonly ok: boolean; readonly message?: string }>;
}

/** Rounds as ordered lists: a door that is moved is checked while it is moved, by what the server would say. */
export function RoundsBoard({ given, rounds, doors, left, save }: Props) {
  const [orders, setOrders] = useState<ReadonlyMap<string, readonly string[]>>(
    new Map(rounds.map(({ id, stops }) => [id, stops])),
  );
  const [said, setSaid] = useState('');
  const [isSaving, startSaving] = useTransition();
  const byId = useMemo(() => new Map(doors.map((door) => [door.householdId, door])), [doors]);
  const { time } = useSaying();
  const isChanged = rounds.some(({ id, stops }) => (orders.get(id) ?? []).join() !== stops.join());
  const inRounds = new Set([...orders.values()].flat());
  const open = [...left, ...rounds.flatMap(({ stops }) => stops)].filter((id) => !inRounds.has(id));
  const put = (door: string, to: string, at?: number) =>
    setOrders((before) => {
      const next = new Map([...before].map(([id, stops]) => [id, stops.filter((each) => each !== door)] as const));
      const own = next.get(to);
      if (own) next.set(to, own.toSpliced(at ?? own.length, 0, door));
      return next;
    });
  const free = rounds.filter(({ leftAt }) => leftAt === null);
  const keep = () =>
    startSaving(async () => {
      const answer = await save(free.map(({ id, version }) => ({ id, version, stops: orders.get(id) ?? [] })));
      // Kept, the board is drawn anew: what is said of it must outlast it.
      if (answer.ok) void notify({ message: 'The order is kept.' });
      else setSaid(answer.message ?? 'Nothing was saved.');
    });
  return (
    <div>
      <div className="grid gap-4 lg:grid-cols-2">
        {rounds.map((round, letter) => {
          const order = orders.get(round.id) ?? [];
          const { leaves, begins, driving, trouble } = judgeRound(given, round.driver, order, time);
          return (
            <section key={round.id} className="sheet p-4" aria-label={`Round of ${round.name}`}>
              <h3 className="text-lg font-bold">
                {String.fromCharCode(65 + letter)}: {round.name}
              </h3>
              <p className="mb-2 text-sm">
                {round.going || (
                  <>
                    Leaves at <b>{time(leaves)}</b>, {driving} minutes on the road.
                  </>
                )}
              </p>
              <ol className="flex flex-col gap-1">
                {order.map((id, at) => {
                  const door = byId.get(id);
                  if (!door) return null;
                  return (
                    <li key={id} className="flex flex-wrap items-center gap-2 border-t border-base-300 py-1">
                      <span className="w-16 tabular-nums">{time(begins[at] ?? leaves)}</span>
                      <span className="min-w-0 grow">
                        <b>{door.name}</b>
                        <span className="block text-sm">
                          {[door.address, door.kits, door.isCold ? 'cold' : ''].filter(Boolean).join(' · ')}
                        </span>
                        {door.said && <span className="text-sm font-semibold">{door.said}</span>}
                      </span>
                      {round.leftAt === null && (
                        <span className="no-print flex items-center gap-1">
                          <button
                            type="button"
                            className="btn btn-sm btn-square"
                            aria-label={`${door.name} earlier`}
                            disabled={at === 0}
                            onClick={() => put(id, round.id, at - 1)}
                          >
                            <ArrowUp aria-hidden="true" size={16} />
                          </button>
                          <button
                            type="button"
                            className="btn btn-sm btn-square"
                            aria-label={`${door.name} later`}
                            disabled={at === order.length - 1}
                            onClick={() => put(id, round.id, at + 1)}
                          >
                            <ArrowDown aria-hidden="true" size={16} />
                          </button>
                          <select
                            className="select select-sm w-28"
                            aria-label={`${door.name} into another round`}
                            value={round.id}
                            onChange={(event) => put(id, event.target.value)}
                          >
                            {free.map((each) => (
                              <option key={each.id} value={each.id}>
                                {each.name}
                              </option>
                            ))}
                            <option value="">no round</option>
                          </select>
                        </span>
                      )}
                    </li>
                  );
                })}
              </ol>
              {trouble && (
                <p
                  role="alert"
                  className="mt-2 rounded-box border-l-4 border-error bg-error/10 p-2 text-sm font-semibold"
                >
                  {byId.get(trouble.at)?.name ?? ''}: {trouble.say}
                </p>
              )}
            </section>
          );
        })}
      </div>
      {open.length > 0 && free.length > 0 && (
        <section className="sheet mt-4 p-4" aria-label="In no round">
          <h3 className="text-lg font-bold">In no round</h3>
          <ul>
            {open.map((id) => (
              <li key={id} className="flex flex-wrap items-center gap-2 py-1">
                <b>{byId.get(id)?.name}</b>
                <select
                  className="select select-sm w-40"
                  aria-label={`${byId.get(id)?.name} into a round`}
                  value=""
                  onChange={(event) => put(id, event.target.value)}
                >
                  <option value="">into a round …</option>
                  {free.map((each) => (
                    <option key={each.id} value={each.id}>
                      {each.name}
                    </option>
                  ))}
                </select>
              </li>
            ))}
          </ul>
        </section>
      )}
      <p className="no-print mt-3 flex flex-wrap items-center gap-3">
        {isChanged && (
          <>
            <button type="button" className="btn btn-primary" disabled={isSaving} onClick={keep}>
              Keep this order
            </button>
            <button
              type="button"
              className="btn"
              onClick={() => setOrders(new Map(rounds.map(({ id, stops }) => [id, stops])))}
            >
              As it was
            </button>
          </>
        )}
        <span role="status">{said}</span>
      </p>
    </div>
  );
}
