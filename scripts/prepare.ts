// Brings the tables up to date and, on an empty private database, loads the demo programme.
import { runningStore } from '@/services/runtime';
import { migrationsOf } from '@/store/migrate';
import { loadDemo } from './demo';

const store = runningStore();
const done = await migrationsOf(store).up();
if (done.length > 0) console.log(`Tables made: ${done.map((migration) => migration.name).join(', ')}.`);
if ((await store.db.models.programme.count()) === 0) {
  await loadDemo(store);
  console.log('The demo programme is loaded.');
}
await store.close();
