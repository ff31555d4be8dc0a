'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { type ReactNode, useEffect, useRef } from 'react';

/** Pages that belong to a part of the program without standing under its address. */
const BELONGS: Readonly<Record<string, readonly string[]>> = {
  '/': ['/week-sheet', '/start'],
  '/calendar': ['/closures', '/places'],
  '/courses': ['/sessions'],
  '/buying': ['/shelves', '/trips', '/cold-failed'],
  '/recipes': ['/reference'],
  '/duties': ['/room', '/table', '/made', '/prep', '/temperatures', '/live', '/bench'],
  '/reports': ['/lessons'],
  '/programme': ['/people', '/families', '/devices'],
};

const isUnder = (path: string, href: string) =>
  path === href || path.startsWith(`${href}/`) || path.startsWith(`${href}-`);

/** A link of the main navigation, marked when its part of the program is open; `links` are all that stand beside it. */
export function NavLink({ href, links, children }: { href: string; links: readonly string[]; children: ReactNode }) {
  const path = usePathname();
  const ref = useRef<HTMLAnchorElement>(null);
  const own = (each: string) => (each === '/' ? path === '/' : isUnder(path, each));
  // A part with a link of its own, as shelves are the crew's, is not another's as well.
  const isOthers = links.some((each) => each !== href && own(each));
  const here = own(href) || (!isOthers && (BELONGS[href] ?? []).some((each) => isUnder(path, each)));
  // On a phone the links stand in a row that is wider than it is.
  useEffect(() => {
    const row = ref.current?.parentElement;
    if (here && row && row.scrollWidth > row.clientWidth)
      row.scrollLeft = (ref.current?.offsetLeft ?? 0) - row.offsetLeft - row.clientWidth / 3;
  }, [here]);
  return (
    <Link
      ref={ref}
      href={href}
      aria-current={here ? 'page' : undefined}
      className={`whitespace-nowrap rounded-field px-2.5 py-2 ${here ? 'bg-base-100 font-semibold text-base-content' : 'hover:bg-neutral-content/15'}`}
    >
      {children}
    </Link>
  );
}
