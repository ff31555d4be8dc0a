'use client';

import { useEffect, useState } from 'react';

const CODE = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
/** Characters further apart than this, in milliseconds, are not of one scan; no hand types a whole code by chance. */
const ONE_SCAN = 300;

interface Props {
  /** Opens the kit of a label; false where it is of none. */
  readonly openKit: (kitId: string) => boolean;
  /** Says what a weight is beside its aim, and keeps it. */
  readonly weigh: (grams: number) => Promise<string>;
  /** Takes a code that is no kit's for a lot's: what goes into the kits from now on. */
  readonly scanLot: (lotId: string) => Promise<string>;
}

/** The bench's instruments: what lies on the scale, and a code that opens its kit, or names the lot that is packed from. */
export function Instruments({ openKit, weigh, scanLot }: Props) {
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
      if (openKit(code)) setSaid('');
      else void scanLot(code).then(setSaid);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [openKit, scanLot]);

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
          if (readings) setSaid(readings.grams === null ? 'The scale is off.' : await weigh(readings.grams));
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
          if (!code) return readings && setSaid('No label lies before the scanner.');
          setSaid(openKit(code) ? '' : await scanLot(code));
        }}
      >
        Scan a code
      </button>
      <span role="status" className="text-xl font-bold">
        {said}
      </span>
    </div>
  );
}
