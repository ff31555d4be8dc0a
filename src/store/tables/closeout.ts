import { key, long, maybe, moment, notes, plain, type RowOf, ref, table, whole } from './table';

/** What was seen after a session: what was left, bad or broken; appended, the newest of an item counts. */
export const closeNote = table(
  'close_note',
  { belongs: 'sessionId', joined: { keeps: 'it was closed out' } },
  {
    id: key(),
    sessionId: ref(),
    what: plain<'left' | 'bad' | 'broke' | 'note' | 'closed'>(),
    /** A food, or a thing; '' for the session. */
    item: plain(),
    /** Of what was planned, that was left. */
    percent: maybe(whole()),
    /** Bad pieces, of so many. */
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
    food: plain(),
    word: plain<'taken' | 'refused'>(),
    /** Per cent of what was planned. */
    proposed: whole(),
    /** What was taken instead, where it was changed. */
    taken: maybe(whole()),
    at: moment(),
    actorId: ref(),
  },
);
export type LessonWordRow = RowOf<typeof lessonWord>;
