import { key, long, notes, plain, type RowOf, ref, table, whole } from './table';

export const programme = table(
  'programme',
  { belongs: 'id' },
  {
    id: key(),
    name: notes(),
    measureSystem: plain<'us' | 'metric'>(),
    safetyProfile: plain<'us' | 'uk'>(),
    timeZone: plain(),
    /** Months after a household's last session when its data is due to be erased. */
    retentionMonths: whole(),
    /** JSON: opening hours of the shops and working hours of the crew; what is left out is as usual. */
    workHours: long(plain()),
    /** JSON of what a kit too many and a kit too few cost (see ReserveCosts). */
    reserveCosts: long(plain()),
    /** JSON of what headings of roll files mean here (see ColumnWords). */
    columnWords: long(plain()),
    /** JSON list of the sizes that kits are packed in (see contracts/kits.ts). */
    containers: long(plain()),
    /** 1: its coordinators sign in with a code beside the password. */
    secondStep: whole(),
    version: whole(),
  },
);
export type ProgrammeRow = RowOf<typeof programme>;

export const avoidanceMeaning = table(
  'avoidance_meaning',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    wish: notes(),
    codes: long(plain()),
    /** Who said it, by name; '' for what was said before it was kept. */
    giverName: plain(),
  },
);
export type AvoidanceMeaningRow = RowOf<typeof avoidanceMeaning>;
