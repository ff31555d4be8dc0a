import { DAY } from '../plan/civil';
import { ALL } from './modes';
import type { Stage } from './stage';

/** What is cooked. */
export const recipes: Stage<'recipes'> = {
  key: 'recipes',
  title: 'Dishes',
  jobs: [
    {
      key: 'recipes',
      title: 'Settle the dishes',
      after: [],
      effort: { fixed: 0, perDish: 30 },
      hours: 'any',
      modes: ALL,
      few: true,
      byItself: true,
      limits: ({ start }) => ({ finishBy: { at: start - 10 * DAY, why: 'dishes are settled ten days before' } }),
    },
  ],
  standing: ({ dishes }) =>
    dishes > 0
      ? { state: 'done', why: `${dishes} ${dishes === 1 ? 'dish' : 'dishes'} chosen.` }
      : { state: 'can start', why: 'No dish is chosen yet: nothing can be calculated.' },
  page: ({ id }) => `/sessions/${id}#dishes`,
  go: 'Choose dishes',
};
