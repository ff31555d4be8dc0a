'use client';

import { Frown, Meh, Smile } from 'lucide-react';
import { useState } from 'react';
import { v7 } from 'uuid';
import { FACES, type Face } from '@/core/classday/tasting';
import { Waiting } from '../buying/waiting';
import { useSent } from '../offline/use-sent';

interface Tasted {
  readonly id: string;
  readonly dishId: string;
  readonly face: Face;
  readonly enrolmentId: string | null;
}

interface Props {
  readonly sessionId: string;
  readonly dishes: readonly {
    readonly id: string;
    readonly title: string;
    readonly votes: Readonly<Record<Face, number>>;
  }[];
  readonly people: readonly {
    readonly id: string;
    readonly name: string;
    readonly tasted: readonly { readonly dishId: string }[];
  }[];
}

const ICONS = { 'more please': Smile, 'it is fine': Meh, 'not yet': Frown } as const;
const WORDS = {
  noAnswer: 'The server does not answer. Go on: everything is kept on this tablet and sent again.',
  signedOut: 'You are signed out. Sign in again: what was tapped is kept here.',
  refused: 'This was refused.',
};

/** One tablet, children in a row: each taps what they think, with a name or without. */
export function TastingTable({ sessionId, dishes, people }: Props) {
  const [dishId, setDish] = useState(dishes[0]?.id ?? '');
  const [who, setWho] = useState<string | null>(null);
  const [thanks, setThanks] = useState('');
  const { add, said, waiting, isCut, trouble } = useSent<Tasted>({
    name: `tasting ${sessionId}`,
    address: `/api/tasting/${sessionId}`,
    body: (events) => ({ events }),
    words: WORDS,
  });
  const dish = dishes.find(({ id }) => id === dishId);
  if (!dish) return <p>This class has no dish yet.</p>;
  const tasted = new Set([
    ...people.filter((person) => person.tasted.some((each) => each.dishId === dishId)).map(({ id }) => id),
    ...said.flatMap((each) => (each.dishId === dishId && each.enrolmentId ? [each.enrolmentId] : [])),
  ]);
  const votes = said.filter((each) => each.dishId === dishId);
  const tap = (face: Face) => {
    add([{ id: v7(), dishId, face, enrolmentId: who }]);
    const name = people.find(({ id }) => id === who)?.name;
    setThanks(`Thank you${name ? `, ${name}` : ''}. Who is next?`);
    setWho(null);
  };
  return (
    <div className="flex flex-col gap-4">
      <Waiting count={waiting} isCut={isCut} message={trouble} />
      {dishes.length > 1 && (
        <fieldset className="flex flex-wrap gap-3">
          <legend className="sr-only">Dish</legend>
          {dishes.map(({ id, title }) => (
            <button
              key={id}
              type="button"
              className={`btn h-12 ${id === dishId ? 'btn-primary' : ''}`}
              aria-pressed={id === dishId}
              onClick={() => setDish(id)}
            >
              {title}
            </button>
          ))}
        </fieldset>
      )}
      <h2 className="text-3xl font-bold">{dish.title}: what do you think?</h2>
      <fieldset className="flex flex-wrap gap-2">
        <legend className="mb-1 font-semibold">Who</legend>
        <button
          type="button"
          className={`btn h-12 ${who === null ? 'btn-primary' : ''}`}
          aria-pressed={who === null}
          onClick={() => setWho(null)}
        >
          without a name
        </button>
        {people.map(({ id, name }) => (
          <button
            key={id}
            type="button"
            className={`btn h-12 ${who === id ? 'btn-primary' : ''}`}
            aria-pressed={who === id}
            onClick={() => setWho(id)}
          >
            {name}
            {tasted.has(id) && <span className="text-xs">has tasted</span>}
          </button>
        ))}
      </fieldset>
      <div className="grid gap-4 sm:grid-cols-3">
        {FACES.map((face) => {
          const Icon = ICONS[face];
          const count =
            dish.votes[face] + votes.filter((each) => each.face === face && each.enrolmentId === null).length;
          return (
            <button key={face} type="button" className="btn h-auto flex-col gap-2 py-6" onClick={() => tap(face)}>
              <Icon aria-hidden="true" size={72} />
              <span className="text-2xl">{face}</span>
              <span className="text-sm font-normal">{count} so far</span>
            </button>
          );
        })}
      </div>
      <p role="status" className="text-xl font-semibold">
        {thanks}
      </p>
    </div>
  );
}
