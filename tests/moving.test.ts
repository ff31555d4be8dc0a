import { v7 } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { lockKitSheet, viewKitSheet } from '@/services/kits/kit-sheet';
import { recordTicks, viewBench, viewEvents } from '@/services/packing/bench';
import { viewRoll } from '@/services/roll/roll';
import { bringInTable, type MovedTable, takeOutProgramme } from '@/store/moving';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from './programme';

let here: Store;
let there: Store;
beforeAll(async () => {
  here = await testStore();
  there = await testStore('unit_moved');
});
afterAll(async () => {
  await here.close();
  await there.close();
});

const takenOut = async (store: Store, programmeId: string) => {
  const tables: MovedTable[] = [];
  for await (const table of takeOutProgramme(store.db, programmeId)) if (table.rows.length > 0) tables.push(table);
  // As it is carried: as text.
  return JSON.parse(JSON.stringify(tables)) as MovedTable[];
};

it('a programme that is brought into another installation is there whole, and opens no door of the first', async () => {
  const { coordinator } = await newProgramme(here);
  const { programmeId } = coordinator.actor;
  const { courseId, sessionId, basis } = await newSession(coordinator, [
    { name: 'Łucja Wren', avoids: 'milk' },
    { name: 'Bram' },
  ]);
  await lockKitSheet(coordinator, { sessionId, basis: await basis() });
  const [kit] = (await viewBench(coordinator, { sessionId })).sheet.kits;
  const tick = { id: v7(), kitId: kit?.id ?? '', component: kit?.components[0] ?? '', action: 'packed' as const };
  await recordTicks(coordinator, { sessionId, ticks: [tick] });
  // Somebody else's programme stands beside it, and stays.
  await newSession((await newProgramme(here)).coordinator, [{ name: 'Not moved' }]);

  const tables = await takenOut(here, programmeId);
  expect(JSON.stringify(tables)).not.toContain('Not moved');
  expect(tables.map(({ table }) => table)).not.toContain('signIn');
  await there.transaction(async (db) => {
    for (const table of tables) await bringInTable(db, table);
  });

  expect(await takenOut(there, programmeId)).toEqual(tables);
  const moved = { ...coordinator, store: there };
  expect(await viewKitSheet(moved, { sessionId })).toEqual(await viewKitSheet(coordinator, { sessionId }));
  expect(await viewRoll(moved, { courseId })).toEqual(await viewRoll(coordinator, { courseId }));
  expect(await viewEvents(moved, { sessionId, since: 0 })).toEqual(
    await viewEvents(coordinator, { sessionId, since: 0 }),
  );
  const members = await find(there.db, there.db.models.member, { programmeId });
  const accounts = await find(there.db, there.db.models.account, { id: members.map(({ accountId }) => accountId) });
  expect(accounts.map(({ passwordHash, totp }) => [passwordHash, totp])).toEqual(members.map(() => ['-', null]));
  // Brought in once more, nothing of it is saved.
  await expect(
    there.transaction(async (db) => {
      for (const table of tables) await bringInTable(db, table);
    }),
  ).rejects.toThrow();
});
