// The rows of the tables as plain data. JSON columns are text here; the queries of each room read and write them.
import type { PackAction } from '@/core/packing/progress';
import type { OnClosure } from '@/core/plan/cadence';
import type { AttendanceState } from '@/core/roll/attendance';
import type { RollStatus } from '@/core/roll/waitlist';

export interface ProgrammeRow {
  id: string;
  name: string;
  measureSystem: 'us' | 'metric';
  safetyProfile: 'us' | 'uk';
  timeZone: string;
  /** Months after a household's last session when its data is due to be erased. */
  retentionMonths: number;
  /** JSON: opening hours of the shops and working hours of the crew; what is left out is as usual. */
  workHours: string;
  /** JSON of what a kit too many and a kit too few cost (see ReserveCosts). */
  reserveCosts: string;
  /** JSON of what headings of roll files mean here (see ColumnWords). */
  columnWords: string;
  /** JSON list of the sizes that kits are packed in (see contracts/kits.ts). */
  containers: string;
  /** 1: its coordinators sign in with a code beside the password. */
  secondStep: number;
  version: number;
}

export interface MemberRow {
  id: string;
  programmeId: string;
  email: string;
  name: string;
  role: string;
  passwordHash: string;
  status: 'active' | 'removed';
  /** The secret of the second step, sealed; null while there is none. */
  totp: string | null;
  /** The last step of time whose code was used: a code works once. */
  totpStep: number;
  version: number;
}
/** A code that stands in for the second step once, when the telephone is lost. */
export interface RecoveryCodeRow {
  id: string;
  memberId: string;
  codeHash: string;
  usedAt: Date | null;
}
/** A browser that a member has signed in from: others' guesses do not lock it out. */
export interface KnownDeviceRow {
  id: string;
  memberId: string;
  tokenHash: string;
  createdAt: Date;
  seenAt: Date;
}
/** Something that whoever guards the doors wants to know of. */
export interface SecurityEventRow {
  id: string;
  /** null where it belongs to no programme: an address nobody has. */
  programmeId: string | null;
  at: Date;
  kind: string;
  actorId: string | null;
  ip: string;
  detail: string;
}

export interface ApiTokenRow {
  id: string;
  programmeId: string;
  name: string;
  role: string;
  tokenHash: string;
  createdAt: Date;
  expiresAt: Date;
  revokedAt: Date | null;
  /** The member who made it; null where nobody knows. */
  createdBy: string | null;
}

export interface CourseRow {
  id: string;
  programmeId: string;
  title: string;
  audience: string;
  /** First and last day of its season, YYYY-MM-DD. */
  seasonFrom: string | null;
  seasonTo: string | null;
  /** JSON, see core/plan/cadence.ts; null when sessions are added one by one. */
  cadence: string | null;
  onClosure: OnClosure;
  capacity: number | null;
  /** Per kit, in the programme's smallest coin. */
  budgetCents: number | null;
  /** How a free place is given away (see WAITLIST_RULES). */
  waitlistRule: string;
  instructorId: string | null;
  rollClosesDays: number;
  /** JSON: equipment that a class of it needs. */
  uses: string;
  /** JSON: what is changed about the usual jobs. */
  jobs: string;
  /** JSON of what goes with its kits beside measured food (see KitRules in contracts/kits.ts). */
  kitRules: string;
  /** JSON of the most people that come in each mode; a mode left out has no limit of its own. */
  modePlaces: string;
  notes: string;
  version: number;
}

export interface SessionRow {
  id: string;
  courseId: string;
  number: number;
  title: string;
  /** Civil date, YYYY-MM-DD. */
  date: string;
  /** Civil time, HH:MM, in the programme's time zone. */
  startsAt: string;
  minutes: number;
  place: string;
  placeId: string | null;
  instructorId: string | null;
  mode: string;
  status: 'planned' | 'cancelled';
  /** Raised with each change that a calendar must hear of. */
  sequence: number;
  /** By when families cook what they get after the lesson, YYYY-MM-DD. */
  cookBy: string | null;
  /** Why it is not where its cadence had it; '' when it is. */
  because: string;
  /** JSON: what is changed about this session's jobs. */
  jobs: string;
  /** JSON of what is made beside its kits (see ExtrasWanted). */
  extras: string;
  version: number;
}

/** One of the groups that a course is given to. The first of a course meets when and where its sessions say. */
export interface CourseGroupRow {
  id: string;
  courseId: string;
  name: string;
  /** 0 for the first. */
  position: number;
  /** Where the group usually meets: so many days after the session's own date, at this hour; null for the first. */
  daysAfter: number;
  startsAt: string | null;
  place: string;
  placeId: string | null;
  instructorId: string | null;
  ended: number;
  version: number;
}

/** When and where a group other than the first meets for a session. */
export interface SittingRow {
  sessionId: string;
  groupId: string;
  date: string;
  startsAt: string;
  place: string;
  placeId: string | null;
  instructorId: string | null;
  status: 'planned' | 'cancelled';
}

