import Link from 'next/link';
import type { ReactNode } from 'react';
import { NavLink } from './nav-link';
import { NavProgress } from './nav-progress';
import { Notices } from './notices';
import { Wordmark } from './wordmark';

/**
 * A page with its menu above it.
 *
 * @param home where the wordmark leads
 * @param who who is signed in, and what stands beside them
 */
export function Framed({
  home,
  links,
  who,
  signOut,
  children,
}: {
  home: string;
  links: readonly { readonly href: string; readonly title: string }[];
  who: ReactNode;
  signOut: () => Promise<void>;
  children: ReactNode;
}) {
  return (
    <>
      <a href="#content" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-base-100 focus:p-3">
        Skip to the content
      </a>
      <header className="no-print bg-neutral text-neutral-content">
        <div className="mx-auto flex max-w-[80rem] flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2">
          <Link href={home} className="py-1">
            <Wordmark small />
          </Link>
          {/* On a phone one row that goes sideways: wrapped, it would take a quarter of the screen. */}
          <nav
            aria-label="Main"
            className="flex gap-0.5 max-md:order-last max-md:w-full max-md:overflow-x-auto max-md:py-0.5 md:flex-wrap"
          >
            {links.map(({ href, title }) => (
              <NavLink key={href} href={href} links={links.map((each) => each.href)}>
                {title}
              </NavLink>
            ))}
          </nav>
          <div className="ml-auto flex items-center gap-3 text-sm max-md:gap-2">
            {who}
            <form action={signOut}>
              <button
                type="submit"
                className="btn btn-sm shrink-0 whitespace-nowrap border-neutral-content/40 bg-transparent text-neutral-content hover:bg-neutral-content/15"
              >
                Sign out
              </button>
            </form>
          </div>
        </div>
      </header>
      <main id="content" className="relative mx-auto max-w-[80rem] px-4 py-6">
        <NavProgress />
        {children}
      </main>
      <Notices />
    </>
  );
}
