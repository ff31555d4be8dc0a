import Link from 'next/link';
import type { ReactNode } from 'react';
import { call, requireMember } from '@/app/access';
import { signOut } from '@/app/sign-out';
import { sayingFacts } from '@/core/plan/saying';
import { ROLES, type Role } from '@/services/gate/gate';
import { markedDays } from '@/services/plan/marked-days';
import { KnotSymbols } from '@/ui/countdown/knot';
import { FindButton } from '@/ui/find/find-button';
import { NavLink } from '@/ui/nav-link';
import { NavProgress } from '@/ui/nav-progress';
import { Notices } from '@/ui/notices';
import { PageOf } from '@/ui/page-of';
import { SayingOf } from '@/ui/saying';
import { SignOut } from '@/ui/sign-out';
import { Wordmark } from '@/ui/wordmark';

const LINKS: readonly { href: string; title: string; roles: readonly Role[] }[] = [
  { href: '/', title: 'Countdown', roles: ['coordinator'] },
  { href: '/calendar', title: 'Calendar', roles: ['coordinator'] },
  { href: '/courses', title: 'Courses', roles: ['coordinator'] },
  { href: '/crew', title: 'Crew', roles: ['coordinator'] },
  { href: '/buying', title: 'Buying', roles: ['coordinator'] },
  { href: '/my', title: 'My duties', roles: ['instructor', 'crew'] },
  { href: '/trips', title: 'Trips', roles: ['crew'] },
  { href: '/shelves', title: 'Shelves', roles: ['crew'] },
  { href: '/recipes', title: 'Recipes', roles: ['coordinator', 'instructor'] },
  { href: '/duties', title: 'Bench and class', roles: ROLES },
  { href: '/reports', title: 'Reports', roles: ['coordinator'] },
  { href: '/programme', title: 'Programme', roles: ['coordinator'] },
];

async function marked() {
  'use server';
  return call(markedDays, {});
}

export default async function DeskLayout({ children }: { children: ReactNode }) {
  const { actor, programme, programmes } = await requireMember();
  return (
    <SayingOf value={sayingFacts(programme)} marked={actor.role === 'coordinator' ? marked : undefined}>
      <PageOf member={actor.id} />
      <NavProgress />
      <a href="#content" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-base-100 focus:p-3">
        Skip to the content
      </a>
      <header className="no-print bg-neutral text-neutral-content">
        <div className="mx-auto flex max-w-[80rem] flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2">
          <Link href="/" className="py-1">
            <Wordmark />
          </Link>
          <nav aria-label="Main" className="flex flex-wrap gap-0.5">
            {LINKS.filter(({ roles }) => roles.includes(actor.role)).map(({ href, title }) => (
              <NavLink key={href} href={href}>
                {title}
              </NavLink>
            ))}
          </nav>
          <div className="ml-auto flex items-center gap-3 text-sm">
            <FindButton />
            <span>
              <Link href="/account" className="link">
                {actor.name}
              </Link>
              <span className="hidden 2xl:inline">, {actor.role}</span>
              {programmes > 1 ? (
                <Link
                  href="/account#programmes"
                  title={`${programme.name}: go on in another programme`}
                  className="link ml-2 inline-block max-w-36 truncate align-bottom"
                >
                  {programme.name}
                </Link>
              ) : (
                <span className="ml-2 hidden max-w-36 truncate align-bottom 2xl:inline-block">{programme.name}</span>
              )}
            </span>
            <SignOut action={signOut} />
          </div>
        </div>
      </header>
      <main id="content" className="mx-auto max-w-[80rem] px-4 py-6">
        {children}
      </main>
      <KnotSymbols />
      <Notices />
    </SayingOf>
  );
}
