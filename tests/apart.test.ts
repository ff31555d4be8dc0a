// Programmes stand apart: whatever one sends with the ids of another's rows, nothing of the other's is seen, and nothing changes.
import { v7 } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { z } from 'zod';
import { addLot } from '@/services/buying/stock';
import { ServiceError } from '@/services/errors';
import { type Context, SERVICES } from '@/services/gate/gate';
import { lockKitSheet } from '@/services/kits/kit-sheet';
import { recordTicks, viewBench } from '@/services/packing/bench';
import { addPlace } from '@/services/plan/places';
import { takeOutProgramme } from '@/store/moving';
import { update } from '@/store/query';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from './programme';

// Every service there is.
import.meta.glob(['../src/services/**/*.ts', '!../src/services/**/*.test.ts'], { eager: true });

/** Stands in every text of the programme that is not asked. */
const MARK = 'Zephyrine';

let store: Store;
let own: Context;
let other: Context;
beforeAll(async () => {
  store = await testStore();
  own = (await newProgramme(store)).coordinator;
  other = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

/** What a programme has; who looked at it is not part of it. */
async function all(programmeId: string): Promise<Record<string, readonly Record<string, unknown>[]>> {
  const tables: Record<string, readonly Record<string, unknown>[]> = {};
  for await (const { table, rows } of takeOutProgramme(store.db, programmeId)) tables[table] = rows;
  return tables;
}

/** Tables by what a field that names one of their rows is called. */
const TABLE_OF: Readonly<Record<string, string>> = {
  personId: 'enrolment',
  groupId: 'courseGroup',
  crewId: 'crewMember',
  lotId: 'stockLot',
  batchId: 'madeBatch',
  roundId: 'deliveryRound',
};

type Shape = { [key: string]: unknown; type?: unknown; properties?: Record<string, Shape>; items?: Shape };

/** Something that fits what a service reads, with the other programme's ids wherever one is asked for. */
function sample(said: Shape | boolean, name: string, idOf: (name: string) => string): unknown {
  const shape = typeof said === 'object' ? said : {};
  const choices = (shape.anyOf ?? shape.oneOf) as Shape[] | undefined;
  if (choices) return sample(choices.find(({ type }) => type !== 'null') ?? {}, name, idOf);
  if ('const' in shape) return shape.const;
  if (Array.isArray(shape.enum)) return shape.enum[0];
  if (shape.type === 'object')
    return Object.fromEntries(
      Object.entries(shape.properties ?? {}).map(([key, each]) => [key, sample(each, key, idOf)]),
    );
  if (shape.type === 'array') return [sample(shape.items ?? {}, name.replace(/s$/, ''), idOf)];
  if (shape.type === 'integer' || shape.type === 'number') return Math.max(1, Number(shape.minimum ?? 1));
  if (shape.type === 'boolean') return true;
  if (shape.format === 'uuid' || /Ids?$|^id$/.test(name)) return idOf(name);
  if (shape.format === 'date-time') return '2026-11-26T16:00:00Z';
  if (/date|day|from|^to$|until|since/i.test(name)) return '2026-11-26';
  if (/At$|time/i.test(name)) return '16:00';
  if (/mail/i.test(name)) return 'somebody@example.test';
  return 'words';
}

it('no service shows or changes anything of another programme, whatever ids it is sent', async () => {
  const { courseId, sessionId, basis } = await newSession(own, [
    { name: `${MARK} Wren`, avoids: 'milk', household: `${MARK} home`, contact: `${MARK}@example.test` },
    { name: `${MARK} Bram` },
  ]);
  await lockKitSheet(own, { sessionId, basis: await basis() });
  const [kit] = (await viewBench(own, { sessionId })).sheet.kits;
  await recordTicks(own, {
    sessionId,
    ticks: [{ id: v7(), kitId: kit?.id ?? '', component: kit?.components[0] ?? '', action: 'packed' }],
  });
  await addPlace(own, {
    name: `${MARK} hall`,
    seats: '',
    hours: [],
    equipment: {},
    minutesBefore: 0,
    minutesAfter: 0,
    outdoor: null,
  });
  await addLot(own, {
    id: v7(),
    packGrams: 500,
    ingredient: 'plain wheat flour',
    name: `${MARK} flour`,
    packs: 6,
    storage: 'shelf',
    lastDay: '2027-06-01',
    lastKind: 'best before',
    origin: 'bought',
  });
  const { programmeId } = own.actor;
  await update(store.db, store.db.models.course, { id: courseId }, { title: `${MARK} club` });
  await update(store.db, store.db.models.session, { id: sessionId }, { title: `${MARK} evening` });
  await update(store.db, store.db.models.member, { programmeId }, { name: `${MARK} member` });
  // The asking programme has rows of its own, so that half of what is sent may be right.
  await newSession(other, [{ name: 'Ada' }]);

  const before = await all(programmeId);
  const ids = Object.fromEntries(
    Object.entries(before).map(([table, rows]) => [table, rows.map(({ id }) => String(id))]),
  );
  const everyId = Object.values(ids)
    .flat()
    .filter((id) => /^[\da-f-]{36}$/.test(id));
  let asked = 0;
  let read = 0;
  for (let round = 0; round < 3; round++)
    for (const service of SERVICES) {
      if (service.guards.costly) continue;
      const shape = z.toJSONSchema(service.reads, { io: 'input', unrepresentable: 'any' }) as Shape;
      let at = round;
      const idOf = (name: string) => {
        if (name === 'id' && round === 0) return v7();
        const own = ids[TABLE_OF[name] ?? name.replace(/Ids?$/, '')];
        at += 1;
        return own?.[round % own.length] ?? (everyId[(at * 7 + round * 13) % everyId.length] as string);
      };
      asked += 1;
      const answer = await service(other, sample(shape, '', idOf)).catch((error: unknown) => error);
      if (!(answer instanceof ServiceError && answer.kind === 'invalid')) read += 1;
      const said = answer instanceof Error ? answer.message : JSON.stringify(answer ?? null);
      expect([service.title, said.includes(MARK)]).toEqual([service.title, false]);
    }
  // Enough of it got past the reading to be worth something.
  expect(read / asked).toBeGreaterThan(0.5);
  const after = await all(programmeId);
  for (const [table, rows] of Object.entries(before)) expect([table, after[table]]).toEqual([table, rows]);
}, 120_000);
