'use client';

import Link from 'next/link';
import { useState } from 'react';
import type { ClassNow } from '@/core/classday/live/class-events';
import type { Say } from './use-class';

interface Props {
  readonly sessionId: string;
  readonly people: readonly { readonly id: string; readonly name: string }[];
  readonly now: ClassNow;
  readonly say: Say;
  /** Tasks of now, as what everybody may be asked for. */
  readonly current: readonly string[];
}

const BOX = 'rounded-box border-2 border-base-300 p-4';

/** A class on screen: questions as they come, what everybody is asked for, and what a family lacks. */
export function OnScreenPanel({ sessionId, people, now, say, current }: Props) {
  return (
    <div className="grid gap-4 lg:grid-cols-2">
      <Questions questions={now.questions} people={people} say={say} />
      <section aria-label="Has everybody …" className={BOX}>
        <h2 className="mb-2 text-2xl font-bold">Has everybody …</h2>
        <AskAll say={say} current={current} />
        {now.asked.toReversed().map((each, at) => {
          const without = people.filter(({ id }) => !each.having.has(id));
          return (
            <details key={each.id} open={at === 0} className="mt-3 border-t border-base-300 pt-2">
              <summary className="min-h-11 cursor-pointer text-lg">
                <b>
                  {each.having.size} of {people.length}
                </b>{' '}
                {each.value.text}
                {without.length > 0 &&
                  without.length <= 4 &&
                  `; not yet: ${without.map(({ name }) => name).join(', ')}`}
              </summary>
              <div className="mt-2 flex flex-wrap gap-2">
                {people.map(({ id, name }) => (
                  <button
                    key={id}
                    type="button"
                    className={`btn h-11 ${each.having.has(id) ? 'btn-primary' : ''}`}
                    aria-pressed={each.having.has(id)}
                    aria-label={`${name}: ${each.value.text}`}
                    onClick={() => say(each.having.has(id) ? 'has not' : 'has', { item: each.id, enrolmentId: id })}
                  >
                    {name}
                  </button>
                ))}
              </div>
            </details>
          );
        })}
      </section>
      <section aria-label="What a family lacks" className={BOX}>
        <h2 className="mb-2 text-2xl font-bold">What a family lacks</h2>
        <Lacks people={people} lacks={now.lacks} say={say} />
        <p className="mt-3">
          <Link href={`/room/${sessionId}/on-screen`} className="link">
            Who is in the call, what homes have, and what will do instead
          </Link>
        </p>
      </section>
    </div>
  );
}

function Questions({ questions, people, say }: Pick<Props, 'people' | 'say'> & { questions: ClassNow['questions'] }) {
  const [who, setWho] = useState('');
  const [text, setText] = useState('');
  const open = questions.filter(({ answer }) => answer === '');
  const answered = questions.filter(({ answer }) => answer !== '');
  return (
    <section aria-label="Questions" className={BOX}>
      <h2 className="mb-2 text-2xl font-bold">Questions</h2>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!text.trim()) return;
          say('question', { value: { text: text.trim(), ...(who.trim() ? { who: who.trim() } : {}) } });
          setText('');
          setWho('');
        }}
      >
        <label className="flex w-40 flex-col gap-1">
          Who asks
          <input
            className="input h-12 w-full"
            list="who-asks"
            value={who}
            maxLength={120}
            onChange={(event) => setWho(event.target.value)}
          />
          <datalist id="who-asks">
            {people.map(({ id, name }) => (
              <option key={id} value={name} />
            ))}
          </datalist>
        </label>
        <label className="flex min-w-56 grow flex-col gap-1">
          Question
          <input
            className="input h-12 w-full"
            value={text}
            maxLength={300}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-primary h-12">
          Keep
        </button>
      </form>
      <ul>
        {open.map(({ id, value }) => (
          <li key={id} className="mt-3 border-t border-base-300 pt-2">
            <p className="text-lg">
              {value.who && <b>{value.who}: </b>}
              {value.text}
            </p>
            <Answer id={id} say={say} question={value.text ?? ''} />
          </li>
        ))}
      </ul>
      {answered.length > 0 && (
        <details className="mt-3">
          <summary className="min-h-11 cursor-pointer">{answered.length} answered</summary>
          <ul>
            {answered.map(({ id, value, answer }) => (
              <li key={id} className="mt-1">
                <b>{value.text}</b> {answer}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function Answer({ id, question, say }: { id: string; question: string; say: Say }) {
  const [text, setText] = useState('');
  return (
    <form
      className="mt-1 flex gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        say('answered', { item: id, value: { text: text.trim() || 'answered' } });
      }}
    >
      <input
        className="input h-11 grow"
        aria-label={`Answer to: ${question}`}
        placeholder="What was answered"
        value={text}
        maxLength={300}
        onChange={(event) => setText(event.target.value)}
      />
      <button type="submit" className="btn h-11">
        Answered
      </button>
    </form>
  );
}

function AskAll({ say, current }: Pick<Props, 'say' | 'current'>) {
  const [text, setText] = useState('');
  const put = (words: string) => say('asked', { value: { text: words.slice(0, 300) } });
  return (
    <>
      <form
        className="flex gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!text.trim()) return;
          put(text.trim());
          setText('');
        }}
      >
        <input
          className="input h-12 grow"
          aria-label="What everybody is asked for"
          placeholder="the water on?"
          value={text}
          maxLength={300}
          onChange={(event) => setText(event.target.value)}
        />
        <button type="submit" className="btn btn-primary h-12">
          Ask
        </button>
      </form>
      <div className="mt-2 flex flex-wrap gap-2">
        {['kit and equipment at hand', ...current.slice(0, 2)].map((words) => (
          <button key={words} type="button" className="btn h-11" onClick={() => put(words)}>
            {words.slice(0, 40)}
          </button>
        ))}
      </div>
    </>
  );
}

function Lacks({ people, lacks, say }: Pick<Props, 'people' | 'say'> & { lacks: ClassNow['lacks'] }) {
  const [id, setId] = useState('');
  const [text, setText] = useState('');
  return (
    <>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!id) return;
          say('lacks', { enrolmentId: id, value: { text: text.trim() } });
          setText('');
        }}
      >
        <label className="flex flex-col gap-1">
          Who
          <select className="select h-12" value={id} onChange={(event) => setId(event.target.value)}>
            <option value="">choose</option>
            {people.map(({ id: each, name }) => (
              <option key={each} value={each}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex grow flex-col gap-1">
          Lacks (empty: nothing any more)
          <input
            className="input h-12 w-full"
            value={text}
            maxLength={300}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <button type="submit" className="btn h-12">
          Keep
        </button>
      </form>
      <ul className="mt-2 list-disc pl-5">
        {[...lacks].map(([enrolmentId, what]) => (
          <li key={enrolmentId}>
            {people.find((person) => person.id === enrolmentId)?.name}: {what}
          </li>
        ))}
      </ul>
    </>
  );
}
