'use client';

import { useState, useTransition } from 'react';
import { ActionForm } from '../form/action-form';
import type { FormState } from '../form/form-state';

interface Named {
  readonly id: string;
  readonly name: string;
}

interface Found {
  readonly there: readonly Named[];
  readonly missing: readonly Named[];
  readonly asked: readonly { readonly said: string; readonly perhaps: readonly Named[] }[];
  readonly strangers: readonly string[];
}

interface Props {
  readonly match: (data: FormData) => Promise<Found>;
  readonly record: (state: FormState | null, data: FormData) => Promise<FormState>;
}

/** Names pasted from a call: whom they mean, what is unclear, who is missing; kept as attendance at one press. */
export function WhoIsThere({ match, record }: Props) {
  const [found, setFound] = useState<Found>();
  const [isBusy, start] = useTransition();
  const [trouble, setTrouble] = useState('');
  return (
    <>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const data = new FormData(event.currentTarget);
          start(async () => {
            const answer = await match(data).catch(() => undefined);
            setTrouble(answer ? '' : 'The server does not answer. What you pasted is still here: try again.');
            if (answer) setFound(answer);
          });
        }}
        className="flex flex-col gap-2"
      >
        <label className="flex flex-col gap-1">
          <span className="text-sm font-semibold">Paste the list of names, or the chat</span>
          <textarea name="pasted" rows={6} className="textarea w-full" maxLength={40_000} />
        </label>
        <button type="submit" className="btn btn-primary self-start" disabled={isBusy}>
          {isBusy ? 'Looking …' : 'See who is there'}
        </button>
      </form>
      {trouble && (
        <p role="alert" className="mt-2 font-semibold text-error">
          {trouble}
        </p>
      )}
      {found && (
        <ActionForm action={record} label="Note who came" className="mt-4 flex flex-col gap-2">
          <p role="status" className="text-lg">
            <b>{found.there.length} of the roll are there.</b>{' '}
            {found.missing.length > 0 && `Not seen: ${found.missing.map(({ name }) => name).join(', ')}.`}
          </p>
          <fieldset className="flex flex-col gap-1">
            <legend className="sr-only">There</legend>
            {found.there.map(({ id, name }) => (
              <Box key={id} id={id} name={name} on />
            ))}
          </fieldset>
          {found.asked.map(({ said, perhaps }) => (
            <fieldset key={said} className="rounded-box border border-base-300 p-3">
              <legend className="font-semibold">“{said}” could be</legend>
              {perhaps.map(({ id, name }) => (
                <Box key={id} id={id} name={name} on={false} />
              ))}
            </fieldset>
          ))}
          {found.strangers.length > 0 && (
            <p>
              <b>Nobody of the roll:</b> {found.strangers.map((said) => `“${said}”`).join(', ')}. Ask who they are
              before you go on.
            </p>
          )}
          <button type="submit" className="btn btn-primary self-start">
            Note them as there
          </button>
        </ActionForm>
      )}
    </>
  );
}

const Box = ({ id, name, on }: Named & { on: boolean }) => (
  <label className="flex min-h-11 items-center gap-3">
    <input type="checkbox" name="id" value={id} defaultChecked={on} className="checkbox" />
    {name}
  </label>
);
