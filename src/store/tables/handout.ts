import type { RoundStop } from '@/core/handout/doors/round';
import type { Handing } from '@/core/handout/handing';
import { day, json, key, maybe, moment, plain, type RowOf, ref, said, table, whole } from './table';

/** What happened to a kit at the table or at a door; append-only, in an order of its session. Its id is made by the screen that sends it. */
export const handOut = table(
  'hand_out',
  { belongs: 'sessionId', loads: true, joined: { keeps: 'its kits were handed out' }, of: 'person' },
  {
    id: key(),
    sessionId: ref(),
    kitId: ref(),
    enrolmentId: ref(),
    seq: whole(),
    what: plain<Handing>(),
    /** Who took it; '' for whom it is for. */
    who: said(plain(), ''),
    /** What was lent or brought back; the id of what is undone. */
    item: plain(),
    roundId: maybe(ref()),
    /** 1: said by a phone that had no network then. */
    wasAway: whole(),
    at: moment(),
    actorId: ref(),
  },
);
export type HandOutRow = RowOf<typeof handOut>;

/** A driver’s round to the doors of a session, as it was planned last. */
export const doorRound = table(
  'door_round',
  { belongs: 'sessionId', joined: { keeps: 'rounds to the doors are planned for it' } },
  {
    id: key(),
    sessionId: ref(),
    date: day(),
    crewId: maybe(ref()),
    /** Who drives, where they are not of the crew. */
    driver: plain(),
    /** On duty between these minutes of the day. */
    fromMinute: whole(),
    toMinute: whole(),
    litres: maybe(whole()),
    isHome: whole(),
    leaves: whole(),
    stops: json<readonly RoundStop[]>(),
    leftAt: maybe(moment()),
    endedAt: maybe(moment()),
    /** When families were told that it runs late. */
    toldLateAt: maybe(moment()),
    version: whole(),
  },
);
export type DoorRoundRow = RowOf<typeof doorRound>;

/** What a family said of its kit; appended, the newest counts. */
export const kitWord = table(
  'kit_word',
  { belongs: 'sessionId', joined: 'goes', of: 'person' },
  {
    id: key(),
    sessionId: ref(),
    enrolmentId: ref(),
    word: plain<'confirmed' | 'later' | 'card' | 'cooked' | 'not cooked'>(),
    note: said(plain(), ''),
    at: moment(),
  },
);
export type KitWordRow = RowOf<typeof kitWord>;

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
