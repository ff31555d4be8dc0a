import { DAY } from '../plan/civil';
import { ALL } from './modes';
import type { Stage } from './stage';

/** Days that fresh food keeps before a session: the usual caution, which a course may only make stricter. */
const FRESH_DAYS = 5;

/** What is bought, and received. */
export const buying: Stage<'buying'> = {
  key: 'buying',
  title: 'Buy',
  jobs: [
    {
      key: 'buying',
      title: 'Shop',
      after: ['kits'],
      effort: { fixed: 60, perKit: 1 },
      hours: 'shop',
      modes: ALL,
      few: true,
      limits: ({ start, last, isTaught, later }) => ({
        notBefore: {
          at: later ? start : last - FRESH_DAYS * DAY,
          why: `fresh food keeps about ${FRESH_DAYS} days`,
        },
        ...(isTaught && !later ? { finishBy: { at: start, why: 'the class starts' } } : {}),
      }),
    },
    {
      key: 'receive',
      title: 'Receive and store',
      after: ['buying'],
      effort: { fixed: 20 },
      hours: 'crew',
      modes: ALL,
      few: false,
    },
  ],
  standing: ({ marked, revision }) => {
    if (marked.has('buying')) return { state: 'done', why: 'The shopping is done.' };
    return revision > 0
      ? { state: 'can start', why: 'The kit sheet is locked: the list is ready.' }
      : { state: 'due later', why: 'The list is a draft until the kit sheet is locked.' };
  },
  page: ({ id }) => `/sessions/${id}/buying`,
  go: 'Open the shopping list',
};
