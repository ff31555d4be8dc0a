'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { drawnSmall } from '../form/drawn-small';
import { notify } from '../notices';

/** Takes a photograph of the receipt, and shows the one that is kept. */
export function ReceiptPhoto({ tripId, isKept }: { tripId: string; isKept: boolean }) {
  const router = useRouter();
  const [trouble, setTrouble] = useState('');
  const address = `/api/trips/${tripId}/receipt`;
  const send = async (file: File | undefined) => {
    if (!file) return;
    setTrouble('');
    const body = await drawnSmall(file).catch(() => null);
    if (!body) return setTrouble('This is no picture that can be read. Take a photograph, as JPEG or PNG.');
    const headers = { 'content-type': 'application/octet-stream' };
    const answer = await fetch(address, { method: 'POST', headers, body }).catch(() => null);
    if (!answer?.ok) return setTrouble('The photograph is not kept yet: nobody answered. Try again with a network.');
    void notify({ message: 'The photograph of the receipt is kept.' });
    router.refresh();
  };
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3 text-sm">
      <label className="flex flex-col gap-1">
        <span className="font-semibold">
          {isKept ? 'Another photograph of the receipt' : 'Photograph of the receipt'}
        </span>
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="file-input"
          onChange={(event) => void send(event.target.files?.[0])}
        />
      </label>
      {isKept && (
        <a href={address} target="_blank" rel="noreferrer" className="link">
          See the receipt
        </a>
      )}
      <p role="alert" className="text-error">
        {trouble}
      </p>
    </div>
  );
}
