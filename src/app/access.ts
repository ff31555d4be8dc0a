import { getIronSession, type SessionOptions } from 'iron-session';
import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import type { Actor, Service } from '@/services/access/gate';
import { findActor, findTokenActor, type Programme } from '@/services/access/sign-in';
import { ServiceError } from '@/services/errors';
import { contextFor, runningStore } from '@/services/runtime';

/** What the cookie carries, encrypted. */
interface SignedIn {
  memberId?: string;
}

const HOURS_SIGNED_IN = 12;

function options(): SessionOptions {
  const password = process.env.SESSION_SECRET;
  if (!password) throw new Error('SESSION_SECRET is not set: start the program with "npm start".');
  return {
    password,
    cookieName: 'logistra',
    ttl: HOURS_SIGNED_IN * 3600,
    // Served on loopback without TLS: a secure cookie would never come back.
    cookieOptions: { httpOnly: true, sameSite: 'lax', secure: false, path: '/' },
  };
}

/** The encrypted cookie of this request. */
export const signedIn = async () => getIronSession<SignedIn>(await cookies(), options());

/** Who asks, by cookie; null when nobody is signed in. One query a request. */
export const currentMember = cache(async (): Promise<{ actor: Actor; programme: Programme } | null> => {
  const { memberId } = await signedIn();
  return memberId ? ((await findActor(runningStore(), memberId)) ?? null) : null;
});

/** Who asks; a page nobody is signed in for leads to the sign-in. */
export async function requireMember() {
  const member = await currentMember();
  if (!member) redirect('/sign-in');
  return member;
}

/** Calls a service for the person signed in; what is not their duty leads to the page that says so. */
export async function call<Input, Output>(service: Service<Input, Output>, input: Input): Promise<Output> {
  const { actor } = await requireMember();
  try {
    return await service(contextFor(actor), input);
  } catch (error) {
    if (error instanceof ServiceError && error.kind === 'forbidden') redirect('/no-duty');
    throw error;
  }
}

/** Who asks an API route: by bearer token, else by cookie. */
export async function apiActor(): Promise<Actor | null> {
  const authorization = (await headers()).get('authorization');
  const token = /^Bearer (\S+)$/.exec(authorization ?? '')?.[1];
  if (authorization) return token ? ((await findTokenActor(runningStore(), token, new Date())) ?? null) : null;
  return (await currentMember())?.actor ?? null;
}
