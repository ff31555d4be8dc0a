import { getIronSession, type SessionOptions } from 'iron-session';
import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { askedTogether } from '@/services/access/asked-together';
import { beginSecondStep, turnOnSecondStep, viewSecondStep } from '@/services/access/second-step';
import {
  awaitsCode,
  findActor,
  findActors,
  findTokenActors,
  HOURS_SIGNED_IN,
  type SignedIn,
  type SignedInMember,
} from '@/services/access/sign-in';
import { ServiceError } from '@/services/errors';
import type { Actor, Called, Service } from '@/services/gate/gate';
import { findOverseer } from '@/services/gate/overseeing';
import { contextFor, runningStore, visitFrom } from '@/services/runtime';

/** What the cookie carries, encrypted: which sign-in it is. Whether that still holds, the database says. */
interface Carried {
  signInId?: string;
}

/** What a browser keeps after its member has signed out: that they have been here before. */
interface CarriedDevice {
  token?: string;
}

const DAYS_KNOWN = 180;

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
export const signedIn = async () => getIronSession<Carried>(await cookies(), options());

const device = async () => {
  const { cookieName, ...rest } = options();
  return getIronSession<CarriedDevice>(await cookies(), {
    ...rest,
    cookieName: `${cookieName}-device`,
    ttl: DAYS_KNOWN * 86_400,
  });
};

/** Who asks, by cookie; null when nobody is signed in. One query a request. */
export const currentMember = cache(async (): Promise<SignedInMember | null> => {
  const { signInId } = await signedIn();
  return signInId ? ((await findActor(runningStore(), signInId, new Date())) ?? null) : null;
});

/** This browser, for signing in. */
export async function visit() {
  const sent = await headers();
  return visitFrom(sent.get('x-forwarded-for') ?? '', sent.get('user-agent') ?? '', (await device()).token ?? '');
}

/** Keeps a sign-in in this browser's cookie, and that its member has been here, in another that outlives it. */
export async function keepSignIn({ signInId, deviceToken }: SignedIn): Promise<void> {
  const session = await signedIn();
  session.signInId = signInId;
  await session.save();
  const known = await device();
  known.token = deviceToken;
  await known.save();
}

/** Who is signed in, whatever they have still to set up; a page nobody is signed in for leads to the sign-in. */
export async function requireSignIn(): Promise<SignedInMember> {
  const member = await currentMember();
  if (member) return member;
  const { signInId } = await signedIn();
  if (signInId && (await awaitsCode(await visit(), signInId))) redirect('/sign-in/code');
  // Whoever looks over programmes belongs to none, as a rule.
  redirect(signInId && (await findOverseer(runningStore(), signInId, new Date())) ? '/overview' : '/sign-in');
}

/** Who asks. One whose programme wants a second step sets that up before anything else. */
export async function requireMember(): Promise<SignedInMember> {
  const member = await requireSignIn();
  if (member.mustSetUp) redirect('/second-step');
  return member;
}

/** What somebody may do who has the second step still to set up. */
const SETTING_UP: ReadonlySet<string> = new Set(
  [viewSecondStep, beginSecondStep, turnOnSecondStep].map(({ title }) => title),
);

/** Who asks for a service; one with the second step still to set up reaches only what that needs. */
export const whoAsks = ({ title }: Pick<Called, 'title'>): Promise<SignedInMember> =>
  SETTING_UP.has(title) ? requireSignIn() : requireMember();

/** Calls a service for the person signed in; what is not their duty leads to the page that says so. */
export async function call<Input, Output>(service: Service<Input, Output>, input: NoInfer<Input>): Promise<Output> {
  const { actor } = await whoAsks(service);
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
  const { signInId } = await getIronSession<Carried>(request, new Response(), options());
  const member = signInId ? await bySignIn(signInId) : undefined;
  // A page that was opened in another programme sends nothing into this one: it keeps what it has until its own is back.
  const page = request.headers.get('x-member');
  return member && !member.mustSetUp && (page === null || page === member.actor.id) ? member.actor : null;
}
