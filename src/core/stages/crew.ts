import { DAY } from '../plan/civil';
import { ALL } from './modes';
import type { Stage } from './stage';

/** Days before a session by which its crew is to be known. */
const CREW_DAYS = 3;

/** Who does what. */
export const crew: Stage<'crew'> = {
  key: 'crew',
  title: 'Crew',
  jobs: [
    {
      key: 'crew',
      title: 'Confirm the crew',
      after: [],
      effort: { fixed: 30 },
      hours: 'any',
      modes: ALL,
      few: false,
      limits: ({ start }) => ({
        finishBy: { at: start - CREW_DAYS * DAY, why: `the crew is known ${CREW_DAYS} days before` },
      }),
    },
  ],
};
