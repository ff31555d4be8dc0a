import type { LessonKind } from '@/core/closeout/lessons';
import {
  bytes,
  day,
  json,
  key,
  keyOf,
  long,
  maybe,
  moment,
  notes,
  plain,
  type RowOf,
  ref,
  table,
  whole,
} from './table';

/** What was seen after a session: what was left, bad or broken; appended, the newest of an item counts. */
export const closeNote = table(
  'close_note',
  { belongs: 'sessionId', joined: { keeps: 'it was closed out' } },
  {
    id: key(),
    sessionId: ref(),
    what: plain<'left' | 'bad' | 'trim' | 'broke' | 'note' | 'lot' | 'step' | 'job' | 'closed' | 'opened again'>(),
    /** A food, "carrot: peeled", a lot, a recipe with the place of a step, a job; '' for the session. */
    item: plain(),
    /** Of what was planned, that was left; that a step or a job took. */
    percent: maybe(whole()),
    /** Bad pieces, of so many; grams trimmed, of so many. */
    bad: maybe(whole()),
    pieces: maybe(whole()),
    words: long(notes()),
    at: moment(),
    actorId: ref(),
  },
);
export type CloseNoteRow = RowOf<typeof closeNote>;

/** What a person decided about a lesson; appended, and what was seen before a lesson was taken counts no more. */
export const lessonWord = table(
  'lesson_word',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    recipeId: maybe(ref()),
    kind: plain<LessonKind>(),
    /** A food, the place of a step, or a job with its course. */
    food: plain(),
    word: plain<'taken' | 'refused'>(),
    /** Per cent of what was planned; of a spare, per cent of what is used. */
    proposed: whole(),
    /** What was taken instead, where it was changed. */
    taken: maybe(whole()),
    at: moment(),
    actorId: ref(),
  },
);
export type LessonWordRow = RowOf<typeof lessonWord>;

/** A family that was asked after a session whether it cooked, and what was missing: once. */
export const askedAfter = table(
  'asked_after',
  { belongs: 'sessionId', joined: 'goes', of: 'household' },
  { sessionId: keyOf(ref()), householdId: keyOf(ref()), at: moment() },
);
export type AskedAfterRow = RowOf<typeof askedAfter>;

/** Somebody who is reported to, with their own wording, period, currency and logo. */
export const funder = table(
  'funder',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    name: notes(),
    /** What stands above the figures. */
    intro: long(notes()),
    /** What they call a figure, by its key. */
    words: json<Readonly<Record<string, string>>>('notes'),
    fromDay: maybe(day()),
    toDay: maybe(day()),
    /** '' for the programme's own; else what they count in, and how much of it one of the programme's is. */
    currency: plain(),
    rate: plain(),
    /** '' for none. */
    logoKind: plain<'' | 'image/png' | 'image/jpeg'>(),
    logo: bytes(),
    version: whole(),
  },
);
export type FunderRow = RowOf<typeof funder>;
