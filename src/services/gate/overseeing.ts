import type { Temporal } from 'temporal-polyfill';
import type { z } from 'zod';
import { type SayingFacts, sayingFacts } from '@/core/plan/saying';
import { seeSignIns } from '@/store/access';
import { overseersSignedIn } from '@/store/overview';
import type { Store } from '@/store/store';
import { ServiceError } from '../errors';
import { MINUTES_IDLE, SEEN_EVERY_MINUTES } from './idle';

/** Somebody who looks over programmes without being a member of them: of cities, or of the installation. */
export interface Overseer {
  readonly accountId: string;
  readonly name: string;
  readonly cities: readonly { readonly id: string; readonly name: string }[];
  /** How dates and times are said to them: as in one of their programmes. */
  readonly saying: SayingFacts;
  /** They look after the installation. */
  readonly isOperator: boolean;
}

/** What their services work with. */
export interface Overseeing {
  readonly overseer: Overseer;
  readonly clock: () => Temporal.Instant;
  readonly store: Store;
}

/** Every service for those who look over programmes, for the test that lists who may call what. */
export const OVERSEEING: { readonly title: string; readonly of: 'city' | 'operator' }[] = [];

/**
 * A use case of somebody who looks over programmes. It refuses whoever does not, and a city that is not theirs, before anything is
 * read.
 */
export function overseeing<Schema extends z.ZodType, Output>(definition: {
  readonly title: string;
  readonly of: 'city' | 'operator';
  readonly input: Schema;
  run(context: Overseeing, input: z.output<Schema>): Promise<Output>;
}) {
  const { title, of } = definition;
  OVERSEEING.push({ title, of });
  return async (context: Overseeing, input: z.input<Schema>): Promise<Output> => {
    const { isOperator, cities } = context.overseer;
    const { cityId } = input as { cityId?: unknown };
    const may = of === 'operator' ? isOperator : cities.some(({ id }) => id === cityId);
    if (!may) throw new ServiceError('not-found', 'There is nothing here that you look over.');
    const reading = definition.input.safeParse(input);
    if (!reading.success)
      throw new ServiceError(
        'invalid',
        'Something in what was sent cannot be used.',
        reading.error.issues.map(({ path, message }) => ({ where: path.join('.'), message })),
      );
    return definition.run(context, reading.data);
  };
}

/** Whoever looks over programmes behind a sign-in; undefined where they look over none, or it has ended. */
export async function findOverseer(store: Store, signInId: string, now: Date): Promise<Overseer | undefined> {
  const idleSince = new Date(now.getTime() - MINUTES_IDLE * 60_000);
  const rows = await overseersSignedIn(store.db, { signInId, now, idleSince });
  const [first] = rows;
  if (!first) return undefined;
  if (now.getTime() - first.seenAt.getTime() > SEEN_EVERY_MINUTES * 60_000)
    await seeSignIns(store.db, { ids: [signInId], now });
  return {
    accountId: first.accountId,
    name: first.overseer,
    saying: sayingFacts({
      manner: first.manner ?? null,
      currency: first.currency ?? '',
      safetyProfile: first.safetyProfile ?? 'uk',
      timeZone: first.timeZone ?? 'UTC',
    }),
    cities: rows.flatMap(({ cityId, city }) => (cityId && city ? [{ id: cityId, name: city }] : [])),
    isOperator: rows.some(({ cityId }) => cityId === null),
  };
}
