import Link from 'next/link';
import type { ReactNode } from 'react';
import { call, requireMember } from '@/app/access';
import { signOut } from '@/app/sign-out';
import { sayingFacts } from '@/core/plan/saying';
import { ROLES, type Role } from '@/services/gate/gate';
import { markedDays } from '@/services/plan/marked-days';
import { KnotSymbols } from '@/ui/countdown/knot';
import { FindButton } from '@/ui/find/find-button';
import { Framed } from '@/ui/framed';
import { PageOf } from '@/ui/page-of';
import { SayingOf } from '@/ui/saying';

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
      <Framed
        home="/"
        links={LINKS.filter(({ roles }) => roles.includes(actor.role))}
        signOut={signOut}
        who={
          <>
            <FindButton />
            <span className={programmes > 1 ? 'flex flex-col items-end leading-tight' : ''}>
              <span>
                <Link href="/account" className="link">
                  {actor.name}
                </Link>
                <span className="hidden 2xl:inline">, {actor.role}</span>
              </span>
              {programmes > 1 ? (
                <Link
                  href="/account#programmes"
                  title={`${programme.name}: go on in another programme`}
                  className="link max-w-36 truncate"
                >
                  {programme.name}
                </Link>
              ) : (
                <span className="ml-2 hidden max-w-36 truncate align-bottom 2xl:inline-block">{programme.name}</span>
              )}
            </span>
          </>
        }
      >
        {children}
      </Framed>
      <KnotSymbols />
    </SayingOf>
  );
}
