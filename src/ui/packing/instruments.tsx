'use client';

import { useEffect, useState } from 'react';

const CODE = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
/** Characters further apart than this, in milliseconds, are not of one scan; no hand types a whole code by chance. */
const ONE_SCAN = 300;

/** The bench's instruments: what lies on the scale, and a label's code that opens its kit. */
export function Instruments({ openKit }: { openKit: (kitId: string) => boolean }) {
  const [said, setSaid] = useState('');

  useEffect(() => {
    let typed = '';
    let last = 0;
    const listen = (event: KeyboardEvent) => {
      if (event.timeStamp - last > ONE_SCAN) typed = '';
      last = event.timeStamp;
      if (event.key.length === 1) typed += event.key;
      const [code] = CODE.exec(typed) ?? [];
      if (event.key !== 'Enter' || !code) return;
      event.preventDefault();
      typed = '';
      setSaid(openKit(code) ? '' : 'This label is of no kit on this sheet.');
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [openKit]);

  const read = async () => {
    const response = await fetch('/api/devices').catch(() => null);
    if (response?.ok) return (await response.json()) as { grams: number | null; code: string | null };
    setSaid('The instruments do not answer.');
    return null;
  };

  return (
    <div className="flex flex-wrap items-center gap-3">
      <button
        type="button"
        className="btn h-12"
        onClick={async () => {
          const readings = await read();
          if (readings) setSaid(readings.grams === null ? 'The scale is off.' : `On the scale: ${readings.grams} g`);
        }}
      >
        Weigh
      </button>
      <button
        type="button"
        className="btn h-12"
        onClick={async () => {
          const readings = await read();
          const [code] = CODE.exec(readings?.code ?? '') ?? [];
          if (readings) setSaid(code && openKit(code) ? '' : 'No label of this sheet lies before the scanner.');
        }}
      >
        Scan a label
      </button>
      <span role="status" className="text-xl font-bold">
        {said}
      </span>
    </div>
  );
}
