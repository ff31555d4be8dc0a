import { redirect } from 'next/navigation';
import { cache } from 'react';
import { Temporal } from 'temporal-polyfill';
import { findOverseer, type Overseeing, type Overseer } from '@/services/gate/overseeing';
import { runningStore } from '@/services/runtime';
import { signedIn } from './access';

/** What the one who is signed in looks over; undefined where it is nothing, or nobody is signed in. One query a request. */
export const currentOverseer = cache(async (): Promise<Overseer | undefined> => {
  const { signInId } = await signedIn();
  return signInId ? findOverseer(runningStore(), signInId, new Date()) : undefined;
});

/** What the services of those who look over programmes work with; undefined for anybody else. */
export async function mayOversee(): Promise<Overseeing | undefined> {
  const overseer = await currentOverseer();
  return overseer && { overseer, clock: () => Temporal.Now.instant(), store: runningStore() };
}

/** Who looks over programmes; anybody else is led to where they can sign in. */
export async function requireOverseer(): Promise<Overseeing> {
  return (await mayOversee()) ?? redirect('/sign-in');
}
