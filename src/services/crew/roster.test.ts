import { Temporal } from 'temporal-polyfill';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { addCrewMember, listCrew, noteSick } from './people';
import { proposeRoster } from './roster';

let store: Store;
let context: Context;
let sessionId: string;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
  // Thursday the 26th at four, in person.
  ({ sessionId } = await newSession(
    context,
    Array.from({ length: 9 }, (_, at) => ({ name: `Child ${at}`, age: '7' })),
  ));
  const check = { skill: 'background check' as const, until: '2027-06-30' };
  const free = 'every day 8:00-22:00';
  await addCrewMember(context, { name: 'Ada', isAdult: true, free, skills: [{ skill: 'lead' }, check] });
  await addCrewMember(context, { name: 'Bo', isAdult: true, free, skills: [{ skill: 'food handler' }, check] });
  await addCrewMember(context, { name: 'Cy', isAdult: false, free, skills: [{ skill: 'food handler' }] });
  await addCrewMember(context, { name: 'Dot', isAdult: true, free, skills: [{ ...check, until: '2026-11-25' }] });
});
afterAll(() => store.close());

const duty = async (kind: string, as = context) => {
  const { sessions } = await proposeRoster(as, { toDay: '2026-12-01' });
  const own = sessions.find(({ id }) => id === sessionId)?.duties.find((each) => each.kind === kind);
  if (!own) throw new Error(`No ${kind} is needed.`);
  return own;
};

describe('a roster for the coming sessions', () => {
  it('fills what the crew can, and says of the rest why not and what would', async () => {
    expect(await duty('lead')).toMatchObject({ who: ['Ada'], missing: 0, from: 960, to: 1050 });
    const assistant = await duty('assistant');
    expect(assistant).toMatchObject({ people: 1, who: ['Bo'] });
    expect(assistant.working.at(-1)).toContain('2 adults in all');
    // Nobody drives: the shopping is empty, and a licence for any adult who has time would fill it.
    const shop = await duty('shop');
    expect(shop).toMatchObject({ who: [], missing: 1 });
    expect(shop.because).toEqual(expect.arrayContaining([{ name: 'Ada', rule: 'skill' }]));
    expect(shop.would.map(({ name, rule }) => `${name}: ${rule}`)).toEqual(
      expect.arrayContaining(['Ada: skill', 'Bo: skill', 'Dot: skill']),
    );
    expect(shop.would.map(({ name }) => name)).not.toContain('Cy');
  });

  it('is another one as soon as somebody is sick: a class without its lead is said', async () => {
    const ada = (await listCrew(context, {})).people.find(({ name }) => name === 'Ada');
    const about = { crewId: ada?.id ?? '', version: ada?.version ?? 1 };
    await expect(noteSick(context, { ...about, lastSymptom: '2026-11-25' })).rejects.toMatchObject({
      problems: [{ where: 'lastSymptom' }],
    });
    // The day before the class.
    const later = { ...context, clock: () => Temporal.Instant.from('2026-11-25T12:00:00Z') };
    await noteSick(later, { ...about, lastSymptom: '2026-11-25' });
    expect(await duty('lead', later)).toMatchObject({ who: [], missing: 1 });
    await noteSick(later, { ...about, version: about.version + 1, lastSymptom: null });
    expect(await duty('lead', later)).toMatchObject({ who: ['Ada'] });
    await expect(proposeRoster(context, { toDay: '2027-12-01' })).rejects.toMatchObject({
      problems: [{ where: 'toDay' }],
    });
  });
});
