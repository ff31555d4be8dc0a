// Cities with their programmes, and who looks over them or after the installation.
import { addressOf } from '@/services/access/addresses';
import { passwordLink } from '@/services/access/links';
import { logChange } from '@/services/gate/change-log';
import { tellCoordinators } from '@/services/messages/notices';
import { contextFor, runningStore, surroundings } from '@/services/runtime';
import { endSignInsEverywhere } from '@/store/access';
import { accountFor, NO_PASSWORD } from '@/store/accounts';
import { find, findOne, insert, remove, update } from '@/store/query';

const [address = '', what, one = '', other = '', name = ''] = process.argv.slice(2);
const store = runningStore();
const { db } = store;
const { models } = db;

/** Ends with what is wrong and what to do. */
function refuse(why: string): never {
  console.error(why);
  process.exit(1);
}

/** A city by its name or id. */
async function cityOf(said: string) {
  const city = (await findOne(db, models.city, { name: said })) ?? (await findOne(db, models.city, { id: said }));
  return city ?? refuse(`There is no city “${said}”: npm run overview -- list`);
}

async function list(): Promise<void> {
  const cities = await find(db, models.city, {}, [['name', 'ASC']]);
  const programmes = await find(db, models.programme, {}, [['name', 'ASC']]);
  const overseers = await find(db, models.overseer, {}, [['name', 'ASC']]);
  for (const { id, name: city } of [...cities, { id: null, name: 'No city' }]) {
    console.log(city);
    for (const programme of programmes.filter(({ cityId }) => cityId === id))
      console.log(`  ${programme.id}  ${programme.name}`);
    for (const person of overseers.filter(({ cityId }) => cityId === id))
      console.log(`  ${id === null ? 'looks after the installation' : 'looks over it'}: ${person.name}`);
  }
}

/** Somebody looks over a city, or after the installation; without a password yet they get a link. */
async function give(cityId: string | null, email: string, called: string): Promise<void> {
  const written = addressOf(email);
  if (!/^\S+@\S+\.\S+$/.test(written) || called === '') refuse('Write an e-mail address, then the name in quotes.');
  const { ids, clock } = surroundings();
  const secret = await store.transaction(async (tx) => {
    const accountId = await accountFor(tx, { email: written, id: ids() });
    if (await findOne(tx, tx.models.overseer, { accountId, cityId })) refuse(`${written} does so already.`);
    const createdAt = new Date(clock().epochMilliseconds);
    await insert(tx, tx.models.overseer, [{ id: ids(), accountId, cityId, name: called, createdAt }]);
    const account = await findOne(tx, tx.models.account, { id: accountId });
    if (account?.passwordHash !== NO_PASSWORD) return undefined;
    return (await passwordLink(surroundings(), tx, account, null)).secret;
  });
  console.log(
    secret
      ? `${called} chooses a password here, once, within an hour:\n${address}/reset/${secret}`
      : `${called} signs in with the password that they have here already.`,
  );
}

/** A programme becomes a city's, or nobody's. Its own people hear of it: nobody of them did it. */
async function moveTo(programmeId: string, city: { id: string; name: string } | null, told: string): Promise<void> {
  await store.transaction(async (tx) => {
    const moved = await update(tx, tx.models.programme, { id: programmeId }, { cityId: city?.id ?? null });
    if (moved !== 1) refuse('There is no such programme.');
    const by = contextFor({ id: programmeId, programmeId, role: 'coordinator', name: 'Logistra' });
    await logChange(by, tx, 'changed', 'programme', programmeId, { city: city?.name ?? '' });
    await tellCoordinators(by, tx, programmeId, told);
  });
}

async function end(email: string): Promise<void> {
  const account = await findOne(db, models.account, { email: addressOf(email) });
  const ended = account ? await remove(db, models.overseer, { accountId: account.id }) : 0;
  // What they looked at is closed at once; whoever is a member besides signs in again.
  if (account && ended > 0) await endSignInsEverywhere(db, { accountId: account.id, now: new Date() });
  console.log(ended > 0 ? `${email} looks over nothing any more.` : `${email} looked over nothing.`);
}

if (what === 'list') await list();
else if (what === 'city' && one) {
  if (await findOne(db, models.city, { name: one })) refuse('It is there already.');
  await insert(db, models.city, [{ id: surroundings().ids(), name: one }]);
  console.log(`${one} is there. Its programmes: npm run overview -- add "${one}" PROGRAMME`);
} else if (what === 'add' && other) {
  const { id, name: city } = await cityOf(one);
  await moveTo(other, { id, name: city }, `${city} sees counts and money of your programme from now on, and no family`);
  console.log(`${city} sees its counts and money from now on; its coordinators were told.`);
} else if (what === 'out' && one) {
  await moveTo(one, null, 'No city sees counts and money of your programme any more');
  console.log('No city sees its counts and money any more; its coordinators were told.');
} else if (what === 'person' && name) await give((await cityOf(one)).id, other, name);
else if (what === 'operator' && other) await give(null, one, other);
else if (what === 'end' && one) await end(one);
else
  refuse(
    'npm run overview -- list | city NAME | add CITY PROGRAMME | out PROGRAMME | person CITY E-MAIL NAME | operator E-MAIL NAME | end E-MAIL',
  );
await store.close();
