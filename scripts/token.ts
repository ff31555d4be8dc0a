// Makes an API token for the first programme: kept as a hash, shown once, ended after 90 days.
import { randomBytes } from 'node:crypto';
import { v7 } from 'uuid';
import { hashToken } from '@/services/access/sign-in';
import { runningStore } from '@/services/runtime';
import { find, insert } from '@/store/query';

const DAYS = 90;
const [name = 'made on the command line'] = process.argv.slice(2);
const store = runningStore();
const [programme] = await find(store.db, store.db.models.programme, {}, [['id', 'ASC']]);
if (!programme) throw new Error('There is no programme in this database yet.');
const token = randomBytes(32).toString('base64url');
const expiresAt = new Date(Date.now() + DAYS * 86_400_000);
const row = { id: v7(), programmeId: programme.id, name, role: 'coordinator', tokenHash: hashToken(token), expiresAt };
await insert(store.db, store.db.models.apiToken, [row]);
console.log(
  `${token}\n\nKeep it now: it is not shown again. It acts as coordinator of ${programme.name} until ${expiresAt.toISOString().slice(0, 10)}.`,
);
await store.close();
