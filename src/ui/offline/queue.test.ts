import { describe, expect, it } from 'vitest';
import { type Answer, type DeviceStorage, offlineQueue, type Queued } from './queue';

/** A device that keeps events, as a browser does between two visits. */
function device() {
  const events = new Map<string, Queued>();
  const storage: DeviceStorage<Queued> = {
    load: async () => [...events.values()],
    put: async (added) => {
      for (const event of added) events.set(event.id, event);
    },
    remove: async (ids) => {
      for (const id of ids) events.delete(id);
    },
  };
  return { events, storage };
}

/** A server that saves each event once, as long as it is reached. */
function server() {
  const saved: string[] = [];
  const bad = new Set<string>();
  let isReached = true;
  /** The answer of the next request is lost on its way back. */
  let isLost = false;
  const noAnswer: Answer = { kind: 'unanswered', message: 'No answer.', isCut: true };
  return {
    saved,
    refuse: (id: string) => bad.add(id),
    reach: (now: boolean) => {
      isReached = now;
    },
    loseAnswer: () => {
      isLost = true;
    },
    async take(events: readonly Queued[]): Promise<Answer> {
      if (!isReached) return noAnswer;
      if (events.some(({ id }) => bad.has(id))) return { kind: 'refused', message: 'No such kit.' };
      for (const { id } of events) if (!saved.includes(id)) saved.push(id);
      if (!isLost) return { kind: 'saved' };
      isLost = false;
      return noAnswer;
    },
  };
}

const named = (...ids: string[]) => ids.map((id) => ({ id }));
const idsOf = (events: readonly Queued[]) => events.map(({ id }) => id);

describe('what is done without a network', () => {
  it('waits on the device, and is sent in the order it was made once the server answers', async () => {
    const { events, storage } = device();
    const there = server();
    there.reach(false);
    const queue = offlineQueue(storage, there.take);
    queue.add(named('a', 'b'));
    queue.add(named('c'));
    await queue.send();
    expect(queue.state()).toMatchObject({ isCut: true, trouble: { kind: 'waiting' } });
    expect([idsOf(queue.state().waiting), [...events.keys()]]).toEqual([
      ['a', 'b', 'c'],
      ['a', 'b', 'c'],
    ]);
    there.reach(true);
    await queue.send();
    expect(there.saved).toEqual(['a', 'b', 'c']);
    expect(queue.state()).toMatchObject({ waiting: [], isCut: false, trouble: undefined });
    expect(events.size).toBe(0);
  });

  it('is there again after the tab was closed, before what is done next', async () => {
    const { storage } = device();
    const there = server();
    there.reach(false);
    const before = offlineQueue(storage, there.take);
    before.add(named('a'));
    await before.send();
    there.reach(true);
    const after = offlineQueue(storage, there.take);
    after.add(named('b'));
    await after.send();
    await after.send();
    expect(there.saved).toEqual(['a', 'b']);
  });

  it('is saved once, though its answer was lost and it was sent again', async () => {
    const { storage } = device();
    const there = server();
    there.loseAnswer();
    const queue = offlineQueue(storage, there.take);
    queue.add(named('a', 'b'));
    await queue.send();
    await queue.send();
    expect([there.saved, queue.state().waiting]).toEqual([['a', 'b'], []]);
  });

  it('that is refused takes nothing good with it, and is said', async () => {
    const { events, storage } = device();
    const there = server();
    there.refuse('b');
    const queue = offlineQueue(storage, there.take);
    queue.add(named('a', 'b', 'c'));
    await queue.send();
    await queue.send();
    expect(there.saved).toEqual(['a', 'c']);
    expect(queue.state().trouble).toEqual({ kind: 'refused', message: 'No such kit.' });
    expect([queue.state().waiting.length, events.size]).toEqual([0, 0]);
  });

  it('goes on being drawn until the server tells of it', async () => {
    const { storage } = device();
    const queue = offlineQueue(storage, server().take);
    queue.add(named('a', 'b'));
    await queue.send();
    expect(idsOf(queue.state().saved)).toEqual(['a', 'b']);
    queue.readBack(new Set(['a']));
    expect(idsOf(queue.state().saved)).toEqual(['b']);
  });

  it('works on a device that keeps nothing', async () => {
    const broken: DeviceStorage<Queued> = {
      load: () => Promise.reject(new Error('private window')),
      put: () => Promise.reject(new Error('full')),
      remove: () => Promise.reject(new Error('full')),
    };
    const there = server();
    const queue = offlineQueue(broken, there.take);
    queue.add(named('a'));
    await queue.send();
    await queue.send();
    expect([there.saved, queue.state().waiting]).toEqual([['a'], []]);
  });
});
