import { addDays, civilOf } from '../plan/civil';
import type { Stage } from './stage';

/** Days before a session by which it is planned. */
const PLAN_DAYS = 21;

/** When, where and how it takes place. */
export const plan: Stage<'plan'> = {
  key: 'plan',
  title: 'Plan',
  jobs: [],
  standing: () => ({ state: 'done', why: 'Date, place and mode are set.' }),
  latest: ({ date, startsAt }) => civilOf(addDays(date, -PLAN_DAYS), startsAt),
  page: ({ id }) => `/sessions/${id}`,
  go: 'Open the plan',
};
