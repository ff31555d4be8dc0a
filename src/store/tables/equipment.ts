import { bytes, key, keyOf, log, maybe, moment, notes, plain, type RowOf, ref, table, whole } from './table';

/** Pages that lie in the label printer's tray. */
export const printOut = table(
  'print_out',
  { belongs: 'programmeId', retention: { days: 14, from: 'at' } },
  {
    id: key(),
    programmeId: ref(),
    sessionId: maybe(ref()),
    title: log(),
    pages: whole(),
    pdf: bytes(),
    at: moment(),
  },
);
export type PrintOutRow = RowOf<typeof printOut>;

export const deviceReading = table(
  'device_reading',
  { belongs: 'programmeId' },
  {
    programmeId: keyOf(ref()),
    device: keyOf(plain()),
    reading: notes(),
    at: moment(),
  },
);
export type DeviceReadingRow = RowOf<typeof deviceReading>;
