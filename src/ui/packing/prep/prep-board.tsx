'use client';

import { useMemo } from 'react';
import { v7 } from 'uuid';
import type { SentPrep } from '@/contracts/prep';
import type { PrepAction, PrepPhase } from '@/core/packing/prep/motion';
import { sayCount } from '@/core/quantity/say';
import { useSaying } from '@/ui/saying';
import { Waiting } from '../../buying/waiting';
import { useShared } from '../../offline/use-shared';

type Said = SentPrep;
interface Heard {
  readonly id: string;
  readonly motion: string;
  readonly action: PrepAction;
  readonly seq: number;
}

export interface BoardMotion {
  readonly key: string;
  readonly food: string;
  readonly cut: string;
  readonly phase: PrepPhase;
  readonly grams: number;
  readonly sayGrams: string;
  readonly kits: number;
  readonly minutes: number;
  readonly timed: number;
}

interface Props {
  readonly date: string;
  /** Minutes of the day at which the prep begins. */
  readonly begins: number;
  readonly motions: readonly BoardMotion[];
  readonly hands: readonly { readonly id: string; readonly name: string }[];
  readonly stretches: readonly {
    readonly motion: string;
    readonly hand: string;
    readonly from: number;
    readonly to: number;
    readonly minutes: number;
  }[];
  readonly events: readonly Heard[];
}

const BOARDS = {
  without: 'clean board and knife, before the rest',
  between: 'its own board and knife: others must not get it',
  rest: 'produce board',
  raw: 'raw-meat board, its own knife, hands washed after',
} as const;

/** Who does which motion when; begun and done on every screen at once, as at the bench. */
export function PrepBoard({ date, begins, motions, hands, stretches, events }: Props) {
  const { heard, saved, waiting, trouble, isCut, add } = useShared<Said, Said & { seq: number }>(
    {
      name: `prep ${date}`,
      address: `/api/prep/${date}/events`,
      body: (own) => ({ events: own }),
      words: {
        noAnswer: 'The server does not answer. Go on: what you tap is kept here and sent again.',
        signedOut: 'You are signed out. Sign in again on this device: what you tapped is kept here.',
        refused: 'This was refused.',
      },
    },
    events.map((event) => ({ cut: '', grams: 0, ...event })),
  );
  const states = useMemo(() => {
    const known = new Set(heard.map(({ id }) => id));
    const now = new Map<string, PrepAction>();
    for (const { motion, action } of [...heard, ...[...saved, ...waiting].filter(({ id }) => !known.has(id))])
      now.set(motion, action);
    return now;
  }, [heard, saved, waiting]);
  const byKey = new Map(motions.map((motion) => [motion.key, motion]));
  const done = motions.filter(({ key }) => states.get(key) === 'done').length;
  const say = ({ key, cut, grams }: BoardMotion, action: PrepAction) =>
    add([{ id: v7(), motion: key, cut, grams, action }]);
  const saying = useSaying();
  const time = (minutes: number) => saying.time(begins + minutes);
  return (
    <div>
      <Waiting count={waiting.length} isCut={isCut} message={trouble} />
      <p role="status" className="mb-3 text-xl font-bold">
        {done} of {motions.length} motions done
      </p>
      <div className="grid gap-4 md:grid-cols-2 xl:grid-cols-3">
        {hands.map((hand) => {
          const own = stretches.filter((each) => each.hand === hand.id).sort((a, b) => a.from - b.from);
          return (
            <section key={hand.id} className="sheet p-4" aria-label={hand.name}>
              <h2 className="text-lg font-bold">{hand.name}</h2>
              {own.length === 0 && <p className="text-sm">Nothing: wash up, label, set out containers.</p>}
              <ol>
                {own.map((stretch) => {
                  const motion = byKey.get(stretch.motion);
                  if (!motion) return null;
                  const state = states.get(motion.key);
                  const isShared = stretch.minutes < motion.minutes;
                  return (
                    <li key={`${stretch.motion} ${stretch.from}`} className="border-t border-base-300 py-2">
                      <p>
                        <span className="tabular-nums">
                          {time(stretch.from)} to {time(stretch.to)}
                        </span>{' '}
                        <b>
                          {motion.food}, {motion.cut || 'measure out'}
                        </b>
                        {isShared && ` (${stretch.minutes} of ${motion.minutes} min, shared)`}
                      </p>
                      <p className="text-sm">
                        {motion.sayGrams} for {sayCount(motion.kits, 'kit')}, {BOARDS[motion.phase]}
                      </p>
                      <div className="no-print mt-1 flex gap-2">
                        {state === 'done' ? (
                          <button type="button" className="btn btn-sm" onClick={() => say(motion, 'undone')}>
                            Done. Not yet after all: {motion.food}, {motion.cut || 'measure out'}
                          </button>
                        ) : (
                          <>
                            <button
                              type="button"
                              className={`btn h-11 ${state === 'begun' ? 'btn-active' : ''}`}
                              aria-pressed={state === 'begun'}
                              aria-label={`Begun: ${motion.food}, ${motion.cut || 'measure out'}`}
                              onClick={() => say(motion, 'begun')}
                            >
                              Begun
                            </button>
                            <button
                              type="button"
                              className="btn btn-primary h-11"
                              aria-label={`Done: ${motion.food}, ${motion.cut || 'measure out'}`}
                              onClick={() => say(motion, 'done')}
                            >
                              Done
                            </button>
                          </>
                        )}
                      </div>
                    </li>
                  );
                })}
              </ol>
            </section>
          );
        })}
      </div>
    </div>
  );
}
