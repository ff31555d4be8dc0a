'use client';

import { useEffect, useRef } from 'react';

/** Leads to where it stands when it appears: on a small screen what was opened may be far from the button that opened it. */
export function ComeIntoView() {
  const place = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const section = place.current?.parentElement;
    section?.scrollIntoView({ block: 'nearest' });
    section?.querySelector<HTMLElement>('input:not([type=hidden]), select, textarea')?.focus({ preventScroll: true });
  }, []);
  return <span ref={place} />;
}
