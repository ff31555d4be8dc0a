import { Temporal } from 'temporal-polyfill';
import type { z } from 'zod';
import { countAttempt, type Limit } from '@/store/attempts';
import { isDuplicate, type Store } from '@/store/store';
import { ServiceError } from '../errors';
import { logSecurity } from './security-log';

/** Coordinators run the programme; instructors teach; crew pack and help in class. */
export const ROLES = ['coordinator', 'instructor', 'crew'] as const;

/** What a person of the programme may do. */
export type Role = (typeof ROLES)[number];

/** Who asks. */
export interface Actor {
  readonly id: string;
  readonly programmeId: string;
  readonly role: Role;
  readonly name: string;
  /** When they last gave their password in this browser; absent for tokens and the background process. */
  readonly provenAt?: Date;
}

/** What every service works with; nothing else of the outside world reaches it. */
export interface Context {
  readonly actor: Actor;
  /** The present instant. */
  readonly clock: () => Temporal.Instant;
  /** A new id (UUIDv7). */
  readonly ids: () => string;
  readonly store: Store;
  /** Where the programme is reached, for links in messages: "https://192.0.2.7:3000". */
  readonly address: string;
  /** The secret of this deployment, kept apart from the database; keys for each purpose are made from it. */
  readonly deploymentKey: string;
}

/** The civil date of a time zone now, YYYY-MM-DD. */
export const todayIn = (context: Context, timeZone: string): string =>
  context.clock().toZonedDateTimeISO(timeZone).toPlainDate().toString();

/** The moment at which a civil date begins in a time zone: what happened in an evening of Denver belongs to that day, not to the next in London. */
export const beginningOf = (date: string, timeZone: string): Date =>
  new Date(Temporal.PlainDate.from(date).toZonedDateTime(timeZone).epochMilliseconds);

/** Moments of the database from the context's clock. */
export const nowOf = (context: Pick<Context, 'clock'>): Date => new Date(context.clock().epochMilliseconds);

/**
 * What may be sent for an input: its very fields, with numbers and choices also as the text that a form has. The gate reads
 * it, and refuses what cannot be used; that no field is missing or called otherwise is found out when the program is built.
 */
export type Sent<Input> = unknown extends Input
  ? unknown
  : Input extends string
    ? string
    : Input extends number
      ? number | string
      : Input extends readonly (infer Item)[]
        ? readonly Sent<Item>[]
        : Input extends object
          ? { readonly [Name in keyof Input]: Sent<Input[Name]> }
          : Input;

/** One use case: who may call it, what it takes, what it does. */
export interface Service<Input, Output> {
  /** Reads whatever it is given, and refuses what does not fit: a page says what it sends in the types of `takes`. */
  (context: Context, input: unknown): Promise<Output>;
  readonly title: string;
  readonly roles: readonly Role[];
  /** What it asks for beside a role. */
  readonly guards: Guards;
  /** What it reads, for whoever goes through all services. */
  readonly reads: z.ZodType;
  /** Only for the type: what is to be sent. */
  readonly takes?: Input;
}

/** What is to be sent to a service. */
export type InputOf<Of extends { readonly takes?: unknown }> = NonNullable<Of['takes']>;

/** What the gate looks at of a service. */
export type Called = Pick<Service<unknown, unknown>, 'title' | 'roles'>;

/** Every service there is, for the test that lists who may call what. */
export const SERVICES: Service<unknown, unknown>[] = [];

interface Guards {
  /** Cannot be undone, or opens a door: the password is asked for again when it was not given in the last minutes. */
  readonly proof?: true;
  /** Takes the server's time or space: a person may ask for so much of it in a minute, and no more. */
  readonly costly?: true;
}

/** For so long a password counts as just given. */
const PROOF_MINUTES = 10;

/** Costly requests of one person, for all servers together. */
const COSTLY: Limit = { name: 'costly', points: 120, seconds: 60 };

/**
 * Refuses who may not call a service, before anything they sent is looked at, and keeps that it was tried.
 *
 * @throws ServiceError kind "forbidden"
 */
export async function refuseRole({ title, roles }: Called, context: Context): Promise<void> {
  const { id: actorId, programmeId, role } = context.actor;
  if (roles.includes(role)) return;
  await logSecurity(context, 'refused', { programmeId, actorId, detail: title });
  throw new ServiceError('forbidden', 'Your role does not include this. Ask a coordinator of the programme.');
}

/** @throws ServiceError when the asker may not go on: another role, a password to be given, too much at once */
async function pass(context: Context, { title, roles, proof, costly }: Called & Guards): Promise<void> {
  await refuseRole({ title, roles }, context);
  const { actor, clock, store } = context;
  if (proof && actor.provenAt && clock().epochMilliseconds - actor.provenAt.getTime() > PROOF_MINUTES * 60_000)
    throw new ServiceError('proof', 'This cannot be undone, or opens a door: give your password once more.');
  if (!costly) return;
  const seconds = await countAttempt(store, COSTLY, actor.id);
  if (seconds === 0) return;
  await logSecurity(context, 'too much asked for', {
    programmeId: actor.programmeId,
    actorId: actor.id,
    detail: title,
  });
  throw new ServiceError('limited', `You asked for a great deal just now. Wait ${seconds} seconds, then try again.`);
}

interface Definition<Schema extends z.ZodType, Output> extends Guards {
  readonly title: string;
  readonly roles: readonly Role[];
  readonly input: Schema;
  run(context: Context, input: z.output<Schema>): Promise<Output>;
}

/**
 * The one gate: a service defined here refuses roles it does not name before anything is read, and input that does not
 * fit before anything is loaded.
 */
export function service<Schema extends z.ZodType, Output>(
  definition: Definition<Schema, Output>,
): Service<Sent<z.input<Schema>>, Output> {
  const call = async (context: Context, input: unknown): Promise<Output> => {
    await pass(context, definition);
    const reading = definition.input.safeParse(input);
    if (!reading.success) {
      throw new ServiceError(
        'invalid',
        'Something in what was sent cannot be used.',
        reading.error.issues.map((issue) => ({ where: pathOf(issue.path), message: issue.message })),
      );
    }
    try {
      return await definition.run(context, reading.data);
    } catch (error) {
      // Two people did the same at one moment: the database keeps the first, and the second is told.
      if (isDuplicate(error))
        throw new ServiceError(
          'stale',
          'Somebody else did the same at this moment. Nothing of yours was saved: look at it again.',
        );
      throw error;
    }
  };
  const { title, roles, proof, costly } = definition;
  const guards: Guards = { ...(proof ? { proof } : {}), ...(costly ? { costly } : {}) };
  const made = Object.assign(call, { title, roles, guards, reads: definition.input });
  SERVICES.push(made);
  return made;
}

/** A path as people write it: kits[2].avoids[0] */
function pathOf(path: readonly PropertyKey[]): string {
  return path
    .map((key, index) => (typeof key === 'number' ? `[${key}]` : `${index > 0 ? '.' : ''}${String(key)}`))
    .join('');
}
