import type { BatchFood, BatchKind, Outcome } from '@/core/packing/made/batch';
import type { PrepAction } from '@/core/packing/prep/motion';
import type { PackAction } from '@/core/packing/progress';
import { day, key, keyOf, maybe, moment, notes, plain, type RowOf, ref, table, whole } from './table';

export const packEvent = table(
  'pack_event',
  { belongs: 'sessionId', joined: { keeps: 'its kits were packed' } },
  {
    id: key(),
    sessionId: ref(),
    kitId: ref(),
    component: plain(),
    action: plain<PackAction>(),
    seq: whole(),
    at: moment(),
    actorId: ref(),
  },
);
export type PackEventRow = RowOf<typeof packEvent>;

/** How far the events of a session's bench have been counted, and those of its hand-out. */
export const bench = table(
  'bench',
  { belongs: 'sessionId', joined: 'goes' },
  { sessionId: keyOf(ref()), seq: whole(), handedSeq: whole() },
);

/** Something that was made ahead, while it cools, is kept hot or cold, or is heated again. */
export const madeBatch = table(
  'made_batch',
  { belongs: 'sessionId', joined: { keeps: 'food was made for it' } },
  {
    id: key(),
    sessionId: ref(),
    name: notes(),
    food: plain<BatchFood>(),
    kind: plain<BatchKind>(),
    grams: maybe(whole()),
    /** Minutes for which it stands, at the least and at the most: what soaks, marinates or sets. */
    least: maybe(whole()),
    most: maybe(whole()),
    begunAt: moment(),
    endedAt: maybe(moment()),
    outcome: plain<Outcome>(),
    note: notes(),
    /** What it became on the shelf. */
    lotId: maybe(ref()),
    actorId: ref(),
    version: whole(),
  },
);
export type MadeBatchRow = RowOf<typeof madeBatch>;

/** A temperature that was taken; append-only. */
export const temperature = table(
  'temperature',
  { belongs: 'sessionId', joined: { keeps: 'temperatures were taken for it' } },
  {
    id: key(),
    sessionId: ref(),
    batchId: ref(),
    /** Tenths of a degree Celsius. */
    tenths: whole(),
    source: plain<'probe' | 'typed'>(),
    at: moment(),
    actorId: ref(),
  },
);
export type TemperatureRow = RowOf<typeof temperature>;

/** A motion of a prep day that was begun or done; append-only. Its id is made by the screen that sends it. */
export const prepEvent = table(
  'prep_event',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    day: day(),
    /** Order of the events of one day, from 1. */
    seq: whole(),
    motion: plain(),
    cut: plain(),
    grams: whole(),
    action: plain<PrepAction>(),
    at: moment(),
    actorId: ref(),
  },
);
export type PrepEventRow = RowOf<typeof prepEvent>;

/** What the scale said of a component of a kit; append-only. */
export const weighingIn = table(
  'weighing_in',
  { belongs: 'sessionId', joined: { keeps: 'its kits were packed' } },
  {
    id: key(),
    sessionId: ref(),
    kitId: ref(),
    component: plain(),
    /** Tenths of a gram. */
    tenths: whole(),
    at: moment(),
    actorId: ref(),
  },
);
export type WeighingInRow = RowOf<typeof weighingIn>;

/** From which tick on a food goes into kits from which lot; append-only. */
export const benchLot = table(
  'bench_lot',
  { belongs: 'sessionId', joined: { keeps: 'its kits were packed' } },
  {
    id: key(),
    sessionId: ref(),
    ingredient: plain(),
    lotId: ref(),
    fromSeq: whole(),
    at: moment(),
    actorId: ref(),
  },
);
export type BenchLotRow = RowOf<typeof benchLot>;

/** How many pack a session side by side. */
export const packLine = table(
  'pack_line',
  { belongs: 'sessionId', joined: 'goes' },
  { sessionId: keyOf(ref()), packers: whole(), version: whole() },
);
