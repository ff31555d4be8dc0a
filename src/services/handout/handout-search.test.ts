import { v7 } from 'uuid';
import { expect, it } from 'vitest';
import { randomFrom } from '../../../scripts/random.mjs';
import { cells, NOW, newProgramme, newSession, select, testStore } from '../../../tests/programme';
import { recordAttendance } from '../classday/attendance';
import { viewJobs } from '../countdown/countdown';
import { ServiceError } from '../errors';
import type { Context } from '../gate/gate';
import { lockKitSheet } from '../kits/kit-sheet';
import { editPerson, setStatus, viewRoll } from '../roll/roll';
import { decideKit, viewNotFetched } from './not-fetched';
import { handOutKits, tableSince, viewTable } from './table';

const STEPS = Number(process.env.HANDOUT_STEPS ?? 120);

interface Said {
  readonly id: string;
  readonly seq: number;
  readonly kitId: string;
  readonly enrolmentId: string;
  readonly what: string;
  readonly item: string;
  readonly wasAway: number;
}

/** Where each kit is, by the rows alone: told over as one would read the log aloud. */
function read(rows: readonly Said[]): Map<string, { gone: boolean; said: boolean; against: number }> {
  const slips = rows.filter(({ what }) => what === 'undone').map(({ item }) => item);
  const now = new Map<string, { gone: boolean; said: boolean; against: number }>();
  for (const row of rows) {
    if (slips.includes(row.id)) continue;
    const kit = now.get(row.kitId) ?? { gone: false, said: false, against: 0 };
    if (row.what === 'handed')
      now.set(row.kitId, kit.gone ? { ...kit, against: kit.against + 1 } : { ...kit, gone: true, said: true });
    if (row.what === 'not there')
      now.set(row.kitId, kit.gone ? { ...kit, against: kit.against + 1 } : { ...kit, said: true });
    if (row.what === 'came back') now.set(row.kitId, { ...kit, gone: false, said: true });
  }
  return now;
}

/** What is broken, by the rows alone. */
async function broken(context: Context, sessionId: string): Promise<string[]> {
  const { db } = context.store;
  const found: string[] = [];
  const rows = await select<Said>(
    db,
    `SELECT id, seq, kit_id AS kitId, enrolment_id AS enrolmentId, what, item, was_away AS wasAway
       FROM hand_out WHERE session_id = :sessionId ORDER BY seq`,
    { sessionId },
  );
  if (rows.some(({ seq }, at) => seq !== at + 1)) found.push('the order has a gap');
  const now = read(rows);
  const marks = await select<{ enrolmentId: string; state: string }>(
    db,
    `SELECT enrolment_id AS enrolmentId, state FROM attendance WHERE session_id = :sessionId
        AND state IN ('collected', 'not collected') ORDER BY at, id`,
    { sessionId },
  );
  const seen = new Map(marks.map(({ enrolmentId, state }) => [enrolmentId, state]));
  for (const [kitId, { gone }] of now) {
    const enrolmentId = rows.find((row) => row.kitId === kitId)?.enrolmentId ?? '';
    if (gone !== (seen.get(enrolmentId) === 'collected')) found.push(`the roll says otherwise of ${enrolmentId}`);
  }
  const { kits } = await viewTable(context, { sessionId });
  const { held, events } = await tableSince(context, { sessionId, after: 0 });
  if (events.length !== rows.length) found.push('the table shows not all');
  for (const kit of kits)
    if (held.includes(kit.id) !== kit.isCalledBack) found.push(`kit ${kit.number}: called back is said wrongly`);
  const { thread } = await viewJobs(context, { sessionId });
  const isOver = kits.every(({ id }) => now.get(id)?.said);
  const state = thread.knots.find(({ stage }) => stage === 'handout')?.state;
  // When everybody has left, nothing is handed out any more.
  if (rows.length > 0 && kits.length > 0 && state !== 'not needed' && isOver !== (state === 'done'))
    found.push(`the countdown says ${state}`);
  return found;
}

