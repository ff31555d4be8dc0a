import type { Temporal } from 'temporal-polyfill';
import type { z } from 'zod';
import type { Store } from '@/store/store';
import { ServiceError } from '../errors';

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
}

/** Moments of the database from the context's clock. */
export const nowOf = (context: Pick<Context, 'clock'>): Date => new Date(context.clock().epochMilliseconds);

/** One use case: who may call it, what it takes, what it does. */
export interface Service<Input, Output> {
  (context: Context, input: unknown): Promise<Output>;
  readonly title: string;
  readonly roles: readonly Role[];
  /** Only for the type: what the input must come to. */
  readonly takes?: Input;
}

/** Every service there is, for the test that lists who may call what. */
export const SERVICES: Service<unknown, unknown>[] = [];

interface Definition<Schema extends z.ZodType, Output> {
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
): Service<z.output<Schema>, Output> {
  const call = async (context: Context, input: unknown): Promise<Output> => {
    if (!definition.roles.includes(context.actor.role)) {
      throw new ServiceError('forbidden', 'Your role does not include this. Ask a coordinator of the programme.');
    }
    const reading = definition.input.safeParse(input);
    if (!reading.success) {
      throw new ServiceError(
        'invalid',
        'Something in what was sent cannot be used.',
        reading.error.issues.map((issue) => ({ where: pathOf(issue.path), message: issue.message })),
      );
    }
    return definition.run(context, reading.data);
  };
  const made = Object.assign(call, { title: definition.title, roles: definition.roles });
  SERVICES.push(made as Service<unknown, unknown>);
  return made;
}

/** A path as people write it: kits[2].avoids[0] */
function pathOf(path: readonly PropertyKey[]): string {
  return path
    .map((key, index) => (typeof key === 'number' ? `[${key}]` : `${index > 0 ? '.' : ''}${String(key)}`))
    .join('');
}
