import { spawnSync } from 'node:child_process';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { listMessages } from '@/services/messages/messages';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { newProgramme, testStore } from '../tests/programme';

let store: Store;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

/** What the command says, as whoever looks after the installation gives it. */
function overview(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'scripts/overview.ts', 'http://logistra.test', ...args],
    {
      encoding: 'utf8',
      env: { ...process.env, DATABASE_URL: process.env.TEST_DATABASE_URL ?? '', SESSION_SECRET: v7() },
    },
  );
  return { status, said: stdout.trim() + stderr.trim() };
}

// Each command is a process of its own.
describe('a city', { timeout: 120_000 }, () => {
  it('sees a programme from when it is added until it is taken out; its coordinators hear of both', async () => {
    const { coordinator } = await newProgramme(store);
    const { programmeId } = coordinator.actor;
    const city = `Orrin ${v7()}`;
    const programme = async () => (await find(store.db, store.db.models.programme, { id: programmeId }))[0];
    expect(overview('city', city).status).toBe(0);
    expect(overview('city', city)).toMatchObject({ status: 1, said: 'It is there already.' });
    expect(overview('add', city, programmeId).said).toContain('its coordinators were told');
    expect((await programme())?.cityId).not.toBeNull();
    expect(overview('out', programmeId).status).toBe(0);
    expect((await programme())?.cityId).toBeNull();
    const subjects = (await listMessages(coordinator, {})).map(({ subject }) => subject);
    expect(subjects.filter((subject) => subject.includes(city))).toHaveLength(1);
    expect(subjects.filter((subject) => subject.includes('No city sees'))).toHaveLength(1);
    // Nothing is half done where something is wrong.
    expect(overview('add', city, v7())).toMatchObject({ status: 1, said: 'There is no such programme.' });
    expect(overview('add', 'Nowhere', programmeId)).toMatchObject({ status: 1 });
    expect((await programme())?.cityId).toBeNull();
  });

  it('is looked over by whom it names, who chooses a password once, until that ends', async () => {
    const city = `Tarn ${v7()}`;
    const email = `${v7()}@example.test`;
    overview('city', city);
    expect(overview('person', city, 'nobody', 'Ines')).toMatchObject({ status: 1 });
    expect(overview('person', city, email, 'Ines').said).toMatch(/http:\/\/logistra\.test\/reset\/\S{40,}/);
    expect(overview('person', city, email, 'Ines').said).toContain('does so already');
    expect(overview('list').said).toContain(`${city}\n  looks over it: Ines`);
    expect(overview('end', email).said).toContain('looks over nothing any more');
    expect(overview('end', email).said).toContain('looked over nothing.');
  });
});
