import { databaseTrouble, type ErrorKind, type Problem, ServiceError } from '@/services/errors';
import type { Actor } from '@/services/gate/gate';
import type { Overseeing } from '@/services/gate/overseeing';
import { faultOf, log } from '@/watch/log';
import { apiActor } from '../access';
import { mayOversee } from '../overseeing';

const STATUS: Readonly<Record<ErrorKind, number>> = {
  forbidden: 403,
  'not-found': 404,
  stale: 409,
  invalid: 422,
  limited: 429,
  proof: 403,
  'media type': 415,
  unavailable: 503,
};

/** An error as problem+json (RFC 9457): what is wrong, where, and what to do. */
export function problem(status: number, title: string, problems: readonly Problem[] = []): Response {
  return Response.json(
    { type: 'about:blank', status, title, ...(problems.length > 0 ? { problems } : {}) },
    {
      status,
      headers: { 'content-type': 'application/problem+json', ...(status === 503 ? { 'retry-after': '2' } : {}) },
    },
  );
}

/**
 * Runs an API route: finds who asks, refuses writes that another site's page could have sent with the cookie, and turns
 * every error into a problem a person can act on.
 */
export async function route(request: Request, work: (actor: Actor) => Promise<Response>): Promise<Response> {
  try {
    const reads = request.method === 'GET' || request.method === 'HEAD';
    if (!reads && !isOwnPage(request.headers)) return problem(403, 'This request comes from another site.');
    const actor = await apiActor(request);
    if (!actor) return problem(401, 'Sign in, or send a token made with "npm run token" as "Authorization: Bearer …".');
    return await work(actor);
  } catch (error) {
    return problemOf(error);
  }
}

/** The same for those who look over programmes, and only read. */
export async function overseerRoute(work: (context: Overseeing) => Promise<Response>): Promise<Response> {
  try {
    const context = await mayOversee();
    return context ? await work(context) : problem(401, 'Sign in first.');
  } catch (error) {
    return problemOf(error);
  }
}

/** Runs what is sent from a page behind a personal link, whose secret is the proof: every refusal is a problem to act on. */
export async function ownAnswer(request: Request, work: () => Promise<Response>): Promise<Response> {
  try {
    if (!isOwnPage(request.headers)) return problem(403, 'This request comes from another site.');
    return await work();
  } catch (error) {
    return problemOf(error);
  }
}

function problemOf(error: unknown): Response {
  const known = error instanceof ServiceError ? error : databaseTrouble(error);
  if (known) return problem(STATUS[known.kind], known.message, known.problems);
  log().error(faultOf(error), 'a request failed');
  return problem(500, 'Something went wrong on our side. Nothing was saved; try again.');
}

/** A cookie alone does not prove intent: browsers name the page's origin, tokens need none. */
function isOwnPage(sent: Headers): boolean {
  if (sent.get('authorization')) return true;
  const origin = sent.get('origin');
  const site = sent.get('sec-fetch-site');
  if (!origin) return site === null || site === 'same-origin' || site === 'none';
  return URL.canParse(origin) && new URL(origin).host === sent.get('host');
}

/** A file as the browser sends it: what it is, its bytes say. */
export const ANY_FILE = 'application/octet-stream';

/**
 * The body's bytes, never more than `limit`.
 *
 * @param type the media type that the body must be said to have
 * @throws ServiceError when it is of another type, or larger; reading stops there
 */
export async function readBounded(request: Request, limit: number, type: string): Promise<Uint8Array> {
  const [sent = ''] = (request.headers.get('content-type') ?? '').toLowerCase().split(';', 1);
  if (sent.trim() !== type)
    throw new ServiceError(
      'media type',
      `Send this as ${type}: set the header Content-Type. It was “${sent.slice(0, 60)}”.`,
    );
  const tooLarge = () =>
    new ServiceError(
      'invalid',
      `What was sent is larger than ${limit / 1024 / 1024} MB. Send less: a roll or a recipe is far smaller.`,
    );
  if (Number(request.headers.get('content-length') ?? 0) > limit) throw tooLarge();
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (let chunk = await reader?.read(); chunk && !chunk.done; chunk = await reader?.read()) {
    size += chunk.value.length;
    if (size > limit) {
      await reader?.cancel();
      throw tooLarge();
    }
    parts.push(chunk.value);
  }
  const bytes = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}

/** The body as JSON. @throws ServiceError when it is too large or not JSON */
export async function readJson(request: Request, limit: number): Promise<unknown> {
  const bytes = await readBounded(request, limit, 'application/json');
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch (error) {
    throw new ServiceError('invalid', `The body is not JSON in UTF-8: ${(error as Error).message}.`);
  }
}
