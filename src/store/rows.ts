// The rows of the tables as plain data. JSON columns are text here; the queries of each room read and write them.

export interface ProgrammeRow {
  id: string;
  name: string;
  measureSystem: 'us' | 'metric';
  safetyProfile: 'us' | 'uk';
  timeZone: string;
  version: number;
}

export interface MemberRow {
  id: string;
  programmeId: string;
  email: string;
  name: string;
  role: string;
  passwordHash: string;
  version: number;
}

export interface ApiTokenRow {
  id: string;
  programmeId: string;
  name: string;
  role: string;
  tokenHash: string;
  expiresAt: Date;
}

export interface CourseRow {
  id: string;
  programmeId: string;
  title: string;
  audience: string;
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
  mode: string;
  version: number;
}

export interface RecipeRow {
  id: string;
  programmeId: string;
  title: string;
  body: string;
  version: number;
}

export interface DishRow {
  id: string;
  sessionId: string;
  recipeId: string;
  position: number;
}

export interface EnrolmentRow {
  id: string;
  courseId: string;
  name: string;
  age: number | null;
  servings: number;
  /** JSON list of avoidances as the family wrote them. */
  wishes: string;
  mode: string | null;
  status: 'enrolled' | 'withdrawn';
  version: number;
}

export interface AvoidanceMeaningRow {
  id: string;
  programmeId: string;
  wish: string;
  codes: string;
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
  action: 'packed' | 'undone';
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
