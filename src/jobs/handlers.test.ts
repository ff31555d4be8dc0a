import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { inviteMember, removeMember } from '@/services/access/members';
import { listPrintOuts, playInstrument, readInstruments, viewPrintOut } from '@/services/equipment/equipment';
import type { Context } from '@/services/gate/gate';
import { lockKitSheet } from '@/services/kits/kit-sheet';
import { listMessages } from '@/services/messages/messages';
import { sendToPrinter } from '@/services/packing/labels';
import { viewJob } from '@/services/work/jobs';
import { addMember } from '@/store/accounts';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { DEPLOYMENT_KEY, newProgramme, newSession, testStore } from '../../tests/programme';
import { handlersFor } from './handlers';
import { JobRefused, workOnce } from './work';

let admin: Store;
let store: Store;
let context: Context;
beforeAll(async () => {
  admin = await testStore();
  store = await testStore('unit_handlers');
  // Handlers act for the one who asked, on the running database: here, this one.
  vi.stubEnv('SESSION_SECRET', DEPLOYMENT_KEY);
  vi.stubEnv('DATABASE_URL', (process.env.TEST_DATABASE_URL ?? '').replace(/[^/]+$/, 'unit_handlers'));
  context = (await newProgramme(store)).coordinator;
});
afterAll(async () => {
  vi.unstubAllEnvs();
  await store.close();
  await admin.close();
});

const control = { progress: async () => {} };
const work = () => workOnce(store, 'tester', handlersFor(store), () => new Date());

async function locked(names: string[]) {
  const { sessionId, basis } = await newSession(
    context,
    names.map((name) => ({ name })),
  );
  await lockKitSheet(context, { sessionId, basis: await basis() });
  return sessionId;
}

const jobOf = async (jobId: string) => (await find(store.db, store.db.models.job, { id: jobId }))[0] as never;

describe('printing labels', () => {
  it('puts them into the tray once, also when the job is run twice', async () => {
    const sessionId = await locked(['Łucja Wren', 'Bram']);
    const { jobId } = await sendToPrinter(context, { sessionId, paper: 'letter' });
    const handler = handlersFor(store)['print labels'];
    await handler?.(await jobOf(jobId), control);
    while (await work());
    expect(await viewJob(context, { jobId })).toMatchObject({ state: 'done', result: { labels: 2 } });
    const tray = (await listPrintOuts(context, {})).filter(({ id }) => id === jobId);
    expect(tray).toMatchObject([{ title: 'Breads, version 1', pages: 1 }]);
    const { pdf } = await viewPrintOut(context, { printOutId: jobId });
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  });

  it('is refused in words where it can never work, and not tried again', async () => {
    const sessionId = await locked(['愛']);
    const { jobId } = await sendToPrinter(context, { sessionId, paper: 'a4' });
    while (await work());
    expect(await viewJob(context, { jobId })).toMatchObject({
      state: 'failed',
      attempts: 1,
      result: { why: expect.stringContaining('which the printed font does not have') },
    });
    const { sessionId: open } = await newSession(context, [{ name: 'Ada' }]);
    await expect(sendToPrinter(context, { sessionId: open, paper: 'a4' })).rejects.toThrow('no locked kit sheet');
  });

  it('for somebody who is no longer a member does nothing', async () => {
    const sessionId = await locked(['Ada']);
    const id = v7();
    const { programmeId } = context.actor;
    const row = { id, programmeId, email: `${id}@example.test`, name: 'Gone', role: 'coordinator' };
    await addMember(store.db, row);
    const asker = { ...context, actor: { id, programmeId, role: 'coordinator' as const, name: 'Gone' } };
    const { jobId } = await sendToPrinter(asker, { sessionId, paper: 'a4' });
    await removeMember(context, { memberId: id, version: 1 });
    const handler = handlersFor(store)['print labels'];
    await expect(handler?.(await jobOf(jobId), control)).rejects.toBeInstanceOf(JobRefused);
  });
});

describe('sending messages', () => {
  it('hands each over once, after what it tells about is saved', async () => {
    const email = `${v7()}@example.test`;
    await inviteMember({ ...context, clock: () => Temporal.Now.instant() }, { email, role: 'crew' });
    const mine = async () => (await listMessages(context, {})).filter(({ sentTo }) => sentTo === email);
    expect(await mine()).toMatchObject([
      { sentAt: null, body: expect.stringContaining('http://logistra.test/invite/') },
    ]);
    while (await work());
    const [sent] = await mine();
    expect(sent?.sentAt).toBeInstanceOf(Date);
    const [job] = await find(store.db, store.db.models.job, { kind: 'send message' }, [['id', 'DESC']]);
    await handlersFor(store)['send message']?.(job as never, control);
    expect((await mine())[0]?.sentAt).toEqual(sent?.sentAt);
  });
});

describe('the instruments', () => {
  it('are off until something lies on them, and show the last thing that did, to every server', async () => {
    expect(await readInstruments(context, {})).toEqual({ grams: null, celsius: null, code: null });
    await playInstrument(context, { device: 'scale', reading: 125.5 });
    await playInstrument(context, { device: 'scale', reading: 118 });
    await playInstrument(context, { device: 'probe', reading: -18 });
    await playInstrument(context, { device: 'scanner', reading: 'a code' });
    const other = { ...context, store: await testStore('unit_handlers') };
    expect(await readInstruments(other, {})).toEqual({ grams: 118, celsius: -18, code: 'a code' });
    await other.store.close();
  });

  it('refuse what none of them could show', async () => {
    const wrong = [
      [{ device: 'scale', reading: -1 }, 'At least 0 grams.'],
      [{ device: 'scale', reading: 'heavy' }, 'Write a number of grams.'],
      [{ device: 'probe', reading: 400 }, 'At most 300 degrees Celsius.'],
    ] as const;
    for (const [input, message] of wrong) {
      await expect(playInstrument(context, input as never)).rejects.toMatchObject({ problems: [{ message }] });
    }
    await expect(playInstrument(context, { device: 'oven', reading: 1 } as never)).rejects.toMatchObject({
      problems: [{ where: 'device' }],
    });
  });
});
