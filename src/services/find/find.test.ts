import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import { addCrewMember } from '../crew/people';
import { listFindable } from './find';

let store: Store;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

describe('what one may look for', () => {
  it('is each by their duty: names of families and of the crew are for coordinators alone', async () => {
    const own = await newProgramme(store);
    const foreign = await newProgramme(store);
    const { sessionId, courseId, people } = await newSession(own.coordinator, [{ name: 'Ada Quill' }]);
    await newSession(foreign.coordinator, [{ name: 'Somebody else' }]);
    await addCrewMember(own.coordinator, { name: 'Ines Marlow' });
    const named = async (role: 'coordinator' | 'instructor' | 'crew') =>
      (await listFindable(own[role], {})).filter(({ kind }) => kind !== 'food');
    const all = await named('coordinator');
    expect(all.map(({ kind }) => kind).sort()).toEqual(['course', 'crew', 'person', 'recipe', 'session']);
    expect(all.find(({ kind }) => kind === 'person')).toMatchObject({
      title: 'Ada Quill',
      href: `/courses/${courseId}/roll?show=all&edit=${people[0]}`,
    });
    expect(all.find(({ kind }) => kind === 'session')?.href).toBe(`/sessions/${sessionId}`);
    // Six days before the class nobody in the room has a duty in it yet.
    expect((await named('instructor')).map(({ kind }) => kind)).toEqual(['recipe']);
    expect(await named('crew')).toEqual([]);
    const before = store.queries();
    await listFindable(own.coordinator, {});
    expect(store.queries() - before).toBeLessThanOrEqual(2);
  });
});
