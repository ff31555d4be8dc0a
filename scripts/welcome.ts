// Prints how to come in: the demo's sign-ins, or a one-time link while nobody is a member yet.
import { makeLink } from '@/services/access/links';
import { contextFor, runningStore } from '@/services/runtime';
import { find } from '@/store/query';
import { change } from '@/store/sql';
import { demoCity, demoProgramme } from './demo';

const HOURS = 24;
const [address = ''] = process.argv.slice(2);
const store = runningStore();
const { db } = store;
for (const { email, password, role } of demoProgramme().members) {
  if ((await db.models.member.count({ where: { email } })) > 0)
    console.log(`  Sign in as ${role}:  ${email}  ${password}`);
}
for (const { email, password, of } of demoCity().overseers) {
  if ((await db.models.account.count({ where: { email } })) > 0)
    console.log(`  Sign in to look over the ${of}:  ${email}  ${password}`);
}
if ((await db.models.member.count()) === 0) {
  for (const { id: programmeId } of await find(db, db.models.programme, {})) {
    const context = contextFor({ id: programmeId, programmeId, role: 'coordinator', name: 'start' });
    const { secret } = await store.transaction(async (tx) => {
      // Links of earlier starts end: one is enough to guard.
      await change(tx, "DELETE FROM access_link WHERE programme_id = :programmeId AND email = ''", { programmeId });
      const link = {
        programmeId,
        purpose: 'invite' as const,
        email: '',
        role: 'coordinator',
        memberId: null,
        createdBy: null,
      };
      return makeLink(context, tx, link, HOURS);
    });
    console.log(`  The first coordinator joins here (once, within ${HOURS} hours):\n    ${address}/invite/${secret}`);
  }
}
await store.close();
