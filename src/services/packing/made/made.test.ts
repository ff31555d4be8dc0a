import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { update } from '@/store/query';
import type { Store } from '@/store/store';
import { NOW, newProgramme, newSession, testStore } from '../../../../tests/programme';
import { addLot, viewStock } from '../../buying/stock';
import { playInstrument } from '../../equipment/equipment';
import type { Context, Role } from '../../gate/gate';
import { addPlace } from '../../plan/places';
import { clearAfterFailure, viewColdFailure } from './cold-failure';
import { exportTemperatures, viewTemperatures } from './log';
import { beginBatch, endBatch, takeTemperature, viewMade } from './made';

let store: Store;
let own: Record<Role, Context>;
let sessionId: string;
beforeAll(async () => {
  store = await testStore();
  own = await newProgramme(store);
  const { programmeId } = own.coordinator.actor;
  await update(store.db, store.db.models.programme, { id: programmeId }, { safetyProfile: 'uk' });
  sessionId = (await newSession(own.coordinator, [{ name: 'Ada' }])).sessionId;
});
afterAll(() => store.close());

const after = (minutes: number): Context => ({ ...own.crew, clock: () => NOW.add({ minutes }) });

/** Something that cools, with what was seen of it after so many minutes. */
async function cooling(
  name: string,
  food: 'cooked' | 'rice',
  seen: readonly (readonly [minutes: number, degrees: string])[],
) {
  const id = v7();
  await beginBatch(own.crew, { sessionId, id, name, food, kind: 'cool', grams: '2000' });
  for (const [minutes, degrees] of seen)
    await takeTemperature(after(minutes), { sessionId, batchId: id, id: v7(), degrees });
  const at = async (minutes: number) => {
    const found = (await viewMade(after(minutes), { sessionId })).batches.find((batch) => batch.id === id);
    if (!found) throw new Error('It is not there.');
    return found;
  };
  const end = async (minutes: number, outcome: string) =>
    endBatch(after(minutes), { sessionId, batchId: id, version: (await at(minutes)).version, outcome });
  return { id, at, end };
}

