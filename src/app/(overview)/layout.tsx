import Link from 'next/link';
import type { ReactNode } from 'react';
import { requireOverseer } from '@/app/overseeing';
import { signOut } from '@/app/sign-out';
import { NavLink } from '@/ui/nav-link';
import { NavProgress } from '@/ui/nav-progress';
import { Notices } from '@/ui/notices';
import { SayingOf } from '@/ui/saying';
import { SignOut } from '@/ui/sign-out';
import { Wordmark } from '@/ui/wordmark';

/** Pages of those who look over programmes: no family is named here. */
export default async function OverviewLayout({ children }: { children: ReactNode }) {
  const { name, cities, isOperator, saying } = (await requireOverseer()).overseer;
  return (
    <SayingOf value={saying}>
      <NavProgress />
      <a href="#content" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-base-100 focus:p-3">
        Skip to the content
      </a>
      <header className="no-print bg-neutral text-neutral-content">
        <div className="mx-auto flex max-w-[80rem] flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2">
          <Link href="/overview" className="py-1">
            <Wordmark />
          </Link>
          <nav aria-label="Main" className="flex flex-wrap gap-0.5">
            {cities.map(({ id, name: city }) => (
              <NavLink key={id} href={`/overview/${id}`}>
                {city}
              </NavLink>
            ))}
            {isOperator && <NavLink href="/operator">Installation</NavLink>}
          </nav>
          <div className="ml-auto flex items-center gap-3 text-sm">
            <span>{name}</span>
            <SignOut action={signOut} />
          </div>
        </div>
      </header>
      <main id="content" className="mx-auto max-w-[80rem] px-4 py-6">
        {children}
      </main>
      <Notices />
    </SayingOf>
  );
}
