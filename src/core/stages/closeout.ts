import { DAY } from '../plan/civil';
import { ALL } from './modes';
import type { Stage } from './stage';

/** Days after a session by which it is closed out. */
const CLOSE_DAYS = 2;

/** What is left, and what was learned. */
export const closeout: Stage<'closeout'> = {
  key: 'closeout',
  title: 'Close out',
  jobs: [
    {
      key: 'clean',
      title: 'Clean and put away',
      after: ['classday', 'handout'],
      effort: { fixed: 30 },
      hours: 'any',
      modes: ALL,
      perGroup: true,
      few: false,
      limits: ({ start }, { minutes }) => ({ finishBy: { at: start + minutes + 120, why: 'the room is left clean' } }),
    },
    {
      key: 'closeout',
      title: 'Close out',
      after: ['classday', 'clean', 'handout', 'send-later'],
      effort: { fixed: 20 },
      hours: 'any',
      modes: ALL,
      few: true,
      limits: ({ cookBy, last }, { modes }) => ({
        finishBy: {
          at: (modes.includes('follow-later') ? cookBy : last) + CLOSE_DAYS * DAY,
          why: 'while it is fresh in mind',
        },
      }),
    },
  ],
  page: ({ id }) => `/room/${id}/close`,
  go: 'Close it out',
};