describe('what cools', () => {
  it('is kept as a lot with its own last day, once it was seen cold enough in time', async () => {
    const { at, end } = await cooling('Lentil pot', 'cooked', [[30, '40']]);
    await expect(end(40, 'kept')).rejects.toThrow('not seen cold enough yet');
    const { id } = await at(40);
    await takeTemperature(after(85), { sessionId, batchId: id, id: v7(), degrees: '7.5 C' });
    expect((await at(86)).standing.state).toBe('reached');
    await end(86, 'kept');
    const [lot] = (await viewStock(own.crew, {})).lots;
    expect(lot).toMatchObject({ ingredient: 'Lentil pot', origin: 'made', lastDay: '2026-11-22', lastKind: 'use by' });
    expect(lot?.now.grams).toBe(2000);
  });

  it('too slowly is thrown away, not kept, and says so; rice has less time', async () => {
    const { at, end } = await cooling('Rice', 'rice', [
      [30, '40'],
      [58, '12'],
    ]);
    expect((await at(58)).standing.state).toBe('too slow');
    expect((await at(61)).standing.state).toBe('throw away');
    await expect(end(61, 'kept')).rejects.toThrow('Throw it away');
    await end(61, 'thrown away');
    await expect(
      takeTemperature(after(62), { sessionId, batchId: (await at(62)).id, id: v7(), degrees: '5' }),
    ).rejects.toMatchObject({ kind: 'stale' });
  });

  it('is read off the probe or typed as the thermometer shows it; once, however often it is sent', async () => {
    const { id, at } = await cooling('Stew', 'cooked', []);
    await playInstrument(own.crew, { device: 'probe', reading: '61.3' });
    const same = { sessionId, batchId: id, id: v7(), degrees: '' };
    await takeTemperature(after(1), same);
    await takeTemperature(after(1), same);
    await takeTemperature(after(2), { sessionId, batchId: id, id: v7(), degrees: '120F' });
    expect((await at(3)).readings.map(({ say, source }) => [say, source])).toEqual([
      ['61.3 °C', 'probe'],
      ['48.9 °C', 'typed'],
    ]);
    await expect(
      takeTemperature(after(3), { sessionId, batchId: id, id: v7(), degrees: 'warm' }),
    ).rejects.toMatchObject({ problems: [{ where: 'degrees' }] });
  });

  it('is on the log for an inspector, with who and when', async () => {
    const { batches } = await viewTemperatures(own.coordinator, {});
    expect(batches.map(({ name, outcome }) => [name, outcome])).toEqual(
      expect.arrayContaining([
        ['Lentil pot', 'kept'],
        ['Rice', 'thrown away'],
      ]),
    );
    // An evening in Denver is the next day in Greenwich.
    await update(
      store.db,
      store.db.models.programme,
      { id: own.coordinator.actor.programmeId },
      { timeZone: 'America/Denver' },
    );
    const late = { ...own.coordinator, clock: () => Temporal.Instant.from('2026-11-22T05:30:00Z') };
    await beginBatch(late, { sessionId, id: v7(), name: 'Late rice', food: 'rice', kind: 'cool', grams: '500' });
    expect((await viewTemperatures(late, {})).batches.map(({ name }) => name)).toContain('Late rice');
    expect((await viewTemperatures(late, { to: '2026-11-20' })).batches.map(({ name }) => name)).not.toContain(
      'Late rice',
    );
    await update(
      store.db,
      store.db.models.programme,
      { id: own.coordinator.actor.programmeId },
      { timeZone: 'Europe/London' },
    );
    const csv = await exportTemperatures(own.coordinator, {});
    expect(csv).toContain('7.5,typed,crew');
  });
});

describe('a fridge that failed', () => {
  it('at one place touches what stands there, or nobody knows where; only what is too warm for too long goes', async () => {
    const place = { seats: '', hours: [], equipment: {}, minutesBefore: 0, minutesAfter: 0, outdoor: null };
    const places: string[] = [];
    for (const name of ['Cold hall', 'Warm hall']) places.push(await addPlace(own.coordinator, { ...place, name }));
    const put = async (ingredient: string, placeId: string | null) => {
      const id = v7();
      const shelf = { storage: 'fridge', placeId, lastDay: '2026-12-10', lastKind: 'best before', origin: 'bought' };
      await addLot(own.crew, { id, ingredient, packs: 0, packGrams: null, grams: 500, labelRead: false, ...shelf });
      return id;
    };
    const [milk, carrots] = [await put('milk', places[1] as string), await put('carrot', places[1] as string)];
    const [elsewhere, anywhere] = [await put('milk', places[0] as string), await put('butter', null)];

    expect((await viewColdFailure(own.crew, {})).found).toBeUndefined();
    await expect(viewColdFailure(own.crew, { hours: '', degrees: '15' })).rejects.toMatchObject({ kind: 'invalid' });
    const happened = { storage: 'fridge', placeId: places[1], hours: '5', degrees: '15' };
    const { found } = await viewColdFailure(own.crew, happened);
    const verdicts = new Map(found?.lots.map(({ id, verdict }) => [id, verdict]));
    expect([milk, carrots, anywhere, elsewhere].map((id) => verdicts.get(id))).toEqual([
      'throw away',
      'look',
      'throw away',
      undefined,
    ]);
    await clearAfterFailure(own.coordinator, happened);
    const left = (await viewStock(own.crew, {})).lots.map(({ id }) => id);
    expect(left).toEqual(expect.arrayContaining([carrots, elsewhere]));
    expect(left).not.toEqual(expect.arrayContaining([milk]));
    expect(left).not.toEqual(expect.arrayContaining([anywhere]));
  });
});
