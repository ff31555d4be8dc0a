import { type Saying, sayingFacts, sayingOf } from '@/core/plan/saying';
import { findOne } from '@/store/query';
import type { Db } from '@/store/store';
import { notFound } from '../errors';
import type { Context } from '../gate/gate';

/** How the programme of the one who asks says dates, times and money, for what is written to somebody: one row. */
export async function sayingFor(context: Context, db: Db = context.store.db): Promise<Saying> {
  const programme = await findOne(db, db.models.programme, { id: context.actor.programmeId });
  if (!programme) throw notFound('programme');
  return sayingOf(sayingFacts(programme));
}
