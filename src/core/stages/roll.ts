import { DAY } from '../plan/civil';
import { ALL } from './modes';
import { plural, type Stage } from './stage';

/** Who comes. */
export const roll: Stage<'roll'> = {
  key: 'roll',
  title: 'Roll',
  jobs: [
    {
      key: 'roll',
      title: 'Close the roll',
      after: [],
      effort: { fixed: 15 },
      hours: 'any',
      modes: ALL,
      few: true,
      byItself: true,
      limits: ({ start }, { rollClosesDays }) => ({
        finishBy: { at: start - rollClosesDays * DAY, why: `the roll closes ${rollClosesDays} days before` },
      }),
    },
  ],
  standing: ({ participants, unknownNeeds }) => {
    if (participants === 0) return { state: 'can start', why: 'Nobody is on the roll yet.' };
    return unknownNeeds > 0
      ? {
          state: 'doing',
          why: `${plural(unknownNeeds, 'avoidance')} on the roll still need${unknownNeeds === 1 ? 's' : ''} a meaning.`,
        }
      : { state: 'done', why: `${participants} on the roll.` };
  },
  page: ({ id, courseId }) => `/courses/${courseId}/roll?session=${id}`,
  go: 'Open the roll',
};
