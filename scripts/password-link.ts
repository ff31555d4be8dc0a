// Makes a link under which a member sets a new password: for who looks after the machine, where no e-mail arrives.
import { addressOf } from '@/services/access/addresses';
import { passwordLink } from '@/services/access/links';
import { runningStore, surroundings } from '@/services/runtime';
import { findOne } from '@/store/query';

const [address = '', email = ''] = process.argv.slice(2);
const store = runningStore();
const member = await findOne(store.db, store.db.models.member, { email: addressOf(email), status: 'active' });
if (!member) throw new Error(`Nobody signs in with “${email}”. Write the address as it stands on the People page.`);
const { secret } = await store.transaction((db) => passwordLink(surroundings(), db, member));
console.log(
  `${address}/reset/${secret}\n\nIt works once, within one hour, and is not shown again. Give it to ${member.name} alone.`,
);
await store.close();
