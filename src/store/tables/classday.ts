import type { Hurt } from '@/core/classday/first-steps';
import type { ClassValue, ClassWord } from '@/core/classday/live/class-events';
import type { Face } from '@/core/classday/tasting';
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
  said,
  table,
  whole,
} from './table';

/** What is said while a class runs; append-only, in an order of its class. Its id is made by the screen that sends it. */
export const classEvent = table(
  'class_event',
  { belongs: 'sessionId', joined: { keeps: 'its class was held' }, of: 'person' },
  {
    id: key(),
    sessionId: ref(),
    /** The group whose class it is; '' for the first, or the only one. */
    sitting: plain(),
    seq: whole(),
    what: plain<ClassWord>(),
    item: notes(),
    enrolmentId: maybe(ref()),
    value: said(json<ClassValue>('notes'), {}),
    at: moment(),
    actorId: ref(),
  },
);
export type ClassEventRow = RowOf<typeof classEvent>;

/** Somebody was hurt or unwell; append-only, and for coordinators alone. */
export const incident = table(
  'incident',
  { belongs: 'sessionId', joined: { keeps: 'something happened in it' }, of: 'person' },
  {
    id: key(),
    sessionId: ref(),
    /** The entry that this one adds to. */
    aboutId: maybe(ref()),
    enrolmentId: maybe(ref()),
    hurt: plain<Hurt>(),
    words: long(said(notes(), '')),
    /** Who was told, and when. */
    told: said(notes(), ''),
    /** 1: the emergency number was called. */
    hasCalled: whole(),
    at: moment(),
    actorId: ref(),
  },
);
export type IncidentRow = RowOf<typeof incident>;

/** What somebody thought of a dish they tried; append-only. */
export const tasting = table(
  'tasting',
  { belongs: 'sessionId', joined: { keeps: 'its dishes were tasted' }, of: 'person' },
  {
    id: key(),
    sessionId: ref(),
    dishId: ref(),
    face: plain<Face>(),
    /** Null where it was tapped without a name. */
    enrolmentId: maybe(ref()),
    at: moment(),
    actorId: ref(),
  },
);
export type TastingRow = RowOf<typeof tasting>;

/** That somebody came late, left early, or was fetched, and by whom; append-only, the newest of a kind counts. */
export const comingNote = table(
  'coming_note',
  { belongs: 'sessionId', joined: { keeps: 'it was noted who came late or went' }, of: 'person' },
  {
    id: key(),
    sessionId: ref(),
    enrolmentId: ref(),
    kind: plain<'late' | 'left early' | 'fetched' | 'taken back'>(),
    /** Who fetched them. */
    who: said(plain(), ''),
    at: moment(),
    actorId: ref(),
  },
);
export type ComingNoteRow = RowOf<typeof comingNote>;

/** What the families who cook later are told of the lesson. */
export const lessonNote = table(
  'lesson_note',
  { belongs: 'sessionId', joined: 'moves', copied: ['split', 'repeat'] },
  { sessionId: keyOf(ref()), words: long(notes()), version: whole() },
);
export type LessonNoteRow = RowOf<typeof lessonNote>;

/** A picture of what a family cooked, with what it may be used for, until its end. */
export const cookedPicture = table(
  'cooked_picture',
  {
    belongs: 'sessionId',
    joined: { keeps: 'families sent pictures of it' },
    of: 'person',
    retention: { days: 0, from: 'endsOn' },
  },
  {
    id: key(),
    sessionId: ref(),
    enrolmentId: ref(),
    kind: plain(),
    picture: said(bytes(), Buffer.alloc(0)),
    consent: plain<'programme' | 'public'>(),
    at: moment(),
    endsOn: day(),
  },
);
export type CookedPictureRow = RowOf<typeof cookedPicture>;

/** Minutes of a class in which nobody cooks, where they are not the usual ones. */
export const classMinutes = table(
  'class_minutes',
  { belongs: 'sessionId', loads: true, joined: 'goes', copied: ['split', 'repeat'] },
  { sessionId: keyOf(ref()), opening: whole(), demonstration: whole(), eating: whole(), cleaning: whole() },
);
export type ClassMinutesRow = RowOf<typeof classMinutes>;

/** What the run sheet of a class asks to be settled before it, as it was last worked out. */
export const classOutlook = table(
  'class_outlook',
  { belongs: 'sessionId', loads: true, joined: 'goes' },
  {
    sessionId: keyOf(ref()),
    /** The group whose class it is; '' for the first, or the only one. */
    sitting: keyOf(plain()),
    /** A sentence each; none where nothing is open. */
    settle: json<readonly string[]>('notes'),
    at: moment(),
  },
);
export type ClassOutlookRow = RowOf<typeof classOutlook>;
