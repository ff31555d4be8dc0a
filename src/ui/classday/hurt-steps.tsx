'use client';

import { Phone } from 'lucide-react';
import { useState } from 'react';
import { HURTS, type Hurt } from '@/core/classday/first-steps';

interface Props {
  readonly number: string;
  readonly steps: Readonly<Record<Hurt, readonly string[]>>;
  readonly people: readonly { readonly id: string; readonly name: string; readonly plan: string }[];
}

/** Who and what: the family's plan first, then the usual first steps, and the number to call. Its choices are sent with the form around. */
export function HurtSteps({ number, steps, people }: Props) {
  const [who, setWho] = useState('');
  const [hurt, setHurt] = useState<Hurt>();
  const person = people.find(({ id }) => id === who);
  return (
    <>
      <a
        href={`tel:${
          number
            .replace(/[^\d+]/g, ' ')
            .trim()
            .split(' ')[0]
        }`}
        className="btn btn-error mb-3 h-16 w-full text-2xl"
      >
        <Phone aria-hidden="true" /> Emergency: {number}
      </a>
      <label className="mb-3 flex flex-col gap-1">
        <span className="font-semibold">Who</span>
        <select
          name="enrolmentId"
          className="select h-12 w-full"
          value={who}
          onChange={(event) => setWho(event.target.value)}
        >
          <option value="">one of the crew, or somebody else</option>
          {people.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <fieldset className="mb-3">
        <legend className="mb-1 font-semibold">What happened</legend>
        <div className="flex flex-wrap gap-3">
          {HURTS.map((each) => (
            <label key={each} className={`btn h-12 ${hurt === each ? 'btn-primary' : ''}`}>
              <input
                type="radio"
                name="hurt"
                value={each}
                className="sr-only"
                checked={hurt === each}
                onChange={() => setHurt(each)}
              />
              {each}
            </label>
          ))}
        </div>
      </fieldset>
      {person && (
        <p className="mb-3 rounded-box border-l-4 border-error bg-error/10 p-3 text-lg">
          <b className="block">The family’s plan for {person.name}, first</b>
          {person.plan || 'None is on record: call the family, and follow the usual steps.'}
        </p>
      )}
      {hurt && (
        <ol className="mb-4 list-decimal pl-6 text-lg">
          {steps[hurt].map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
      )}
    </>
  );
}
