// Brings the tables up to date. With --demo, loads the demo programme into a database that is empty; without, makes an
// empty programme there.
import { v7 } from 'uuid';
import { runningStore } from '@/services/runtime';
import { freshProgramme } from '@/store/fresh';
import { migrationsOf } from '@/store/migrate';
import { insert } from '@/store/query';
import { loadDemo } from './demo';

const store = runningStore();
const done = await migrationsOf(store).up();
if (done.length > 0) console.log(`Tables made: ${done.map((migration) => migration.name).join(', ')}.`);
if ((await store.db.models.programme.count()) === 0) {
  if (process.argv.includes('--demo')) {
    await loadDemo(store);
    console.log('The demo programme is loaded.');
  } else {
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
    await insert(store.db, store.db.models.programme, [freshProgramme({ id: v7(), name: 'Our programme', timeZone })]);
  }
}
await store.close();
