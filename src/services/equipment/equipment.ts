import { z } from 'zod';
import { SimulatedInstruments } from '@/devices/instruments';
import { printOutsOf } from '@/store/equipment';
import { findOne } from '@/store/query';
import { notFound } from '../errors';
import { nowOf, ROLES, service } from '../gate/gate';

/** What is on the instruments now, as plain data; null where one is switched off. */
export interface Readings {
  readonly grams: number | null;
  readonly celsius: number | null;
  readonly code: string | null;
}

export const readInstruments = service({
  title: 'Read the scale, the probe and the scanner',
  roles: ROLES,
  input: z.object({}),
  run: async (context): Promise<Readings> => {
    const instruments = new SimulatedInstruments(context.store);
    const { programmeId } = context.actor;
    const grams = await instruments.grams(programmeId);
    const celsius = await instruments.celsius(programmeId);
    const code = await instruments.code(programmeId);
    return { grams: grams?.value ?? null, celsius: celsius?.value ?? null, code: code?.value ?? null };
  },
});

const number = (unit: string, least: number, most: number) =>
  z.coerce
    .number(`Write a number of ${unit}.`)
    .min(least, `At least ${least} ${unit}.`)
    .max(most, `At most ${most} ${unit}.`);

export const playInstrument = service({
  title: 'Put something on a simulated instrument',
  roles: ROLES,
  input: z.discriminatedUnion('device', [
    z.object({ device: z.literal('scale'), reading: number('grams', 0, 30_000) }),
    z.object({ device: z.literal('probe'), reading: number('degrees Celsius', -40, 300) }),
    z.object({ device: z.literal('scanner'), reading: z.string().trim().max(190, 'At most 190 characters.') }),
  ]),
  run: async (context, { device, reading }) => {
    const instruments = new SimulatedInstruments(context.store);
    await instruments.set(context.actor.programmeId, device, String(reading), nowOf(context));
  },
});

export const listPrintOuts = service({
  title: 'See what lies in the label printer’s tray',
  roles: ['coordinator'],
  input: z.object({}),
  run: (context) => printOutsOf(context.store.db, { programmeId: context.actor.programmeId }),
});

export const viewPrintOut = service({
  title: 'Look at a print-out',
  roles: ['coordinator'],
  input: z.object({ printOutId: z.uuid() }),
  run: async (context, { printOutId }) => {
    const { db } = context.store;
    const found = await findOne(db, db.models.printOut, { id: printOutId, programmeId: context.actor.programmeId });
    if (!found) throw notFound('print-out');
    return { title: found.title, pdf: found.pdf };
  },
});
