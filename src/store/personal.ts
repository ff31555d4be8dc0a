import type { Models } from './models';

/** How a row belongs to its programme: by a column of its own, or through what it is part of. */
export type Belonging = 'id' | 'programmeId' | 'courseId' | 'sessionId' | 'recipeId' | 'calendarId' | 'memberId';

/**
 * What a table holds of families. Exporting, erasing and retention go by this; it has to be said for every table and every
 * column of text, or the program does not compile (the table) or its test fails (the column).
 */
export interface Personal {
  readonly belongs: Belonging;
  /** Rows of one person, or of a household: they are taken out with it. */
  readonly of?: 'person' | 'household';
  /** The column that names the person or household; `enrolmentId` and `householdId` where it is not said. */
  readonly by?: string;
  /**
   * Columns where somebody may have written about a family, and which are not theirs: what was erased is taken out of the
   * words. In a `log` the words are the program's own copies; in `notes` people write freely, and only whole names, and
   * what a family is reached by, are sure to be theirs.
   */
  readonly log?: readonly string[];
  readonly notes?: readonly string[];
  /** Columns of text that hold nothing of a family: codes, sizes, the names of foods. */
  readonly plain?: readonly string[];
  /** Days that rows are kept from a moment of theirs; others stay until a person removes them. */
  readonly kept?: { readonly days: number; readonly from: string };
}

const MODE = ['mode'];

/** For every table, what it holds of families. */
export const PERSONAL: { readonly [Table in keyof Models]: Personal } = {
  programme: {
    belongs: 'id',
    notes: ['name'],
    plain: ['measureSystem', 'safetyProfile', 'timeZone', 'workHours', 'reserveCosts', 'columnWords', 'containers'],
  },
  // Those who work with the programme: their data ends with their membership.
  member: { belongs: 'programmeId', plain: ['email', 'name', 'role', 'passwordHash', 'status', 'totp'] },
  apiToken: { belongs: 'programmeId', notes: ['name'], plain: ['role', 'tokenHash'] },
  recoveryCode: { belongs: 'memberId', plain: ['codeHash'] },
  knownDevice: { belongs: 'memberId', plain: ['tokenHash'], kept: { days: 180, from: 'seenAt' } },
  securityEvent: { belongs: 'programmeId', plain: ['kind', 'ip', 'detail'], kept: { days: 365, from: 'at' } },
  signIn: { belongs: 'memberId', plain: ['device'], kept: { days: 90, from: 'expiresAt' } },
  accessLink: {
    belongs: 'programmeId',
    plain: ['purpose', 'email', 'role', 'tokenHash'],
    kept: { days: 90, from: 'expiresAt' },
  },
  course: {
    belongs: 'programmeId',
    notes: ['title', 'audience', 'notes', 'jobs', 'kitRules'],
    plain: ['cadence', 'onClosure', 'waitlistRule', 'uses', 'modePlaces'],
  },
  courseGroup: { belongs: 'courseId', notes: ['name', 'place'], plain: ['startsAt'] },
  session: {
    belongs: 'courseId',
    notes: ['title', 'place', 'because', 'jobs', 'extras'],
    plain: ['startsAt', 'mode', 'status'],
  },
  sitting: { belongs: 'sessionId', notes: ['place'], plain: ['startsAt', 'status'] },
  sessionJob: { belongs: 'sessionId', notes: ['title'], plain: ['stage', 'hours', 'beforeKey'] },
  recipe: { belongs: 'programmeId', notes: ['title', 'body'] },
  recipeVersion: { belongs: 'recipeId', notes: ['title', 'body'] },
  ownFood: { belongs: 'programmeId', notes: ['name', 'body'] },
  weighing: { belongs: 'programmeId', plain: ['ingredient', 'preparation', 'measure', 'grams'] },
  product: { belongs: 'programmeId', notes: ['name'], plain: ['ingredient', 'packGrams', 'allergens'] },
  keepingLimit: { belongs: 'programmeId', plain: ['ingredient'] },
  dish: { belongs: 'sessionId', plain: ['fillings', 'ways'] },
  household: { belongs: 'programmeId', of: 'household', by: 'id', plain: ['name', 'contact', 'address', 'home'] },
  enrolment: {
    belongs: 'courseId',
    of: 'person',
    by: 'id',
    plain: ['name', 'wishes', 'actionPlan', 'mode', 'status'],
  },
  away: { belongs: 'sessionId', of: 'person', plain: MODE },
  issue: { belongs: 'sessionId', of: 'person', plain: ['supplyId', 'drawn', 'label'] },
  attendance: { belongs: 'sessionId', of: 'person', plain: ['state'] },
  kitExclusion: { belongs: 'sessionId', of: 'person', plain: ['reason'] },
  kit: { belongs: 'sessionId', of: 'person' },
  kitFate: { belongs: 'sessionId', of: 'person', by: 'toId', plain: ['fate'] },
  sheetNote: { belongs: 'sessionId', log: ['reason'], plain: ['kind', 'basis'] },
  avoidanceMeaning: { belongs: 'programmeId', notes: ['wish'], plain: ['codes', 'giverName'] },
  productLabel: { belongs: 'sessionId', notes: ['product'], plain: ['ingredient', 'allergens'] },
  kitSheet: { belongs: 'sessionId', log: ['snapshot'], plain: ['fingerprint'] },
  packEvent: { belongs: 'sessionId', plain: ['component', 'action'] },
  stageMark: { belongs: 'sessionId', plain: ['stage'] },
  change: { belongs: 'programmeId', log: ['detail'], plain: ['action', 'entity'] },
  needLook: { belongs: 'programmeId', plain: ['actorName', 'page'], kept: { days: 730, from: 'at' } },
  message: {
    belongs: 'programmeId',
    of: 'household',
    log: ['sentTo', 'subject', 'body'],
    kept: { days: 90, from: 'createdAt' },
  },
  job: {
    belongs: 'programmeId',
    log: ['input', 'result'],
    plain: ['kind', 'state', 'owner'],
    kept: { days: 30, from: 'finishedAt' },
  },
  // Pages of labels: those of a family's sessions go with it, since they cannot be rewritten.
  printOut: { belongs: 'programmeId', log: ['title'], kept: { days: 14, from: 'at' } },
  deviceReading: { belongs: 'programmeId', notes: ['reading'], plain: ['device'] },
  idempotentReply: {
    belongs: 'programmeId',
    log: ['body'],
    plain: ['idempotencyKey', 'request'],
    kept: { days: 1, from: 'createdAt' },
  },
  place: { belongs: 'programmeId', notes: ['name'], plain: ['hours', 'equipment', 'outdoor'] },
  travel: { belongs: 'programmeId' },
  closureCalendar: { belongs: 'programmeId', notes: ['name'], plain: ['kind', 'region'] },
  closure: { belongs: 'calendarId', notes: ['title'], plain: ['fromTime', 'toTime'] },
  planChange: { belongs: 'programmeId', log: ['said', 'sessions'] },
  calendarFeed: { belongs: 'programmeId', plain: ['scope', 'tokenHash'] },
};
