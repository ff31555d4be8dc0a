// Prints the demo sign-ins, when the demo's people are in this database.
import { runningStore } from '@/services/runtime';
import { demoProgramme } from './demo';

const store = runningStore();
for (const { email, password, role } of demoProgramme().members) {
  if ((await store.db.models.member.count({ where: { email } })) > 0)
    console.log(`  Sign in as ${role}:  ${email}  ${password}`);
}
await store.close();
