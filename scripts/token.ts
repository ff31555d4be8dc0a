// Makes an API token for the first programme: kept as a hash, shown once.
import { makeToken } from '@/services/access/members';
import { contextFor, runningStore } from '@/services/runtime';
import { find } from '@/store/query';

const [name = 'made on the command line', role = 'coordinator', days = '90'] = process.argv.slice(2);
const store = runningStore();
const [programme] = await find(store.db, store.db.models.programme, {}, [['id', 'ASC']]);
if (!programme) throw new Error('There is no programme in this database yet.');
const context = contextFor({ id: programme.id, programmeId: programme.id, role: 'coordinator', name: 'command line' });
const { token, expiresAt } = await makeToken(context, { name, role, days });
console.log(
  `${token}\n\nKeep it now: it is not shown again. It acts as ${role} of ${programme.name} until ${expiresAt.slice(0, 10)}.`,
);
await store.close();
