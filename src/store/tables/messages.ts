import { key, log, long, maybe, moment, type RowOf, ref, table } from './table';

export const message = table(
  'message',
  { belongs: 'programmeId', of: 'household', retention: { days: 90, from: 'createdAt' } },
  {
    id: key(),
    programmeId: ref(),
    sentTo: log(),
    subject: log(),
    /** Where it carries a link, the link's place is kept, and the link made when it is sent. */
    body: long(log()),
    createdAt: moment(),
    sentAt: maybe(moment()),
    linkId: maybe(ref()),
    /** The family it went to. */
    householdId: maybe(ref()),
    /** Who of the crew it went to. */
    crewId: maybe(ref()),
  },
);
export type MessageRow = RowOf<typeof message>;
