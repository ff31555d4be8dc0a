import { findOne } from '@/store/query';
import type { Db } from '@/store/store';
import type { AccountRow } from '@/store/tables/access';
import { notFound } from '../errors';
import type { Context } from '../gate/gate';

/** The account that whoever asks signs in with: a token has none. @throws ServiceError kind "not-found" */
export async function accountOf({ actor }: Pick<Context, 'actor'>, db: Db): Promise<AccountRow> {
  const member = await findOne(db, db.models.member, { id: actor.id });
  const account = member && (await findOne(db, db.models.account, { id: member.accountId }));
  if (!account) throw notFound('account');
  return account;
}
