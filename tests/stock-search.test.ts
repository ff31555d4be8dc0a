import { v7 } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { addLot, countShelf, moveLot, viewStock } from '@/services/buying/stock';
import { ServiceError } from '@/services/errors';
import type { Context } from '@/services/gate/gate';
import type { Store } from '@/store/store';
import { newProgramme, select, testStore } from './programme';

let store: Store;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

interface Row {
  readonly lotId: string;
  readonly seq: number;
  readonly kind: string;
  readonly packs: number;
  readonly grams: number;
}

/** Grams that are left of a lot, by arithmetic alone: what came in, was counted, and went. */
function gramsLeft(rows: readonly Row[], pack: number): number {
  let grams = 0;
  for (const { kind, packs, grams: loose } of rows) {
    const weight = packs * pack + loose;
    if (kind === 'received') grams += weight;
    if (kind === 'counted') grams = weight;
    if (kind === 'used' || kind === 'given away' || kind === 'thrown away') grams -= weight;
    expect(grams).toBeGreaterThanOrEqual(0);
  }
  return grams;
}

// Three people at the same shelves, with phones that send twice: judged from the rows alone.
it('no random movements leave less than nothing, count one twice, or say another amount than the rows do', async () => {
  const { coordinator, crew } = await newProgramme(store);
  const people: readonly Context[] = [
    coordinator,
    crew,
    { ...crew, actor: { ...crew.actor, id: coordinator.actor.id } },
  ];
  let state = 11;
  const any = (below: number) => {
    state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
    return Math.floor((state / 2 ** 31) * below);
  };
  const lots = [250, 500, 1000].map((packGrams) => ({ id: v7(), packGrams }));
  for (const lot of lots)
    await addLot(coordinator, {
      ...lot,
      ingredient: 'plain wheat flour',
      name: `Flour ${lot.packGrams}`,
      packs: 6,
      storage: 'shelf',
      lastDay: '2027-06-01',
      lastKind: 'best before',
      origin: 'bought',
    });
  const sent = new Set<string>();
  const taken = new Set<string>();
  const act = async (context: Context) => {
    const lot = lots[any(lots.length)] ?? lots[0];
    const move = { id: v7(), lotId: lot?.id ?? '', packs: any(3), grams: any(4) * 120 };
    sent.add(move.id);
    const kind = (['used', 'used', 'opened', 'given away', 'thrown away', 'frozen', 'thawed', 'counted'] as const)[
      any(8)
    ];
    const send = () =>
      kind === 'counted'
        ? countShelf(context, { moves: [move] })
        : moveLot(context, { ...move, kind, reason: kind === 'thrown away' ? 'spoilt' : '' });
    // A phone that hears no answer sends the same again.
    const answers = await Promise.allSettled(any(3) === 0 ? [send(), send()] : [send()]);
    for (const answer of answers)
      if (answer.status === 'rejected' && !(answer.reason instanceof ServiceError)) throw answer.reason;
    if (answers.some(({ status }) => status === 'fulfilled')) taken.add(move.id);
  };
  for (let step = 0; step < 40; step++) await Promise.all(people.map(act));
  const rows = await select<Row & { id: string }>(
    store.db,
    'SELECT id, lot_id AS lotId, seq, kind, packs, grams FROM stock_move WHERE programme_id = :id ORDER BY lot_id, seq',
    { id: coordinator.actor.programmeId },
  );
  const own = rows.filter(({ id }) => sent.has(id));
  expect(own.map(({ id }) => id).sort()).toEqual([...taken].sort());
  expect(own.length).toBeGreaterThan(30);
  const { lots: seen } = await viewStock(crew, {});
  for (const lot of lots) {
    const mine = rows.filter(({ lotId }) => lotId === lot.id);
    expect(mine.map(({ seq }) => seq)).toEqual(mine.map((_, at) => at + 1));
    expect(seen.find(({ id }) => id === lot.id)?.now.grams ?? 0).toBe(gramsLeft(mine, lot.packGrams));
  }
});

it('the shelves ask the database little, however much has happened', async () => {
  const { coordinator } = await newProgramme(store);
  const id = v7();
  await addLot(coordinator, {
    id,
    ingredient: 'plain wheat flour',
    packs: 5000,
    packGrams: 10,
    storage: 'shelf',
    lastDay: '2027-06-01',
    lastKind: 'best before',
    origin: 'bought',
  });
  for (let at = 0; at < 10; at++)
    await countShelf(coordinator, {
      moves: Array.from({ length: 200 }, (_, each) => ({
        id: v7(),
        lotId: id,
        packs: 5000 - at * 200 - each,
        grams: 0,
      })),
    });
  const before = store.queries();
  const { lots } = await viewStock(coordinator, {});
  expect(lots[0]?.now.packs).toBe(5000 - 1999);
  expect(store.queries() - before).toBeLessThanOrEqual(8);
});