it('no random steps hand a kit to two, lose a word, or leave the roll and the table apart', async () => {
  const store = await testStore();
  const chance = randomFrom(Number(process.env.HANDOUT_SEED ?? 5));
  const own = (await newProgramme(store)).coordinator;
  let minutes = 0;
  const context: Context = { ...own, clock: () => NOW.add({ milliseconds: minutes++ }) };
  const names = ['Ada', 'Bram', 'Cleo', 'Dot'];
  const { sessionId, courseId, people, basis } = await newSession(
    context,
    names.map((name) => ({ name, mode: 'take-home' })),
  );
  await lockKitSheet(context, { sessionId, basis: await basis() });
  const oneOf = <T>(list: readonly T[]): T => {
    const one = list[Math.floor(chance() * list.length)];
    if (one === undefined) throw new ServiceError('not-found', 'None.');
    return one;
  };
  const { kits } = await viewTable(context, { sessionId });
  const sent: { id: string; kitId: string; what: string; item: string; at: string; wasAway: boolean }[] = [];
  const operations: Record<string, () => Promise<unknown>> = {
    say: async () => {
      const events = await tableSince(context, { sessionId, after: 0 });
      const kit = oneOf(kits);
      const what = oneOf(['handed', 'handed', 'not there', 'came back', 'undone', 'lent'] as const);
      const mine = events.events.filter((event) => event.kitId === kit.id && event.what !== 'undone');
      const item = what === 'undone' ? oneOf(mine).id : what === 'lent' ? 'board' : '';
      const event = { id: v7(), kitId: kit.id, what, item, at: NOW.toString(), wasAway: chance() < 0.3 };
      sent.push(event);
      return handOutKits(context, { sessionId, events: [event] });
    },
    'say again': () => handOutKits(context, { sessionId, events: [oneOf(sent)] } as never),
    several: () => {
      const [one, other] = [oneOf(kits), oneOf(kits)];
      const say = (kitId: string) =>
        handOutKits(context, {
          sessionId,
          events: [{ id: v7(), kitId, what: 'handed', at: NOW.toString(), wasAway: false }],
        }).catch(() => undefined);
      return Promise.all([say(one.id), say(other.id), say(one.id)]);
    },
    room: () =>
      recordAttendance(context, {
        sessionId,
        id: v7(),
        enrolmentId: oneOf(people),
        state: oneOf(['collected', 'not collected', 'cooked'] as const),
        anyway: chance() < 0.2,
      }),
    need: async () => {
      const { people: roll } = await viewRoll(context, { courseId });
      const person = oneOf(roll.filter(({ status }) => status === 'enrolled'));
      const avoids = oneOf(['', 'milk', 'egg']);
      await editPerson(context, {
        enrolmentId: person.id,
        version: person.version,
        cells: cells({ name: person.name, mode: 'take-home', avoids }),
      });
    },
    lock: async () => lockKitSheet(context, { sessionId, basis: await basis() }),
    status: async () => {
      const { people: roll } = await viewRoll(context, { courseId });
      const person = oneOf(roll);
      const status = person.status === 'enrolled' ? 'withdrawn' : 'enrolled';
      await setStatus(context, { enrolmentId: person.id, version: person.version, status });
    },
    fate: async () => {
      const { kits: left } = await viewNotFetched(context, { sessionId });
      await decideKit(context, {
        sessionId,
        id: v7(),
        kitId: oneOf(left).id,
        fate: oneOf(['held', 'taken apart'] as const),
      });
    },
  };
  const findings: string[] = [];
  for (let step = 0; step < STEPS && findings.length === 0; step++) {
    const name = oneOf(Object.keys(operations));
    try {
      await operations[name]?.();
    } catch (error) {
      if (!(error instanceof ServiceError)) findings.push(`step ${step}, ${name}: ${String(error)}`);
    }
    findings.push(...(await broken(context, sessionId)).map((each) => `step ${step}, ${name}: ${each}`));
  }
  await store.close();
  expect(findings).toEqual([]);
}, 120_000);
