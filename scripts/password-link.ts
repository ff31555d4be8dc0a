// Makes a link under which a member sets a new password: for who looks after the machine, where no e-mail arrives.
import { addressOf } from '@/services/access/addresses';
import { passwordLink } from '@/services/access/links';
import { tellMember } from '@/services/messages/notices';
import { runningStore, surroundings } from '@/services/runtime';
import { dropTotp } from '@/store/access';
import { membershipsOf } from '@/store/accounts';
import { findOne } from '@/store/query';

const words = process.argv.slice(2);
const [address = '', email = ''] = words.filter((word) => !word.startsWith('--'));
const store = runningStore();
const account = await findOne(store.db, store.db.models.account, { email: addressOf(email) });
if (!account) throw new Error(`Nobody signs in with “${email}”. Write the address as it stands on the People page.`);
const [member] = await membershipsOf(store.db, { accountId: account.id });
const { secret } = await store.transaction((db) =>
  passwordLink(surroundings(), db, account, member?.programmeId ?? null),
);
if (words.includes('--without-code')) {
  // Telephone and recovery codes are lost: they set the second step up again.
  await dropTotp(store.db, { accountId: account.id });
  if (member)
    await store.transaction((db) =>
      tellMember(surroundings(), db, member.id, 'signing in no longer asks for a code beside the password'),
    );
}
console.log(
  `${address}/reset/${secret}\n\nIt works once, within one hour, and is not shown again. Give it to ${member?.name ?? account.email} alone.`,
);
await store.close();
