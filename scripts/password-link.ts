// Makes a link under which a member sets a new password: for who looks after the machine, where no e-mail arrives.
import { addressOf } from '@/services/access/addresses';
import { passwordLink } from '@/services/access/links';
import { tellMember } from '@/services/messages/notices';
import { runningStore, surroundings } from '@/services/runtime';
import { findOne } from '@/store/query';
import { change } from '@/store/sql';

const words = process.argv.slice(2);
const [address = '', email = ''] = words.filter((word) => !word.startsWith('--'));
const store = runningStore();
const member = await findOne(store.db, store.db.models.member, { email: addressOf(email), status: 'active' });
if (!member) throw new Error(`Nobody signs in with “${email}”. Write the address as it stands on the People page.`);
const { secret } = await store.transaction((db) => passwordLink(surroundings(), db, member));
if (words.includes('--without-code')) {
  // Telephone and recovery codes are lost: they set the second step up again.
  await change(store.db, 'UPDATE member SET totp = NULL, totp_step = 0 WHERE id = :id', { id: member.id });
  await store.transaction((db) =>
    tellMember(surroundings(), db, member.id, 'signing in no longer asks for a code beside the password'),
  );
}
console.log(
  `${address}/reset/${secret}\n\nIt works once, within one hour, and is not shown again. Give it to ${member.name} alone.`,
);
await store.close();
