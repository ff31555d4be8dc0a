import type { CourseRow, SessionRow } from './tables/plan';
import type { ProgrammeRow } from './tables/programme';

/** A programme as it begins: US measures and profile, the usual hours. */
export const freshProgramme = (
  given: Pick<ProgrammeRow, 'id' | 'name' | 'timeZone'> & Partial<ProgrammeRow>,
): ProgrammeRow => ({
  cityId: null,
  measureSystem: 'us',
  safetyProfile: 'us',
  retentionMonths: 24,
  country: '',
  currency: '',
  firstRun: {},
  workHours: {},
  reserveCosts: {},
  columnWords: {},
  containers: [],
  manner: null,
  adultRatios: {},
  roads: {},
  classWords: {},
  secondStep: 0,
  version: 1,
  ...given,
});

/** A course without a season yet. */
export const freshCourse = (
  given: Pick<CourseRow, 'id' | 'programmeId' | 'title'> & Partial<CourseRow>,
): CourseRow => ({
  audience: '',
  seasonFrom: null,
  seasonTo: null,
  cadence: null,
  onClosure: 'move',
  capacity: null,
  budgetCents: null,
  waitlistRule: 'first come',
  instructorId: null,
  rollClosesDays: 5,
  uses: {},
  jobs: {},
  kitRules: {},
  modePlaces: {},
  notes: '',
  version: 1,
  ...given,
});

type GivenSession = Pick<
  SessionRow,
  'id' | 'courseId' | 'number' | 'title' | 'date' | 'startsAt' | 'minutes' | 'place' | 'mode'
>;

/** A session as it is first planned. */
export const freshSession = (given: GivenSession & Partial<SessionRow>): SessionRow => ({
  placeId: null,
  instructorId: null,
  status: 'planned',
  sequence: 0,
  cookBy: null,
  because: '',
  jobs: {},
  extras: {},
  version: 1,
  ...given,
});
