import { key, maybe, moment, plain, type RowOf, ref, table } from './table';

/** What became of a kit that nobody fetched: appended, the newest counts. */
export const kitFate = table(
  'kit_fate',
  { belongs: 'sessionId', joined: { keeps: 'it was said what became of its kits' }, of: 'person', by: 'toId' },
  {
    id: key(),
    sessionId: ref(),
    kitId: ref(),
    fate: plain(),
    /** The enrolment that took it over; null where nobody did. */
    toId: maybe(ref()),
    at: moment(),
    actorId: ref(),
  },
);
export type KitFateRow = RowOf<typeof kitFate>;
