import type { ReactNode } from 'react';
import { requireOverseer } from '@/app/overseeing';
import { signOut } from '@/app/sign-out';
import { Framed } from '@/ui/framed';
import { SayingOf } from '@/ui/saying';

/** Pages of those who look over programmes: no family is named here. */
export default async function OverviewLayout({ children }: { children: ReactNode }) {
  const { name, cities, isOperator, saying } = (await requireOverseer()).overseer;
  const links = [
    ...cities.map(({ id, name: city }) => ({ href: `/overview/${id}`, title: city })),
    ...(isOperator ? [{ href: '/operator', title: 'Installation' }] : []),
  ];
  return (
    <SayingOf value={saying}>
      <Framed home="/overview" links={links} signOut={signOut} who={<span>{name}</span>}>
        {children}
      </Framed>
    </SayingOf>
  );
}
