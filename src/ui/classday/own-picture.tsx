'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { drawnSmall } from '../form/drawn-small';

/** A family sends a picture of what it cooked: first what it may be used for, then the picture. */
export function OwnPicture({ address }: { address: string }) {
  const router = useRouter();
  const [use, setUse] = useState('');
  const [said, setSaid] = useState('');
  const send = async (file: File | undefined) => {
    if (!file) return;
    const body = await drawnSmall(file).catch(() => null);
    if (!body) return setSaid('This is no picture that can be read. Take a photograph, as JPEG or PNG.');
    const headers = { 'content-type': 'application/octet-stream' };
    const answer = await fetch(`${address}?for=${use}`, { method: 'POST', headers, body }).catch(() => null);
    setSaid(
      answer?.ok ? 'Thank you: it is kept.' : 'The picture is not kept yet: nobody answered. Try again with a network.',
    );
    if (answer?.ok) router.refresh();
  };
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="font-semibold">A picture of what you cooked, if you like</legend>
      <label className="flex min-h-11 items-center gap-3">
        <input
          type="radio"
          name="use"
          className="radio"
          checked={use === 'programme'}
          onChange={() => setUse('programme')}
        />
        May be shown within the programme
      </label>
      <label className="flex min-h-11 items-center gap-3">
        <input type="radio" name="use" className="radio" checked={use === 'public'} onChange={() => setUse('public')} />
        May also be shown in public, without a name
      </label>
      <label className="flex flex-col gap-1 text-sm">
        It is kept for a year at most, and you can take it back at any time. Nobody’s face has to be on it.
        <input
          type="file"
          accept="image/*"
          className="file-input w-full"
          disabled={use === ''}
          onChange={(event) => void send(event.target.files?.[0])}
        />
      </label>
      <p role="status">{said}</p>
    </fieldset>
  );
}
