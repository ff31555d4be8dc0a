'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import type { ReactNode } from 'react';

/** A link of the main navigation, marked when its part of the program is open. */
export function NavLink({ href, children }: { href: string; children: ReactNode }) {
  const path = usePathname();
  const here =
    href === '/' ? path === '/' : path.startsWith(href) || (href === '/courses' && path.startsWith('/sessions'));
  return (
    <Link
      href={href}
      aria-current={here ? 'page' : undefined}
      className={`rounded-field px-2.5 py-2 ${here ? 'bg-base-100 font-semibold text-base-content' : 'hover:bg-neutral-content/15'}`}
    >
      {children}
    </Link>
  );
}