export interface PlaceRow {
  id: string;
  programmeId: string;
  name: string;
  seats: number | null;
  /** JSON list of opening hours. */
  hours: string;
  /** JSON counts. */
  equipment: string;
  minutesBefore: number;
  minutesAfter: number;
  shared: number;
  /** JSON; null for a place under a roof. */
  outdoor: string | null;
  version: number;
}

export interface TravelRow {
  fromId: string;
  toId: string;
  minutes: number;
}

export interface ClosureCalendarRow {
  id: string;
  programmeId: string;
  name: string;
  kind: 'public' | 'imported' | 'own';
  /** Country and region of public holidays: "US-ny"; '' otherwise. */
  region: string;
  /** Only this place is closed. */
  placeId: string | null;
}

export interface ClosureRow {
  id: string;
  calendarId: string;
  title: string;
  fromDate: string;
  toDate: string;
  fromTime: string | null;
  toTime: string | null;
}

/** A job that only one session has. */
export interface SessionJobRow {
  id: string;
  sessionId: string;
  title: string;
  stage: string;
  minutes: number;
  hours: string;
  beforeKey: string;
}

/** A change of the plan that can be taken back. */
export interface PlanChangeRow {
  id: string;
  programmeId: string;
  at: Date;
  actorId: string;
  said: string;
  /** JSON: each session as it was before with its sittings, and its version after. */
  sessions: string;
  undoneAt: Date | null;
}

/** An address under which a calendar program reads a part of the plan. */
export interface CalendarFeedRow {
  id: string;
  programmeId: string;
  scope: 'programme' | 'course' | 'place' | 'instructor';
  scopeId: string | null;
  withJobs: number;
  tokenHash: string;
  createdAt: Date;
  revokedAt: Date | null;
  createdBy: string | null;
}

export interface RecipeRow {
  id: string;
  programmeId: string;
  title: string;
  body: string;
  version: number;
  /** The recipe that it is a local variation of, and the version of it that it was made from. */
  parentId: string | null;
  parentVersion: number | null;
}

/** A recipe as it was saved once; append-only. */
export interface RecipeVersionRow {
  recipeId: string;
  version: number;
  title: string;
  body: string;
  at: Date;
  actorId: string | null;
}

/** A pack that a programme buys, with what is on its label. */
export interface ProductRow {
  id: string;
  programmeId: string;
  ingredient: string;
  name: string;
  /** Exact decimal. */
  packGrams: string;
  /** Minor units of money. */
  price: number | null;
  /** JSON list of allergen codes; null while nobody has read the label. */
  allergens: string | null;
  /** For 100 g. */
  saltMg: number | null;
  energyKj: number | null;
  readAt: Date | null;
  readBy: string | null;
  /** 1: it is what the programme buys, and kits take its label. At most one of a food. */
  inKits: number;
  version: number;
}

/** Days that a food keeps here: fewer than the table says. */
export interface KeepingLimitRow {
  programmeId: string;
  ingredient: string;
  daysWhole: number | null;
  daysOpened: number | null;
}

/** A food that a programme added to the reference table. */
export interface OwnFoodRow {
  id: string;
  programmeId: string;
  name: string;
  /** JSON: its facts, weights and yields. */
  body: string;
  version: number;
}

/** A measure of a food put on the programme's own scale; the newest one counts. */
export interface WeighingRow {
  id: string;
  programmeId: string;
  ingredient: string;
  preparation: string;
  measure: string;
  grams: string;
  at: Date;
  actorId: string;
}

export interface DishRow {
  id: string;
  sessionId: string;
  recipeId: string;
  position: number;
  /** JSON list of what fills its flexible slots: { written, chosen } by food. */
  fillings: string;
  /** Servings made before class, to be shown or eaten; 0 for none. */
  swapIn: number;
  /** JSON list of how its lines travel, where they are not measured: { ingredient, way }. */
  ways: string;
  /** So many of this class’s servings the recipe gives; null: as it is written. */
  serves: number | null;
}

export interface EnrolmentRow {
  id: string;
  courseId: string;
  householdId: string;
  name: string;
  age: number | null;
  servings: number;
  /** JSON list of avoidances as the family wrote them. */
  wishes: string;
  /** What the family says to do when something goes wrong; '' when nothing is written. */
  actionPlan: string;
  mode: string | null;
  /** The group they come with; null for the first. */
  groupId: string | null;
  status: RollStatus | 'erased';
  /** Civil date since which the status holds; null where nobody wrote it down. */
  since: string | null;
  /** 1: one kit with the others of the household that say so. */
  sharedKit: number;
  version: number;
}

/** Somebody who misses a session, or comes to it another way. */
export interface AwayRow {
  sessionId: string;
  enrolmentId: string;
  /** null: does not come, and gets no kit. */
  mode: string | null;
}

/** What a locked kit handed out of the supplies of its course, and drew from their jars; replaced with each lock. */
export interface IssueRow {
  sessionId: string;
  enrolmentId: string;
  supplyId: string;
  units: number;
  /** Exact grams. */
  drawn: string;
  /** JSON of the label that was recorded for what is in a jar; null where there was none. */
  label: string | null;
}

