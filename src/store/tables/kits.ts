import { json, key, keyOf, log, long, maybe, moment, notes, plain, type RowOf, ref, table, whole } from './table';

export const kit = table(
  'kit',
  { belongs: 'sessionId', joined: { keeps: 'kits of it have numbers' }, of: 'person' },
  {
    id: key(),
    sessionId: ref(),
    enrolmentId: ref(),
    number: whole(),
  },
);
export type KitRow = RowOf<typeof kit>;

export const kitSheet = table(
  'kit_sheet',
  { belongs: 'sessionId', joined: { keeps: 'its kit sheet is locked' } },
  {
    id: key(),
    sessionId: ref(),
    revision: whole(),
    fingerprint: plain(),
    /** The sheet as text, to the letter: the fingerprint is that of what it says. */
    snapshot: long(log()),
    lockedAt: moment(),
    lockedBy: ref(),
  },
);
export type KitSheetRow = RowOf<typeof kitSheet>;

export const kitExclusion = table(
  'kit_exclusion',
  { belongs: 'sessionId', loads: true, joined: 'goes', of: 'person' },
  {
    id: key(),
    sessionId: ref(),
    enrolmentId: ref(),
    reason: plain(),
  },
);
export type KitExclusionRow = RowOf<typeof kitExclusion>;

/** What was decided about a locked sheet: differences refused, or the sheet unlocked. */
export const sheetNote = table(
  'sheet_note',
  { belongs: 'sessionId', loads: true, joined: { keeps: 'its kit sheet was decided on' } },
  {
    id: key(),
    sessionId: ref(),
    kind: plain<'refused' | 'unlocked'>(),
    revision: whole(),
    basis: plain(),
    reason: log(),
    at: moment(),
    actorId: ref(),
  },
);
export type SheetNoteRow = RowOf<typeof sheetNote>;

export const productLabel = table(
  'product_label',
  { belongs: 'sessionId', loads: true, joined: 'moves', copied: ['split'] },
  {
    id: key(),
    sessionId: ref(),
    ingredient: plain(),
    product: notes(),
    allergens: json<readonly string[]>(),
  },
);
export type ProductLabelRow = RowOf<typeof productLabel>;

/** What a locked kit handed out of the supplies of its course, and drew from their jars; replaced with each lock. */
export const issue = table(
  'issue',
  { belongs: 'sessionId', joined: { keeps: 'its kits hand out supplies' }, of: 'person' },
  {
    sessionId: keyOf(ref()),
    enrolmentId: keyOf(ref()),
    supplyId: keyOf(plain()),
    units: whole(),
    /** Exact grams. */
    drawn: plain(),
    /** Codes of the label that was recorded for what is in a jar; null where there was none. */
    label: maybe(json<readonly string[]>()),
  },
);
export type IssueRow = RowOf<typeof issue>;
