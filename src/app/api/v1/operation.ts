import type { z } from 'zod';
import { ServiceError } from '@/services/errors';
import type { Context } from '@/services/gate/gate';

/** What an operation is given: checked path and query, and the body as it came. */
export interface Call<Query> {
  readonly params: Readonly<Record<string, string>>;
  readonly query: Query;
  /** The body as JSON, read when it is asked for. */
  json(): unknown;
  readonly bytes: Uint8Array;
  /** Whether the client would rather have this type. */
  accepts(type: string): boolean;
  /** The address of this request, for links to the next page. */
  readonly url: URL;
}

/** What an operation answers: a value as JSON, or a file. */
export type Reply =
  | { readonly json: unknown; readonly status?: number }
  | { readonly file: BodyInit; readonly type: string; readonly name: string };

/** One operation of the API: what the document says of it, and what it does. */
export interface Operation<Query extends z.ZodType = z.ZodType> {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  /** As OpenAPI writes it: "/courses/{courseId}". */
  readonly path: string;
  readonly summary: string;
  readonly query?: Query;
  readonly body?: { readonly type: string; readonly schema?: z.ZodType; readonly what?: string; readonly most: number };
  readonly answer: { readonly status: number; readonly schema?: z.ZodType; readonly types?: readonly string[] };
  /** Writes that take an Idempotency-Key: each saves in one transaction. */
  readonly once?: boolean;
  run(context: Context, call: Call<z.output<Query>>): Promise<Reply>;
}

/** Only for its types: the query that `run` is given is the schema's. */
export const operation = <Query extends z.ZodType>(definition: Operation<Query>): Operation =>
  definition as unknown as Operation;

/**
 * A page of a list, in order of id.
 *
 * @param items all there are
 */
export function pageOfItems<T extends { readonly id: string }>(
  items: readonly T[],
  { query, url }: { query: { after?: string | undefined; limit: number }; url: URL },
): { items: readonly T[]; next: string | null } {
  const sorted = [...items].sort((a, b) => (a.id < b.id ? -1 : 1)).filter(({ id }) => !query.after || id > query.after);
  const page = sorted.slice(0, query.limit);
  const last = page.at(-1);
  if (!last || sorted.length <= page.length) return { items: page, next: null };
  const next = new URL(url);
  next.searchParams.set('after', last.id);
  return { items: page, next: next.pathname + next.search };
}

/** A body as JSON. @throws ServiceError when it is not JSON in UTF-8 */
export function parseJson(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch (error) {
    throw new ServiceError('invalid', `The body is not JSON in UTF-8: ${(error as Error).message}.`);
  }
}
