'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { notify } from '../notices';

/** Longer sides make a receipt no easier to read. */
const LONGEST_SIDE = 1600;

/** The picture as small as it can be read, drawn anew: where and when it was taken stays on the phone. */
async function drawnSmall(file: File): Promise<Blob> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/jpeg', 0.8);
  });
}

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