/** What became of a kit that nobody fetched: appended, the newest counts. */
export interface KitFateRow {
  id: string;
  sessionId: string;
  kitId: string;
  fate: string;
  /** The enrolment that took it over; null where nobody did. */
  toId: string | null;
  at: Date;
  actorId: string;
}

/** What was seen of somebody at a session: appended, the newest of its kind counts. */
export interface AttendanceRow {
  id: string;
  sessionId: string;
  enrolmentId: string;
  state: AttendanceState;
  at: Date;
  actorId: string;
}

/** What was decided about a locked sheet: differences refused, or the sheet unlocked. */
export interface SheetNoteRow {
  id: string;
  sessionId: string;
  kind: 'refused' | 'unlocked';
  revision: number;
  basis: string;
  reason: string;
  at: Date;
  actorId: string;
}

export interface AvoidanceMeaningRow {
  id: string;
  programmeId: string;
  wish: string;
  codes: string;
  /** Who said it, by name; '' for what was said before it was kept. */
  giverName: string;
}

export interface ProductLabelRow {
  id: string;
  sessionId: string;
  ingredient: string;
  product: string;
  allergens: string;
}

export interface KitExclusionRow {
  id: string;
  sessionId: string;
  enrolmentId: string;
  reason: string;
}

export interface KitRow {
  id: string;
  sessionId: string;
  enrolmentId: string;
  number: number;
}

export interface KitSheetRow {
  id: string;
  sessionId: string;
  revision: number;
  fingerprint: string;
  snapshot: string;
  lockedAt: Date;
  lockedBy: string;
}

export interface PackEventRow {
  id: string;
  sessionId: string;
  kitId: string;
  component: string;
  action: PackAction;
  seq: number;
  at: Date;
  actorId: string;
}

export interface StageMarkRow {
  id: string;
  sessionId: string;
  stage: string;
  done: number;
  at: Date;
  actorId: string;
}

export interface ChangeRow {
  id: string;
  programmeId: string;
  at: Date;
  actorId: string | null;
  action: string;
  entity: string;
  entityId: string;
  detail: string;
}

/** One browser signed in; it ends by time, by signing out, or from afar. */
export interface SignInRow {
  id: string;
  memberId: string;
  device: string;
  createdAt: Date;
  expiresAt: Date;
  endedAt: Date | null;
  /** When it was last used, to within a few minutes: it ends when it lies idle. */
  seenAt: Date;
  /** When the password was last given in it. */
  provenAt: Date;
  /** 1: the second step has not been taken yet. */
  awaitsCode: number;
}

/** A link that works once, until it ends: an invitation, or a new password. */
export interface AccessLinkRow {
  id: string;
  programmeId: string;
  purpose: 'invite' | 'reset';
  /** '' in the first coordinator's link: they give their own. */
  email: string;
  role: string | null;
  memberId: string | null;
  tokenHash: string;
  createdAt: Date;
  expiresAt: Date;
  usedAt: Date | null;
  createdBy: string | null;
}

export interface HouseholdRow {
  id: string;
  programmeId: string;
  name: string;
  contact: string;
  address: string;
  /** JSON of what they have and agreed to (see HomeFacts in contracts/kits.ts). */
  home: string;
  createdAt: Date;
  erasedAt: Date | null;
  version: number;
}

/** Somebody looked at what people must avoid. */
export interface NeedLookRow {
  id: string;
  programmeId: string;
  actorId: string;
  actorName: string;
  page: string;
  entityId: string;
  people: number;
  at: Date;
}

export interface MessageRow {
  id: string;
  programmeId: string;
  sentTo: string;
  subject: string;
  /** Where it carries a link, the link's place is kept, and the link made when it is sent. */
  body: string;
  createdAt: Date;
  sentAt: Date | null;
  linkId: string | null;
  /** The family it went to. */
  householdId: string | null;
}

export interface JobRow {
  id: string;
  programmeId: string;
  kind: string;
  input: string;
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  attempts: number;
  /** Percent. */
  progress: number;
  /** What came of it, as JSON; the reason when it failed. */
  result: string;
  owner: string | null;
  leaseUntil: Date | null;
  cancelAsked: number;
  createdAt: Date;
  createdBy: string | null;
  notBefore: Date;
  finishedAt: Date | null;
}

/** Pages that lie in the label printer's tray. */
export interface PrintOutRow {
  id: string;
  programmeId: string;
  sessionId: string | null;
  title: string;
  pages: number;
  pdf: Buffer;
  at: Date;
}

export interface DeviceReadingRow {
  programmeId: string;
  device: string;
  reading: string;
  at: Date;
}

export interface IdempotentReplyRow {
  actorId: string;
  idempotencyKey: string;
  request: string;
  programmeId: string;
  /** What the request's transaction came to, as JSON. */
  body: string;
  createdAt: Date;
}
