'use client';

import { useRouter } from 'next/navigation';
import { useEffect } from 'react';

/** Leaves for `href` when Escape is pressed. */
export function EscapeTo({ href }: { href: string }) {
  const router = useRouter();
  useEffect(() => {
    const leave = (event: KeyboardEvent) => {
      if (event.key === 'Escape') router.push(href, { scroll: false });
    };
    window.addEventListener('keydown', leave);
    return () => window.removeEventListener('keydown', leave);
  }, [href, router]);
  return null;
}
