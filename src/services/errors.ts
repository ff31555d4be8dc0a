import { troubleOf } from '@/store/trouble';

/** One thing that is wrong with what was sent: where, and what to do. */
export interface Problem {
  /** Field or path: "servings", "kits[2].avoids[0]", "line 7, servings". */
  readonly where: string;
  readonly message: string;
}

export type ErrorKind =
  | 'forbidden'
  | 'not-found'
  | 'stale'
  | 'invalid'
  | 'limited'
  | 'unavailable'
  | 'proof'
  | 'media type';

/** An error that a person can act on: what is wrong, where, and what to do. */
export class ServiceError extends Error {
  override name = 'ServiceError';

  constructor(
    readonly kind: ErrorKind,
    message: string,
    readonly problems: readonly Problem[] = [],
  ) {
    super(message);
  }
}

/** Something that is not there, or belongs to another programme: both look alike from outside. */
export const notFound = (what: string) =>
  new ServiceError('not-found', `This ${what} does not exist, or is not yours to see.`);

/** Somebody else saved first. */
export const stale = (what: string) =>
  new ServiceError(
    'stale',
    `${what} was changed by someone else while you were editing. Look at the present version, then make your change again.`,
  );

/** An error of the database in words a person can act on; undefined when it is something else. */
export function databaseTrouble(error: unknown): ServiceError | undefined {
  const trouble = troubleOf(error);
  if (trouble === 'away')
    return new ServiceError(
      'unavailable',
      'The database is not answering just now. Nothing was saved; try again in a moment.',
    );
  if (trouble === 'takes nothing in')
    return new ServiceError(
      'unavailable',
      'The database takes nothing in: its disk is full, or it is read-only. Nothing was saved, and nothing saved before is lost. Ask whoever looks after this machine to free some space, then try again.',
    );
  return undefined;
}
