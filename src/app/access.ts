import { getIronSession, type SessionOptions } from 'iron-session';
import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { askedTogether } from '@/services/access/asked-together';
import type { Actor, Service } from '@/services/access/gate';
import { findActor, findActors, findTokenActors, HOURS_SIGNED_IN, type Programme } from '@/services/access/sign-in';
import { ServiceError } from '@/services/errors';
import { contextFor, runningStore, visitFrom } from '@/services/runtime';

/** What the cookie carries, encrypted: which sign-in it is. Whether that still holds, the database says. */
interface SignedIn {
  signInId?: string;
}

const isTls = () => process.env.LOGISTRA_TLS === '1';

function options(): SessionOptions {
  const password = process.env.SESSION_SECRET;
  if (!password) throw new Error('SESSION_SECRET is not set: start the program with "npm start".');
  return {
    password,
    // The prefix makes browsers refuse the cookie from anywhere but this very host, over TLS.
    cookieName: isTls() ? '__Host-logistra' : 'logistra',
    ttl: HOURS_SIGNED_IN * 3600,
    // On loopback, without TLS, a secure cookie would never come back.
    cookieOptions: { httpOnly: true, sameSite: 'lax', secure: isTls(), path: '/' },
  };
}

/** The encrypted cookie of this request. */
export const signedIn = async () => getIronSession<SignedIn>(await cookies(), options());

/** Who asks, by cookie; null when nobody is signed in. One query a request. */
export const currentMember = cache(async (): Promise<{ actor: Actor; programme: Programme } | null> => {
  const { signInId } = await signedIn();
  return signInId ? ((await findActor(runningStore(), signInId, new Date())) ?? null) : null;
});

/** This browser, for signing in. */
export async function visit() {
  const sent = await headers();
  return visitFrom(sent.get('x-forwarded-for') ?? '', sent.get('user-agent') ?? '');
}

/** Keeps a sign-in in this browser's cookie. */
export async function keepSignIn(signInId: string): Promise<void> {
  const session = await signedIn();
  session.signInId = signInId;
  await session.save();
}

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

const bySignIn = askedTogether((ids) => findActors(runningStore(), ids, new Date()));
const byToken = askedTogether((tokens) => findTokenActors(runningStore(), tokens, new Date()));

/** Who asks an API route: by bearer token, else by cookie. Reads the request alone, so that it is quick. */
export async function apiActor(request: Request): Promise<Actor | null> {
  const authorization = request.headers.get('authorization');
  if (authorization) {
    const token = /^Bearer (\S+)$/.exec(authorization)?.[1];
    return token ? ((await byToken(token)) ?? null) : null;
  }
  const { signInId } = await getIronSession<SignedIn>(request, new Response(), options());
  return signInId ? ((await bySignIn(signInId))?.actor ?? null) : null;
}
